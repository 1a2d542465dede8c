using Microsoft.Extensions.Caching.Memory;
using Palaestra.Core.Library;
using Palaestra.Data;

namespace Palaestra.Server.Intake;

/// <summary>What was read lately and is as today's library has it; what was not asked for longest goes first.</summary>
/// <param name="room">As much as may stand there in all, in the measure of what is kept.</param>
internal sealed class Shelf<T>(int room) : IDisposable
    where T : class
{
    private readonly MemoryCache shelf = new(new MemoryCacheOptions { SizeLimit = room });

    private sealed record Shelved(T What, PracticeLibrary Library);

    /// <summary>None where it does not stand there, or stands there as of another library: a policy or a rung was changed since.</summary>
    public T? Of(Guid id, PracticeLibrary library) =>
        shelf.TryGetValue(id, out Shelved? shelved) && ReferenceEquals(shelved!.Library, library)
            ? shelved.What
            : null;

    /// <summary>What a transaction has not ended may never have been, and is not kept.</summary>
    public void Keep(Guid id, T what, int size, PracticeLibrary library, PalaestraDb readFrom)
    {
        if (readFrom.Database.CurrentTransaction is null)
        {
            shelf.Set(id, new Shelved(what, library), new MemoryCacheEntryOptions { Size = size });
        }
    }

    public int Count => shelf.Count;

    public void Clear() => shelf.Clear();

    public void Dispose() => shelf.Dispose();
}
