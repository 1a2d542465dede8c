using System.Numerics;

namespace Palaestra.Core.Body;

/// <summary>Looks at the scene from far away, so that nothing gets smaller with distance.</summary>
/// <param name="Right">World direction that runs to the right in the picture.</param>
/// <param name="Up">World direction that runs up in the picture.</param>
public readonly record struct Camera(Vector3 Right, Vector3 Up)
{
    /// <summary>How far a three-quarter view is turned from the side view, and how far it looks down, degrees.</summary>
    private const double QuarterTurn = 38;
    private const double QuarterDown = 20;

    /// <summary>Toward whoever looks.</summary>
    public Vector3 Near => Vector3.Cross(Right, Up);

    /// <param name="side">The task's side is near in the side view, so left and right mirror each other.</param>
    public static Camera For(View view, Side side)
    {
        var flip = side == Side.Right ? 1 : -1;
        var right = Vector3.UnitX * flip;
        return view switch
        {
            View.Front => new(-Vector3.UnitZ, Vector3.UnitY),
            View.Top => new(right, -Vector3.UnitZ * flip),
            View.ThreeQuarter => Quarter(flip),
            _ => new(right, Vector3.UnitY),
        };
    }

    /// <summary>The side view turned about the upright, toward where the client faces, and tipped down.</summary>
    private static Camera Quarter(int flip)
    {
        var (sin, cos) = Math.SinCos(QuarterTurn * Math.PI / 180);
        var (down, level) = Math.SinCos(QuarterDown * Math.PI / 180);
        // Level direction from the scene to the viewer: from the side, turned toward +x.
        var toward = new Vector3((float)sin, 0, (float)(flip * cos));
        var right = Vector3.Cross(Vector3.UnitY, toward);
        var near = toward * (float)level + Vector3.UnitY * (float)down;
        return new(right, Vector3.Cross(near, right));
    }

    /// <summary>Where a point of the body lies on the picture, in metres: right, up.</summary>
    public Vector2 Flat(Vector3 point) => new(Vector3.Dot(point, Right), Vector3.Dot(point, Up));

    /// <summary>How near a point is to the eye, in metres; larger is nearer.</summary>
    public float Depth(Vector3 point) => Vector3.Dot(point, Near);

    /// <summary>A place on the picture in whole millimetres, down being positive as in SVG.</summary>
    public static FigurePoint Millimetres(Vector2 point) =>
        new((int)Math.Round(point.X * 1000), (int)Math.Round(-point.Y * 1000));
}
