using System.Globalization;
using System.Text.Json;
using Microsoft.Data.Sqlite;
using Palaestra.Data.Audit;
using Palaestra.Data.Photos;
using Palaestra.Data.Traces;

namespace Palaestra.Data.Keeping;

/// <summary>What went of one client: rows of each table, and files.</summary>
public sealed record Erased(Guid Client, string Name, IReadOnlyDictionary<string, int> Rows, int Files);

/// <summary>A client on the list beside the backups: no name, only what is needed to erase them again.</summary>
/// <param name="Visits">So that a tablet knows what to forget; none: listed by a version before.</param>
public sealed record ErasedBefore(Guid Client, DateTimeOffset At, IReadOnlyList<Guid>? Visits = null);

/// <summary>
/// Takes a client out of a data folder for good: rows of every table, samples and pictures, free pages, the log, copies made before
/// migrations. Backups keep them until their generation passes; a list beside them is applied after every restore.
/// </summary>
public static class Erasure
{
    public const string ListName = "erased.json";

    /// <summary>Columns by which a row belongs to a client, and the ids of that kind.</summary>
    private static readonly (string Column, string Ids)[] Belongs =
    [
        (
            "VisitId",
            "SELECT Id FROM Visits WHERE EpisodeId IN (SELECT Id FROM Episodes WHERE ClientId = $client)"
        ),
        (
            "ToVisitId",
            "SELECT Id FROM Visits WHERE EpisodeId IN (SELECT Id FROM Episodes WHERE ClientId = $client)"
        ),
        ("EpisodeId", "SELECT Id FROM Episodes WHERE ClientId = $client"),
        ("ClientId", "SELECT $client"),
        // Told of an episode that is another client's by now.
        ("FromClientId", Themselves),
        ("ToClientId", Themselves),
    ];

    /// <summary>A client, and whoever turned out to be them.</summary>
    private const string Themselves = "SELECT Id FROM Clients WHERE Id = $client OR MergedIntoId = $client";

    /// <param name="id">Of the client, or of one of their episodes.</param>
    /// <returns>The client and their name; none where the folder holds no such record.</returns>
    public static (Guid Id, string Name)? Find(string folder, Guid id)
    {
        using var db = Open(folder);
        const string named = "Id = $client OR Id = (SELECT ClientId FROM Episodes WHERE Id = $client)";
        using var ask = Command(
            db,
            HasMerges(db)
                // Of one that turned out to be another, that other.
                ? $"SELECT Id, Name FROM Clients WHERE Id = (SELECT COALESCE(MergedIntoId, Id) FROM Clients WHERE {named})"
                : $"SELECT Id, Name FROM Clients WHERE {named}",
            id
        );
        using var rows = ask.ExecuteReader();
        return rows.Read() ? (rows.GetGuid(0), rows.GetString(1)) : null;
    }

    /// <summary>
    /// The caller holds the folder's lock. Where it is broken off, nothing or all of the rows are gone; asked again, it goes on.
    /// </summary>
    /// <returns>None where the folder holds no such client.</returns>
    public static Erased? Of(string folder, Guid client)
    {
        if (Find(folder, client) is not { } found)
        {
            return null;
        }
        using var db = Open(folder);
        Run(db, "PRAGMA secure_delete = ON");
        var files = FilesOf(db, folder, found.Id);
        foreach (var file in files)
        {
            File.Delete(file);
        }
        var rows = Rows(db, found.Id);
        Run(db, "VACUUM");
        EmptyLog(db);
        foreach (var copy in Copies(folder))
        {
            File.Delete(copy);
        }
        return new(found.Id, found.Name, rows, files.Count);
    }

    /// <summary>Erases a client with whoever turned out to be them, after listing them.</summary>
    /// <inheritdoc cref="Of"/>
    public static Erased? ForGood(string folder, string backups, Guid client, DateTimeOffset now)
    {
        if (Find(folder, client) is not { } found)
        {
            return null;
        }
        using (var db = Open(folder))
        {
            var persons = HasMerges(db) ? Ids(db, Themselves, found.Id) : [found.Id];
            var visits = Ids(db, Belongs[0].Ids, found.Id);
            // In a backup of before they were merged they are two.
            Note(backups, [.. persons.Select(id => new ErasedBefore(id, now, visits))]);
        }
        return Of(folder, found.Id);
    }

