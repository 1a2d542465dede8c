namespace Palaestra.Core.Library;

/// <summary>Lays a clinic's own ladders and poses over ours, without a change to our files.</summary>
public static class Overlay
{
    /// <remarks>
    /// A ladder with an id of ours adds its rungs to it: one with an id of ours takes its place, another follows the rung
    /// named in its "after", or goes to the end. A ladder with a new id stands for itself. A pose of the same name replaces ours.
    /// </remarks>
    public static (Dictionary<string, Ladder> Ladders, PosesFile Poses) Over(
        Dictionary<string, Ladder> ours,
        PosesFile poses,
        Dictionary<string, Ladder> own,
        PosesFile? ownPoses,
        List<FieldError> errors
    )
    {
        var ladders = new Dictionary<string, Ladder>(ours);
        foreach (
            var (file, ladder, moved) in own.SelectMany(pair => Today(pair.Key, pair.Value, ours.Values))
        )
        {
            var place = ours.FirstOrDefault(pair => pair.Value.Id == ladder.Id).Key;
            if (place is null)
            {
                ladders[$"own {file}"] = ladder;
                continue;
            }
            var merged = Merged(ladders[place], ladder, file, errors);
            ladders[place] = moved ? InAnyOrder(merged, ladder) : merged;
        }
        var all = new Dictionary<string, PoseEntry>(poses.Poses);
        foreach (var (name, entry) in ownPoses?.Poses ?? new Dictionary<string, PoseEntry>())
        {
            all[name] = entry;
        }
        return (ladders, poses with { Poses = all });
    }

    /// <summary>
    /// What a clinic added to a ladder whose rungs have moved goes where they went: a rung of theirs in the place of one that moved
    /// takes its place there, another follows the one it followed, or the last of them.
    /// </summary>
    private static IEnumerable<(string File, Ladder Ladder, bool Moved)> Today(
        string file,
        Ladder own,
        IReadOnlyCollection<Ladder> ours
    )
    {
        if (ours.FirstOrDefault(ladder => ladder.Id == own.Id) is not { Successors: { } moved })
        {
            return [(file, own, false)];
        }
        string Now(string id) => moved.GetValueOrDefault(id, id);
        var places = ours.SelectMany(ladder => ladder.Rungs.Select(rung => (rung.Id, Ladder: ladder.Id)))
            .ToDictionary(pair => pair.Id, pair => pair.Ladder);
        var rungs = new List<(string Ladder, Rung Rung)>();
        foreach (var rung in own.Rungs)
        {
            var (id, after) = (Now(rung.Id), Now(rung.After ?? moved.Keys.Last()));
            places[id] = places.GetValueOrDefault(id) ?? places.GetValueOrDefault(after) ?? own.Id;
            rungs.Add((places[id], rung with { Id = id, After = after }));
        }
        return rungs
            .GroupBy(pair => pair.Ladder, pair => pair.Rung)
            .Select(there =>
                (
                    file,
                    own with
                    {
                        Id = there.Key,
                        Rungs = [.. there],
                        OffOrder = (own.OffOrder ?? new Dictionary<string, string>())
                            .Where(pair => there.Any(rung => rung.Id == Now(pair.Key)))
                            .ToDictionary(pair => Now(pair.Key), pair => pair.Value),
                    },
                    true
                )
            );
    }

    /// <summary>What moved was in order where it stood: it gives the reason for its new place, and for what follows it.</summary>
    private static Ladder InAnyOrder(Ladder merged, Ladder own)
    {
        var reasons = new Dictionary<string, string>(merged.OffOrder ?? new Dictionary<string, string>());
        foreach (var at in own.Rungs.Select(rung => merged.IndexOf(rung.Id)))
        {
            foreach (var rung in merged.Rungs.Skip(Math.Max(1, at)).Take(2))
            {
                reasons.TryAdd(rung.Id, "beside a rung of this clinic's own, from a ladder that moved here.");
            }
        }
        return merged with { OffOrder = reasons };
    }

    private static Ladder Merged(Ladder ours, Ladder own, string file, List<FieldError> errors)
    {
        var rungs = ours.Rungs.ToList();
        for (var i = 0; i < own.Rungs.Count; i++)
        {
            var rung = own.Rungs[i];
            var at = rungs.FindIndex(r => r.Id == rung.Id);
            if (at >= 0)
            {
                rungs[at] = rung;
                continue;
            }
            var after = rung.After is null ? rungs.Count - 1 : rungs.FindIndex(r => r.Id == rung.After);
            if (after < 0 && rung.After is not null)
            {
                errors.Add(
                    new(
                        $"own {file} rungs[{i}].after",
                        Message.Of("content.no-rung-after", ("rung", rung.After), ("ladder", ours.Id))
                    )
                );
                continue;
            }
            rungs.Insert(after + 1, rung);
        }
        return ours with
        {
            Rungs = rungs,
            OffOrder = (ours.OffOrder ?? new Dictionary<string, string>())
                .Concat(own.OffOrder ?? new Dictionary<string, string>())
                .GroupBy(pair => pair.Key)
                .ToDictionary(group => group.Key, group => group.Last().Value),
        };
    }
}
