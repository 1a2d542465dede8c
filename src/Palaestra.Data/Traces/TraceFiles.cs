using System.Security.Cryptography;
using Palaestra.Core.Signals;
using Palaestra.Data.Keeping;

namespace Palaestra.Data.Traces;

/// <summary>The files of samples, in a folder beside the database.</summary>
public sealed class TraceFiles(string dataFolder)
{
    public const string FolderName = "traces";

    private readonly string folder = Path.Combine(dataFolder, FolderName);

    /// <returns>The hash to keep with the row.</returns>
    public async Task<string> Write(Guid id, Trace trace, int channels)
    {
        var bytes = TraceBytes.Write(trace.Samples, channels);
        Directory.CreateDirectory(folder);
        await WholeFile.Put(PathOf(id), part => File.WriteAllBytesAsync(part, bytes));
        return HashOf(bytes);
    }

    /// <returns>None where the file is gone or is not what was written.</returns>
    public async Task<Trace?> Read(StoredTrace row, int channels)
    {
        if (!File.Exists(PathOf(row.Id)))
        {
            return null;
        }
        var bytes = await File.ReadAllBytesAsync(PathOf(row.Id));
        return HashOf(bytes) != row.Hash
            ? null
            : new Trace(
                row.Instrument.ToString().ToLowerInvariant(),
                row.Rate,
                row.StartedAt,
                TraceBytes.Read(bytes, channels, row.Samples),
                row.Neutral is { } levels ? new Neutral(levels) : null
            );
    }

    public void Delete(Guid id) => File.Delete(PathOf(id));

    public string PathOf(Guid id) => Path.Combine(folder, $"{id:N}.trace");

    private static string HashOf(byte[] bytes) => Convert.ToHexString(SHA256.HashData(bytes));
}
