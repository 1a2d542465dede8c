using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using Palaestra.Core.Capture;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Outcomes;
using Palaestra.Core.Progression;
using Palaestra.Core.Screening;
using Palaestra.Core.Visits;
using Palaestra.Data;
using Palaestra.Data.Audit;
using Palaestra.Data.Staff;
using Palaestra.Data.Traces;
using Palaestra.Data.Visits;
using Palaestra.Exchange.Instruments;
using Palaestra.Server.Clinics;
using Palaestra.Server.Instruments;
using Palaestra.Server.Intake;
using Palaestra.Server.People;
using Palaestra.Server.Planning;
using Palaestra.Server.Progression;
using Palaestra.Server.Screening;
using Palaestra.Server.Visits;

namespace Palaestra.Server.Demo;

/// <summary>
/// Lives the demo scenario through the same rules and desks as a real clinic: trials become events, events become
/// findings, findings plans, sessions decisions. Nothing in the demo is stored ready-made.
/// </summary>
public sealed class DemoSeeder(
    PalaestraDb db,
    PracticeLibrary library,
    CaseFiles files,
    DemoScenario scenario,
    TraceStore traces,
    Settings settings,
    UserManager<Practitioner> users,
    ClinicClock today,
    Amendments.TrialMoves moves,
    Amendments.Amending amending,
    Author author
)
{
    private readonly Dictionary<string, Guid> accounts = [];
    private string Practitioner => scenario.Accounts[0].Name;

    public async Task Fill()
    {
        // One transaction: much faster than hundreds, and a demo is there whole or not at all.
        await using var whole = await db.Database.BeginTransactionAsync();
        await Accounts();
        var clinic = await db.Clinics.SingleAsync();
        clinic.Name = scenario.Clinic;
        clinic.Contact = scenario.Contact;
        clinic.Version = 1;
        foreach (var client in scenario.Clients)
        {
            await Live(client);
        }
        await InOrderOfTime();
        await whole.CommitAsync();
    }

    private async Task Accounts()
    {
        foreach (var account in scenario.Accounts)
        {
            var user = new Practitioner
            {
                DisplayName = account.Name,
                UserName = account.Email,
                Email = account.Email,
                Roles = account.Roles,
            };
            var created = await users.CreateAsync(user, account.Password);
            if (!created.Succeeded)
            {
                throw new InvalidOperationException(
                    string.Join(" ", created.Errors.Select(e => e.Description))
                );
            }
            accounts[account.Name] = user.Id;
        }
    }

    private async Task Live(DemoClient client)
    {
        var clock = new DemoClock();
        var intake = new IntakeStore(db, At(clock));
        Guid? episodeId = null;
        foreach (var visit in client.Visits)
        {
            var day = today.Today.AddDays(-visit.DaysAgo);
            var at = today.Zone.At(day.ToDateTime(visit.Time));
            clock.Now = at;
            Writes(Practitioner, clock);
            Guid visitId;
            if (episodeId is null)
            {
                var (episode, first) = await intake.Open(FormOf(client, day), at, Practitioner);
                episodeId = episode.Id;
                visitId = first.Id;
                episode.PracticeConsent = client.ForPractice
                    ? new(true, Practitioner, at.ToDateTimeUtc())
                    : null;
                await db.SaveChangesAsync();
                await Neutral(client, episodeId.Value);
            }
            else
            {
                var later = new Visit { EpisodeId = episodeId.Value, PlannedAt = at };
                db.Visits.Add(later);
                await db.SaveChangesAsync();
                visitId = later.Id;
            }
            await Looked(visit, episodeId.Value, visitId, at);
            await During(visit, visitId, clock, intake);
            db.ChangeTracker.Clear();
            foreach (var amendment in visit.Amends ?? [])
            {
                clock.Now = at + Duration.FromHours(amendment.Hours);
                Writes(amendment.By, clock);
                await Amend(amendment, visitId, clock);
                db.ChangeTracker.Clear();
            }
        }
    }

    /// <summary>Clients were lived through one after the other; the audit tells of the clinic's days.</summary>
    private async Task InOrderOfTime()
    {
        var notes = await db.AuditNotes.AsNoTracking().OrderBy(n => n.At).ThenBy(n => n.Id).ToListAsync();
        await db.AuditNotes.ExecuteDeleteAsync();
        db.AuditNotes.AddRange(notes.Select(n => n with { Id = 0 }));
        await db.SaveChangesAsync();
    }

    private void Writes(string name, DemoClock clock) =>
        author.Is(name, accounts[name], () => Instant.FromDateTimeOffset(clock.GetUtcNow()));

    private string SomebodyWho(Role role) => scenario.Accounts.First(a => a.Roles.Contains(role)).Name;

    /// <summary>What the audit keeps of such a visit beside its changes: the desk's look at what it may not see, the record opened, the sheet printed.</summary>
    private async Task Looked(DemoVisit visit, Guid episode, Guid visitId, Instant at)
    {
        void Note(AuditKind kind, string what, string by, double minutes) =>
            db.AuditNotes.Add(
                new AuditNote
                {
                    At = at + Duration.FromMinutes(minutes),
                    Kind = kind,
                    AccountId = accounts[by],
                    By = by,
                    What = what,
                    Episode = episode,
                    Visit = visitId,
                }
            );
        if (visit.Screen is not null)
        {
            Note(AuditKind.Refusal, "GetEpisode", SomebodyWho(Role.Reception), -10);
        }
        Note(AuditKind.View, "GetEpisode", Practitioner, 0);
        if (visit.Session is not null)
        {
            Note(AuditKind.View, "GetSession", SomebodyWho(Role.Trainer), 5);
            Note(AuditKind.Export, "GetSheetPdf", Practitioner, 40);
        }
        await db.SaveChangesAsync();
    }

    private async Task Amend(DemoAmendment amendment, Guid visitId, DemoClock clock)
    {
        var file = (await files.OfVisit(visitId))!;
        if (amendment.CheckIn is { } told)
        {
            if (amending.Always(amendment.Why) is { } wrong)
            {
                throw new InvalidOperationException(wrong.Message.Text);
            }
            var visit = file.Visit(visitId);
            visit.CheckIn = visit.CheckIn! with
            {
                PainNow = told.Now,
                UsualPain = told.Usual,
                NextDayPain = told.NextDay,
                SettledHours = told.Settled,
            };
            visit.Version++;
            await db.SaveChangesAsync();
        }
        if (amendment.Mistaken is { } mistaken)
        {
            var trial = file.Trials(visitId).First(t => t.RungId == mistaken.Rung && t.Side == mistaken.Side);
            var at = clock.GetUtcNow();
            Guid Id() => Guid.CreateVersion7(at);
            await Store(
                [
                    new TrialAmended(Id(), trial.Id, at, amendment.Why),
                    new Undone(Id(), trial.Id, at.AddSeconds(1), trial.Marks[0].EventId),
                ],
                visitId,
                clock,
                amendment.By
            );
        }
    }

    private async Task Neutral(DemoClient client, Guid episodeId)
    {
        if (client.Neutral is not { } shape)
        {
            return;
        }
        var file = await File(episodeId);
        var proposal = NeutralChoice.Propose(
            file.Profile with
            {
                RestingShape = shape,
            },
            file.Policy,
            library
        );
        file.Episode.RestingShape = shape;
        file.Episode.Strategy = proposal.Strategy;
        file.Episode.Activation = proposal.Activation;
        await db.SaveChangesAsync();
    }

    private async Task During(DemoVisit visit, Guid visitId, DemoClock clock, IntakeStore intake)
    {
        if (visit.CheckIn is { } check)
        {
            var file = (await files.OfVisit(visitId))!;
            file.Visit(visitId).CheckIn = new CheckIn(
                check.Now,
                check.Usual,
                check.NextDay,
                check.Settled,
                visit.DangerSigns ?? [],
                today.Zone.DayOf(clock.Now).AddDays(-1),
                FlagsAsked: true
            );
            file.Visit(visitId).Flags = new(
                Practitioner,
                clock.GetUtcNow().UtcDateTime,
                visit.DangerSigns ?? []
            );
            await db.SaveChangesAsync();
        }
        if (visit.Home is { } home)
        {
            await Home(home, visitId);
        }
        if (visit.Answers is { } told)
        {
            await Answers(told, visitId);
        }
        if (visit.Screen is not null)
        {
            await Screen(visit.Screen, visit.Looks ?? new Dictionary<string, DemoReading>(), visitId, clock);
        }
        foreach (var trace in visit.Traces ?? [])
        {
            await Trace(trace, visitId);
        }
        if (visit.Session is not null)
        {
            await Session(visit.Session, visitId, clock);
        }
        if (visit.DangerSigns is { Count: > 0 } signs)
        {
            var file = (await files.OfVisit(visitId))!;
            intake.Report(file.Episode, signs, Practitioner);
            await db.SaveChangesAsync();
        }
    }

    /// <summary>Climbs each ladder as the finder asks, then accepts the proposed plan.</summary>
    private async Task Screen(
        IReadOnlyDictionary<string, DemoCapacity> capacities,
        IReadOnlyDictionary<string, DemoReading> looks,
        Guid visitId,
        DemoClock clock
    )
    {
        var before = (await files.OfVisit(visitId))!;
        var events = new List<CaptureEvent>();
        foreach (var (ladderId, capacity) in capacities)
        {
            var ladder = library.Ladders.First(l => l.Id == ladderId);
            foreach (var side in new[] { Side.Left, Side.Right })
            {
                while (NextRung(ladder, side, events, before) is { } rung)
                {
                    var most = ladder.IndexOf(capacity.Of(side));
                    var clean = ladder.IndexOf(rung.Id) <= most;
                    var taskSide = rung.Sides == RungSides.Each ? side : Side.Both;
                    var target = rung.Start with { Sets = 1 };
                    events.AddRange(
                        new DemoTrial(rung, taskSide, target, clean ? 1 : 0.4, capacity.Fault)
                        {
                            Range = ladder.IndexOf(rung.Id) == most ? capacity.Range : null,
                        }.Events(clock)
                    );
                }
            }
        }
        events.AddRange(
            looks.SelectMany(look => Looks(look.Key, look.Value, before)).SelectMany(l => l.Events(clock))
        );
        await Plan(capacities.Keys, looks.Keys, before, visitId);
        await Store(events, visitId, clock);
        var file = (await files.OfVisit(visitId))!;
        var proposing = new PlanProposals(db, library, At(clock));
        proposing.Add(file, visitId, proposing.Propose(file)!.Plan, Practitioner);
        await db.SaveChangesAsync();
    }

    private async Task Trace(DemoTrace told, Guid visitId)
    {
        var trial = (await files.OfVisit(visitId))!
            .Trials(visitId)
            .First(t => t.RungId == told.Rung && t.Side == told.Side);
        var csv = await System.IO.File.ReadAllTextAsync(
            Path.Combine(settings.ContentFolder, "demo", "traces", told.File)
        );
        var read = TraceReader.Read(csv, library.Instruments, trial.StartedAt);
        if (!read.IsValid)
        {
            throw new InvalidOperationException(
                $"{told.File}: {string.Join(" ", read.Errors.Select(e => e.Message.Text))}"
            );
        }
        await traces.Keep(visitId, trial, read.Value!, TraceSource.Live, Practitioner);
    }

    /// <summary>Stores the battery, as the practitioner of the scenario put it together.</summary>
    private async Task Plan(
        IEnumerable<string> ladders,
        IEnumerable<string> looks,
        CaseFile file,
        Guid visitId
    )
    {
        var climbs = ladders.Select(id => library.Tasks.First(t => t.Ladder == id).Id);
        var tasks = climbs.Concat(looks.Select(look => look.Split('/')[0])).Distinct().ToList();
        var visit = file.Visit(visitId);
        visit.Battery = new Batteries(library)
            .ByHand(file, visit, new BatteryForm(tasks, file.Policy.ScreenMinutes, [], 0))
            .Value;
        visit.BatteryVersion = 1;
        await db.SaveChangesAsync();
    }

    /// <param name="key">Task, and way where it has several: "reaches/front".</param>
    private IEnumerable<DemoLook> Looks(string key, DemoReading reading, CaseFile file)
    {
        var parts = key.Split('/');
        var task = library.FindTask(parts[0])!;
        var rung = library.Rung(task.Surfaces?[0].Rung ?? task.Rung!);
        // Leg length is about half of stature. Common practice.
        var leg = file.Body.Height is { } height ? Math.Round(height * 50) : (double?)null;
        return reading.Sides.Select(side => new DemoLook(
            task,
            rung,
            side.Side,
            parts.ElementAtOrDefault(1),
            side.Reading,
            reading.Fault ?? rung.Faults[0],
            leg
        ));
    }

    private Rung? NextRung(Ladder ladder, Side side, List<CaptureEvent> events, CaseFile file)
    {
        var trials = TrialFold.Trials(events, library, file.Policy.Pain);
        var search = RungFinder.Search(ladder, side, trials, file.Profile, file.Policy, library);
        return search.NextRungId is { } id ? library.Rung(id) : null;
    }

    /// <summary>Runs the plan as the scenario says, then agrees with every decision.</summary>
    private async Task Session(DemoSession session, Guid visitId, DemoClock clock)
    {
        var file = (await files.OfVisit(visitId))!;
        var plan = file.PlanFor(visitId)!;
        var trials =
            from item in plan.Plan.Items
            let rung = library.Rung(item.RungId)
            let ladder = library.LadderOf(rung.Id).Id
            let weak = session.Weak?.GetValueOrDefault(ladder)
            from dose in item.Doses
            from set in Enumerable.Range(1, dose.Dose.Sets)
            let hurts = set == 1 && dose == item.Doses[0] && session.Hurts?.ContainsKey(ladder) == true
            let share = weak?.Side == dose.Side ? weak.Share : session.Share
            select new DemoTrial(
                rung,
                dose.Side,
                dose.Dose with
                {
                    Sets = 1,
                },
                share,
                weak?.Fault ?? rung.Faults[0]
            )
            {
                ItemId = item.Id,
                Set = set,
                Effort = session.Effort,
                PainBefore = hurts ? file.Visit(visitId).CheckIn?.PainNow : null,
                PainPeak = hurts ? session.Hurts![ladder] : null,
                DownTheLeg = hurts && session.Leg?.ContainsKey(ladder) == true ? session.Leg[ladder] : null,
            };
        await Store(
            [.. trials.SelectMany(trial => trial.Events(clock)), .. After(session, clock)],
            visitId,
            clock
        );
        if (session.Agree)
        {
            await Decide(visitId, session.Own ?? new Dictionary<string, DemoWord>(), clock);
        }
    }

    /// <summary>Asked ten minutes after the last set: the legs that had pain down them, and the pain.</summary>
    private static IEnumerable<CaptureEvent> After(DemoSession session, DemoClock clock)
    {
        foreach (var leg in (session.Leg ?? new Dictionary<string, Side>()).Values.Distinct())
        {
            yield return new LegAsked(
                Guid.CreateVersion7(clock.GetUtcNow()),
                Guid.CreateVersion7(clock.GetUtcNow()),
                clock.After(600),
                leg,
                Back: true
            );
        }
        if (session.End is { } end)
        {
            yield return new SessionPainAsked(
                Guid.CreateVersion7(clock.GetUtcNow()),
                Guid.CreateVersion7(clock.GetUtcNow()),
                clock.After(600),
                end,
                10
            );
        }
    }

    private async Task Home(DemoHome home, Guid visitId)
    {
        var file = (await files.OfVisit(visitId))!;
        var homeLogs = new HomeLogs(db, library, today);
        var log = (await homeLogs.Of(file, visitId))!;
        foreach (var row in log.Rows.Where(row => row.Planned.Count > 0))
        {
            var done = log
                .Columns.Where(c => row.Planned.Contains(c.PlanItemId))
                .Select(c => new HomeReps(c.PlanItemId, c.Side, (int)Math.Round(c.PerDay * home.Share)));
            await homeLogs.Write(
                file,
                new HomeDay(row.Day, [.. done], home.Pain, home.Morning, null),
                row.Version,
                Practitioner
            );
        }
        await db.SaveChangesAsync();
    }

    private async Task Answers(DemoAnswers told, Guid visitId)
    {
        var visit = (await files.OfVisit(visitId))!.Visit(visitId);
        visit.Answers = new OutcomeAnswers(
            [.. told.Activities.Select(a => new ActivityScore(a.Key, a.Value))],
            told.Disability24 is { } total
                ? new(library.Outcomes.First(m => m.From == OutcomeSource.Total).Id, total)
                : null
        );
        visit.AnswersVersion = 1;
        await db.SaveChangesAsync();
    }

    private async Task Decide(Guid visitId, IReadOnlyDictionary<string, DemoWord> own, DemoClock clock)
    {
        var file = (await files.OfVisit(visitId))!;
        var input = DecisionInputs.Of(file, visitId, library)!;
        var decisionStore = new DecisionStore(
            db,
            library,
            new PlanProposals(db, library, At(clock)),
            At(clock)
        );
        var proposals = DecisionEngine.Decide(input, library);
        var choices =
            from proposal in proposals
            let item = input.Items.First(i => i.Id == proposal.PlanItemId)
            let word = own.GetValueOrDefault(library.LadderOf(item.RungId).Id)
            where word is not null
            select new Choice(proposal.PlanItemId, proposal.Side, word.Outcome, word.Why);
        decisionStore.Take(file, visitId, input, proposals, [.. choices], Practitioner);
        await db.SaveChangesAsync();
    }

    private async Task Store(List<CaptureEvent> events, Guid visitId, DemoClock clock, string? by = null)
    {
        using var queue = new TapQueue();
        var log = new EventLog(db, library, At(clock), files, queue, moves);
        var taken = await log.Append(visitId, events, by ?? Practitioner);
        if (taken?.IsValid != true)
        {
            throw new InvalidOperationException(string.Join(" ", taken?.Errors ?? []));
        }
    }

    /// <summary>The clinic at the scenario's time.</summary>
    private ClinicClock At(DemoClock clock) => new(clock, today.Zone);

    private async Task<CaseFile> File(Guid episodeId) => (await files.OfEpisode(episodeId))!;

    private IntakeForm FormOf(DemoClient client, DateOnly day) =>
        new(
            client.Name,
            day.AddYears(-client.Age).AddDays(-90),
            client.Complaint,
            client.Pain,
            client.SettleHours,
            client.WakesAtNight,
            client.Precautions,
            [],
            client.MinutesPerDay,
            library.DefaultPolicy.Id,
            client.Sex,
            client.HeightCm,
            client.MassKg,
            Goals: client.Goals,
            Equipment: client.Equipment,
            DaysPerWeek: client.DaysPerWeek,
            FlagsAsked: true
        );
}
