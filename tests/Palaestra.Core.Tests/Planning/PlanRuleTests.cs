using System.Collections.Concurrent;
using CsCheck;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Planning;

/// <summary>
/// What each rule says of a proposal is true of it, for random clients; and every rule is met among them. A reason that stands
/// on an exercise is looked up in the exercise itself, not in how it was chosen.
/// </summary>
public class PlanRuleTests
{
    private static readonly PracticeLibrary Library = Content.Library;

    private sealed record Seen(PlanInput Input, PlanProposal Proposal, PlanItem Item)
    {
        public Policy Policy => Library.FindPolicy(Input.PolicyId)!;
        public Rung Rung => Library.Rung(Item.RungId);
        public Ladder Ladder => Library.LadderOf(Item.RungId);
        public int Height => Ladder.IndexOf(Item.RungId);
        public int LowerThird => (int)Math.Ceiling(Ladder.Rungs.Count / 3.0) - 1;

        /// <summary>Entry rungs of the ladder by side; −1 where not even the lowest was clean. Empty: not screened.</summary>
        public List<int> Entries =>
            [
                .. Input
                    .Findings.Entries.Where(e => e.LadderId == Ladder.Id && e.TrialIds.Count > 0)
                    .Select(e => e.EntryRungId is { } id ? Ladder.IndexOf(id) : -1),
            ];

        public Allowance Allowance => Allowance.Of(Library, Input.Profile.Precautions, Rung, Side.Both);
        public Dose Start => DosePlanner.Start(Rung, Proposal.Irritability, Policy);
        public Dose Least => Item.Doses.MinBy(d => d.Dose.TotalReps)!.Dose;
        public IEnumerable<double?> Held =>
            Enum.GetValues<Sector>()
                .Where(s => Candidate.Asks(Rung, s, Library) > 0)
                .Select(s => Input.Findings.Control.First(c => c.Sector == s).Percent);
    }

    private static readonly Dictionary<string, Func<Seen, bool>> OfItems = new()
    {
        ["P-ENTRY"] = s => s.Entries.Count > 0 && s.Height <= s.Entries.Min(),
        ["P-SORE-LOW"] = s => s.Proposal.Irritability == Irritability.High && s.Height <= s.LowerThird,
        ["P-FIRST"] = s => s.Entries.Count == 0 && s.Height == 0,
        ["P-LOWER"] = s => s.Height < (s.Entries.Count > 0 ? s.Entries.Min() : s.LowerThird + 1),
        ["P-FALLBACK"] = s =>
            s.Rung.Features.Contains(Rung.NeutralFeature)
            && s.Input.Findings.Entries.Any(e => e is { TrialIds.Count: > 0, EntryRungId: null }),
        ["P-FEWER-SETS"] = s => s.Least.Sets < s.Start.Sets,
        ["P-MORE-SETS"] = s =>
            s.Proposal.Irritability == Irritability.Low
            && s.Least.Sets == s.Start.Sets + 1
            && s.Least.Sets <= s.Rung.Target.Sets,
        ["P-DESCENDING"] = s =>
            s.Policy.Endurance == HoldEndurance.Descending
            && s.Least.RepsOf(s.Least.Sets - 1) < s.Least.RepsOf(0),
        ["P-RANGE"] = s => s.Item.Doses.Any(d => d.Range < 1 && d.RangeEnds is not null),
        ["P-TOLERANCE"] = s =>
            s.Height == 0
            && s.Ladder.IsTolerance
            && Library.Goals.Any(g =>
                s.Input.Goals?.Contains(g.Id) == true && g.Ladders.Contains(s.Ladder.Id)
            ),
        ["P-PREFER"] = s => s.Allowance.Preferred && !s.Allowance.Barred,
        ["P-COVER"] = s => s.Held.Any(held => held < 100 - s.Policy.EvenPercent),
        ["P-KEEP"] = s => s.Held.All(held => !(held < 100 - s.Policy.EvenPercent)) && s.Entries.Count > 0,
        ["P-UNSEEN"] = s => s.Held.All(held => !(held < 100 - s.Policy.EvenPercent)),
    };

