using Microsoft.EntityFrameworkCore;
using NodaTime;
using Palaestra.Core.Intake;
using Palaestra.Data;
using Palaestra.Data.Intake;
using Palaestra.Data.Visits;
using Palaestra.Server.Clinics;

namespace Palaestra.Server.Intake;

/// <summary>Writes what was asked into the store: new clients, edits, and red flags as reports.</summary>
public sealed class IntakeStore(PalaestraDb db, ClinicClock clock)
{
    /// <summary>The first episode of a client, with its first visit; none where there is no such client, or nothing of theirs.</summary>
    public async Task<Opened?> FirstOf(Guid clientId) =>
        await db
            .Visits.Where(v => db.Episodes.Any(e => e.Id == v.EpisodeId && e.ClientId == clientId))
            .OrderBy(v => v.PlannedAt)
            .Select(v => new Opened(v.EpisodeId, v.Id))
            .FirstOrDefaultAsync();

    /// <summary>A new client with an episode and a first visit; saved.</summary>
    public async Task<(Episode Episode, Visit Visit)> Open(IntakeForm form, Instant plannedAt, string by)
    {
        var client = new Client { Id = form.Id ?? Guid.CreateVersion7(), Name = form.Name.Trim() };
        var episode = new Episode
        {
            ClientId = client.Id,
            Client = client,
            OpenedOn = clock.Zone.DayOf(plannedAt),
            Complaint = form.Complaint,
            Precautions = form.Precautions,
            PolicyId = form.PolicyId,
        };
        Write(form, episode);
        var visit = new Visit
        {
            EpisodeId = episode.Id,
            PlannedAt = plannedAt,
            Intake = episode.Answers(),
            Flags = FlagsOf(form, by),
        };
        episode.Visits.Add(visit);
        Report(episode, form.DangerSigns, by);
        db.Episodes.Add(episode);
        await db.SaveChangesAsync();
        return (episode, visit);
    }

    /// <summary>Copies the form onto the episode and its client.</summary>
    private static void Write(IntakeForm form, Episode episode)
    {
        WritePerson(form, episode);
        episode.Tell(AnswersOf(form));
        episode.Asked = true;
    }

    /// <summary>What is the client's own, and of no one visit.</summary>
    private static void WritePerson(IntakeForm form, Episode episode)
    {
        var client = episode.Client!;
        client.Name = form.Name.Trim();
        client.BirthDate = form.BirthDate;
        client.Sex = form.Sex?.ToString();
        client.HeightCm = form.HeightCm;
        client.Mass = form.MassKg;
        client.Version++;
        episode.Away = form.Away ?? [];
    }

    /// <summary>The answers of a visit in a form.</summary>
    public static VisitIntake AnswersOf(IntakeForm form) =>
        new(
            form.Complaint.Trim(),
            form.Pain,
            form.SettleHours,
            form.WakesAtNight,
            form.Precautions,
            form.MinutesPerDay,
            form.PolicyId,
            form.Goals ?? [],
            form.Equipment,
            form.DaysPerWeek
        );

    /// <summary>
    /// Writes the answers as those of one visit; what was told at other visits stays. What stands now follows only from the
    /// latest answers; but a precaution that an earlier visit turns out to have had is added to all since.
    /// </summary>
    public void WriteAt(IntakeForm form, CaseFile file, Visit visit, string by)
    {
        var episode = file.Episode;
        var later = file
            .Visits.SkipWhile(v => v.Id != visit.Id)
            .Skip(1)
            .Where(v => v.Intake is not null)
            .ToList();
        var had = file.IntakeAt(visit).Precautions;
        if (later.Count == 0)
        {
            Write(form, episode);
        }
        else
        {
            WritePerson(form, episode);
            foreach (var since in later)
            {
                since.Intake = since.Intake! with
                {
                    Precautions = FoundPrecautions.In(since.Intake.Precautions, had, form.Precautions),
                };
            }
            episode.Precautions = later[^1].Intake!.Precautions;
        }
        visit.Intake = AnswersOf(form);
        visit.Flags = FlagsOf(form, by) ?? visit.Flags;
    }

    private FlagsAsked? FlagsOf(IntakeForm form, string by) =>
        form.FlagsAsked == true || form.DangerSigns.Count > 0
            ? new FlagsAsked(by, clock.Now.ToDateTimeUtc(), form.DangerSigns)
            : null;

    /// <summary>Signs not already open become open reports. Unticking never removes one: only recording what was done does.</summary>
    public void Report(Episode episode, IEnumerable<string> signs, string by)
    {
        foreach (
            var sign in signs
                .Distinct()
                .Where(id => !episode.DangerReports.Any(r => r.Open && r.SignId == id))
        )
        {
            var report = new DangerReport
            {
                EpisodeId = episode.Id,
                SignId = sign,
                NotedAt = clock.Now,
                NotedBy = by,
            };
            episode.DangerReports.Add(report);
            db.DangerReports.Add(report);
        }
    }
}
