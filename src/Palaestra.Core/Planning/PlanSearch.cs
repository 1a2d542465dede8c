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
/// The best set of exercises, and the best with other exercises, by branch and bound: exact. A branch is left when even
/// the most that the remaining ladders could still add is less than what was found. Two bounds are tried: the sum of what
/// each could add by itself (adding to a set never makes another addition worth more), and by direction the most cover
/// the remaining ladders could give together. Neither is ever too low.
/// </summary>
internal sealed class PlanSearch
{
    private readonly PlanObjective objective;
    private readonly double seconds;
    private readonly double change;
    private readonly int most;
    private readonly List<PlanOption> locked;
    private readonly PlanOption[][] ladders;
    private readonly List<PlanOption> chosen;
    private readonly int[] cover = new int[PlanObjective.Directions];
    private readonly long[][] gains;
    private readonly Reach[][] reaches;
    private FoundPlan? best;
    private FoundPlan? second;

    /// <param name="seconds">Room in a day.</param>
    /// <param name="change">Seconds a change of position takes.</param>
    /// <param name="most">Exercises at most; locked ones count.</param>
    public PlanSearch(
        IEnumerable<PlanOption> options,
        PlanObjective objective,
        double seconds,
        double change,
        int most
    )
    {
        this.objective = objective;
        this.seconds = seconds + 1e-6;
        this.change = change;
        this.most = most;
        var ordered = options.OrderBy(option => option.Key, StringComparer.Ordinal).ToList();
        locked = [.. ordered.Where(option => option.Locked is not null)];
        ladders =
        [
            .. ordered
                .Where(option => option.Locked is null)
                .GroupBy(option => option.Ladder)
                .Select(group =>
                    group.OrderByDescending(Alone).ThenBy(o => o.Key, StringComparer.Ordinal).ToArray()
                )
                .OrderByDescending(group => Alone(group[0]))
                .ThenBy(group => group[0].Key, StringComparer.Ordinal),
        ];
        chosen = [.. locked];
        reaches = [.. Enumerable.Range(0, ladders.Length + 1).Select(Reaches)];
        gains = [.. Enumerable.Range(0, ladders.Length + 1).Select(_ => new long[ladders.Length])];
        foreach (var option in locked)
        {
            Add(option, 1);
        }
    }

    /// <summary>Sets looked at in the last search.</summary>
    public int Visited { get; private set; }

    /// <summary>The best and the best with other rungs; none where nothing fits. Never the empty set.</summary>
    public (FoundPlan? Best, FoundPlan? Second) Run()
    {
        Branch(0, chosen.Sum(option => option.Seconds), Positions());
        return (best, second);
    }

    private void Branch(int from, double spent, int positions)
    {
        Visited++;
        var total = objective.Total(chosen).Total;
        Keep(total, spent + change * Math.Max(0, PlanObjective.Bits(positions) - 1));
        if (from == ladders.Length || chosen.Count >= most || !Worthwhile(from, total, spent, positions))
        {
            return;
        }
        for (var ladder = from; ladder < ladders.Length; ladder++)
        {
            foreach (var option in ladders[ladder])
            {
                var then = positions | (1 << option.Position);
                var time = spent + option.Seconds;
                if (time + change * (PlanObjective.Bits(then) - 1) > seconds)
                {
                    continue;
                }
                chosen.Add(option);
                Add(option, 1);
                Branch(ladder + 1, time, then);
                Add(option, -1);
                chosen.RemoveAt(chosen.Count - 1);
            }
        }
    }

    private void Keep(long total, double time)
    {
        if (chosen.Count == 0 || time > seconds || total < second?.Total)
        {
            return;
        }
        var found = new FoundPlan([.. chosen], total, time);
        if (second is not null && !found.Beats(second))
        {
            return;
        }
        if (best is null || found.Beats(best))
        {
            if (best is not null && best.Rungs != found.Rungs)
            {
                second = best;
            }
            best = found;
        }
        else if (found.Rungs != best.Rungs)
        {
            second = found;
        }
    }

