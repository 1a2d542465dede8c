using System.Text.Json;
using Microsoft.AspNetCore.Http.Json;
using Microsoft.Extensions.Options;

namespace Palaestra.Server.Instruments;

/// <summary>
/// Reads a large JSON body in one piece of its own length: the framework's reader takes several times as much while it looks for
/// the end of a long string.
/// </summary>
internal static class WholeBody
{
    private const int Large = 4_000_000;

    /// <exception cref="BadHttpRequestException">Not JSON, larger than <paramref name="most"/> bytes, cut, or not a <typeparamref name="T"/>.</exception>
    public static async Task<T> Read<T>(HttpContext context, int most)
        where T : class
    {
        var request = context.Request;
        if (!request.HasJsonContentType())
        {
            throw new BadHttpRequestException(
                "This kind of content is not read here.",
                StatusCodes.Status415UnsupportedMediaType
            );
        }
        if (request.ContentLength > most)
        {
            throw new BadHttpRequestException("Too large.", StatusCodes.Status413PayloadTooLarge);
        }
        GiveBack(request);
        var options = context
            .RequestServices.GetRequiredService<IOptions<JsonOptions>>()
            .Value.SerializerOptions;
        var parsed = Parsed<T>((await Bytes(request, context.RequestAborted)).Span, options);
        // What is needed of the body is in what was parsed.
        GiveBack(request);
        return parsed;
    }

    private static T Parsed<T>(ReadOnlySpan<byte> body, JsonSerializerOptions options)
        where T : class
    {
        try
        {
            return JsonSerializer.Deserialize<T>(body, options)
                ?? throw new JsonException("There are null values where the form should be.");
        }
        catch (JsonException problem)
        {
            throw new BadHttpRequestException(problem.Message, problem);
        }
    }

    /// <summary>
    /// Around a large body, what earlier ones and the start took is given back to the machine: by itself the runtime would keep it, as
    /// if large files came one after the other all day. Takes about a tenth of a second.
    /// </summary>
    public static void GiveBack(HttpRequest request)
    {
        if (request.ContentLength > Large)
        {
            GC.Collect(GC.MaxGeneration, GCCollectionMode.Aggressive, blocking: true, compacting: true);
        }
    }

    private static async Task<ReadOnlyMemory<byte>> Bytes(HttpRequest request, CancellationToken cancel)
    {
        if (request.ContentLength is { } length)
        {
            var bytes = new byte[length];
            await request.Body.ReadExactlyAsync(bytes, cancel);
            return bytes;
        }
        using var grown = new MemoryStream();
        await request.Body.CopyToAsync(grown, cancel);
        return grown.GetBuffer().AsMemory(0, (int)grown.Length);
    }
}
