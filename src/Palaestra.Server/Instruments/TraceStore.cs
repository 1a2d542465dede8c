using Microsoft.EntityFrameworkCore;
using Palaestra.Core.Capture;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Core.Signals;
using Palaestra.Data;
using Palaestra.Data.Traces;
using Palaestra.Server.Clinics;
using Palaestra.Server.Intake;

namespace Palaestra.Server.Instruments;

/// <summary>Keeps the traces of trials and reads them again.</summary>
public sealed class TraceStore(PalaestraDb db, TraceFiles files, PracticeLibrary library, ClinicClock clock)
{
    public InstrumentSetup SetupOf(Instrument instrument) =>
        library.Instruments.First(kind => KindOf(kind.Id) == instrument);

    public static Instrument KindOf(string id) => Enum.Parse<Instrument>(id, ignoreCase: true);

    public Task<List<StoredTrace>> Of(Guid visitId) =>
        db.Traces.AsNoTracking().Where(t => t.VisitId == visitId).OrderBy(t => t.KeptAt).ToListAsync();

    public Task<StoredTrace?> Find(Guid id) => db.Traces.AsNoTracking().FirstOrDefaultAsync(t => t.Id == id);

    /// <summary>One trace of an instrument for a trial; asked again, the one that is there.</summary>
    public Task<StoredTrace?> Kept(Guid trialId, Instrument instrument) =>
        db.Traces.AsNoTracking().FirstOrDefaultAsync(t => t.TrialId == trialId && t.Instrument == instrument);

    /// <param name="instead">The one it takes the place of, which stays until this one is there.</param>
    /// <exception cref="DbUpdateException">Somebody kept one at the same time.</exception>
    public async Task<StoredTrace> Keep(
        Guid visitId,
        Trial trial,
        Trace trace,
        TraceSource source,
        string by,
        StoredTrace? instead = null
    )
    {
        var kind = KindOf(trace.Instrument);
        var id = Guid.CreateVersion7();
        var row = new StoredTrace
        {
            Id = id,
            VisitId = visitId,
            TrialId = trial.Id,
            Instrument = kind,
            Source = source,
            Rate = trace.Rate,
            StartedAt = trace.StartedAt,
            Samples = trace.Samples.Count,
            Neutral = trace.Neutral?.Levels,
            Hash = await files.Write(id, trace, SetupOf(kind).Channels.Count),
            KeptAt = clock.Now,
            By = by,
        };
        if (instead is not null)
        {
            db.Traces.Remove(instead);
        }
        db.Traces.Add(row);
        try
        {
            await db.SaveChangesAsync();
        }
        catch (DbUpdateException)
        {
            files.Delete(id);
            throw;
        }
        if (instead is not null)
        {
            files.Delete(instead.Id);
        }
        return row;
    }

    /// <returns>None where the file is damaged.</returns>
    public Task<Trace?> Read(StoredTrace row) => files.Read(row, SetupOf(row.Instrument).Channels.Count);

    public async Task Remove(StoredTrace row)
    {
        db.Traces.Remove(row);
        await db.SaveChangesAsync();
        files.Delete(row.Id);
    }

    /// <param name="from">Seconds from the start of the trace. <paramref name="seconds"/>: how many are drawn; none: all.</param>
    public async Task<TraceView> View(
        StoredTrace row,
        Trace trace,
        CaseFile file,
        Trial trial,
        double from,
        double? seconds,
        int pieces
    )
    {
        var setup = SetupOf(row.Instrument) with { Rate = row.Rate };
        var reading = TraceReading.Of(trace, setup, AskedSeconds(trial, file.Policy));
        var other = await OtherSide(row, file, trial);
        var beside = other is null ? null : await Read(other);
        var theirs = beside is null ? null : TraceReading.Of(beside, setup, 0).Analysis;
        var sides =
            reading.Analysis is { } mine && theirs is not null
                ? trial.Side == Side.Left
                    ? SidesSeen.Of(mine, theirs, setup)
                    : SidesSeen.Of(theirs, mine, setup)
                : [];
        from = Math.Clamp(from, 0, trace.Seconds);
        var shown = Math.Clamp(seconds ?? trace.Seconds, 0, trace.Seconds - from);
        return new(
            TraceEntry.Of(row),
            setup,
            trial,
            AskedSeconds(trial, file.Policy),
            reading,
            from,
            shown,
            TraceShape.Of(
                trace,
                setup,
                pieces,
                (int)Math.Round(from * row.Rate),
                (int)Math.Round(shown * row.Rate)
            ),
            sides.Count > 0 ? other!.Id : null,
            sides
        );
    }

    /// <summary>A screen asks for no tempo.</summary>
    private double AskedSeconds(Trial trial, Policy policy) =>
        trial.Purpose == TrialPurpose.Session
        && RepTempo.MoveSeconds(library.Rung(trial.RungId), policy) is var move
        && move > 0
            ? move + trial.Target.Hold
            : 0;

    /// <summary>The last trace of the same instrument, task and rung on the other side in this visit.</summary>
    private async Task<StoredTrace?> OtherSide(StoredTrace row, CaseFile file, Trial trial)
    {
        if (trial.Side == Side.Both)
        {
            return null;
        }
        var others = file.Trials(row.VisitId)
            .Where(t =>
                t.RungId == trial.RungId
                && t.TaskId == trial.TaskId
                && t.Variant == trial.Variant
                && t.Side != trial.Side
            )
            .Select(t => t.Id)
            .ToList();
        return (await Of(row.VisitId)).LastOrDefault(t =>
            t.Instrument == row.Instrument && others.Contains(t.TrialId)
        );
    }
}
