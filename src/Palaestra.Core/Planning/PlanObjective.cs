using Palaestra.Core.Findings;
using Palaestra.Core.Library;

namespace Palaestra.Core.Planning;

/// <summary>What a set of exercises is worth for this client. Defined and worked by hand in docs/planning.md.</summary>
/// <remarks>
/// Whole numbers throughout, thousandths of a point, so that no order of adding changes a result. The weights are our own:
/// what a lost direction is worth sets the scale (1,000 points for one that was never held), the others order the rest.
/// </remarks>
internal sealed class PlanObjective
{
    private const int Point = 1000;

    /// <summary>For each of the first exercises, up to the least a plan should have: before everything but the weak link.</summary>
    public const int FirstOnes = 400 * Point;

    /// <summary>Neutral or switch-on is there.</summary>
    public const int Base = 300 * Point;

    /// <summary>Neutral in a position in which nothing was clean.</summary>
    public const int NeutralFirst = 200 * Point;

    /// <summary>A goal of the client is served in its own position; and something is done standing.</summary>
    public const int Goal = 450 * Point;

    /// <summary>A precaution prefers the rung.</summary>
    public const int Suits = 60 * Point;

    /// <summary>Something done well is kept for confidence.</summary>
    public const int DoneWell = 60 * Point;

    /// <summary>A rung at which control was seen to end: the hardest stage that is clean, on evidence.</summary>
    public const int AtEntry = 150 * Point;

    /// <summary>The highest that may be of a ladder that was not climbed; of the basic rungs the one that joins breath and switch-on.</summary>
    public const int Highest = 10 * Point;

    /// <summary>Each exercise beyond the least costs: few are done, many are not.</summary>
    public const int OneMore = -40 * Point;

    /// <summary>A change of position. <see cref="Piece"/>: a piece of equipment beyond the first that lies there anyway.</summary>
    public const int Change = -30 * Point;
    public const int Piece = -20 * Point;

    /// <summary>What a direction is worth that nothing has shown yet, thousandths.</summary>
    private const int UnseenNeed = 150;

    /// <summary>Cover of a direction that counts: all that is on offer once; for the weak link twice.</summary>
    private const int Once = 1000;

    private static readonly Sector[] Sectors = Enum.GetValues<Sector>();

    /// <summary>Bit of the first piece of equipment, which lies there anyway: the mat.</summary>
    private const int FreePiece = 1;

    private readonly int least;

    public PlanObjective(ScreenFindings findings, Policy policy)
    {
        Need = new int[Sectors.Length];
        Cap = new int[Sectors.Length];
        foreach (var control in findings.Control)
        {
            Need[(int)control.Sector] = NeedOf(control, findings);
            Cap[(int)control.Sector] = IsWeak(control, findings) ? 2 * Once : Once;
        }
        least = policy.ExercisesMin;
    }

    /// <summary>What a direction lacks of full control, thousandths; of the weak link twice that.</summary>
    public static int NeedOf(SectorControl control, ScreenFindings findings)
    {
        var lack = control.Percent is { } percent ? (int)Math.Round(10 * (100 - percent)) : UnseenNeed;
        return IsWeak(control, findings) ? 2 * lack : lack;
    }

    private static bool IsWeak(SectorControl control, ScreenFindings findings) =>
        findings.WeakLink?.Sector == control.Sector;

    /// <summary>By direction, thousandths of a point for each thousandth of cover.</summary>
    public int[] Need { get; }
    public int[] Cap { get; }

    public static int Directions => Sectors.Length;

    /// <summary>Points for the next exercise when there are <paramref name="count"/> already.</summary>
    public int ForCount(int count) => count < least ? FirstOnes : OneMore;

    public PlanScore Score(IReadOnlyList<PlanOption> set)
    {
        var (total, cover) = Total(set);
        return new(
            Math.Round(total / (double)Point, 1),
            Math.Round(cover / (double)Point, 1),
            Math.Round((total - cover) / (double)Point, 1)
        );
    }

    /// <summary>The whole worth of a set, thousandths of a point, and what of it is cover.</summary>
    public (long Total, long Cover) Total(IReadOnlyList<PlanOption> set)
    {
        long cover = 0;
        for (var s = 0; s < Directions; s++)
        {
            var sum = 0;
            for (var i = 0; i < set.Count; i++)
            {
                sum += set[i].Cover[s];
            }
            cover += (long)Need[s] * Math.Min(Cap[s], sum);
        }
        long rest = 0;
        int goals = 0,
            pieces = 0,
            positions = 0;
        bool basic = false,
            well = false;
        for (var i = 0; i < set.Count; i++)
        {
            var option = set[i];
            rest += option.Own + ForCount(i);
            goals |= option.Goals;
            pieces |= option.Equipment;
            positions |= 1 << option.Position;
            basic |= option.Basic;
            well |= option.Well;
        }
        rest += (basic ? Base : 0) + (well ? DoneWell : 0);
        rest += (long)Goal * Bits(goals) + (long)Piece * Bits(pieces & ~FreePiece);
        rest += (long)Change * Math.Max(0, Bits(positions) - 1);
        return (cover + rest, cover);
    }

    public static int Bits(int mask) => System.Numerics.BitOperations.PopCount((uint)mask);
}
