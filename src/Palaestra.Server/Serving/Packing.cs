using System.IO.Compression;
using Microsoft.AspNetCore.ResponseCompression;

namespace Palaestra.Server.Serving;

/// <summary>Answers are packed on their way; what streams, and what is packed already, is not.</summary>
public static class Packing
{
    private static readonly string[] Kinds =
    [
        "application/json",
        "application/problem+json",
        "text/html",
        "text/csv",
        "text/calendar",
        "image/svg+xml",
    ];

    public static void AddPacking(this IServiceCollection services)
    {
        services.AddResponseCompression(packing =>
        {
            // What is packed can tell its secrets by its length to whoever has a signed-in browser ask for words of their choice
            // (BREACH, 2013; from memory). Our cookie goes with no request that another site begins, and answers hold no secret.
            packing.EnableForHttps = true;
            packing.MimeTypes = Kinds;
            packing.Providers.Add<BrotliCompressionProvider>();
            packing.Providers.Add<GzipCompressionProvider>();
        });
        services.Configure<BrotliCompressionProviderOptions>(brotli =>
            brotli.Level = CompressionLevel.Fastest
        );
        services.Configure<GzipCompressionProviderOptions>(gzip => gzip.Level = CompressionLevel.Fastest);
    }
}
