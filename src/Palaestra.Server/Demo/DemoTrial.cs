using NodaTime;
using Palaestra.Core.Capture;
using Palaestra.Core.Library;

namespace Palaestra.Server.Demo;

/// <summary>A clock the scenario winds forward by itself.</summary>
public sealed class DemoClock : TimeProvider
{
    public Instant Now { get; set; }

    public override DateTimeOffset GetUtcNow() => Now.ToDateTimeOffset();

    public DateTimeOffset After(double seconds)
    {
        Now += Duration.FromSeconds(seconds);
        return GetUtcNow();
    }

    /// <summary>Taps of a new trial, on this clock.</summary>
    public Taps Taps() => new(Guid.CreateVersion7(GetUtcNow()), After, Guid.CreateVersion7);
}

/// <summary>One trial of the scenario, told as the taps a practitioner would make.</summary>
/// <param name="Share">Share of the reps that are clean; the fault shows in the rest, late in the hold.</param>
public sealed record DemoTrial(Rung Rung, Side Side, Dose Target, double Share, string Fault)
{
    public Guid? ItemId { get; init; }
    public int Set { get; init; } = 1;
    public int? Effort { get; init; }

    /// <summary>Share of the movement it is done over; none: all of it, and nothing told of it.</summary>
    public double? Range { get; init; }

    /// <summary>Pain asked before. <see cref="PainPeak"/>: pain that ended the set; none: it did not.</summary>
    public int? PainBefore { get; init; }
    public int? PainPeak { get; init; }

    /// <summary>The leg that pain went down; none: it did not.</summary>
    public Side? DownTheLeg { get; init; }

    public IEnumerable<CaptureEvent> Events(DemoClock clock)
    {
        var taps = clock.Taps();
        yield return taps.Start(
            20,
            new(
                Guid.Empty,
                Guid.Empty,
                default,
                Rung.Id,
                Side,
                ItemId is null ? TrialPurpose.Screen : TrialPurpose.Session,
                Target,
                ItemId,
                Set,
                Share: Range
            )
        );
        if (PainBefore is { } before)
        {
            yield return taps.Pain(3, PainPhase.Before, before);
        }
        var clean = (int)Math.Round(Target.Reps * Share);
        for (var rep = 1; rep <= Target.Reps; rep++)
        {
            if (Target.Hold > 0)
            {
                yield return taps.Hold(3);
            }
            if (rep > clean)
            {
                yield return taps.Fault(Math.Max(1, Target.Hold * 0.6), Fault);
            }
            yield return taps.Rep(rep > clean ? Target.Hold * 0.4 + 0.5 : Math.Max(Target.Hold, 3));
        }
        if (PainPeak is { } peak)
        {
            yield return taps.Pain(3, PainPhase.Peak, peak);
        }
        if (Effort is { } effort)
        {
            yield return taps.Effort(2, effort);
        }
        if (DownTheLeg is { } leg)
        {
            yield return taps.Worry(1, Worry.DownTheLeg, leg);
        }
        yield return taps.End(
            3,
            PainPeak is not null ? EndReason.Pain
                : clean == Target.Reps ? EndReason.TargetMet
                : EndReason.BreakingFault
        );
    }
}
