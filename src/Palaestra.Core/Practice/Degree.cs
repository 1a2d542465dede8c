using Palaestra.Core.Library;

namespace Palaestra.Core.Practice;

/// <summary>How far a fault goes, by how much of it shows in the picture; each is as much more than the one before it.</summary>
public enum Degree
{
    /// <summary>About as much as the body wanders by itself.</summary>
    JustNoticeable,

    /// <summary>Seen by who looks for it.</summary>
    Subtle,

    /// <summary>As faults begin with most clients.</summary>
    Moderate,

    /// <summary>Told by anyone.</summary>
    Plain,

    /// <summary>As far as a body goes before it stops.</summary>
    Gross,
}

/// <summary>What a degree is in millimetres of the picture of a body of 1.70 m.</summary>
/// <remarks>
/// Even steps of a sense are even ratios of what it senses (Weber and Fechner; Gescheider, Psychophysics, 3rd edition, chapter 1,
/// from memory). The first step and the ratio are in the content.
/// </remarks>
public static class Degrees
{
    /// <summary>Least to most.</summary>
    public static IReadOnlyList<Degree> All { get; } = Enum.GetValues<Degree>();

    /// <summary>Millimetres the body's outline is off at a degree.</summary>
    public static double Millimetres(Degree degree, PracticeModel model) =>
        model.LeastMillimetres * Math.Pow(model.DegreeStep, (int)degree);
}
