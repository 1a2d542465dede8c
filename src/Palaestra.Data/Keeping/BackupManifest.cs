using System.Text.Json;
using Palaestra.Data.Audit;

namespace Palaestra.Data.Keeping;

/// <param name="Path">Within the data folder, with forward slashes.</param>
/// <param name="Sha256">In hexadecimal.</param>
public sealed record BackedUp(string Path, long Bytes, string Sha256);

/// <summary>What a backup holds; the last entry of its archive, so that one that was cut has none.</summary>
/// <param name="Format">1.</param>
/// <param name="Migration">The last one the database had: a newer server can restore it, an older one cannot.</param>
/// <param name="Audit">Where the chain of the audit stood; none: nothing was in it.</param>
/// <param name="Rows">Rows of each table, to compare after a restore.</param>
public sealed record BackupManifest(
    int Format,
    DateTimeOffset Made,
    string Migration,
    IReadOnlyList<BackedUp> Files,
    IReadOnlyDictionary<string, long> Rows,
    AuditHead? Audit = null
)
{
    public const string FileName = "manifest.json";

    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web)
    {
        WriteIndented = true,
    };

    public byte[] Write() => JsonSerializer.SerializeToUtf8Bytes(this, Json);

    /// <summary>None where it is not one.</summary>
    public static BackupManifest? Read(byte[] bytes)
    {
        try
        {
            return
                JsonSerializer.Deserialize<BackupManifest>(bytes, Json)
                    is { Files: not null, Rows: not null, Migration: not null } manifest
                && manifest.Files.Select(file => file?.Path).Distinct().Count() == manifest.Files.Count
                && manifest.Files.All(file => file is { Path: not null, Sha256: not null })
                ? manifest
                : null;
        }
        catch (JsonException)
        {
            return null;
        }
    }
}