    private static readonly Dictionary<string, Func<PlanInput, PlanProposal, string, bool>> OfPlans = new()
    {
        ["P-EQUIPMENT"] = (input, _, _) =>
            (input.Equipment ?? Library.MatOnly).Count < Library.Equipment.Count,
        ["P-NO-ENTRY"] = (input, _, _) =>
            input.Findings.Entries.Any(e => e is { TrialIds.Count: > 0, EntryRungId: null }),
        ["P-FEW"] = (input, proposal, _) =>
            proposal.Plan.Items.Count >= Library.FindPolicy(input.PolicyId)!.ExercisesMax,
        ["P-LESS"] = (_, proposal, words) =>
            proposal.Plan.Items.All(i =>
                !words.StartsWith($"{Library.Rung(i.RungId).Name} would", StringComparison.Ordinal)
            ),
        ["P-MAT-ONLY"] = (input, proposal, _) =>
            input.Equipment is null
            && proposal.Plan.Items.All(i => Library.Rung(i.RungId).Equipment.All(Library.MatOnly.Contains)),
    };

    [Fact]
    public void Every_reason_of_a_proposal_is_true_of_it_and_every_rule_is_met()
    {
        Assert.SkipWhen(Soak.Histories < 1000, "Some reasons are rare: fewer clients would not show them.");
        var met = new ConcurrentDictionary<string, bool>();
        void Check(string rule, bool holds, string where)
        {
            met[rule] = true;
            Assert.True(holds, $"{rule} does not hold: {where}");
        }
        AnyClient.Input.Sample(
            input =>
            {
                var proposal = Planner.Propose(input, Library, Guid.NewGuid);
                foreach (var item in proposal.Plan.Items)
                {
                    foreach (var reason in item.Reasons.Where(r => OfItems.ContainsKey(r.RuleId)))
                    {
                        Check(
                            reason.RuleId,
                            OfItems[reason.RuleId](new Seen(input, proposal, item)),
                            $"{item.RungId} {item.Doses[0].Dose.Said().En()}, {reason.Words}"
                        );
                    }
                }
                foreach (
                    var reason in proposal
                        .NotChosen.Concat(proposal.Notes ?? [])
                        .Where(r => OfPlans.ContainsKey(r.RuleId))
                )
                {
                    Check(
                        reason.RuleId,
                        OfPlans[reason.RuleId](input, proposal, reason.Words.En()),
                        reason.Words.En()
                    );
                }
            },
            iter: 1000,
            threads: 2
        );
        Assert.Equal(OfItems.Keys.Concat(OfPlans.Keys).Order(), met.Keys.Order());
    }

    private static PlanInput Screened(ClientProfile who, double minutes = 30, int height = 2) =>
        new(
            who,
            AnyClient.Of(
                [.. Enumerable.Repeat(height, 2 * Library.Ladders.Count)],
                [60, 60, 60, 60, 60, 60, 60, 60]
            ),
            Content.Policy.Id,
            SpinalStrategy.Neutral,
            Activation.Brace,
            minutes,
            Equipment: [.. Library.Equipment.Select(e => e.Id)]
        );

    private static PlanProposal Propose(PlanInput input) => Planner.Propose(input, Library, Guid.NewGuid);

    private static bool Noted(PlanProposal proposal, string rule) =>
        (proposal.Notes ?? []).Any(note => note.RuleId == rule);

    [Theory]
    [InlineData(15, true)]
    [InlineData(16, false)]
    [InlineData(null, false)]
    public void P_GUARDIAN_under_sixteen_names_somebody_and_holds_planks_back(int? age, bool young)
    {
        var proposal = Propose(Screened(Someone.Calm) with { Age = age });
        Assert.Equal(young, Noted(proposal, "P-GUARDIAN"));
        if (young)
        {
            Assert.All(
                proposal.Plan.Items.Where(i => Library.LadderOf(i.RungId).Id is "G" or "H"),
                item => Assert.All(item.Doses, d => Assert.InRange(d.Dose.Hold, 0, 30))
            );
        }
    }

    [Theory]
    [InlineData(15, true)]
    [InlineData(16, false)]
    [InlineData(17, false)]
    [InlineData(null, false)]
    public void The_precaution_of_an_age_is_told_below_that_age_only(int? age, bool told) =>
        Assert.Equal(told, Young.Told(Someone.Calm, age, Library).Has("under-16"));

