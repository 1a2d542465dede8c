namespace Palaestra.Core.Intake;

/// <summary>Pain in the legs as asked at a visit; none for a leg that was not asked about.</summary>
public sealed record LegReport(LegReach? Left, LegReach? Right)
{
    /// <summary>How far pain goes down that leg; none if not asked.</summary>
    public LegReach? Of(Side side) => side == Side.Left ? Left : Right;

    /// <summary>Both reports as one: on each leg the further of the two; none where neither says anything.</summary>
    public static LegReport? Further(LegReport? one, LegReport? other)
    {
        static LegReach? Max(LegReach? a, LegReach? b) => a is null || b > a ? b : a;
        return one is null ? other
            : other is null ? one
            : new(Max(one.Left, other.Left), Max(one.Right, other.Right));
    }
}