    /// <summary>Whether the ladders from here on could still lift what is chosen over the second best.</summary>
    private bool Worthwhile(int from, long now, double spent, int positions)
    {
        if (second is null)
        {
            return true;
        }
        var goals = 0;
        bool basic = false,
            well = false;
        for (var i = 0; i < chosen.Count; i++)
        {
            goals |= chosen[i].Goals;
            basic |= chosen[i].Basic;
            well |= chosen[i].Well;
        }
        return now + Together(from, goals, basic, well) >= second.Total
            && now + Apart(from, spent, positions, goals, basic, well) >= second.Total;
    }

    /// <summary>The most that one to so many of the ladders from some place on could give, direction by direction.</summary>
    private sealed record Reach(long[] Cover, long Own, int Goals, bool Basic, bool Well);

    private Reach[] Reaches(int from)
    {
        var rest = ladders.Skip(from).ToList();

        long Most(int count, Func<PlanOption, long> of) =>
            rest.Select(ladder => ladder.Max(of)).OrderDescending().Take(count).Sum();

        var all = rest.SelectMany(ladder => ladder).ToList();
        return
        [
            .. Enumerable
                .Range(1, Math.Min(most, rest.Count))
                .Select(count => new Reach(
                    [
                        .. Enumerable
                            .Range(0, PlanObjective.Directions)
                            .Select(s => Most(count, option => option.Cover[s])),
                    ],
                    Most(count, option => option.Own),
                    all.Aggregate(0, (bits, option) => bits | option.Goals),
                    all.Any(option => option.Basic),
                    all.Any(option => option.Well)
                )),
        ];
    }

    private long Together(int from, int goals, bool basic, bool well)
    {
        long best = 0;
        long counts = 0;
        var reach = reaches[from];
        for (var i = 0; i < reach.Length && chosen.Count + i < most; i++)
        {
            var part = reach[i];
            counts += objective.ForCount(chosen.Count + i);
            long sum = part.Own + counts;
            for (var s = 0; s < cover.Length; s++)
            {
                sum += objective.Need[s] * Math.Min(Math.Max(0, objective.Cap[s] - cover[s]), part.Cover[s]);
            }
            sum += part.Basic && !basic ? PlanObjective.Base : 0;
            sum += part.Well && !well ? PlanObjective.DoneWell : 0;
            sum += (long)PlanObjective.Goal * PlanObjective.Bits(part.Goals & ~goals);
            best = Math.Max(best, sum);
        }
        return best;
    }

    private long Apart(int from, double spent, int positions, int goals, bool basic, bool well)
    {
        var most = gains[from];
        var room = seconds - change * Math.Max(0, PlanObjective.Bits(positions) - 1) - spent;
        var count = 0;
        for (var ladder = from; ladder < ladders.Length; ladder++)
        {
            long gain = long.MinValue;
            foreach (var option in ladders[ladder])
            {
                if (option.Seconds <= room)
                {
                    gain = Math.Max(gain, Gain(option, goals, basic, well));
                }
            }
            if (gain > long.MinValue)
            {
                most[count++] = gain;
            }
        }
        Array.Sort(most, 0, count);
        long reach = 0;
        for (var i = count - 1; i >= 0 && chosen.Count + count - 1 - i < this.most; i--)
        {
            var more = most[i] + objective.ForCount(chosen.Count + count - 1 - i);
            if (more <= 0)
            {
                break;
            }
            reach += more;
        }
        return reach;
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

    private long Alone(PlanOption option) => Gain(option, 0, false, false);

    private void Add(PlanOption option, int sign)
    {
        for (var s = 0; s < cover.Length; s++)
        {
            cover[s] += sign * option.Cover[s];
        }
    }

    private int Positions() => chosen.Aggregate(0, (all, option) => all | (1 << option.Position));
}
