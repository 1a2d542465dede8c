using Microsoft.EntityFrameworkCore;
using Palaestra.Data;
using Palaestra.Data.Audit;

namespace Palaestra.Server.Audit;

/// <summary>audit verify, as a command beside the server. Exit codes: 0 whole, 1 not, 2 not understood.</summary>
public static class AuditCommand
{
    public const string Usage = "audit verify   looks whether the chain of the audit is whole";

    private const int FaultsMost = 20;

    /// <returns>None where the words are no command of ours.</returns>
    public static async Task<int?> Run(string[] args, Settings settings)
    {
        if (args is not ["audit", .. var rest])
        {
            return null;
        }
        if (rest is not ["verify"])
        {
            await Console.Error.WriteLineAsync(Usage);
            return 2;
        }
        if (!File.Exists(Path.Combine(settings.DataFolder, Store.FileName)))
        {
            await Console.Error.WriteLineAsync($"There is no database in {settings.DataFolder}.");
            return 1;
        }
        await using var db = Store.Open(settings.DataFolder);
        var heads = AuditHeads.Known(settings.DataFolder, settings.BackupFolder);
        var entries = db.Audit.AsNoTracking().OrderBy(e => e.Number);
        var faults = AuditChain.Faults(entries.AsEnumerable(), heads).Take(FaultsMost).ToList();
        foreach (var fault in faults)
        {
            Console.WriteLine($"Entry {fault.Number} {fault.Words}.");
        }
        var count = await entries.LongCountAsync();
        Console.WriteLine(
            faults.Count == 0
                ? $"Whole: {count} entries, held against {heads.Count} heads known elsewhere."
                : "The audit is not whole."
        );
        return faults.Count == 0 ? 0 : 1;
    }
}