    [Theory]
    [InlineData(17, "sport", "extension", true)]
    [InlineData(18, "sport", "extension", false)]
    [InlineData(17, "sit", "extension", false)]
    [InlineData(17, "sport", "wrist", false)]
    public void P_YOUNG_ARCH_under_eighteen_in_sport_with_pain_on_arching(
        int age,
        string goal,
        string precaution,
        bool noted
    ) =>
        Assert.Equal(
            noted,
            Noted(
                Propose(Screened(Someone.With(precaution)) with { Age = age, Goals = [goal] }),
                "P-YOUNG-ARCH"
            )
        );

    [Theory]
    [InlineData(Side.Right, true)]
    [InlineData(Side.Left, false)]
    public void P_CONFLICT_a_curve_to_the_right_and_a_sore_right_shoulder_pull_apart(
        Side shoulder,
        bool noted
    )
    {
        var who = new ClientProfile(
            Someone.Calm.Pain,
            1,
            false,
            [new ClientPrecaution("scoliosis", Side.Right), new ClientPrecaution("shoulder", shoulder)]
        );
        var proposal = Propose(Screened(who));
        Assert.Equal(noted, Noted(proposal, "P-CONFLICT"));
    }

    /// <summary>Only the side planks are open: the endurance school would hold them longer than ten seconds.</summary>
    private static PlanProposal SidePlanks(ClientProfile who)
    {
        // No school that ships holds once and long; a clinic's own may.
        var own = Content.Policy with
        {
            Endurance = HoldEndurance.OneLong,
        };
        return Planner.Propose(
            Screened(who, 45, height: Library.LadderOf("G2").IndexOf("G2")) with
            {
                LeftOut =
                [
                    .. Library.Ladders.Where(l => l.Id != "G").SelectMany(l => l.Rungs).Select(r => r.Id),
                ],
            },
            Library with
            {
                Policies = [own],
            },
            Guid.NewGuid
        );
    }

    [Fact]
    public void P_LIMIT_and_P_ONE_LONG_a_long_hold_is_kept_at_what_the_precaution_lets_through()
    {
        var free = Assert.Single(SidePlanks(Someone.Calm).Plan.Items);
        Assert.Contains(free.Reasons, r => r.RuleId == "P-ONE-LONG");
        Assert.DoesNotContain(free.Reasons, r => r.RuleId == "P-LIMIT");
        Assert.All(
            free.Doses,
            d => Assert.True(d.Dose is { Reps: 1, Sets: 1, Hold: > 10 }, d.Dose.Said().En())
        );
        var kept = Assert.Single(SidePlanks(Someone.With("pressure")).Plan.Items);
        Assert.Contains(kept.Reasons, r => r.RuleId == "P-LIMIT");
        Assert.All(kept.Doses, d => Assert.InRange(d.Dose.Hold, 1, 10));
    }

    [Theory]
    [InlineData(true)]
    [InlineData(false)]
    public void P_SORE_what_waits_until_the_back_is_calm_is_in_no_plan_before(bool sore)
    {
        var waits = Library
            .TrainedLadders.SelectMany(l => l.Rungs)
            .First(r => r.Features.Any(Content.Policy.Sore.Avoids.Contains));
        var ladder = Library.LadderOf(waits.Id);
        var input = Screened(sore ? Someone.Moderate : Someone.Calm, 45, ladder.IndexOf(waits.Id)) with
        {
            LeftOut = [.. ladder.Rungs.Select(r => r.Id).Where(id => id != waits.Id)],
        };
        var proposal = Propose(input);
        Assert.Equal(sore, proposal.NotChosen.Any(r => r.RuleId == "P-SORE"));
        Assert.False(sore && proposal.Plan.Items.Any(i => i.RungId == waits.Id));
    }

    [Fact]
    public void P_NEAREST_MINUTES_shows_the_shortest_plan_where_nothing_fits()
    {
        var proposal = Propose(Screened(Someone.Calm, 0.3));
        Assert.True(Noted(proposal, "P-NEAREST-MINUTES"));
        Assert.Null(proposal.Score);
        Assert.True(proposal.Plan.TotalMinutes > 0.3);
        Assert.False(Noted(Propose(Screened(Someone.Calm, 20)), "P-NEAREST-MINUTES"));
    }

