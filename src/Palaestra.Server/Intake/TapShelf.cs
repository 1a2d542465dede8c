using Microsoft.EntityFrameworkCore;
using Palaestra.Core.Capture;
using Palaestra.Core.Library;
using Palaestra.Core.Progression;
using Palaestra.Data;
using Palaestra.Data.Screening;

namespace Palaestra.Server.Intake;

/// <summary>
/// Taps of visits that were read lately. Taps are only ever added, and filed elsewhere together with a row that says so: a visit
/// with as many taps and as many such rows as before has the same taps as before, whichever server wrote them.
/// </summary>
public sealed class TapShelf : IDisposable
{
    /// <summary>As many taps in all, some 60 MB.</summary>
    private const int Room = 250_000;

    private readonly Shelf<Read> shelf = new(Room);

    private sealed record Read(VisitTaps Taps, int Count, int Moves);

    /// <summary>Taps of each of the visits that has any.</summary>
    public async Task<IReadOnlyDictionary<Guid, VisitTaps>> Of(
        IReadOnlyCollection<Guid> visits,
        PalaestraDb db,
        PracticeLibrary library
    )
    {
        var counts = await db
            .Events.Where(e => visits.Contains(e.VisitId))
            .GroupBy(e => e.VisitId)
            .Select(g => new { g.Key, Count = g.Count() })
            .ToListAsync();
        var moves = await db.TrialMoves.CountAsync(m =>
            visits.Contains(m.VisitId) || visits.Contains(m.ToVisitId)
        );
        var found = new Dictionary<Guid, VisitTaps>();
        foreach (var visit in counts)
        {
            if (shelf.Of(visit.Key, library) is { } kept && kept.Count == visit.Count && kept.Moves == moves)
            {
                found[visit.Key] = kept.Taps;
            }
        }
        var others = counts.Select(visit => visit.Key).Where(id => !found.ContainsKey(id)).ToList();
        if (others.Count == 0)
        {
            return found;
        }
        var read = await db.Events.AsNoTracking().Where(e => others.Contains(e.VisitId)).ToListAsync();
        foreach (var visit in read.GroupBy(e => e.VisitId))
        {
            var logged = visit.ToList();
            var taps = Taps(logged, library);
            found[visit.Key] = taps;
            shelf.Keep(visit.Key, new(taps, logged.Count, moves), size: logged.Count, library, db);
        }
        return found;
    }

    /// <summary>Visits whose taps stand there.</summary>
    public int Count => shelf.Count;

    /// <summary>Somebody was erased: nothing of them stays in memory either.</summary>
    public void Clear() => shelf.Clear();

    public void Dispose() => shelf.Dispose();

    private static VisitTaps Taps(IReadOnlyList<LoggedEvent> logged, PracticeLibrary library) =>
        new(
            [.. logged.Select(e => Renewal.Of(e.Event, library))],
            logged.Where(IsOff).Select(e => e.TrialId).ToHashSet(),
            library
        );

    private static bool IsOff(LoggedEvent e) =>
        (e.ReceivedAt.ToDateTimeOffset() - e.Event.At).Duration() > CaptureCheck.ClockSlack;
}
