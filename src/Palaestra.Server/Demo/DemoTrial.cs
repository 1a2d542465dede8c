using Palaestra.Core.Library;
using Palaestra.Core.Screening;

namespace Palaestra.Server.Demo;

/// <summary>A clock the scenario winds forward by itself.</summary>
public sealed class DemoClock : TimeProvider
{
    public DateTime Now { get; set; }

    public override DateTimeOffset GetUtcNow() => new DateTimeOffset(Now).ToUniversalTime();

    public DateTimeOffset After(double seconds)
    {
        Now = Now.AddSeconds(seconds);
        return GetUtcNow();
    }
}

/// <summary>One trial of the scenario, told as the taps a practitioner would make.</summary>
/// <param name="Share">Share of the reps that are clean; the fault shows in the rest, late in the hold.</param>
public sealed record DemoTrial(Rung Rung, Side Side, Dose Target, double Share, string Fault)
{
    public Guid? ItemId { get; init; }
    public int Set { get; init; } = 1;
    public int? Effort { get; init; }

    public IEnumerable<CaptureEvent> Events(DemoClock clock)
    {
        var trial = Guid.CreateVersion7(clock.GetUtcNow());
        CaptureEvent Tap(CaptureKind kind, double after) =>
            new(Guid.CreateVersion7(), trial, kind, clock.After(after));
        yield return Tap(CaptureKind.TrialStarted, 20) with
        {
            RungId = Rung.Id,
            Side = Side,
            Purpose = ItemId is null ? TrialPurpose.Screen : TrialPurpose.Session,
            Target = Target,
            PlanItemId = ItemId,
            Set = Set,
        };
        var clean = (int)Math.Round(Target.Reps * Share);
        for (var rep = 1; rep <= Target.Reps; rep++)
        {
            if (Target.Hold > 0)
            {
                yield return Tap(CaptureKind.HoldStarted, 3);
            }
            if (rep > clean)
            {
                yield return Tap(CaptureKind.FaultMarked, Math.Max(1, Target.Hold * 0.6)) with
                {
                    Fault = Fault,
                };
            }
            yield return Tap(
                CaptureKind.RepDone,
                rep > clean ? Target.Hold * 0.4 + 0.5 : Math.Max(Target.Hold, 3)
            );
        }
        if (Effort is { } effort)
        {
            yield return Tap(CaptureKind.EffortMarked, 2) with
            {
                Value = effort,
            };
        }
        yield return Tap(CaptureKind.TrialEnded, 3) with
        {
            Reason = clean == Target.Reps ? EndReason.TargetMet : EndReason.BreakingFault,
        };
    }
}
