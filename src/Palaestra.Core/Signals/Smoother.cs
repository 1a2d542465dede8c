namespace Palaestra.Core.Signals;

/// <summary>
/// Zero-phase low-pass for a signal that is still coming in: forward once, and back over short blocks from a little ahead of
/// each. The blocks lie on fixed samples, so the result is the same however the samples arrive, one by one or all at once.
/// </summary>
/// <remarks>
/// The way back starts <see cref="AheadSeconds"/> after the block's end, where what it does not know of the rest has faded:
/// at 6 Hz to less than a ten-thousandth of a step. It therefore answers that much later, and with a block.
/// </remarks>
public sealed class Smoother
{
    /// <summary>Hz. Movements of the trunk are slower, trembling and noise are faster. Common practice.</summary>
    public const double Cutoff = 6;

    /// <summary>So much later a value is ready.</summary>
    public const double AheadSeconds = 0.3;

    private const double BlockSeconds = 0.1;

    private readonly Biquad filter;
    private readonly int ahead;
    private readonly int block;

    // The forward pass from the start of the next block on.
    private readonly List<double> forward = [];
    private Biquad.Run run;
    private bool begun;

    /// <summary>For samples at so many hertz.</summary>
    public Smoother(double rate)
    {
        filter = Biquad.LowPassOfTwo(Cutoff, rate);
        ahead = (int)Math.Round(AheadSeconds * rate);
        block = (int)Math.Round(BlockSeconds * rate);
    }

    /// <summary>Takes a value; hands on those that are ready, in order.</summary>
    public void Push(double value, Action<double> ready)
    {
        if (!begun)
        {
            run = filter.StartingAt(value);
            begun = true;
        }
        forward.Add(run.Next(value));
        if (forward.Count == block + ahead)
        {
            Back(block, ready);
        }
    }

    /// <summary>Hands on the rest; the next value begins anew.</summary>
    public void Finish(Action<double> ready)
    {
        while (forward.Count > 0)
        {
            Back(Math.Min(block, forward.Count), ready);
        }
        begun = false;
    }

    private void Back(int count, Action<double> ready)
    {
        var back = filter.StartingAt(forward[^1]);
        Span<double> done = stackalloc double[count];
        for (var i = forward.Count - 1; i >= 0; i--)
        {
            var value = back.Next(forward[i]);
            if (i < count)
            {
                done[i] = value;
            }
        }
        forward.RemoveRange(0, count);
        foreach (var value in done)
        {
            ready(value);
        }
    }
}
