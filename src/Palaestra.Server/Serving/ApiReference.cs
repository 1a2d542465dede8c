using NetEscapades.AspNetCore.SecurityHeaders;
using Scalar.AspNetCore;

namespace Palaestra.Server.Serving;

/// <summary>The API description as a page to read, from this server alone.</summary>
public static class ApiReference
{
    public const string Path = "/docs/api";

    public static void MapApiReference(this IEndpointRouteBuilder routes) =>
        routes
            .MapScalarApiReference(
                Path,
                (page, context) =>
                    page.WithTitle("Palaestra API")
                        .WithOpenApiRoutePattern("/openapi/{documentName}.json")
                        .WithNonce(context.GetNonce())
                        .WithTheme(ScalarTheme.None)
                        .DisableDefaultFonts()
                        .DisableTelemetry()
                        .DisableAgent()
                        .HideClientButton()
                        .HideDeveloperTools()
            )
            .AllowAnonymous()
            .AsReference();
}
