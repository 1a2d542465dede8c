using System.Collections.Concurrent;
using Microsoft.AspNetCore.Http.Json;
using Microsoft.Extensions.Options;
using Palaestra.Core.Body;
using Palaestra.Core.Library;
using Palaestra.Server.Policies;

namespace Palaestra.Server.Library;

/// <summary>All drawings of a side as they are answered, each drawn and written once. Policies do not change a drawing.</summary>
public sealed class WrittenSheets(PolicyLibrary policies, FigureStore figures, IOptions<JsonOptions> json)
{
    private readonly ConcurrentDictionary<Side, Lazy<Written>> sheets = new();

    public Written Of(Side side) =>
        sheets
            .GetOrAdd(side, drawn => new(() => Written.Of(Draw(drawn), json.Value.SerializerOptions)))
            .Value;

    private IReadOnlyList<RungFigure> Draw(Side side) =>
        [
            .. policies
                .BuiltIn.Ladders.SelectMany(ladder => ladder.Rungs)
                .AsParallel()
                .AsOrdered()
                .Select(rung => new RungFigure(rung.Id, figures.Of(rung, side, Frame.Together))),
        ];
}
