namespace Palaestra.Core.Screening;

/// <summary>One task of a planned screen.</summary>
/// <param name="Why">Why it is in, in a sentence.</param>
/// <param name="Minutes">For all its sides and ways.</param>
/// <param name="Sides">The sides it is done on; a side a precaution bars is not among them.</param>
/// <param name="Surface">Where it is done, for tasks with a choice of places.</param>
/// <param name="Cautions">What to mind, said before it starts.</param>
public sealed record BatteryItem(
    string TaskId,
    Message Why,
    double Minutes,
    IReadOnlyList<Side> Sides,
    string? Surface,
    IReadOnlyList<string> Cautions
);

/// <param name="Rule">S-BARRED, S-SORE, S-EQUIPMENT, S-MINUTES, S-COVERED or S-BY-HAND.</param>
/// <param name="CanAdd">False for what a precaution bars.</param>
public sealed record LeftOut(string TaskId, string Rule, Message Why, bool CanAdd);

/// <summary>A planned screen: what is done in which order, and what was left out and why.</summary>
/// <param name="Minutes">Of all items with the changes of position between them.</param>
/// <param name="MinutesAsked">The time there is, 5 to 60.</param>
/// <param name="Missing">Equipment that is not at hand.</param>
public sealed record Battery(
    IReadOnlyList<BatteryItem> Items,
    IReadOnlyList<LeftOut> LeftOut,
    double Minutes,
    double MinutesAsked,
    IReadOnlyList<string> Missing,
    int PositionChanges
);

/// <summary>What decides a battery.</summary>
/// <param name="Repeat">Tasks of an earlier screen, in its order, to do again; none: propose anew.</param>
public sealed record BatteryQuestion(
    double Minutes,
    IReadOnlyList<string> Missing,
    IReadOnlyList<string>? Repeat = null
);
