using System.Text.Json;
using NodaTime;
using Palaestra.Core.Capture;
using Palaestra.Core.Library;
using Palaestra.Data.Amendments;
using Palaestra.Data.Intake;
using Palaestra.Server.Intake;

namespace Palaestra.Server.Amendments;

/// <param name="Name">Of the field, as the API names it; of a field within another with a dot.</param>
/// <param name="Before">As JSON; none: it was open. <paramref name="After"/>: likewise.</param>
public sealed record ChangedField(string Name, JsonElement? Before, JsonElement? After);

/// <summary>One amendment: what stood there, what stands now, by whom, when and why.</summary>
/// <param name="VisitNumber">1 for the first; none: it belongs to no one visit.</param>
/// <param name="Day">Of the home log.</param>
/// <param name="RungId">Of a trial. <paramref name="Side"/>: likewise, as it was started.</param>
/// <param name="Reason">None: it was put right on the day it was asked, before anything rested on it.</param>
public sealed record RecordChange(
    AmendedPart Entry,
    Guid? VisitId,
    int? VisitNumber,
    DateOnly? Day,
    Guid? TrialId,
    string? RungId,
    Side? Side,
    IReadOnlyList<ChangedField> Fields,
    string? Reason,
    string By,
    Instant At
);

/// <summary>Tells what was amended in a record, and how.</summary>
public static class RecordChanges
{
    /// <summary>A part of the record that was written anew.</summary>
    public static RecordChange Of(Amendment amendment, CaseFile file) =>
        new(
            amendment.Part,
            amendment.VisitId,
            amendment.VisitId is { } visit && file.Visits.Any(v => v.Id == visit)
                ? file.NumberOf(visit)
                : null,
            amendment.Day,
            null,
            null,
            null,
            Fields(Parsed(amendment.Before), Parsed(amendment.After)),
            amendment.Reason,
            amendment.By,
            amendment.At
        );

    /// <summary>Where a trial began to be another: a reason was given, or it was changed after the visit was decided without one.</summary>
    private sealed record Cut(CaptureEvent First, string? Reason);

    /// <summary>What the amendments of a visit's trials came to, each against what stood before it.</summary>
    public static IEnumerable<RecordChange> OfTrials(CaseFile file, Guid visitId, PracticeLibrary library)
    {
        var log = file.Events(visitId);
        var visit = file.Visit(visitId);
        foreach (var start in log.OfType<TrialStarted>())
        {
            var own = log.Where(e => e.TrialId == start.TrialId)
                .OrderBy(e => e.At)
                .ThenBy(e => e.Id)
                .ToList();
            // What was begun after the decision is no change of what it rests on.
            var decided =
                visit.DecidedAt is { } at && Instant.FromDateTimeOffset(start.At) <= at
                    ? visit.DecidedAt
                    : null;
            var cuts = Cuts(own, decided);
            for (var i = 0; i < cuts.Count; i++)
            {
                var (cut, next) = (cuts[i], i + 1 < cuts.Count ? cuts[i + 1].First : null);
                // With its neighbours: pain before is asked once for all sets of an exercise.
                Told Stood(Func<CaptureEvent, bool> by) =>
                    Told.Of(
                        TrialFold
                            .Trials(
                                log.Where(e => e.TrialId != start.TrialId || by(e)),
                                library,
                                file.Policy.Pain,
                                file.PainAt(visit)
                            )
                            .SingleOrDefault(t => t.Id == start.TrialId),
                        start
                    );
                // What follows a cut, up to the next, is what changed; taps that arrive late are older than it.
                var fields = Fields(
                    Element(Stood(e => After(cut.First, e))),
                    Element(Stood(e => next is null || After(next, e)))
                );
                if (cut.Reason is null && fields.Count == 0)
                {
                    continue;
                }
                yield return new(
                    AmendedPart.Trial,
                    visitId,
                    file.NumberOf(visitId),
                    null,
                    start.TrialId,
                    start.RungId,
                    start.Side,
                    fields,
                    cut.Reason,
                    cut.First.By ?? "",
                    Instant.FromDateTimeOffset(cut.First.At)
                );
            }
        }
    }

