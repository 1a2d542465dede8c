using Palaestra.Core.Library;

namespace Palaestra.Core.Photos;

/// <summary>Places on the body that can be felt or seen, and are pointed at in a photograph.</summary>
public enum PhotoPoint
{
    /// <summary>The front upper corner of the hip bone from in front, the dimple over the back one from behind; the client's left.</summary>
    HipBoneLeft,

    /// <summary>The right front point of the pelvis.</summary>
    HipBoneRight,

    /// <summary>The tip of the left shoulder.</summary>
    ShoulderLeft,

    /// <summary>The tip of the right shoulder.</summary>
    ShoulderRight,

    /// <summary>From the side: the front upper corner of the hip bone.</summary>
    HipBoneFront,

    /// <summary>From the side: the dimple over the back corner of the hip bone.</summary>
    HipBoneBack,

    /// <summary>The bony knob on the side of the hip.</summary>
    HipSide,

    /// <summary>The outer knee.</summary>
    Knee,

    /// <summary>The outer ankle.</summary>
    Ankle,

    /// <summary>The opening of the ear.</summary>
    Ear,

    /// <summary>The tip of the shoulder.</summary>
    Shoulder,
}

/// <summary>Which points a picture needs.</summary>
public static class PhotoPoints
{
    private static readonly PhotoPoint[] Facing =
    [
        PhotoPoint.HipBoneLeft,
        PhotoPoint.HipBoneRight,
        PhotoPoint.ShoulderLeft,
        PhotoPoint.ShoulderRight,
    ];

    private static readonly PhotoPoint[] Aside =
    [
        PhotoPoint.HipBoneFront,
        PhotoPoint.HipBoneBack,
        PhotoPoint.HipSide,
        PhotoPoint.Knee,
        PhotoPoint.Ankle,
        PhotoPoint.Shoulder,
        PhotoPoint.Ear,
    ];

    /// <summary>Whether the client is seen from the side.</summary>
    public static bool IsAside(this PhotoView view) => view is PhotoView.FacingLeft or PhotoView.FacingRight;

    /// <summary>What can be pointed at from there, in the order it is asked for.</summary>
    public static IReadOnlyList<PhotoPoint> Of(PhotoView view) => view.IsAside() ? Aside : Facing;
}
