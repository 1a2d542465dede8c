using Palaestra.Core.Photos;

namespace Palaestra.Core.Planning;

/// <param name="Options">In canonical order.</param>
/// <param name="Total">Thousandths of a point.</param>
internal sealed record FoundPlan(IReadOnlyList<PlanOption> Options, long Total, double Seconds)
{
    public string Rungs { get; } =
        string.Join(' ', Options.Select(option => option.RungId).Order(StringComparer.Ordinal));

    /// <summary>More points; of equals the shorter; of those the first by name.</summary>
    public bool Beats(FoundPlan other) =>
        Total != other.Total ? Total > other.Total
        : Math.Abs(Seconds - other.Seconds) > 1e-6 ? Seconds < other.Seconds
        : string.CompareOrdinal(Name, other.Name) < 0;

    private string Name =>
        string.Join(' ', Options.Select(option => option.Key).Order(StringComparer.Ordinal));
}

/// <summary>
/// The best set of exercises, and the best with other exercises: exact. Branch and bound over rungs, each taken at its best: all
/// the cover and points of its doses in the least of their time. Only where a set of rungs could so beat what was found are its doses
/// tried. A branch is left when even the most that the remaining ladders could still add is less than what was found. Two
/// bounds are tried: the sum of what each could add by itself (adding to a set never makes another addition worth more), and
/// by direction the most cover the remaining ladders could give together. Neither is ever too low.
/// </summary>
internal sealed class PlanSearch
{
    /// <summary>A rung with all its doses. <paramref name="Most"/>: the most of each in the least time; no dose need be like it.</summary>
    private sealed record Choice(PlanOption Most, IReadOnlyList<PlanOption> Doses)
    {
        public static Choice Of(IEnumerable<PlanOption> doses)
        {
            var all = doses.OrderBy(option => option.Key, StringComparer.Ordinal).ToList();
            return new(
                all[0] with
                {
                    Seconds = all.Min(option => option.Seconds),
                    Own = all.Max(option => option.Own),
                    Cover =
                    [
                        .. Enumerable
                            .Range(0, PlanObjective.Directions)
                            .Select(s => all.Max(option => option.Cover[s])),
                    ],
                },
                all
            );
        }
    }

    private readonly PlanObjective objective;
    private readonly double seconds;
    private readonly double change;
    private readonly int most;
    private readonly bool runnerUp;
    private readonly Choice[][] ladders;
    private readonly List<Choice> chosen = [];
    private readonly List<PlanOption> atMost = [];
    private readonly int[] cover = new int[PlanObjective.Directions];
    private readonly long[][] gains;
    private readonly Reach[][] reaches;
    private readonly double[][] shortest;
    private FoundPlan? best;
    private FoundPlan? second;

    /// <summary>What a set has to reach to be worth keeping.</summary>
    private FoundPlan? Floor => runnerUp ? second : best;

    /// <param name="seconds">Room in a day.</param>
    /// <param name="change">Seconds a change of position takes.</param>
    /// <param name="most">Exercises at most; locked ones count.</param>
    /// <param name="runnerUp">Whether the second best is wanted too; without it the search is shorter.</param>
    public PlanSearch(
        IEnumerable<PlanOption> options,
        PlanObjective objective,
        double seconds,
        double change,
        int most,
        bool runnerUp
    )
    {
        this.objective = objective;
        this.seconds = seconds + 1e-6;
        this.change = change;
        this.most = most;
        this.runnerUp = runnerUp;
        var ordered = options.OrderBy(option => option.Key, StringComparer.Ordinal).ToList();
        ladders =
        [
            .. ordered
                .Where(option => option.Locked is null)
                .GroupBy(option => option.Ladder)
                .Select(ladder =>
                    ladder
                        .GroupBy(option => option.RungId)
                        .Select(Choice.Of)
                        .OrderByDescending(Alone)
                        .ThenBy(choice => choice.Most.RungId, StringComparer.Ordinal)
                        .ToArray()
                )
                .OrderByDescending(ladder => Alone(ladder[0]))
                .ThenBy(ladder => ladder[0].Most.RungId, StringComparer.Ordinal),
        ];
        reaches = [.. Enumerable.Range(0, ladders.Length + 1).Select(Reaches)];
        shortest = [.. Enumerable.Range(0, ladders.Length + 1).Select(Shortest)];
        gains = [.. Enumerable.Range(0, ladders.Length + 1).Select(_ => new long[ladders.Length])];
        foreach (var option in ordered.Where(option => option.Locked is not null))
        {
            Take(Choice.Of([option]));
        }
    }

