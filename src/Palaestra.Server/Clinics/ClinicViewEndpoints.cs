using System.Text;
using Microsoft.AspNetCore.Http.HttpResults;
using Palaestra.Server.Description;

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
    }

    private static async Task<Ok<ClinicView>> Get(ClinicFigures figures) =>
        TypedResults.Ok(await figures.View());

    private static async Task<FileContentHttpResult> Csv(ClinicFigures figures) =>
        TypedResults.File(
            Encoding.UTF8.GetBytes(await figures.Csv()),
            "text/csv; charset=utf-8",
            "clinic.csv"
        );
}
