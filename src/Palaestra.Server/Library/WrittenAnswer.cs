using Microsoft.Net.Http.Headers;
using Palaestra.Server.Serving;

namespace Palaestra.Server.Library;

/// <summary>Answers what was written and packed before, packed to whoever takes that.</summary>
public sealed class WrittenAnswer(Written written) : IResult
{
    public async Task ExecuteAsync(HttpContext httpContext)
    {
        var response = httpContext.Response;
        var packed = PackedTypes.Takes(httpContext.Request, "br");
        var bytes = packed ? written.Brotli : written.Json;
        response.ContentType = "application/json; charset=utf-8";
        response.Headers.Vary = HeaderNames.AcceptEncoding;
        if (packed)
        {
            response.Headers.ContentEncoding = "br";
        }
        response.ContentLength = bytes.Length;
        await response.Body.WriteAsync(bytes, httpContext.RequestAborted);
    }
}
