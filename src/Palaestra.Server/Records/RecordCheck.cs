using Palaestra.Core.Body;
using Palaestra.Core.Capture;
using Palaestra.Core.Charts;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Outcomes;
using Palaestra.Core.Progression;
using Palaestra.Core.Visits;
using Palaestra.Data.Intake;
using Palaestra.Data.Records;
using Palaestra.Server.Clients;
using Palaestra.Server.Problems;

namespace Palaestra.Server.Records;

/// <summary>
/// Whether a record that came as a file can be one: everything in it belongs to this client, is told once, and says nothing that
/// could not have been written here. What it lets through can be opened and judged.
/// </summary>
public static class RecordCheck
{
    /// <returns>The first fault; none: it can be taken in.</returns>
    public static Message? Fault(ClientRecord record, PracticeLibrary library) =>
        Empty(record)
        ?? Torn(record)
        ?? Twice(record)
        ?? Unknown(record, library)
        ?? Impossible(record, library);

    /// <summary>Nothing where something must be.</summary>
    private static Message? Empty(ClientRecord record) =>
        NullMembers.Errors(record, "", 0).FirstOrDefault() is { } empty
            ? Message.Of("record.unread", ("at", empty.Field))
            : null;

    /// <summary>A row that belongs to nothing in the file.</summary>
    private static Message? Torn(ClientRecord record)
    {
        var clients = record.Merged.Append(record.Client).Select(c => c.Id).ToHashSet();
        var episodes = record.Episodes.Select(e => e.Id).ToHashSet();
        var visits = record.Visits.Select(v => v.Id).ToHashSet();
        var plans = record.Plans.Select(p => p.Id).ToHashSet();
        IEnumerable<(string What, bool Belongs)> rows =
        [
            .. record.Merged.Select(c => ("merged", c.MergedIntoId == record.Client.Id)),
            .. record.Episodes.Select(e => ("episodes", clients.Contains(e.ClientId))),
            .. record.EpisodeMoves.Select(m =>
                (
                    "episodeMoves",
                    episodes.Contains(m.EpisodeId)
                        && clients.Contains(m.FromClientId)
                        && clients.Contains(m.ToClientId)
                )
            ),
            .. record.DangerReports.Select(r => ("dangerReports", episodes.Contains(r.EpisodeId))),
            .. record.Visits.Select(v => ("visits", episodes.Contains(v.EpisodeId))),
            .. record.Events.Select(e =>
                (
                    "events",
                    visits.Contains(e.VisitId)
                        && e.Id == e.Event.Id
                        && e.TrialId == e.Event.TrialId
                        && e.Kind == e.Event.Kind
                )
            ),
            .. record.TrialMoves.Select(m =>
                ("trialMoves", visits.Contains(m.VisitId) && visits.Contains(m.ToVisitId))
            ),
            .. record.Plans.Select(p =>
                ("plans", episodes.Contains(p.EpisodeId) && visits.Contains(p.VisitId))
            ),
            .. record.Decisions.Select(d =>
                ("decisions", visits.Contains(d.VisitId) && plans.Contains(d.PlanRevisionId))
            ),
            .. record.DecidedVisits.Select(d =>
                ("decidedVisits", visits.Contains(d.VisitId) && plans.Contains(d.PlanRevisionId))
            ),
            .. record.HomeLog.Select(d => ("homeLog", episodes.Contains(d.EpisodeId))),
            .. record.Notes.Select(n =>
                ("notes", visits.Contains(n.VisitId) && episodes.Contains(n.EpisodeId))
            ),
            .. record.Charts.Select(c =>
                ("charts", visits.Contains(c.VisitId) && episodes.Contains(c.EpisodeId))
            ),
            .. record.Letters.Select(l => ("letters", visits.Contains(l.VisitId))),
            .. record.Discharges.Select(d => ("discharges", episodes.Contains(d.EpisodeId))),
            .. record.Amendments.Select(a => ("amendments", episodes.Contains(a.EpisodeId))),
            .. record.Photos.Select(p => ("photos", visits.Contains(p.VisitId))),
            .. record.Traces.Select(t => ("traces", visits.Contains(t.VisitId))),
        ];
        var torn = rows.FirstOrDefault(row => !row.Belongs).What;
        return torn is null ? null : Message.Of("record.torn", ("part", torn));
    }

    /// <summary>Of these the rules take one each.</summary>
    private static Message? Twice(ClientRecord record) =>
        Twice(record.Episodes, e => e.Id)
        || Twice(record.Visits, v => v.Id)
        || Twice(record.Plans, p => (p.EpisodeId, p.Revision))
        || Twice(record.HomeLog, d => (d.EpisodeId, d.Day))
        || Twice(record.Letters, l => l.VisitId)
        || Twice(record.Traces, t => (t.TrialId, t.Instrument))
            ? Message.Of("record.twice")
            : null;

