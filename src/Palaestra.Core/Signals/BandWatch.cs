using Palaestra.Core.Library;

namespace Palaestra.Core.Signals;

/// <summary>
/// Watches one channel's distance from neutral, sample by sample. Control is lost when it stays beyond the band for
/// <see cref="LeastSeconds"/>, coming inside for no longer than <see cref="TouchSeconds"/>; it is back when it has come a fifth
/// inside the edge, so that trembling at the edge is one loss and not many. A bump shorter than that is none.
/// </summary>
/// <remarks>The figures are our own choice; docs/instruments.md shows what they do against noise.</remarks>
internal sealed class BandWatch(ChannelSetup setup, double rate)
{
    public const double LeastSeconds = 0.3;
    public const double TouchSeconds = 0.1;
    public const double Back = 0.8;

    private readonly List<Loss> losses = [];
    private int? left;
    private int? touched;
    private double farthest;
    private bool lost;

    /// <summary>The last one may still last.</summary>
    public IReadOnlyList<Loss> Losses => losses;

    /// <summary>Samples that were inside; those of a bump among them.</summary>
    public int InBand { get; private set; }

    public bool Out => left is not null;

    public void Push(int index, double away)
    {
        var beyond = Math.Abs(away) > setup.Band;
        if (left is not { } since)
        {
            if (!beyond)
            {
                InBand++;
                return;
            }
            since = index;
            left = index;
        }
        touched = beyond ? null : touched ?? index;
        if (lost ? Math.Abs(away) < setup.Band * Back : index - touched >= TouchSeconds * rate)
        {
            Return(index, since);
            InBand++;
            return;
        }
        farthest = Math.Abs(away) > Math.Abs(farthest) ? away : farthest;
        if (lost)
        {
            losses[^1] = losses[^1] with { Excursion = farthest };
        }
        else if (beyond && index - since >= LeastSeconds * rate)
        {
            lost = true;
            losses.Add(new(setup.Channel, since / rate, null, farthest));
        }
    }

    /// <summary>The signal is gone: what was under way ends here and is not known further.</summary>
    public void Gap(int index)
    {
        if (left is { } since)
        {
            Return(index, since);
        }
    }

    private void Return(int index, int since)
    {
        if (lost)
        {
            losses[^1] = losses[^1] with { End = index / rate };
        }
        else
        {
            InBand += index - since;
        }
        left = null;
        touched = null;
        lost = false;
        farthest = 0;
    }
}
