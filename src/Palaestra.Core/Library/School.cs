namespace Palaestra.Core.Library;

/// <summary>How a choice of a policy is made.</summary>
public enum ChoiceKind
{
    /// <summary>One of the options.</summary>
    Option,

    /// <summary>A number between the bounds.</summary>
    Number,

    /// <summary>Any of the options, features of rungs.</summary>
    Features,
}

/// <summary>One answer of a choice.</summary>
/// <param name="Id">As records name it.</param>
/// <param name="Words">As it is asked.</param>
public sealed record ChoiceOption(string Id, string Words);

/// <summary>One choice of a policy as people see and change it.</summary>
/// <param name="Path">Where it stands in a policy: "stirredUp.high.reps".</param>
/// <param name="Why">Why the built-in value is what it is.</param>
/// <param name="Source">A published source of the built-in value; none: common practice.</param>
public sealed record SchoolChoice(
    string Path,
    string Name,
    ChoiceKind Kind,
    string Why,
    IReadOnlyList<ChoiceOption>? Options = null,
    double? Min = null,
    double? Max = null,
    double? Step = null,
    string? Unit = null,
    string? Source = null
);

/// <summary>Choices of a policy that belong together.</summary>
/// <param name="Name">What they are about.</param>
/// <param name="Choices">In the order they are shown.</param>
public sealed record SchoolGroup(string Name, IReadOnlyList<SchoolChoice> Choices);

/// <summary>What a client wants to do again, and the ladders that lead there.</summary>
/// <param name="Such">Examples, in a few words.</param>
/// <param name="Positions">Positions in which it is served: of the goal itself; none: any.</param>
public sealed record Goal(
    string Id,
    string Name,
    string Such,
    IReadOnlyList<string> Ladders,
    IReadOnlyList<string>? Positions = null
)
{
    /// <summary>Whether a rung is done in the position of the goal.</summary>
    public bool Fits(Rung rung) => Positions is null || Positions.Contains(rung.Position);
}

/// <summary>Something a rung needs. <paramref name="Common"/>: most homes have it.</summary>
public sealed record Equipment(string Id, string Name, bool Common);

/// <summary>What the calendar school proposes in some weeks.</summary>
/// <param name="From">Week of the episode, 1 for the first; <paramref name="To"/> is still in it.</param>
public sealed record MapStage(int From, int To, string Name, IReadOnlyList<string> Rungs);
