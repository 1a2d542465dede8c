using System.Globalization;
using System.IO.Compression;
using System.Security.Cryptography;
using System.Text;
using CsvHelper;
using Microsoft.EntityFrameworkCore;
using Palaestra.Core.Capture;
using Palaestra.Data;
using Palaestra.Data.Progression;
using Palaestra.Exchange.Tables;
using Palaestra.Server.Intake;
using Palaestra.Server.Policies;
using Palaestra.Server.Serving;
using Palaestra.Server.Words;

namespace Palaestra.Server.Clinics;

/// <summary>
/// The clinic's work for whoever counts it: a row a trial of a screen, a set of a session, a decision, and a table that says what
/// each column is. No names, numbers, birth dates, days or free text: clients, episodes and raters are numbered anew, in another
/// order, in each export.
/// </summary>
public sealed class ResearchExport(
    PalaestraDb db,
    CaseFiles files,
    PolicyLibrary policyLibrary,
    ClinicWords words
)
{
    private static readonly string[] Place = ["client", "episode", "visit", "day"];

    private static readonly string[] Worked =
    [
        "rater",
        "rung",
        "side",
        "end",
        "clean_reps",
        "clean_seconds",
        "clean_share",
        "reps",
        "seconds",
        "faults",
        "breaking_faults",
        "pain_before",
        "pain_peak",
        "pain_after",
        "effort",
        "cue",
    ];

    private static readonly string[] TrialColumns =
    [
        .. Place,
        "task",
        "variant",
        .. Worked,
        "clean_amount",
        "load",
    ];
    private static readonly string[] SetColumns =
    [
        .. Place,
        "exercise",
        "set",
        "asked_reps",
        "asked_hold",
        .. Worked,
    ];
    private static readonly string[] DecisionColumns =
    [
        .. Place,
        "exercise",
        "side",
        "rung",
        "rule",
        "proposed",
        "taken",
        "overridden",
        "policy",
        "policy_version",
        "rung_after",
    ];

    private readonly Dictionary<string, int> raters = [];
    private readonly Dictionary<Guid, int> exercises = [];

    /// <summary>Packs the four tables as ZIP. What does not fit the memory lies on the disk meanwhile.</summary>
    public async Task Write(Stream to)
    {
        await using var trials = PassingFile.New();
        await using var sets = PassingFile.New();
        await using var decisions = PassingFile.New();
        await using (var trialRows = Table(trials, TrialColumns))
        await using (var setRows = Table(sets, SetColumns))
        await using (var decisionRows = Table(decisions, DecisionColumns))
        {
            var episodes = await db
                .Episodes.AsNoTracking()
                .Select(e => new { e.Id, e.ClientId })
                .ToListAsync();
            var clients = Numbered(episodes.Select(e => e.ClientId));
            var numbers = Numbered(episodes.Select(e => e.Id));
            foreach (var episode in episodes.OrderBy(e => numbers[e.Id]))
            {
                if (await files.OfEpisode(episode.Id) is { } file)
                {
                    var place = (clients[episode.ClientId], numbers[episode.Id]);
                    Trials(file, place, trialRows, setRows);
                    await Decisions(file, place, decisionRows);
                }
                db.ChangeTracker.Clear();
            }
        }
        await using var codebook = PassingFile.New();
        Codebook(codebook);
        using var zip = new ZipArchive(to, ZipArchiveMode.Create, leaveOpen: true);
        Add(zip, "trials.csv", trials);
        Add(zip, "sets.csv", sets);
        Add(zip, "decisions.csv", decisions);
        Add(zip, "codebook.csv", codebook);
    }

    /// <summary>In UTF-8 with its mark, headed by its columns.</summary>
    private static CsvWriter Table(Stream to, string[] columns)
    {
        var csv = new CsvWriter(
            new StreamWriter(to, Encoding.UTF8, leaveOpen: true),
            SpreadsheetText.Written
        );
        Row(csv, columns);
        return csv;
    }

    private static void Row(CsvWriter csv, IEnumerable<object?> cells)
    {
        foreach (var cell in cells)
        {
            csv.WriteField(cell is string text ? SpreadsheetText.Escaped(text) : cell);
        }
        csv.NextRecord();
    }

    private static void Add(ZipArchive zip, string name, Stream table)
    {
        table.Position = 0;
        using var file = zip.CreateEntry(name, CompressionLevel.Optimal).Open();
        table.CopyTo(file);
    }

    /// <summary>1 and on, in an order that says nothing and is another one each time.</summary>
    private static Dictionary<Guid, int> Numbered(IEnumerable<Guid> ids)
    {
        Guid[] mixed = [.. ids.Distinct()];
        RandomNumberGenerator.Shuffle(mixed.AsSpan());
        return mixed.Index().ToDictionary(one => one.Item, one => one.Index + 1);
    }

    private void Trials(CaseFile file, (int Client, int Episode) of, CsvWriter trials, CsvWriter sets)
    {
        foreach (var visit in file.Visits)
        {
            object?[] place = [of.Client, of.Episode, file.NumberOf(visit.Id), Day(file, visit)];
            foreach (var trial in file.Trials(visit.Id).OrderBy(t => t.StartedAt).ThenBy(t => t.Id))
            {
                if (trial.Purpose == TrialPurpose.Session)
                {
                    Row(
                        sets,
                        [
                            .. place,
                            trial.PlanItemId is { } item ? NumberOf(item, exercises) : null,
                            trial.Set,
                            trial.Target.RepsOf(trial.Set - 1),
                            trial.Target.Hold,
                            .. Work(trial),
                        ]
                    );
                }
                else
                {
                    Row(
                        trials,
                        [
                            .. place,
                            trial.TaskId,
                            trial.Variant,
                            .. Work(trial),
                            trial.Clean.Amount,
                            trial.Load,
                        ]
                    );
                }
            }
        }
    }

    /// <summary>Days since the episode was opened: when that was is not told.</summary>
    private static int Day(CaseFile file, Data.Visits.Visit visit) =>
        file.DayOf(visit).DayNumber - file.Episode.OpenedOn.DayNumber;

    private object?[] Work(Trial trial) =>
        [
            NumberOf(trial.By ?? "", raters),
            trial.RungId,
            trial.Side.Word(),
            trial.EndReason is { } end ? Word(end) : null,
            trial.Clean.Reps,
            Math.Round(trial.Clean.Seconds, 2),
            Math.Round(trial.Clean.Fraction, 3),
            trial.Total,
            Math.Round(trial.TotalSeconds, 2),
            string.Join(' ', trial.Marks.Select(mark => $"{mark.Fault}@{mark.Rep}")),
            string.Join(' ', trial.Marks.Where(mark => mark.Breaks).Select(mark => mark.Fault).Distinct()),
            trial.PainBefore,
            trial.PainPeak,
            trial.PainAfter,
            trial.Effort,
            trial.CueGiven
                ? trial.CueWorked is { } worked
                    ? worked
                        ? "worked"
                        : "did not"
                    : "given"
                : "",
        ];

    private async Task Decisions(CaseFile file, (int Client, int Episode) of, CsvWriter rows)
    {
        var visits = file.Visits.Select(v => v.Id).ToList();
        var decisions = await db
            .Decisions.AsNoTracking()
            .Where(d => visits.Contains(d.VisitId))
            .OrderBy(d => d.DecidedAt)
            .ThenBy(d => d.Id)
            .ToListAsync();
        foreach (var decision in decisions)
        {
            var visit = file.Visit(decision.VisitId);
            Row(
                rows,
                [of.Client, of.Episode, file.NumberOf(visit.Id), Day(file, visit), .. Decided(decision)]
            );
        }
    }

    private object?[] Decided(DecisionRecord decision) =>
        [
            NumberOf(decision.Proposal.PlanItemId, exercises),
            decision.Proposal.Side.Word(),
            decision.Proposal.RungId,
            decision.RuleId,
            Word(decision.Proposed),
            Word(decision.Taken),
            decision.Overridden ? 1 : 0,
            // A clinic's own policy has a name that may be somebody's.
            policyLibrary.IsBuiltIn(decision.PolicyId)
                ? decision.PolicyId
                : "own",
            decision.PolicyVersion,
            decision.Chosen.RungId,
        ];

    private static string Word<T>(T word)
        where T : struct, Enum => System.Text.Json.JsonNamingPolicy.KebabCaseLower.ConvertName($"{word}");

    private static int NumberOf<T>(T one, Dictionary<T, int> known)
        where T : notnull
    {
        if (!known.TryGetValue(one, out var number))
        {
            known[one] = number = known.Count + 1;
        }
        return number;
    }

    private void Codebook(Stream to)
    {
        using var csv = Table(to, ["column", "unit", "means"]);
        foreach (var (column, unit, means) in Columns)
        {
            Row(csv, [column, unit, words.Say(means)]);
        }
    }

    /// <summary>Every column of the tables, once.</summary>
    private static readonly (string Column, string Unit, Message Means)[] Columns =
    [
        ("client", "", Message.Of("research.client")),
        ("episode", "", Message.Of("research.episode")),
        ("visit", "", Message.Of("research.visit")),
        ("day", "d", Message.Of("research.day")),
        ("task", "", Message.Of("research.task")),
        ("variant", "", Message.Of("research.variant")),
        ("exercise", "", Message.Of("research.exercise")),
        ("set", "", Message.Of("research.set")),
        ("asked_reps", "", Message.Of("research.asked-reps")),
        ("asked_hold", "s", Message.Of("research.asked-hold")),
        ("rater", "", Message.Of("research.rater")),
        ("rung", "", Message.Of("research.rung")),
        ("side", "", Message.Of("research.side")),
        ("end", "", Message.Of("research.end")),
        ("clean_reps", "", Message.Of("research.clean-reps")),
        ("clean_seconds", "s", Message.Of("research.clean-seconds")),
        ("clean_share", "0-1", Message.Of("research.clean-share")),
        ("clean_amount", "", Message.Of("research.clean-amount")),
        ("reps", "", Message.Of("research.reps")),
        ("seconds", "s", Message.Of("research.seconds")),
        ("faults", "", Message.Of("research.faults")),
        ("breaking_faults", "", Message.Of("research.breaking-faults")),
        ("pain_before", "0-10", Message.Of("research.pain-before")),
        ("pain_peak", "0-10", Message.Of("research.pain-peak")),
        ("pain_after", "0-10", Message.Of("research.pain-after")),
        ("effort", "0-10", Message.Of("research.effort")),
        ("cue", "", Message.Of("research.cue")),
        ("load", "kg", Message.Of("research.load")),
        ("rule", "", Message.Of("research.rule")),
        ("proposed", "", Message.Of("research.proposed")),
        ("taken", "", Message.Of("research.taken")),
        ("overridden", "0/1", Message.Of("research.overridden")),
        ("policy", "", Message.Of("research.policy")),
        ("policy_version", "", Message.Of("research.policy-version")),
        ("rung_after", "", Message.Of("research.rung-after")),
    ];
}
