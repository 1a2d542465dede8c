using System.Net;
using Microsoft.AspNetCore.HttpOverrides;
using Palaestra.Server.Library;

namespace Palaestra.Server.Serving;

/// <summary>
/// How the server is reached: https where there is a certificate, by its own names only, through a named proxy or none, and
/// nothing of a record kept by whoever passes it on.
/// </summary>
public static class Door
{
    /// <summary>Names of this machine to itself.</summary>
    private static readonly string[] Here = ["localhost", "127.0.0.1", "[::1]"];

    public static void AddDoor(this WebApplicationBuilder builder, Settings settings)
    {
        var tls = TlsFiles.Of(settings);
        if (tls is not null)
        {
            var before = builder.WebHost.GetSetting(WebHostDefaults.ServerUrlsKey);
            builder.WebHost.UseUrls([
                .. (before ?? "http://localhost:5000").Split(';', StringSplitOptions.RemoveEmptyEntries),
                $"https://*:{settings.HttpsPort}",
            ]);
            builder.WebHost.ConfigureKestrel(kestrel =>
                kestrel.ConfigureHttpsDefaults(https =>
                {
                    https.ServerCertificate = tls.Certificate;
                    https.ServerCertificateChain = tls.Chain;
                })
            );
        }
        builder.Configuration["AllowedHosts"] = string.Join(
            ';',
            Here.Append(Environment.MachineName)
                .Concat((tls?.Names ?? []).Select(InHeader))
                .Concat(settings.Hosts)
                .Distinct(StringComparer.OrdinalIgnoreCase)
        );
        if (settings.Proxy is { } proxy)
        {
            builder.Services.Configure<ForwardedHeadersOptions>(forwarded =>
            {
                forwarded.ForwardedHeaders =
                    ForwardedHeaders.XForwardedFor | ForwardedHeaders.XForwardedProto;
                forwarded.ForwardLimit = 1;
                forwarded.KnownIPNetworks.Clear();
                forwarded.KnownProxies.Clear();
                forwarded.KnownProxies.Add(proxy);
            });
        }
    }

    public static void UseDoor(this WebApplication app, Settings settings)
    {
        if (settings.Proxy is not null)
        {
            app.UseForwardedHeaders();
        }
        app.Use(NoStore);
        app.Use(Versions);
    }

    /// <summary>What an address under /api answers is kept by nobody on the way, unless it says so itself.</summary>
    private static Task NoStore(HttpContext context, RequestDelegate next)
    {
        if (context.Request.Path.StartsWithSegments("/api", StringComparison.Ordinal))
        {
            context.Response.OnStarting(() =>
            {
                if (context.Response.Headers.CacheControl.Count == 0)
                {
                    context.Response.Headers.CacheControl = "no-store";
                }
                return Task.CompletedTask;
            });
        }
        return next(context);
    }

    /// <summary>What a page needs to know whether it and what it keeps are of now.</summary>
    private static Task Versions(HttpContext context, RequestDelegate next)
    {
        if (context.Request.Path.StartsWithSegments("/api", StringComparison.Ordinal))
        {
            context.Response.OnStarting(() =>
            {
                var services = context.RequestServices;
                var headers = context.Response.Headers;
                headers[WrittenLibrary.Header] = services.GetRequiredService<WrittenLibrary>().Version;
                if (services.GetRequiredService<ClientBuild>().Now is { } page)
                {
                    headers[ClientBuild.Header] = page.Build;
                }
                return Task.CompletedTask;
            });
        }
        return next(context);
    }

    /// <summary>An IPv6 address stands in brackets in a Host header.</summary>
    private static string InHeader(string name) =>
        IPAddress.TryParse(name, out var address)
        && address.AddressFamily == System.Net.Sockets.AddressFamily.InterNetworkV6
            ? $"[{name}]"
            : name;

    /// <summary>Addresses over which anybody on the network could read along.</summary>
    public static IReadOnlyList<string> Open(IEnumerable<string> addresses) =>
        [
            .. addresses.Where(address =>
                Uri.TryCreate(address, UriKind.Absolute, out var uri)
                && uri.Scheme == Uri.UriSchemeHttp
                && !uri.IsLoopback
            ),
        ];
}
