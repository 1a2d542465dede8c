namespace Palaestra.Core.Library;

/// <summary>How the body is held, in the order of a screen.</summary>
/// <param name="Name">For a table: "On the back".</param>
/// <param name="OnBack">Lying on the back: where the low back is neutral, flat or arched by choice.</param>
/// <param name="Returns">On the back or on all fours: after each rep it is looked at whether the back is where it was.</param>
/// <param name="OnFeet">On two feet.</param>
public sealed record Position(
    string Id,
    string Name,
    bool OnBack = false,
    bool Returns = false,
    bool OnFeet = false
);
