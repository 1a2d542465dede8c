using System.Numerics;
using CsCheck;
using Palaestra.Core.Body;

namespace Palaestra.Core.Tests.Body;

public class SupportAreaTests
{
    private static readonly Gen<Vector3> Point = Gen.Select(
        Gen.Float[-1, 1],
        Gen.Float[-1, 1],
        (x, z) => new Vector3(x, 0, z)
    );

    [Fact]
    public void A_mix_of_the_points_is_inside() =>
        Gen.Select(Point.Array[3, 12], Gen.Float[0.01f, 1].Array[12])
            .Sample(
                (points, shares) =>
                {
                    var sum = points.Select((_, i) => shares[i]).Sum();
                    var mix = points
                        .Select((p, i) => p * (shares[i] / sum))
                        .Aggregate(Vector3.Zero, (a, b) => a + b);
                    Assert.InRange(new SupportArea(points).Outside(mix).Length(), 0, 1e-4);
                }
            );

    /// <summary>What is outside is outside by exactly the distance it has to be moved back.</summary>
    [Fact]
    public void Moved_back_by_what_it_is_outside_a_point_is_on_the_edge() =>
        Gen.Select(Point.Array[1, 12], Point)
            .Sample(
                (points, p) =>
                {
                    var area = new SupportArea(points);
                    var off = area.Outside(p * 3);
                    var back = p * 3 - new Vector3(off.X, 0, off.Y);
                    Assert.InRange(area.Outside(back).Length(), 0, 1e-4);
                }
            );

    [Fact]
    public void One_foot_is_an_area_and_one_point_is_a_point()
    {
        var foot = new SupportArea([new(0, 0, 0), new(0.25f, 0, 0), new(0.25f, 0, 0.1f), new(0, 0, 0.1f)]);
        Assert.Equal(Vector2.Zero, foot.Outside(new(0.1f, 1, 0.05f)));
        Assert.Equal(0.05, foot.Outside(new(0.30f, 1, 0.05f)).Length(), 5);
        Assert.Equal(2, new SupportArea([new(1, 0, 0)]).Outside(new(3, 0, 0)).Length(), 5);
    }
}
