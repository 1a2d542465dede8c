namespace Palaestra.Instruments;

/// <summary>Makes the samples of one device, one after the other; the same seed gives the same samples.</summary>
public sealed class SimulatedDevice(DeviceKind kind, int seed)
{
    private const double BumpSeconds = 0.15;
    private const double TrembleHertz = 9;

    private readonly Random random = new(seed);
    private Script script = kind.Scripts[0];
    private long from;
    private long next;

    public DeviceKind Kind => kind;

    public long Next => next;

    /// <summary>Times the device's usual noise.</summary>
    public double Noise { get; set; } = 1;

    /// <summary>Begins a script at the next sample.</summary>
    /// <returns>False where there is none of that name.</returns>
    public bool Begin(string id)
    {
        if (kind.Scripts.FirstOrDefault(s => s.Id == id) is not { } found)
        {
            return false;
        }
        Begin(found);
        return true;
    }

    public void Begin(Script other)
    {
        script = other;
        from = next;
    }

    /// <summary>The next sample; none where the radio drops it.</summary>
    public double[]? Sample()
    {
        var n = next++;
        var errors = new double[kind.Channels.Count];
        for (var i = 0; i < errors.Length; i++)
        {
            errors[i] = Noise * kind.Noise[i] * Normal();
        }
        var at = (n - from) / kind.Rate % script.Seconds;
        if (script.Drops.Any(drop => drop.At <= at && at < drop.At + drop.Lasts))
        {
            return null;
        }
        var minutes = n / kind.Rate / 60;
        return
        [
            .. errors.Select((error, i) => Truth(script, at, i) + kind.DriftPerMinute[i] * minutes + error),
        ];
    }

    /// <summary>Where a channel really is at a moment of a script, without noise and drift.</summary>
    public double Truth(Script of, double at, int channel)
    {
        var value = kind.Rest[channel];
        foreach (var rep in of.Reps)
        {
            value += rep.Swings[channel] * Shape(at - rep.At, rep.Out, rep.Hold, rep.Back);
        }
        foreach (var fault in of.Faults)
        {
            value +=
                fault.Sizes[channel] * Shape(at - fault.At, fault.Rise, fault.Lasts - fault.Rise, fault.Rise);
        }
        if (of.Trembles.Any(t => t.At <= at && at < t.At + t.Lasts))
        {
            value += kind.Tremble[channel] * Math.Sin(2 * Math.PI * TrembleHertz * at);
        }
        foreach (var bump in of.Bumps.Where(b => b.At <= at && at < b.At + BumpSeconds))
        {
            value += bump.Size * Math.Sin(Math.PI * (at - bump.At) / BumpSeconds);
        }
        return value;
    }

    /// <summary>0 before, smoothly to 1, held, smoothly back to 0.</summary>
    private static double Shape(double since, double rise, double stays, double back) =>
        since <= 0 ? 0
        : since < rise ? Smooth(since / rise)
        : since <= rise + stays ? 1
        : since < rise + stays + back ? Smooth(1 - (since - rise - stays) / back)
        : 0;

    private static double Smooth(double x) => x * x * (3 - 2 * x);

    /// <summary>Box and Muller 1958.</summary>
    private double Normal() =>
        Math.Sqrt(-2 * Math.Log(1 - random.NextDouble())) * Math.Cos(2 * Math.PI * random.NextDouble());
}
