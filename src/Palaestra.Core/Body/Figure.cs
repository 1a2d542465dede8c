using System.Numerics;
using System.Text.Json.Serialization;

namespace Palaestra.Core.Body;

/// <summary>A point of a drawing in millimetres: x to the right, y down, the floor at y = 0 when seen from the side.</summary>
[method: JsonConstructor]
public readonly record struct FigurePoint(int X, int Y);

/// <summary>From where a figure is seen.</summary>
public enum View
{
    /// <summary>Across the mat, from the side of the task.</summary>
    Side,

    /// <summary>From where a standing client looks.</summary>
    Front,

    /// <summary>From above.</summary>
    Top,

    /// <summary>From aside and above.</summary>
    ThreeQuarter,
}

/// <summary>What a shape of a drawing shows, for its colour and pattern.</summary>
public enum ShapeRole
{
    /// <summary>What the body rests on.</summary>
    Floor,

    /// <summary>Counter, wall, ball, dowel and the like.</summary>
    Prop,

    /// <summary>Limb of the side that is not the task's.</summary>
    FarLimb,

    /// <summary>The head.</summary>
    Head,

    /// <summary>Trunk and pelvis.</summary>
    Trunk,

    /// <summary>Limb of the side of the task.</summary>
    NearLimb,

    /// <summary>Part of another posture of the same body: the start under the end, the clean one under a fault.</summary>
    Ghost,

    /// <summary>Where a limb goes.</summary>
    Arrow,

    /// <summary>Points at the region of a fault.</summary>
    Mark,
}

/// <summary>Closed outlines with one role, painted as one; how is the business of whoever shows it.</summary>
/// <param name="Outlines">Each a run of x, y, x, y in the units of <see cref="FigurePoint"/>: flat, since they are many.</param>
public sealed record FigureShape(ShapeRole Role, string Part, IReadOnlyList<IReadOnlyList<int>> Outlines)
{
    /// <param name="outlines">In the plane of the picture, metres, y up. All are run the same way round, so that those that overlap fill as one.</param>
    public static FigureShape Of(ShapeRole role, string part, params IEnumerable<List<Vector2>> outlines) =>
        new(role, part, [.. outlines.Select(Flat)]);

    /// <summary>All points of all outlines.</summary>
    public IEnumerable<FigurePoint> Points()
    {
        foreach (var outline in Outlines)
        {
            for (var i = 0; i + 1 < outline.Count; i += 2)
            {
                yield return new(outline[i], outline[i + 1]);
            }
        }
    }

    private static IReadOnlyList<int> Flat(List<Vector2> outline)
    {
        var flat = new List<int>(outline.Count * 2);
        foreach (var corner in Body.Outlines.Wound(outline))
        {
            var point = Camera.Millimetres(corner);
            // Neighbours that fall on the same millimetre say nothing.
            if (flat.Count == 0 || flat[^2] != point.X || flat[^1] != point.Y)
            {
                flat.Add(point.X);
                flat.Add(point.Y);
            }
        }
        return flat;
    }
}

/// <summary>Where on the figure a region is, for marks and arrows.</summary>
public sealed record FigureAnchor(string Region, FigurePoint At);

/// <summary>A body in a pose as shapes in painting order.</summary>
/// <param name="Left">Bounds, with a little air, in the same millimetres.</param>
/// <param name="Words">What the picture shows, for those who do not see it.</param>
public sealed record Figure(
    View View,
    IReadOnlyList<FigureShape> Shapes,
    IReadOnlyList<FigureAnchor> Anchors,
    int Left,
    int Top,
    int Width,
    int Height,
    string Words
);
