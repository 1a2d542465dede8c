using System.Text.Json;
using Microsoft.Data.Sqlite;
using Palaestra.Data.Keeping;

namespace Palaestra.Data.Audit;

/// <summary>Heads of the chain as files: the last beside the database, one for every backup beside the backups.</summary>
public static class AuditHeads
{
    public const string FileName = "audit-head.json";
    public const string BackupsName = "audit-heads.json";

    public static void Put(string folder, AuditHead head) =>
        WholeFile.Write(Path.Combine(folder, FileName), JsonSerializer.Serialize(head));

    /// <summary>The last link in a file of the database; none: there is no link, or no audit yet.</summary>
    public static AuditHead? Of(string database)
    {
        using var db = new SqliteConnection($"Data Source={database};Mode=ReadOnly;Pooling=False");
        db.Open();
        if (!DatabaseCheck.HasTable(db, "Audit"))
        {
            return null;
        }
        using var ask = db.CreateCommand();
        ask.CommandText = "SELECT Chain, Number, Hash FROM Audit ORDER BY Number DESC LIMIT 1";
        using var row = ask.ExecuteReader();
        return row.Read() ? new(row.GetGuid(0), row.GetInt64(1), row.GetString(2)) : null;
    }

    /// <summary>Adds the head that went into a backup to those known.</summary>
    public static void Note(string backups, AuditHead head)
    {
        Directory.CreateDirectory(backups);
        WholeFile.Write(
            Path.Combine(backups, BackupsName),
            JsonSerializer.Serialize(Listed(backups).Append(head).Distinct())
        );
    }

    /// <summary>All that are known; a file that cannot be read counts for none.</summary>
    public static IReadOnlyList<AuditHead> Known(string folder, string backups) =>
        [
            .. Read<AuditHead>(Path.Combine(folder, FileName)) is { } last
                ? [last]
                : Array.Empty<AuditHead>(),
            .. Listed(backups),
        ];

    private static IReadOnlyList<AuditHead> Listed(string backups) =>
        Read<List<AuditHead>>(Path.Combine(backups, BackupsName)) ?? [];

    private static T? Read<T>(string path)
        where T : class
    {
        try
        {
            return File.Exists(path) ? JsonSerializer.Deserialize<T>(File.ReadAllText(path)) : null;
        }
        catch (JsonException)
        {
            return null;
        }
    }
}
