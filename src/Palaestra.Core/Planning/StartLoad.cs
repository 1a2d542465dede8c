using Palaestra.Core.Findings;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;

namespace Palaestra.Core.Planning;

/// <summary>
/// The load a plan begins with (P-LOAD): the heaviest of the rung's that was lifted clean, all the way and with pain told, in a screen of its ladder and is 10 to 20 %
/// under where form broke; without such a screen, overhead, and where a precaution cautions, the lightest.
/// </summary>
public static class StartLoad
{
    /// <summary>Kilograms; none for a rung without loads.</summary>
    public static double? Of(
        Rung rung,
        Allowance allowance,
        ScreenFindings findings,
        Policy policy,
        PracticeLibrary library
    )
    {
        if (rung.Loads is not [var lightest, ..])
        {
            return null;
        }
        // A load lifted from below says nothing of one lifted overhead; where a precaution cautions, light comes first.
        var most =
            rung.Features.Contains(Rung.OverheadFeature) || allowance.Cautions.Any()
                ? 0
                : Most(rung, findings, policy, library);
        return rung.Loads.Where(kg => kg <= most + 1e-9).DefaultIfEmpty(lightest).Max();
    }

    /// <summary>The most that was seen to be safe, kilograms; 0 where no load of this ladder was screened, or none was clean.</summary>
    private static double Most(Rung rung, ScreenFindings findings, Policy policy, PracticeLibrary library)
    {
        var seen = (
            from task in findings.Tasks
            where library.FindTask(task.TaskId) is { Measure: MeasureKind.Kilograms }
            where library.FindRung(task.RungId) is not null
            where library.LadderOf(task.RungId).IndexOf(rung.Id) >= 0
            from score in new[] { task.Left, task.Right, task.Both }
            where score is not null
            select Math.Min(
                score.Assured ? score.Value ?? 0 : 0,
                (score.BrokeAt ?? double.PositiveInfinity) * (1 - policy.Judgement.UnderBreak)
            )
        ).ToList();
        return seen.Count == 0 ? 0 : seen.Min();
    }
}
