using System.Net.ServerSentEvents;
using System.Runtime.CompilerServices;
using Microsoft.AspNetCore.Http.HttpResults;
using Palaestra.Server.Description;
using Palaestra.Server.People;

namespace Palaestra.Server.Live;

public static class LiveEndpoints
{
    private static readonly TimeSpan Beat = TimeSpan.FromSeconds(15);

    public static void MapLive(this IEndpointRouteBuilder routes) =>
        routes
            .MapGet("/api/live", Stream)
            .Described(
                "GetLiveNews",
                "Server-sent events: which visits were written to. Last-Event-ID takes the stream up again."
            )
            .WithTags("Live");

    /// <summary>Which visits have new events, as they are stored; ends with the account's sign-in.</summary>
    private static ServerSentEventsResult<News> Stream(
        VisitNews news,
        OpenSignIns signIns,
        IHostApplicationLifetime server,
        HttpContext context
    )
    {
        var stop = CancellationTokenSource.CreateLinkedTokenSource(
            context.RequestAborted,
            server.ApplicationStopping,
            signIns.EndOf(SignInClaim.Of(context.User)!.Value)
        );
        context.Response.RegisterForDispose(stop);
        // A proxy that collects answers would hold the news back.
        context.Response.Headers["X-Accel-Buffering"] = "no";
        var heard = context.Request.Headers["Last-Event-ID"].FirstOrDefault();
        var mine = SignInClaim.Of(context.User);
        bool SignedIn() => mine is { } id && signIns.Find(id) is not null;
        return TypedResults.ServerSentEvents(
            Sent(news.Listen(heard, Beat, () => Task.FromResult(SignedIn()), stop.Token), stop.Token)
        );
    }

    private static async IAsyncEnumerable<SseItem<News>> Sent(
        IAsyncEnumerable<NewsItem> items,
        [EnumeratorCancellation] CancellationToken gone
    )
    {
        await foreach (var item in items.WithCancellation(gone))
        {
            yield return item.News is { } news
                ? new SseItem<News>(news) { EventId = item.Id }
                : new SseItem<News>(new News(null), "beat");
        }
    }
}