    /// <summary>The best and the best with other rungs; none where nothing fits. Never the empty set.</summary>
    public (FoundPlan? Best, FoundPlan? Second) Run()
    {
        Branch(0, atMost.Sum(option => option.Seconds), PositionsOf(atMost));
        return (best, second);
    }

    private void Branch(int from, double spent, int positions)
    {
        var total = objective.Total(atMost).Total;
        if (chosen.Count > 0 && !(total < Floor?.Total))
        {
            TryDoses(positions);
        }
        if (from == ladders.Length || chosen.Count >= most || !Worthwhile(from, total, spent, positions))
        {
            return;
        }
        for (var ladder = from; ladder < ladders.Length; ladder++)
        {
            foreach (var choice in ladders[ladder])
            {
                var then = positions | (1 << choice.Most.Position);
                var time = spent + choice.Most.Seconds;
                if (time + change * (PlanObjective.Bits(then) - 1) > seconds)
                {
                    continue;
                }
                Take(choice);
                Branch(ladder + 1, time, then);
                LetGo(choice);
            }
        }
    }

    private void Take(Choice choice)
    {
        chosen.Add(choice);
        atMost.Add(choice.Most);
        for (var s = 0; s < cover.Length; s++)
        {
            cover[s] += choice.Most.Cover[s];
        }
    }

    private void LetGo(Choice choice)
    {
        chosen.RemoveAt(chosen.Count - 1);
        atMost.RemoveAt(atMost.Count - 1);
        for (var s = 0; s < cover.Length; s++)
        {
            cover[s] -= choice.Most.Cover[s];
        }
    }

    /// <summary>The best doses of the chosen rungs that fit the time, kept if they are worth it; of equals the shorter.</summary>
    private void TryDoses(int positions)
    {
        var set = new PlanOption[chosen.Count];
        var (total, time) = (long.MinValue, double.MaxValue);
        PlanOption[]? here = null;
        Choose(0, change * Math.Max(0, PlanObjective.Bits(positions) - 1), atMost.Sum(o => o.Seconds));
        if (here is not null && !(total < Floor?.Total))
        {
            Keep(new FoundPlan(here, total, time));
        }

        void Choose(int index, double spent, double rest)
        {
            if (index == set.Length)
            {
                var points = objective.Total(set).Total;
                if (points > total || (points == total && spent < time - 1e-6))
                {
                    (total, time) = (points, spent);
                    here = [.. set];
                }
                return;
            }
            var later = rest - chosen[index].Most.Seconds;
            foreach (var dose in chosen[index].Doses)
            {
                if (spent + dose.Seconds + later <= seconds)
                {
                    set[index] = dose;
                    Choose(index + 1, spent + dose.Seconds, later);
                }
            }
        }
    }

    /// <summary>Every set of rungs comes by once, so that what is kept as second has other rungs than the best.</summary>
    private void Keep(FoundPlan found)
    {
        if (best is null || found.Beats(best))
        {
            second = best;
            best = found;
        }
        else if (second is null || found.Beats(second))
        {
            second = found;
        }
    }

    /// <summary>Whether the ladders from here on could still lift what is chosen over what was found.</summary>
    private bool Worthwhile(int from, long now, double spent, int positions)
    {
        if (Floor is not { } floor)
        {
            return true;
        }
        var goals = 0;
        bool basic = false,
            well = false;
        for (var i = 0; i < atMost.Count; i++)
        {
            goals |= atMost[i].Goals;
            basic |= atMost[i].Basic;
            well |= atMost[i].Well;
        }
        var room = seconds - change * Math.Max(0, PlanObjective.Bits(positions) - 1) - spent;
        var more = Math.Min(most - chosen.Count, shortest[from].Count(time => time <= room));
        return now + Together(from, more, goals, basic, well) >= floor.Total
            && now + Apart(from, room, more, goals, basic, well) >= floor.Total;
    }

