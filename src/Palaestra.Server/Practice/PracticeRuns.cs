using Microsoft.EntityFrameworkCore;
using NodaTime;
using Palaestra.Core.Library;
using Palaestra.Core.Practice;
using Palaestra.Data;
using Palaestra.Data.Practice;
using Palaestra.Server.Clinics;
using Palaestra.Server.Problems;

namespace Palaestra.Server.Practice;

/// <summary>Runs through clips, from the store and back.</summary>
public sealed class PracticeRuns(PalaestraDb db, PracticeLibrary library, ClinicClock clock)
{
    private readonly ClipRoom room = ClipRoom.Of(library);

    /// <summary>A person's run; none where it is another's: figures are whose they are.</summary>
    public Task<PracticeRun?> Of(Guid id, Guid account) =>
        db.PracticeRuns.FirstOrDefaultAsync(run => run.Id == id && run.AccountId == account);

    /// <summary>All a rater answered, the earliest first.</summary>
    public async Task<IReadOnlyList<ClipResult>> ResultsOf(Guid account) =>
        [
            .. (
                await (
                    from answer in db.PracticeAnswers.AsNoTracking()
                    join run in db.PracticeRuns on answer.RunId equals run.Id
                    where run.AccountId == account
                    select answer
                ).ToListAsync()
            )
                .OrderBy(answer => answer.At)
                .ThenBy(answer => answer.Place)
                .Select(answer => answer.Result),
        ];

    /// <summary>All of a clinic's answers, by rater.</summary>
    public async Task<IReadOnlyList<IReadOnlyList<ClipResult>>> ByRater() =>
        [
            .. (
                await (
                    from answer in db.PracticeAnswers.AsNoTracking()
                    join run in db.PracticeRuns on answer.RunId equals run.Id
                    select new { run.AccountId, answer.Result }
                ).ToListAsync()
            )
                .GroupBy(row => row.AccountId)
                .Select(rater => rater.Select(row => row.Result).ToList()),
        ];

    public async Task<PracticeRun> Begin(Guid account, DrillAim aim, int seed)
    {
        var run = new PracticeRun
        {
            AccountId = account,
            Seed = seed,
            Aim = aim,
            StartedAt = clock.Now,
        };
        Put(run, Drill.Next(aim, await ResultsOf(account), seed, 0, library));
        db.PracticeRuns.Add(run);
        await db.SaveChangesAsync();
        return run;
    }

    /// <summary>The own part of a team session; the same one, where it was begun before.</summary>
    public async Task<PracticeRun> Join(Guid account, PracticeTeam team)
    {
        if (
            await db.PracticeRuns.FirstOrDefaultAsync(r => r.TeamId == team.Id && r.AccountId == account) is
            { } begun
        )
        {
            return begun;
        }
        var run = new PracticeRun
        {
            AccountId = account,
            TeamId = team.Id,
            Aim = new([], []),
            StartedAt = clock.Now,
            NextSeed = team.Items[0].Seed,
            NextMirrored = team.Items[0].Mirrored,
        };
        db.PracticeRuns.Add(run);
        if (await db.SavedFirst())
        {
            return run;
        }
        // Two tablets at once.
        db.Entry(run).State = EntityState.Detached;
        return await db.PracticeRuns.FirstAsync(r => r.TeamId == team.Id && r.AccountId == account);
    }

