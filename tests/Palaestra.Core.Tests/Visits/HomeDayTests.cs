using CsCheck;
using Palaestra.Core.Visits;

namespace Palaestra.Core.Tests.Visits;

/// <summary>What a client reports of one day, in whatever pieces and order it arrives.</summary>
public class HomeDayTests
{
    private static readonly DateOnly Day = new(2026, 12, 1);
    private static readonly Guid[] Items = [Guid.CreateVersion7(), Guid.CreateVersion7()];

    private static readonly string?[] Remarks = [null, "Stopped because it hurt.", "Better by day."];

    private static readonly Gen<int?> Pain = Gen.Int[-3, 10].Select(n => n < 0 ? null : (int?)n);

    private static readonly Gen<HomeDay> Report = Gen.Select(
            Gen.Select(Gen.Int[0, 1], Gen.Enum<Side>(), Gen.Int[0, 40]).List[0, 6],
            Pain,
            Pain,
            Gen.Int[0, 2].Select(n => Remarks[n])
        )
        .Select(
            (done, pain, morning, remark) =>
                new HomeDay(
                    Day,
                    [
                        .. done.Select(d => new HomeReps(Items[d.Item1], d.Item2, d.Item3))
                            .DistinctBy(d => (d.PlanItemId, d.Side)),
                    ],
                    pain,
                    morning,
                    remark
                )
        );

    private static HomeDay Joined(IEnumerable<HomeDay> reports) => reports.Aggregate((a, b) => a.Joined(b));

    [Fact]
    public void Is_the_same_in_any_order_and_however_often_it_arrives() =>
        Report
            .List[1, 5]
            .Select(Gen.Int[0, 1000])
            .Sample(
                (reports, seed) =>
                {
                    var once = Joined(reports);
                    var mixed = reports.Concat(reports).OrderBy(r => HashCode.Combine(r, seed)).ToList();
                    Assert.True(once.Says(Joined(mixed)));
                    Assert.All(reports, report => Assert.True(once.Says(once.Joined(report))));
                }
            );

    [Fact]
    public void Never_hurts_less_and_never_loses_work_for_what_comes_beside_it() =>
        Report
            .List[1, 5]
            .Sample(reports =>
            {
                var all = Joined(reports);
                Assert.Equal(reports.Max(r => r.Pain), all.Pain);
                Assert.Equal(reports.Max(r => r.NextMorning), all.NextMorning);
                Assert.Equal(reports.Any(r => r.Remark is not null), all.Remark is not null);
                foreach (var done in reports.SelectMany(r => r.Done))
                {
                    var kept = Assert.Single(
                        all.Done,
                        d => d.PlanItemId == done.PlanItemId && d.Side == done.Side
                    );
                    Assert.True(kept.Reps >= done.Reps);
                }
            });

    [Fact]
    public void Says_something_else_by_one_rep_one_side_or_one_pain_more()
    {
        HomeDay day = new(Day, [new(Items[0], Side.Left, 5)], 2, null, null);
        Assert.True(day.Says(day with { Done = [.. day.Done] }));
        Assert.False(day.Says(day with { Pain = 3 }));
        Assert.False(day.Says(day with { NextMorning = 0 }));
        Assert.False(day.Says(day with { Done = [new(Items[0], Side.Left, 6)] }));
        Assert.False(day.Says(day with { Done = [new(Items[0], Side.Right, 5)] }));
        Assert.False(day.Says(day with { Day = Day.AddDays(1) }));
    }
}