    private static List<Guid> Ids(SqliteConnection db, string words, Guid client)
    {
        using var ask = Command(db, words, client);
        using var rows = ask.ExecuteReader();
        var ids = new List<Guid>();
        while (rows.Read())
        {
            ids.Add(rows.GetGuid(0));
        }
        return ids;
    }

    /// <summary>Puts clients on the list, before anything is erased: a restore of tomorrow knows.</summary>
    private static void Note(string backups, IReadOnlyList<ErasedBefore> gone)
    {
        Directory.CreateDirectory(backups);
        var clients = gone.Select(entry => entry.Client).ToHashSet();
        ErasedBefore[] all = [.. Listed(backups).Where(entry => !clients.Contains(entry.Client)), .. gone];
        WholeFile.Write(Path.Combine(backups, ListName), JsonSerializer.Serialize(all));
    }

    /// <exception cref="BackupRefusedException">The list is there and cannot be read: who is on it is not known.</exception>
    public static IReadOnlyList<ErasedBefore> Listed(string backups)
    {
        var path = Path.Combine(backups, ListName);
        try
        {
            return File.Exists(path)
                ? JsonSerializer.Deserialize<List<ErasedBefore>>(File.ReadAllText(path)) ?? []
                : [];
        }
        catch (JsonException problem)
        {
            throw new BackupRefusedException(
                $"The list of erased clients, {path}, cannot be read. Put a whole copy of it in its place; without it clients who were erased would come back.",
                problem
            );
        }
    }

    /// <summary>All on the list, out of a folder that was unpacked from a backup.</summary>
    public static int Apply(string folder, IEnumerable<ErasedBefore> listed) =>
        listed.Count(entry => Of(folder, entry.Client) is not null);

    private static Dictionary<string, int> Rows(SqliteConnection db, Guid client)
    {
        using var all = db.BeginTransaction();
        Run(db, "PRAGMA defer_foreign_keys = ON");
        var rows = new Dictionary<string, int>();
        Silence(db, client);
        foreach (var (column, ids) in Belongs)
        {
            foreach (var table in TablesWith(db, column))
            {
                using var delete = Command(
                    db,
                    $"DELETE FROM \"{table}\" WHERE \"{column}\" IN ({ids})",
                    client
                );
                var gone = delete.ExecuteNonQuery();
                rows[table] = rows.GetValueOrDefault(table) + gone;
            }
        }
        using var last = Command(
            db,
            HasMerges(db)
                ? $"DELETE FROM Clients WHERE Id IN ({Themselves})"
                : "DELETE FROM Clients WHERE Id = $client",
            client
        );
        rows["Clients"] = last.ExecuteNonQuery();
        all.Commit();
        return rows;
    }

    /// <summary>What the audit tells of a client goes, with the salt its hash was made with; that something was told stays, and the chain whole.</summary>
    private static void Silence(SqliteConnection db, Guid client)
    {
        // A database of before may have none yet.
        if (!DatabaseCheck.HasTable(db, "AuditNotes"))
        {
            return;
        }
        var persons = HasMerges(db) ? Themselves : "$client";
        var theirs = $"""
            WHERE Person IN ({persons})
            OR Episode IN (SELECT Id FROM Episodes WHERE ClientId = $client)
            OR Visit IN (SELECT Id FROM Visits WHERE EpisodeId IN (SELECT Id FROM Episodes WHERE ClientId = $client))
            """;
        const string nothing = "Person = NULL, Episode = NULL, Visit = NULL, Payload = NULL";
        foreach (
            var change in new[]
            {
                $"UPDATE Audit SET Salt = NULL, {nothing}",
                $"UPDATE AuditNotes SET {nothing}",
            }
        )
        {
            using var silence = Command(db, $"{change} {theirs}", client);
            silence.ExecuteNonQuery();
        }
        using var told = Command(
            db,
            "INSERT INTO AuditNotes (At, Kind, \"By\", What) VALUES ($now, 'Change', '', $erased)",
            client
        );
        told.Parameters.AddWithValue("$now", DateTime.UtcNow);
        told.Parameters.AddWithValue("$erased", AuditChain.Erased);
        told.ExecuteNonQuery();
    }

    /// <summary>A database of before has none.</summary>
    private static bool HasMerges(SqliteConnection db) => DatabaseCheck.HasTable(db, "EpisodeMoves");

