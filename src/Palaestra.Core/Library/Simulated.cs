using System.Text.Json;
using System.Text.Json.Nodes;

namespace Palaestra.Core.Library;

/// <summary>What simulated courses came to; shares from 0 to 1, each with its standard error.</summary>
/// <param name="Up12">Clients with half their exercises a rung up in twelve weeks, truly held.</param>
/// <param name="Flared">Clients who flared at least once.</param>
/// <param name="TooEarly">Steps up that went above true ability; none where there were no steps.</param>
public sealed record SimulatedFigures(
    double Up12,
    double Up12Error,
    double Flared,
    double FlaredError,
    double? TooEarly,
    double? TooEarlyError
);

/// <summary>One choice of a policy set to another value, all others as they are.</summary>
/// <param name="Path">As in <see cref="SchoolChoice"/>: "judgement.readyVisits".</param>
public sealed record SimulatedChoice(string Path, double Value, SimulatedFigures Figures);

/// <summary>What a run of simulated courses says of the choices of a policy, to be shown beside them.</summary>
/// <param name="Nature">Of the simulated clients. <paramref name="Clients"/>: as many in each row.</param>
/// <param name="PolicyId">The built-in policy that was changed, one choice at a time. <paramref name="AsItIs"/>: unchanged.</param>
public sealed record Simulated(
    string Nature,
    int Clients,
    int Seed,
    string PolicyId,
    SimulatedFigures AsItIs,
    IReadOnlyList<SimulatedChoice> Changed
)
{
    /// <summary>Every row speaks of a number that can be chosen, within its bounds.</summary>
    public IEnumerable<FieldError> Errors(IReadOnlyList<SchoolGroup> schools)
    {
        var numbers = schools
            .SelectMany(group => group.Choices)
            .Where(choice => choice.Kind == ChoiceKind.Number)
            .ToDictionary(choice => choice.Path);
        for (var i = 0; i < Changed.Count; i++)
        {
            if (!numbers.TryGetValue(Changed[i].Path, out var choice))
            {
                yield return new(
                    $"simulated.json changed[{i}].path",
                    Message.Of("content.no-number", ("path", Changed[i].Path))
                );
            }
            else if (Changed[i].Value < choice.Min || Changed[i].Value > choice.Max)
            {
                yield return new(
                    $"simulated.json changed[{i}].value",
                    Message.Of("content.not-chosen", ("value", Changed[i].Value))
                );
            }
        }
    }

    /// <summary>A policy with one number changed.</summary>
    /// <exception cref="ArgumentException">There is no such number in a policy.</exception>
    public static Policy With(Policy policy, string path, double value)
    {
        var whole = JsonSerializer.SerializeToNode(policy, CoreJson.Options)!;
        var steps = path.Split('.');
        var at = whole;
        foreach (var step in steps[..^1])
        {
            at = at[step] ?? throw new ArgumentException($"There is no {path} in a policy.", nameof(path));
        }
        if (at[steps[^1]] is not JsonValue)
        {
            throw new ArgumentException($"There is no number {path} in a policy.", nameof(path));
        }
        at[steps[^1]] = value == Math.Floor(value) ? JsonValue.Create((long)value) : JsonValue.Create(value);
        return whole.Deserialize<Policy>(CoreJson.Options)!;
    }
}
