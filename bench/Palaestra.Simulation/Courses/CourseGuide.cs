using Palaestra.Core.Body;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Core.Progression;

namespace Palaestra.Simulation.Courses;

/// <summary>Who decides at a visit: a policy's rules, or a yardstick beside them.</summary>
/// <param name="Policy">Under which it is screened, planned and, where rules decide, decided.</param>
public abstract record CourseGuide(string Name, Policy Policy)
{
    /// <summary>Whether one up is tried where the rules offer it.</summary>
    public virtual bool Tries => false;

    /// <summary>None where nothing is decided and the plan stays as it is.</summary>
    public abstract Plan? Next(
        Plan plan,
        DecideInput seen,
        IReadOnlyList<Decision> byRules,
        CourseClient client,
        PracticeLibrary library
    );

    protected static Plan Applied(
        Plan plan,
        DecideInput seen,
        IReadOnlyList<Decision> decisions,
        PracticeLibrary library,
        Policy policy
    ) => NextPlan.Apply(plan, decisions, library, policy, seen.Profile);
}

/// <summary>The product's rules under a policy.</summary>
public sealed record ByRules(string Name, Policy Policy) : CourseGuide(Name, Policy)
{
    public override bool Tries => true;

    public override Plan? Next(
        Plan plan,
        DecideInput seen,
        IReadOnlyList<Decision> byRules,
        CourseClient client,
        PracticeLibrary library
    ) => Applied(plan, seen, byRules, library, Policy);
}

/// <summary>
/// Knows true ability: under the same rules of safety it goes up as soon as the next rung is truly held, and down only where
/// the present one is not. What the rules would not grant by themselves it takes as often in a visit as a try may be made.
/// </summary>
public sealed record Oracle(Policy Policy) : CourseGuide("oracle", Policy)
{
    public override Plan? Next(
        Plan plan,
        DecideInput seen,
        IReadOnlyList<Decision> byRules,
        CourseClient client,
        PracticeLibrary library
    )
    {
        var decisions = new List<Decision>();
        var calm = new DayFacts(seen, library).Calm;
        var left = calm ? Policy.Judgement.ProbesCalm : Policy.Judgement.ProbesElse;
        foreach (var item in plan.Items)
        {
            var mine = byRules.Where(d => d.PlanItemId == item.Id).ToList();
            if (mine.Any(d => d.Rules.Any(Safety.Contains)) || item.Spell is not null)
            {
                decisions.AddRange(mine);
                continue;
            }
            var granted = mine.All(d => d.Outcome == Outcome.StepUp);
            var known = mine.Select(d => Known(d, item, seen, granted || left > 0, client, library)).ToList();
            left -= !granted && known.Any(d => d.Outcome == Outcome.StepUp) ? 1 : 0;
            decisions.AddRange(known);
        }
        return Applied(plan, seen, decisions, library, Policy);
    }

    private static Decision Known(
        Decision byRules,
        PlanItem item,
        DecideInput seen,
        bool mayRise,
        CourseClient client,
        PracticeLibrary library
    )
    {
        Decision Chosen(Outcome outcome) =>
            DecisionEngine.Chosen(seen, item.Id, byRules.Side, outcome, library);
        if (client.Margin(library.Rung(item.RungId), Side.Both) < 0)
        {
            return Chosen(Outcome.StepDown);
        }
        var up = Chosen(Outcome.StepUp);
        return mayRise
            && up.Outcome == Outcome.StepUp
            && client.Movable(library.Rung(up.RungId))
            && client.Margin(library.Rung(up.RungId), Side.Both) >= 0
                ? up
            : byRules.Outcome is Outcome.Add ? byRules
            : Chosen(Outcome.Stay);
    }

    /// <summary>Rules that hold whatever ability is.</summary>
    private static readonly HashSet<string> Safety =
    [
        "D-REFER",
        "D-REST",
        "D-PAIN-STOP",
        "D-PAIN-WATCH",
        "D-PAIN-SESSION",
        "D-PAIN-NOW",
        "D-PAIN-NEXT",
        "D-PAIN-HOME",
        "D-PAIN-DRIFT",
        "D-NO-TRAINING",
        "D-LEG-MEMORY",
        "D-BARRED",
        "D-AWAY",
        "D-TREMOR",
        "D-SETUP",
        "D-UNDER-BREAK",
        "D-CAP-RISE",
    ];
}

/// <summary>The first plan for all the weeks.</summary>
public sealed record FrozenPlan(Policy Policy) : CourseGuide("frozen plan", Policy)
{
    public override Plan? Next(
        Plan plan,
        DecideInput seen,
        IReadOnlyList<Decision> byRules,
        CourseClient client,
        PracticeLibrary library
    ) => null;
}

/// <summary>
/// A twelve-week map without any rule of ours: at each stage of the map every exercise goes a rung up, and between them the
/// dose goes halfway to the target and to it; nothing that is seen or felt changes that.
/// </summary>
public sealed record PlainCalendar(Policy Policy) : CourseGuide("plain calendar", Policy)
{
    public override Plan? Next(
        Plan plan,
        DecideInput seen,
        IReadOnlyList<Decision> byRules,
        CourseClient client,
        PracticeLibrary library
    )
    {
        var week = seen.Visit;
        var up = library.TwelveWeeks.Any(stage => stage.From == week && stage.From > 1);
        return plan with
        {
            Items = [.. plan.Items.Select(item => up ? Up(item, library) : More(item, library))],
        };
    }

    private static PlanItem Up(PlanItem item, PracticeLibrary library)
    {
        var ladder = library.LadderOf(item.RungId);
        var next = ladder.IndexOf(item.RungId) + 1;
        if (ladder.Direction == Direction.None || next >= ladder.Rungs.Count)
        {
            return More(item, library);
        }
        var rung = ladder.Rungs[next];
        return item with
        {
            RungId = rung.Id,
            Doses = [.. rung.TaskSides.Select(side => new SideDose(side, rung.Start))],
        };
    }

    private static PlanItem More(PlanItem item, PracticeLibrary library)
    {
        var target = library.Rung(item.RungId).Target;
        return item with
        {
            Doses =
            [
                .. item.Doses.Select(d => new SideDose(
                    d.Side,
                    d.Dose with
                    {
                        Reps = (d.Dose.Reps + target.Reps + 1) / 2,
                        Sets = (d.Dose.Sets + target.Sets + 1) / 2,
                        Hold = Math.Ceiling((d.Dose.Hold + target.Hold) / 2),
                    }
                )),
            ],
        };
    }
}
