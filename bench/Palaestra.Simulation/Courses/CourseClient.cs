using MathNet.Numerics.Distributions;
using Palaestra.Core.Body;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Core.Visits;

namespace Palaestra.Simulation.Courses;

/// <summary>
/// Somebody over twelve weeks: true ability by direction and side that grows with clean work and fades without it, pain
/// that flares from work above it, and a share of the home work that gets done.
/// </summary>
public sealed class CourseClient
{
    private readonly PracticeLibrary library;
    private readonly CourseNature nature;
    private readonly SimulatedClient born;
    private readonly Dictionary<(Direction, Side), double> gained = [];
    private readonly Random random;
    private readonly double adherence;
    private double usual;
    private double day;

    /// <param name="seed">The person and all of its luck: under another policy the same person meets the same chances.</param>
    public CourseClient(PracticeLibrary library, CourseNature nature, int seed)
    {
        this.library = library;
        this.nature = nature;
        born = new SimulatedClient(library, Nature.Typical, seed);
        random = new Random(seed * 31 + 7);
        // Most do most of it, a few do little.
        adherence = Beta.Sample(new Random(seed * 17 + 3), 4, 1.5);
        usual = 2 + new Random(seed * 13 + 1).NextDouble() * 4;
    }

    public int UsualPain => (int)Math.Round(usual);

    public SimulatedClient Born => born;

    /// <summary>How far true ability is above a rung now, rungs.</summary>
    public double Margin(Rung rung, Side side)
    {
        var ladder = library.LadderOf(rung.Id);
        var sides =
            rung.Sides == RungSides.Each && side != Side.Both ? [side] : new[] { Side.Left, Side.Right };
        return sides.Min(s =>
            born.Margin(ladder, ladder.IndexOf(rung.Id), s) + gained.GetValueOrDefault((ladder.Direction, s))
        );
    }

    public void NextDay() => day = Normal.Sample(random, 0, nature.DayNoise);

    /// <summary>One visit's work of one exercise and side, as it truly was and as the rater saw it.</summary>
    /// <param name="pain">The policy's rule for pain: what of it counts as over the limit.</param>
    public (Performance True, Performance Seen) Do(
        int visit,
        DateOnly on,
        PlanItem item,
        SideDose asked,
        PainRule pain
    )
    {
        var rung = library.Rung(item.RungId);
        var margin = Margin(rung, asked.Side) + day;
        var sets = Enumerable
            .Range(0, asked.Dose.Sets)
            .Select(set => Set(rung, asked.Dose, set, margin, pain))
            .ToList();
        Performance Of(Func<(SetDone True, SetDone Seen), SetDone> pick) =>
            new(visit, on, item.Id, rung.Id, asked.Side, asked.Dose, [.. sets.Select(pick)]);
        return (Of(s => s.True), Of(s => s.Seen));
    }

    private (SetDone True, SetDone Seen) Set(Rung rung, Dose dose, int set, double margin, PainRule pain)
    {
        var reps = dose.RepsOf(set);
        var share = dose.Seconds(rung.MoveSeconds) / Math.Max(1, rung.Cap.Seconds(rung.MoveSeconds));
        var gave = new bool[reps];
        var marked = new bool[reps];
        var done = 0;
        var inARow = 0;
        for (; done < reps && inARow < 2; done++)
        {
            var tired = nature.Tires * share * done / Math.Max(1, reps - 1);
            gave[done] = margin - tired + Normal.Sample(random, 0, nature.RepNoise) < 0;
            marked[done] = gave[done]
                ? random.NextDouble() >= nature.Missed
                : random.NextDouble() < nature.Imagined;
            inARow = marked[done] ? inARow + 1 : 0;
        }
        // Of faults that are close to control one cue fixes about half.
        bool? cue = marked.Any(m => m) ? margin > -0.3 && random.NextDouble() < 0.5 : null;
        var effort = (int)Math.Clamp(Math.Round(6 - 2 * margin), 2, 10);
        // Work above the ability hurts more the higher it is; now and then work below it does, too.
        var rise = Normal.Sample(random, 0.7 - margin * nature.PainPerRung, 0.5) - 1.2;
        var painful = pain.Exceeded(UsualPain, UsualPain + Math.Max(0, (int)Math.Round(rise)));
        SetDone Told(bool[] broken)
        {
            var bad = broken.Count(b => b);
            return new(
                done,
                done - bad,
                0,
                bad,
                (done - bad) * dose.Hold,
                painful,
                bad > 0 ? cue : null,
                effort,
                bad > 0 ? "arch" : null
            );
        }
        return (Told(gave), Told(marked));
    }

    /// <summary>The week after a visit: home work, gains and losses, and whether it flared.</summary>
    /// <param name="growth">Clean time asked for against the week before, 1 for the same.</param>
    public (CheckIn CheckIn, IReadOnlyList<HomeWork> Home, bool Flared) Week(
        IReadOnlyList<PlanItem> items,
        double growth
    )
    {
        var above = items.Average(item =>
            item.Doses.Max(d => Math.Max(0, -Margin(library.Rung(item.RungId), d.Side)))
        );
        var chance =
            nature.FlareBase
            + nature.FlarePerRung * above
            + nature.FlarePerGrowth * Math.Max(0, Math.Log2(growth));
        var flared = random.NextDouble() < chance;
        var did = Math.Clamp(adherence + Normal.Sample(random, 0, 0.1), 0, 1) * (flared ? 0.4 : 1);
        foreach (var item in items)
        {
            Train(item, did);
        }
        foreach (var key in gained.Keys.ToList())
        {
            gained[key] = Math.Max(0, gained[key] - nature.Forget * (1 - did) * 0.5);
        }
        usual = Math.Clamp(usual + (flared ? 1 : -0.3), 0, 8);
        return (
            new CheckIn(
                UsualPain,
                UsualPain,
                Math.Min(10, UsualPain + (flared ? 3 : 0)),
                flared ? 36 : 4,
                []
            ),
            [
                .. from item in items
                from dose in item.Doses
                select new HomeWork(item.Id, dose.Side, 100, (int)(100 * did), 5, null, null),
            ],
            flared
        );
    }

    /// <summary>Work a little under to a little over the ability trains most; far below it teaches little, far above nothing clean.</summary>
    private void Train(PlanItem item, double did)
    {
        var rung = library.Rung(item.RungId);
        var direction = library.LadderOf(rung.Id).Direction;
        foreach (var dose in item.Doses)
        {
            var margin = Margin(rung, dose.Side);
            var useful = Math.Exp(-Math.Pow((margin - 0.5) / 1.5, 2));
            var much = Math.Min(
                1,
                dose.Dose.Seconds(rung.MoveSeconds) / rung.Target.Seconds(rung.MoveSeconds)
            );
            Side[] sides = dose.Side == Side.Both ? [Side.Left, Side.Right] : [dose.Side];
            foreach (var side in sides)
            {
                gained[(direction, side)] =
                    gained.GetValueOrDefault((direction, side)) + nature.Gain * did * useful * much;
            }
        }
    }
}
