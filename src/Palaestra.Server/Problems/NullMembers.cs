using System.Collections;
using System.Collections.Concurrent;
using System.Reflection;
using System.Text.Json.Serialization;

namespace Palaestra.Server.Problems;

/// <summary>
/// Refuses nothing where something must be, in lists and in members that have a value of their own when they are left out: the
/// field is named, nothing is stored.
/// </summary>
public static class NullMembers
{
    private const int DeepestMost = 24;
    private static readonly ConcurrentDictionary<Type, Member[]> Known = [];

    /// <summary>Before an endpoint runs, its body is looked through.</summary>
    public static TBuilder RefuseNullMembers<TBuilder>(this TBuilder builder)
        where TBuilder : IEndpointConventionBuilder
    {
        builder.AddEndpointFilter(
            async (context, next) =>
            {
                // What comes from the container was not sent.
                var services =
                    context.HttpContext.RequestServices.GetRequiredService<IServiceProviderIsService>();
                var errors = context
                    .Arguments.Where(argument =>
                        argument is not null
                        && IsOurs(argument.GetType())
                        && !services.IsService(argument.GetType())
                    )
                    .SelectMany(argument => Errors(argument!, "", 0))
                    .Take(20)
                    .ToList();
                return errors.Count > 0 ? Problem.Fields(errors) : await next(context);
            }
        );
        return builder;
    }

    public static IEnumerable<FieldError> Errors(object value, string path, int depth)
    {
        if (depth > DeepestMost)
        {
            yield break;
        }
        foreach (var (property, required) in Looked(value.GetType()))
        {
            var name =
                property.GetCustomAttribute<JsonPropertyNameAttribute>()?.Name
                ?? char.ToLowerInvariant(property.Name[0]) + property.Name[1..];
            var at = path.Length == 0 ? name : $"{path}.{name}";
            var inner = property.GetValue(value);
            if (inner is null && required)
            {
                yield return new(at, Message.Of("request.null"));
            }
            else if (inner is IEnumerable list and not string)
            {
                var i = 0;
                foreach (var item in list)
                {
                    if (item is null)
                    {
                        yield return new($"{at}[{i}]", Message.Of("capture.empty"));
                    }
                    else if (IsOurs(item.GetType()))
                    {
                        foreach (var error in Errors(item, $"{at}[{i}]", depth + 1))
                        {
                            yield return error;
                        }
                    }
                    i++;
                }
            }
            else if (inner is not null && IsOurs(inner.GetType()))
            {
                foreach (var error in Errors(inner, at, depth + 1))
                {
                    yield return error;
                }
            }
        }
    }

    /// <summary>Properties that can hold a list or one of our own records: what was given, not what is worked out from it.</summary>
    private static Member[] Looked(Type type) =>
        Known.GetOrAdd(
            type,
            t =>
                [
                    .. t.GetProperties(BindingFlags.Public | BindingFlags.Instance)
                        .Where(p => p.CanWrite && p.GetIndexParameters().Length == 0)
                        .Where(p =>
                            (
                                p.PropertyType != typeof(string)
                                && typeof(IEnumerable).IsAssignableFrom(p.PropertyType)
                            ) || IsOurs(p.PropertyType)
                        )
                        .Select(p => new Member(
                            p,
                            new NullabilityInfoContext().Create(p).WriteState == NullabilityState.NotNull
                        )),
                ]
        );

    /// <param name="Required">It is never nothing.</param>
    private sealed record Member(PropertyInfo Property, bool Required);

    private static bool IsOurs(Type type) =>
        (Nullable.GetUnderlyingType(type) ?? type) is { IsEnum: false } t
        && t.Namespace?.StartsWith("Palaestra", StringComparison.Ordinal) == true;
}
