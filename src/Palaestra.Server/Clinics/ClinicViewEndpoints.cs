using System.Text;
using Microsoft.AspNetCore.Http.HttpResults;
using Palaestra.Exchange.Tables;
using Palaestra.Server.Description;
using Palaestra.Server.Serving;

namespace Palaestra.Server.Clinics;

public static class ClinicViewEndpoints
{
    public static void MapClinicView(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api").WithTags("Clinic");
        group
            .MapGet("/clinic-view", Get)
            .Described(
                "GetClinicView",
                "Episodes open, waiting and lapsed; adherence; outcomes and overrides by policy."
            );
        group
            .MapGet("/clinic-view.csv", Csv)
            .Described("GetClinicViewFile", "One line an episode as CSV, without names.");
        group
            .MapGet("/research.zip", Research)
            .Produces<byte[]>(StatusCodes.Status200OK, "application/zip")
            .Described(
                "GetResearchFile",
                "A row a trial, a set, a decision as CSV, with a codebook; without names, days and free text."
            );
    }

    private static async Task<Ok<ClinicView>> Get(ClinicFigures figures) =>
        TypedResults.Ok(await figures.View());

    private static async Task<FileContentHttpResult> Csv(ClinicFigures figures) =>
        TypedResults.File(
            Encoding.UTF8.GetBytes(SpreadsheetText.Mark + await figures.Csv()),
            "text/csv; charset=utf-8",
            "clinic.csv"
        );

    private static async Task<FileStreamHttpResult> Research(ResearchExport export) =>
        TypedResults.Stream(await PassingFile.Filled(export.Write), "application/zip", "research.zip");
}
