using System.Text.Json.Serialization;
using FluentValidation;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Data;
using Palaestra.Server.Amendments;
using Palaestra.Server.Clinics;
using Palaestra.Server.Description;
using Palaestra.Server.People;
using Palaestra.Server.Problems;

namespace Palaestra.Server.Intake;

public sealed record Opened(Guid EpisodeId, Guid VisitId);

public sealed record DangerSignsForm(IReadOnlyList<string> DangerSigns);

public sealed record DangerClearedForm(string Found, string Done);

/// <param name="Reason">Why it is set anew, 1 to 500 characters: needed where a plan rests on it.</param>
public sealed record NeutralForm(
    RestingShape RestingShape,
    SpinalStrategy Strategy,
    [property: JsonPropertyName("switchOn")] Activation Activation,
    int Version,
    string? Reason = null
);

public sealed record NeutralAsk(NeutralProposal Proposal, IReadOnlyList<Message> Cautions);

public static class IntakeEndpoints
{
    public static void MapIntake(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api").WithTags("Intake");
        group
            .MapPost("/clients", Create)
            .Described("CreateClient", "Opens a client with an episode and its first visit.");
        group
            .MapGet("/episodes/{id:guid}", Get)
            .Described("GetEpisode", "A client’s episode: what was asked, visits, red flags.");
        group
            .MapPut("/episodes/{id:guid}/intake", Update)
            .Described(
                "UpdateIntake",
                "Writes the answers of the intake at a visit, on the version that was read.",
                409
            );
        group
            .MapPost("/episodes/{id:guid}/danger-reports", ReportDanger)
            .Described(
                "ReportDangerSigns",
                "Reports red flags; the episode is closed until they are dealt with."
            );
        group
            .MapPost("/episodes/{id:guid}/danger-reports/{reportId:guid}/cleared", Clear)
            .Described(
                "ClearDangerReport",
                "Says what was found and done about a report of red flags.",
                404,
                409
            );
        group
            .MapGet("/episodes/{id:guid}/neutral", AskNeutral)
            .Described("AskNeutral", "Which neutral position and strategy suit a resting shape.");
        group
            .MapPut("/episodes/{id:guid}/neutral", SetNeutral)
            .Described(
                "SetNeutral",
                "Sets neutral position, strategy and activation, on the version that was read.",
                409
            );
    }

    private static async Task<Results<Created<Opened>, Ok<Opened>, ProblemHttpResult>> Create(
        IntakeForm form,
        IValidator<IntakeForm> validator,
        IntakeStore intakes,
        ClinicClock clock,
        WhoIsHere who
    )
    {
        if (form.Id is { } sent && await intakes.FirstOf(sent) is { } known)
        {
            // The same tap once more.
            return TypedResults.Ok(known);
        }
        var errors = validator.Errors(form);
        if (errors.Count > 0)
        {
            return Problem.Fields(errors);
        }
        var (episode, visit) = await intakes.Open(form, clock.Now, who.Name);
        return TypedResults.Created($"/api/episodes/{episode.Id}", new Opened(episode.Id, visit.Id));
    }

    private static Ok<EpisodeView> Get(Guid id, OpenCase open, PracticeLibrary library, ClinicClock clock) =>
        TypedResults.Ok(EpisodeView.Of(open.File, library, clock.Today));

    private static async Task<Results<Ok<EpisodeView>, ProblemHttpResult>> Update(
        Guid id,
        IntakeForm form,
        IValidator<IntakeForm> validator,
        IntakeStore intakes,
        OpenCase open,
        CaseFiles files,
        PalaestraDb db,
        PracticeLibrary library,
        ClinicClock clock,
        WhoIsHere who,
        Amending amending
    )
    {
        var errors = validator.Errors(form);
        if (errors.Count > 0)
        {
            return Problem.Fields(errors);
        }
        if (open.File.Visits.Count == 0)
        {
            return Problem.Conflict(Message.Of("intake.no-visit"));
        }
        if (
            open.File.Visits.All(v => v.Id != form.VisitId)
            && open.File.Episode.Visits.Any(v => v.Id == form.VisitId)
        )
        {
            // Its answers are not another visit's.
            return Problem.Conflict(Message.Of("visit.called-off"));
        }
        var visit = VisitOf(form, open.File);
        if (
            form.Version == open.File.Episode.Version
            && amending.Of(form.Reason, open.File, visit, visit.Intake, IntakeStore.AnswersOf(form))
                is { } unreasoned
        )
        {
            return Problem.Fields([unreasoned]);
        }
        return await Edit(
            open.File,
            form.Version ?? 0,
            files,
            db,
            library,
            clock,
            file =>
            {
                intakes.WriteAt(form, file, VisitOf(form, file), who.Name);
                intakes.Report(file.Episode, form.DangerSigns, who.Name);
            }
        );
    }

    /// <summary>The visit that was named, else the latest that has begun: the answers are its own.</summary>
    private static Data.Visits.Visit VisitOf(IntakeForm form, CaseFile file) =>
        file.Visits.FirstOrDefault(v => v.Id == form.VisitId)
        ?? file.Visits.LastOrDefault(file.HasBegun)
        ?? file.Visits[0];

