using Palaestra.Core.Intake;

namespace Palaestra.Core.Library;

/// <summary>One precaution's word on a rung.</summary>
public sealed record AllowanceNote(
    string PrecautionId,
    string Tag,
    PrecautionEffect Effect,
    string Words,
    string? Change,
    double? Range = null
);

/// <summary>What a client's precautions say of one rung, for one side: barred, allowed with changes, or free.</summary>
public sealed record Allowance(string RungId, Side Side, IReadOnlyList<AllowanceNote> Notes)
{
    /// <summary>The strictest effect wins: one bar is enough.</summary>
    public bool Barred => Notes.Any(note => note.Effect == PrecautionEffect.Bar);

    public bool Preferred => !Barred && Notes.Any(note => note.Effect == PrecautionEffect.Prefer);

    public IEnumerable<AllowanceNote> Bars => Notes.Where(note => note.Effect == PrecautionEffect.Bar);

    public IEnumerable<AllowanceNote> Cautions =>
        Notes.Where(note => note.Effect == PrecautionEffect.Caution);

    /// <summary>Share of the movement that the cautions leave; 1 where none shortens it.</summary>
    public double Range => Cautions.Min(note => note.Range) ?? 1;

    /// <summary>Why it is barred, in one sentence; empty when it is not.</summary>
    public string BarWords => string.Join("; ", Bars.Select(bar => $"{bar.Tag}: {bar.Words}"));

    /// <summary>
    /// Looks through all precautions. A rule for the precaution's own side does not touch the other side;
    /// for a task without a side it holds. A sided precaution whose side was left open holds for both.
    /// </summary>
    public static Allowance Of(
        PracticeLibrary library,
        IReadOnlyList<ClientPrecaution> precautions,
        Rung rung,
        Side side
    )
    {
        var ladderId = library.LadderOf(rung.Id).Id;
        var notes =
            from mine in precautions
            let precaution = library.Precautions.First(p => p.Id == mine.Id)
            from rule in precaution.Rules
            where rule.Ladder == ladderId || (rule.Feature is { } feature && rung.Features.Contains(feature))
            where !rule.OnItsSide || mine.Side == Side.Both || side == Side.Both || mine.Side == side
            select new AllowanceNote(
                precaution.Id,
                precaution.Tag,
                rule.Effect,
                rule.Words,
                rule.Change,
                rule.Range
            );
        return new Allowance(rung.Id, side, [.. notes]);
    }

    /// <summary>The precautions' word on a spinal strategy.</summary>
    public static IReadOnlyList<AllowanceNote> OfStrategy(
        PracticeLibrary library,
        IReadOnlyList<ClientPrecaution> precautions,
        string strategy
    ) =>
        [
            .. from mine in precautions
            let precaution = library.Precautions.First(p => p.Id == mine.Id)
            from rule in precaution.Rules
            where rule.Strategy == strategy
            select new AllowanceNote(precaution.Id, precaution.Tag, rule.Effect, rule.Words, rule.Change),
        ];
}
