using CsCheck;
using Palaestra.Core.Capture;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Core.Progression;
using Palaestra.Core.Visits;

namespace Palaestra.Core.Tests.Given;

/// <summary>
/// Random visits to decide, with all that came before: whoever the client, whatever hurt, was logged, forgotten or left out.
/// </summary>
public static class AnyDay
{
    private static readonly DateOnly First = new(2026, 3, 2);

    private static readonly IReadOnlyList<Rung> Trained =
    [
        .. Content.Library.TrainedLadders.SelectMany(ladder => ladder.Rungs),
    ];

    public static readonly Gen<DecideInput> Input = Gen.Select(
        AnyClient.Profile,
        Gen.Int[0, int.MaxValue - 1],
        (profile, seed) => Of(profile, new Random(seed))
    );

    /// <summary>One to three exercises over two to seven visits.</summary>
    public static DecideInput Of(ClientProfile profile, Random dice)
    {
        var visit = dice.Next(2, 8);
        var days = DaysOf(visit, dice);
        var rungs = Trained.OrderBy(_ => dice.Next()).Take(dice.Next(1, 4)).ToList();
        var items = rungs.ConvertAll(rung => ItemOf(rung, dice));
        var calm = dice.Next(3) > 0;
        var usual = dice.Next(0, calm ? 4 : 9);
        var input = new DecideInput(
            visit,
            days[visit - 1],
            calm
                ? profile with
                {
                    Pain = new(usual, Math.Max(usual, 5), usual),
                    SettleHours = 1,
                    WakesAtNight = false,
                    Precautions = [.. profile.Precautions.Take(dice.Next(2))],
                }
                : profile,
            Content.Library.Policies[dice.Next(Content.Library.Policies.Count)].Id,
            items,
            CheckInOf(usual, calm, dice),
            [
                .. from item in items
                from day in Enumerable.Range(1, visit)
                where dice.Next(8) > 0
                from side in item.Doses
                select PerformanceOf(item, side, day, days[day - 1], usual, calm, dice),
            ],
            dice.Next(6) == 0 ? null : days[visit - 1].AddDays(-dice.Next(10) * dice.Next(1, 8)),
            dice.Next(3) > 0 ? null : HomeOf(items, dice),
            First,
            Pain: dice.Next(6) == 0
                ? null
                : new PainHistory(
                    [
                        .. Enumerable
                            .Range(1, visit - 1)
                            .Select(v => PastOf(v, days[v - 1], usual, calm, dice)),
                    ],
                    usual
                ),
            Sessions: dice.Next(2) == 0 ? null : [.. SessionsOf(visit, days, items, usual, calm, dice)],
            Raises: dice.Next(2) == 0 ? null : [.. RaisesOf(visit, days, items, dice)],
            SetUps: dice.Next(3) > 0
                ? null
                :
                [
                    .. Enumerable
                        .Range(0, dice.Next(3))
                        .Select(i => new SetUpTry(items[0].Id, Math.Max(1, visit - 1 - i), "low-back")),
                ],
            HomePain: dice.Next(3) > 0
                ? null
                :
                [
                    .. Enumerable
                        .Range(1, 6)
                        .Where(_ => dice.Next(2) == 0)
                        .Select(d => new HomePain(
                            days[visit - 1].AddDays(-d),
                            Near(usual, calm, dice),
                            dice.Next(2) == 0 ? null : Near(usual, calm, dice)
                        )),
                ],
            KnownTremor: dice.Next(8) == 0,
            Probes: dice.Next(2) == 0 ? null : [.. ProbesOf(visit, days, items, usual, calm, dice)],
            HomeLong: dice.Next(4) > 0 ? null : HomeOf(items, dice)
        );
        return dice.Next(5) == 0 ? Quiet(input) : input;
    }

    private static IReadOnlyList<HomeWork> HomeOf(IReadOnlyList<PlanItem> items, Random dice) =>
        [
            .. from item in items
            from side in item.Doses
            select new HomeWork(
                item.Id,
                side.Side,
                100,
                dice.Next(0, 130),
                5,
                Maybe(dice, 10),
                Maybe(dice, 10)
            ),
        ];

