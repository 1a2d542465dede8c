using Palaestra.Core.Findings;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;

namespace Palaestra.Core.Planning;

/// <summary>Warnings on a plan as it stands, and errors in what cannot be a plan at all.</summary>
public static class PlanCheck
{
    public const int RepsMax = 50;
    public const int SetsMax = 10;
    public const double HoldMax = 120;

    /// <summary>Errors: unknown rungs, doses that are no doses, sides that do not belong to the rung.</summary>
    public static IEnumerable<FieldError> Errors(
        IReadOnlyList<PlanItem> items,
        PracticeLibrary library,
        string path
    )
    {
        for (var i = 0; i < items.Count; i++)
        {
            var at = $"{path}[{i}]";
            if (library.FindRung(items[i].RungId) is not { } rung)
            {
                yield return new($"{at}.rungId", $"There is no rung “{items[i].RungId}”.");
                continue;
            }
            if (!library.LadderOf(rung.Id).Trained)
            {
                yield return new($"{at}.rungId", $"{rung.Name} is a test, not an exercise.");
            }
            if (items[i].Doses.Count == 0)
            {
                yield return new($"{at}.doses", "An exercise needs a dose.");
            }
            for (var d = 0; d < items[i].Doses.Count; d++)
            {
                foreach (var error in DoseErrors(items[i].Doses[d], rung, $"{at}.doses[{d}]"))
                {
                    yield return error;
                }
            }
            if (items[i].Doses.GroupBy(d => d.Side).Any(group => group.Count() > 1))
            {
                yield return new($"{at}.doses", "Each side has one dose.");
            }
        }
        if (items.GroupBy(item => item.Id).Any(group => group.Count() > 1))
        {
            yield return new(path, "Two exercises have the same id.");
        }
    }

    private static IEnumerable<FieldError> DoseErrors(SideDose side, Rung rung, string at)
    {
        if (!rung.TaskSides.Contains(side.Side))
        {
            yield return new($"{at}.side", $"{rung.Name} is not done on “{side.Side.Word()}”.");
        }
        if (side.Dose.Reps is < 1 or > RepsMax)
        {
            yield return new($"{at}.dose.reps", $"Reps are between 1 and {RepsMax}.");
        }
        if (side.Dose.Sets is < 1 or > SetsMax)
        {
            yield return new($"{at}.dose.sets", $"Sets are between 1 and {SetsMax}.");
        }
        if (!(side.Range >= PlanRange.Least && side.Range <= 1))
        {
            yield return new($"{at}.range", $"A range is a share of the movement, {PlanRange.Least} to 1.");
        }
        if (side.Dose.Hold is < 0 or > HoldMax || double.IsNaN(side.Dose.Hold))
        {
            yield return new($"{at}.dose.hold", $"A hold is between 0 and {HoldMax} seconds.");
        }
    }

    /// <summary>P-BARRED blocks; the others advise: P-CAP, P-ENTRY, P-ONE-SIDED, P-MINUTES.</summary>
    public static IReadOnlyList<PlanWarning> Warnings(
        Plan plan,
        ClientProfile profile,
        ScreenFindings? findings,
        double minutesPerDay,
        PracticeLibrary library
    )
    {
        var warnings = plan.Items.SelectMany(item => ItemWarnings(item, profile, findings, library)).ToList();
        if (plan.TotalMinutes > minutesPerDay)
        {
            warnings.Add(
                new(
                    null,
                    "P-MINUTES",
                    $"{plan.TotalMinutes:0.#} minutes; the client has {minutesPerDay:0.#}.",
                    false
                )
            );
        }
        return warnings;
    }

    private static IEnumerable<PlanWarning> ItemWarnings(
        PlanItem item,
        ClientProfile profile,
        ScreenFindings? findings,
        PracticeLibrary library
    )
    {
        var rung = library.Rung(item.RungId);
        foreach (var side in item.Doses)
        {
            if (!rung.Cap.Covers(side.Dose))
            {
                yield return new(
                    item.Id,
                    "P-CAP",
                    $"Over the cap of {rung.Cap.Words()} ({side.Side.Word()}).",
                    false
                );
            }
        }
        if (rung.Sides == RungSides.Each && item.Doses.Count == 1)
        {
            var other = item.Doses[0].Side.Other().Word();
            yield return new(
                item.Id,
                "P-ONE-SIDED",
                $"Only one side is trained; the {other} has no dose.",
                false
            );
        }
        var allowance = Allowance.Of(library, profile.Precautions, rung, Side.Both);
        if (allowance.Barred)
        {
            var reasoned = !string.IsNullOrWhiteSpace(item.BarOverride);
            var words = reasoned
                ? $"Barred ({allowance.BarWords}); overridden: {item.BarOverride}"
                : $"Barred. {Sentence(allowance.BarWords)} Choose another rung, or write why it is safe here.";
            yield return new(item.Id, "P-BARRED", words, !reasoned);
        }
        if (AboveEntry(item, rung, findings, library) is { } above)
        {
            yield return new(item.Id, "P-ENTRY", above, false);
        }
    }

    private static string? AboveEntry(
        PlanItem item,
        Rung rung,
        ScreenFindings? findings,
        PracticeLibrary library
    )
    {
        var ladder = library.LadderOf(rung.Id);
        if (findings is null || !ladder.Screened)
        {
            return null;
        }
        var sides = item
            .Doses.Select(d => d.Side)
            .SelectMany(s => s == Side.Both ? new[] { Side.Left, Side.Right } : [s]);
        var above = findings
            .Entries.Where(entry => entry.LadderId == ladder.Id && sides.Contains(entry.Side) && entry.Done)
            .Where(entry =>
                entry.EntryRungId is null || ladder.IndexOf(entry.EntryRungId) < ladder.IndexOf(rung.Id)
            )
            .Select(entry => entry.Side.Word())
            .ToList();
        return above.Count == 0 ? null : $"Above what was seen clean: {string.Join(" and ", above)}.";
    }

    private static string Sentence(string words) =>
        words.Length == 0 ? "" : char.ToUpperInvariant(words[0]) + words[1..] + ".";
}
