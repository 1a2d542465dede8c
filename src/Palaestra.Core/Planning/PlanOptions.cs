using Palaestra.Core.Intake;
using Palaestra.Core.Library;

namespace Palaestra.Core.Planning;

/// <summary>Turns rungs that may go into a plan into what the search weighs: each with its doses, minutes and cover.</summary>
internal sealed class PlanOptions(PlanInput input, Irritability level, Policy policy, PracticeLibrary library)
{
    private static readonly Sector[] Sectors = Enum.GetValues<Sector>();

    private readonly List<string> positions = [.. library.Positions.Select(position => position.Id)];
    private readonly List<string> equipment = [.. library.Equipment.Select(piece => piece.Id)];
    private readonly List<Goal> goals =
    [
        .. library.Goals.Where(goal => input.Goals?.Contains(goal.Id) == true),
    ];

    public List<PlanOption> Of(IReadOnlyList<Candidate> candidates)
    {
        var locked = (input.Locked ?? []).ToList();
        var taken = locked.Select(item => library.LadderOf(item.RungId)).ToList();
        var open = candidates
            .GroupBy(candidate => candidate.Rung.Id)
            .Select(same => same.First() with { Why = [.. same.SelectMany(c => c.Why).Distinct()] })
            .Where(candidate =>
                candidate.Basic
                    ? locked.All(item => item.RungId != candidate.Rung.Id)
                    : !taken.Contains(candidate.Ladder)
            )
            .ToList();
        var most = Sectors.ToDictionary(
            sector => sector,
            sector =>
                open.Select(candidate => candidate.Asks(sector, library))
                    .Concat(locked.Select(item => Candidate.Asks(library.Rung(item.RungId), sector, library)))
                    .DefaultIfEmpty(0)
                    .Max()
        );
        var options = open.SelectMany(candidate => Choices(candidate, most)).ToList();
        return [.. Undominated(options), .. locked.Select(item => Locked(item, most))];
    }

    private IEnumerable<PlanOption> Choices(Candidate candidate, Dictionary<Sector, double> most)
    {
        var doses = DosePlanner.Choices(candidate.Rung, level, candidate.Allowance.Limit, policy);
        var usual = Total(Sided(candidate, doses[0]));
        foreach (var dose in doses)
        {
            var sided = Sided(candidate, dose);
            var share = Math.Min(1, Total(sided) / usual);
            yield return Weighed(
                candidate,
                null,
                candidate.Rung,
                sided,
                most,
                share,
                candidate.Basic ? candidate.Rung.Id : candidate.Ladder.Id,
                Own(candidate) + OneSetMore * Math.Sign(dose.TotalReps - doses[0].TotalReps) + OneSetMore
            );
        }
    }

    /// <summary>The usual dose is worth this much more than fewer sets, and a set more as much again, where there is room; thousandths of a point.</summary>
    private const int OneSetMore = 5000;

    private static double Total(IReadOnlyList<SideDose> doses) =>
        doses.Sum(side => side.Dose.TotalReps * (side.Dose.Hold + 1));

    private static int Own(Candidate candidate) =>
        (candidate.Allowance.Preferred ? PlanObjective.Suits : 0)
        + Leading(candidate)
        + (candidate.Why.Any(reason => reason.RuleId == "P-FALLBACK") ? PlanObjective.NeutralFirst : 0);

    private static int Leading(Candidate candidate) =>
        candidate switch
        {
            { Basic: true } => candidate.Rung.Features.Contains(Rung.ActivationFeature)
                ? PlanObjective.Highest
                : 0,
            { Highest: false } => 0,
            _ => candidate.Why.Any(reason => reason.RuleId == "P-ENTRY")
                ? PlanObjective.AtEntry
                : PlanObjective.Highest,
        };

    private PlanOption Locked(PlanItem item, Dictionary<Sector, double> most)
    {
        var rung = library.Rung(item.RungId);
        return Weighed(null, item, rung, item.Doses, most, 1, item.Id.ToString(), 0);
    }

