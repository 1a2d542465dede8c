using Microsoft.Data.Sqlite;

namespace Palaestra.Data.Keeping;

/// <summary>What a database file says of itself.</summary>
public static class DatabaseCheck
{
    // Result codes of the SQLite documentation, from memory.
    public const int Busy = 5;
    public const int Locked = 6;
    public const int ReadOnly = 8;
    public const int InputOutput = 10;
    public const int Full = 13;
    public const int CannotOpen = 14;

    /// <summary>The first thing that is wrong with its pages; none where nothing is.</summary>
    public static string? Damage(SqliteConnection open)
    {
        using var check = open.CreateCommand();
        check.CommandText = "PRAGMA quick_check(1)";
        return (string?)check.ExecuteScalar() is var found && found == "ok"
            ? null
            : found ?? "it says nothing";
    }

    /// <summary>The same for a file that is only looked at.</summary>
    /// <exception cref="SqliteException">It is no database.</exception>
    public static string? Damage(string file)
    {
        using var db = Look(file);
        return Damage(db);
    }

    /// <summary>Rows of every table, but the mapper's and SQLite's own.</summary>
    /// <exception cref="SqliteException">It is no database, or damaged.</exception>
    public static IReadOnlyDictionary<string, long> Rows(string file)
    {
        using var db = Look(file);
        var tables = new List<string>();
        using (var ask = db.CreateCommand())
        {
            ask.CommandText =
                "SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite_%' AND name NOT LIKE '\\_\\_EF%' ESCAPE '\\' ORDER BY name";
            using var row = ask.ExecuteReader();
            while (row.Read())
            {
                tables.Add(row.GetString(0));
            }
        }
        return tables.ToDictionary(
            name => name,
            name => (long)Scalar(db, $"SELECT count(*) FROM \"{name}\"")
        );
    }

    /// <summary>The last one that was made; empty where none was.</summary>
    public static string LastMigration(string file)
    {
        using var db = Look(file);
        return HasTable(db, History)
            ? (string)Scalar(db, $"SELECT coalesce(max(MigrationId), '') FROM {History}")
            : "";
    }

    public const string History = "__EFMigrationsHistory";

    public static bool HasTable(SqliteConnection open, string name)
    {
        using var ask = open.CreateCommand();
        ask.CommandText = "SELECT EXISTS (SELECT 1 FROM sqlite_master WHERE type = 'table' AND name = $name)";
        ask.Parameters.AddWithValue("$name", name);
        return (long)ask.ExecuteScalar()! == 1;
    }

    private static SqliteConnection Look(string file)
    {
        var db = new SqliteConnection($"Data Source={file};Mode=ReadOnly;Pooling=False");
        db.Open();
        return db;
    }

    private static object Scalar(SqliteConnection db, string question)
    {
        using var ask = db.CreateCommand();
        ask.CommandText = question;
        return ask.ExecuteScalar()!;
    }
}
