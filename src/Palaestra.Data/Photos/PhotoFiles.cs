using Palaestra.Data.Keeping;

namespace Palaestra.Data.Photos;

/// <summary>Kept pictures, in a folder beside the database: only those the practitioner said to keep.</summary>
public sealed class PhotoFiles(string dataFolder)
{
    public const string FolderName = "photos";

    private readonly string folder = Path.Combine(dataFolder, FolderName);

    private static readonly (string Type, string Ending, byte[] Begins)[] Kinds =
    [
        ("image/jpeg", ".jpg", [0xFF, 0xD8, 0xFF]),
        ("image/png", ".png", [0x89, 0x50, 0x4E, 0x47, 0x0D, 0x0A, 0x1A, 0x0A]),
    ];

    public static IEnumerable<string> Endings => Kinds.Select(kind => kind.Ending);

    /// <returns>The media type; none where these are not the bytes of a JPEG or PNG.</returns>
    public static string? TypeOf(ReadOnlySpan<byte> bytes)
    {
        foreach (var (type, _, begins) in Kinds)
        {
            if (bytes.StartsWith(begins))
            {
                return type;
            }
        }
        return null;
    }

    /// <returns>None where these are not the bytes of a JPEG or PNG.</returns>
    public async Task<Guid?> Keep(byte[] bytes)
    {
        if (Kinds.FirstOrDefault(k => bytes.AsSpan().StartsWith(k.Begins)) is not { Ending: { } ending })
        {
            return null;
        }
        var id = Guid.CreateVersion7();
        await Write(id, ending, bytes);
        return id;
    }

    /// <summary>One that was kept elsewhere, under its id. The caller has seen that it is a JPEG or PNG.</summary>
    /// <returns>Where it lies.</returns>
    public Task<string> Put(Guid id, byte[] bytes) =>
        Write(id, Kinds.First(k => bytes.AsSpan().StartsWith(k.Begins)).Ending, bytes);

    private async Task<string> Write(Guid id, string ending, byte[] bytes)
    {
        Directory.CreateDirectory(folder);
        var path = Path.Combine(folder, $"{id:N}{ending}");
        await WholeFile.Put(path, part => File.WriteAllBytesAsync(part, bytes));
        return path;
    }

    /// <returns>None where it was not kept, or taken away.</returns>
    public (string Path, string Type)? Find(Guid id)
    {
        foreach (var (type, ending, _) in Kinds)
        {
            var path = Path.Combine(folder, $"{id:N}{ending}");
            if (File.Exists(path))
            {
                return (path, type);
            }
        }
        return null;
    }
}
