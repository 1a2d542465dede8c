using Microsoft.EntityFrameworkCore;
using Palaestra.Data;
using Palaestra.Server.Keeping;

namespace Palaestra.Server.Problems;

public static class Saving
{
    /// <summary>
    /// Stores what was changed; false where somebody was faster, and then nothing of it is stored. Faults of the disk are not
    /// told as such: <see cref="StoreFault"/> answers them.
    /// </summary>
    public static async Task<bool> SavedFirst(this PalaestraDb db)
    {
        try
        {
            await db.SaveChangesAsync();
            return true;
        }
        catch (DbUpdateException problem) when (!StoreFault.Is(problem))
        {
            return false;
        }
    }
}
