using System.Globalization;
using Microsoft.Data.Sqlite;
using Palaestra.Data;
using Palaestra.Data.Keeping;
using Palaestra.Data.Photos;
using Palaestra.Data.Traces;

namespace Palaestra.Server.Demo;

/// <summary>Keeps the demo of today: made anew on a new day, kept through restarts on the same one.</summary>
public static class DemoStart
{
    private const string MarkFile = "demo-day.txt";

    /// <summary>Removes a demo made on another day (or left half made). Never touches a folder without the demo's mark or database.</summary>
    public static bool NeedsFilling(string folder, DateTime now)
    {
        var mark = Path.Combine(folder, MarkFile);
        var today = now.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);
        if (
            File.Exists(mark)
            && File.ReadAllText(mark) == today
            && File.Exists(Path.Combine(folder, Store.FileName))
        )
        {
            return false;
        }
        SqliteConnection.ClearAllPools();
        foreach (var pattern in new[] { Store.FileName + "*", Store.CopyPattern, MigrationGuard.FileName })
        {
            foreach (var file in Directory.EnumerateFiles(folder, pattern))
            {
                File.Delete(file);
            }
        }
        foreach (var files in new[] { TraceFiles.FolderName, PhotoFiles.FolderName })
        {
            if (Directory.Exists(Path.Combine(folder, files)))
            {
                Directory.Delete(Path.Combine(folder, files), recursive: true);
            }
        }
        return true;
    }

    public static void MarkFilled(string folder, DateTime now) =>
        File.WriteAllText(
            Path.Combine(folder, MarkFile),
            now.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture)
        );
}
