using System.Security.Cryptography;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Palaestra.Core.Library;
using Palaestra.Core.Practice;
using Palaestra.Data;
using Palaestra.Data.Practice;
using Palaestra.Server.Clinics;
using Palaestra.Server.Description;
using Palaestra.Server.Intake;
using Palaestra.Server.People;
using Palaestra.Server.Problems;

namespace Palaestra.Server.Practice;

public static class PracticeEndpoints
{
    public static void MapPractice(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api/practice").WithTags("Practice");
        group
            .MapGet("", Room)
            .Described("GetPractice", "The practice room: the own figures, drills, team sessions.");
        group
            .MapGet("/clips/{seed}", Clip)
            .Described("GetClip", "The clip of a seed, 0 or more: its pictures, and what gives way in it.");
        group
            .MapPost("/drills", Begin)
            .Described("BeginDrill", "Begins a drill; one that was open is ended.", 404);
        group
            .MapGet("/runs/{runId:guid}", Run)
            .Described("GetPracticeRun", "How a run through clips stands.", 404);
        group
            .MapPost("/runs/{runId:guid}/answers", Answer)
            .Described("AnswerClip", "What was marked in the clip that was shown; once for each.", 404, 409);
        group
            .MapPost("/runs/{runId:guid}/end", End)
            .Described("EndPracticeRun", "Ends a drill with what was answered.", 404, 409);
        group
            .MapPut("/runs/{runId:guid}/shared", Share)
            .Described("SharePracticeRun", "Whether the own name stands in a team’s report.", 404);
        group
            .MapPost("/teams", MakeTeam)
            .Described("MakePracticeTeam", "Makes a team session: the same clips for all.");
        group.MapGet("/teams/{teamId:guid}", Team).Described("GetPracticeTeam", "How a team agrees.", 404);
        group
            .MapPost("/teams/{teamId:guid}/runs", Join)
            .Described(
                "JoinPracticeTeam",
                "Begins the own part of a team session, or goes on with it.",
                404,
                409
            );
    }

    private static async Task<Ok<PracticeView>> Room(
        PracticeRuns runs,
        PracticeTeams teams,
        RecordedSessions recorded,
        PalaestraDb db,
        PracticeLibrary library,
        ClinicClock clock,
        WhoIsHere who
    )
    {
        var account = who.AccountId!.Value;
        var rows = await teams.RowsOf(account);
        var (due, lastOn) = await runs.DueFor(account);
        return TypedResults.Ok(
            new PracticeView(
                RaterFigures.Of(await runs.ResultsOf(account), library),
                due,
                lastOn,
                rows.FirstOrDefault(run => !run.Over && run.TeamId is null),
                [.. rows.Where(run => run.Over).Take(RunsMost)],
                await teams.All(account, library),
                await Coming(db, clock),
                ClipRoom.Of(library).Faults,
                await recorded.Rows(account),
                await recorded.There()
            )
        );
    }

    private const int RunsMost = 12;
    private const int ComingMost = 4;

    /// <summary>Who comes today, from now on, and has a plan.</summary>
    private static async Task<IReadOnlyList<ComingClient>> Coming(PalaestraDb db, ClinicClock clock)
    {
        var (now, ends) = (clock.Now, clock.Zone.StartOf(clock.Today.AddDays(1)));
        return await (
            from visit in db.Visits
            join episode in db.Episodes on visit.EpisodeId equals episode.Id
            where
                visit.PlannedAt >= now
                && visit.PlannedAt < ends
                && visit.CalledOff == null
                && db.Plans.Any(plan => plan.EpisodeId == episode.Id)
            orderby visit.PlannedAt
            select new ComingClient(episode.Id, episode.Client!.Name, visit.PlannedAt)
        )
            .Take(ComingMost)
            .ToListAsync();
    }

    private static Results<Ok<ClipView>, ProblemHttpResult> Clip(
        string seed,
        PracticeRuns runs,
        PracticeLibrary library,
        bool mirrored = false,
        bool outline = false
    )
    {
        if (
            !int.TryParse(
                seed,
                System.Globalization.NumberStyles.None,
                System.Globalization.CultureInfo.InvariantCulture,
                out var number
            )
        )
        {
            return Problem.Field("seed", Message.Of("practice.seed", ("most", (double)int.MaxValue)));
        }
        var spec = runs.SpecOf(number, mirrored);
        var room = ClipRoom.Of(library);
        var pictures = room.Pictures(spec, library.FindRung(spec.RungId)!.Name);
        return TypedResults.Ok(
            new ClipView(
                number,
                mirrored,
                spec.RungId,
                spec.Side,
                spec.View,
                spec.Reps,
                spec.Seconds,
                pictures.PerSecond,
                pictures.Figure,
                pictures.Frames,
                spec.Truth,
                outline ? room.Pictures(spec, "", clean: true).Frames : null
            )
        );
    }

    private static async Task<Results<Created<PracticeRunView>, ProblemHttpResult>> Begin(
        DrillForm form,
        PracticeRuns runs,
        PalaestraDb db,
        CaseFiles files,
        PracticeLibrary library,
        WhoIsHere who
    )
    {
        var file = form.Episode is { } id ? await files.OfEpisode(id) : null;
        if (form.Episode is not null && file is null)
        {
            return Problem.NotFound("episode");
        }
        var rungs = file?.CurrentPlan?.Plan.Items.Select(item => item.RungId).Distinct().ToList() ?? [];
        var aim = new DrillAim([.. (form.Faults ?? []).Distinct()], rungs, form.Clips, form.Minutes);
        var errors = aim.Errors(library).ToList();
        if (errors.Count > 0)
        {
            return Problem.Fields(errors);
        }
        var account = who.AccountId!.Value;
        foreach (
            var open in await db
                .PracticeRuns.Where(r => r.AccountId == account && r.TeamId == null && r.EndedAt == null)
                .ToListAsync()
        )
        {
            await runs.End(open);
        }
        var run = await runs.Begin(account, aim, RandomNumberGenerator.GetInt32(int.MaxValue));
        return TypedResults.Created($"/api/practice/runs/{run.Id}", await runs.View(run));
    }

