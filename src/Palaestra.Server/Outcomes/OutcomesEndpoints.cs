using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Palaestra.Core.Library;
using Palaestra.Core.Outcomes;
using Palaestra.Data;
using Palaestra.Server.Amendments;
using Palaestra.Server.Description;
using Palaestra.Server.Intake;
using Palaestra.Server.Problems;

namespace Palaestra.Server.Outcomes;

/// <param name="Reason">Why they are written anew, 1 to 500 characters: needed where the visit was decided or its day is over.</param>
public sealed record AnswersForm(OutcomeAnswers Answers, int Version, string? Reason = null);

public static class OutcomesEndpoints
{
    public static void MapOutcomes(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api/visits/{visitId:guid}").WithTags("Outcomes");
        group
            .MapGet("/outcomes", Get)
            .Described(
                "GetOutcomes",
                "Measures over the visits: trend, and whether the change is more than error."
            );
        group
            .MapPut("/answers", Answer)
            .Described(
                "StoreAnswers",
                "Writes the answers to a visit’s measures, on the version that was read.",
                409
            );
    }

    private static Ok<OutcomesView> Get(Guid visitId, OpenCase open, OutcomeSummary summary) =>
        TypedResults.Ok(summary.Of(open.File, visitId));

    private static async Task<Results<Ok<OutcomesView>, ProblemHttpResult>> Answer(
        Guid visitId,
        AnswersForm form,
        OpenCase open,
        OutcomeSummary summary,
        PalaestraDb db,
        PracticeLibrary library,
        Amending amending
    )
    {
        var file = open.File;
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
        if (amending.Of(form.Reason, file, visit, visit.Answers, form.Answers) is { } unreasoned)
        {
            return Problem.Fields([unreasoned]);
        }
        visit.Answers = form.Answers;
        visit.AnswersVersion++;
        if (!await db.SavedFirst())
        {
            return Problem.Conflict(Message.Of("conflict.answered"));
        }
        return TypedResults.Ok(summary.Of(file, visitId));
    }
}
