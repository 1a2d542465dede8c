using Palaestra.Core.Findings;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Screening;

namespace Palaestra.Core.Planning;

/// <summary>A rung that could go into a plan, and how much it would do for the weak directions.</summary>
/// <param name="Weaker">The side that needs more; none when even.</param>
internal sealed record Candidate(
    Rung Rung,
    double Score,
    string For,
    IReadOnlyList<Reason> Reasons,
    Side? Weaker
)
{
    /// <summary>The entry rung of a ladder, never above; its fallback where nothing was clean; none when all is barred.</summary>
    public static Candidate? Of(
        Ladder ladder,
        PlanInput input,
        StirredUp level,
        Policy policy,
        PracticeLibrary library,
        List<Reason> notChosen
    )
    {
        var searches = input.Findings.Entries.Where(entry => entry.LadderId == ladder.Id).ToList();
        if (searches.Count == 0 || searches.All(s => s.TrialIds.Count == 0))
        {
            var bar = Allowance.Of(library, input.Profile.Precautions, ladder.Rungs[0], Side.Both);
            notChosen.Add(
                bar.Barred
                    ? new("P-BARRED", $"{ladder.Name}: {bar.BarWords}.")
                    : new("P-UNSEEN", $"{ladder.Name} was not screened.")
            );
            return null;
        }
        var reasons = new List<Reason>();
        if (EntryOf(ladder, searches, level, input.Profile, library, reasons) is not { } rung)
        {
            return Fallback(ladder, input, library, notChosen);
        }
        var weaker = WeakerOf(ladder, searches, input.Findings, policy);
        var need = Need(rung, ladder, input.Findings, library);
        var preferred = Allowance.Of(library, input.Profile.Precautions, rung, Side.Both).Preferred;
        reasons.InsertRange(0, Purpose(rung, ladder, input.Findings, preferred, library));
        var score = need + (preferred ? 0.25 : 0) + (weaker is null ? 0 : 0.1);
        return new Candidate(rung, score, ForWords(rung, input.Findings, library), reasons, weaker);
    }

    /// <summary>
    /// A two-sided ladder moves with its weaker side: the lower entry of the two (P-ENTRY). When easily stirred up,
    /// not above the lower third (P-SORE-LOW).
    /// </summary>
    private static Rung? EntryOf(
        Ladder ladder,
        List<RungSearch> searches,
        StirredUp level,
        ClientProfile profile,
        PracticeLibrary library,
        List<Reason> reasons
    )
    {
        var tried = searches.Where(s => s.TrialIds.Count > 0).ToList();
        if (tried.Any(s => s.EntryRungId is null))
        {
            return null;
        }
        var index = tried.Min(s => ladder.IndexOf(s.EntryRungId!));
        var lowest = tried.First(s => ladder.IndexOf(s.EntryRungId!) == index);
        reasons.Add(new("P-ENTRY", $"Entry rung: {ladder.Rungs[index].Name}. {lowest.Why}"));
        var lowerThird = (int)Math.Ceiling(ladder.Rungs.Count / 3.0) - 1;
        if (level == StirredUp.High && index > lowerThird)
        {
            index = lowerThird;
            reasons.Add(
                new("P-SORE-LOW", "Easily stirred up: no higher than the lower third of the ladder.")
            );
        }
        while (
            index >= 0 && Allowance.Of(library, profile.Precautions, ladder.Rungs[index], Side.Both).Barred
        )
        {
            index--;
        }
        return index < 0 ? null : ladder.Rungs[index];
    }

    private static Candidate? Fallback(
        Ladder ladder,
        PlanInput input,
        PracticeLibrary library,
        List<Reason> notChosen
    )
    {
        var rung = ladder.Fallback is { } id ? library.FindRung(id) : null;
        if (rung is null || Allowance.Of(library, input.Profile.Precautions, rung, Side.Both).Barred)
        {
            notChosen.Add(
                new("P-NO-ENTRY", $"{ladder.Name}: nothing was clean and there is no easier rung open.")
            );
            return null;
        }
        var reason = new Reason(
            "P-FALLBACK",
            $"{ladder.Name}: not even the lowest rung was clean, so neutral is trained there first."
        );
        return new Candidate(
            rung,
            0.5,
            $"finding neutral before {ladder.Name.ToLowerInvariant()}",
            [reason],
            null
        );
    }

    /// <summary>The side with the lower entry; on the same rung, the side behind by more than even in any task of the ladder.</summary>
    private static Side? WeakerOf(
        Ladder ladder,
        List<RungSearch> searches,
        ScreenFindings findings,
        Policy policy
    )
    {
        var left = searches.FirstOrDefault(s => s.Side == Side.Left)?.EntryRungId;
        var right = searches.FirstOrDefault(s => s.Side == Side.Right)?.EntryRungId;
        if (left is not null && right is not null && left != right)
        {
            return ladder.IndexOf(left) < ladder.IndexOf(right) ? Side.Left : Side.Right;
        }
        return findings
            .Tasks.Where(task => ladder.IndexOf(task.RungId) >= 0 && task.Weaker is not null)
            .Where(task => task.DifferencePercent >= policy.EvenPercent)
            .OrderByDescending(task => task.DifferencePercent)
            .Select(task => task.Weaker)
            .FirstOrDefault();
    }

    /// <summary>
    /// Demand on each direction times what that direction lacks; the weak link counts double. A direction that only
    /// the higher rungs of the ladder ask for counts half: the rung leads there.
    /// </summary>
    private static double Need(Rung rung, Ladder ladder, ScreenFindings findings, PracticeLibrary library) =>
        findings
            .Control.Where(control => control.Percent is not null)
            .Sum(control =>
            {
                var own = DemandOf(rung, control.Sector, library);
                var ahead = ladder.Rungs.Max(other => DemandOf(other, control.Sector, library));
                var lack = 1 - control.Percent!.Value / 100;
                return (own + ahead) / 2 * lack * (findings.WeakLink?.Sector == control.Sector ? 2 : 1);
            });

    private static double DemandOf(Rung rung, Sector sector, PracticeLibrary library) =>
        Math.Max(
            ControlEstimate.WeightOf(rung, sector, Side.Left, library),
            ControlEstimate.WeightOf(rung, sector, Side.Right, library)
        );

    private static IEnumerable<Reason> Purpose(
        Rung rung,
        Ladder ladder,
        ScreenFindings findings,
        bool preferred,
        PracticeLibrary library
    )
    {
        var weak = findings.WeakLink;
        if (weak is not null && DemandOf(rung, weak.Sector, library) > 0)
        {
            yield return new("P-WEAK", $"{weak.Words} ({weak.Percent:0} % held); this asks for it.");
        }
        else if (weak is not null && ladder.Rungs.Any(other => DemandOf(other, weak.Sector, library) > 0))
        {
            yield return new("P-WEAK", $"{weak.Words} ({weak.Percent:0} % held); this ladder leads there.");
        }
        else if (Need(rung, ladder, findings, library) > 0.05)
        {
            yield return new("P-COVER", "Trains a direction that was seen to give way.");
        }
        else
        {
            yield return new("P-KEEP", "Done well: kept for confidence.");
        }
        if (preferred)
        {
            yield return new("P-PREFER", "Suits the client's precautions.");
        }
    }

    /// <summary>The direction it asks most of, on the side where control is lowest.</summary>
    private static string ForWords(Rung rung, ScreenFindings findings, PracticeLibrary library)
    {
        var main = library.DemandsOf(rung).OrderByDescending(demand => demand.Weight).First();
        var sectors = new[]
        {
            Sectors.Of(main.Direction, main.On, Side.Left),
            Sectors.Of(main.Direction, main.On, Side.Right),
        };
        var lowest = findings
            .Control.Where(control => sectors.Contains(control.Sector))
            .OrderBy(control => control.Percent ?? 101)
            .Select(control => (Sector?)control.Sector)
            .FirstOrDefault();
        return library.Words(lowest ?? Sector.Front).Holds;
    }
}
