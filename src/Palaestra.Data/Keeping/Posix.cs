using System.ComponentModel;
using System.Runtime.InteropServices;

namespace Palaestra.Data.Keeping;

/// <summary>What the framework has no call for. Signatures: umask(2), rename(2) of the Linux manual pages, from memory.</summary>
internal static partial class Posix
{
    private const int AtWorkingFolder = -100;
    private const uint Exchange = 2;

    /// <summary>Files made from now on are readable by this account alone.</summary>
    public static void OwnFilesOnly() => _ = Umask(0x3F);

    /// <summary>Two paths of one file system change places at once: whoever looks sees the one or the other.</summary>
    /// <exception cref="IOException">The file system cannot do it.</exception>
    public static void Swap(string one, string other)
    {
        if (Rename(AtWorkingFolder, one, AtWorkingFolder, other, Exchange) != 0)
        {
            throw new IOException(new Win32Exception(Marshal.GetLastPInvokeError()).Message);
        }
    }

    [LibraryImport("libc", EntryPoint = "umask")]
    private static partial uint Umask(uint mask);

    [LibraryImport(
        "libc",
        EntryPoint = "renameat2",
        SetLastError = true,
        StringMarshalling = StringMarshalling.Utf8
    )]
    private static partial int Rename(int fromFolder, string from, int toFolder, string to, uint flags);
}
