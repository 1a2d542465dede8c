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
        PosesFile poses
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
        foreach (var error in PoseErrors(poses))
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
        PosesFile poses
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
            foreach (
                var pose in new[] { rung.Poses.Start, rung.Poses.End }.Where(pose =>
                    !poses.Poses.ContainsKey(pose)
                )
            )
            {
                yield return new($"{at}.poses", $"There is no pose {pose}.");
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
            if (rung.Cues.Count == 0)
            {
                yield return new($"{at}.cues", "A rung needs at least one cue.");
            }
            if (rung.Demands.Any(demand => demand.Weight is < 0 or > 1))
            {
                yield return new($"{at}.demands", "A demand lies between 0 and 1.");
            }
            if (ladder.Screened && rung.Demands.Count == 0)
            {
                yield return new($"{at}.demands", "A screened rung says what it demands.");
            }
        }
        if (
            ladder.Screened
            && MainDemands(ladder).Zip(MainDemands(ladder).Skip(1)).Any(pair => pair.Second < pair.First)
        )
        {
            yield return new(
                $"{file} rungs",
                "The rungs are out of order: the greatest demand falls from one to the next."
            );
        }
    }

    private static IEnumerable<double> MainDemands(Ladder ladder) =>
        ladder.Rungs.Select(rung => rung.Demands.Select(demand => demand.Weight).DefaultIfEmpty(0).Max());

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
                if (new[] { rule.Ladder, rule.Feature, rule.Strategy }.Count(value => value is not null) != 1)
                {
                    yield return new(at, "Give exactly one of ladder, feature or strategy.");
                }
                if (rule.Ladder is { } id && ladders.Values.All(ladder => ladder.Id != id))
                {
                    yield return new($"{at}.ladder", $"There is no ladder {id}.");
                }
            }
        }
    }

    private static IEnumerable<FieldError> PoseErrors(PosesFile poses)
    {
        foreach (var (name, pose) in poses.Poses)
        {
            foreach (var joint in pose.Joints.Keys.Where(joint => !Skeleton.JointNames.Contains(joint)))
            {
                yield return new($"poses.json poses.{name}.joints", $"There is no joint {joint}.");
            }
            foreach (var point in pose.Contacts.Where(point => !Skeleton.ContactNames.Contains(point)))
            {
                yield return new($"poses.json poses.{name}.contacts", $"There is no contact point {point}.");
            }
            foreach (
                var free in pose.Solve.Where(free =>
                    free != Pose.RootPitch && !Skeleton.JointNames.Contains(free)
                )
            )
            {
                yield return new($"poses.json poses.{name}.solve", $"There is no joint {free}.");
            }
        }
    }
}
