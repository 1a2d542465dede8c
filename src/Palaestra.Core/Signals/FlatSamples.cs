using System.Collections;

namespace Palaestra.Core.Signals;

/// <summary>
/// Samples of a long trace in one array, moment after moment, each with as many values as there are channels; a moment asked for is a
/// copy. An array for each moment takes twice the room.
/// </summary>
/// <param name="values">As many for each moment as <paramref name="channels"/>; not a number where one is missing.</param>
public sealed class FlatSamples(double[] values, int channels) : IReadOnlyList<double[]>
{
    /// <summary>How many samples there are.</summary>
    public int Count => values.Length / channels;

    /// <summary>A sample: one value for each channel, NaN where there was none.</summary>
    public double[] this[int index] => values[(index * channels)..((index + 1) * channels)];

    /// <summary>All samples in order.</summary>
    public IEnumerator<double[]> GetEnumerator()
    {
        for (var i = 0; i < Count; i++)
        {
            yield return this[i];
        }
    }

    IEnumerator IEnumerable.GetEnumerator() => GetEnumerator();
}
