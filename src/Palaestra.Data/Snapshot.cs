using System.Data;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Storage;

namespace Palaestra.Data;

public static class Snapshot
{
    /// <summary>All that is read until it is closed is of one moment. Nobody who writes waits for it.</summary>
    // Of this provider ReadUncommitted alone begins without the writers' lock; what is read is committed all the same (WAL).
    public static Task<IDbContextTransaction> Look(this PalaestraDb db) =>
        db.Database.BeginTransactionAsync(IsolationLevel.ReadUncommitted);
}
