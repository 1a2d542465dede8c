using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Palaestra.Core.Abilities;
using Palaestra.Core.Findings;
using Palaestra.Core.Library;
using Palaestra.Core.Practice;
using Palaestra.Data;
using Palaestra.Server.Clinics;
using Palaestra.Server.Description;
using Palaestra.Server.Intake;
using Palaestra.Server.Policies;
using Palaestra.Server.Problems;

namespace Palaestra.Server.Practice;

/// <summary>Figures that findings are reckoned with.</summary>
/// <param name="Missed">Chance that a rep that gave way is not marked. <paramref name="Imagined"/>: that a clean one is; 0 to 1.</param>
/// <param name="RepsError">Standard error of clean reps. <paramref name="SecondsError"/>: of clean seconds.</param>
public sealed record EyeFigures(double Missed, double Imagined, double RepsError, double SecondsError)
{
    public static EyeFigures Of(PracticeLibrary library) =>
        new(
            library.Ability.Missed,
            library.Ability.Imagined,
            library.Norms.Errors.First(error => error.Of == "reps").Error,
            library.Norms.Errors.First(error => error.Of == "seconds").Error
        );
}

/// <param name="Clinic">What the clips say now.</param>
/// <param name="Enough">There are enough of them to stand in the place of the built-in figures.</param>
/// <param name="ClipsNeeded">For misses and false marks. <paramref name="NumbersNeeded"/>: of reps, or of seconds, for errors.</param>
/// <param name="Taken">The clinic's own are in force; as they were when they were taken on.</param>
/// <param name="Offered">What would hold with the clips as they are now.</param>
/// <param name="Version">Of the clinic's settings; a change is based on it.</param>
public sealed record OwnEyeView(
    ClinicEye Clinic,
    bool Enough,
    int ClipsNeeded,
    int NumbersNeeded,
    ClinicEye? Taken,
    EyeFigures BuiltIn,
    EyeFigures InForce,
    EyeFigures Offered,
    int Version
);

/// <summary>What would change in one open episode.</summary>
public sealed record EyeEffect(
    Guid EpisodeId,
    Guid VisitId,
    string ClientName,
    IReadOnlyList<Message> Changes
);

/// <param name="Use">The clinic's own figures, as the clips say now; otherwise the built-in ones.</param>
public sealed record OwnEyeForm(bool Use, int Version);

public static class OwnEyeEndpoints
{
    public static void MapOwnEye(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api/practice/eye").WithTags("Practice");
        group
            .MapGet("", Get)
            .Described("GetOwnEye", "How well the clinic sees, and what findings are reckoned with.");
        group
            .MapPost("/effects", Effects)
            .Described(
                "GetOwnEyeEffects",
                "What the clinic’s own figures, or the built-in ones, would change in open episodes. Nothing is stored."
            );
        group
            .MapPut("", Put)
            .Described(
                "SetOwnEye",
                "Takes on the clinic’s own figures, or the built-in ones, on the version that was read.",
                409
            );
    }

    private static async Task<Ok<OwnEyeView>> Get(
        PracticeRuns runs,
        PalaestraDb db,
        PolicyLibrary policies
    ) => TypedResults.Ok(await ViewOf(runs, db, policies));

    private static async Task<OwnEyeView> ViewOf(PracticeRuns runs, PalaestraDb db, PolicyLibrary policies)
    {
        var now = ClinicEye.Of(await runs.ByRater(), policies.BuiltIn.Practice);
        var clinic = await db.Clinics.AsNoTracking().SingleAsync();
        return new(
            now,
            IsEnough(now),
            policies.BuiltIn.Practice.ClinicClips,
            policies.BuiltIn.Practice.ClinicNumbers,
            clinic.OwnEye,
            EyeFigures.Of(policies.BuiltIn),
            EyeFigures.Of(policies.Library),
            EyeFigures.Of(policies.Seen(now)),
            clinic.Version
        );
    }

    private static bool IsEnough(ClinicEye eye) =>
        eye.Missed is not null || eye.RepsError is not null || eye.SecondsError is not null;

