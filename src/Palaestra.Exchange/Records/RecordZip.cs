using System.IO.Compression;
using System.Security.Cryptography;
using System.Text.Json;

namespace Palaestra.Exchange.Records;

/// <summary>
/// An archive of a record that somebody brings: nothing is unpacked to a disk, and nothing is handed out before every file in it
/// was read once and is what its list says.
/// </summary>
public sealed class RecordZip : IDisposable
{
    /// <summary>Unpacked, all together.</summary>
    public const long BytesMost = 500L * 1024 * 1024;

    public const int FilesMost = 20_000;

    /// <summary>Of the archive of a clinic; each record in it is held to <see cref="BytesMost"/> when it is opened itself.</summary>
    public const long ClinicBytesMost = 4L * 1024 * 1024 * 1024;

    /// <summary>A file that unpacks to more than this many times its size is made to harm.</summary>
    public const int RatioMost = 100;

    /// <summary>Small files may be of nothing but one letter.</summary>
    private const long RatioFrom = 1024 * 1024;

    /// <summary>Of the list alone.</summary>
    private const long ManifestMost = 16L * 1024 * 1024;

    private readonly ZipArchive zip;
    private readonly Dictionary<string, ZipArchiveEntry> entries;

    private RecordZip(ZipArchive zip, Dictionary<string, ZipArchiveEntry> entries)
    {
        this.zip = zip;
        this.entries = entries;
    }

    /// <param name="from">Can be sought in; closed with the archive.</param>
    /// <param name="kind">Of the list it must have.</param>
    public static Checked<RecordZip> Open(Stream from, string kind = RecordManifest.RecordKind)
    {
        ZipArchive? zip = null;
        try
        {
            zip = new(from, ZipArchiveMode.Read);
            if (Refused(zip, kind) is { } refused)
            {
                zip.Dispose();
                return Bad(refused);
            }
            return Checked<RecordZip>.Good(
                new(zip, zip.Entries.ToDictionary(entry => entry.FullName, StringComparer.Ordinal))
            );
        }
        catch (Exception broken)
            when (broken is InvalidDataException or IOException or NotSupportedException or JsonException)
        {
            zip?.Dispose();
            from.Dispose();
            return Bad(Message.Of("record.no-zip"));
        }
    }

    public IEnumerable<string> Names => entries.Keys;

    /// <returns>None: it is not there.</returns>
    public byte[]? Read(string name)
    {
        if (!entries.TryGetValue(name, out var entry))
        {
            return null;
        }
        var bytes = new byte[entry.Length];
        using var file = entry.Open();
        file.ReadExactly(bytes);
        return bytes;
    }

    /// <summary>Unpacks a file that is in it into a stream.</summary>
    public void CopyTo(string name, Stream to)
    {
        using var file = entries[name].Open();
        file.CopyTo(to);
    }

    public void Dispose() => zip.Dispose();

    private static Message? Refused(ZipArchive zip, string kind)
    {
        var files = zip.Entries;
        if (files.Count > FilesMost)
        {
            return Message.Of("record.many", ("most", FilesMost));
        }
        var most = kind == RecordManifest.ClinicKind ? ClinicBytesMost : BytesMost;
        if (files.Sum(file => file.Length) > most)
        {
            return Message.Of("record.large", ("most", most / (1024 * 1024)));
        }
        if (files.Any(file => file.Length > RatioFrom && file.Length > file.CompressedLength * RatioMost))
        {
            return Message.Of("record.bomb");
        }
        if (
            files.DistinctBy(file => file.FullName).Count() != files.Count
            || ManifestOf(zip, kind) is not { } list
        )
        {
            return Message.Of("record.foreign");
        }
        if (list.Format > RecordManifest.Present)
        {
            return Message.Of("record.newer");
        }
        return Differs(files, list) is { } name ? Message.Of("record.changed", ("file", name)) : null;
    }

    /// <returns>None: this is an archive of something else.</returns>
    private static RecordManifest? ManifestOf(ZipArchive zip, string ofKind)
    {
        if (zip.GetEntry(RecordManifest.Name) is not { Length: <= ManifestMost } entry)
        {
            return null;
        }
        using var file = entry.Open();
        var told = JsonSerializer.Deserialize<JsonElement>(file, CoreJson.Stored);
        return
            told.ValueKind == JsonValueKind.Object
            && told.TryGetProperty("kind", out var kind)
            && kind.ValueKind == JsonValueKind.String
            && kind.GetString() == ofKind
            && told.Deserialize<RecordManifest>(CoreJson.Stored) is { } list
            && list.Files.All(listed => listed is not null)
            ? list
            : null;
    }

    /// <returns>The first file that is not in the list as it is, or not there as it is in the list.</returns>
    private static string? Differs(IReadOnlyCollection<ZipArchiveEntry> files, RecordManifest list)
    {
        var listed = list.Files.DistinctBy(file => file.Name).ToDictionary(file => file.Name);
        foreach (var file in files.Where(file => file.FullName != RecordManifest.Name))
        {
            if (!listed.Remove(file.FullName, out var told) || !IsAsTold(file, told))
            {
                return file.FullName;
            }
        }
        return listed.Keys.FirstOrDefault();
    }

    /// <summary>Read no further than the archive says it goes: a wrong length costs nothing.</summary>
    private static bool IsAsTold(ZipArchiveEntry entry, RecordEntry told)
    {
        if (entry.Length != told.Bytes)
        {
            return false;
        }
        using var hash = IncrementalHash.CreateHash(HashAlgorithmName.SHA256);
        using var file = entry.Open();
        var some = new byte[81_920];
        var left = entry.Length;
        while (left >= 0 && file.Read(some) is > 0 and var read)
        {
            left -= read;
            hash.AppendData(some, 0, read);
        }
        return left == 0
            && Convert
                .ToHexStringLower(hash.GetHashAndReset())
                .Equals(told.Sha256, StringComparison.OrdinalIgnoreCase);
    }

    private static Checked<RecordZip> Bad(Message message) =>
        Checked<RecordZip>.Bad(new FieldError("file", message));
}
