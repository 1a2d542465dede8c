using System.Collections.Concurrent;
using Palaestra.Core.Body;
using Palaestra.Core.Library;

namespace Palaestra.Server.Library;

public enum Frame
{
    Start,
    End,
}

/// <summary>Drawings by rung, side and frame, each made once.</summary>
public sealed class FigureStore(PracticeLibrary library)
{
    private readonly ConcurrentDictionary<(string, Side, Frame), Figure> figures = new();

    public Figure Of(Rung rung, Side side, Frame frame) =>
        figures.GetOrAdd((rung.Id, side, frame), key => Draw(rung, key.Item2, key.Item3));

    private Figure Draw(Rung rung, Side side, Frame frame)
    {
        var pose = library.Poses[frame == Frame.Start ? rung.Poses.Start : rung.Poses.End];
        var words =
            frame == Frame.Start
                ? $"{rung.Name}, start: {string.Join(", ", rung.Setup)}"
                : $"{rung.Name}: {rung.Movement}";
        return FigureDrawing.Of(pose, side, words);
    }
}
