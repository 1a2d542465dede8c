using Microsoft.AspNetCore.Http.HttpResults;
using Palaestra.Core.Body;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Server.Description;
using Palaestra.Server.Intake;
using Palaestra.Server.Problems;

namespace Palaestra.Server.Library;

/// <summary>One rung of a slope.</summary>
/// <param name="NewtonMetres">In the ladder's own direction.</param>
/// <param name="Reason">Why it asks for less than the rung below; none where it does not.</param>
public sealed record SlopeStep(string RungId, double NewtonMetres, string? Reason);

/// <summary>A rung as its page shows it, for the open client or for nobody.</summary>
/// <param name="Notes">What the client's precautions say of it; without a client, what any precaution says.</param>
/// <param name="PresentRungId">The client's rung on this ladder by the plan in force; none without one.</param>
/// <param name="DrawnFaults">Codes of faults there is a picture of.</param>
/// <param name="Slope">The ladder from its easiest rung up; empty where it is not ordered by load.</param>
public sealed record RungPage(
    string RungId,
    string LadderId,
    string? EasierRungId,
    string? HarderRungId,
    string? ClientName,
    BodySize Body,
    bool Barred,
    IReadOnlyList<AllowanceNote> Notes,
    string? PresentRungId,
    IReadOnlyList<string> DrawnFaults,
    LoadChoices Choices,
    IReadOnlyList<SlopeStep> Slope
);

public static class RungEndpoints
{
    public static void MapRungs(this IEndpointRouteBuilder routes) =>
        routes
            .MapGet("/api/rungs/{rungId}", Get)
            .WithTags("Library")
            .Described(
                "GetRung",
                "A rung of a ladder: what it trains, its loads, what leads on; for a client where an episode is named.",
                404
            );

    private static async Task<Results<Ok<RungPage>, ProblemHttpResult>> Get(
        string rungId,
        CaseFiles files,
        PracticeLibrary library,
        Guid? episode,
        Word<Side>? side
    )
    {
        if (library.FindRung(rungId) is not { } rung)
        {
            return Problem.NotFound("rung");
        }
        var file = episode is { } id ? await files.OfEpisode(id) : null;
        if (episode is not null && file is null)
        {
            return Problem.NotFound("episode");
        }
        return TypedResults.Ok(PageOf(rung, side?.Value ?? Side.Left, file, library));
    }

    private static RungPage PageOf(Rung rung, Side side, CaseFile? file, PracticeLibrary library)
    {
        var ladder = library.LadderOf(rung.Id);
        var index = ladder.IndexOf(rung.Id);
        var body = file?.Body ?? BodySize.Typical;
        var precautions =
            file?.Profile.Precautions ?? [.. library.Precautions.Select(p => new ClientPrecaution(p.Id))];
        var allowance = Allowance.Of(library, precautions, rung, Side.Both);
        return new RungPage(
            rung.Id,
            ladder.Id,
            index > 0 ? ladder.Rungs[index - 1].Id : null,
            index + 1 < ladder.Rungs.Count ? ladder.Rungs[index + 1].Id : null,
            file?.Episode.Client?.Name,
            body,
            file is not null && allowance.Barred,
            allowance.Notes,
            file?.CurrentPlan?.Plan.Items.FirstOrDefault(item => ladder.IndexOf(item.RungId) >= 0)?.RungId,
            [.. rung.Faults.Where(fault => library.FaultyPose(rung, fault) is not null)],
            LoadChoices.Of(library.PathOf(rung)),
            [
                .. LadderOrder
                    .Of(ladder, library, body, side == Side.Right ? Side.Right : Side.Left)
                    .Select(step => new SlopeStep(
                        step.Rung.Id,
                        step.Demand,
                        step.Falls ? step.Reason : null
                    )),
            ]
        );
    }
}
