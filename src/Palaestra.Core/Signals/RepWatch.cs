namespace Palaestra.Core.Signals;

/// <summary>A rep as the signal shows it, seconds from the start of the trace.</summary>
/// <param name="Top">When it was first near its farthest. <paramref name="Leaves"/>: when it began to come back.</param>
/// <param name="Swing">Its size in the channel's unit, signed.</param>
public sealed record SeenRep(double Start, double Top, double Leaves, double End, double Swing)
{
    public double Out => Top - Start;
    public double Hold => Leaves - Top;
    public double Back => End - Leaves;
    public double Seconds => End - Start;

    /// <summary>In less than half the time it is asked to take. Common practice.</summary>
    public bool Rushed(double askedSeconds) => Seconds < askedSeconds / 2;
}

/// <summary>Finds reps in one channel's distance from neutral: away by the channel's swing, and back.</summary>
internal sealed class RepWatch(ChannelSetup setup, double rate)
{
    /// <summary>Of its farthest, from which on it counts as held. Our own choice.</summary>
    private const double Near = 0.8;

    private readonly List<double> swing = [];
    private int start;

    public List<SeenRep> Reps { get; } = [];

    public void Push(int index, double away)
    {
        var begun = swing.Count > 0;
        if (!begun && Math.Abs(away) < setup.RepRise / 2)
        {
            return;
        }
        if (!begun)
        {
            start = index;
        }
        if (begun && (Math.Abs(away) < setup.RepRise / 2 || Math.Sign(away) != Math.Sign(swing[0])))
        {
            Close(index);
            return;
        }
        swing.Add(away);
    }

    /// <summary>What was under way is not known further.</summary>
    public void Gap() => swing.Clear();

    private void Close(int end)
    {
        var far = swing.MaxBy(Math.Abs);
        if (Math.Abs(far) >= setup.RepRise)
        {
            var near = Math.Abs(far) * Near;
            var top = swing.FindIndex(value => Math.Abs(value) >= near);
            var leaves = swing.FindLastIndex(value => Math.Abs(value) >= near);
            Reps.Add(new(start / rate, (start + top) / rate, (start + leaves) / rate, end / rate, far));
        }
        swing.Clear();
    }
}
