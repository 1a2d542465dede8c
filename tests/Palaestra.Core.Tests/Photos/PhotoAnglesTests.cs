using System.Numerics;
using CsCheck;
using Palaestra.Core.Body;
using Palaestra.Core.Library;
using Palaestra.Core.Photos;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Photos;

public class PhotoAnglesTests
{
    private static PlacedPoint At(PhotoPoint point, double x, double y) => new(point, new(x, y));

    private static PhotoReading Photo(PhotoView view, params PlacedPoint[] points) =>
        new(view, 1000, 1000, points);

    private static PhotoAngle? Find(PhotoReading photo, PhotoAngleKind kind) =>
        PhotoAngles.Of(photo).FirstOrDefault(a => a.Kind == kind);

    private static double Degrees(PhotoReading photo, PhotoAngleKind kind) => Find(photo, kind)!.Degrees;

    /// <summary>Rise and run of known triangles: 3-4-5 has 36.87°, a half square 45°, a half triangle of equal sides 30°.</summary>
    [Theory]
    [InlineData(100, 0, 0, "level")]
    [InlineData(100, 100, 45, "the front lower")]
    [InlineData(400, 300, 36.8699, "the front lower")]
    [InlineData(173.2051, -100, -30, "the front higher")]
    public void Pelvic_tilt_is_the_arctangent_of_drop_over_run_whichever_way_the_client_faces(
        double run,
        double drop,
        double degrees,
        string words
    )
    {
        foreach (var (view, sign) in new[] { (PhotoView.FacingRight, 1), (PhotoView.FacingLeft, -1) })
        {
            var tilt = Find(
                Photo(
                    view,
                    At(PhotoPoint.HipBoneBack, 500, 500),
                    At(PhotoPoint.HipBoneFront, 500 + sign * run, 500 + drop)
                ),
                PhotoAngleKind.PelvicTilt
            )!;
            Assert.Equal(degrees, tilt.Degrees, 4);
            Assert.Equal(words, tilt.Words.En());
            Assert.Null(tilt.Centimetres);
            Assert.Null(tilt.PlusMinus);
        }
    }

    [Theory]
    [InlineData(PhotoView.Front, 700, 300)] // the client's left is on the right of the picture
    [InlineData(PhotoView.Back, 300, 700)]
    public void A_side_drop_names_the_lower_side_from_in_front_and_from_behind(
        PhotoView view,
        double left,
        double right
    )
    {
        var photo = Photo(
            view,
            At(PhotoPoint.HipBoneLeft, left, 500),
            At(PhotoPoint.HipBoneRight, right, 500 + 400 * Math.Tan(10 * Math.PI / 180)),
            At(PhotoPoint.ShoulderLeft, left, 200),
            At(PhotoPoint.ShoulderRight, right, 200)
        );
        var drop = Find(photo, PhotoAngleKind.SideDrop)!;
        Assert.Equal((10, "the right side lower"), (Math.Round(drop.Degrees, 6), drop.Words.En()));
        Assert.Equal(0, Degrees(photo, PhotoAngleKind.TrunkLean), 6);
        var leaning = photo with
        {
            Points =
            [
                .. photo.Points.Take(2),
                At(PhotoPoint.ShoulderLeft, left + (right - left) / 4, 200),
                At(PhotoPoint.ShoulderRight, right + (right - left) / 4, 200),
            ],
        };
        var lean = Find(leaning, PhotoAngleKind.TrunkLean)!;
        // A hundred pixels toward the client's right over the way up from the middle of the hips.
        var up = 300 + 200 * Math.Tan(10 * Math.PI / 180);
        Assert.Equal(Math.Atan(100 / up) * 180 / Math.PI, lean.Degrees, 6);
        Assert.Equal("to the right", lean.Words.En());
    }