    /// <summary>The least time that one, two, three … of the ladders from some place on can take.</summary>
    private double[] Shortest(int from)
    {
        var sum = 0.0;
        return
        [
            .. ladders
                .Skip(from)
                .Select(ladder => ladder.Min(choice => choice.Most.Seconds))
                .Order()
                .Take(most)
                .Select(time => sum += time),
        ];
    }

    /// <summary>The most that one to so many of the ladders from some place on could give, direction by direction.</summary>
    private sealed record Reach(long[] Cover, long Own, int Goals, bool Basic, bool Well);

    private Reach[] Reaches(int from)
    {
        var rest = ladders.Skip(from).Select(ladder => ladder.Select(c => c.Most).ToList()).ToList();
        long[] Best(Func<PlanOption, long> of) =>
            [.. rest.Select(ladder => ladder.Max(of)).OrderDescending().Take(most)];

        var cover = Enumerable.Range(0, PlanObjective.Directions).Select(s => Best(o => o.Cover[s])).ToList();
        var own = Best(option => option.Own);
        var all = rest.SelectMany(ladder => ladder).ToList();
        var goals = all.Aggregate(0, (bits, option) => bits | option.Goals);
        var (basic, well) = (all.Any(option => option.Basic), all.Any(option => option.Well));
        return
        [
            .. Enumerable
                .Range(1, own.Length)
                .Select(count => new Reach(
                    [.. cover.Select(best => best.Take(count).Sum())],
                    own.Take(count).Sum(),
                    goals,
                    basic,
                    well
                )),
        ];
    }

    private long Together(int from, int more, int goals, bool basic, bool well)
    {
        long most = 0;
        long counts = 0;
        var reach = reaches[from];
        for (var i = 0; i < reach.Length && i < more; i++)
        {
            var part = reach[i];
            counts += objective.ForCount(chosen.Count + i);
            var sum = part.Own + counts;
            for (var s = 0; s < cover.Length; s++)
            {
                sum += objective.Need[s] * Math.Min(Math.Max(0, objective.Cap[s] - cover[s]), part.Cover[s]);
            }
            sum += part.Basic && !basic ? PlanObjective.Base : 0;
            sum += part.Well && !well ? PlanObjective.DoneWell : 0;
            sum += (long)PlanObjective.Goal * PlanObjective.Bits(part.Goals & ~goals);
            most = Math.Max(most, sum);
        }
        return most;
    }

    private long Apart(int from, double room, int more, int goals, bool basic, bool well)
    {
        var each = gains[from];
        var count = 0;
        for (var ladder = from; ladder < ladders.Length; ladder++)
        {
            var gain = long.MinValue;
            foreach (var choice in ladders[ladder])
            {
                if (choice.Most.Seconds <= room)
                {
                    gain = Math.Max(gain, Gain(choice.Most, goals, basic, well));
                }
            }
            if (gain > long.MinValue)
            {
                each[count++] = gain;
            }
        }
        Array.Sort(each, 0, count);
        long sum = 0;
        for (var i = count - 1; i >= 0 && count - 1 - i < more; i--)
        {
            var gain = each[i] + objective.ForCount(chosen.Count + count - 1 - i);
            if (gain <= 0)
            {
                break;
            }
            sum += gain;
        }
        return sum;
    }

    /// <summary>The most an option could add to what is chosen, what it costs left aside.</summary>
    private long Gain(PlanOption option, int goals, bool basic, bool well)
    {
        long gain = option.Own;
        for (var s = 0; s < cover.Length; s++)
        {
            gain +=
                (long)objective.Need[s] * Math.Min(Math.Max(0, objective.Cap[s] - cover[s]), option.Cover[s]);
        }
        gain += option.Basic && !basic ? PlanObjective.Base : 0;
        gain += option.Well && !well ? PlanObjective.DoneWell : 0;
        return gain + (long)PlanObjective.Goal * PlanObjective.Bits(option.Goals & ~goals);
    }

    private long Alone(Choice choice) => Gain(choice.Most, 0, false, false);

    private static int PositionsOf(IEnumerable<PlanOption> options) =>
        options.Aggregate(0, (all, option) => all | (1 << option.Position));
}