    /// <summary>The same with a quiet back, all that was asked done clean, and effort told: what earns.</summary>
    private static DecideInput Quiet(DecideInput input) =>
        input with
        {
            CheckIn = new(1, 1, 1, 1, []),
            Profile = input.Profile with
            {
                Pain = new(1, 2, 1),
                SettleHours = 1,
                WakesAtNight = false,
                Precautions = [],
            },
            Visits =
            [
                .. input.Visits.Select(p =>
                    p with
                    {
                        Sets =
                        [
                            .. Enumerable
                                .Range(0, p.Prescribed.Sets)
                                .Select(i => p.Prescribed.RepsOf(i))
                                .Select(reps => new SetDone(
                                    reps,
                                    reps,
                                    0,
                                    0,
                                    reps * p.Prescribed.Hold,
                                    false,
                                    null,
                                    5,
                                    null
                                )),
                        ],
                    }
                ),
            ],
            LastWorkDate = input.Date.AddDays(-1),
            Home = null,
            HomeLong = null,
            HomePain = null,
            Probes = input.Probes is null
                ? null
                :
                [
                    .. input.Probes.Select(p =>
                        p with
                        {
                            Set = new SetDone(
                                p.Dose.Reps,
                                p.Dose.Reps,
                                0,
                                0,
                                p.Dose.Reps * p.Dose.Hold,
                                false,
                                null,
                                5,
                                null,
                                PainBefore: 1,
                                PainPeak: 1
                            ),
                        }
                    ),
                ],
            Pain = null,
            Sessions = null,
        };

    private static List<DateOnly> DaysOf(int visits, Random dice)
    {
        var day = First;
        return
        [
            .. Enumerable
                .Range(0, visits)
                .Select(_ => day = day.AddDays(dice.Next(12) == 0 ? dice.Next(15, 70) : dice.Next(1, 15))),
        ];
    }

    private static int? Maybe(Random dice, int below) => dice.Next(3) > 0 ? null : dice.Next(below);

    /// <summary>Mostly within a point of the usual pain where the client is calm.</summary>
    private static int Near(int usual, bool calm, Random dice) =>
        Math.Clamp(usual + (calm && dice.Next(8) > 0 ? dice.Next(-1, 2) : dice.Next(-3, 6)), 0, 10);

    private static PlanItem ItemOf(Rung rung, Random dice)
    {
        var dose = dice.Next(3) switch
        {
            0 => rung.Start,
            1 => rung.Target,
            _ => rung.Target with { Reps = Math.Max(1, rung.Target.Reps - dice.Next(rung.Target.Reps)) },
        };
        if (rung.HasRange && dice.Next(3) == 0)
        {
            dose = dose with { Range = 0.25 * dice.Next(1, 5) };
        }
        if (rung.Heights is { Count: > 0 } heights && dice.Next(2) == 0)
        {
            dose = dose with { Height = heights[dice.Next(heights.Count)] };
        }
        if (rung.Loads is { Count: > 0 } loads && dice.Next(2) == 0)
        {
            dose = dose with { Load = loads[dice.Next(loads.Count)] };
        }
        return new PlanItem(
            new Guid(dice.Next(), 1, 2, 3, 4, 5, 6, 7, 8, 9, 10),
            rung.Id,
            Message.Plain(""),
            [
                .. rung.TaskSides.Select(side => new SideDose(
                    side,
                    side == Side.Right && dice.Next(3) == 0
                        ? dose with
                        {
                            Reps = Math.Max(1, dose.Reps / 2),
                            Hold = Math.Max(Math.Min(dose.Hold, 2), dose.Hold / 2),
                        }
                        : dose
                )),
            ],
            [],
            [],
            rung.Cues[0]
        );
    }

    private static CheckIn CheckInOf(int usual, bool calm, Random dice) =>
        new(
            dice.Next(12) == 0 ? null : Near(usual, calm, dice),
            dice.Next(8) == 0 ? null : Near(usual, calm, dice),
            dice.Next(4) == 0 ? null : Near(usual, calm, dice),
            dice.Next(4) == 0 ? null : dice.Next(calm ? 20 : 48),
            dice.Next(60) == 0 ? [Content.Library.DangerSigns[0].Id] : [],
            LegFurther: dice.Next(50) == 0,
            WakesAtNight: dice.Next(3) switch
            {
                0 => null,
                1 => true,
                _ => false,
            },
            Leg: dice.Next(3) > 0
                ? null
                : new((LegReach)(dice.Next(4) * dice.Next(2)), (LegReach)(dice.Next(4) * dice.Next(2)))
        );

    private static PastCheckIn PastOf(int visit, DateOnly day, int usual, bool calm, Random dice) =>
        new(
            visit,
            day,
            dice.Next(8) == 0 ? null : Near(usual, calm, dice),
            Near(usual, calm, dice),
            dice.Next(3) == 0 ? null : Near(usual, calm, dice),
            dice.Next(3) == 0 ? null : dice.Next(calm ? 20 : 48)
        );

