using System.Text.Json.Serialization;
using Palaestra.Core.Capture;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;

namespace Palaestra.Core.Visits;

/// <summary>One set of one side: what a session is made of.</summary>
/// <param name="Set">1 for the first.</param>
/// <param name="Way">Id of the rung's way it is done in; none where it has one, or they are mixed.</param>
public sealed record SetToDo(
    Guid ItemId,
    Side Side,
    int Set,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] string? Way = null
);

/// <summary>How a rep goes: seconds out, held and back. Out and back are 0 where the rung only holds, and where it is walked at one's own pace.</summary>
/// <param name="Check">Seconds at the return in which the back is looked at: is it where it was? 0 where nothing returns.</param>
public sealed record RepGuide(
    double Out,
    double Hold,
    double Back,
    Message Words,
    Message Breath,
    double Check = 0
);

/// <summary>Ways to make one side of an exercise easier, in the order they are tried, and how its reps go.</summary>
public sealed record SideGuide(Side Side, RepGuide Rep, IReadOnlyList<EaseOffer> Eases);

/// <summary>One exercise of a session.</summary>
/// <param name="Added">Not in the plan: taken in during this visit, or in place of <paramref name="InPlaceOf"/>.</param>
/// <param name="Skipped">Left out today.</param>
public sealed record SessionItem(
    PlanItem Item,
    bool Added,
    Guid? InPlaceOf,
    bool Skipped,
    IReadOnlyList<SideGuide> Sides
);

/// <summary>What a session is made of: the plan, with what was skipped, swapped and added on the fly.</summary>
public static class SessionWork
{
    /// <summary>Exercises taken in during a visit, as its log tells; they belong to no plan.</summary>
    public static IReadOnlyList<PlanItem> Added(IEnumerable<CaptureEvent> log, PracticeLibrary library) =>
        [
            .. TrialFold
                .Effective(log)
                .OfType<ExerciseAdded>()
                .Select(e => Added(e, library))
                .OfType<PlanItem>(),
        ];

    private static PlanItem? Added(ExerciseAdded e, PracticeLibrary library) =>
        library.FindRung(e.RungId) is { } rung
            ? new PlanItem(
                e.PlanItemId,
                rung.Id,
                Message.Plain(""),
                [.. rung.TaskSides.Select(side => new SideDose(side, e.Target))],
                [],
                [],
                rung.Cues[0]
            )
            : null;

    /// <summary>In the plan's order; a swapped exercise is followed by the one that stands in for it, added ones come last.</summary>
    public static IReadOnlyList<SessionItem> Items(
        Plan plan,
        IReadOnlyList<CaptureEvent> log,
        Intake.ClientProfile profile,
        Policy policy,
        PracticeLibrary library
    )
    {
        var events = TrialFold.Effective(log);
        var skipped = events.OfType<ExerciseSkipped>().Select(e => e.PlanItemId).ToHashSet();
        var added = Added(events, library)
            .Select(item =>
                (Item: item, events.OfType<ExerciseAdded>().First(e => e.PlanItemId == item.Id).InPlaceOf)
            )
            .ToList();
        SessionItem Of(PlanItem item, bool isAdded, Guid? inPlaceOf) =>
            new(
                item,
                isAdded,
                inPlaceOf,
                skipped.Contains(item.Id),
                [.. item.Doses.Select(dose => GuideOf(item, dose, profile, policy, library))]
            );
        var items = plan.Items.SelectMany(item =>
            added
                .Where(a => a.InPlaceOf == item.Id)
                .Select(a => Of(a.Item, true, item.Id))
                .Prepend(Of(item, false, null))
        );
        return [.. items, .. added.Where(a => a.InPlaceOf is null).Select(a => Of(a.Item, true, null))];
    }

    /// <summary>Seconds of the beat at the return, the last of the way back: at most half of it. Common practice.</summary>
    public const double CheckSeconds = 1;

    private static SideGuide GuideOf(
        PlanItem item,
        SideDose dose,
        Intake.ClientProfile profile,
        Policy policy,
        PracticeLibrary library
    )
    {
        var rung = library.Rung(item.RungId);
        var whole = RepTempo.MoveSeconds(rung, policy);
        var way = policy.Tempo.Out / (policy.Tempo.Out + policy.Tempo.Back);
        var back = whole * (1 - way);
        var check = library.ReturnsToCheck(rung) ? Math.Min(CheckSeconds, back / 2) : 0;
        return new(
            dose.Side,
            new(
                whole * way,
                dose.Dose.Hold,
                back - check,
                DoseText.Rep(dose.Dose, rung, policy),
                DoseText.Breath(rung, policy),
                check
            ),
            WithinVisit.Offers(item, dose, profile, library)
        );
    }

    /// <summary>
    /// The sets in order: exercise by exercise; of two sides turn about where the policy alternates, else one to the end and
    /// then the other, the weaker first as the plan has them. Ways that are counted apart follow each other within a set.
    /// </summary>
    public static IReadOnlyList<SetToDo> Sets(
        IReadOnlyList<PlanItem> items,
        Policy policy,
        PracticeLibrary library
    ) =>
        [
            .. items.SelectMany(item =>
            {
                var sets = item
                    .Doses.SelectMany(
                        (side, order) =>
                            Enumerable
                                .Range(1, side.Dose.Sets)
                                .SelectMany(set =>
                                    Ways(item, policy, library)
                                        .Select(way =>
                                            (Set: new SetToDo(item.Id, side.Side, set, way), order)
                                        )
                                )
                    )
                    .ToList();
                return policy.SideOrder == SideOrder.Alternate
                    ? sets.OrderBy(s => s.Set.Set).ThenBy(s => s.order).Select(s => s.Set)
                    : sets.Select(s => s.Set);
            }),
        ];

    private static IEnumerable<string?> Ways(PlanItem item, Policy policy, PracticeLibrary library) =>
        policy.WaysOf(library.Rung(item.RungId)).Select(way => (string?)way.Id).DefaultIfEmpty();
}
