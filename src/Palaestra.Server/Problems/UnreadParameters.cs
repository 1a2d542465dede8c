using System.Collections.Concurrent;
using System.Reflection;
using Microsoft.AspNetCore.Http.Metadata;

namespace Palaestra.Server.Problems;

/// <summary>
/// Names the part of an address that could not be read. What is generated for reading requests says nothing of a value that may
/// be left out and was given wrongly, but sets the status and goes on; the refusal is made here, as for all others.
/// </summary>
public static class UnreadParameters
{
    private static readonly ConcurrentDictionary<Type, Func<string, bool>> Readers = [];

    public static TBuilder RefuseUnreadParameters<TBuilder>(this TBuilder builder)
        where TBuilder : IEndpointConventionBuilder
    {
        builder.AddEndpointFilter(
            async (context, next) =>
                context.HttpContext.Response.StatusCode == StatusCodes.Status400BadRequest
                    ? throw new BadHttpRequestException(Found(context.HttpContext))
                    : await next(context)
        );
        return builder;
    }

    /// <summary>In the framework's own words, which <see cref="BadRequestHandler"/> reads.</summary>
    private static string Found(HttpContext http)
    {
        foreach (
            var parameter in http.GetEndpoint()!
                .Metadata.OfType<IParameterBindingMetadata>()
                .Where(p => p.HasTryParse)
        )
        {
            var given = http.Request.RouteValues.TryGetValue(parameter.Name, out var part)
                ? $"{part}"
                : http.Request.Query[parameter.Name].FirstOrDefault();
            if (!string.IsNullOrEmpty(given) && !Reads(parameter.ParameterInfo.ParameterType, given))
            {
                return $"Failed to bind parameter \"{parameter.Name}\" from \"{given}\".";
            }
        }
        return "A part of the request could not be read.";
    }

    private static bool Reads(Type type, string text) =>
        Readers.GetOrAdd(Nullable.GetUnderlyingType(type) ?? type, ReaderOf)(text);

    private static Func<string, bool> ReaderOf(Type type)
    {
        const BindingFlags ours = BindingFlags.Public | BindingFlags.Static;
        var result = type.MakeByRefType();
        var (reader, more) = type.GetMethod(
            "TryParse",
            ours,
            [typeof(string), typeof(IFormatProvider), result]
        )
            is { } local
            ? (local, (object?[])[null])
            : (type.GetMethod("TryParse", ours, [typeof(string), result]), (object?[])[]);
        return reader is null ? _ => true : text => (bool)reader.Invoke(null, [text, .. more, null])!;
    }
}
