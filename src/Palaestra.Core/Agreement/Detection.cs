using MathNet.Numerics.Distributions;

namespace Palaestra.Core.Agreement;

/// <summary>What a rater made of items that had a fault and of items that had none.</summary>
/// <param name="Faulty">Items with it, at least 1. <paramref name="Hits"/>: those that were marked.</param>
/// <param name="Clean">Items without it, at least 1. <paramref name="FalseMarks"/>: those that were marked all the same.</param>
public sealed record Detection(int Faulty, int Hits, int Clean, int FalseMarks)
{
    /// <summary>Share of the faulty that were marked, 0 to 1.</summary>
    public double Sensitivity => (double)Hits / Faulty;

    /// <summary>Share of the clean that were marked, 0 to 1.</summary>
    public double FalseAlarms => (double)FalseMarks / Clean;

    /// <summary>How well faults are told from none, whatever the readiness to mark: 0, not at all; 1, fairly; 3, nearly always.</summary>
    /// <remarks>
    /// Macmillan and Creelman, Detection Theory, 2nd edition, chapter 1; half an item is added to each count, so that all or none
    /// stays finite (Hautus 1995, Behav Res Methods 27:46–51; both from memory).
    /// </remarks>
    public double DPrime => Z(Hits, Faulty) - Z(FalseMarks, Clean);

    /// <summary>Above 0: rather leaves a fault unmarked; below: rather marks what is none (there).</summary>
    public double Criterion => -(Z(Hits, Faulty) + Z(FalseMarks, Clean)) / 2;

    private static double Z(int marked, int of) => Normal.InvCDF(0, 1, (marked + 0.5) / (of + 1));
}