    private PlanOption Weighed(
        Candidate? candidate,
        PlanItem? locked,
        Rung rung,
        IReadOnlyList<SideDose> doses,
        Dictionary<Sector, double> most,
        double share,
        string ladder,
        int own
    )
    {
        var basic =
            rung.Features.Contains(Rung.NeutralFeature) || rung.Features.Contains(Rung.ActivationFeature);
        var served = library.LadderOf(rung.Id).Id;
        return new PlanOption(
            candidate,
            locked,
            rung.Id,
            ladder,
            doses,
            PlanTime.Seconds(doses, rung, policy),
            [
                .. Sectors.Select(sector =>
                    most[sector] <= 0
                        ? 0
                        : (int)Math.Round(1000 * share * Candidate.Asks(rung, sector, library) / most[sector])
                ),
            ],
            own,
            Mask(
                goals
                    .Select(goal => goal.Ladders.Contains(served) && goal.Fits(rung))
                    .Prepend(!basic && library.PositionOf(rung).OnFeet)
            ),
            Mask(equipment.Select(piece => rung.Equipment.Contains(piece))),
            Math.Max(0, positions.IndexOf(rung.Position)),
            basic,
            candidate is { Basic: false } && DoneWell(candidate)
        );
    }

    /// <summary>The weaker side first and with more, within what the precautions let through; the other as usual.</summary>
    private IReadOnlyList<SideDose> Sided(Candidate candidate, Dose dose)
    {
        SideDose Over(Side side, Dose asked) =>
            new(
                side,
                asked with
                {
                    Range = Math.Min(asked.Range, candidate.RangeOf(side)),
                    Load = StartLoad.Of(candidate.Rung, candidate.Allowance, input.Findings, policy, library),
                }
            );
        if (candidate.Weaker is not { } weaker || candidate.Sides.Count < 2)
        {
            return [.. candidate.Sides.Select(side => Over(side, dose))];
        }
        var extra = DosePlanner.ShortSets(
            dose,
            dose.TotalReps,
            policy.WeakerExtraFraction,
            candidate.Rung,
            policy
        );
        var more =
            extra.Seconds(1) > dose.Seconds(1)
                ? DosePlanner.Within(extra, candidate.Allowance.Limit, candidate.Rung, policy)
                : dose;
        return [Over(weaker, more), Over(weaker.Other(), dose)];
    }

    /// <summary>It was climbed, and every direction it asks for, if any, was held all but what still counts as even.</summary>
    private bool DoneWell(Candidate candidate)
    {
        var asked = input.Findings.Control.Where(c => candidate.Asks(c.Sector, library) > 0).ToList();
        return candidate.Why.Any(reason => reason.RuleId == "P-ENTRY")
            && asked.Count > 0
            && asked.All(control => control.Percent >= 100 - policy.EvenPercent);
    }

    /// <summary>Without options that another of the same ladder and position beats or equals in everything.</summary>
    private static IEnumerable<PlanOption> Undominated(List<PlanOption> options)
    {
        foreach (var group in options.GroupBy(option => (option.Ladder, option.Position)))
        {
            var all = group.OrderBy(option => option.Key, StringComparer.Ordinal).ToList();
            for (var i = 0; i < all.Count; i++)
            {
                var mine = all[i];
                if (
                    !all.Where((other, j) => j != i && AsGood(other, mine) && (!AsGood(mine, other) || j < i))
                        .Any()
                )
                {
                    yield return mine;
                }
            }
        }
    }

    private static bool AsGood(PlanOption a, PlanOption b) =>
        a.Seconds <= b.Seconds
        && a.Own >= b.Own
        && (b.Goals & ~a.Goals) == 0
        && (a.Equipment & ~b.Equipment) == 0
        && (a.Well || !b.Well)
        && (a.Basic || !b.Basic)
        && !a.Cover.Where((cover, s) => cover < b.Cover[s]).Any();

    private static int Mask(IEnumerable<bool> bits)
    {
        var mask = 0;
        var bit = 1;
        foreach (var on in bits)
        {
            mask |= on ? bit : 0;
            bit <<= 1;
        }
        return mask;
    }
}
