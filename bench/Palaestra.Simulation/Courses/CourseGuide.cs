using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Core.Progression;

namespace Palaestra.Simulation.Courses;

/// <summary>One visit to be decided: what was seen, what the rules say of it, and, for yardsticks, who it is.</summary>
public sealed record GuidedVisit(
    Plan Plan,
    DecideInput Seen,
    IReadOnlyList<Decision> ByRules,
    CourseClient Client,
    PracticeLibrary Library
)
{
    public Plan Applied(IReadOnlyList<Decision> decisions, Policy policy) =>
        NextPlan.Apply(Plan, decisions, Library, policy, Seen.Profile);
}

/// <summary>Who decides at a visit: a policy's rules, or a yardstick beside them.</summary>
/// <param name="Policy">Under which it is screened, planned and, where rules decide, decided.</param>
public abstract record CourseGuide(string Name, Policy Policy)
{
    /// <summary>Whether one up is tried where the rules offer it.</summary>
    public virtual bool Tries => false;

    /// <summary>None where nothing is decided and the plan stays as it is.</summary>
    public abstract Plan? Next(GuidedVisit visit);
}

/// <summary>The product's rules under a policy.</summary>
public sealed record ByRules(string Name, Policy Policy) : CourseGuide(Name, Policy)
{
    public override bool Tries => true;

    public override Plan? Next(GuidedVisit visit) => visit.Applied(visit.ByRules, Policy);
}

/// <summary>
/// Knows true ability: under the same rules of safety it goes up as soon as the next rung is truly held, and down only where
/// the present one is not. What the rules would not grant by themselves it takes as often in a visit as a try may be made.
/// </summary>
public sealed record Oracle(Policy Policy) : CourseGuide("oracle", Policy)
{
    public override Plan? Next(GuidedVisit visit)
    {
        var decisions = new List<Decision>();
        var calm = new DayFacts(visit.Seen, visit.Library).Calm;
        var left = calm ? Policy.Judgement.ProbesCalm : Policy.Judgement.ProbesElse;
        foreach (var item in visit.Plan.Items)
        {
            var mine = visit.ByRules.Where(d => d.PlanItemId == item.Id).ToList();
            if (mine.Any(d => d.Rules.Any(RuleGroups.Safety.Contains)) || item.Spell is not null)
            {
                decisions.AddRange(mine);
                continue;
            }
            var granted = mine.All(d => d.Outcome == Outcome.StepUp);
            var known = mine.ConvertAll(d => Known(visit, d, item, granted || left > 0));
            left -= !granted && known.Exists(d => d.Outcome == Outcome.StepUp) ? 1 : 0;
            decisions.AddRange(known);
        }
        return visit.Applied(decisions, Policy);
    }

    private static Decision Known(GuidedVisit visit, Decision byRules, PlanItem item, bool mayRise)
    {
        Decision Chosen(Outcome outcome) =>
            DecisionEngine.Chosen(visit.Seen, item.Id, byRules.Side, outcome, visit.Library);
        double Margin(string rungId) => visit.Client.Margin(visit.Library.Rung(rungId), Side.Both);
        if (Margin(item.RungId) < 0)
        {
            return Chosen(Outcome.StepDown);
        }
        var up = Chosen(Outcome.StepUp);
        return mayRise && up.Outcome == Outcome.StepUp && Margin(up.RungId) >= 0 ? up
            : byRules.Outcome == Outcome.Add ? byRules
            : Chosen(Outcome.Stay);
    }
}

/// <summary>The first plan for all the weeks.</summary>
public sealed record FrozenPlan(Policy Policy) : CourseGuide("frozen plan", Policy)
{
    public override Plan? Next(GuidedVisit visit) => null;
}

/// <summary>
/// A twelve-week map without any rule of ours: at each stage of the map every exercise goes a rung up, and between them the
/// dose goes halfway to the target and to it; nothing that is seen or felt changes that.
/// </summary>
public sealed record PlainCalendar(Policy Policy) : CourseGuide("plain calendar", Policy)
{
    public override Plan? Next(GuidedVisit visit)
    {
        var (plan, library) = (visit.Plan, visit.Library);
        var up = library.TwelveWeeks.Any(stage => stage.From == visit.Seen.Visit && stage.From > 1);
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
