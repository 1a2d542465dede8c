using Microsoft.EntityFrameworkCore;
using Palaestra.Core.Visits;
using Palaestra.Data;
using Palaestra.Data.Clinics;
using Palaestra.Data.Day;
using Palaestra.Data.Intake;
using Palaestra.Data.Visits;

namespace Palaestra.Bench;

/// <summary>Fills a prepared store with many clients and visits, so that the day can be measured in a full clinic.</summary>
internal static class LargeClinic
{
    public const int Clients = 5000;
    public const int VisitsEach = 20;

    /// <summary>Visits a week apart, the last ones spread over the coming fortnight; no events: the day does not read them.</summary>
    public static void Fill(string folder, DateTime today)
    {
        var random = new Random(1);
        var options = new DbContextOptionsBuilder<PalaestraDb>()
            .UseSqlite(Store.ConnectionString(folder))
            .Options;
        for (var batch = 0; batch < Clients; batch += 250)
        {
            using var db = new PalaestraDb(options);
            db.ChangeTracker.AutoDetectChangesEnabled = false;
            for (var i = batch; i < batch + 250; i++)
            {
                Add(db, i, today, random);
            }
            db.SaveChanges();
        }
    }

    /// <summary>
    /// Twenty taps for each visit, so that the file has the size of a full clinic's. The day has been told that it knows them: they say
    /// nothing of it.
    /// </summary>
    public static void Tap(string folder)
    {
        using var db = new PalaestraDb(
            new DbContextOptionsBuilder<PalaestraDb>().UseSqlite(Store.ConnectionString(folder)).Options
        );
        db.Database.SetCommandTimeout(TimeSpan.FromMinutes(10));
        db.Database.ExecuteSqlRaw(
            """
            WITH RECURSIVE taps(n) AS (SELECT 1 UNION ALL SELECT n + 1 FROM taps WHERE n < 20),
            told AS (
                SELECT v.Id AS visit, v.PlannedAt AS at, printf('%s%s-%s-7%s-8%s-%s', hex(randomblob(2)), hex(randomblob(2)), hex(randomblob(2)),
                    substr(hex(randomblob(2)), 2), substr(hex(randomblob(2)), 2), hex(randomblob(6))) AS id
                FROM Visits v, taps WHERE NOT EXISTS (SELECT 1 FROM Events e WHERE e.VisitId = v.Id))
            INSERT INTO Events (Id, VisitId, TrialId, Kind, Event, ReceivedAt, By)
            SELECT id, visit, id, 'SessionPainAsked',
                json_object('kind', 'session-pain-asked', 'id', id, 'trialId', id, 'at', replace(at, ' ', 'T') || 'Z', 'value', 3, 'minutes', 10),
                at, 'Ines Tarrow'
            FROM told
            """
        );
    }

    /// <summary>Ids of the taps of a visit as the file has them, one a line.</summary>
    public static void TapsOf(string folder, Guid visitId, TextWriter to)
    {
        using var db = Store.Open(folder);
        foreach (var id in db.Events.Where(e => e.VisitId == visitId).Select(e => e.Id))
        {
            to.WriteLine(id);
        }
    }

    private static void Add(PalaestraDb db, int number, DateTime today, Random random)
    {
        var client = new Client { Name = $"Client {number:0000}", BirthDate = new DateOnly(1980, 1, 1) };
        var last = today.Date.AddDays(random.Next(-200, 14)).AddHours(8).AddMinutes(15 * random.Next(40));
        var episode = new Episode
        {
            ClientId = client.Id,
            OpenedOn = DateOnly.FromDateTime(last.AddDays(-7 * (VisitsEach - 1))),
            Complaint = "An ache after work.",
            PainNow = 4,
            PainWorst = 6,
            PainUsual = 4,
            SettleHours = 4,
            Precautions = [],
            PolicyId = "mastery-no-rise",
            MinutesPerDay = 15,
        };
        db.Clients.Add(client);
        db.Episodes.Add(episode);
        for (var visit = 0; visit < VisitsEach; visit++)
        {
            var at = last.AddDays(-7 * (VisitsEach - 1 - visit));
            db.Visits.Add(
                new Visit
                {
                    EpisodeId = episode.Id,
                    PlannedAt = ClinicZone.OfMachine().At(at),
                    CheckIn = visit == 0 || at > today ? null : new CheckIn(3, 3, random.Next(8), 4, []),
                    DecidedAt = at > today || random.Next(40) == 0 ? null : ClinicZone.OfMachine().At(at),
                }
            );
        }
        db.Standings.Add(new Standing { EpisodeId = episode.Id });
    }
}
