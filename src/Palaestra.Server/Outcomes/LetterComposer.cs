using Microsoft.EntityFrameworkCore;
using NodaTime;
using Palaestra.Core.Charts;
using Palaestra.Core.Library;
using Palaestra.Core.Outcomes;
using Palaestra.Core.Progression;
using Palaestra.Data;
using Palaestra.Exchange.Letters;
using Palaestra.Server.Charts;
using Palaestra.Server.Clinics;
using Palaestra.Server.Intake;
using Palaestra.Server.Progression;
using Palaestra.Server.Words;

namespace Palaestra.Server.Outcomes;

/// <summary>Writes a letter to the referrer from a record up to a visit.</summary>
public sealed class LetterComposer(
    PalaestraDb db,
    PracticeLibrary library,
    OutcomeSummary outcomes,
    ClinicClock clock,
    ClinicWords words
)
{
    /// <summary>How it went, sentence by sentence; empty before anything was done.</summary>
    public async Task<IReadOnlyList<string>> Status(CaseFile file) =>
        file.Visits.Count == 0
            ? []
            : words.SayAll([.. new LetterWriter(await InputOf(file, file.Visits[^1].Id), library).Status()]);

    public async Task<Letter> Fresh(CaseFile file, Guid visitId) =>
        Spoken(new LetterWriter(await InputOf(file, visitId), library).Write());

    private Letter Spoken(LetterOutline draft) =>
        new(
            "",
            words.Say(draft.About),
            [
                .. draft.Parts.Select(part => new LetterPart(
                    words.Say(part.Heading),
                    words.SayAll(part.Paragraphs)
                )),
            ]
        );

    private async Task<LetterInput> InputOf(CaseFile file, Guid visitId)
    {
        var number = file.NumberOf(visitId);
        var visits = file.Visits.Take(number).ToList();
        var ids = visits.Select(v => v.Id).ToList();
        var decisions = await db
            .Decisions.AsNoTracking()
            .Where(d => ids.Contains(d.VisitId))
            .OrderBy(d => d.Id)
            .ToListAsync();
        var plans = file.Plans.Where(p => ids.Contains(p.VisitId)).ToList();
        var last = file.DayOf(visits[^1]);
        return new LetterInput(
            file.Episode.Client!.Name,
            file.Episode.Client.AgeOn(last),
            file.Episode.OpenedOn,
            file.First.Complaint,
            file.First.Profile(file.Episode.RestingShape),
            [.. file.Profile.Precautions.Select(PrecautionWords)],
            [.. file.Episode.DangerReports.Select(r => DangerWords(r))],
            visits.Count(file.HasBegun),
            last,
            file.Visits.FirstOrDefault(v => file.Has(v.Id, Core.Capture.TrialPurpose.Screen)) is { } screened
                ? new(file.DayOf(screened), file.FindingsOf(screened))
                : null,
            file.ScreenVisit(visitId) is { } latest ? new(file.DayOf(latest), file.FindingsOf(latest)) : null,
            plans.FirstOrDefault()?.Plan,
            plans.LastOrDefault()?.Plan,
            file.Performances(visitId),
            [.. decisions.Select(d => d.Chosen)],
            visits.Count(v =>
                DecisionInputs.Of(file, v.Id, library) is { } input
                && new DayFacts(input, library).Flares.Count > 0
            ),
            HomeShare(file, visits),
            [
                .. outcomes
                    .Series(file)
                    .Select(s => OutcomeSeries.Of(s.Measure, [.. s.Points.Where(p => p.Visit <= number)]))
                    .OfType<OutcomeSeries>(),
            ],
            file.Policy,
            file.Sessions(visitId),
            visits.Count(v => v.Flags is not null),
            clock.Order,
            ChartOf(file, visitId),
            await DischargeOf(file)
        );
    }

    /// <summary>The last chart up to a visit, and how it differs from the first; none where nothing was drawn.</summary>
    private static ChartTold? ChartOf(CaseFile file, Guid visitId)
    {
        if (file.LastChart(visitId) is not { } last)
        {
            return null;
        }
        var first = file.Visits.First(v => file.Charts.ContainsKey(v.Id));
        return new(
            file.DayOf(last),
            [.. file.Charts[last.Id].Areas.Select(ChartWords.Of)],
            first == last
                ? null
                : ChartWords.Of(
                    ChartReading.Between(file.Charts[first.Id], file.Charts[last.Id]),
                    file.DayOf(first)
                )
        );
    }

    private async Task<DischargeTold?> DischargeOf(CaseFile file) =>
        file.Episode.DischargedOn is null
            ? null
            : (await db.Discharges.AsNoTracking().Where(d => d.EpisodeId == file.Episode.Id).ToListAsync())
                .Where(d => d.ReopenedOn is null)
                .Select(d => new DischargeTold(d.Day, d.Summary))
                .FirstOrDefault();

    /// <summary>Over all visits to which a home log was brought.</summary>
    private double? HomeShare(CaseFile file, List<Data.Visits.Visit> visits)
    {
        var work = visits.SelectMany(v => DecisionInputs.Home(file, v, library)).ToList();
        var planned = work.Sum(w => w.PlannedReps);
        return planned == 0 ? null : Math.Min(1, work.Sum(w => w.DoneReps) / (double)planned);
    }

    private static Message PrecautionWords(Core.Intake.ClientPrecaution mine)
    {
        var note = string.IsNullOrWhiteSpace(mine.Note) ? null : mine.Note.Trim();
        return Message.Of("letter.precaution", ("precaution", mine.Id), ("side", mine.Side), ("note", note));
    }

    private string Day(Instant at) => clock.Order.Long(clock.Zone.DayOf(at));

    private Message DangerWords(Data.Intake.DangerReport report) =>
        Message.Of(
            "letter.flag",
            ("flag", report.SignId),
            ("noted", clock.Zone.DayOf(report.NotedAt)),
            ("found", report.Found),
            ("done", report.Done),
            ("by", report.ClearedBy),
            ("cleared", report.ClearedAt is { } at ? clock.Zone.DayOf(at) : null)
        );

    /// <param name="visitId">The last chart up to it stands under the letter.</param>
    public async Task<LetterPage> Page(Letter letter, string signed, CaseFile file, Guid visitId)
    {
        var drawn = file.LastChart(visitId);
        var chart = drawn is null
            ? null
            : new LetterChart(
                file.Charts[drawn.Id],
                words.Say(
                    Message.Of("chart.title", ("name", file.Episode.Client!.Name), ("day", file.DayOf(drawn)))
                ),
                words.SayAll([.. file.Charts[drawn.Id].Areas.Select(ChartWords.Of)])
            );
        var clinic = await db.Clinics.AsNoTracking().SingleAsync();
        var today = Day(clock.Now);
        return new(
            letter,
            clinic.Name,
            clinic.Contact,
            today,
            signed,
            library.Cautions.LetterSupports,
            clinic.Address,
            clinic.Mark,
            chart
        );
    }
}