    [Fact]
    public void Hip_and_knee_are_the_angles_between_their_lines()
    {
        var photo = Photo(
            PhotoView.FacingRight,
            At(PhotoPoint.Shoulder, 300, 100),
            At(PhotoPoint.HipSide, 300, 500),
            At(PhotoPoint.Knee, 700, 500),
            At(PhotoPoint.Ankle, 900, 700),
            At(PhotoPoint.Ear, 350, 50)
        );
        Assert.Equal(90, Degrees(photo, PhotoAngleKind.Hip), 6);
        Assert.Equal(135, Degrees(photo, PhotoAngleKind.Knee), 6);
        Assert.Equal(0, Degrees(photo, PhotoAngleKind.TrunkLean), 6);
        Assert.Equal(45, Degrees(photo, PhotoAngleKind.HeadLean), 6);
        Assert.Equal("45° from straight", Find(photo, PhotoAngleKind.Knee)!.Words.En());
    }

    /// <summary>The body model's own points, projected as a camera would, give back the angles its joints were set to.</summary>
    [Fact]
    public void A_body_set_to_known_angles_is_read_as_set() =>
        Gen.Select(Gen.Double[-40, 40], Gen.Double[-20, 110], Gen.Double[0, 130], Gen.Bool)
            .Sample(
                (pitch, hip, knee, right) =>
                {
                    var side = right ? Side.Right : Side.Left;
                    var body = new Skeleton(
                        Posture.Of(
                            new RootPlacement(pitch, 0, 0),
                            new Dictionary<string, JointAngles>
                            {
                                ["hip"] = new(hip, 0, 0),
                                ["knee"] = new(knee, 0, 0),
                            }
                        ),
                        BodySize.Typical,
                        new Vector3(0, 0.9f, 0)
                    );
                    var camera = Camera.For(View.Side, side);
                    PlacedPoint Seen(PhotoPoint point, Vector3 at) =>
                        new(point, new(5000 + 1000 * camera.Flat(at).X, 5000 - 1000 * camera.Flat(at).Y));
                    var forward = body.Ventral(Bone.Pelvis) * 0.1f;
                    var photo = new PhotoReading(
                        right ? PhotoView.FacingRight : PhotoView.FacingLeft,
                        10_000,
                        10_000,
                        [
                            Seen(PhotoPoint.HipBoneFront, body.Root + forward),
                            Seen(PhotoPoint.HipBoneBack, body.Root - forward),
                            Seen(PhotoPoint.HipSide, body.Hip(side)),
                            Seen(PhotoPoint.Knee, body[Bone.ShankLeft.On(side)].From),
                            Seen(PhotoPoint.Ankle, body[Bone.ShankLeft.On(side)].To),
                            Seen(PhotoPoint.Shoulder, body[Bone.UpperArmLeft.On(side)].From),
                        ]
                    );
                    Assert.Empty(PhotoCheck.Errors(photo, "photo."));
                    // Pitch turns the pelvis backward, front up.
                    Assert.Equal(-pitch, Degrees(photo, PhotoAngleKind.PelvicTilt), 0.01);
                    Assert.Equal(0, Degrees(photo, PhotoAngleKind.PelvisToTrunk), 0.01);
                    Assert.Equal(-pitch, Degrees(photo, PhotoAngleKind.TrunkLean), 0.01);
                    Assert.Equal(180 - Math.Abs(hip), Degrees(photo, PhotoAngleKind.Hip), 0.01);
                    Assert.Equal(180 - knee, Degrees(photo, PhotoAngleKind.Knee), 0.01);
                },
                iter: 200
            );

    private static readonly PhotoReading Standing = Photo(
        PhotoView.FacingLeft,
        At(PhotoPoint.HipBoneFront, 440, 510),
        At(PhotoPoint.HipBoneBack, 560, 490),
        At(PhotoPoint.HipSide, 500, 560),
        At(PhotoPoint.Knee, 490, 720),
        At(PhotoPoint.Ankle, 510, 880),
        At(PhotoPoint.Shoulder, 480, 250),
        At(PhotoPoint.Ear, 450, 180)
    );

