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
    /// <summary>A new client with an episode and a first visit; saved.</summary>
    public async Task<(Episode Episode, Visit Visit)> Open(IntakeForm form, Instant plannedAt, string by)
    {
        var client = new Client { Name = form.Name.Trim() };
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

    /// <summary>Copies the form onto the episode and its client. Precautions that were cleared stay in no other place.</summary>
    public static void Write(IntakeForm form, Episode episode)
    {
        var client = episode.Client!;
        client.Name = form.Name.Trim();
        client.BirthDate = form.BirthDate;
        client.Sex = form.Sex?.ToString();
        client.HeightCm = form.HeightCm;
        client.Mass = form.MassKg;
        episode.Complaint = form.Complaint.Trim();
        episode.PainNow = form.Pain.Now;
        episode.PainWorst = form.Pain.Worst;
        episode.PainUsual = form.Pain.Usual;
        episode.SettleHours = form.SettleHours;
        episode.WakesAtNight = form.WakesAtNight;
        episode.Precautions = form.Precautions;
        episode.MinutesPerDay = form.MinutesPerDay;
        episode.PolicyId = form.PolicyId;
        episode.Goals = form.Goals ?? [];
        episode.Equipment = form.Equipment;
        episode.DaysPerWeek = form.DaysPerWeek;
        episode.Away = form.Away ?? [];
    }

    /// <summary>Writes the answers as those of one visit; what was told at other visits stays.</summary>
    public void WriteAt(IntakeForm form, Episode episode, Visit visit, string by)
    {
        Write(form, episode);
        visit.Intake = episode.Answers();
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
