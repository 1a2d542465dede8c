using Microsoft.EntityFrameworkCore;
using Palaestra.Core.Library;
using Palaestra.Core.Practice;
using Palaestra.Data;
using Palaestra.Data.Practice;

namespace Palaestra.Server.Practice;

/// <summary>Team sessions, and who has answered what in them.</summary>
public sealed class PracticeTeams(PalaestraDb db)
{
    public Task<PracticeTeam?> Of(Guid id) =>
        db.PracticeTeams.AsNoTracking().FirstOrDefaultAsync(t => t.Id == id);

    /// <summary>The own runs, the latest first.</summary>
    public async Task<IReadOnlyList<PracticeRunRow>> RowsOf(Guid account)
    {
        var runs = await db
            .PracticeRuns.AsNoTracking()
            .Where(run => run.AccountId == account)
            .OrderByDescending(run => run.Id)
            .ToListAsync();
        var names = await db.PracticeTeams.ToDictionaryAsync(team => team.Id, team => team.Name);
        return [.. runs.Select(run => RowOf(run, run.TeamId is { } id ? names[id] : null))];
    }

    private static PracticeRunRow RowOf(PracticeRun run, string? team) =>
        new(run.Id, run.TeamId, team, run.StartedAt, run.Place, run.NextSeed is null);

    /// <summary>The latest first.</summary>
    public async Task<IReadOnlyList<PracticeTeamRow>> All(Guid account, PracticeLibrary library)
    {
        var teams = await db.PracticeTeams.AsNoTracking().OrderByDescending(team => team.Id).ToListAsync();
        var runs = await db.PracticeRuns.AsNoTracking().Where(run => run.TeamId != null).ToListAsync();
        return [.. teams.Select(team => RowOf(team, runs, account, library))];
    }

    private static PracticeTeamRow RowOf(
        PracticeTeam team,
        IEnumerable<PracticeRun> runs,
        Guid account,
        PracticeLibrary library
    )
    {
        var here = runs.Where(run => run.TeamId == team.Id).ToList();
        return new(
            team.Id,
            team.Name,
            team.MadeAt,
            team.MadeBy,
            team.Items.Count,
            here.Where(run => run.AccountId == account).Select(run => RowOf(run, team.Name)).FirstOrDefault(),
            here.Count(run => run.NextSeed is null),
            team.LibraryVersion != library.Version
        );
    }

    /// <summary>The report; of those who have answered all, with names where they are shared, or one's own.</summary>
    public async Task<PracticeTeamView> View(PracticeTeam team, Guid account, PracticeLibrary library)
    {
        var runs = await (
            from run in db.PracticeRuns.AsNoTracking()
            join rater in db.Users on run.AccountId equals rater.Id
            where run.TeamId == team.Id
            select new { Run = run, rater.DisplayName }
        ).ToListAsync();
        var done = runs.Where(r => r.Run.NextSeed is null).ToList();
        var ids = done.Select(r => r.Run.Id).ToList();
        var answers = (
            await db.PracticeAnswers.AsNoTracking().Where(a => ids.Contains(a.RunId)).ToListAsync()
        ).ToLookup(a => a.RunId);
        var raters = done.Select(r =>
                (
                    r.Run.Shared || r.Run.AccountId == account ? r.DisplayName : null,
                    (IReadOnlyList<ClipResult>)
                        [.. answers[r.Run.Id].OrderBy(a => a.Place).Select(a => a.Result)]
                )
            )
            // In no order that would tell who is who.
            .OrderBy(r => r.Item1 is null)
            .ThenBy(r => r.Item1, StringComparer.Ordinal)
            .ThenBy(r => r.Item2.Count(one => one.Outcome == ClipOutcome.Named))
            .ToList();
        return new(
            RowOf(team, runs.Select(r => r.Run), account, library),
            // Before one's own part is done, the report would tell what is in the clips.
            TeamFigures.Of(done.Any(r => r.Run.AccountId == account) ? raters : [], team.Items, library)
        );
    }
}
