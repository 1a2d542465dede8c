using System.Globalization;
using CsvHelper;
using Microsoft.EntityFrameworkCore;
using Palaestra.Core.Library;
using Palaestra.Core.Outcomes;
using Palaestra.Data;
using Palaestra.Data.Day;
using Palaestra.Exchange.Tables;

namespace Palaestra.Server.Clinics;

/// <summary>One episode without a name.</summary>
/// <param name="Row">1 for the first opened; says nothing of whose it is.</param>
/// <param name="Opened">Month, as 2026-11. <paramref name="Discharged"/>: likewise; empty: it is open.</param>
/// <param name="Adherence">Share of the planned home work that was written down, 0 to 1; none: nothing was.</param>
/// <param name="GoalsReached">Of a discharged one. <paramref name="Goals"/>: how many there were.</param>
/// <param name="Overrides">Decisions that were taken otherwise than proposed. <paramref name="Decisions"/>: all.</param>
public sealed record EpisodeFigures(
    int Row,
    string Policy,
    string Opened,
    string Discharged,
    int Weeks,
    int Visits,
    int? PainFirst,
    int? PainLast,
    string? DisabilityMeasure,
    double? DisabilityFirst,
    double? DisabilityLast,
    double? Adherence,
    int? Goals,
    int? GoalsReached,
    int Decisions,
    int Overrides
);

/// <summary>All episodes of a policy together.</summary>
/// <param name="PainBetter">Of those asked at two visits at least, how many have clearly less now, by the measure of pain. <paramref name="PainAsked"/>: how many those are.</param>
/// <param name="Adherence">Mean over the episodes with a home log; none: none has one.</param>
public sealed record PolicyFigures(
    string PolicyId,
    string Name,
    int Open,
    int Discharged,
    double? VisitsMean,
    int PainAsked,
    int PainBetter,
    double? PainChangeMean,
    double? Adherence,
    int Goals,
    int GoalsReached,
    int Decisions,
    int Overrides
);

/// <summary>How the clinic stands.</summary>
/// <param name="Waiting">Open episodes with something that wants a decision. <paramref name="Lapsed"/>: of them, those of whom nothing has been known for the policy's days.</param>
/// <param name="Unasked">Opened at the desk, and not asked yet.</param>
/// <param name="Missed">Booked visits of the last 90 days to which the client did not come. <paramref name="Booked"/>: all of those days.</param>
public sealed record ClinicView(
    int Open,
    int Waiting,
    int Lapsed,
    int Unasked,
    int Discharged,
    int Missed,
    int Booked,
    IReadOnlyList<PolicyFigures> Policies,
    IReadOnlyList<EpisodeFigures> Episodes
);

/// <summary>Counts the clinic's episodes from where each stands.</summary>
public sealed class ClinicFigures(PalaestraDb db, PracticeLibrary library, ClinicClock clock)
{
    private const int MissedDays = 90;

    public async Task<ClinicView> View()
    {
        var today = clock.Today;
        var episodes = await Episodes();
        var open = db.Episodes.Where(e => e.DischargedOn == null);
        var due = db.Pile.Where(row => row.From <= today);
        var since = clock.Zone.StartOf(today.AddDays(-MissedDays));
        var booked = db.Visits.Where(v => v.PlannedAt >= since && v.PlannedAt <= clock.Now);
        return new(
            episodes.Count(e => e.Discharged.Length == 0),
            await due.Select(row => row.EpisodeId).Distinct().CountAsync(),
            await due.Where(row => row.Kind == WorklistKind.Away)
                .Select(row => row.EpisodeId)
                .Distinct()
                .CountAsync(),
            await open.CountAsync(e => !e.Asked),
            episodes.Count(e => e.Discharged.Length > 0),
            await booked.CountAsync(v => v.CalledOff == Data.Visits.CalledOff.Missed),
            await booked.CountAsync(v => v.CalledOff != Data.Visits.CalledOff.Cancelled),
            [
                .. episodes
                    .GroupBy(e => e.Policy)
                    .OrderBy(policy => policy.Key, StringComparer.Ordinal)
                    .Select(policy => Together(policy.Key, [.. policy])),
            ],
            episodes
        );
    }