    /// <param name="own">Of one trial, in order.</param>
    private static List<Cut> Cuts(List<CaptureEvent> own, Instant? decided)
    {
        var cuts = new List<Cut>();
        foreach (var e in own)
        {
            if (e is TrialAmended amended)
            {
                cuts.Add(new(e, amended.Reason));
            }
            else if (
                decided is { } at
                && Instant.FromDateTimeOffset(e.At) > at
                && (cuts.Count == 0 || Instant.FromDateTimeOffset(cuts[^1].First.At) <= at)
            )
            {
                cuts.Add(new(e, null));
            }
        }
        return cuts;
    }

    /// <summary>A trial that was filed anew, told at both visits.</summary>
    /// <param name="start">What was begun; none where that is not stored.</param>
    public static RecordChange Of(TrialMove move, TrialStarted? start, CaseFile file)
    {
        var here = file.Visits.Any(v => v.Id == move.VisitId) ? move.VisitId : move.ToVisitId;
        return new(
            AmendedPart.Moved,
            here,
            file.NumberOf(here),
            null,
            move.TrialId,
            start?.RungId,
            start?.Side,
            [],
            move.Reason,
            move.By,
            move.At
        );
    }

    /// <summary>The episode was filed under another client.</summary>
    /// <param name="numbers">Of clients by id; one that is not there any more has none.</param>
    public static RecordChange Of(EpisodeMove move, IReadOnlyDictionary<Guid, string> numbers) =>
        new(
            AmendedPart.Filed,
            null,
            null,
            null,
            null,
            null,
            null,
            Fields(
                Element(new { ClientNumber = numbers.GetValueOrDefault(move.FromClientId) }),
                Element(new { ClientNumber = numbers.GetValueOrDefault(move.ToClientId) })
            ),
            move.Reason,
            move.By,
            move.At
        );

    private static bool After(CaptureEvent later, CaptureEvent earlier) =>
        (later.At.UtcTicks, later.Id).CompareTo((earlier.At.UtcTicks, earlier.Id)) > 0;

    /// <summary>What of a trial the record rests on.</summary>
    /// <param name="Counts">False where it was discarded.</param>
    private sealed record Told(
        bool Counts,
        Side? Side,
        int? Reps,
        int? CleanReps,
        double? CleanSeconds,
        int? PainPeak,
        int? PainAfter,
        bool? Ended,
        IReadOnlyList<string>? Faults
    )
    {
        public static Told Of(Trial? trial, TrialStarted start) =>
            trial is null
                ? new(false, start.Side, null, null, null, null, null, null, null)
                : new(
                    true,
                    trial.Side,
                    trial.Total,
                    trial.Clean.Reps,
                    Math.Round(trial.Clean.Seconds, 1),
                    trial.PainPeak,
                    trial.PainAfter,
                    !trial.Open,
                    [.. trial.Marks.Select(mark => mark.Fault)]
                );
    }

    private static JsonElement Element(object part) =>
        JsonSerializer.SerializeToElement(part, CoreJson.Options);

    private static JsonElement Parsed(string json) => JsonDocument.Parse(json).RootElement.Clone();

    /// <summary>Fields that differ; those of an object within, one by one.</summary>
    private static IReadOnlyList<ChangedField> Fields(JsonElement before, JsonElement after, string path = "")
    {
        if (before.ValueKind != JsonValueKind.Object || after.ValueKind != JsonValueKind.Object)
        {
            return JsonElement.DeepEquals(before, after) ? [] : [new(path, Open(before), Open(after))];
        }
        var names = before.EnumerateObject().Concat(after.EnumerateObject()).Select(p => p.Name).Distinct();
        return
        [
            .. names.SelectMany(name =>
                Fields(Member(before, name), Member(after, name), path.Length == 0 ? name : $"{path}.{name}")
            ),
        ];
    }

    private static readonly JsonElement Null = Parsed("null");

    private static JsonElement Member(JsonElement of, string name) =>
        of.TryGetProperty(name, out var member) ? member : Null;

    private static JsonElement? Open(JsonElement value) =>
        value.ValueKind is JsonValueKind.Null or JsonValueKind.Undefined ? null : value;
}
