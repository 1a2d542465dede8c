using System.Numerics;

namespace Palaestra.Core.Body;

/// <summary>A shape and how near it is to whoever looks.</summary>
public readonly record struct Layer(FigureShape Shape, float Depth);

/// <summary>Turns one body in one posture into shapes.</summary>
/// <param name="side">Side of the task: its limbs are the near ones.</param>
public sealed class BodyPainter(Skeleton body, Camera camera, Side side)
{
    private const int SectionsPerSpan = 4;

    /// <summary>All parts, far ones first.</summary>
    public IReadOnlyList<FigureShape> Parts(ShapeRole? all = null) =>
        [.. Layers(all).OrderBy(layer => layer.Depth).Select(layer => layer.Shape)];

    /// <summary>Shapes of the body in the order they are painted, farthest first; all in one role where one is given.</summary>
    public IReadOnlyList<Layer> Layers(ShapeRole? all = null)
    {
        var layers = new List<Layer> { Head(all), Trunk(all) };
        foreach (var limb in Skeleton.OneSide)
        {
            var role =
                all
                ?? (limb == (side == Side.Both ? Side.Left : side) ? ShapeRole.NearLimb : ShapeRole.FarLimb);
            layers.Add(Limb(Bone.UpperArmLeft, limb, role, Proportions.UpperArmWidth));
            layers.Add(Limb(Bone.ForearmLeft, limb, role, Proportions.ForearmWidth));
            layers.Add(Limb(Bone.HandLeft, limb, role, Proportions.HandWidth));
            layers.Add(Limb(Bone.ThighLeft, limb, role, Proportions.ThighWidth));
            layers.Add(Limb(Bone.ShankLeft, limb, role, Proportions.ShankWidth));
            layers.Add(Foot(limb, role));
        }
        return layers;
    }

    /// <summary>Where on the picture each marked place of the body lies, in millimetres of the body's plane.</summary>
    public IReadOnlyList<FigureAnchor> Anchors()
    {
        var near = side == Side.Both ? Side.Left : side;
        return
        [
            Anchor("low-back", OnTrunk(Bone.Waist, 0.3, -0.050)),
            Anchor("abdomen", OnTrunk(Bone.Waist, 0.45, 0.055)),
            Anchor("pelvis", OnTrunk(Bone.Pelvis, 0.5, 0.02)),
            Anchor("hips", body.Root),
            Anchor("ribs", OnTrunk(Bone.Waist, 0.9, 0.055)),
            Anchor("trunk", OnTrunk(Bone.Chest, 0.4, 0)),
            Anchor("neck", body[Bone.Neck].At(0.5)),
            Anchor("shoulder", body[Bone.UpperArmLeft.On(near)].From),
            Anchor("arm", body[Bone.ForearmLeft.On(near)].From),
            Anchor("breath", body[Bone.Head].At(0.5)),
            Anchor("thigh", body[Bone.ThighLeft.On(near)].At(0.5)),
            Anchor("knee", body[Bone.ShankLeft.On(near)].From),
            Anchor("foot", body.ToeCentre(near)),
            Anchor("other-leg", body[Bone.ShankLeft.On(near.Other())].From),
            Anchor("effort", OnTrunk(Bone.Chest, 0.9, 0)),
            Anchor("tempo", body[Bone.ShankLeft.On(near)].To),
            Anchor("balance", body[Bone.FootLeft.On(near)].From),
        ];
    }

    private FigureAnchor Anchor(string region, Vector3 at) =>
        new(region, Camera.Millimetres(camera.Flat(at)));

    private Vector3 OnTrunk(Bone bone, double along, double front) =>
        body[bone].At(along) + body.Ventral(bone) * (float)(front * body.Height);