    /// <summary>Stores an answer and chooses what comes next; false where another answer was faster.</summary>
    public async Task<bool> Answer(PracticeRun run, IReadOnlyList<ClipMark> marks)
    {
        var result = ClipResult.Of(new(run.NextSeed!.Value, run.NextMirrored, marks), library);
        db.PracticeAnswers.Add(
            new()
            {
                RunId = run.Id,
                Place = run.Place,
                Marks = marks,
                Result = result,
                Why = run.NextWhy,
                At = clock.Now,
            }
        );
        run.Place++;
        if (run.TeamId is { } id)
        {
            var items = (await db.PracticeTeams.AsNoTracking().FirstAsync(team => team.Id == id)).Items;
            var next = run.Place < items.Count ? items[run.Place] : null;
            (run.NextSeed, run.NextMirrored) = (next?.Seed, next?.Mirrored == true);
        }
        else
        {
            IReadOnlyList<ClipResult> all = [.. await ResultsOf(run.AccountId), result];
            run.End = Drill.Over(run.Aim, all, run.Place, TakenBy(run), library.Practice);
            Put(run, run.End is null ? Drill.Next(run.Aim, all, run.Seed, run.Place, library) : null);
        }
        run.EndedAt = run.NextSeed is null ? clock.Now : null;
        return await db.SavedFirst();
    }

    /// <summary>It ends here, with what was answered.</summary>
    public async Task End(PracticeRun run)
    {
        if (run.EndedAt is null)
        {
            Put(run, null);
            (run.EndedAt, run.End) = (clock.Now, DrillEnd.Stopped);
            await db.SaveChangesAsync();
        }
    }

    private static void Put(PracticeRun run, Chosen? next) =>
        (run.NextSeed, run.NextMirrored, run.NextWhy) = (next?.Seed, false, next?.Why);

    private TimeSpan TakenBy(PracticeRun run) => (clock.Now - run.StartedAt).ToTimeSpan();

    public async Task<PracticeRunView> View(PracticeRun run)
    {
        var answers = await db
            .PracticeAnswers.AsNoTracking()
            .Where(answer => answer.RunId == run.Id)
            .OrderBy(answer => answer.Place)
            .ToListAsync();
        var team = run.TeamId is { } id
            ? await db.PracticeTeams.AsNoTracking().FirstAsync(t => t.Id == id)
            : null;
        var over = run.NextSeed is null;
        return new(
            run.Id,
            team?.Id,
            team?.Name,
            team?.Items.Count ?? run.Aim.Clips,
            run.Place,
            run.StartedAt,
            run.End,
            over ? null : Shown(run),
            // Before all of a team session is answered, nothing of it is told.
            team is null
            || over
                ? [.. answers.Select(answer => answer.Result)]
                : [],
            run.Shared
        );
    }

    private ShownClip Shown(PracticeRun run)
    {
        var spec = SpecOf(run.NextSeed!.Value, run.NextMirrored);
        var rung = library.FindRung(spec.RungId)!;
        return new(
            run.Place,
            spec.RungId,
            spec.View,
            spec.Reps,
            spec.Seconds,
            spec.Side != Side.Both,
            room.Pictures(spec, rung.Name)
        );
    }

    public ClipSpec SpecOf(int seed, bool mirrored) =>
        room.Spec(seed) is var spec && mirrored ? spec.Mirrored() : spec;

    /// <summary>What there was in the clip that was answered last.</summary>
    public async Task<ClipFeedback> Feedback(PracticeRun run, int place)
    {
        var answer = await db
            .PracticeAnswers.AsNoTracking()
            .FirstAsync(a => a.RunId == run.Id && a.Place == place);
        var spec = answer.Result.Spec;
        return new(
            answer.Result,
            answer.Why,
            spec.Truth is null ? null : room.Pictures(spec, "", clean: true).Frames
        );
    }

    /// <summary>Whether it is time again, and the day of the last clip; none: there was none.</summary>
    public async Task<(bool Due, DateOnly? LastOn)> DueFor(Guid account)
    {
        var last = await (
            from answer in db.PracticeAnswers
            join run in db.PracticeRuns on answer.RunId equals run.Id
            where run.AccountId == account
            orderby answer.Id descending
            select (Instant?)answer.At
        ).FirstOrDefaultAsync();
        return (
            last is null || clock.Now - last.Value > Duration.FromDays(library.Practice.RefreshDays),
            last is { } at ? clock.Zone.DayOf(at) : null
        );
    }
}
