using Palaestra.Core.Library;

namespace Palaestra.Core.Signals;

/// <summary>A rep as the signal shows it, seconds from the start of the trace.</summary>
/// <param name="Top">When it was first near its farthest. <paramref name="Leaves"/>: when it began to come back.</param>
/// <param name="Swing">Its size in the channel's unit, signed.</param>
public sealed record SeenRep(double Start, double Top, double Leaves, double End, double Swing)
{
    /// <summary>Seconds of the way out.</summary>
    public double Out => Top - Start;

    /// <summary>Seconds of holding.</summary>
    public double Hold => Leaves - Top;

    /// <summary>Seconds of the way back.</summary>
    public double Back => End - Leaves;

    /// <summary>Seconds of the whole rep.</summary>
    public double Seconds => End - Start;

    /// <summary>In less than half the time it is asked to take. Common practice.</summary>
    public bool Rushed(double askedSeconds) => Seconds < askedSeconds / 2;
}

/// <summary>
/// Finds reps in one channel's distance from neutral: away by the channel's swing, and back. What is over in less than a second
/// is sway, and what is beyond the band for most of its time is giving way; neither is a rep.
/// </summary>
internal sealed class RepWatch(ChannelSetup setup, double rate)
{
    /// <summary>Of its farthest, from which on it counts as held. Our own choice.</summary>
    private const double Near = 0.8;

    /// <summary>Of its farthest, up to which it counts as at rest: there the rep begins and ends. Our own choice.</summary>
    private const double Rest = 0.1;

    /// <summary>The way out is looked for so long before a swing shows, and the way back is waited for so long after it.</summary>
    private const double WaySeconds = 2;

    /// <summary>No limb goes out and comes back under control in less. Common practice.</summary>
    public const double LeastSeconds = 1;

    private readonly int way = (int)Math.Round(WaySeconds * rate);

    // From the sample "first" on: what may be a way out, then the swing, then its way back.
    private readonly List<double> values = [];
    private int first;
    private int? shows;
    private int? fades;
    private double far;

    public List<SeenRep> Reps { get; } = [];

    public void Push(int index, double away)
    {
        if (values.Count == 0)
        {
            first = index;
        }
        values.Add(away);
        var at = values.Count - 1;
        var big = Math.Abs(away) >= setup.RepRise / 2;
        if (shows is null)
        {
            Wait(at, big, away);
            return;
        }
        var same = Math.Sign(away) == Math.Sign(far);
        if (fades is null && big && same)
        {
            far = Math.Abs(away) > Math.Abs(far) ? away : far;
            return;
        }
        fades ??= at;
        if (big || !same || Math.Abs(away) <= Rest * Math.Abs(far) || at - fades >= way)
        {
            Close(at);
            values.RemoveRange(0, at);
            first = index;
            Wait(0, big, away);
        }
    }

    private void Wait(int at, bool big, double away)
    {
        if (big)
        {
            shows = at;
            far = away;
        }
        else if (values.Count > 2 * way)
        {
            values.RemoveRange(0, way);
            first += way;
        }
    }

    /// <summary>What was under way is not known further; a swing that had faded is whole enough.</summary>
    public void Gap()
    {
        if (fades is not null)
        {
            Close(values.Count - 1);
        }
        shows = null;
        values.Clear();
    }

    private void Close(int end)
    {
        var (from, to) = (shows!.Value, fades!.Value);
        shows = null;
        fades = null;
        var start = from;
        while (
            start > 0
            && from - start < way
            && Math.Sign(values[start - 1]) == Math.Sign(far)
            && Math.Abs(values[start - 1]) > Rest * Math.Abs(far)
        )
        {
            start--;
        }
        var swing = values.GetRange(from, to - from);
        var beyond = swing.Count(value => Math.Abs(value) > setup.Band);
        if (Math.Abs(far) >= setup.RepRise && end - start >= LeastSeconds * rate && beyond * 2 <= swing.Count)
        {
            var near = Math.Abs(far) * Near;
            var top = from + swing.FindIndex(value => Math.Abs(value) >= near);
            var leaves = from + swing.FindLastIndex(value => Math.Abs(value) >= near);
            Reps.Add(new(At(start), At(top), At(leaves), At(end), far));
        }

        double At(int offset) => (first + offset) / rate;
    }
}
