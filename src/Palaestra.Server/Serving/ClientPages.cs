using Microsoft.AspNetCore.StaticFiles;
using Microsoft.Extensions.FileProviders;
using Microsoft.Net.Http.Headers;
using Palaestra.Server.Problems;

namespace Palaestra.Server.Serving;

/// <summary>The client as it was built: its files, and its page for every address that is no other.</summary>
public static class ClientPages
{
    /// <summary>Where the build puts files whose names say what is in them.</summary>
    private const string Hashed = "/assets";

    /// <summary>
    /// Behind the routes and not among them, so that routing itself tells another method (405) and another content type (415)
    /// from an address that is not there.
    /// </summary>
    public static void UseClient(this WebApplication app, Settings settings)
    {
        if (Directory.Exists(settings.ClientFolder))
        {
            var files = new CompositeFileProvider(
                new PhysicalFileProvider(settings.ClientFolder),
                new KeptFiles(settings)
            );
            // By its name too the page is the one that knows its build.
            app.Use(
                (context, next) =>
                    ForPages(context) && context.Request.Path == "/index.html"
                        ? Page(context).ExecuteAsync(context)
                    : ForPages(context) && context.Request.Path == ClientBuild.WorkerPath
                        ? Worker(context).ExecuteAsync(context)
                    : next(Packed(context, files))
            );
            app.UseStaticFiles(
                new StaticFileOptions
                {
                    FileProvider = files,
                    ContentTypeProvider = new PackedTypes(),
                    OnPrepareResponse = file => Prepare(file.Context),
                }
            );
        }
        app.Use(
            (context, next) =>
                ForPages(context)
                && !context.Request.Path.StartsWithSegments("/api", StringComparison.OrdinalIgnoreCase)
                    ? Answer(context).ExecuteAsync(context)
                    : next(context)
        );
    }

    private static bool ForPages(HttpContext context) =>
        context.GetEndpoint() is null
        && (HttpMethods.IsGet(context.Request.Method) || HttpMethods.IsHead(context.Request.Method));

    /// <summary>Points to the smaller one of a file that was packed when the client was built, where the browser takes that.</summary>
    private static HttpContext Packed(HttpContext context, IFileProvider files)
    {
        var path = context.Request.Path.Value!;
        if (ForPages(context) && Path.HasExtension(path))
        {
            var best = PackedTypes.Suffixes.FirstOrDefault(suffix =>
                PackedTypes.Takes(context.Request, suffix.Encoding)
                && files.GetFileInfo(path + suffix.Extension).Exists
            );
            context.Request.Path = path + best.Extension;
        }
        return context;
    }

    private static void Prepare(HttpContext context)
    {
        var headers = context.Response.Headers;
        var path = context.Request.Path.Value!;
        headers.Vary = HeaderNames.AcceptEncoding;
        headers.CacheControl = path.StartsWith(Hashed, StringComparison.Ordinal) ? Forever : "no-cache";
        if (PackedTypes.EncodingOf(path) is { } encoding)
        {
            headers.ContentEncoding = encoding;
        }
    }

    /// <summary>Of what has another address once it is another.</summary>
    public const string Forever = "public, max-age=31536000, immutable";

    private static IResult Answer(HttpContext context) =>
        Path.HasExtension(context.Request.Path)
            ? Problem.Of(StatusCodes.Status404NotFound, Message.Of("problem.404"))
            : Page(context);

    /// <summary>What keeps the page in the browser: it has to know which page that is, and is another one with every other page.</summary>
    private static IResult Worker(HttpContext context)
    {
        if (context.RequestServices.GetRequiredService<ClientBuild>().Worker is not { } script)
        {
            return Problem.Of(StatusCodes.Status404NotFound, Message.Of("problem.404"));
        }
        context.Response.Headers.CacheControl = "no-cache";
        return Results.Text(script, "text/javascript; charset=utf-8");
    }

    private static IResult Page(HttpContext context)
    {
        if (context.RequestServices.GetRequiredService<ClientBuild>().Now is not { } page)
        {
            return Results.Problem(
                statusCode: 503,
                title: "The client is not built yet: run ./palaestra build."
            );
        }
        context.Response.Headers.CacheControl = "no-cache";
        return Results.Bytes(
            page.Html,
            "text/html; charset=utf-8",
            entityTag: new EntityTagHeaderValue($"\"{page.Build}\"")
        );
    }
}
