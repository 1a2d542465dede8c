namespace Palaestra.Core.Terms;

/// <summary>
/// The client's own left or right. What it names in a task (the lowered leg, the bearing leg) is said by the rung.
/// <see cref="Both"/> is for tasks without a side.
/// </summary>
public enum Side
{
    /// <summary>Both at once, or no side.</summary>
    Both,

    /// <summary>The client's left.</summary>
    Left,

    /// <summary>The client's right.</summary>
    Right,
}

/// <summary>Words and opposites of sides.</summary>
public static class Sides
{
    /// <summary>Left and right swapped; <see cref="Side.Both"/> stays.</summary>
    public static Side Other(this Side side) =>
        side switch
        {
            Side.Left => Side.Right,
            Side.Right => Side.Left,
            _ => Side.Both,
        };

    /// <summary>"left", "right" or "both".</summary>
    public static string Word(this Side side) =>
        side switch
        {
            Side.Left => "left",
            Side.Right => "right",
            _ => "both sides",
        };
}
