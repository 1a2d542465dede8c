using Palaestra.Core.Body;

namespace Palaestra.Core.Charts;

/// <summary>From where the body on a chart is seen.</summary>
public enum ChartView
{
    /// <summary>From in front: the client's right is on the left of the picture.</summary>
    Front,

    /// <summary>From behind.</summary>
    Back,

    /// <summary>From the client's left.</summary>
    Left,

    /// <summary>From the client's right.</summary>
    Right,
}

/// <summary>What it feels like, as the client says.</summary>
public enum PainKind
{
    /// <summary>A dull ache.</summary>
    Ache,

    /// <summary>Sharp, stabbing.</summary>
    Sharp,

    /// <summary>Burning.</summary>
    Burning,

    /// <summary>Pins and needles.</summary>
    Pins,

    /// <summary>Numb: nothing, or little, is felt.</summary>
    Numb,
}

/// <summary>One place where it hurts, drawn by finger.</summary>
/// <param name="Strength">0 to 10, as pain elsewhere; of a numb place, how much is missing.</param>
/// <param name="Outline">A closed run of x, y, x, y in millimetres of the chart's body (<see cref="FigurePoint"/>), 3 to 200 corners.</param>
public sealed record PainArea(ChartView View, PainKind Kind, int Strength, IReadOnlyList<int> Outline);

/// <summary>What was answered when a drawn place asked for a question.</summary>
/// <param name="Question">Id of a red flag, or "below-knee".</param>
/// <param name="Side">Of the leg; both where the question has no side.</param>
public sealed record ChartAnswer(string Question, Side Side, bool Yes);

/// <summary>Where it hurts, as drawn at one visit.</summary>
/// <param name="Areas">As drawn, in their order; empty: nothing hurts, or nothing was drawn.</param>
/// <param name="Answers">The last one to each question; none: nothing was asked yet.</param>
public sealed record BodyChart(IReadOnlyList<PainArea> Areas, IReadOnlyList<ChartAnswer>? Answers = null)
{
    /// <summary>Areas of a chart at most.</summary>
    public const int AreasMax = 40;

    /// <summary>Corners of an outline at most.</summary>
    public const int CornersMax = 200;

    /// <summary>Nothing drawn.</summary>
    public static readonly BodyChart Empty = new([]);

    /// <summary>What cannot be kept, by field under <paramref name="path"/>; empty where nothing is wrong.</summary>
    public static IEnumerable<FieldError> Errors(BodyChart chart, string path)
    {
        if (chart.Areas.Count > AreasMax)
        {
            yield return new($"{path}.areas", Message.Of("chart.areas-most", ("most", AreasMax)));
            yield break;
        }
        for (var i = 0; i < chart.Areas.Count; i++)
        {
            var area = chart.Areas[i];
            if (area.Strength is < 0 or > 10)
            {
                yield return new($"{path}.areas[{i}].strength", Message.Of("chart.strength"));
            }
            if (area.Outline.Count % 2 != 0 || area.Outline.Count / 2 is < 3 or > CornersMax)
            {
                yield return new(
                    $"{path}.areas[{i}].outline",
                    Message.Of("chart.outline", ("most", CornersMax))
                );
            }
            else if (ChartReading.CellsOf(area).Count == 0)
            {
                yield return new($"{path}.areas[{i}].outline", Message.Of("chart.off-the-body"));
            }
        }
    }
}
