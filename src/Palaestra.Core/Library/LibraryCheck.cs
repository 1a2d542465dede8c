using Palaestra.Core.Body;

namespace Palaestra.Core.Library;

/// <summary>Checks across files: dangling ids, doses out of order, missing poses. Each error names file and field.</summary>
public static class LibraryCheck
{
    public static IEnumerable<FieldError> Errors(
        IReadOnlyDictionary<string, Ladder> ladders,
        FaultsFile faults,
        PrecautionsFile precautions,
        PoliciesFile policies,
        SectorsFile sectors,
        IReadOnlyDictionary<string, Pose> poses,
        IReadOnlyDictionary<string, string> families,
        FaultPosesFile faultPoses
    )
    {
        var codes = faults.Faults.Select(fault => fault.Code).ToHashSet();
        var rungIds = ladders.Values.SelectMany(ladder => ladder.Rungs).Select(rung => rung.Id).ToList();
        foreach (var id in rungIds.GroupBy(id => id).Where(group => group.Count() > 1))
        {
            yield return new("ladders rungs.id", $"Rung {id.Key} is defined more than once.");
        }
        foreach (var (file, ladder) in ladders)
        {
            foreach (var error in LadderErrors(file, ladder, rungIds, codes, poses))
            {
                yield return error;
            }
        }
        foreach (var error in PrecautionErrors(ladders, precautions))
        {
            yield return error;
        }
        foreach (var error in DrawnFaultErrors(ladders, poses, families, faultPoses))
        {
            yield return error;
        }
        if (policies.Policies.Count == 0)
        {
            yield return new("policies.json policies", "At least one policy is needed.");
        }
        foreach (var sector in Enum.GetValues<Sector>().Except(sectors.Sectors.Select(text => text.Sector)))
        {
            yield return new("sectors.json sectors", $"There are no words for {sector}.");
        }
    }

    private static IEnumerable<FieldError> LadderErrors(
        string file,
        Ladder ladder,
        List<string> rungIds,
        HashSet<string> codes,
        IReadOnlyDictionary<string, Pose> poses
    )
    {
        if (ladder.Rungs.Count == 0)
        {
            yield return new($"{file} rungs", "A ladder needs at least one rung.");
        }
        if (ladder.Fallback is { } fallback && !rungIds.Contains(fallback))
        {
            yield return new($"{file} fallback", $"There is no rung {fallback}.");
        }
        for (var i = 0; i < ladder.Rungs.Count; i++)
        {
            var rung = ladder.Rungs[i];
            var at = $"{file} rungs[{i}]";
            foreach (var code in rung.Faults.Where(code => !codes.Contains(code)))
            {
                yield return new($"{at}.faults", $"There is no fault {code}.");
            }
            foreach (var pose in rung.Poses.Path.Where(pose => !poses.ContainsKey(pose)))
            {
                yield return new($"{at}.poses", $"There is no pose {pose}.");
            }
            foreach (var code in (rung.FaultKinds?.Keys ?? []).Where(code => !rung.Faults.Contains(code)))
            {
                yield return new($"{at}.faultKinds", $"{code} is not among the faults of this rung.");
            }
            if (rung.Start.Reps < 1 || rung.Start.Sets < 1 || rung.Start.Hold < 0)
            {
                yield return new(
                    $"{at}.start",
                    "A dose needs at least one rep and one set, and no negative hold."
                );
            }
            if (!rung.Target.Covers(rung.Start))
            {
                yield return new($"{at}.target", "The target dose is below the start dose.");
            }
            if (!rung.Cap.Covers(rung.Target))
            {
                yield return new($"{at}.cap", "The target dose is over the cap.");
            }
            if (rung.Endurance is { } one && (one.Reps != 1 || one.Sets != 1 || one.Hold <= 0))
            {
                yield return new($"{at}.endurance", "The endurance school has one rep of one set, held.");
            }
            foreach (var ease in rung.Eases ?? [])
            {
                if (ease.Change is not (OneChange.ShorterLever or OneChange.MoreSupport))
                {
                    yield return new($"{at}.eases", "A rung names shorter levers and more support only.");
                }
                if (ease.To is { } to && (to == rung.Id || !rungIds.Contains(to)))
                {
                    yield return new($"{at}.eases", $"There is no other rung {to}.");
                }
            }
            if (rung.Cues.Count == 0)
            {
                yield return new($"{at}.cues", "A rung needs at least one cue.");
            }
        }
        foreach (var (from, to) in ladder.Successors ?? new Dictionary<string, string>())
        {
            if (ladder.IndexOf(from) < 0 || ladder.Trained)
            {
                yield return new(
                    $"{file} successors",
                    $"{from} is not a rung of a ladder that is no longer trained."
                );
            }
            if (!rungIds.Contains(to) || ladder.IndexOf(to) >= 0)
            {
                yield return new($"{file} successors.{from}", $"There is no rung {to} on another ladder.");
            }
        }
        foreach (var id in (ladder.OffOrder?.Keys ?? []).Where(id => ladder.IndexOf(id) < 1))
        {
            yield return new($"{file} offOrder", $"{id} is not a rung of this ladder with one below it.");
        }
    }

