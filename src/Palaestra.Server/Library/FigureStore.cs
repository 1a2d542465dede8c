using System.Collections.Concurrent;
using Palaestra.Core.Body;
using Palaestra.Core.Library;

namespace Palaestra.Server.Library;

/// <summary>Which picture of a rung.</summary>
public enum Frame
{
    Start,
    End,

    /// <summary>The end with the start behind it and arrows for what moves.</summary>
    Together,
}

/// <summary>Drawings by rung, side, view and frame, each made once.</summary>
public sealed class FigureStore(PracticeLibrary library)
{
    /// <summary>Pictures of a movement out; the way back is the same ones in turn.</summary>
    public const int FrameCount = 25;

    private readonly ConcurrentDictionary<
        (string Rung, Side Side, View View, string Picture),
        Figure
    > figures = new();
    private readonly ConcurrentDictionary<(string Rung, Side Side, View View), IReadOnlyList<Figure>> frames =
        new();

    /// <param name="range">Share of the movement at which an end is drawn, above 0 to 1; kept to the nearest twentieth.</param>
    public Figure Of(Rung rung, Side side, Frame frame, View? view = null, double range = 1)
    {
        var share = Math.Max(1, Math.Round(Math.Min(range, 1) * 20)) / 20;
        return figures.GetOrAdd(
            (rung.Id, side, view ?? rung.View, $"{frame} {share:0.00}"),
            key => Draw(rung, side, frame, key.View, share)
        );
    }

    /// <summary>Even steps of the movement, in one frame and painting order.</summary>
    public IReadOnlyList<Figure> Moving(Rung rung, Side side, View? view = null) =>
        frames.GetOrAdd(
            (rung.Id, side, view ?? rung.View),
            key => Drawing(rung, side, key.View).Frames(FrameCount, $"{rung.Name}: {rung.Movement}")
        );

    /// <summary>Pictures between which a page that carries its drawings with it fills in the rest.</summary>
    private const int KeyframeCount = 5;

    /// <summary>A few even steps of the movement, as far as it is done; in one frame and painting order.</summary>
    /// <param name="range">Share of the movement that is done, above 0 to 1.</param>
    public IReadOnlyList<Figure> Keyframes(Rung rung, Side side, double range) =>
        Drawing(rung, side, rung.View).Frames(rung.Moves ? KeyframeCount : 1, rung.Name, range);

    /// <summary>Pictures of the way from one rung to another; about a second of them.</summary>
    private const int ChangeFrames = 13;

    /// <summary>The body on its way from the end of one rung to the end of another; empty where it would have to turn over.</summary>
    public IReadOnlyList<Figure> Changing(Rung before, Rung rung, Side side) =>
        FigureDrawing.Change(
            library.PathOf(before),
            library.PathOf(rung),
            side,
            rung.View,
            ChangeFrames,
            $"{rung.Name}: {rung.Movement}"
        );

    /// <summary>
    /// The fault over the clean posture; none where the library has no drawing of it. What turns or tips aside does not show
    /// from the side, so it is drawn from in front and above.
    /// </summary>
    public Figure? Faulty(Rung rung, Side side, Fault fault, View? view = null)
    {
        if (library.FaultyPose(rung, fault.Code) is not { } pose)
        {
            return null;
        }
        var best = rung.View == View.Side && fault.Plane != "sagittal" ? View.ThreeQuarter : rung.View;
        return figures.GetOrAdd(
            (rung.Id, side, view ?? best, fault.Code),
            key =>
                Drawing(rung, side, key.View)
                    .Faulty(pose, fault.Region, $"{rung.Name}, {fault.Name}: {fault.Seen}")
        );
    }

    private Figure Draw(Rung rung, Side side, Frame frame, View view, double share)
    {
        var drawing = Drawing(rung, side, view);
        var words = $"{rung.Name}: {rung.Movement}";
        return frame switch
        {
            Frame.Start => drawing.Moment(0, $"{rung.Name}: {string.Join(", ", rung.Setup)}"),
            Frame.End => drawing.Moment(share, words),
            _ => drawing.Together(words),
        };
    }

    private FigureDrawing Drawing(Rung rung, Side side, View view) => new(library.PathOf(rung), side, view);
}
