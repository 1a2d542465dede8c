using System.Text.Json.Serialization;
using Palaestra.Core.Library;

namespace Palaestra.Core.Practice;

/// <summary>A mark a rater set while a clip ran.</summary>
/// <param name="Fault">Code. <paramref name="Second"/>: since the clip began, 0 or more.</param>
/// <param name="Side">To which side, where the rater was asked: left or right.</param>
public sealed record ClipMark(string Fault, double Second, Side? Side = null);

/// <summary>What a rater made of a clip.</summary>
/// <param name="Marks">In the order they were set; empty: it held.</param>
public sealed record ClipAnswer(int Seed, bool Mirrored, IReadOnlyList<ClipMark> Marks);

/// <summary>How an answer stands to what was there.</summary>
public enum ClipOutcome
{
    /// <summary>It gave way, and the fault was named.</summary>
    Named,

    /// <summary>It gave way and was marked, under another name.</summary>
    OtherName,

    /// <summary>It gave way and nothing that breaks a rep was marked.</summary>
    Missed,

    /// <summary>It held, and nothing that breaks a rep was marked.</summary>
    RightlyClean,

    /// <summary>It held and was marked all the same.</summary>
    FalseMark,
}

/// <summary>An answer beside the truth.</summary>
/// <param name="First">The first mark that breaks a rep; none where none was set.</param>
/// <param name="RepsLate">Reps the mark came after the fault; below 0: before. None in a hold, or without both.</param>
/// <param name="SecondsLate">Seconds likewise, after half of the fault was there.</param>
/// <param name="OtherSide">It was marked to the other side; none where no side was asked, or nothing gave way.</param>
/// <param name="CleanReps">Reps the rater left clean; none in a hold. <paramref name="TrulyClean"/>: those that were.</param>
/// <param name="CleanSeconds">Seconds of a hold likewise; none in reps. <paramref name="TrulyHeld"/>: those that were.</param>
public sealed record ClipResult(
    ClipSpec Spec,
    bool Mirrored,
    ClipOutcome Outcome,
    ClipMark? First,
    int? RepsLate,
    double? SecondsLate,
    bool? OtherSide,
    int? CleanReps,
    int? TrulyClean,
    double? CleanSeconds,
    double? TrulyHeld
)
{
    /// <summary>Something was marked that breaks a rep.</summary>
    [JsonIgnore]
    public bool Marked => First is not null;

    /// <summary>Something gave way.</summary>
    [JsonIgnore]
    public bool Faulty => Spec.Truth is not null;

    /// <summary>Marks that only coach cost nothing here: a head that comes forward is not asked about.</summary>
    public static ClipResult Of(ClipAnswer answer, PracticeLibrary library)
    {
        var room = ClipRoom.Of(library);
        var drawn = room.Spec(answer.Seed);
        var spec = answer.Mirrored ? drawn.Mirrored() : drawn;
        var rung = library.FindRung(spec.RungId)!;
        var breaking = answer
            .Marks.Where(mark =>
                library.FindFault(mark.Fault) is { } fault && rung.KindOf(fault) == FaultKind.Breaking
            )
            .OrderBy(mark => mark.Second)
            .ToList();
        var named = spec.Truth is { } truth
            ? breaking.FirstOrDefault(mark => mark.Fault == truth.Fault)
            : null;
        var first = breaking.FirstOrDefault();
        var timing = room.TimingOf(spec.Seed);
        int? rep = spec.Reps > 0 && first is not null ? timing.RepAt(first.Second) + 1 : null;
        return new(
            spec,
            answer.Mirrored,
            spec.Truth is null
                ? first is null
                    ? ClipOutcome.RightlyClean
                    : ClipOutcome.FalseMark
                : named is not null
                    ? ClipOutcome.Named
                    : first is not null
                        ? ClipOutcome.OtherName
                        : ClipOutcome.Missed,
            first,
            rep - spec.Truth?.Rep,
            first is null || spec.Truth is null ? null : Math.Round(first.Second - spec.Truth.Second, 2),
            spec.Truth is not null && (named ?? first)?.Side is { } side ? side != spec.Truth.Side : null,
            spec.Reps > 0 ? rep - 1 ?? spec.Reps : null,
            spec.Reps > 0 ? spec.Truth?.Rep - 1 ?? spec.Reps : null,
            spec.Reps > 0 ? null : Math.Round(Math.Min(first?.Second ?? spec.Seconds, spec.Seconds), 1),
            spec.Reps > 0 ? null : Math.Round(spec.Truth?.Second ?? spec.Seconds, 1)
        );
    }

    /// <summary>What is wrong with an answer, by field; empty where nothing is.</summary>
    public static IEnumerable<FieldError> Errors(IReadOnlyList<ClipMark> marks, PracticeLibrary library)
    {
        if (marks.Count > MarksMost)
        {
            yield return new("marks", Message.Of("practice.marks", ("most", MarksMost)));
            yield break;
        }
        for (var i = 0; i < marks.Count; i++)
        {
            if (library.FindFault(marks[i].Fault) is null)
            {
                yield return new($"marks[{i}].fault", Message.Of("no.fault", ("fault", marks[i].Fault)));
            }
            if (marks[i].Second is not (>= 0 and <= SecondsMost))
            {
                yield return new($"marks[{i}].second", Message.Of("practice.second", ("most", SecondsMost)));
            }
            if (marks[i].Side == Side.Both)
            {
                yield return new($"marks[{i}].side", Message.Of("capture.leg"));
            }
        }
    }

    private const int MarksMost = 60;
    private const int SecondsMost = 600;
}
