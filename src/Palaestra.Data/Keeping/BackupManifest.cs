using System.Text.Json;
using Microsoft.Data.Sqlite;

namespace Palaestra.Data.Keeping;

/// <param name="Path">Within the data folder, with forward slashes.</param>
/// <param name="Sha256">In hexadecimal.</param>
public sealed record BackedUp(string Path, long Bytes, string Sha256);

/// <summary>What a backup holds; the last entry of its archive, so that one that was cut has none.</summary>
/// <param name="Format">1.</param>
/// <param name="Migration">The last one the database had: a newer server can restore it, an older one cannot.</param>
/// <param name="Rows">Rows of each table, to compare after a restore.</param>
public sealed record BackupManifest(
    int Format,
    DateTimeOffset Made,
    string Migration,
    IReadOnlyList<BackedUp> Files,
    IReadOnlyDictionary<string, long> Rows
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

    /// <summary>Rows of every table of a database file, and its last migration.</summary>
    public static (string Migration, IReadOnlyDictionary<string, long> Rows) Count(string database)
    {
        using var db = new SqliteConnection($"Data Source={database};Mode=ReadOnly;Pooling=False");
        db.Open();
        var tables = new List<string>();
        using (var ask = db.CreateCommand())
        {
            ask.CommandText =
                "SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite_%' ORDER BY name";
            using var row = ask.ExecuteReader();
            while (row.Read())
            {
                tables.Add(row.GetString(0));
            }
        }
        return (
            tables.Contains(History)
                ? Scalar(db, $"SELECT coalesce(max(MigrationId), '') FROM {History}").ToString()!
                : "",
            tables.ToDictionary(name => name, name => (long)Scalar(db, $"SELECT count(*) FROM \"{name}\""))
        );
    }

    private const string History = "__EFMigrationsHistory";

    private static object Scalar(SqliteConnection db, string question)
    {
        using var ask = db.CreateCommand();
        ask.CommandText = question;
        return ask.ExecuteScalar()!;
    }
}
