using System.Globalization;
using Palaestra.Core.Library;

namespace Palaestra.Core.Planning;

/// <summary>Doses, tempo and breath written out for somebody who does them alone.</summary>
public static class DoseText
{
    private static readonly string[] Numbers =
    [
        "no",
        "one",
        "two",
        "three",
        "four",
        "five",
        "six",
        "seven",
        "eight",
        "nine",
        "ten",
        "eleven",
        "twelve",
    ];

    /// <summary>"Two sets of five: 3 s out, hold 5 s, 3 s back; 60 s rest between sets."</summary>
    public static string Written(Dose dose, Rung rung, Policy policy)
    {
        if (rung.Features.Contains(Rung.ToleranceFeature))
        {
            return $"{Minutes(dose, rung)}.";
        }
        var rest = dose.Hold > 0 ? policy.Seconds.RestHolds : policy.Seconds.RestOther;
        var between = dose.Sets > 1 ? $"; {Seconds(rest)} rest between sets" : "";
        return $"{Count(dose)}{EachWay(rung, policy)}: {Rep(dose, rung, policy)}{between}.";
    }

    /// <summary>How one rep goes: "3 s out, hold 5 s, 3 s back". A rung that only holds has no out and back.</summary>
    public static string Rep(Dose dose, Rung rung, Policy policy)
    {
        if (rung.Features.Contains(Rung.ToleranceFeature))
        {
            return "at a pace that stays easy";
        }
        var held = dose.Hold > 0 ? $"hold {Seconds(dose.Hold)}" : null;
        if (!rung.Moves && held is not null)
        {
            return held;
        }
        var whole = RepTempo.MoveSeconds(rung, policy);
        var way = policy.Tempo.Out / (policy.Tempo.Out + policy.Tempo.Back);
        var parts = new[] { $"{Seconds(whole * way)} out", held, $"{Seconds(whole * (1 - way))} back" };
        return string.Join(", ", parts.OfType<string>());
    }

    /// <summary>A rep of walking is a minute, or a round of some.</summary>
    private static string Minutes(Dose dose, Rung rung)
    {
        var each = rung.MoveSeconds / 60;
        var count = Capital(Number(dose.TotalReps));
        return each > 1
            ? $"{count} rounds of {each.ToString("0.#", CultureInfo.InvariantCulture)} minutes"
            : $"{count} minutes";
    }

    /// <summary>" each way, outward then inward"; empty where the ways are mixed or there is one.</summary>
    private static string EachWay(Rung rung, Policy policy) =>
        policy.WaysOf(rung) is { Count: > 0 } ways
            ? $" each way, {string.Join(", then ", ways.Select(way => way.Words))}"
            : "";

    /// <summary>The policy's breath, or the rung's own where the policy leaves it free.</summary>
    public static string Breath(Rung rung, Policy policy) =>
        policy.Breath switch
        {
            BreathRule.WithEffort => "breathe out with the effort, in on the way back",
            BreathRule.AsLimbGoes => "breathe out as the limb goes away, in as it returns",
            _ => rung.Breath,
        };

    private static string Count(Dose dose)
    {
        if (dose is { Sets: > 1, Fewer: > 0 })
        {
            var sets = Enumerable.Range(0, dose.Sets).Select(set => Number(dose.RepsOf(set)));
            return $"{Capital(Number(dose.Sets))} sets, {string.Join(", then ", sets)}";
        }
        return dose.Sets == 1
            ? dose.Reps == 1
                ? "Once"
                : $"{Capital(Number(dose.Reps))} times"
            : $"{Capital(Number(dose.Sets))} sets of {Number(dose.Reps)}";
    }

    private static string Number(int value) =>
        value < Numbers.Length ? Numbers[value] : value.ToString(CultureInfo.InvariantCulture);

    private static string Seconds(double seconds) =>
        $"{Math.Round(seconds, 1).ToString(CultureInfo.InvariantCulture)} s";

    private static string Capital(string words) => char.ToUpperInvariant(words[0]) + words[1..];
}
