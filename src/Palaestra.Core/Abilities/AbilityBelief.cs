namespace Palaestra.Core.Abilities;

/// <summary>
/// What is believed of one ability: a share for each place on the grid and each spread. A grid filter: between days it
/// widens with time, on a day it is weighed with what was seen, the day's own ups and downs averaged out.
/// </summary>
/// <remarks>Bayes on a grid; the model is the probit one of docs/findings.md. Worked by hand there and in <c>AbilityBeliefTests</c>.</remarks>
public sealed class AbilityBelief
{
    private readonly AbilityGrid grid;
    private readonly double[] shares;
    private readonly DateOnly? last;

    private AbilityBelief(AbilityGrid grid, double[] shares, DateOnly? last)
    {
        this.grid = grid;
        this.shares = shares;
        this.last = last;
    }

    /// <summary>Nothing seen: every place and spread alike.</summary>
    public static AbilityBelief Nothing(AbilityGrid grid) =>
        new(grid, [.. Enumerable.Repeat(1.0 / grid.States, grid.States)], null);

    /// <summary>After a day's work. Days go forward; an earlier one counts as the same day.</summary>
    public AbilityBelief After(DateOnly day, IEnumerable<AbilityEvidence> seen)
    {
        var days = last is { } before ? Math.Max(0, day.DayNumber - before.DayNumber) : 0;
        var drift = grid.Model.DriftPerWeek * Math.Sqrt(days / 7.0);
        var drifted = drift > 0 ? grid.Blur(drift).Moved(shares) : shares;
        var likely = Likelihood(seen);
        var now = new double[shares.Length];
        var sum = 0.0;
        for (var k = 0; k < now.Length; k++)
        {
            now[k] = (drifted[k] + Always) * likely[k];
            sum += now[k];
        }
        for (var k = 0; k < now.Length; k++)
        {
            now[k] /= sum;
        }
        return new(grid, now, days > 0 || last is null ? day : last);
    }

    /// <summary>The mean, rungs.</summary>
    public double Mean => Sum((row, i) => grid.Points[i]);

    /// <summary>Standard deviation of the ability, in rungs of the grid; 0 or more, none of it where all weight lies in one place.</summary>
    public double Sd
    {
        get
        {
            var mean = Mean;
            return Math.Sqrt(Sum((row, i) => Math.Pow(grid.Points[i] - mean, 2)));
        }
    }

    /// <summary>The spread from rep to rep, rungs.</summary>
    public double Spread => Sum((row, i) => grid.Model.Spreads[row]);

    /// <summary>Chance of a clean rep at a height, 0 to 1.</summary>
    public double ChanceClean(double height) => Sum((row, i) => grid.TrulyClean(row, i, height));

    /// <summary>The place below which a share of the belief lies, rungs; each place stands for half a step to either side.</summary>
    public double Quantile(double share)
    {
        var sum = 0.0;
        for (var i = 0; i < grid.Points.Length; i++)
        {
            var here = Enumerable.Range(0, grid.Rows).Sum(row => shares[row * grid.Points.Length + i]);
            if (sum + here >= share)
            {
                return grid.Points[i] + grid.Model.Grid * ((share - sum) / here - 0.5);
            }
            sum += here;
        }
        return grid.Points[^1];
    }

    /// <summary>No place is ruled out for ever, whatever was seen before: the next day may say the opposite.</summary>
    private const double Always = 1e-15;

    private double[] Likelihood(IEnumerable<AbilityEvidence> seen)
    {
        var log = new double[shares.Length];
        foreach (var same in seen.GroupBy(reps => reps.Height))
        {
            var (clean, broken) = grid.At(same.Key);
            double held = same.Sum(reps => reps.Clean);
            double gaveWay = same.Sum(reps => reps.Broken);
            for (var k = 0; k < log.Length; k++)
            {
                log[k] += held * clean[k] + gaveWay * broken[k];
            }
        }
        var most = log.Max();
        for (var k = 0; k < log.Length; k++)
        {
            log[k] = Math.Exp(log[k] - most);
        }
        return grid.Model.Day > 0 ? grid.Blur(grid.Model.Day).Averaged(log) : log;
    }

    private double Sum(Func<int, int, double> value)
    {
        var sum = 0.0;
        for (var row = 0; row < grid.Rows; row++)
        {
            for (var i = 0; i < grid.Points.Length; i++)
            {
                sum += shares[row * grid.Points.Length + i] * value(row, i);
            }
        }
        return sum;
    }
}