    private static async Task<Results<Ok<IReadOnlyList<EyeEffect>>, ProblemHttpResult>> Effects(
        OwnEyeForm form,
        PracticeRuns runs,
        PalaestraDb db,
        PolicyLibrary policies,
        ClinicClock clock,
        TapShelf taps,
        PlanShelf plans
    )
    {
        var now = form.Use ? ClinicEye.Of(await runs.ByRater(), policies.BuiltIn.Practice) : null;
        if (now is not null && !IsEnough(now))
        {
            return TooFew(policies.BuiltIn.Practice);
        }
        var (before, after) = (policies.Library, policies.Seen(now));
        var effects = new List<EyeEffect>();
        foreach (
            var id in await db
                .Episodes.Where(e => e.DischargedOn == null)
                .OrderBy(e => e.Client!.Name)
                .Select(e => e.Id)
                .ToListAsync()
        )
        {
            var was = (await new CaseFiles(db, before, clock, taps, plans).OfEpisode(id))!;
            if (was.Visits.Count == 0)
            {
                continue;
            }
            var will = (await new CaseFiles(db, after, clock, taps, plans).OfEpisode(id))!;
            var changes = ChangesOf(was, before, will, after).ToList();
            if (changes.Count > 0)
            {
                effects.Add(new(id, was.Visits[^1].Id, was.Episode.Client!.Name, changes));
            }
        }
        return TypedResults.Ok<IReadOnlyList<EyeEffect>>(effects);
    }

    private static ProblemHttpResult TooFew(PracticeModel model) =>
        Problem.Field("use", Message.Of("practice.too-few", ("least", model.ClinicClips)));

    /// <summary>Where a client stands, and which changes count, told as they were and as they would be.</summary>
    private static IEnumerable<Message> ChangesOf(
        CaseFile was,
        PracticeLibrary before,
        CaseFile will,
        PracticeLibrary after
    )
    {
        var screen = was.Visits.LastOrDefault(v => was.ScreenVisit(v.Id)?.Id == v.Id);
        if (screen is null)
        {
            yield break;
        }
        var (old, now) = (AtScreen(was, screen.Id), AtScreen(will, screen.Id));
        foreach (var ability in old.Abilities?.All ?? [])
        {
            var then = now.Abilities?.All.FirstOrDefault(a =>
                a.Direction == ability.Direction && a.Side == ability.Side
            );
            if (then is not null && Math.Abs(then.Theta - ability.Theta) >= Told)
            {
                yield return Message.Of(
                    "practice.moves",
                    ("what", ability.Name),
                    ("before", ability.Theta),
                    ("after", then.Theta)
                );
            }
        }
        var earlier = was.EarlierScreen(screen.Id);
        if (earlier is null)
        {
            yield break;
        }
        var told = Core.Findings.Changes.Between(AtScreen(was, earlier.Id), old, before);
        foreach (var change in Core.Findings.Changes.Between(AtScreen(will, earlier.Id), now, after))
        {
            var one = told.FirstOrDefault(c => c.Of == change.Of && c.Side == change.Side);
            if (one is not null && one.Verdict != change.Verdict)
            {
                yield return Message.Of(
                    "practice.verdict",
                    ("what", change.What),
                    ("before", one.Verdict),
                    ("after", change.Verdict)
                );
            }
        }
    }

    /// <summary>Tenths of a rung are what is shown.</summary>
    private const double Told = 0.1;

    private static ScreenFindings AtScreen(CaseFile file, Guid visit) =>
        file.FindingsOf(file.Visits.First(v => v.Id == visit), abilitiesAt: visit);

    private static async Task<Results<Ok<OwnEyeView>, ProblemHttpResult>> Put(
        OwnEyeForm form,
        PracticeRuns runs,
        PalaestraDb db,
        PolicyLibrary policies
    )
    {
        var now = form.Use ? ClinicEye.Of(await runs.ByRater(), policies.BuiltIn.Practice) : null;
        if (now is not null && !IsEnough(now))
        {
            return TooFew(policies.BuiltIn.Practice);
        }
        var clinic = await db.Clinics.SingleAsync();
        if (form.Version != clinic.Version)
        {
            return Problem.Conflict(Message.Of("conflict.meanwhile"));
        }
        clinic.OwnEye = now;
        clinic.Version++;
        if (!await db.SavedFirst())
        {
            return Problem.Conflict(Message.Of("conflict.meanwhile"));
        }
        // What is due follows from findings.
        await db.Standings.ExecuteUpdateAsync(set => set.SetProperty(s => s.Stale, true));
        policies.See(now);
        return TypedResults.Ok(await ViewOf(runs, db, policies));
    }
}
