using System.Collections.Concurrent;
using MathNet.Numerics.Distributions;
using Palaestra.Core.Library;

namespace Palaestra.Core.Abilities;

/// <summary>
/// Where an ability may stand, in even steps, with the chances of a clean rep from every place: for each spread from rep to
/// rep one row. Chances are worked out once for each height.
/// </summary>
/// <param name="from">The lowest place, rungs. <paramref name="to"/>: the highest; at least one step above.</param>
public sealed class AbilityGrid(double from, double to, AbilityModel model)
{
    private readonly ConcurrentDictionary<double, (double[] Clean, double[] Broken)> found = [];
    private readonly ConcurrentDictionary<double, GridBlur> blurs = [];

    /// <summary>The figures the grid was made from.</summary>
    public AbilityModel Model { get; } = model;

    /// <summary>Abilities of a row, lowest first, in the scale of the ladder's rungs.</summary>
    public double[] Points { get; } =
    [
        .. Enumerable
            .Range(0, (int)Math.Round((to - from) / model.Grid) + 1)
            .Select(i => from + i * model.Grid),
    ];

    /// <summary>Rows of the grid: one for each spread of the model.</summary>
    public int Rows => Model.Spreads.Count;

    /// <summary>Cells of the grid: rows times points.</summary>
    public int States => Rows * Points.Length;

    /// <summary>
    /// Logarithms of the chance that a rep is counted clean, and that it is marked, as the eye has them: a rep that gave way
    /// may be missed, a clean one marked. A thousandth of a rung apart is the same height.
    /// </summary>
    public (double[] Clean, double[] Broken) At(double height) =>
        found.GetOrAdd(Math.Round(height, 3), Chances);

    /// <summary>Chance that a rep is truly clean, from place <paramref name="point"/>, the day's ups and downs included.</summary>
    public double TrulyClean(int row, int point, double height) =>
        Normal.CDF(
            0,
            Math.Sqrt(Model.Spreads[row] * Model.Spreads[row] + Model.Day * Model.Day),
            Points[point] - height
        );

    /// <summary>A smear by a normal curve of this standard deviation, rungs above 0; kept, because days apart repeat.</summary>
    internal GridBlur Blur(double sd) =>
        blurs.GetOrAdd(sd, wide => new GridBlur(wide / Model.Grid, Rows, Points.Length));

    private (double[] Clean, double[] Broken) Chances(double height)
    {
        var clean = new double[States];
        var broken = new double[States];
        for (var row = 0; row < Rows; row++)
        {
            for (var i = 0; i < Points.Length; i++)
            {
                var held = Normal.CDF(0, Model.Spreads[row], Points[i] - height);
                var seen = (1 - Model.Imagined) * held + Model.Missed * (1 - held);
                clean[row * Points.Length + i] = Math.Log(Math.Max(Never, seen));
                broken[row * Points.Length + i] = Math.Log(Math.Max(Never, 1 - seen));
            }
        }
        return (clean, broken);
    }

    /// <summary>Nothing is ruled out for ever: a model without errors of the eye still meets a slip.</summary>
    private const double Never = 1e-9;
}