    [Fact]
    public void P_LEFT_a_ladder_left_out_by_the_practitioner_is_told_as_such()
    {
        var all = Propose(Screened(Someone.Calm));
        var ladder = Library.LadderOf(all.Plan.Items[^1].RungId);
        var without = Propose(Screened(Someone.Calm) with { LeftOut = [.. ladder.Rungs.Select(r => r.Id)] });
        Assert.Contains(
            without.NotChosen,
            r => r.RuleId == "P-LEFT" && r.Words.En().StartsWith(ladder.Name, StringComparison.Ordinal)
        );
        Assert.DoesNotContain(without.Plan.Items, i => Library.LadderOf(i.RungId).Id == ladder.Id);
    }

    [Fact]
    public void P_LOCK_MANY_more_kept_than_a_plan_may_hold_is_said()
    {
        var item = Propose(Screened(Someone.Calm)).Plan.Items[0];
        List<PlanItem> Kept(int count) =>
            [.. Enumerable.Range(0, count).Select(_ => item with { Id = Guid.NewGuid() })];
        var most = Content.Policy.ExercisesMax;
        Assert.True(
            Noted(Propose(Screened(Someone.Calm, 90) with { Locked = Kept(most + 1) }), "P-LOCK-MANY")
        );
        Assert.False(Noted(Propose(Screened(Someone.Calm, 90) with { Locked = Kept(most) }), "P-LOCK-MANY"));
    }

    [Fact]
    public void P_SCHOOL_what_a_school_leaves_out_is_in_no_plan_of_it()
    {
        var closing = Library
            .Policies.Where(p => Library.Ladders.SelectMany(l => l.Rungs).Any(p.Closes))
            .ToList();
        Assert.NotEmpty(closing);
        foreach (var policy in closing)
        {
            var proposal = Propose(Screened(Someone.Calm, 45) with { PolicyId = policy.Id });
            Assert.DoesNotContain(proposal.Plan.Items, i => policy.Closes(Library.Rung(i.RungId)));
            if (Library.TrainedLadders.Any(l => l.Rungs.Take(3).All(policy.Closes)))
            {
                Assert.Contains(proposal.NotChosen, r => r.RuleId == "P-SCHOOL");
            }
        }
    }

    /// <summary>Walking goes beside the exercises where the client wants to walk and there is time; a few minutes when it stirs up.</summary>
    [Fact]
    public void Walking_is_planned_for_those_who_want_to_walk()
    {
        static IEnumerable<PlanItem> Walks(PlanInput input) =>
            Propose(input).Plan.Items.Where(i => Library.LadderOf(i.RungId).IsTolerance);

        var wants = Screened(Someone.Calm, 60) with { Goals = ["walk"] };
        Assert.Equal("W1", Assert.Single(Walks(wants)).RungId);
        Assert.Empty(Walks(Screened(Someone.Calm, 60) with { Goals = ["lift"] }));
        Assert.Empty(
            Walks(
                wants with
                {
                    LeftOut =
                    [
                        .. Library
                            .Ladders.Where(l => l.IsTolerance)
                            .SelectMany(l => l.Rungs)
                            .Select(r => r.Id),
                    ],
                }
            )
        );
    }

    /// <summary>Lying and sitting are no holds to be afraid of: they keep their seconds when the back is easily irritated.</summary>
    [Fact]
    public void What_is_no_strain_keeps_its_seconds()
    {
        var lying = Library.Rung("P1");
        Assert.Equal(lying.Start.Hold, DosePlanner.Start(lying, Irritability.High, Content.Policy).Hold);
        var plank = Library.Rung("H1");
        Assert.True(DosePlanner.Start(plank, Irritability.High, Content.Policy).Hold < plank.Start.Hold);
    }

    /// <summary>The red flag behind "numbness or weakness", and the options the check-in asks of a leg, are in the content.</summary>
    [Fact]
    public void What_the_screens_ask_for_by_name_is_in_the_content()
    {
        Assert.Contains(Library.DangerSigns, flag => flag.Worry == Core.Terms.Worry.NumbOrWeak);
        Assert.Equal(
            ["buttock", "thigh", "below-knee"],
            LegPain.Of(Library)!.Options!.Select(o => o.Id).Where(o => o != "none")
        );
    }
}
