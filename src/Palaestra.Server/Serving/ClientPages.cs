using Microsoft.Extensions.FileProviders;
using Palaestra.Server.Problems;

namespace Palaestra.Server.Serving;

/// <summary>The client as it was built: its files, and its page for every address that is no other.</summary>
public static class ClientPages
{
    /// <summary>
    /// Behind the routes and not among them, so that routing itself tells another method (405) and another content type (415)
    /// from an address that is not there.
    /// </summary>
    public static void UseClient(this WebApplication app, Settings settings)
    {
        if (Directory.Exists(settings.ClientFolder))
        {
            app.UseStaticFiles(
                new StaticFileOptions { FileProvider = new PhysicalFileProvider(settings.ClientFolder) }
            );
        }
        app.Use(
            (context, next) =>
                context.GetEndpoint() is null
                && (HttpMethods.IsGet(context.Request.Method) || HttpMethods.IsHead(context.Request.Method))
                && !context.Request.Path.StartsWithSegments("/api", StringComparison.OrdinalIgnoreCase)
                    ? Answer(context.Request.Path, settings).ExecuteAsync(context)
                    : next(context)
        );
    }

    private static IResult Answer(string? path, Settings settings) =>
        Path.HasExtension(path) ? Missing() : Page(settings);

    private static IResult Missing() => Problem.Of(StatusCodes.Status404NotFound, Message.Of("problem.404"));

    private static IResult Page(Settings settings)
    {
        var page = Path.Combine(settings.ClientFolder, "index.html");
        return File.Exists(page)
            ? Results.File(page, "text/html; charset=utf-8")
            : Results.Problem(statusCode: 503, title: "The client is not built yet: run ./palaestra build.");
    }
}