    private static Performance PerformanceOf(
        PlanItem item,
        SideDose side,
        int visit,
        DateOnly day,
        int usual,
        bool calm,
        Random dice
    )
    {
        var good = dice.Next(3) > 0;
        var before = Near(usual, calm, dice);
        return new Performance(
            visit,
            day,
            item.Id,
            item.RungId,
            side.Side,
            side.Dose,
            [
                .. Enumerable
                    .Range(0, Math.Max(1, side.Dose.Sets - (dice.Next(6) == 0 ? 1 : 0)))
                    .Select(i => SetOf(side.Dose, side.Dose.RepsOf(i), good, before, calm, dice)),
            ]
        );
    }

    /// <summary>Some tried one up, today or before: mostly the next rung at its start dose.</summary>
    private static IEnumerable<ProbeDone> ProbesOf(
        int visit,
        List<DateOnly> days,
        IReadOnlyList<PlanItem> items,
        int usual,
        bool calm,
        Random dice
    )
    {
        foreach (var item in items.Where(_ => dice.Next(2) == 0))
        {
            var ladder = Content.Library.LadderOf(item.RungId);
            var at = ladder.IndexOf(item.RungId) + (dice.Next(5) == 0 ? 2 : 1);
            var rung = at < ladder.Rungs.Count ? ladder.Rungs[at] : ladder.Rungs[^1];
            var day = dice.Next(3) > 0 ? visit : dice.Next(1, visit + 1);
            var dose = rung.Start with { Sets = 1, Fewer = 0, Load = rung.Loads?[0] };
            foreach (var side in rung.TaskSides.Where(_ => dice.Next(8) > 0))
            {
                var set = SetOf(dose, dose.Reps, dice.Next(4) > 0, Near(usual, calm, dice), calm, dice);
                yield return new(item.Id, side, day, days[day - 1], rung.Id, dose, set);
            }
        }
    }

    private static SetDone SetOf(Dose dose, int asked, bool good, int before, bool calm, Random dice)
    {
        var reps = good ? asked : dice.Next(1, asked + 1);
        var clean = good ? reps : dice.Next(0, reps + 1);
        var cued = clean > 0 && dice.Next(6) == 0 ? dice.Next(0, clean) : 0;
        int? told = dice.Next(3) == 0 ? null : before;
        int? peak = dice.Next(3) == 0 ? null : Near(before, calm, dice);
        return new SetDone(
            reps,
            clean - cued,
            cued,
            reps - clean,
            clean * dose.Hold,
            false,
            cued > 0 ? true
                : dice.Next(6) == 0 ? false
                : null,
            dice.Next(4) == 0 ? null : dice.Next(3, 11),
            reps > clean ? "arch" : null,
            Eased: dice.Next(12) == 0,
            PainBefore: told,
            PainPeak: peak,
            PainAfter: dice.Next(2) == 0 ? null : Near(before, calm, dice),
            EndedForPain: dice.Next(40) == 0,
            Tremor: dice.Next(4) == 0 ? dice.NextDouble() : 0,
            Felt: dice.Next(5) == 0 ? "low-back" : null,
            Setting: dice.Next(10) == 0 && dose.Range > 0.25 ? dose with { Range = 0.25 } : null
        );
    }

    private static IEnumerable<SessionPain> SessionsOf(
        int visit,
        List<DateOnly> days,
        List<PlanItem> items,
        int usual,
        bool calm,
        Random dice
    ) =>
        Enumerable
            .Range(1, visit)
            .Where(_ => dice.Next(4) > 0)
            .Select(v => new SessionPain(
                v,
                days[v - 1],
                Near(usual, calm, dice),
                Near(usual, calm, dice),
                dice.Next(3) == 0 ? null : Near(usual, calm, dice),
                dice.Next(2) == 0 ? null : 10,
                dice.Next(20) == 0
                    ? [new(dice.Next(2) == 0 ? Side.Left : Side.Right, dice.Next(4) > 0, items[0].Id)]
                    : null
            ));

    private static IEnumerable<Raise> RaisesOf(
        int visit,
        List<DateOnly> days,
        List<PlanItem> items,
        Random dice
    )
    {
        foreach (var item in items)
        {
            var v = dice.Next(1, visit);
            var ladder = Content.Library.LadderOf(item.RungId);
            var index = ladder.IndexOf(item.RungId);
            foreach (var dose in item.Doses.Where(_ => dice.Next(2) == 0))
            {
                yield return index > 0 && dice.Next(2) == 0
                    ? new(
                        item.Id,
                        dose.Side,
                        v,
                        days[v - 1],
                        ladder.Rungs[index - 1].Id,
                        ladder.Rungs[index - 1].Target
                    )
                    : new(
                        item.Id,
                        dose.Side,
                        v,
                        days[v - 1],
                        item.RungId,
                        dose.Dose with
                        {
                            Reps = Math.Max(1, dose.Dose.Reps - 1),
                        }
                    );
            }
        }
    }
}
