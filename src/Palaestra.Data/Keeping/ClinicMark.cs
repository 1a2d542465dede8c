using System.Globalization;

namespace Palaestra.Data.Keeping;

/// <summary>
/// Says beside the database that a clinic lives in this folder: whatever becomes of the database, its administration is
/// never offered to a visitor again.
/// </summary>
public static class ClinicMark
{
    public const string FileName = "clinic-lives-here";

    public static bool Stands(string folder) => File.Exists(Path.Combine(folder, FileName));

    public static void Put(string folder, DateTimeOffset now)
    {
        if (!Stands(folder))
        {
            File.WriteAllText(
                Path.Combine(folder, FileName),
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"since {now:yyyy-MM-dd}. Do not delete: a start without a database is refused while this stands.\n"
                )
            );
        }
    }
}
