using Palaestra.Core.Findings;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;

namespace Palaestra.Core.Planning;

/// <summary>Warnings on a plan as it stands, and errors in what cannot be a plan at all.</summary>
public static class PlanCheck
{
    /// <summary>Reps of a set at most.</summary>
    public const int RepsMax = 50;

    /// <summary>Sets at most.</summary>
    public const int SetsMax = 10;

    /// <summary>Seconds of a hold at most.</summary>
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
                yield return new($"{at}.rungId", Message.Of("no.rung", ("rung", items[i].RungId)));
                continue;
            }
            if (!library.LadderOf(rung.Id).Trained)
            {
                yield return new($"{at}.rungId", Message.Of("plan.test", ("rung", rung.Id)));
            }
            if (items[i].Doses.Count == 0)
            {
                yield return new($"{at}.doses", Message.Of("plan.no-dose"));
            }
            for (var d = 0; d < items[i].Doses.Count; d++)
            {
                foreach (var error in DoseErrors(items[i].Doses[d], rung, library, $"{at}.doses[{d}]"))
                {
                    yield return error;
                }
            }
            if (items[i].Doses.GroupBy(d => d.Side).Any(group => group.Count() > 1))
            {
                yield return new($"{at}.doses", Message.Of("plan.one-dose"));
            }
        }
        if (items.GroupBy(item => item.Id).Any(group => group.Count() > 1))
        {
            yield return new(path, Message.Of("plan.same-id"));
        }
    }

    private static IEnumerable<FieldError> DoseErrors(
        SideDose side,
        Rung rung,
        PracticeLibrary library,
        string at
    )
    {
        if (!rung.TaskSides.Contains(side.Side))
        {
            yield return new($"{at}.side", Message.Of("plan.side", ("rung", rung.Id), ("side", side.Side)));
        }
        if (side.Dose.Reps is < 1 or > RepsMax)
        {
            yield return new($"{at}.dose.reps", Message.Of("plan.reps", ("most", RepsMax)));
        }
        if (
            side.Dose.Fewer < 0
            || side.Dose.Fewer > 0
                && side.Dose.RepsOf(side.Dose.Sets - 1)
                    != side.Dose.Reps - side.Dose.Fewer * (side.Dose.Sets - 1)
        )
        {
            yield return new($"{at}.dose.fewer", Message.Of("plan.fewer"));
        }
        if (side.Dose.Sets is < 1 or > SetsMax)
        {
            yield return new($"{at}.dose.sets", Message.Of("plan.sets", ("most", SetsMax)));
        }
        foreach (
            var error in DoseCheck
                .SettingErrors(side.Dose, $"{at}.dose")
                .Where(e => !e.Field.EndsWith(".range", StringComparison.Ordinal))
        )
        {
            yield return error;
        }
        if (
            side.Dose.Modifier is { } id
            && library.FindModifier(id)?.Fits(rung, library.LadderOf(rung.Id)) != true
        )
        {
            yield return new(
                $"{at}.dose.modifier",
                Message.Of("plan.modifier", ("modifier", id), ("rung", rung.Id))
            );
        }
        if (!(side.Range >= PlanRange.Least && side.Range <= 1))
        {
            yield return new($"{at}.range", Message.Of("plan.range", ("least", PlanRange.Least)));
        }
        if (side.Dose.Hold is < 0 or > HoldMax || double.IsNaN(side.Dose.Hold))
        {
            yield return new($"{at}.dose.hold", Message.Of("plan.hold", ("most", HoldMax)));
        }
    }

    /// <summary>
    /// P-BARRED blocks; the others advise: P-CAP, P-LIMIT, P-SORE, P-ENTRY, P-ONE-SIDED, P-MINUTES.
    /// </summary>
    public static IReadOnlyList<PlanWarning> Warnings(
        Plan plan,
        ClientProfile profile,
        ScreenFindings? findings,
        double minutesPerDay,
        PracticeLibrary library
    )
    {
        var policy = library.FindPolicy(plan.PolicyId) ?? library.DefaultPolicy;
        var level = IrritabilityLevel.Of(profile, policy);
        var warnings = plan
            .Items.SelectMany(item =>
            {
                var rung = library.Rung(item.RungId);
                var allowance = Allowance.Of(library, profile.Precautions, rung, Side.Both);
                return DoseWarnings(item, rung, allowance, level, policy)
                    .Concat(SideWarnings(item, rung, allowance))
                    .Concat(
                        BarWarnings(item, rung, allowance, policy, BarredModifiers(item, profile, library))
                    )
                    .Concat(LevelWarnings(item, rung, findings, level, policy, library));
            })
            .ToList();
        if (plan.TotalMinutes > minutesPerDay + MinutesGrace)
        {
            warnings.Add(
                new(
                    null,
                    "P-MINUTES",
                    Message.Of("plan.minutes-over", ("minutes", plan.TotalMinutes), ("has", minutesPerDay)),
                    false
                )
            );
        }
        return warnings;
    }

    /// <summary>What rounding to hundredths of a minute may add.</summary>
    private const double MinutesGrace = 0.01;

    private static IEnumerable<PlanWarning> DoseWarnings(
        PlanItem item,
        Rung rung,
        Allowance allowance,
        Irritability level,
        Policy policy
    )
    {
        var move = policy.Tempo.Seconds(rung.MoveSeconds);
        foreach (var side in item.Doses)
        {
            if (!rung.Allows(side.Dose))
            {
                yield return new(
                    item.Id,
                    "P-CAP",
                    Message.Of("plan.cap", ("cap", rung.Cap.Said()), ("side", side.Side)),
                    false
                );
            }
            if (level != Irritability.Low && side.Dose.Hold > policy.Sore.HoldMax)
            {
                yield return new(
                    item.Id,
                    "P-SORE",
                    Message.Of("plan.sore-hold", ("most", policy.Sore.HoldMax), ("side", side.Side)),
                    false
                );
            }
            foreach (
                var note in allowance.Limits.Where(note =>
                    note.Effect == PrecautionEffect.Caution && !note.Beyond!.LetsThrough(side.Dose, move)
                )
            )
            {
                yield return new(
                    item.Id,
                    "P-LIMIT",
                    Message.Of(
                        "plan.limit-over",
                        ("tag", note.Tag),
                        ("words", note.Words),
                        ("side", side.Side)
                    ),
                    false
                );
            }
        }
    }

    private static IEnumerable<PlanWarning> SideWarnings(PlanItem item, Rung rung, Allowance allowance)
    {
        if (rung.Sides != RungSides.Each || item.Doses.Count != 1)
        {
            yield break;
        }
        var only = item.Doses[0].Side;
        if (allowance.WorkingSide != only)
        {
            yield return new(
                item.Id,
                "P-ONE-SIDED",
                Message.Of("plan.one-side", ("side", only), ("other", only.Other())),
                false
            );
        }
    }

    /// <summary>A bar of the rung, or of this much of it.</summary>
    private static IEnumerable<PlanWarning> BarWarnings(
        PlanItem item,
        Rung rung,
        Allowance allowance,
        Policy policy,
        IReadOnlyList<Message> modifiers
    )
    {
        var move = policy.Tempo.Seconds(rung.MoveSeconds);
        var over = allowance.Limits.Where(note =>
            note.Effect == PrecautionEffect.Bar
            && item.Doses.Any(side => !note.Beyond!.LetsThrough(side.Dose, move))
        );
        var bars = allowance
            .Bars.Concat(over)
            .Select(note => Message.Of("tagged", ("tag", note.Tag), ("words", note.Words)))
            .Concat(modifiers)
            .Distinct()
            .ToList();
        if (bars.Count == 0)
        {
            yield break;
        }
        var why = Message.Of("together", ("parts", bars));
        var reasoned = !string.IsNullOrWhiteSpace(item.BarOverride);
        var instead =
            allowance.Barred ? Message.Of("plan.choose-another")
            : modifiers.Count > 0 ? Message.Of("plan.leave-off")
            : Message.Of("plan.smaller-dose");
        yield return new(
            item.Id,
            "P-BARRED",
            reasoned
                ? Message.Of("plan.overridden", ("why", why), ("reason", item.BarOverride))
                : Message.Of("plan.barred", ("why", why), ("instead", instead)),
            !reasoned
        );
    }

    private static List<Message> BarredModifiers(
        PlanItem item,
        ClientProfile profile,
        PracticeLibrary library
    ) =>
        [
            .. item
                .Doses.Select(side => library.FindModifier(side.Dose.Modifier))
                .OfType<Modifier>()
                .Where(modifier => modifier.BarredFor(profile) is not null)
                .Select(modifier =>
                    Message.Of(
                        "plan.not-with",
                        ("tag", library.Precaution(modifier.BarredFor(profile)!).Tag),
                        ("modifier", modifier.Id)
                    )
                )
                .Distinct(),
        ];

    private static IEnumerable<PlanWarning> LevelWarnings(
        PlanItem item,
        Rung rung,
        ScreenFindings? findings,
        Irritability level,
        Policy policy,
        PracticeLibrary library
    )
    {
        if (AboveEntry(item, rung, findings, library) is { } above)
        {
            yield return new(item.Id, "P-ENTRY", above, false);
        }
        if (level != Irritability.Low && rung.Features.Any(policy.Sore.Avoids.Contains))
        {
            yield return new(item.Id, "P-SORE", Message.Of("plan.sore"), false);
        }
    }

    private static Message? AboveEntry(
        PlanItem item,
        Rung rung,
        ScreenFindings? findings,
        PracticeLibrary library
    )
    {
        var ladder = library.LadderOf(rung.Id);
        // Neutral and switch-on are taught before anything is screened.
        if (findings is null || ladder.Direction == Direction.None)
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
            .Select(entry => entry.Side)
            .ToList();
        return above.Count == 0 ? null : Message.Of("plan.above-seen", ("parts", above));
    }
}
