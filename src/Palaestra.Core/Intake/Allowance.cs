using Palaestra.Core.Library;

namespace Palaestra.Core.Intake;

/// <summary>One precaution's word on a rung.</summary>
/// <param name="Beyond">It holds only for more than this dose.</param>
/// <param name="OfFeature">It speaks of a feature or of some rungs, not of a whole ladder or position.</param>
/// <param name="WorkingSide">The one side that is trained; none: as the rung has them.</param>
public sealed record AllowanceNote(
    string PrecautionId,
    string Tag,
    PrecautionEffect Effect,
    string Words,
    string? Change,
    double? Range = null,
    DoseLimit? Beyond = null,
    Side? WorkingSide = null,
    bool OfFeature = false
);

/// <summary>What a client's precautions say of one rung, for one side: barred, allowed with changes, or free.</summary>
public sealed record Allowance(string RungId, Side Side, IReadOnlyList<AllowanceNote> Notes)
{
    /// <summary>The strictest effect wins: one bar is enough. A bar beyond some dose is no bar of the rung.</summary>
    public bool Barred => Bars.Any();

    /// <summary>It suits a condition of the client and nothing bars it.</summary>
    public bool Preferred => !Barred && Notes.Any(note => note.Effect == PrecautionEffect.Prefer);

    /// <summary>Bars of the rung, whatever the dose.</summary>
    public IEnumerable<AllowanceNote> Bars =>
        Notes.Where(note => note.Effect == PrecautionEffect.Bar && note.Beyond is null);

    /// <summary>What asks for care without barring it.</summary>
    public IEnumerable<AllowanceNote> Cautions =>
        Notes.Where(note => note.Effect == PrecautionEffect.Caution);

    /// <summary>Notes that hold only beyond some dose.</summary>
    public IEnumerable<AllowanceNote> Limits => Notes.Where(note => note.Beyond is not null);

    /// <summary>The most that all of them let through.</summary>
    public DoseLimit Limit =>
        Limits.Aggregate(DoseLimit.None, (limit, note) => limit.And(note.Beyond ?? DoseLimit.None));

    /// <summary>Share of the movement that the cautions leave; 1 where none shortens it.</summary>
    public double Range => Cautions.Min(note => note.Range) ?? 1;

    /// <summary>The one side that is to be trained; none where both are, or where two precautions want different ones.</summary>
    public Side? WorkingSide =>
        Notes.Select(note => note.WorkingSide).OfType<Side>().Distinct().ToList() is [var only] ? only : null;

    /// <summary>Why it is barred, in one sentence; empty when it is not.</summary>
    public Message BarWords =>
        Message.Of(
            "together",
            (
                "parts",
                Bars.Select(bar => Message.Of("tagged", ("tag", bar.Tag), ("words", bar.Words))).Distinct()
            )
        );

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
        var ladder = library.LadderOf(rung.Id);
        var notes =
            from mine in precautions
            let precaution = library.Precaution(mine.Id)
            from rule in precaution.Rules
            where rule.Concerns(rung, ladder) && mine.Ticks(rule.When)
            where !rule.OnItsSide || mine.Side == Side.Both || side == Side.Both || mine.Side == side
            select new AllowanceNote(
                precaution.Id,
                precaution.Tag,
                rule.Effect,
                rule.Words,
                rule.Change,
                rule.Range,
                rule.Beyond,
                rule.WorkingSide && mine.Side != Side.Both ? mine.Side : null,
                rule.Feature is not null || rule.Rungs is not null || rule.From is not null
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
            let precaution = library.Precaution(mine.Id)
            from rule in precaution.Rules
            where rule.Strategy == strategy
            select new AllowanceNote(precaution.Id, precaution.Tag, rule.Effect, rule.Words, rule.Change),
        ];
}

/// <summary>What precautions say of ways to make an exercise harder or other.</summary>
public static class ModifierAllowance
{
    /// <summary>The id of the client's precaution that bars it; none where none does.</summary>
    public static string? BarredFor(this Modifier modifier, ClientProfile profile) =>
        profile.Precautions.Select(mine => mine.Id).FirstOrDefault(modifier.BarredBy.Contains);
}
