namespace Palaestra.Core.Agreement;

/// <summary>A share with the ends of its interval of 95 %, all 0 to 1.</summary>
public sealed record Proportion(double Value, double Low, double High)
{
    /// <summary>So many of so many, at least one; the ends hold where none or all are.</summary>
    /// <remarks>Wilson 1927, J Am Stat Assoc 22:209–212 (from memory).</remarks>
    public static Proportion Of(int some, int all)
    {
        const double z = 1.959964;
        double n = all;
        var p = some / n;
        var middle = (p + z * z / (2 * n)) / (1 + z * z / n);
        var half = z / (1 + z * z / n) * Math.Sqrt(p * (1 - p) / n + z * z / (4 * n * n));
        return new(p, Math.Max(0, middle - half), Math.Min(1, middle + half));
    }
}
