using System.Globalization;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace Palaestra.Data.Intake;

/// <summary>Clients get a number of their own and can be found by what they are called now, whatever writes them.</summary>
public static class ClientFiling
{
    /// <summary>The number before the first.</summary>
    private const long Before = 1000;

    /// <summary>Longer numbers are the clinic's own and not counted on from.</summary>
    private const int CountedDigits = 9;

    /// <summary>Files all clients of a context that are new or changed.</summary>
    /// <returns>Those whose number was made here: where somebody else was given it meanwhile, another can be made.</returns>
    public static async Task<IReadOnlyList<Client>> File(PalaestraDb db, CancellationToken cancel)
    {
        var changed = db
            .ChangeTracker.Entries<Client>()
            .Where(e => e.State is EntityState.Added or EntityState.Modified)
            .ToList();
        var unnumbered = changed.Select(e => e.Entity).Where(c => c.Number.Length == 0).ToList();
        await Number(db, unnumbered, cancel);
        foreach (var entry in changed)
        {
            entry.Entity.SearchText = FoldedName.For(entry.Entity);
        }
        return unnumbered;
    }

    /// <summary>Counts on from the largest number there is.</summary>
    public static async Task Number(PalaestraDb db, IReadOnlyList<Client> clients, CancellationToken cancel)
    {
        if (clients.Count == 0)
        {
            return;
        }
        var known = await db.Clients.AsNoTracking().Select(c => c.Number).ToListAsync(cancel);
        var last = known
            .Where(number => number.Length is > 0 and <= CountedDigits && number.All(char.IsAsciiDigit))
            .Select(number => long.Parse(number, CultureInfo.InvariantCulture))
            .DefaultIfEmpty(Before)
            .Max();
        foreach (var client in clients)
        {
            client.Number = Math.Max(++last, Before + 1).ToString(CultureInfo.InvariantCulture);
            client.SearchText = FoldedName.For(client);
        }
    }

    /// <summary>Whether a write failed because a number is somebody else's.</summary>
    public static bool IsNumberTaken(DbUpdateException problem) =>
        problem.InnerException is SqliteException { SqliteErrorCode: UniqueFailed } inner
        && inner.Message.Contains("Clients.Number", StringComparison.Ordinal);

    /// <summary>SQLITE_CONSTRAINT.</summary>
    private const int UniqueFailed = 19;
}