    private static bool Twice<T, TKey>(IReadOnlyList<T> rows, Func<T, TKey> key) =>
        rows.DistinctBy(key).Count() != rows.Count;

    /// <summary>An exercise, a red flag, or a policy, that this clinic has not: its rules would pass over it.</summary>
    private static Message? Unknown(ClientRecord record, PracticeLibrary library)
    {
        var rung = record
            .Plans.SelectMany(plan => plan.Plan.Items)
            .Select(item => item.RungId)
            .FirstOrDefault(id => library.FindRung(id) is null);
        if (rung is not null)
        {
            return Message.Of("record.no-rung", ("rung", rung));
        }
        var sign = record
            .DangerReports.Select(report => report.SignId)
            .FirstOrDefault(id => library.DangerSigns.All(known => known.Id != id));
        if (sign is not null)
        {
            return Message.Of("record.no-sign", ("sign", sign));
        }
        var policy = record
            .Episodes.Select(episode => episode.PolicyId)
            .Concat(record.Plans.Select(plan => plan.Plan.PolicyId))
            .FirstOrDefault(id =>
                library.FindPolicy(id) is null && record.Policies.All(own => own.PolicyId != id)
            );
        return policy is null ? null : Message.Of("record.no-policy", ("policy", policy));
    }

    private static Message? Impossible(ClientRecord record, PracticeLibrary library) =>
        record.Client.Name.Trim().Length is 0 or > PersonRules.NameMost
            ? At("client.name", Message.Of("client.name-long"))
        : record.Client.Sex is { } sex && !Enum.GetNames<Sex>().Contains(sex)
            ? At("client.sex", Message.Of("record.sex"))
        : Errors(record, library).Select(error => At(error.Field, error.Message)).FirstOrDefault();

    private static Message At(string field, Message said) =>
        Message.Of("record.impossible", ("field", field), ("said", said));

    private static IEnumerable<FieldError> Errors(ClientRecord record, PracticeLibrary library)
    {
        foreach (var error in record.Client.Body().Errors("client"))
        {
            yield return error;
        }
        foreach (var (i, episode) in record.Episodes.Index())
        {
            IEnumerable<FieldError> told =
            [
                .. ProfileCheck.Errors(
                    episode.Answers().Profile(episode.RestingShape),
                    library,
                    $"episodes[{i}]"
                ),
                .. DaysOf(record, episode),
            ];
            foreach (var error in told)
            {
                yield return error;
            }
        }
        foreach (var (i, chart) in record.Charts.Index())
        {
            foreach (var error in BodyChart.Errors(chart.Chart, $"charts[{i}]"))
            {
                yield return error;
            }
        }
        foreach (var (i, visit) in record.Visits.Index())
        {
            IEnumerable<FieldError> told =
            [
                .. visit.Intake is { } intake
                    ? ProfileCheck.Errors(intake.Profile(null), library, $"visits[{i}].intake")
                    : [],
                .. visit.CheckIn is { } checkIn
                    ? CheckInCheck.Errors(checkIn, library, $"visits[{i}].checkIn")
                    : [],
                .. visit.Answers is { } answers
                    ? OutcomeAnswers.Errors(answers, library, $"visits[{i}].answers")
                    : [],
            ];
            foreach (var error in told)
            {
                yield return error;
            }
        }
        foreach (var visit in record.Events.GroupBy(e => e.VisitId))
        {
            // Rows have no order of their own: what begins a trial first, what takes something back last.
            var taps = visit
                .Select(e => Renewal.Of(e.Event, library))
                .OrderBy(e =>
                    e.Begins ? 0
                    : e is Undone ? 2
                    : 1
                )
                .ToList();
            foreach (var error in CaptureCheck.Errors([], taps, library))
            {
                yield return error;
            }
        }
    }

    /// <summary>Days at home, against the exercises of any plan of the episode; the file tells nothing of the day after it was made.</summary>
    private static IEnumerable<FieldError> DaysOf(ClientRecord record, Episode episode)
    {
        var items = record
            .Plans.Where(plan => plan.EpisodeId == episode.Id)
            .SelectMany(plan => plan.Plan.Items)
            .SelectMany(item => item.Doses.Select(dose => (item.Id, dose.Side)))
            .ToHashSet();
        // Somewhere on the earth it is a day later than in UTC.
        var last = DateOnly.FromDateTime(record.MadeAt.ToDateTimeUtc()).AddDays(1);
        return record
            .HomeLog.Index()
            .Where(day => day.Item.EpisodeId == episode.Id)
            .SelectMany(day =>
                HomeDayCheck.Errors(day.Item.Log, items, episode.OpenedOn, last, $"homeLog[{day.Index}]")
            );
    }
}
