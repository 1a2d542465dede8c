using System.Globalization;

namespace Palaestra.Data.Keeping;

/// <summary>
/// One server a folder. The lock is the system's own on a file, so it goes with the process that holds it, however that ends; a
/// file beside it tells who holds it, and whether the last one closed.
/// </summary>
public sealed class FolderLock : IDisposable
{
    public const string FileName = "server.lock";
    public const string StateFileName = "server.state";
    private const string Serving = "serving";

    private readonly FileStream file;
    private readonly string state;
    private readonly string who;

    private FolderLock(FileStream file, string state, string who)
    {
        (this.file, this.state, this.who) = (file, state, who);
        Crashed = Read(state) is [Serving, ..];
    }

    /// <summary>The last server on this folder was serving and did not close.</summary>
    public bool Crashed { get; }

    /// <summary>Makes the folder where there is none, for this account alone.</summary>
    /// <exception cref="StartRefusedException">In use, or not writable.</exception>
    public static FolderLock Take(string folder, DateTimeOffset now)
    {
        var path = Path.Combine(folder, FileName);
        Posix.OwnFilesOnly();
        try
        {
            MakeFolder(folder);
            var file = new FileStream(path, FileMode.OpenOrCreate, FileAccess.ReadWrite, FileShare.None);
            var who = string.Create(
                CultureInfo.InvariantCulture,
                $"process {Environment.ProcessId} on {Environment.MachineName}, since {now:yyyy-MM-dd HH:mm}"
            );
            var taken = new FolderLock(file, Path.Combine(folder, StateFileName), who);
            taken.Say(taken.Crashed ? Serving : "starting");
            return taken;
        }
        catch (UnauthorizedAccessException problem)
        {
            throw NotWritable(folder, problem);
        }
        catch (IOException problem)
        {
            // A folder of that name is no lock.
            throw File.Exists(path)
                ? new StartRefusedException(
                    StartFault.InUse,
                    $"Another Palaestra has the folder {folder} ({Holder(folder)}). Stop it first, or name another folder in PALAESTRA_DATA.",
                    problem
                )
                : NotWritable(folder, problem);
        }
    }

    /// <summary>From now on the database is open: a server that ends without closing is told at the next start.</summary>
    public void SayServing() => Say(Serving);

    /// <summary>The database was closed.</summary>
    public void SayClosed() => Say("closed");

    public void Dispose() => file.Dispose();

    private static string Holder(string folder) =>
        Read(Path.Combine(folder, StateFileName)) is [_, var who] ? who : "it does not say which";

    private static void MakeFolder(string folder)
    {
        if (!Directory.Exists(folder))
        {
            Directory.CreateDirectory(folder, OwnerOnly);
        }
        else if (File.GetUnixFileMode(folder) != OwnerOnly)
        {
            CloseToOthers(folder);
        }
    }

    private const UnixFileMode OwnerOnly =
        UnixFileMode.UserRead | UnixFileMode.UserWrite | UnixFileMode.UserExecute;

    /// <summary>A folder from before: everything in it becomes this account's alone.</summary>
    private static void CloseToOthers(string folder)
    {
        foreach (var inner in Directory.EnumerateDirectories(folder, "*", SearchOption.AllDirectories))
        {
            File.SetUnixFileMode(inner, OwnerOnly);
        }
        foreach (var file in Directory.EnumerateFiles(folder, "*", SearchOption.AllDirectories))
        {
            File.SetUnixFileMode(file, UnixFileMode.UserRead | UnixFileMode.UserWrite);
        }
        File.SetUnixFileMode(folder, OwnerOnly);
    }

    private static StartRefusedException NotWritable(string folder, Exception problem) =>
        new(
            StartFault.NotWritable,
            $"The folder {folder} cannot be written: {problem.Message} Give it to the account the server runs as.",
            problem
        );

    private void Say(string word) => WholeFile.Write(state, $"{word}\n{who}");

    private static string[] Read(string state) =>
        File.Exists(state) ? File.ReadAllText(state).Split('\n', 2) : [];
}
