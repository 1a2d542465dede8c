using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Core.Progression;
using Palaestra.Core.Visits;

namespace Palaestra.Simulation.Courses;

/// <summary>What a week between two visits did.</summary>
/// <param name="Above">Rungs of work above ability, mean over the exercises.</param>
public sealed record WeekLived(CheckIn CheckIn, IReadOnlyList<HomeWork> Home, bool Flared, double Above);

/// <summary>
/// Somebody over some weeks: true ability by direction and side that grows with clean work and fades without it, a back that
/// is stirred up and settles, pain, and a share of the home work that gets done.
/// </summary>
public sealed class CourseClient
{
    private readonly PracticeLibrary library;
    private readonly CourseNature nature;
    private readonly SimulatedClient born;
    private readonly Chance chance;
    private readonly Dictionary<(Direction, Side), double> gained = [];
    private readonly Dictionary<Guid, int> places = [];
    private readonly double adherence;
    private readonly double gain;
    private double usual;
    private double irritation;
    private double tired;
    private int visit;

    /// <param name="seed">The person and all of its luck.</param>
    public CourseClient(PracticeLibrary library, CourseNature nature, int seed)
    {
        this.library = library;
        this.nature = nature;
        born = new SimulatedClient(
            library,
            new Nature(
                nature.Person.Own,
                nature.Person.Sides,
                nature.Work.RepNoise,
                Missed: nature.Rater.Missed,
                Imagined: nature.Rater.Imagined
            ),
            seed
        );
        chance = new Chance(seed);
        adherence = chance.Share(nature.Person.AdherenceA, nature.Person.AdherenceB, Purpose.Person, 0);
        gain = nature.Learning.Gain * Math.Exp(chance.Normal(nature.Person.GainSpread, Purpose.Person, 1));
        usual = Between(nature.Person.UsualFrom, nature.Person.UsualTo, 2);
        irritation = Between(nature.Settling.StartFrom, nature.Settling.StartTo, 3);
    }

    private double Between(double from, double to, int which) =>
        from + (to - from) * chance.Even(Purpose.Person, which);

    public int UsualPain => (int)Math.Round(Math.Clamp(usual, 0, 10));

    /// <summary>Pain at this visit's check-in, as told.</summary>
    public int PainNow => PainAt(visit);

    private int PainAt(int ordinal) =>
        (int)
            Math.Clamp(
                Math.Round(usual + chance.Normal(nature.Pain.ToldNoise, Purpose.Told, ordinal)),
                0,
                10
            );

    public double SettleHours =>
        nature.Settling.CalmHours + (nature.Settling.IrritatedHours - nature.Settling.CalmHours) * irritation;

    public ClientProfile Profile =>
        new(new Pain(PainNow, Math.Min(10, UsualPain + 2), UsualPain), Math.Round(SettleHours), false, []);

    public SimulatedClient Born => born;

    /// <summary>A rung that is trained on a scale of difficulty; neutral and switch-on are none.</summary>
    public bool Movable(Rung rung) => library.LadderOf(rung.Id).Direction != Direction.None;

    /// <summary>How far true ability is above a rung now, rungs. What is no ladder of difficulty is always well in hand.</summary>
    public double Margin(Rung rung, Side side)
    {
        if (!Movable(rung))
        {
            return InHand;
        }
        var ladder = library.LadderOf(rung.Id);
        var sides =
            rung.Sides == RungSides.Each && side != Side.Both ? [side] : new[] { Side.Left, Side.Right };
        return sides.Min(s =>
            born.Margin(ladder, ladder.IndexOf(rung.Id), s) + gained.GetValueOrDefault((ladder.Direction, s))
        );
    }

    private const double InHand = 1.5;

    /// <summary>The same of a rung as a dose has it: a shorter way, a higher surface, less weight or a lighter band are easier.</summary>
    public double Margin(Rung rung, Side side, Dose dose)
    {
        double Steps<T>(IReadOnlyList<T>? all, Func<T, bool> passed) => all?.Count(passed) ?? 0;
        var drawn = rung.Heights is { Count: > 0 } heights ? heights[0] : 0;
        var harder =
            Steps(rung.Heights, h => h < drawn - 1e-9 && h >= (dose.Height ?? drawn) - 1e-9)
            - Steps(rung.Heights, h => h > drawn + 1e-9 && h <= (dose.Height ?? drawn) + 1e-9)
            + Steps(rung.Loads, kg => kg > rung.Loads![0] && kg <= (dose.Load ?? rung.Loads[0]) + 1e-9)
            + (rung.Banded ? (int)(dose.Band ?? Band.Light) : 0);
        return Margin(rung, side)
            + nature.Work.RangeEases * (1 - dose.Range)
            - nature.Work.StepEases * harder;
    }