    /// <summary>Marks red flags at any moment of a visit, without waiting for anything else to be answered.</summary>
    private static async Task<Results<Ok<EpisodeView>, ProblemHttpResult>> ReportDanger(
        Guid id,
        DangerSignsForm form,
        IntakeStore intakes,
        OpenCase open,
        PalaestraDb db,
        PracticeLibrary library,
        ClinicClock clock,
        WhoIsHere who
    )
    {
        for (var i = 0; i < form.DangerSigns.Count; i++)
        {
            if (library.DangerSigns.All(sign => sign.Id != form.DangerSigns[i]))
            {
                return Problem.Field(
                    $"dangerSigns[{i}]",
                    Message.Of("no.red-flag", ("flag", form.DangerSigns[i]))
                );
            }
        }
        var file = open.File;
        intakes.Report(file.Episode, form.DangerSigns, who.Name);
        await db.SaveChangesAsync();
        return TypedResults.Ok(EpisodeView.Of(file, library, clock.Today));
    }

    private static async Task<Results<Ok<EpisodeView>, ProblemHttpResult>> Clear(
        Guid id,
        Guid reportId,
        DangerClearedForm form,
        OpenCase open,
        PalaestraDb db,
        PracticeLibrary library,
        ClinicClock clock,
        WhoIsHere who
    )
    {
        if (string.IsNullOrWhiteSpace(form.Found) || form.Found.Length > 2000)
        {
            return Problem.Field("found", Message.Of("flag.found"));
        }
        if (string.IsNullOrWhiteSpace(form.Done) || form.Done.Length > 2000)
        {
            return Problem.Field("done", Message.Of("flag.done"));
        }
        var file = open.File;
        if (file.Episode.DangerReports.FirstOrDefault(r => r.Id == reportId) is not { } report)
        {
            return Problem.NotFound("flag-report");
        }
        if (!report.Open)
        {
            return Problem.Conflict(Message.Of("flag.cleared", ("by", report.ClearedBy)));
        }
        report.Found = form.Found.Trim();
        report.Done = form.Done.Trim();
        report.ClearedAt = clock.Now;
        report.ClearedBy = who.Name;
        await db.SaveChangesAsync();
        return TypedResults.Ok(EpisodeView.Of(file, library, clock.Today));
    }

    private static async Task<Results<Ok<NeutralAsk>, ProblemHttpResult>> AskNeutral(
        Guid id,
        Word<RestingShape> shape,
        Word<SpinalStrategy>? strategy,
        OpenCase open,
        PracticeLibrary library
    )
    {
        var file = open.File;
        var profile = file.Profile with { RestingShape = shape.Value };
        var proposal = NeutralChoice.Propose(profile, file.Policy, library);
        return TypedResults.Ok(
            new NeutralAsk(
                proposal,
                NeutralChoice.CautionsFor(strategy?.Value ?? proposal.Strategy, profile, library)
            )
        );
    }

    private static async Task<Results<Ok<EpisodeView>, ProblemHttpResult>> SetNeutral(
        Guid id,
        NeutralForm form,
        OpenCase open,
        CaseFiles files,
        PalaestraDb db,
        PracticeLibrary library,
        ClinicClock clock,
        Amending amending
    )
    {
        if (Problem.Held(open.File) is { } held)
        {
            return held;
        }
        var (episode, planned) = (open.File.Episode, open.File.CurrentPlan is not null);
        var changes =
            episode.RestingShape is not null
            && (episode.RestingShape, episode.Strategy, episode.Activation)
                != (form.RestingShape, form.Strategy, form.Activation);
        if (
            form.Version == episode.Version
            && (planned && changes ? amending.Always(form.Reason) : amending.Given(form.Reason))
                is { } unreasoned
        )
        {
            return Problem.Fields([unreasoned]);
        }
        return await Edit(
            open.File,
            form.Version,
            files,
            db,
            library,
            clock,
            edited =>
            {
                edited.Episode.RestingShape = form.RestingShape;
                edited.Episode.Strategy = form.Strategy;
                edited.Episode.Activation = form.Activation;
            }
        );
    }

    /// <summary>One edit of an episode; an edit on an older version changes nothing and shows the present one.</summary>
    private static async Task<Results<Ok<EpisodeView>, ProblemHttpResult>> Edit(
        CaseFile file,
        int version,
        CaseFiles files,
        PalaestraDb db,
        PracticeLibrary library,
        ClinicClock clock,
        Action<CaseFile> change
    )
    {
        var conflict = Message.Of("conflict.changed");
        if (version != file.Episode.Version)
        {
            return Problem.Conflict(conflict, EpisodeView.Of(file, library, clock.Today));
        }
        change(file);
        file.Episode.Version++;
        if (!await db.SavedFirst())
        {
            return Problem.Conflict(conflict);
        }
        var stored = await files.OfEpisode(file.Episode.Id);
        return TypedResults.Ok(EpisodeView.Of(stored!, library, clock.Today));
    }
}
