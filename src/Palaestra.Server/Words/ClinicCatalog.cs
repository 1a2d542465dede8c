using Microsoft.EntityFrameworkCore;
using Palaestra.Data;
using Palaestra.Words;

namespace Palaestra.Server.Words;

/// <summary>The sentences as they are said now: ours, those of the clinic's content, and those it wrote in Settings.</summary>
/// <param name="files">Of the content folders.</param>
public sealed class ClinicCatalog(Catalog files)
{
    private volatile Catalog? written;

    /// <summary>As they are without what was written in Settings.</summary>
    public Catalog Files { get; } = files;
    public Catalog Now => written ?? Files;

    /// <summary>From the store; one that a newer version knows nothing of is left out.</summary>
    public async Task Read(PalaestraDb db) =>
        written = Files.With(
            await db.ClinicSentences.AsNoTracking().ToDictionaryAsync(s => s.Id, s => s.Text)
        );
}
