using Microsoft.AspNetCore.Http.HttpResults;
using Palaestra.Data.Keeping;
using Palaestra.Server.Description;

namespace Palaestra.Server.Keeping;

/// <param name="Folder">Where backups go, on the server.</param>
/// <param name="SameDisk">Data and backups lie on one disk: lost together.</param>
/// <param name="Sealed">For the clinic's public key.</param>
/// <param name="Warning">Too old, or none; in a sentence.</param>
public sealed record BackupsView(
    string Folder,
    bool SameDisk,
    bool Sealed,
    string? Warning,
    BackupStatus Status,
    IReadOnlyList<BackupFile> Files
);

/// <summary>For administrators.</summary>
public static class BackupEndpoints
{
    public static void MapBackups(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api/backups").WithTags("Backups");
        group.MapGet("", Get).Described("GetBackups", "Backups that were made.");
        group.MapPost("", Make).Described("MakeBackup", "Makes a backup now.");
    }

    private static Ok<BackupsView> Get(BackupRuns runs, Settings settings) =>
        TypedResults.Ok(ViewOf(runs, settings));

    private static async Task<Results<Ok<BackupsView>, ProblemHttpResult>> Make(
        BackupRuns runs,
        Settings settings
    )
    {
        try
        {
            await runs.Make();
            return TypedResults.Ok(ViewOf(runs, settings));
        }
        catch (BackupRefusedException problem)
        {
            return TypedResults.Problem(
                statusCode: StatusCodes.Status507InsufficientStorage,
                title: problem.Message
            );
        }
    }

    private static BackupsView ViewOf(BackupRuns runs, Settings settings) =>
        new(
            settings.BackupFolder,
            Disk.Of(settings.BackupFolder) == Disk.Of(settings.DataFolder),
            settings.BackupKey is not null,
            runs.Warning(),
            runs.Status(),
            runs.Files()
        );
}