    public void NextVisit(int ordinal)
    {
        visit = ordinal;
        tired = 0;
    }

    /// <summary>One visit's work of one exercise and side, as it truly was and as the rater saw it.</summary>
    public (Performance True, Performance Seen) Do(DateOnly on, PlanItem item, SideDose asked, PainRule pain)
    {
        var rung = library.Rung(item.RungId);
        var sets = Enumerable
            .Range(0, asked.Dose.Sets)
            .Select(set => Set(rung, asked.Side, asked.Dose, item.Id, set, pain))
            .ToList();
        tired += nature.Work.ExerciseTires;
        Performance Of(Func<(SetDone True, SetDone Seen), SetDone> pick) =>
            new(visit, on, item.Id, rung.Id, asked.Side, asked.Dose, [.. sets.Select(pick)]);
        return (Of(s => s.True), Of(s => s.Seen));
    }

    /// <summary>One set one up.</summary>
    public (ProbeDone True, ProbeDone Seen) Try(
        DateOnly on,
        Guid item,
        Side side,
        ProbeOffer offer,
        PainRule pain
    )
    {
        var (truly, seen) = Set(library.Rung(offer.RungId), side, offer.Dose, item, ProbeSet, pain);
        tired += nature.Probe.Tires;
        ProbeDone Of(SetDone set) => new(item, side, visit, on, offer.RungId, offer.Dose, set);
        return (Of(truly), Of(seen));
    }

    /// <summary>The place of a probe in the streams, beyond any set of a plan.</summary>
    private const int ProbeSet = 99;

