using System.Text.Json.Serialization;

namespace Palaestra.Core.Body;

/// <summary>A point of a drawing in millimetres: x to the right, y down, the floor at y = 0.</summary>
[method: JsonConstructor]
public readonly record struct FigurePoint(int X, int Y);

public enum ShapeRole
{
    Floor,
    FarLimb,
    Head,
    Trunk,
    NearLimb,
}

/// <summary>One closed outline with its role; how it is painted is the business of whoever shows it.</summary>
public sealed record FigureShape(ShapeRole Role, string Part, IReadOnlyList<FigurePoint> Outline);

/// <summary>Where on the figure a region is, for marks and arrows.</summary>
public sealed record FigureAnchor(string Region, FigurePoint At);

/// <summary>A body in a pose, seen from one side, as shapes in painting order.</summary>
/// <param name="Left">Bounds, with a little air, in the same millimetres.</param>
public sealed record Figure(
    IReadOnlyList<FigureShape> Shapes,
    IReadOnlyList<FigureAnchor> Anchors,
    int Left,
    int Top,
    int Width,
    int Height,
    string Words
);
