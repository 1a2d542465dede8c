using System.Text.RegularExpressions;
using Microsoft.EntityFrameworkCore;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Data;
using Palaestra.Data.Planning;
using Palaestra.Exchange.Calendar;
using Palaestra.Server.Intake;
using Palaestra.Server.Words;

namespace Palaestra.Server.TakeHome;

/// <summary>One day of the calendar on screen.</summary>
/// <param name="RungIds">What is done, in order.</param>
public sealed record CalendarDay(DateOnly Day, IReadOnlyList<string> RungIds, double Minutes);

/// <param name="Review">When to look at the plan again, by the policy. <paramref name="Rescreen"/>: when to screen again.</param>
/// <param name="Feed">Path of the feed; none until somebody asked for one.</param>
public sealed record CalendarView(
    int Revision,
    IReadOnlyList<CalendarDay> Days,
    IReadOnlyList<DaysAway> Away,
    DateOnly Review,
    DateOnly? Rescreen,
    string? Feed
);

/// <summary>Lays accepted plans out over days, for the screen and for calendar programs.</summary>
public sealed partial class CalendarFeeds(PracticeLibrary library, PalaestraDb db, ClinicWords words)
{
    /// <summary>None without a plan.</summary>
    public CalendarView? View(CaseFile file)
    {
        if (file.CurrentPlan is not { } revision)
        {
            return null;
        }
        var days = PlanDays.Of(file, revision, library);
        return new CalendarView(
            revision.Revision,
            [
                .. days.Select(day => new CalendarDay(
                    day.Day,
                    [.. revision.Plan.Items.Where(i => day.ItemIds.Contains(i.Id)).Select(i => i.RungId)],
                    day.Minutes
                )),
            ],
            file.Episode.Away,
            PlanDays.Review(file, revision),
            RescreenOf(file),
            file.Episode.FeedKey is { } key ? PathOf(key) : null
        );
    }

    public static string PathOf(string key) => $"/feeds/{key}.ics";

    /// <summary>
    /// The feed of an episode: days of training of every revision, each until the next takes over; visits; the review and the
    /// next screen. An entry keeps its id from revision to revision and its sequence only grows, so that a newer one takes
    /// the older one's place; a day that is no longer trained, or on which the client is away, is there as cancelled, and so are all while a red flag is open.
    /// </summary>
    /// <param name="alarm">Minutes before a visit; none: no reminder.</param>
    public async Task<string> Text(CaseFile file, int? alarm = null) =>
        PlanFeed.Text(await Head(file, alarm), Entries(file));

    /// <summary>One visit of the case, to be sent to the client.</summary>
    public async Task<string> Invitation(CaseFile file, Guid visitId, int? alarm = null) =>
        PlanFeed.Invitation(
            await Head(file, alarm),
            Visits(file).First(entry => entry.Id == $"{visitId:N}"),
            file.Episode.Client?.Email is { Length: > 0 } mail ? mail.Trim() : null
        );

    private async Task<FeedHead> Head(CaseFile file, int? alarm)
    {
        var clinic = await db.Clinics.AsNoTracking().SingleAsync();
        return new(
            words.Say(Message.Of("feed.name")),
            Domain,
            file.Zone.Id,
            clinic.Name,
            MailIn().Match(clinic.Contact) is { Success: true, Value: var mail } ? mail : null,
            string.Join(
                ", ",
                clinic.Address.Split(
                    '\n',
                    StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries
                )
            ),
            alarm
        );
    }

    /// <summary>Whom to call is one line, in which a mail address may stand.</summary>
    [GeneratedRegex(@"[^\s@,;<>()]+@[^\s@,;<>()]+\.[^\s@,;<>()]+")]
    private static partial Regex MailIn();

    /// <summary>Minutes before a visit that can be asked for: up to a week.</summary>
    public const int AlarmMost = 7 * 24 * 60;

    /// <summary>Ids hold a UUID and are unique by it; the same whichever address the server is reached at.</summary>
    private const string Domain = "palaestra";