    private static IEnumerable<FieldError> PrecautionErrors(
        IReadOnlyDictionary<string, Ladder> ladders,
        PrecautionsFile precautions
    )
    {
        for (var p = 0; p < precautions.Precautions.Count; p++)
        {
            for (var r = 0; r < precautions.Precautions[p].Rules.Count; r++)
            {
                var rule = precautions.Precautions[p].Rules[r];
                var at = $"precautions.json precautions[{p}].rules[{r}]";
                if (Selectors(rule).Count(given => given) != 1)
                {
                    yield return new(
                        at,
                        "Give exactly one of ladder, feature, strategy, position, rungs, from or everything."
                    );
                }
                foreach (var rungId in new[] { rule.From }.OfType<string>().Concat(rule.Rungs ?? []))
                {
                    if (ladders.Values.All(ladder => ladder.IndexOf(rungId) < 0))
                    {
                        yield return new($"{at}.rungs", $"There is no rung {rungId}.");
                    }
                }
                foreach (
                    var option in (rule.When ?? []).Where(o =>
                        precautions.Precautions[p].Options?.Any(known => known.Id == o) != true
                    )
                )
                {
                    yield return new($"{at}.when", $"There is no option {option}.");
                }
                if (rule.Range is { } range && !(range is > 0 and <= 1))
                {
                    yield return new($"{at}.range", "A range is a share of the movement: above 0, up to 1.");
                }
                if (rule.Ladder is { } id && ladders.Values.All(ladder => ladder.Id != id))
                {
                    yield return new($"{at}.ladder", $"There is no ladder {id}.");
                }
            }
        }
    }

    private static IEnumerable<bool> Selectors(PrecautionRule rule) =>
        [
            rule.Ladder is not null,
            rule.Feature is not null,
            rule.Strategy is not null,
            rule.Position is not null,
            rule.Rungs is not null,
            rule.From is not null,
            rule.Everything,
        ];

    private static IEnumerable<FieldError> DrawnFaultErrors(
        IReadOnlyDictionary<string, Ladder> ladders,
        IReadOnlyDictionary<string, Pose> poses,
        IReadOnlyDictionary<string, string> families,
        FaultPosesFile faultPoses
    )
    {
        foreach (var (file, ladder) in ladders)
        {
            for (var i = 0; i < ladder.Rungs.Count; i++)
            {
                var rung = ladder.Rungs[i];
                if (
                    poses.ContainsKey(rung.Poses.End)
                    && rung.Faults.Count > 0
                    && !faultPoses.FaultPoses.Any(pose =>
                        rung.Faults.Contains(pose.Fault) && pose.Families.Contains(families[rung.Poses.End])
                    )
                )
                {
                    yield return new(
                        $"{file} rungs[{i}].faults",
                        $"No fault of {rung.Id} has a pose for {families[rung.Poses.End]} in fault-poses.json."
                    );
                }
            }
        }
    }
}
