using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Palaestra.Core.Library;
using Palaestra.Core.Outcomes;
using Palaestra.Data;
using Palaestra.Server.Intake;
using Palaestra.Server.Problems;

namespace Palaestra.Server.Outcomes;

public sealed record AnswersForm(OutcomeAnswers Answers, int Version);

public static class OutcomesEndpoints
{
    public static void MapOutcomes(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api/visits/{visitId:guid}").WithTags("Outcomes");
        group.MapGet("/outcomes", Get).WithName("GetOutcomes");
        group.MapPut("/answers", Answer).WithName("StoreAnswers");
    }

    private static async Task<Results<Ok<OutcomesView>, ProblemHttpResult>> Get(
        Guid visitId,
        CaseFiles files,
        OutcomeSummary summary
    ) =>
        await files.OfVisit(visitId) is { } file
            ? TypedResults.Ok(summary.Of(file, visitId))
            : Problem.NotFound("visit");

    private static async Task<Results<Ok<OutcomesView>, ProblemHttpResult>> Answer(
        Guid visitId,
        AnswersForm form,
        CaseFiles files,
        OutcomeSummary summary,
        PalaestraDb db,
        PracticeLibrary library
    )
    {
        if (await files.OfVisit(visitId) is not { } file)
        {
            return Problem.NotFound("visit");
        }
        var errors = OutcomeAnswers.Errors(form.Answers, library, "answers").ToList();
        if (errors.Count > 0)
        {
            return Problem.Fields(errors);
        }
        var visit = file.Visit(visitId);
        if (form.Version != visit.AnswersVersion)
        {
            return Problem.Conflict(Message.Of("conflict.answered"), visit.Answers);
        }
        visit.Answers = form.Answers;
        visit.AnswersVersion++;
        try
        {
            await db.SaveChangesAsync();
        }
        catch (DbUpdateConcurrencyException)
        {
            return Problem.Conflict(Message.Of("conflict.answered"));
        }
        return TypedResults.Ok(summary.Of(file, visitId));
    }
}