    private Layer Head(ShapeRole? role)
    {
        var head = body[Bone.Head];
        var centre = head.At(0.5);
        var (long_, deep, wide) = (
            head.Direction * (float)(Proportions.HeadLong * body.Height),
            body.Ventral(Bone.Head) * (float)(Proportions.HeadShort * body.Height),
            body.Rightward(Bone.Head) * (float)(Proportions.HeadSide * body.Height)
        );
        const int steps = 32;
        var points = new List<Vector2>(steps);
        for (var i = 0; i < steps; i++)
        {
            var (sin, cos) = Math.SinCos(2 * Math.PI * i / steps);
            var way = camera.Right * (float)cos + camera.Up * (float)sin;
            // The farthest point of an ellipsoid in a direction.
            var (l, d, w) = (Vector3.Dot(long_, way), Vector3.Dot(deep, way), Vector3.Dot(wide, way));
            var norm = MathF.Sqrt(l * l + d * d + w * w);
            points.Add(camera.Flat(centre + (long_ * l + deep * d + wide * w) / norm));
        }
        return Made(role ?? ShapeRole.Head, "head", camera.Depth(centre), points);
    }

    /// <summary>The flanks of the sections as one outline, and three whole sections for a look along the spine.</summary>
    private Layer Trunk(ShapeRole? role)
    {
        var sections = TrunkShape.Sections(body, SectionsPerSpan);
        var (left, right) = (new List<Vector2>(sections.Count), new List<Vector2>(sections.Count));
        for (var i = 0; i < sections.Count; i++)
        {
            var along =
                camera.Flat(sections[Math.Min(i + 1, sections.Count - 1)].Middle)
                - camera.Flat(sections[Math.Max(i - 1, 0)].Middle);
            var across = new Vector2(-along.Y, along.X);
            left.Add(Edge(sections[i], across));
            right.Add(Edge(sections[i], -across));
        }
        right.Reverse();
        var depth = (camera.Depth(body[Bone.Pelvis].From) + camera.Depth(body[Bone.Chest].At(0.5))) / 2;
        return Made(
            role ?? ShapeRole.Trunk,
            "trunk",
            depth,
            [.. left, .. right],
            Rim(sections[SectionsPerSpan]),
            Rim(sections[5 * SectionsPerSpan]),
            Rim(sections[6 * SectionsPerSpan])
        );
    }

    /// <summary>The point of a section farthest in a direction of the picture.</summary>
    private Vector2 Edge(TrunkShape.Section section, Vector2 across) =>
        camera.Flat(section.Farthest(camera.Right * across.X + camera.Up * across.Y));

    private List<Vector2> Rim(TrunkShape.Section section)
    {
        const int steps = 16;
        var rim = new List<Vector2>(steps);
        for (var i = 0; i < steps; i++)
        {
            rim.Add(camera.Flat(section.Rim(2 * Math.PI * i / steps)));
        }
        return rim;
    }

    private Layer Limb(Bone left, Side limb, ShapeRole role, (double Near, double Far) width)
    {
        var bone = left.On(limb);
        var line = body[bone];
        return Made(
            role,
            bone.ToString(),
            camera.Depth(line.At(0.5)),
            Outlines.Capsule(
                camera.Flat(line.From),
                width.Near * body.Height,
                camera.Flat(line.To),
                width.Far * body.Height
            )
        );
    }

    private Layer Foot(Side limb, ShapeRole role)
    {
        var bone = Bone.FootLeft.On(limb);
        var ankle = camera.Flat(body[bone].From);
        var (heel, toe) = (camera.Flat(body.HeelCentre(limb)), camera.Flat(body.ToeCentre(limb)));
        var h = body.Height;
        return Made(
            role,
            bone.ToString(),
            camera.Depth(body.ToeCentre(limb)),
            Outlines.Capsule(heel, Proportions.HeelRadius * h, toe, Proportions.ToeRadius * h),
            Outlines.Capsule(ankle, Proportions.AnkleRadius * h, heel, Proportions.HeelRadius * h),
            Outlines.Capsule(ankle, Proportions.AnkleRadius * h, toe, Proportions.ToeRadius * h)
        );
    }

    private static Layer Made(ShapeRole role, string part, float depth, params List<Vector2>[] outlines) =>
        new(FigureShape.Of(role, char.ToLowerInvariant(part[0]) + part[1..], outlines), depth);
}