    /// <summary>One line an episode, headed by the names of the columns, RFC 4180; without names, numbers and days.</summary>
    public async Task<string> Csv()
    {
        var text = new StringWriter();
        await using var csv = new CsvWriter(text, SpreadsheetText.Written);
        await csv.WriteRecordsAsync(await Episodes());
        await csv.FlushAsync();
        return text.ToString();
    }

    private async Task<IReadOnlyList<EpisodeFigures>> Episodes()
    {
        var rows = await (
            from episode in db.Episodes.AsNoTracking()
            join standing in db.Standings on episode.Id equals standing.EpisodeId
            orderby episode.OpenedOn, episode.Id
            select new
            {
                episode.Id,
                episode.PolicyId,
                episode.OpenedOn,
                episode.DischargedOn,
                Standing = standing,
                Summary = db
                    .Discharges.Where(d => d.EpisodeId == episode.Id && d.ReopenedOn == null)
                    .Select(d => d.Summary)
                    .FirstOrDefault(),
            }
        ).ToListAsync();
        var decided = (
            await (
                from decision in db.Decisions
                join visit in db.Visits on decision.VisitId equals visit.Id
                group decision by visit.EpisodeId into own
                select new
                {
                    own.Key,
                    All = own.Count(),
                    Overridden = own.Count(d => d.Overridden),
                }
            ).ToListAsync()
        ).ToDictionary(row => row.Key);
        return
        [
            .. rows.Select(
                (row, i) =>
                {
                    var counts = decided.GetValueOrDefault(row.Id);
                    var end = row.DischargedOn ?? row.Standing.LatestOn;
                    return new EpisodeFigures(
                        i + 1,
                        row.PolicyId,
                        Month(row.OpenedOn),
                        row.DischargedOn is { } day ? Month(day) : "",
                        Math.Max(0, (end.DayNumber - row.OpenedOn.DayNumber + 6) / 7),
                        row.Standing.VisitsDone,
                        row.Standing.PainFirst ?? row.Standing.PainLast,
                        row.Standing.PainFirst is null ? null : row.Standing.PainLast,
                        row.Standing.DisabilityMeasure,
                        row.Standing.DisabilityFirst,
                        row.Standing.DisabilityLast,
                        row.Standing is { HomePlanned: > 0 and var planned, HomeDone: { } done }
                            ? Math.Round(Math.Min(1, done / (double)planned), 2)
                            : null,
                        row.Summary?.Goals.Count,
                        row.Summary?.Goals.Count(goal => goal.Reached),
                        counts?.All ?? 0,
                        counts?.Overridden ?? 0
                    );
                }
            ),
        ];
    }

    private PolicyFigures Together(string policyId, IReadOnlyList<EpisodeFigures> episodes)
    {
        var pain = episodes.Where(e => e is { PainFirst: not null, PainLast: not null }).ToList();
        var home = episodes.Where(e => e.Adherence is not null).ToList();
        var seen = episodes.Where(e => e.Visits > 0).ToList();
        return new(
            policyId,
            library.FindPolicy(policyId)?.Name ?? policyId,
            episodes.Count(e => e.Discharged.Length == 0),
            episodes.Count(e => e.Discharged.Length > 0),
            seen.Count == 0 ? null : Math.Round(seen.Average(e => e.Visits), 1),
            pain.Count,
            pain.Count(PainIsBetter),
            pain.Count == 0 ? null : Math.Round(pain.Average(e => (double)(e.PainLast - e.PainFirst)!), 1),
            home.Count == 0 ? null : Math.Round(home.Average(e => e.Adherence!.Value), 2),
            episodes.Sum(e => e.Goals ?? 0),
            episodes.Sum(e => e.GoalsReached ?? 0),
            episodes.Sum(e => e.Decisions),
            episodes.Sum(e => e.Overrides)
        );
    }

    private bool PainIsBetter(EpisodeFigures episode) =>
        library
            .Outcomes.First(m => m.From == OutcomeSource.Pain)
            .Verdict(episode.PainFirst!.Value, episode.PainLast!.Value) == ChangeVerdict.Better;

    private static string Month(DateOnly day) => day.ToString("yyyy-MM", CultureInfo.InvariantCulture);
}
