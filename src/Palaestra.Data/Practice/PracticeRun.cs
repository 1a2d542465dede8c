using NodaTime;
using Palaestra.Core.Practice;

namespace Palaestra.Data.Practice;

/// <summary>One rater's way through clips: a drill of their own, or their part of a team session.</summary>
public sealed class PracticeRun
{
    public Guid Id { get; init; } = Guid.CreateVersion7();
    public Guid AccountId { get; init; }

    /// <summary>None: a drill.</summary>
    public Guid? TeamId { get; init; }

    /// <summary>What a drill chooses its clips from.</summary>
    public int Seed { get; init; }

    /// <summary>What a drill is about; of a team session everything.</summary>
    public required DrillAim Aim { get; init; }
    public Instant StartedAt { get; init; }
    public Instant? EndedAt { get; set; }

    /// <summary>Why a drill ended; none of one that goes on, and of a team session.</summary>
    public DrillEnd? End { get; set; }

    /// <summary>The rater's name stands in the team's report.</summary>
    public bool Shared { get; set; }

    /// <summary>The clip to be answered next; none where it is over.</summary>
    public int? NextSeed { get; set; }

    /// <summary>It is seen in a mirror.</summary>
    public bool NextMirrored { get; set; }

    /// <summary>Why it was chosen.</summary>
    public Message? NextWhy { get; set; }

    /// <summary>Clips answered; one answer each, whoever tells it twice.</summary>
    public int Place { get; set; }
}

/// <summary>What was marked in one clip of a run. Never changed.</summary>
public sealed class PracticeAnswer
{
    public Guid Id { get; init; } = Guid.CreateVersion7();
    public Guid RunId { get; init; }

    /// <summary>From 0, in the order they were shown.</summary>
    public int Place { get; init; }
    public required IReadOnlyList<ClipMark> Marks { get; init; }

    /// <summary>Beside the truth, as it was: in another library the same seed is another clip.</summary>
    public required ClipResult Result { get; init; }
    public Message? Why { get; init; }
    public Instant At { get; init; }
}

/// <summary>A session in which all of a team see the same clips.</summary>
public sealed class PracticeTeam
{
    public Guid Id { get; init; } = Guid.CreateVersion7();
    public required string Name { get; init; }
    public required IReadOnlyList<TeamItem> Items { get; init; }

    /// <summary>The library whose clips they are: by another one nobody else can take part.</summary>
    public required string LibraryVersion { get; init; }
    public Instant MadeAt { get; init; }
    public required string MadeBy { get; init; }
}