    private static async Task<Results<Ok<PracticeRunView>, ProblemHttpResult>> Run(
        Guid runId,
        PracticeRuns runs,
        WhoIsHere who
    ) =>
        await runs.Of(runId, who.AccountId!.Value) is { } run
            ? TypedResults.Ok(await runs.View(run))
            : Problem.NotFound("run");

    private static async Task<Results<Ok<ClipAnswered>, ProblemHttpResult>> Answer(
        Guid runId,
        ClipAnswerForm form,
        PracticeRuns runs,
        PracticeTeams teams,
        PracticeLibrary library,
        WhoIsHere who
    )
    {
        if (await runs.Of(runId, who.AccountId!.Value) is not { } run)
        {
            return Problem.NotFound("run");
        }
        var errors = ClipResult.Errors(form.Marks, library).ToList();
        if (form.Place < 0)
        {
            errors.Add(new("place", Message.Of("practice.place")));
        }
        if (errors.Count > 0)
        {
            return Problem.Fields(errors);
        }
        if (run.TeamId is { } team && (await teams.Of(team))!.LibraryVersion != library.Version)
        {
            return Problem.Conflict(Message.Of("practice.other-library"));
        }
        // The same answer told twice is one: what was there is told again.
        if (form.Place >= run.Place && (form.Place > run.Place || run.NextSeed is null))
        {
            return Problem.Conflict(Message.Of("practice.answered"), await runs.View(run));
        }
        if (form.Place == run.Place && !await runs.Answer(run, form.Marks))
        {
            return Problem.Conflict(Message.Of("practice.answered"));
        }
        return TypedResults.Ok(
            new ClipAnswered(
                run.TeamId is null ? await runs.Feedback(run, form.Place) : null,
                await runs.View(run)
            )
        );
    }

    private static async Task<Results<Ok<PracticeRunView>, ProblemHttpResult>> End(
        Guid runId,
        PracticeRuns runs,
        WhoIsHere who
    )
    {
        if (await runs.Of(runId, who.AccountId!.Value) is not { } run)
        {
            return Problem.NotFound("run");
        }
        if (run.TeamId is not null)
        {
            return Problem.Conflict(Message.Of("practice.team-whole"));
        }
        await runs.End(run);
        return TypedResults.Ok(await runs.View(run));
    }

    private static async Task<Results<Ok<PracticeRunView>, ProblemHttpResult>> Share(
        Guid runId,
        ShareForm form,
        PracticeRuns runs,
        PalaestraDb db,
        WhoIsHere who
    )
    {
        if (await runs.Of(runId, who.AccountId!.Value) is not { } run)
        {
            return Problem.NotFound("run");
        }
        run.Shared = form.Shared;
        await db.SaveChangesAsync();
        return TypedResults.Ok(await runs.View(run));
    }

    private const int NameMost = 80;

    /// <summary>Of a session that is made.</summary>
    internal static IEnumerable<FieldError> NameErrors(string name)
    {
        if (string.IsNullOrWhiteSpace(name) || name.Trim().Length > NameMost)
        {
            yield return new("name", Message.Of("practice.team-name", ("most", NameMost)));
        }
    }

    private static async Task<Results<Created<PracticeTeamView>, ProblemHttpResult>> MakeTeam(
        TeamForm form,
        PracticeTeams teams,
        PalaestraDb db,
        PracticeLibrary library,
        ClinicClock clock,
        WhoIsHere who
    )
    {
        var errors = NameErrors(form.Name).ToList();
        if (form.Clips is < TeamSession.ClipsLeast or > TeamSession.ClipsMost)
        {
            errors.Add(
                new(
                    "clips",
                    Message.Of(
                        "practice.clips",
                        ("least", TeamSession.ClipsLeast),
                        ("most", TeamSession.ClipsMost)
                    )
                )
            );
        }
        if (errors.Count > 0)
        {
            return Problem.Fields(errors);
        }
        var team = new PracticeTeam
        {
            Name = form.Name.Trim(),
            Items = TeamSession.Items(form.Clips, RandomNumberGenerator.GetInt32(int.MaxValue)),
            LibraryVersion = library.Version,
            MadeAt = clock.Now,
            MadeBy = who.Name,
        };
        db.PracticeTeams.Add(team);
        await db.SaveChangesAsync();
        return TypedResults.Created(
            $"/api/practice/teams/{team.Id}",
            await teams.View(team, who.AccountId!.Value, library)
        );
    }

    private static async Task<Results<Ok<PracticeTeamView>, ProblemHttpResult>> Team(
        Guid teamId,
        PracticeTeams teams,
        PracticeLibrary library,
        WhoIsHere who
    ) =>
        await teams.Of(teamId) is { } team
            ? TypedResults.Ok(await teams.View(team, who.AccountId!.Value, library))
            : Problem.NotFound("team");

    private static async Task<Results<Ok<PracticeRunView>, ProblemHttpResult>> Join(
        Guid teamId,
        PracticeTeams teams,
        PracticeRuns runs,
        PracticeLibrary library,
        WhoIsHere who
    )
    {
        if (await teams.Of(teamId) is not { } team)
        {
            return Problem.NotFound("team");
        }
        if (team.LibraryVersion != library.Version)
        {
            return Problem.Conflict(Message.Of("practice.other-library"));
        }
        return TypedResults.Ok(await runs.View(await runs.Join(who.AccountId!.Value, team)));
    }
}
