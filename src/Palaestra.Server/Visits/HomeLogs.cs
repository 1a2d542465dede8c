using Microsoft.EntityFrameworkCore;
using Palaestra.Core.Library;
using Palaestra.Core.Visits;
using Palaestra.Data;
using Palaestra.Data.Planning;
using Palaestra.Data.Visits;
using Palaestra.Exchange.HomeLog;
using Palaestra.Server.Amendments;
using Palaestra.Server.Clinics;
using Palaestra.Server.Intake;
using Palaestra.Server.Progression;
using Palaestra.Server.TakeHome;

namespace Palaestra.Server.Visits;

/// <param name="PerDay">Reps of all sets on a day it is planned.</param>
public sealed record HomeColumn(Guid PlanItemId, string RungId, string Name, Side Side, int PerDay);

/// <param name="Planned">Exercises planned for the day. <paramref name="Log"/>: none where nothing was written yet.</param>
/// <param name="Version">0 before anything was written. <paramref name="Reported"/>: by the client's own programme.</param>
public sealed record HomeRow(
    DateOnly Day,
    IReadOnlyList<Guid> Planned,
    HomeDay? Log,
    int Version,
    bool Reported = false
);

/// <summary>The home log between the visit before and this one, as a grid of days and exercises.</summary>
public sealed record HomeLogView(
    DateOnly From,
    DateOnly To,
    IReadOnlyList<HomeColumn> Columns,
    IReadOnlyList<HomeRow> Rows
);

/// <summary>Reads and writes what clients wrote down at home.</summary>
public sealed class HomeLogs(PalaestraDb db, PracticeLibrary library, ClinicClock clock)
{
    /// <summary>None before the first plan.</summary>
    public async Task<HomeLogView?> Of(CaseFile file, Guid visitId)
    {
        var visit = file.Visit(visitId);
        if (file.PlanFor(visitId) is not { } plan)
        {
            return null;
        }
        var (from, to) = DecisionInputs.HomeDays(file, visit);
        var planned = PlanDays
            .Of(file, plan, library, to)
            .Where(day => from <= day.Day && day.Day <= to)
            .ToDictionary(day => day.Day, day => day.ItemIds);
        var written = await db
            .HomeLog.AsNoTracking()
            .Where(d => d.EpisodeId == file.Episode.Id && from <= d.Day && d.Day <= to)
            .ToDictionaryAsync(d => d.Day);
        var days = Enumerable.Range(0, Math.Max(0, to.DayNumber - from.DayNumber + 1)).Select(from.AddDays);
        return new(
            from,
            to,
            Columns(plan),
            [
                .. days.Select(day => new HomeRow(
                    day,
                    planned.GetValueOrDefault(day) ?? [],
                    written.GetValueOrDefault(day)?.Log is { Empty: false } log ? log : null,
                    written.GetValueOrDefault(day)?.Version ?? 0,
                    written.GetValueOrDefault(day) is { Log.Empty: false, Reported: true }
                )),
            ]
        );
    }

    private List<HomeColumn> Columns(PlanRevision plan) =>
        [
            .. from column in ProgrammeColumns.Of(plan.Plan)
            let rung = library.Rung(column.Item.RungId)
            select new HomeColumn(
                column.Item.Id,
                rung.Id,
                rung.Name,
                column.Dose.Side,
                column.Dose.Dose.TotalReps
            ),
        ];

    /// <summary>Every exercise and side of every plan; of the same name the latest last.</summary>
    public IReadOnlyList<LoggedExercise> Exercises(CaseFile file) =>
        [
            .. file
                .Plans.SelectMany(Columns)
                .Select(c => new LoggedExercise(c.PlanItemId, c.RungId, c.Name, c.Side))
                .Distinct(),
        ];

    public IReadOnlyList<FieldError> ErrorsOf(CaseFile file, HomeDay day, string path)
    {
        var items = Exercises(file).Select(e => (e.PlanItemId, e.Side)).ToHashSet();
        var today = clock.Today;
        return [.. HomeDayCheck.Errors(day, items, file.Episode.OpenedOn, today, path)];
    }

    /// <summary>Writes one day in place of what stood there; false where it was changed meanwhile. The caller saves.</summary>
    public async Task<bool> Write(CaseFile file, HomeDay day, int version, string by)
    {
        var stored = await Stored(file, day.Day);
        if ((stored?.Version ?? 0) != version)
        {
            return false;
        }
        Put(file, stored, day, by);
        return true;
    }

    /// <summary>Writes one day in place of whatever stands there. The caller saves.</summary>
    public async Task Write(CaseFile file, HomeDay day, string by) =>
        Put(file, await Stored(file, day.Day), day, by);

    /// <summary>A day as it will stand once what a file says was added: exercises it does not name keep their reps.</summary>
    public async Task<HomeDay> Merged(CaseFile file, HomeDay day)
    {
        var stored = await Stored(file, day.Day);
        var kept = (stored?.Log.Done ?? []).Where(old =>
            !day.Done.Any(d => d.PlanItemId == old.PlanItemId && d.Side == old.Side)
        );
        return day with
        {
            Done = [.. kept, .. day.Done],
            Pain = day.Pain ?? stored?.Log.Pain,
            NextMorning = day.NextMorning ?? stored?.Log.NextMorning,
            Remark = day.Remark ?? stored?.Log.Remark,
        };
    }

    /// <summary>What is wrong with the reason for writing a day; none where it can be written.</summary>
    public async Task<FieldError?> Unreasoned(CaseFile file, HomeDay day, string? reason, Amending amending)
    {
        var stored = await Stored(file, day.Day);
        return amending.Written(reason, stored?.WrittenAt, stored?.Log, day);
    }

    /// <summary>Writes a day as the client's own programme reports it. The caller saves.</summary>
    /// <param name="stored">What stands there; none: nothing was written.</param>
    public void Report(CaseFile file, HomeLogDay? stored, HomeDay day, string by) =>
        Put(file, stored, day, by).Reported = true;

    /// <summary>A day as it is written; none: nothing was.</summary>
    public Task<HomeLogDay?> Stored(CaseFile file, DateOnly day) =>
        db.HomeLog.FirstOrDefaultAsync(d => d.EpisodeId == file.Episode.Id && d.Day == day);

    private HomeLogDay Put(CaseFile file, HomeLogDay? stored, HomeDay day, string by)
    {
        var now = clock.Now;
        if (stored is null)
        {
            stored = new HomeLogDay
            {
                EpisodeId = file.Episode.Id,
                Day = day.Day,
                Log = day,
                WrittenAt = now,
                WrittenBy = by,
            };
            db.HomeLog.Add(stored);
            return stored;
        }
        stored.Log = day;
        stored.WrittenAt = now;
        stored.WrittenBy = by;
        // Whoever puts it right at the clinic answers for it.
        stored.Reported = false;
        stored.Version++;
        return stored;
    }
}
