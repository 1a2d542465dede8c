using CsCheck;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Core.Progression;
using Palaestra.Core.Visits;

namespace Palaestra.Core.Tests.Given;

/// <summary>A plan of one exercise and what was done of it over visits, for the D-rules.</summary>
public sealed record Work(string RungId, Dose Dose)
{
    public static readonly Guid ItemId = Guid.Parse("11111111-1111-1111-1111-111111111111");

    public ClientProfile Profile { get; init; } = Someone.Calm;
    public CheckIn CheckIn { get; init; } = new(1, 1, 1, 1, []);
    public IReadOnlyList<Performance> Done { get; init; } = [];

    /// <summary>The last day of training before the visit that is decided; none: a week before it.</summary>
    public DateOnly? LastWork { get; init; }
    public string PolicyId { get; init; } = Content.Policy.Id;
    public IReadOnlyList<HomeWork> Home { get; init; } = [];
    public DateOnly? OpenedOn { get; init; }
    public SpinalStrategy? Strategy { get; init; }
    public Activation? Activation { get; init; }

    /// <summary>Days from one visit to the next.</summary>
    public int Apart { get; init; } = 7;
    public Dose? RightDose { get; init; }

    /// <summary>Two visits on two sides, with any share clean, any effort and any morning after.</summary>
    public static readonly Gen<Work> Any = Gen.Select(
        Gen.OneOf(Gen.Const("B5"), Gen.Const("B6"), Gen.Const("D3"), Gen.Const("E5")),
        Gen.Int[0, 4].Array[4],
        Gen.Int[0, 10],
        Gen.Int[0, 10],
        Gen.Bool,
        (rung, shares, effort, nextDay, atTarget) =>
        {
            var work = atTarget ? Work.AtTarget(rung) : new Work(rung, Content.Library.Rung(rung).Start);
            return (work with { CheckIn = new CheckIn(2, 2, nextDay, 1, []) })
                .Visit(1, Side.Left, shares[0] / 4.0)
                .Visit(1, Side.Right, shares[1] / 4.0)
                .Visit(2, Side.Left, shares[2] / 4.0, effort: effort)
                .Visit(2, Side.Right, shares[3] / 4.0, effort: effort);
        }
    );

    private Rung Rung => Content.Library.Rung(RungId);

    /// <summary>Work at the rung's target dose.</summary>
    public static Work AtTarget(string rungId) => new(rungId, Content.Library.Rung(rungId).Target);

    /// <summary>Adds one visit of one side: that share of the reps clean, the others with the fault.</summary>
    public Work Visit(
        int visit,
        Side side,
        double cleanShare = 1,
        bool? cueFixed = null,
        int? effort = 5,
        int painSets = 0,
        double breakingShare = double.NaN
    )
    {
        var dose = side == Side.Right && RightDose is { } right ? right : Dose;
        var clean = (int)Math.Round(dose.Reps * cleanShare);
        var broken = double.IsNaN(breakingShare)
            ? dose.Reps - clean
            : (int)Math.Round(dose.Reps * breakingShare);
        var sets = Enumerable
            .Range(0, dose.Sets)
            .Select(i => new SetDone(
                dose.Reps,
                clean,
                0,
                broken,
                clean * dose.Hold,
                i < painSets,
                cueFixed,
                effort,
                broken > 0 ? "arch" : null
            ))
            .ToList();
        var performance = new Performance(visit, DateOf(visit), ItemId, RungId, side, dose, sets);
        return this with { Done = [.. Done, performance] };
    }

    /// <summary>The same visit on both sides.</summary>
    public Work BothSides(int visit, double cleanShare = 1, bool? cueFixed = null, int? effort = 5) =>
        Rung.Sides == RungSides.Each
            ? Visit(visit, Side.Left, cleanShare, cueFixed, effort)
                .Visit(visit, Side.Right, cleanShare, cueFixed, effort)
            : Visit(visit, Side.Both, cleanShare, cueFixed, effort);

    public DecideInput Input(int visit = 2)
    {
        var doses = Rung.TaskSides.Select(side => new SideDose(
            side,
            side == Side.Right && RightDose is { } r ? r : Dose
        ));
        var item = new PlanItem(ItemId, RungId, Message.Plain(""), [.. doses], [], [], Rung.Cues[0]);
        return new DecideInput(
            visit,
            DateOf(visit),
            Profile,
            PolicyId,
            [item],
            CheckIn,
            Done,
            LastWork ?? DateOf(visit).AddDays(-Apart),
            Home,
            OpenedOn,
            null,
            null,
            Strategy,
            Activation
        );
    }

    private DateOnly DateOf(int visit) => new DateOnly(2026, 3, 2).AddDays(Apart * visit);

    /// <summary>Home work on both sides, as a share of what was planned.</summary>
    public Work AtHome(double share, int? pain = null, int? morning = null) =>
        this with
        {
            Home =
            [
                .. Rung.TaskSides.Select(side => new HomeWork(
                    ItemId,
                    side,
                    100,
                    (int)(100 * share),
                    5,
                    pain,
                    morning
                )),
            ],
        };

    public IReadOnlyList<Decision> Decisions(int visit = 2) =>
        DecisionEngine.Decide(Input(visit), Content.Library);

    public Decision Decide(Side side = Side.Left, int visit = 2) =>
        Decisions(visit).First(d => d.Side == side || d.Side == Side.Both);
}
