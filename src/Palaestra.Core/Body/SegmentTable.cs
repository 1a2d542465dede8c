namespace Palaestra.Core.Body;

/// <summary>One segment of the body table.</summary>
/// <param name="MassPercent">Share of body mass, percent; a limb's stands for one side.</param>
/// <param name="ComPercent">Centre of mass, percent of the length from the proximal (for head and trunk: upper) end.</param>
/// <param name="Length">Share of stature.</param>
public readonly record struct SegmentRow(double MassPercent, double ComPercent, double Length);

/// <summary>Masses, centres of mass and lengths of the segments, by sex.</summary>
/// <remarks>
/// de Leva 1996, J Biomech 29:1223–1230 (from memory): percent of body mass, centre of mass from the proximal end,
/// length in millimetres at stature 1741 (men) and 1735 (women). Head from the vertex to the angle of the jaw; hand to the
/// knuckle; foot from heel to toe tip.
/// </remarks>
public sealed record SegmentTable(
    SegmentRow Head,
    SegmentRow UpperTrunk,
    SegmentRow MiddleTrunk,
    SegmentRow LowerTrunk,
    SegmentRow UpperArm,
    SegmentRow Forearm,
    SegmentRow Hand,
    SegmentRow Thigh,
    SegmentRow Shank,
    SegmentRow Foot
)
{
    /// <summary>For a male body.</summary>
    public static readonly SegmentTable Men = FromMillimetres(
        1741,
        (6.94, 59.76, 203.3),
        (15.96, 29.99, 170.7),
        (16.33, 45.02, 215.5),
        (11.17, 61.15, 145.7),
        (2.71, 57.72, 281.7),
        (1.62, 45.74, 268.9),
        (0.61, 79.00, 86.2),
        (14.16, 40.95, 422.2),
        (4.33, 44.59, 434.0),
        (1.37, 44.15, 258.1)
    );

    /// <summary>For a female body.</summary>
    public static readonly SegmentTable Women = FromMillimetres(
        1735,
        (6.68, 58.94, 200.2),
        (15.45, 20.77, 142.5),
        (14.65, 45.12, 205.3),
        (12.47, 49.20, 181.5),
        (2.55, 57.54, 275.1),
        (1.38, 45.59, 264.3),
        (0.56, 74.74, 78.0),
        (14.78, 36.12, 368.5),
        (4.81, 44.16, 432.3),
        (1.29, 40.14, 228.3)
    );

    /// <summary>Where the sex is left open: the mean of both.</summary>
    public static readonly SegmentTable Mean = new(
        Between(Men.Head, Women.Head),
        Between(Men.UpperTrunk, Women.UpperTrunk),
        Between(Men.MiddleTrunk, Women.MiddleTrunk),
        Between(Men.LowerTrunk, Women.LowerTrunk),
        Between(Men.UpperArm, Women.UpperArm),
        Between(Men.Forearm, Women.Forearm),
        Between(Men.Hand, Women.Hand),
        Between(Men.Thigh, Women.Thigh),
        Between(Men.Shank, Women.Shank),
        Between(Men.Foot, Women.Foot)
    );

    /// <summary>The table of a sex; between both where it is not known.</summary>
    public static SegmentTable Of(Sex? sex) =>
        sex switch
        {
            Sex.Male => Men,
            Sex.Female => Women,
            _ => Mean,
        };

    /// <summary>Ankle joint above the sole, share of stature: Drillis and Contini 1966 (from memory).</summary>
    public const double AnkleHeight = 0.039;

    /// <summary>What the table leaves between jaw and breastbone, so that a standing body is as tall as its stature.</summary>
    public double Neck =>
        1
        - AnkleHeight
        - Head.Length
        - UpperTrunk.Length
        - MiddleTrunk.Length
        - LowerTrunk.Length
        - Thigh.Length
        - Shank.Length;

    /// <summary>Percent of body mass of the whole body, limbs counted twice.</summary>
    public double TotalPercent =>
        Head.MassPercent
        + UpperTrunk.MassPercent
        + MiddleTrunk.MassPercent
        + LowerTrunk.MassPercent
        + 2
            * (
                UpperArm.MassPercent
                + Forearm.MassPercent
                + Hand.MassPercent
                + Thigh.MassPercent
                + Shank.MassPercent
                + Foot.MassPercent
            );

    private static SegmentTable FromMillimetres(
        double stature,
        params (double Mass, double Com, double Millimetres)[] rows
    )
    {
        var r = rows.Select(row => new SegmentRow(row.Mass, row.Com, row.Millimetres / stature)).ToArray();
        return new(r[0], r[1], r[2], r[3], r[4], r[5], r[6], r[7], r[8], r[9]);
    }

    private static SegmentRow Between(SegmentRow a, SegmentRow b) =>
        new(
            (a.MassPercent + b.MassPercent) / 2,
            (a.ComPercent + b.ComPercent) / 2,
            (a.Length + b.Length) / 2
        );
}
