namespace Palaestra.Core.Abilities;

/// <summary>Smears each row of a grid by a normal curve, to four standard deviations; nothing leaves the grid.</summary>
internal sealed class GridBlur
{
    private readonly int rows;
    private readonly int length;
    private readonly double[] weights;

    /// <summary>By place, the share of the curve that lies on the grid.</summary>
    private readonly double[] inside;

    /// <param name="sd">In steps of the grid, above 0. <paramref name="length"/>: places in a row.</param>
    public GridBlur(double sd, int rows, int length)
    {
        this.rows = rows;
        this.length = length;
        weights =
        [
            .. Enumerable
                .Range(0, Math.Min(length, (int)Math.Ceiling(4 * sd) + 1))
                .Select(i => Math.Exp(-0.5 * Math.Pow(i / sd, 2))),
        ];
        inside = Smeared([.. Enumerable.Repeat(1.0, rows * length)])[..length];
    }

    /// <summary>Shares that move: their sum stays.</summary>
    public double[] Moved(double[] shares)
    {
        var before = new double[shares.Length];
        for (var k = 0; k < before.Length; k++)
        {
            before[k] = shares[k] / inside[k % length];
        }
        return Smeared(before);
    }

    /// <summary>Values of which each becomes the mean over its neighbourhood.</summary>
    public double[] Averaged(double[] values)
    {
        var after = Smeared(values);
        for (var k = 0; k < after.Length; k++)
        {
            after[k] /= inside[k % length];
        }
        return after;
    }

    private double[] Smeared(double[] values)
    {
        var after = new double[values.Length];
        for (var row = 0; row < rows; row++)
        {
            var from = values.AsSpan(row * length, length);
            var to = after.AsSpan(row * length, length);
            for (var i = 0; i < length; i++)
            {
                to[i] = weights[0] * from[i];
            }
            for (var d = 1; d < weights.Length; d++)
            {
                var weight = weights[d];
                for (var i = d; i < length; i++)
                {
                    to[i] += weight * from[i - d];
                    to[i - d] += weight * from[i];
                }
            }
        }
        return after;
    }
}