    /// <summary>What was written over lies in the log until it is emptied, which waits for whoever is reading.</summary>
    /// <exception cref="IOException">Somebody went on reading for longer than is waited.</exception>
    private static void EmptyLog(SqliteConnection db)
    {
        for (var tries = 0; tries < LogTries; tries++)
        {
            using var empty = db.CreateCommand();
            empty.CommandText = "PRAGMA wal_checkpoint(TRUNCATE)";
            if ((long)empty.ExecuteScalar()! == 0)
            {
                return;
            }
            Thread.Sleep(LogPause);
        }
        throw new IOException(
            "The records are erased, but the database's log could not be emptied while it was read. It is emptied when the server stops: restart it."
        );
    }

    private const int LogTries = 20;
    private static readonly TimeSpan LogPause = TimeSpan.FromMilliseconds(250);

    /// <summary>Visits go after what names them, episodes after visits.</summary>
    private static List<string> TablesWith(SqliteConnection db, string column)
    {
        using var ask = db.CreateCommand();
        ask.CommandText =
            "SELECT m.name FROM sqlite_master m JOIN pragma_table_info(m.name) c WHERE m.type = 'table' AND c.name = $column ORDER BY m.name = 'Visits', m.name";
        ask.Parameters.AddWithValue("$column", column);
        using var found = ask.ExecuteReader();
        var names = new List<string>();
        while (found.Read())
        {
            names.Add(found.GetString(0));
        }
        return names;
    }

    private static List<string> FilesOf(SqliteConnection db, string folder, Guid client)
    {
        var visits = Belongs[0].Ids;
        var ids = new HashSet<string>(StringComparer.OrdinalIgnoreCase);
        using (var traces = Command(db, $"SELECT Id FROM Traces WHERE VisitId IN ({visits})", client))
        using (var rows = traces.ExecuteReader())
        {
            while (rows.Read())
            {
                ids.Add(rows.GetGuid(0).ToString("N"));
            }
        }
        // A database of before has none.
        if (DatabaseCheck.HasTable(db, "Photos"))
        {
            using var photos = Command(db, $"SELECT Id FROM Photos WHERE VisitId IN ({visits})", client);
            using var kept = photos.ExecuteReader();
            while (kept.Read())
            {
                ids.Add(kept.GetGuid(0).ToString("N"));
            }
        }
        using var events = Command(db, $"SELECT Event FROM Events WHERE VisitId IN ({visits})", client);
        using var told = events.ExecuteReader();
        var words = new List<string>();
        while (told.Read())
        {
            words.Add(told.GetString(0));
        }
        return
        [
            .. Directory
                .EnumerateFiles(folder, "*", SearchOption.AllDirectories)
                .Where(file =>
                    Path.GetFileName(Path.GetDirectoryName(file)) switch
                    {
                        TraceFiles.FolderName => ids.Contains(Path.GetFileNameWithoutExtension(file)),
                        // One that was kept before pictures were written down is named by the event it belongs to.
                        PhotoFiles.FolderName => Guid.TryParse(
                            Path.GetFileNameWithoutExtension(file),
                            out var id
                        )
                            && (
                                ids.Contains($"{id:N}")
                                || words.Exists(text =>
                                    text.Contains($"{id}", StringComparison.OrdinalIgnoreCase)
                                )
                            ),
                        _ => false,
                    }
                ),
        ];
    }

    /// <summary>Databases that lie beside the one that is served.</summary>
    private static IEnumerable<string> Copies(string folder) =>
        Directory
            .EnumerateFiles(folder, Store.CopyPattern)
            .Concat(Directory.EnumerateFiles(folder, $"{MigrationGuard.AsidePrefix}*"));

    private static SqliteConnection Open(string folder)
    {
        var db = new SqliteConnection(
            new SqliteConnectionStringBuilder(Store.ConnectionString(folder)) { Pooling = false }.ToString()
        );
        db.Open();
        return db;
    }

    private static SqliteCommand Command(SqliteConnection db, string words, Guid client)
    {
        var command = db.CreateCommand();
        command.CommandText = words;
        command.Parameters.AddWithValue("$client", client.ToString().ToUpper(CultureInfo.InvariantCulture));
        return command;
    }

    private static void Run(SqliteConnection db, string words)
    {
        using var command = db.CreateCommand();
        command.CommandText = words;
        command.ExecuteNonQuery();
    }
}