    [Fact]
    public void With_a_plumb_line_a_camera_held_askew_changes_nothing() =>
        Gen.Double[-30, 30]
            .Sample(askew =>
            {
                PhotoSpot Turned(PhotoSpot spot)
                {
                    var z =
                        new Complex(spot.X - 500, spot.Y - 500)
                        * Complex.FromPolarCoordinates(1, askew * Math.PI / 180);
                    return new(500 + z.Real, 500 + z.Imaginary);
                }
                var turned = Standing with
                {
                    Points = [.. Standing.Points.Select(p => p with { At = Turned(p.At) })],
                    Plumb = new(Turned(new(500, 100)), Turned(new(500, 900))),
                };
                Assert.All(
                    PhotoAngles.Of(Standing).Zip(PhotoAngles.Of(turned)),
                    pair => Assert.Equal(pair.First.Degrees, pair.Second.Degrees, 1e-6)
                );
                var without = turned with { Plumb = null };
                Assert.Equal(
                    Degrees(Standing, PhotoAngleKind.PelvicTilt)
                        - Degrees(without, PhotoAngleKind.PelvicTilt),
                    // Turned clockwise in a picture that faces left lifts the front.
                    askew,
                    1e-6
                );
            });

    [Fact]
    public void A_known_length_turns_pixels_into_centimetres_and_tells_how_sure_it_is()
    {
        // Two pixels a centimetre, however the known length lies.
        var photo = Standing with
        {
            Length = new(new(100, 100), new(220, 260), 100),
        };
        var tilt = Find(photo, PhotoAngleKind.PelvicTilt)!;
        Assert.Equal(10, tilt.Centimetres!.Value, 6);
        // Half a centimetre at each end of a line of 60.83 cm.
        Assert.Equal(
            Math.Sqrt(2) * 0.5 / Math.Sqrt(60 * 60 + 10 * 10) * 180 / Math.PI,
            tilt.PlusMinus!.Value,
            6
        );
        Assert.Equal(15, Find(photo, PhotoAngleKind.HeadLean)!.Centimetres!.Value, 6);
        Assert.Null(Find(photo, PhotoAngleKind.Knee)!.Centimetres);
        Assert.True(
            Find(photo, PhotoAngleKind.Knee)!.PlusMinus < Find(photo, PhotoAngleKind.HeadLean)!.PlusMinus
        );
    }

    [Fact]
    public void Only_angles_whose_points_are_there_are_told()
    {
        Assert.Empty(PhotoAngles.Of(Photo(PhotoView.Front)));
        Assert.Empty(PhotoAngles.Of(Photo(PhotoView.FacingLeft, At(PhotoPoint.Knee, 1, 1))));
        Assert.Equal(
            [PhotoAngleKind.SideDrop],
            PhotoAngles
                .Of(
                    Photo(PhotoView.Back, At(PhotoPoint.HipBoneLeft, 1, 1), At(PhotoPoint.HipBoneRight, 9, 1))
                )
                .Select(a => a.Kind)
        );
        Assert.Equal(7, Enum.GetValues<PhotoAngleKind>().Length);
        Assert.Equal(6, PhotoAngles.Of(Standing).Count);
    }

    [Fact]
    public void What_cannot_be_read_is_refused_with_its_field()
    {
        string[] Fields(PhotoReading photo) => [.. PhotoCheck.Errors(photo, "photo.").Select(e => e.Field)];
        Assert.Empty(Fields(Standing));
        Assert.Equal(["photo.width"], Fields(Standing with { Width = 0 }));
        Assert.Equal(
            ["photo.points[0].point", "photo.points[1].at"],
            Fields(Photo(PhotoView.Front, At(PhotoPoint.Ear, 1, 1), At(PhotoPoint.HipBoneLeft, 1001, 1)))
        );
        Assert.Equal(
            ["photo.points[1].point"],
            Fields(Photo(PhotoView.Front, At(PhotoPoint.HipBoneLeft, 1, 1), At(PhotoPoint.HipBoneLeft, 2, 2)))
        );
        // Left and right mixed up: told before a drop is read of it.
        Assert.Equal(
            ["photo.points"],
            Fields(
                Photo(PhotoView.Front, At(PhotoPoint.HipBoneLeft, 1, 1), At(PhotoPoint.HipBoneRight, 9, 1))
            )
        );
        Assert.Equal(
            ["photo.length.centimetres", "photo.length", "photo.plumb"],
            Fields(
                Standing with
                {
                    Length = new(new(5, 5), new(5, 5), 0),
                    Plumb = new(new(5, 500), new(5, 5)),
                }
            )
        );
    }
}
