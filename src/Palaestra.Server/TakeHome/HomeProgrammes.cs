using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Data;
using Palaestra.Data.Planning;
using Palaestra.Exchange.Sheets;
using Palaestra.Server.Clinics;
using Palaestra.Server.Intake;
using Palaestra.Server.Library;
using Palaestra.Server.Words;

namespace Palaestra.Server.TakeHome;

/// <summary>Fills the sheet a client takes home from the plan in force.</summary>
public sealed class HomeProgrammes(
    PalaestraDb db,
    PracticeLibrary library,
    FigureStore figures,
    ClinicClock clock,
    ClinicWords words
)
{
    /// <summary>Days with a box to tick; longer lists are not kept.</summary>
    public const int DaysMost = 14;

    /// <param name="record">With a page for the practitioner behind the client's.</param>
    public async Task<Sheet> Of(CaseFile file, PlanRevision revision, bool record)
    {
        var clinic = await db.Clinics.AsNoTracking().SingleAsync();
        var today = clock.Today;
        var next = file.Visits.FirstOrDefault(v => file.DayOf(v) > today);
        var days = DaysToTick(today, next is null ? null : file.DayOf(next));
        var trained = PlanDays.Of(file, revision, library, until: days[^1]);
        var plan = revision.Plan;
        var todo = plan.ToDoOn(today).Items;
        return new Sheet(
            file.Episode.Client!.Name,
            clinic.Name,
            clinic.Contact.Length == 0
                ? ""
                : words.Say(Message.Of("sheet.call", ("contact", clinic.Contact))),
            words.Say(
                Message.Of(
                    "sheet.line",
                    ("minutes", plan.TotalMinutes),
                    ("days", file.Episode.DaysPerWeek),
                    ("strategy", plan.Strategy),
                    ("activation", plan.Activation)
                )
            ),
            todo.Any(item => library.ReturnsToCheck(library.Rung(item.RungId)))
                ? library.Cautions.BetweenReps
                : "",
            [.. todo.Select(item => Exercise(item, file.Policy, days, trained))],
            words.SayAll(days.Select(day => Message.Of("sheet.day", ("day", day)))),
            words.Say(Message.Of("sheet.pain")),
            BendingAccount.CountsFor(file.Profile, library)
                ? $"{library.Cautions.PickingUp} {library.Cautions.OnSheet}"
                : library.Cautions.OnSheet,
            next is null
                ? ""
                : words.Say(
                    Message.Of(
                        "sheet.next",
                        ("day", file.DayOf(next)),
                        (
                            "time",
                            file.Zone.Tell(next.PlannedAt).ToString("HH:mm", CultureInfo.InvariantCulture)
                        )
                    )
                ),
            words.Say(
                Message.Of(
                    "sheet.made",
                    ("revision", revision.Revision),
                    ("day", file.Zone.DayOf(revision.AcceptedAt))
                )
            ),
            record ? Record(file, revision) : null,
            clinic.Mark
        );
    }

    /// <summary>From tomorrow to the day before the next visit; a week when none is planned, never more than fourteen.</summary>
    public static IReadOnlyList<DateOnly> DaysToTick(DateOnly today, DateOnly? next)
    {
        var span = next is { } visit ? visit.DayNumber - today.DayNumber - 1 : 7;
        return [.. Enumerable.Range(1, Math.Clamp(span, 1, DaysMost)).Select(today.AddDays)];
    }

    private SheetExercise Exercise(
        PlanItem item,
        Policy policy,
        IReadOnlyList<DateOnly> days,
        IReadOnlyList<TrainingDay> trained
    )
    {
        var rung = library.Rung(item.RungId);
        var side = item.Doses[0].Side;
        var moves = rung.Poses.Start != rung.Poses.End;
        return new SheetExercise(
            item.Id,
            rung.Id,
            side,
            item.Doses[0].Range,
            moves,
            rung.Name,
            moves ? figures.Of(rung, side, Frame.Start) : null,
            figures.Of(rung, side, Frame.End, range: item.Doses[0].Range),
            [
                words.Say(Message.Of("sheet.setup", ("steps", rung.Setup))),
                rung.Movement,
                words.Say(
                    Message.Of("sheet.cue", ("cue", item.Cue), ("breath", DoseText.Breath(rung, policy)))
                ),
            ],
            words.Say(Message.Of("sheet.feel", ("place", rung.Feel))),
            words.Say(Message.Of("sheet.not-feel", ("place", rung.NotFeel))),
            [
                .. item.Doses.Select(dose => new SheetDose(
                    dose.Side,
                    // Where a shorter range ends stands on its own line.
                    words.Say((dose.RangeEnds is null ? dose.Dose : dose.Dose with { Range = 1 }).Said()),
                    words.Say(
                        dose.RangeEnds is { } ends
                            ? Message.Of(
                                "sheet.only",
                                ("dose", DoseText.Written(dose.Dose, rung, policy)),
                                ("range", ends)
                            )
                            : DoseText.Written(dose.Dose, rung, policy)
                    )
                )),
            ],
            [
                .. ForClient(words.SayAll(item.Notes ?? [])),
                .. ForClient(Halved(item)),
                .. ForClient(OnTop(item)),
                .. ForClient(words.SayAll(item.Changes)),
            ],
            [.. days.Select(day => trained.Any(t => t.Day == day && t.ItemIds.Contains(item.Id)))]
        );
    }

    private IEnumerable<string> ForClient(IEnumerable<string> changes) =>
        changes.Select(change => words.Say(Message.Of("sheet.change", ("change", change))));

    /// <summary>What is put on top of the exercise, in a sentence.</summary>
    private IEnumerable<string> OnTop(PlanItem item) =>
        item
            .Doses.Select(side => library.FindModifier(side.Dose.Modifier)?.Words)
            .OfType<string>()
            .Distinct();

    private IEnumerable<string> Halved(PlanItem item) =>
        item.HalvedWords() is { } halved ? [words.Say(halved)] : [];

    private SheetRecord Record(CaseFile file, PlanRevision revision)
    {
        var lines = new List<string>
        {
            words.Say(
                Message.Of(
                    "record.head",
                    ("name", file.Episode.Client!.Name),
                    ("revision", revision.Revision),
                    ("by", revision.AcceptedBy),
                    ("day", file.Zone.DayOf(revision.AcceptedAt)),
                    ("policy", file.Policy.Id),
                    ("version", revision.Plan.PolicyVersion)
                )
            ),
        };
        foreach (var item in revision.Plan.Items)
        {
            lines.Add(words.Say(Message.Of("record.item", ("rung", item.RungId), ("purpose", item.For))));
            lines.AddRange(item.Reasons.Select(reason => $"    {words.Say(reason.Words)} ({reason.RuleId})"));
            if (item.BarOverride is { } why)
            {
                lines.Add($"    {words.Say(Message.Of("compare.override", ("reason", why)))}");
            }
        }
        lines.AddRange(
            revision.Plan.Warnings.Select(warning =>
                words.Say(Message.Of("record.warning", ("warning", warning.Words), ("rule", warning.RuleId)))
            )
        );
        return new SheetRecord(words.Say(Message.Of("record.title")), lines);
    }
}
