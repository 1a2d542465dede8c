namespace Palaestra.Core.Charts;

/// <summary>How a kind of pain is filled on a chart, on paper and on screen: told apart by its form, never by colour alone.</summary>
/// <param name="Size">Millimetres of the chart after which it repeats, both ways.</param>
/// <param name="Path">In SVG's words, drawn as lines of <paramref name="Line"/> millimetres.</param>
public sealed record ChartPattern(PainKind Kind, int Size, string Path, double Line)
{
    /// <summary>One for each kind, in the order of the kinds. Our own.</summary>
    public static IReadOnlyList<ChartPattern> All { get; } =
    [
        // Slanted lines.
        new(PainKind.Ache, 24, "M-6 6L6 -6M0 24L24 0M18 30L30 18", 5),
        // Crosses.
        new(PainKind.Sharp, 30, "M8 8L22 22M22 8L8 22", 5),
        // Waves.
        new(PainKind.Burning, 26, "M-2 13Q4.5 3 13 13T28 13", 5),
        // Dots.
        new(PainKind.Pins, 22, "M11 11L11.1 11", 10),
        // Empty rings.
        new(PainKind.Numb, 34, "M17 7A10 10 0 1 1 16.9 7Z", 4),
    ];

    /// <summary>Of that kind.</summary>
    public static ChartPattern Of(PainKind kind) => All[(int)kind];
}