    private (SetDone True, SetDone Seen) Set(
        Rung rung,
        Side side,
        Dose dose,
        Guid item,
        int set,
        PainRule pain
    )
    {
        int[] at = [visit, PlaceOf(item), (int)side, set];
        var margin =
            Margin(rung, side, dose) + chance.Normal(nature.Work.DayNoise, Purpose.Day, visit) - tired;
        var reps = dose.RepsOf(Math.Min(set, dose.Sets - 1));
        var share = dose.Seconds(rung.MoveSeconds) / Math.Max(1, rung.Cap.Seconds(rung.MoveSeconds));
        var gave = new bool[reps];
        var marked = new bool[reps];
        var done = 0;
        var inARow = 0;
        for (; done < reps && inARow < 2; done++)
        {
            var late = nature.Work.Tires * share * done / Math.Max(1, reps - 1);
            gave[done] = margin - late + Draw(nature.Work.RepNoise, Purpose.Rep, done) < 0;
            var eye = chance.Even(Purpose.Rater, [.. at, done]);
            marked[done] = gave[done] ? eye >= nature.Rater.Missed : eye < nature.Rater.Imagined;
            inARow = marked[done] ? inARow + 1 : 0;
        }
        bool? cue = marked.Any(m => m)
            ? margin > -nature.Rater.CueReach && chance.Even(Purpose.Cue, at) < nature.Rater.CueHelps
            : null;
        var effort = (int)
            Math.Clamp(
                Math.Round(
                    nature.Work.EffortAtEdge
                        - nature.Work.EffortPerRung * margin
                        + Draw(nature.Work.EffortNoise, Purpose.Effort, 0)
                ),
                0,
                10
            );
        var rise = (int)
            Math.Max(
                0,
                Math.Round(
                    Draw(nature.Pain.Noise, Purpose.Pain, 0)
                        - nature.Pain.Quiet
                        - margin * nature.Pain.PerRung
                        + irritation * nature.Pain.PerIrritation
                )
            );
        var before = PainNow;
        var peak = Math.Min(10, before + rise);
        var painful = pain.Exceeded(before, peak);
        var ladder = library.LadderOf(rung.Id);
        var fault = born.FaultFor(rung, ladder.Direction, ladder.On);
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
                bad > 0 ? fault : null,
                PainBefore: before,
                PainPeak: peak
            );
        }
        return (Told(gave), Told(marked));

        double Draw(double deviation, Purpose purpose, int last) =>
            chance.Normal(deviation, purpose, [.. at, last]);
    }

    /// <summary>The week after a visit: home work, gains and losses, and whether it flared.</summary>
    /// <param name="growth">Clean time asked for against two weeks before, 1 for the same.</param>
    /// <param name="probes">What was tried one up at the visit.</param>
    public WeekLived Week(IReadOnlyList<PlanItem> items, double growth, IReadOnlyList<ProbeDone> probes)
    {
        var work = items.Where(item => !item.Resting).ToList();
        var above = work.Select(item =>
                item.Doses.Max(d => Math.Max(0, -Margin(library.Rung(item.RungId), d.Side, d.Dose)))
            )
            .DefaultIfEmpty(0)
            .ToList();
        var flared = chance.Even(Purpose.Flare, visit) < FlareChance(above, growth, probes);
        var did =
            Math.Clamp(
                adherence + chance.Normal(nature.Person.AdherenceNoise, Purpose.Adherence, visit),
                0,
                1
            ) * (flared ? nature.Flare.Works : 1);
        foreach (var item in work)
        {
            Train(item, did);
        }
        foreach (var key in gained.Keys.ToList())
        {
            gained[key] = Math.Max(0, gained[key] - nature.Learning.Forget * (1 - did));
        }
        irritation = Math.Clamp(
            irritation * (1 - nature.Settling.Fade)
                + (flared ? nature.Settling.PerFlare : 0)
                + nature.Settling.PerAbove * above.Average(),
            0,
            1
        );
        usual = Math.Clamp(usual + (flared ? nature.Settling.FlareAdds : -nature.Settling.Eases), 0, 10);
        var morning = (int)Math.Clamp(Math.Round(usual + (flared ? nature.Flare.PainRise : 0)), 0, 10);
        var check = new CheckIn(PainAt(visit + 1), UsualPain, morning, Math.Round(SettleHours), []);
        return new(
            check,
            [
                .. from item in work
                from dose in item.Doses
                select new HomeWork(item.Id, dose.Side, 100, (int)(100 * did), 5, UsualPain, morning),
            ],
            flared,
            above.Average()
        );
    }

    private double FlareChance(List<double> above, double growth, IReadOnlyList<ProbeDone> probes)
    {
        var flare = nature.Flare;
        double Convex(double rungs) => flare.Above * Math.Pow(rungs, flare.Power);
        var tried = probes.Sum(p => Convex(Math.Max(0, -Margin(library.Rung(p.RungId), p.Side, p.Dose))));
        return (
                flare.Base
                + above.Average(Convex)
                + flare.Growth * Math.Pow(Math.Max(0, Math.Log2(growth)), flare.Power)
                + (probes.Count > 0 ? nature.Probe.Base : 0)
                + nature.Probe.Risk * tried / Math.Max(1, above.Count)
            ) * (1 + flare.Irritable * irritation);
    }

    /// <summary>Work a little under to a little over the ability trains most; far below it teaches little, far above nothing clean.</summary>
    private void Train(PlanItem item, double did)
    {
        var rung = library.Rung(item.RungId);
        if (!Movable(rung))
        {
            return;
        }
        var direction = library.LadderOf(rung.Id).Direction;
        foreach (var dose in item.Doses)
        {
            var margin = Margin(rung, dose.Side, dose.Dose);
            var useful = Math.Exp(
                -Math.Pow((margin - nature.Learning.BestMargin) / nature.Learning.Width, 2)
            );
            var much = Math.Min(
                1,
                dose.Dose.Seconds(rung.MoveSeconds) / rung.Target.Seconds(rung.MoveSeconds)
            );
            Side[] sides = dose.Side == Side.Both ? [Side.Left, Side.Right] : [dose.Side];
            foreach (var side in sides)
            {
                gained[(direction, side)] =
                    gained.GetValueOrDefault((direction, side)) + gain * did * useful * much;
            }
        }
    }

    private int PlaceOf(Guid item)
    {
        if (!places.TryGetValue(item, out var place))
        {
            place = places[item] = places.Count;
        }
        return place;
    }
}
