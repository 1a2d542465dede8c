namespace Palaestra.Core.Intake;

/// <summary>Pain in the legs as asked at a visit; none for a leg that was not asked about.</summary>
public sealed record LegReport(LegReach? Left, LegReach? Right)
{
    /// <summary>How far pain goes down that leg; none if not asked.</summary>
    public LegReach? Of(Side side) => side == Side.Left ? Left : Right;
}
