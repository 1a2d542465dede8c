using System.Security.Cryptography;
using System.Text;
using System.Text.Json;

namespace Palaestra.Data.Audit;

/// <summary>Where a chain stood at some moment: kept apart from it, so that a cut tail or a chain made anew shows.</summary>
public sealed record AuditHead(Guid Chain, long Number, string Hash);

/// <summary>What is wrong with a chain.</summary>
/// <param name="Number">At which entry.</param>
public sealed record AuditFault(long Number, string Words);

/// <summary>How entries are linked, and whether they still are.</summary>
public static class AuditChain
{
    private const int SaltBytes = 16;

    /// <summary>A backup was put in the place of what there was: a new chain begins, and what was after the backup is known to be gone.</summary>
    public const string Restored = "Restore";

    /// <summary>A client was erased; whom, nothing tells.</summary>
    public const string Erased = "Erase";

    /// <param name="last">None: it is the first.</param>
    public static AuditEntry Link(AuditNote note, AuditHead? last)
    {
        var chain = last is null || note.What == Restored ? Guid.CreateVersion7() : last.Chain;
        var salt = Convert.ToHexString(RandomNumberGenerator.GetBytes(SaltBytes));
        AuditEntry With(string hash) =>
            new()
            {
                Number = (last?.Number ?? 0) + 1,
                Chain = chain,
                At = note.At,
                Kind = note.Kind,
                AccountId = note.AccountId,
                By = note.By,
                What = note.What,
                Person = note.Person,
                Episode = note.Episode,
                Visit = note.Visit,
                Payload = note.Payload,
                Salt = salt,
                PayloadHash = Told(salt, note.Person, note.Episode, note.Visit, note.Payload),
                Previous = last?.Hash ?? "",
                Hash = hash,
            };
        return With(HashOf(With("")));
    }

    public static AuditHead HeadOf(AuditEntry entry) => new(entry.Chain, entry.Number, entry.Hash);

    /// <summary>Looks at a whole chain, in the order of its numbers.</summary>
    /// <param name="heads">Known from elsewhere: backups, the file beside the database.</param>
    /// <returns>In the order in which they are met; empty: it is whole.</returns>
    public static IEnumerable<AuditFault> Faults(
        IEnumerable<AuditEntry> entries,
        IEnumerable<AuditHead> heads
    )
    {
        var expected = heads.Distinct().ToLookup(head => head.Number);
        AuditEntry? last = null;
        foreach (var entry in entries)
        {
            if (entry.Number != (last?.Number ?? 0) + 1)
            {
                yield return new((last?.Number ?? 0) + 1, "is missing");
            }
            else if (
                entry.Previous != (last?.Hash ?? "")
                || (last is not null && entry.Chain != last.Chain && entry.What != Restored)
            )
            {
                yield return new(entry.Number, "does not follow the one before");
            }
            if (entry.Hash != HashOf(entry))
            {
                yield return new(entry.Number, "was changed");
            }
            else if (
                entry.Salt is not null
                    ? entry.PayloadHash
                        != Told(entry.Salt, entry.Person, entry.Episode, entry.Visit, entry.Payload)
                    : (entry.Person ?? entry.Episode ?? entry.Visit) is not null || entry.Payload is not null
            )
            {
                yield return new(entry.Number, "tells something else than it did");
            }
            foreach (
                var head in expected[entry.Number]
                    .Where(head => head.Chain == entry.Chain && head != HeadOf(entry))
            )
            {
                yield return new(
                    entry.Number,
                    "is not the one that was known elsewhere: the chain was made anew"
                );
            }
            last = entry;
        }
        var end = expected
            .SelectMany(heads => heads)
            .Where(head => last is null || head.Chain == last.Chain)
            .Select(head => head.Number)
            .DefaultIfEmpty(0)
            .Max();
        if (end > (last?.Number ?? 0))
        {
            yield return new((last?.Number ?? 0) + 1, $"is missing, as all up to {end}: the end was cut");
        }
    }

    private static string HashOf(AuditEntry entry) =>
        // An array of JSON: no field can pass for a part of another.
        Hash(
            JsonSerializer.Serialize<object?[]>([
                entry.Number,
                entry.Chain,
                entry.At.ToUnixTimeTicks(),
                entry.Kind.ToString(),
                entry.AccountId,
                entry.By,
                entry.What,
                entry.PayloadHash,
                entry.Previous,
            ])
        );

    private static string Told(string salt, Guid? person, Guid? episode, Guid? visit, string? payload) =>
        Hash(JsonSerializer.Serialize<object?[]>([salt, person, episode, visit, payload]));

    private static string Hash(string text) =>
        Convert.ToHexString(SHA256.HashData(Encoding.UTF8.GetBytes(text)));
}
