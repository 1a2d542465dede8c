using Palaestra.Core.Library;

namespace Palaestra.Simulation;

/// <summary>How hard the rungs of a ladder are, in rungs.</summary>
public static class Heights
{
    /// <summary>
    /// Half by place, half by what the load model finds in the ladder's direction: on average one unit a rung, the lowest
    /// at 0, never downhill. By place alone where the ladder has no direction.
    /// </summary>
    public static double[] Of(Ladder ladder, PracticeLibrary library)
    {
        var asked = ladder
            .Rungs.Select(rung => library.Demands.Of(rung.Id).In(ladder.Direction, ladder.On, Side.Left))
            .Select(nm => Math.Log(Math.Max(1, nm)))
            .ToArray();
        var span = asked.Max() - asked[0];
        var top = asked[0];
        var heights = new double[asked.Length];
        for (var i = 0; i < asked.Length; i++)
        {
            top = Math.Max(top, asked[i]);
            heights[i] = span < 0.1 ? i : 0.5 * i + 0.5 * (top - asked[0]) / span * (asked.Length - 1);
        }
        return heights;
    }
}
