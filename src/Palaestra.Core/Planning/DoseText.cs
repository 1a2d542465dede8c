using Palaestra.Core.Library;

namespace Palaestra.Core.Planning;

/// <summary>Doses, tempo and breath told to somebody who does them alone.</summary>
public static class DoseText
{
    /// <summary>"Two sets of five: 3 s out, hold 5 s, 3 s back; 60 s rest between sets."</summary>
    public static Message Written(Dose dose, Rung rung, Policy policy)
    {
        if (rung.Features.Contains(Rung.ToleranceFeature))
        {
            // A rep of walking is a minute, or a round of some.
            return Message.Of(
                "written.minutes",
                ("count", dose.TotalReps),
                ("each", rung.MoveSeconds > 60 ? rung.MoveSeconds / 60 : null)
            );
        }
        return Message.Of(
            "written",
            ("sets", dose.Sets),
            ("reps", dose.Reps),
            (
                "each",
                dose is { Sets: > 1, Fewer: > 0 } ? Enumerable.Range(0, dose.Sets).Select(dose.RepsOf) : null
            ),
            ("ways", policy.WaysOf(rung) is { Count: > 0 } ways ? ways.Select(way => way.Words) : null),
            ("rep", Rep(dose, rung, policy)),
            (
                "rest",
                dose.Sets > 1
                    ? dose.Hold > 0
                        ? policy.Seconds.RestHolds
                        : policy.Seconds.RestOther
                    : null
            )
        );
    }

    /// <summary>How one rep goes: "3 s out, hold 5 s, 3 s back". A rung that only holds has no out and back.</summary>
    public static Message Rep(Dose dose, Rung rung, Policy policy)
    {
        if (rung.Features.Contains(Rung.ToleranceFeature))
        {
            return Message.Of("rep.easy-pace");
        }
        double? hold = dose.Hold > 0 ? dose.Hold : null;
        if (!rung.Moves && hold is not null)
        {
            return Message.Of("rep", ("hold", hold));
        }
        var whole = RepTempo.MoveSeconds(rung, policy);
        var way = policy.Tempo.Out / (policy.Tempo.Out + policy.Tempo.Back);
        return Message.Of("rep", ("out", whole * way), ("hold", hold), ("back", whole * (1 - way)));
    }

    /// <summary>The policy's breath, or the rung's own where the policy leaves it free.</summary>
    public static Message Breath(Rung rung, Policy policy) =>
        policy.Breath switch
        {
            BreathRule.WithEffort => Message.Of("breath.with-effort"),
            BreathRule.AsLimbGoes => Message.Of("breath.as-limb-goes"),
            _ => Message.Plain(rung.Breath),
        };
}
