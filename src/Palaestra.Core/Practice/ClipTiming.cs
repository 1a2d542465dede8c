using MathNet.Numerics.Random;
using Palaestra.Core.Library;

namespace Palaestra.Core.Practice;

/// <summary>How one rep of a clip goes.</summary>
/// <param name="From">Seconds at which it sets out. <paramref name="Out"/>, <paramref name="Stay"/>, <paramref name="Back"/>, <paramref name="Rest"/>: seconds.</param>
/// <param name="Range">Share of the movement.</param>
internal readonly record struct ClipRep(
    double From,
    double Out,
    double Stay,
    double Back,
    double Rest,
    double Range
)
{
    public double End => From + Out + Stay + Back + Rest;
}

/// <summary>The tempo of a clip: reps that are never quite alike, or one hold.</summary>
internal sealed class ClipTiming
{
    /// <summary>Seconds of a rep that is shown at its own pace; a slower one is shown in this, so that a clip has some.</summary>
    private const double RepMost = 3.6;
    private const double RepLeast = 2.2;

    /// <summary>Seconds a clip of reps takes about.</summary>
    private const double Aim = 12;

    /// <summary>A hold from here on, seconds, is shown as one hold and not as reps. Our own.</summary>
    private const double LongHold = 15;

    public IReadOnlyList<ClipRep> Reps { get; }

    /// <summary>One long hold, gone into once.</summary>
    public bool Held { get; }

    /// <summary>The movement goes round and ends where it began.</summary>
    public bool Round { get; }

    public double Seconds { get; }

    /// <summary>Whether a rung is shown as one long hold.</summary>
    public static bool IsHeld(Rung rung) => !rung.Moves || rung.Target.Hold >= LongHold;

    public ClipTiming(RandomSource random, Rung rung)
    {
        Held = IsHeld(rung);
        Round = rung.Moves && !rung.HasRange;
        if (Held)
        {
            var stay = 9 + 3 * random.NextDouble();
            Reps = [new(0, rung.Moves ? 1.6 : 0, stay, 0, 0, 1)];
        }
        else
        {
            Reps = Several(random, rung);
        }
        Seconds = Math.Round(Reps[^1].End, 1);
    }

    private List<ClipRep> Several(RandomSource random, Rung rung)
    {
        var walking = rung.Features.Contains(Rung.ToleranceFeature);
        var pace = walking ? RepLeast : Math.Clamp(rung.MoveSeconds, RepLeast, RepMost);
        var stay = rung.Target.Hold > 0 ? 1.2 : 0.3;
        var count = (int)Math.Clamp(Math.Round(Aim / (pace + stay)), 3, 5);
        var reps = new List<ClipRep>();
        var at = 0.0;
        for (var i = 0; i < count; i++)
        {
            var here = pace * (0.88 + 0.24 * random.NextDouble());
            var rep = Round
                ? new ClipRep(at, here, 0, 0, 0.15 * random.NextDouble(), 1)
                : new ClipRep(
                    at,
                    0.48 * here,
                    stay * (0.8 + 0.4 * random.NextDouble()),
                    0.42 * here,
                    0.15 + 0.3 * random.NextDouble(),
                    0.92 + 0.08 * random.NextDouble()
                );
            reps.Add(rep);
            at = rep.End;
        }
        return reps;
    }

    /// <summary>The rep that is under way, from 0.</summary>
    public int RepAt(double seconds)
    {
        var at = 0;
        while (at + 1 < Reps.Count && seconds >= Reps[at + 1].From)
        {
            at++;
        }
        return at;
    }

    /// <summary>How far the movement is, 0 to 1.</summary>
    public double ShareAt(double seconds)
    {
        var rep = Reps[RepAt(seconds)];
        var t = seconds - rep.From;
        if (Round)
        {
            return Math.Clamp(t / rep.Out, 0, 1);
        }
        var way =
            t < rep.Out ? Eased(t / rep.Out)
            : t < rep.Out + rep.Stay ? 1
            : rep.Back > 0 ? Eased(1 - (t - rep.Out - rep.Stay) / rep.Back)
            : 1;
        return rep.Range * way;
    }

    /// <summary>How much of a fault that begins in a rep, or at a second of a hold, is there, 0 to 1.</summary>
    public double FaultAt(double seconds, int rep, double second)
    {
        if (Held)
        {
            return Eased((seconds - second) / Yielding + 0.5);
        }
        var now = RepAt(seconds);
        if (now < rep)
        {
            return 0;
        }
        var t = (seconds - Reps[now].From) / Reps[now].Out;
        return Round ? Math.Pow(Math.Sin(Math.PI * Math.Clamp(t, 0, 1)), 2)
            : t >= 1 && seconds - Reps[now].From < Reps[now].Out + Reps[now].Stay ? 1
            : Math.Pow(ShareAt(seconds) / Reps[now].Range, 1.5);
    }

    /// <summary>Seconds in which a hold gives way.</summary>
    private const double Yielding = 1.4;

    /// <summary>Seconds from the beginning at which half of a fault that begins in this rep is there.</summary>
    public double HalfOf(int rep)
    {
        var from = Reps[rep].From;
        for (var t = from; t < Reps[rep].End; t += 0.01)
        {
            if (FaultAt(t, rep, 0) >= 0.5)
            {
                return Math.Round(t, 2);
            }
        }
        return Math.Round(from + Reps[rep].Out, 2);
    }

    /// <summary>Slow at both ends.</summary>
    private static double Eased(double share)
    {
        var t = Math.Clamp(share, 0, 1);
        return t * t * (3 - 2 * t);
    }
}
