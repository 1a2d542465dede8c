using MathNet.Numerics.Random;
using Palaestra.Core.Library;

namespace Palaestra.Core.Practice;

/// <summary>What a drill is about.</summary>
/// <param name="Faults">Codes; empty: all. <paramref name="Rungs"/>: ids, as of the client who comes next; empty: all.</param>
/// <param name="Clips">At most, 12 to 30.</param>
/// <param name="Minutes">At most, 2 to 30.</param>
public sealed record DrillAim(
    IReadOnlyList<string> Faults,
    IReadOnlyList<string> Rungs,
    int Clips = DrillAim.ClipsUsual,
    int Minutes = DrillAim.MinutesUsual
)
{
    /// <summary>Fewer tell nothing.</summary>
    public const int ClipsLeast = 12;

    /// <summary>More tire.</summary>
    public const int ClipsMost = 30;

    /// <summary>As many as fit between two clients.</summary>
    public const int ClipsUsual = 20;

    /// <summary>Minutes a drill takes at most, unless others are asked for.</summary>
    public const int MinutesUsual = 8;
    private const int MinutesLeast = 2;
    private const int MinutesMost = 30;

    /// <summary>What cannot be, by field.</summary>
    public IEnumerable<FieldError> Errors(PracticeLibrary library)
    {
        var room = ClipRoom.Of(library);
        if (Clips is < ClipsLeast or > ClipsMost)
        {
            yield return new(
                "clips",
                Message.Of("practice.clips", ("least", ClipsLeast), ("most", ClipsMost))
            );
        }
        if (Minutes is < MinutesLeast or > MinutesMost)
        {
            yield return new(
                "minutes",
                Message.Of("practice.minutes", ("least", MinutesLeast), ("most", MinutesMost))
            );
        }
        for (var i = 0; i < Faults.Count; i++)
        {
            if (!room.Faults.Contains(Faults[i]))
            {
                yield return new($"faults[{i}]", Message.Of("practice.no-clips-of", ("fault", Faults[i])));
            }
        }
        for (var i = 0; i < Rungs.Count; i++)
        {
            if (library.FindRung(Rungs[i]) is null)
            {
                yield return new($"rungs[{i}]", Message.Of("no.rung", ("rung", Rungs[i])));
            }
        }
    }
}

/// <summary>Why a drill ended.</summary>
public enum DrillEnd
{
    /// <summary>All clips were shown.</summary>
    AllShown,

    /// <summary>Enough is known: the interval is narrow.</summary>
    Narrow,

    /// <summary>The minutes are over.</summary>
    TimeUp,

    /// <summary>Whoever was asked ended it.</summary>
    Stopped,
}

/// <summary>A clip that was chosen, and why.</summary>
public sealed record Chosen(int Seed, Message Why);

/// <summary>Chooses clips by what is least known of a rater.</summary>
public static class Drill
{
    /// <summary>Clips among which the next is chosen.</summary>
    private const int Choice = 24;

    /// <summary>Seeds that are looked through for them at most: an aim may be narrow.</summary>
    private const int Looked = 3000;

    /// <summary>The next clip: whether something gives way is drawn by lot, four of ten hold; which it is, by what it would tell.</summary>
    /// <param name="before">All that is known of the rater, earlier drills too, this drill's last.</param>
    /// <param name="seed">Of this drill. <paramref name="place"/>: clips of it that were shown.</param>
    public static Chosen Next(
        DrillAim aim,
        IReadOnlyList<ClipResult> before,
        int seed,
        int place,
        PracticeLibrary library
    )
    {
        var room = ClipRoom.Of(library);
        var random = new Xoshiro256StarStar(unchecked(seed * 7919 + place));
        var clean = random.NextDouble() < library.Practice.CleanShare;
        var shown = before.Select(result => result.Spec.Seed).ToHashSet();
        var found = Candidates(aim, clean, shown, random, room, library);
        if (clean)
        {
            return new(found[0].Seed, Message.Of("practice.why-clean"));
        }
        var overall = RaterBelief.Of(before);
        var byFault = before
            .Where(r => r.Faulty)
            .GroupBy(r => r.Spec.Truth!.Fault)
            .ToDictionary(group => group.Key, group => group.ToList());
        var beliefs = found
            .Select(spec => spec.Truth!.Fault)
            .Distinct()
            .ToDictionary(fault => fault, fault => overall.OfFault(byFault.GetValueOrDefault(fault, [])));
        var best = found.MaxBy(spec => beliefs[spec.Truth!.Fault].Tells(spec.Truth!.Degree))!;
        var seen = byFault.GetValueOrDefault(best.Truth!.Fault, []);
        return new(
            best.Seed,
            seen.Count == 0
                ? Message.Of("practice.why-never", ("fault", best.Truth.Fault))
                : Message.Of(
                    "practice.why-least",
                    ("fault", best.Truth.Fault),
                    ("marked", seen.Count(r => r.Marked)),
                    ("seen", seen.Count)
                )
        );
    }

    private static List<ClipSpec> Candidates(
        DrillAim aim,
        bool clean,
        HashSet<int> shown,
        RandomSource random,
        ClipRoom room,
        PracticeLibrary library
    )
    {
        var found = new List<ClipSpec>();
        ClipSpec? spare = null;
        for (var i = 0; i < Looked && found.Count < (clean ? 1 : Choice); i++)
        {
            var spec = room.Spec(random.Next());
            if (spec.Truth is null != clean || shown.Contains(spec.Seed))
            {
                continue;
            }
            spare ??= spec;
            if (
                (aim.Faults.Count == 0 || aim.Faults.Contains(spec.Sought))
                && (aim.Rungs.Count == 0 || aim.Rungs.Contains(spec.RungId))
            )
            {
                found.Add(spec);
            }
        }
        // An aim that no clip meets is still a drill.
        return found.Count > 0 ? found : [spare!];
    }

    /// <summary>Whether it is over, and why; none: it goes on.</summary>
    /// <param name="before">All that is known of the rater. <paramref name="answered"/>: clips of this drill.</param>
    public static DrillEnd? Over(
        DrillAim aim,
        IReadOnlyList<ClipResult> before,
        int answered,
        TimeSpan taken,
        PracticeModel model
    )
    {
        if (answered >= aim.Clips)
        {
            return DrillEnd.AllShown;
        }
        if (taken >= TimeSpan.FromMinutes(aim.Minutes))
        {
            return DrillEnd.TimeUp;
        }
        var (low, high) = RaterBelief.Of(before).MissedWithin;
        return answered >= DrillAim.ClipsLeast && high - low <= 2 * model.Narrow ? DrillEnd.Narrow : null;
    }
}
