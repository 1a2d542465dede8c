using Palaestra.Core.Body;

namespace Palaestra.Core.Library;

/// <summary>Checks across files: dangling ids, doses out of order, missing poses. Each error names file and field.</summary>
public static class LibraryCheck
{
    /// <summary>What does not fit together among the content files, by file and field; empty where all does.</summary>
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
            yield return new("ladders rungs.id", Message.Of("content.rung-twice", ("rung", id.Key)));
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
            yield return new("policies.json policies", Message.Of("content.no-policy"));
        }
        foreach (var sector in Enum.GetValues<Sector>().Except(sectors.Sectors.Select(text => text.Sector)))
        {
            yield return new("sectors.json sectors", Message.Of("content.no-sector", ("sector", sector)));
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
            yield return new($"{file} rungs", Message.Of("content.empty-ladder"));
        }
        if (ladder.Fallback is { } fallback && !rungIds.Contains(fallback))
        {
            yield return new($"{file} fallback", Message.Of("content.no-rung", ("rung", fallback)));
        }
        for (var i = 0; i < ladder.Rungs.Count; i++)
        {
            var rung = ladder.Rungs[i];
            var at = $"{file} rungs[{i}]";
            foreach (var code in rung.Faults.Where(code => !codes.Contains(code)))
            {
                yield return new($"{at}.faults", Message.Of("content.no-fault", ("fault", code)));
            }
            foreach (var pose in rung.Poses.Path.Where(pose => !poses.ContainsKey(pose)))
            {
                yield return new($"{at}.poses", Message.Of("content.no-pose", ("pose", pose)));
            }
            foreach (var code in (rung.FaultKinds?.Keys ?? []).Where(code => !rung.Faults.Contains(code)))
            {
                yield return new($"{at}.faultKinds", Message.Of("content.fault-kind", ("fault", code)));
            }
            if (rung.Start.Reps < 1 || rung.Start.Sets < 1 || rung.Start.Hold < 0)
            {
                yield return new($"{at}.start", Message.Of("dose.least"));
            }
            if (!rung.Target.Covers(rung.Start))
            {
                yield return new($"{at}.target", Message.Of("content.target"));
            }
            if (!rung.Cap.Covers(rung.Target))
            {
                yield return new($"{at}.cap", Message.Of("content.cap"));
            }
            if (rung.Endurance is { } one && (one.Reps != 1 || one.Sets != 1 || one.Hold <= 0))
            {
                yield return new($"{at}.endurance", Message.Of("content.endurance"));
            }
            foreach (var ease in rung.Eases ?? [])
            {
                if (ease.Change is not (OneChange.ShorterLever or OneChange.MoreSupport))
                {
                    yield return new($"{at}.eases", Message.Of("content.eases"));
                }
                if (ease.To is { } to && (to == rung.Id || !rungIds.Contains(to)))
                {
                    yield return new($"{at}.eases", Message.Of("content.ease-to", ("rung", to)));
                }
            }
            if (rung.Cues.Count == 0)
            {
                yield return new($"{at}.cues", Message.Of("content.cues"));
            }
        }
        foreach (var (from, to) in ladder.Successors ?? new Dictionary<string, string>())
        {
            if (ladder.IndexOf(from) < 0 || ladder.Trained)
            {
                yield return new($"{file} successors", Message.Of("content.successor-from", ("rung", from)));
            }
            if (!rungIds.Contains(to) || ladder.IndexOf(to) >= 0)
            {
                yield return new(
                    $"{file} successors.{from}",
                    Message.Of("content.successor-to", ("rung", to))
                );
            }
        }
        foreach (var id in (ladder.OffOrder?.Keys ?? []).Where(id => ladder.IndexOf(id) < 1))
        {
            yield return new($"{file} offOrder", Message.Of("content.off-order", ("rung", id)));
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
                    yield return new(at, Message.Of("content.precaution-rule"));
                }
                foreach (var rungId in new[] { rule.From }.OfType<string>().Concat(rule.Rungs ?? []))
                {
                    if (ladders.Values.All(ladder => ladder.IndexOf(rungId) < 0))
                    {
                        yield return new($"{at}.rungs", Message.Of("content.no-rung", ("rung", rungId)));
                    }
                }
                foreach (
                    var option in (rule.When ?? []).Where(o =>
                        precautions.Precautions[p].Options?.Any(known => known.Id == o) != true
                    )
                )
                {
                    yield return new($"{at}.when", Message.Of("content.no-option", ("option", option)));
                }
                if (rule.Range is { } range && !(range is > 0 and <= 1))
                {
                    yield return new($"{at}.range", Message.Of("dose.range"));
                }
                if (rule.Ladder is { } id && ladders.Values.All(ladder => ladder.Id != id))
                {
                    yield return new($"{at}.ladder", Message.Of("content.no-ladder", ("ladder", id)));
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
                        Message.Of(
                            "content.no-fault-pose",
                            ("rung", rung.Id),
                            ("family", families[rung.Poses.End])
                        )
                    );
                }
            }
        }
    }
}
