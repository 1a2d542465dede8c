namespace Palaestra.Server.Keeping;

/// <summary>The disk a folder lies on, whether the folder is there yet or not.</summary>
public static class Disk
{
    /// <returns>Where it is mounted.</returns>
    public static string Of(string folder) =>
        DriveInfo
            .GetDrives()
            .Select(drive => drive.Name)
            .Where(name => IsIn(Path.GetFullPath(folder), name))
            .MaxBy(name => name.Length)
        ?? "/";

    /// <returns>Bytes this account may still write.</returns>
    public static long Free(string folder) => new DriveInfo(Of(folder)).AvailableFreeSpace;

    private static bool IsIn(string path, string mount) =>
        mount == "/" || path == mount || path.StartsWith(mount.TrimEnd('/') + "/", StringComparison.Ordinal);
}
