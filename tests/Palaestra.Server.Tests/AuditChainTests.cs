using NodaTime;
using Palaestra.Data.Audit;

namespace Palaestra.Server.Tests;

/// <summary>A chain of ten thousand entries, and what somebody could do to it.</summary>
public sealed class AuditChainTests
{
    private const int Count = 10_000;

    private static readonly IReadOnlyList<AuditEntry> Whole = Chain(Count);

    private static readonly AuditHead[] Heads =
    [
        AuditChain.HeadOf(Whole[6_000]),
        AuditChain.HeadOf(Whole[^1]),
    ];

    private static AuditNote Note(int i) =>
        new()
        {
            At = Instant.FromUnixTimeSeconds(1_800_000_000 + i),
            Kind = i % 3 == 0 ? AuditKind.Change : AuditKind.View,
            By = "Edda Marl",
            What = "GetEpisode",
            Episode = new Guid(i, 0, 0, new byte[8]),
            Payload = i % 3 == 0 ? "{\"Name\":{\"after\":\"" + i + "\"}}" : null,
        };

    private static List<AuditEntry> Chain(int count)
    {
        var entries = new List<AuditEntry>();
        AuditHead? last = null;
        for (var i = 0; i < count; i++)
        {
            entries.Add(AuditChain.Link(Note(i), last));
            last = AuditChain.HeadOf(entries[^1]);
        }
        return entries;
    }

    private static List<long> At(IEnumerable<AuditEntry> entries, params AuditHead[] heads) =>
        [.. AuditChain.Faults(entries, heads).Select(fault => fault.Number)];

    /// <summary>The same entry with something else in it, as somebody with the file open would leave it.</summary>
    private static AuditEntry With(
        AuditEntry entry,
        string? by = null,
        string? payload = null,
        long? number = null,
        Guid? account = null,
        Guid? episode = null,
        bool erased = false
    ) =>
        new()
        {
            Number = number ?? entry.Number,
            Chain = entry.Chain,
            At = entry.At,
            Kind = entry.Kind,
            AccountId = account ?? entry.AccountId,
            By = by ?? entry.By,
            What = entry.What,
            Person = erased ? null : entry.Person,
            Episode = erased ? null : episode ?? entry.Episode,
            Visit = erased ? null : entry.Visit,
            Payload = erased ? null : payload ?? entry.Payload,
            Salt = erased ? null : entry.Salt,
            PayloadHash = entry.PayloadHash,
            Previous = entry.Previous,
            Hash = entry.Hash,
        };

    [Fact]
    public void A_whole_chain_is_whole() => Assert.Empty(At(Whole, Heads));

    [Fact]
    public void A_changed_byte_is_found_wherever_it_is()
    {
        var random = new Random(7);
        for (var i = 0; i < 20; i++)
        {
            var at = random.Next(Count / 3) * 3;
            var entry = Whole[at];
            foreach (
                var changed in new[]
                {
                    With(entry, by: "Edda Marx"),
                    With(entry, account: Guid.NewGuid()),
                    With(entry, episode: Guid.NewGuid()),
                    With(entry, payload: entry.Payload!.Replace("after", "aftes", StringComparison.Ordinal)),
                }
            )
            {
                var entries = Whole.ToList();
                entries[at] = changed;
                Assert.Equal([at + 1L], At(entries, Heads));
            }
        }
    }

    [Fact]
    public void Two_that_were_swapped_are_found_with_their_numbers_or_under_each_others()
    {
        var entries = Whole.ToList();
        (entries[100], entries[200]) = (entries[200], entries[100]);
        Assert.NotEmpty(At(entries, Heads));
        entries[100] = With(entries[100], number: 101);
        entries[200] = With(entries[200], number: 201);
        Assert.Contains(101L, At(entries, Heads));
        Assert.Contains(201L, At(entries, Heads));
    }

    [Fact]
    public void One_that_was_taken_out_is_found_though_the_others_close_up()
    {
        var entries = Whole.ToList();
        entries.RemoveAt(500);
        Assert.Equal([501L], At(entries, Heads));
        var closed = entries.Select((e, i) => With(e, number: i + 1)).ToList();
        Assert.Contains(501L, At(closed, Heads));
    }

    [Theory]
    [InlineData(1)]
    [InlineData(3_000)]
    [InlineData(10_000)]
    public void A_tail_that_was_cut_is_found_by_what_is_known_elsewhere(int cut) =>
        Assert.Equal([Count - cut + 1L], At(Whole.SkipLast(cut), Heads));

    [Fact]
    public void A_chain_made_anew_from_somewhere_on_is_found()
    {
        var anew = Whole.Take(6_000).ToList();
        var last = AuditChain.HeadOf(anew[^1]);
        for (var i = 6_000; i < Count; i++)
        {
            anew.Add(AuditChain.Link(Note(i + 1), last));
            last = AuditChain.HeadOf(anew[^1]);
        }
        // In itself it is whole.
        Assert.Empty(At(anew));
        Assert.Equal([6_001L, Count], At(anew, Heads));
        // And so is one that was made anew from its beginning, under another id.
        Assert.Empty(At(Chain(5)));
    }

    [Fact]
    public void What_was_erased_leaves_the_chain_whole_and_cannot_come_back_as_something_else()
    {
        var entries = Whole.ToList();
        entries[300] = With(entries[300], erased: true);
        Assert.Empty(At(entries, Heads));
        entries[300] = With(entries[300], payload: "{}");
        Assert.Equal([301L], At(entries, Heads));
    }

    [Fact]
    public void After_a_restore_the_chain_goes_on_and_what_was_after_the_backup_is_known_to_be_gone()
    {
        var entries = Whole.Take(7_000).ToList();
        var restored = AuditChain.Link(
            new()
            {
                At = Instant.FromUnixTimeSeconds(1_900_000_000),
                Kind = AuditKind.Change,
                By = "",
                What = AuditChain.Restored,
            },
            AuditChain.HeadOf(entries[^1])
        );
        entries.Add(restored);
        entries.Add(AuditChain.Link(Note(1), AuditChain.HeadOf(restored)));
        Assert.Empty(At(entries, [.. Heads, AuditChain.HeadOf(entries[^1])]));
        // What was before is still held against what was known.
        entries[6_000] = With(entries[6_000], by: "Edda Marx");
        Assert.Equal([6_001L], At(entries, Heads));
        // Its own tail is not cut unseen.
        Assert.NotEmpty(At(Whole.Take(7_000).Append(restored), AuditChain.HeadOf(entries[^1])));
    }
}
