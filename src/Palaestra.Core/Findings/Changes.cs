using Palaestra.Core.Library;

namespace Palaestra.Core.Findings;

/// <summary>One value then and now.</summary>
/// <param name="Of">Id of a task or rung, a ladder, or a direction. <paramref name="What"/>: the same in words.</param>
/// <param name="Smallest">The smallest change beyond chance, in the unit.</param>
/// <param name="Source">Where the measurement error is from.</param>
public sealed record Change(
    string Of,
    Message What,
    Side Side,
    Message Unit,
    double Before,
    double Now,
    double Smallest,
    ChangeVerdict Verdict,
    Message Words,
    Message Source
);

/// <summary>Compares two screens: what differs by more than two measurements of the same thing would.</summary>
public static class Changes
{
    /// <summary>What two screens of the same client differ in, by task and side; what was not done in both is left out.</summary>
    public static IReadOnlyList<Change> Between(
        ScreenFindings before,
        ScreenFindings now,
        PracticeLibrary library
    ) =>
        [
            .. OfAbility(before, now),
            .. OfControl(before, now, library),
            .. OfEntries(before, now, library),
            .. OfTasks(before, now, library),
        ];

    /// <summary>How far a client moved on the scale of rungs; what counts follows from how sure both readings are.</summary>
    private static IEnumerable<Change> OfAbility(ScreenFindings before, ScreenFindings now) =>
        from then in before.Abilities?.All ?? []
        from here in now.Abilities?.All ?? []
        where then.Direction == here.Direction && then.Side == here.Side
        select Make(
            $"ability-{here.Sector}",
            here.Name,
            here.Side,
            Rungs,
            then.Theta,
            here.Theta,
            new(here.SmallestChange(then), Message.Of("source.ability"))
        );

    private static IEnumerable<Change> OfControl(
        ScreenFindings before,
        ScreenFindings now,
        PracticeLibrary library
    ) =>
        from then in before.Control
        from here in now.Control
        where then.Sector == here.Sector
        let was = then.Percent
        let held = here.Percent
        where was is not null && held is not null
        select Make(
            here.Sector.ToString(),
            Message.Of("named.sector", ("sector", here.Sector)),
            Side.Both,
            Message.Plain("%"),
            was.Value,
            held.Value,
            ErrorOf(library, "control")
        );

    private static IEnumerable<Change> OfEntries(
        ScreenFindings before,
        ScreenFindings now,
        PracticeLibrary library
    ) =>
        from then in before.Entries
        from here in now.Entries
        where then.LadderId == here.LadderId && then.Side == here.Side && Tried(then) && Tried(here)
        let ladder = library.Ladders.First(l => l.Id == here.LadderId)
        select Make(
            ladder.Id,
            Message.Of("named.ladder", ("ladder", ladder.Id)),
            here.Side,
            Rungs,
            Height(ladder, then.EntryRungId),
            Height(ladder, here.EntryRungId),
            ErrorOf(library, "rung")
        );

    private static bool Tried(Screening.RungSearch search) => search.Done && search.TrialIds.Count > 0;

    /// <summary>1 for the lowest rung; 0 when not even that was clean.</summary>
    private static int Height(Ladder ladder, string? rungId) =>
        rungId is null ? 0 : ladder.IndexOf(rungId) + 1;

    private static IEnumerable<Change> OfTasks(
        ScreenFindings before,
        ScreenFindings now,
        PracticeLibrary library
    ) =>
        from then in before.Tasks
        from here in now.Tasks
        where
            here.TaskId is not null
            && then.TaskId == here.TaskId
            && then.Variant == here.Variant
            && then.RungId == here.RungId
        from side in new[] { Side.Left, Side.Right, Side.Both }
        let was = then.Of(side)?.Value
        let value = here.Of(side)?.Value
        where was is not null && value is not null
        select Make(
            here.TaskId!,
            here.Name ?? Message.Plain(here.TaskId!),
            side,
            UnitOf(here.Measure),
            was.Value,
            value.Value,
            ErrorOf(library, here.TaskId!, here.Measure),
            here.Measure == MeasureKind.Effort
        );

    /// <param name="Smallest">Change beyond chance.</param>
    private readonly record struct Threshold(double Smallest, Message Source)
    {
        public static Threshold Of(MeasurementError error) =>
            new(error.SmallestChange, Message.Plain(error.Source));
    }

    private static Threshold ErrorOf(PracticeLibrary library, string of) =>
        Threshold.Of(library.Norms.Errors.First(e => e.Of == of));

    private static Threshold ErrorOf(PracticeLibrary library, string taskId, MeasureKind measure) =>
        Threshold.Of(
            library.Norms.Errors.FirstOrDefault(e => e.Of == taskId)
                ?? library.Norms.Errors.First(e =>
                    string.Equals(
                        e.Of.Replace("-", ""),
                        measure.ToString(),
                        StringComparison.OrdinalIgnoreCase
                    )
                )
        );

    internal static readonly Message Rungs = Message.Of("unit.rungs");

    private static Message UnitOf(MeasureKind measure) =>
        measure switch
        {
            MeasureKind.Seconds => Message.Plain("s"),
            MeasureKind.Degrees => Message.Plain("°"),
            MeasureKind.Centimetres => Message.Plain("cm"),
            MeasureKind.Kilograms => Message.Plain("kg"),
            MeasureKind.Effort => Message.Of("unit.points"),
            MeasureKind.YesNo => Message.Plain(""),
            _ => Message.Of("unit.reps"),
        };

    private static Change Make(
        string of,
        Message what,
        Side side,
        Message unit,
        double before,
        double now,
        Threshold beyond,
        bool lessIsBetter = false
    )
    {
        var (smallest, source) = beyond;
        var gain = lessIsBetter ? before - now : now - before;
        var verdict =
            Math.Abs(gain) < smallest ? ChangeVerdict.NoClearChange
            : gain > 0 ? ChangeVerdict.Better
            : ChangeVerdict.Worse;
        return new(
            of,
            what,
            side,
            unit,
            before,
            now,
            smallest,
            verdict,
            Message.Of(
                "change.verdict",
                ("verdict", verdict),
                ("smallest", smallest),
                ("unit", unit.Text is "" ? null : unit)
            ),
            source
        );
    }
}
