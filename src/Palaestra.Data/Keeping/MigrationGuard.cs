namespace Palaestra.Data.Keeping;

/// <summary>
/// Says which copy a migration began from. A server that finds it at its start was killed in the middle: the copy is put back,
/// and the migration begins again.
/// </summary>
public static class MigrationGuard
{
    public const string FileName = "migrating";

    /// <param name="copy">Name of the copy made before; none where there was no database.</param>
    public static void Begin(string folder, string? copy) =>
        WriteWhole(Path.Combine(folder, FileName), copy ?? "");

    public static void Done(string folder) => File.Delete(Path.Combine(folder, FileName));

    /// <summary>Puts back what was before a migration that was not finished; does nothing where none was under way.</summary>
    /// <exception cref="StartRefusedException">The copy is gone.</exception>
    public static void TakeBack(string folder)
    {
        var mark = Path.Combine(folder, FileName);
        if (!File.Exists(mark))
        {
            return;
        }
        var file = Path.Combine(folder, Store.FileName);
        var name = File.ReadAllText(mark).Trim();
        var copy = Path.Combine(folder, name);
        if (name.Length > 0 && !File.Exists(copy))
        {
            throw new StartRefusedException(
                StartFault.NotMigrated,
                $"An update of the database was broken off, and the copy made before it ({copy}) is gone. Restore a backup (./palaestra restore FILE); nothing was changed."
            );
        }
        var whole = file + ".new";
        if (name.Length > 0)
        {
            File.Copy(copy, whole, overwrite: true);
        }
        // The log belongs to what is put away: it must not be read into the copy.
        File.Delete(file + "-wal");
        File.Delete(file + "-shm");
        if (name.Length > 0)
        {
            File.Move(whole, file, overwrite: true);
        }
        else
        {
            File.Delete(file);
        }
        File.Delete(mark);
    }

    private static void WriteWhole(string path, string text)
    {
        File.WriteAllText(path + ".new", text);
        File.Move(path + ".new", path, overwrite: true);
    }
}
