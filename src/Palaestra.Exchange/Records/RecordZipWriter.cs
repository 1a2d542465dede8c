using System.IO.Compression;
using System.Security.Cryptography;
using System.Text.Json;

namespace Palaestra.Exchange.Records;

/// <summary>Packs a record as ZIP (APPNOTE 6.3, deflate), with a list of what is in it at its end.</summary>
/// <param name="at">The time all files are given.</param>
/// <param name="kind">Of its list.</param>
public sealed class RecordZipWriter(Stream to, DateTimeOffset at, string kind = RecordManifest.RecordKind)
    : IDisposable
{
    private readonly ZipArchive zip = new(to, ZipArchiveMode.Create, leaveOpen: true);
    private readonly List<RecordEntry> files = [];

    public void Add(string name, ReadOnlySpan<byte> bytes)
    {
        Put(name, bytes);
        files.Add(new(name, bytes.Length, Convert.ToHexStringLower(SHA256.HashData(bytes))));
    }

    /// <summary>What is packed already, as a record in the archive of a clinic.</summary>
    /// <param name="packed">From its beginning; can be sought in.</param>
    public void AddPacked(string name, Stream packed)
    {
        packed.Position = 0;
        var hash = Convert.ToHexStringLower(SHA256.HashData(packed));
        packed.Position = 0;
        var entry = zip.CreateEntry(name, CompressionLevel.NoCompression);
        entry.LastWriteTime = at;
        using (var file = entry.Open())
        {
            packed.CopyTo(file);
        }
        files.Add(new(name, packed.Length, hash));
    }

    private void Put(string name, ReadOnlySpan<byte> bytes)
    {
        var entry = zip.CreateEntry(name, CompressionLevel.Optimal);
        entry.LastWriteTime = at;
        using var file = entry.Open();
        file.Write(bytes);
    }

    /// <summary>Closes the archive with its list.</summary>
    public void Dispose()
    {
        Put(
            RecordManifest.Name,
            JsonSerializer.SerializeToUtf8Bytes(
                new RecordManifest(kind, RecordManifest.Present, files),
                CoreJson.Options
            )
        );
        zip.Dispose();
    }
}
