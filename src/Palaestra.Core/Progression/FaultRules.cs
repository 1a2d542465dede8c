using Palaestra.Core.Visits;

namespace Palaestra.Core.Progression;

/// <summary>Faults, and work that was not done clean. Common practice; thresholds from the policy.</summary>
internal static class FaultRules
{
    public static Decision? Cap(DecisionCase c)
    {
        if (c.Today(c.Side) is not { Tried: > 0 } today || today.CueFixed)
        {
            return null;
        }
        var share = (double)today.BreakingReps / today.Tried;
        return share >= c.Policy.FaultCapFraction - 1e-9
            ? c.EaseOneStep(
                "D-FAULT-CAP",
                EaseCause.Faults,
                [
                    $"{FaultWords(c, today)} in {today.BreakingReps} of {today.Tried} reps; no cue fixed it.",
                    .. EasedWords(today),
                ]
            )
            : null;
    }

    public static Decision? Cue(DecisionCase c)
    {
        if (c.Today(c.Side) is not { BreakingReps: > 0, CueFixed: true } today)
        {
            return null;
        }
        var cue = today.Sets.Select(set => set.Cue).LastOrDefault(words => words is not null) ?? c.Item.Cue;
        return c.Stay(
            "D-FAULT-CUE",
            $"{FaultWords(c, today)} in {today.BreakingReps} of {today.Tried} reps; one cue fixed it.",
            "Coach at the same dose."
        ) with
        {
            Notes = string.IsNullOrWhiteSpace(cue) ? null : [cue],
        };
    }

    public static Decision? DoneLess(DecisionCase c)
    {
        if (c.Today(c.Side) is not { } now || c.History(c.Side).Skip(1).FirstOrDefault() is not { } before)
        {
            return null;
        }
        var least = c.Policy.DoneLessFraction;
        return now.DoneFraction >= least || before.DoneFraction >= least
            ? null
            : c.EaseOneStep(
                "D-DONE-LESS",
                EaseCause.Faults,
                [
                    $"{now.DoneFraction:P0} and {before.DoneFraction:P0} of the work was clean, two visits running.",
                    .. EasedWords(now),
                ]
            );
    }

    /// <summary>Breath held through a set that a cue did not clear: the next is easier.</summary>
    public static Decision? Breath(DecisionCase c) =>
        c.Today(c.Side) is { } today
        && today.Sets.Any(set => set is { FirstFault: Library.Fault.BreathHold, CueFixed: false })
            ? c.EaseOneStep("D-BREATH", EaseCause.Faults, "Breath was held, and a cue did not clear it.")
            : null;

    /// <summary>Share of a set, above which it counts as most of it.</summary>
    public const double MostOfASet = 0.5;

    /// <summary>Trembling through most of a set: nothing is added, unless the client trembles by themselves, or it stayed clean with ease for some visits.</summary>
    public static Decision? Tremor(DecisionCase c)
    {
        if (c.Day.OwnTremor || c.Today(c.Side) is not { Tremor: > MostOfASet } today)
        {
            return null;
        }
        var running = c.History(c.Side)
            .TakeWhile(done => c.Clean(done) && done.Effort <= c.Judgement.TremorEffortMax)
            .Count();
        return running >= c.Judgement.TremorVisits
            ? null
            : c.Stay("D-TREMOR", $"Trembled through {today.Tremor:P0} of a set: nothing is added.");
    }

    /// <summary>Felt in the wrong place at visits running: the set-up is changed, not the rung; after some tries another way is sought.</summary>
    public static Decision? SetUp(DecisionCase c)
    {
        var wrong = c
            .Sides.Select(side => c.History(side).TakeWhile(done => WrongPlace(c, done) is not null).ToList())
            .MaxBy(visits => visits.Count);
        if (
            wrong is not { Count: > 0 }
            || wrong.Count < c.Judgement.SetupVisits
            || wrong[0].Visit != c.Input.Visit
        )
        {
            return null;
        }
        var place = WrongPlace(c, wrong[0])!;
        var tries = (c.Input.SetUps ?? []).Count(t => t.PlanItemId == c.Item.Id && t.Place == place.Id);
        var felt = $"Felt in the {place.Words.ToLowerInvariant()}, {wrong.Count} visits running.";
        if (tries >= c.Judgement.SetupTries)
        {
            return StallRules.Change(c, "D-SETUP", [felt, $"The set-up was changed {tries} times."])
                ?? c.Stay("D-SETUP", felt, $"The set-up was changed {tries} times: screen again.");
        }
        return c.Stay("D-SETUP", felt, $"Change the set-up: {place.Change}.") with
        {
            Todo = $"Change the set-up: {place.Change}.",
            Notes = [$"{char.ToUpperInvariant(place.Change![0])}{place.Change[1..]}."],
        };
    }

    public static bool FeltElsewhere(DecisionCase c, Performance done) => WrongPlace(c, done) is not null;

    private static Library.FeltPlace? WrongPlace(DecisionCase c, Performance done) =>
        done
            .Sets.Select(set => c.Library.FeltPlaces.FirstOrDefault(p => p.Id == set.Felt))
            .LastOrDefault(place => place is not null)
            is { AsIntended: false, Change: not null } place
            ? place
            : null;

    private static IEnumerable<string> EasedWords(Performance today) =>
        today.Eased
            ?
            [
                $"Made easier in {today.Sets.Count(set => set.Eased)} of {today.Sets.Count} sets; those do not count as asked.",
            ]
            : [];

    private static string FaultWords(DecisionCase c, Performance today)
    {
        var code = today.Sets.Select(set => set.FirstFault).FirstOrDefault(fault => fault is not null);
        var name = code is null ? "Control was lost" : c.Library.FindFault(code)?.Name ?? code;
        return char.ToUpperInvariant(name[0]) + name[1..];
    }
}