    private IEnumerable<FeedEntry> Entries(CaseFile file)
    {
        var byDay = new Dictionary<DateOnly, FeedEntry>();
        foreach (var revision in file.Plans)
        {
            var from = PlanDays.First(file, revision);
            // What an earlier plan said of the days of this one no longer holds.
            foreach (var day in byDay.Keys.Where(day => day >= from).ToList())
            {
                byDay[day] = Cancelled(byDay[day], file, revision);
            }
            foreach (var day in PlanDays.Of(file, revision, library, away: []))
            {
                byDay[day.Day] = Cancelled(EntryOf(day, file, revision), file, revision);
            }
            foreach (var day in PlanDays.Of(file, revision, library))
            {
                byDay[day.Day] = EntryOf(day, file, revision);
            }
        }
        var days = file.Closed ? byDay.Values.Select(entry => entry with { Cancelled = true }) : byDay.Values;
        return days.Concat(Visits(file)).Concat(Looks(file));
    }

    private static DateOnly? RescreenOf(CaseFile file) =>
        file.ScreenVisit() is { } screened ? file.RescreenDue(screened) : null;

    private FeedEntry EntryOf(TrainingDay day, CaseFile file, PlanRevision revision) =>
        new(
            $"{file.Episode.Id:N}-{day.Day:yyyyMMdd}",
            SequenceOf(file, revision),
            day.Day,
            null,
            day.Minutes,
            words.Say(Message.Of("feed.day", ("minutes", Math.Max(1, Math.Round(day.Minutes))))),
            string.Join(
                '\n',
                revision
                    .Plan.Items.Where(item => day.ItemIds.Contains(item.Id))
                    .Select(item => $"{library.Rung(item.RungId).Name}: {DosesOf(item)}")
                    .Append(library.Cautions.OnCalendar)
            ),
            false,
            revision.AcceptedAt.ToDateTimeUtc()
        );

    private static FeedEntry Cancelled(FeedEntry entry, CaseFile file, PlanRevision revision) =>
        entry with
        {
            Cancelled = true,
            Sequence = SequenceOf(file, revision),
            Stamp = revision.AcceptedAt.ToDateTimeUtc(),
        };

    private string DosesOf(PlanItem item) =>
        string.Join(
            "; ",
            item.Doses.Select(dose =>
                words.Say(Message.Of("feed.dose", ("side", dose.Side), ("dose", dose.Dose.Said())))
            )
        );

    /// <summary>Grows with every revision, every edit of the episode (days, holidays), and every red flag noted or dealt with.</summary>
    private static int SequenceOf(CaseFile file, PlanRevision revision) =>
        revision.Revision
        - 1
        + file.Episode.Version
        - 1
        + file.Episode.DangerReports.Sum(report => report.Open ? 1 : 2);

    /// <summary>With those that were called off, which a calendar takes out again.</summary>
    private IEnumerable<FeedEntry> Visits(CaseFile file) =>
        file.Episode.Visits.Select(visit => new FeedEntry(
            $"{visit.Id:N}",
            visit.Version - 1,
            file.DayOf(visit),
            visit.PlannedAt.ToDateTimeUtc(),
            visit.Minutes,
            words.Say(Message.Of("feed.visit")),
            "",
            visit.CalledOff is not null,
            (visit.CalledOffAt ?? file.Zone.StartOf(file.DayOf(visit))).ToDateTimeUtc()
        ));

    private IEnumerable<FeedEntry> Looks(CaseFile file)
    {
        if (file.CurrentPlan is not { } revision)
        {
            yield break;
        }
        FeedEntry Look(string id, DateOnly day, Message title) =>
            new(
                $"{file.Episode.Id:N}-{id}",
                SequenceOf(file, revision),
                day,
                null,
                null,
                words.Say(title),
                "",
                // Nobody looks again at an episode that is discharged; the exercises go on.
                file.Episode.DischargedOn
                    is not null,
                revision.AcceptedAt.ToDateTimeUtc()
            );
        yield return Look("review", PlanDays.Review(file, revision), Message.Of("feed.review"));
        if (RescreenOf(file) is { } rescreen)
        {
            yield return Look("rescreen", rescreen, Message.Of("feed.rescreen"));
        }
    }
}
