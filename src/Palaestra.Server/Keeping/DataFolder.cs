using Microsoft.Data.Sqlite;
using Palaestra.Data;
using Palaestra.Data.Keeping;
using static Palaestra.Data.Keeping.DatabaseCheck;

namespace Palaestra.Server.Keeping;

/// <summary>
/// The data folder while this server has it: locked against another, one connection held open so that the write-ahead log
/// stays until the server closes it, and a word in the lock that says whether it did.
/// </summary>
public sealed class DataFolder(Settings settings, TimeProvider clock, ILogger<DataFolder> log) : IDisposable
{
    private readonly SqliteConnection held = new(
        new SqliteConnectionStringBuilder(Store.ConnectionString(settings.DataFolder))
        {
            Pooling = false,
        }.ToString()
    );
    private FolderLock? taken;
    private bool serving;

    /// <exception cref="StartRefusedException">In use or not writable.</exception>
    public void Take() => taken = FolderLock.Take(settings.DataFolder, clock.GetLocalNow());

    /// <exception cref="StartRefusedException">The database is not fit to be served.</exception>
    public async Task Prepare(PalaestraDb db, DateTime now)
    {
        try
        {
            await Store.Prepare(db, settings.DataFolder, now, taken!.Crashed, settings.TimeZone);
            await held.OpenAsync();
            // The first read makes the log and keeps it there.
            await using var look = held.CreateCommand();
            look.CommandText = "SELECT count(*) FROM sqlite_master";
            await look.ExecuteScalarAsync();
        }
        catch (SqliteException problem) when (problem.SqliteErrorCode is ReadOnly or Full or CannotOpen)
        {
            throw new StartRefusedException(
                StartFault.NotWritable,
                problem.SqliteErrorCode == Full
                    ? $"The disk of {settings.DataFolder} is full. Make room and start again; nothing is lost."
                    : $"The database in {settings.DataFolder} cannot be written ({problem.Message.TrimEnd('.')}). Give it to the account the server runs as.",
                problem
            );
        }
        catch (UnauthorizedAccessException problem)
        {
            throw new StartRefusedException(
                StartFault.NotWritable,
                $"A file in {settings.DataFolder} cannot be opened ({problem.Message.TrimEnd('.')}). Give the folder and all in it to the account the server runs as.",
                problem
            );
        }
        taken.SayServing();
        serving = true;
    }

    public void Dispose()
    {
        if (serving)
        {
            using var pooled = new SqliteConnection(Store.ConnectionString(settings.DataFolder));
            SqliteConnection.ClearPool(pooled);
            Close();
        }
        held.Dispose();
        taken?.Dispose();
    }

    /// <summary>Everything into the one file; where that fails, the log still holds it and the next start is told.</summary>
    private void Close()
    {
        try
        {
            using var whole = held.CreateCommand();
            whole.CommandText = "PRAGMA wal_checkpoint(TRUNCATE)";
            whole.ExecuteNonQuery();
            taken!.SayClosed();
        }
        catch (Exception problem) when (problem is SqliteException or IOException)
        {
            log.LogError(problem, "The database could not be closed.");
        }
    }
}
