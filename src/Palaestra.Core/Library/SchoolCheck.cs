using System.Text.Json;
using System.Text.Json.Nodes;

namespace Palaestra.Core.Library;

/// <summary>Policies against the choices people can make: every value within its bounds or among its options.</summary>
public static class SchoolCheck
{
    /// <summary>What every policy has beside its choices.</summary>
    private static readonly HashSet<string> Own = ["id", "version", "name", "why"];

    /// <summary>Choices that name no setting of a policy, by field; empty where all do.</summary>
    public static IEnumerable<FieldError> Errors(SchoolsFile schools, PoliciesFile policies)
    {
        for (var i = 0; i < policies.Policies.Count; i++)
        {
            foreach (var error in Errors(policies.Policies[i], schools.Groups, ""))
            {
                yield return new($"policies.json policies[{i}].{error.Field}", error.Message);
            }
        }
        if (policies.Policies is [var first, ..])
        {
            var named = schools.Groups.SelectMany(g => g.Choices).Select(c => c.Path).ToHashSet();
            foreach (var path in Paths(Json(first), "").Where(path => !named.Contains(path)))
            {
                yield return new("schools.json groups", Message.Of("content.no-choice", ("path", path)));
            }
        }
    }

    /// <summary>Errors of one policy; fields are the paths of the choices under <paramref name="prefix"/>.</summary>
    public static IEnumerable<FieldError> Errors(
        Policy policy,
        IReadOnlyList<SchoolGroup> groups,
        string prefix
    )
    {
        var json = Json(policy);
        foreach (var choice in groups.SelectMany(group => group.Choices))
        {
            if (At(json, choice.Path) is not { } value)
            {
                yield return new(
                    prefix + choice.Path,
                    Message.Of("content.not-a-choice", ("choice", choice.Name))
                );
            }
            else if (Wrong(choice, value) is { } message)
            {
                yield return new(prefix + choice.Path, message);
            }
        }
        if (policy.ExercisesMin > policy.ExercisesMax)
        {
            yield return new($"{prefix}exercisesMin", Message.Of("school.exercises"));
        }
        if (policy.Irritability.Low.PainBelow > policy.Irritability.High.PainFrom)
        {
            yield return new($"{prefix}stirredUp.low.painBelow", Message.Of("school.calm"));
        }
    }

    private static Message? Wrong(SchoolChoice choice, JsonNode value) =>
        choice.Kind switch
        {
            ChoiceKind.Number => value.GetValue<double>() is var number
            && number >= choice.Min - 1e-9
            && number <= choice.Max + 1e-9
                ? null
                : Message.Of(
                    "school.between",
                    ("choice", choice.Name),
                    ("least", choice.Min),
                    ("most", choice.Max),
                    ("unit", choice.Unit)
                ),
            ChoiceKind.Option => Known(choice, value.GetValue<string>()),
            _ => value
                .AsArray()
                .Select(item => Known(choice, item!.GetValue<string>()))
                .FirstOrDefault(m => m is not null),
        };

    private static Message? Known(SchoolChoice choice, string id) =>
        choice.Options?.Any(option => option.Id == id) == true
            ? null
            : Message.Of("school.unknown", ("choice", choice.Name), ("id", id));

    private static JsonNode Json(Policy policy) => JsonSerializer.SerializeToNode(policy, CoreJson.Options)!;

    private static JsonNode? At(JsonNode json, string path) =>
        path.Split('.').Aggregate((JsonNode?)json, (node, name) => (node as JsonObject)?[name]);

    /// <summary>Paths of all values of a policy that are choices.</summary>
    private static IEnumerable<string> Paths(JsonNode node, string at) =>
        node is JsonObject parts
            ? parts
                .Where(part => at.Length > 0 || !Own.Contains(part.Key))
                .SelectMany(part => Paths(part.Value!, at.Length == 0 ? part.Key : $"{at}.{part.Key}"))
            : [at];
}
