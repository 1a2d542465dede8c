using Palaestra.Core.Body;
using Palaestra.Core.Capture;
using Palaestra.Core.Findings;
using Palaestra.Core.Library;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Findings;

/// <summary>Where a value stands in a published band, at its edges; the figures are those of content/norms.json, with their sources there.</summary>
public class NormBandsTests
{
    /// <summary>The rep is counted a second after the wait.</summary>
    private static Tape Hold(Tape tape, string task, Side side, double seconds) =>
        tape.Task(task, side).HoldStart().Wait(seconds - 1).CountRep().End(EndReason.Fatigue);

    private static TaskFinding Held(string task, Side side, double seconds) =>
        Finding(Hold(new Tape(), task, side, seconds), task);

    private static TaskFinding Finding(Tape tape, string task) =>
        FindingsMaker
            .Of(tape.Trials(), Someone.Calm, Content.Policy, Content.Library)
            .Tasks.First(t => t.TaskId == task);

    private static NormShown Band(TaskFinding finding, Person person) =>
        Assert.Single(NormBands.Of(finding, person, Content.Library));

    /// <summary>146 ± 51 s: both edges belong to the middle.</summary>
    [Theory]
    [InlineData(94, "below")]
    [InlineData(95, "within")]
    [InlineData(150, "within")]
    [InlineData(197, "within")]
    [InlineData(198, "above")]
    public void The_edges_of_a_band_belong_to_its_middle(double seconds, string place) =>
        Assert.Equal(
            place,
            Band(Held("extensor-hold", Side.Both, seconds), new Person(22, Sex.Male)).Words.Values["place"]
        );

    /// <summary>Cut at 45 s: the spread says nothing, the mean and the cut do.</summary>
    [Theory]
    [InlineData(20, "under-mean")]
    [InlineData(32.1, "over-mean")]
    [InlineData(44, "over-mean")]
    public void A_band_that_was_cut_has_a_mean_and_no_thirds(double seconds, string place) =>
        Assert.Equal(
            place,
            Band(Held("stance", Side.Left, seconds), new Person(65, null)).Words.Values["place"]
        );

    [Theory]
    [InlineData(45, "norm.cut")]
    [InlineData(44.9, "norm.place")]
    public void The_cut_itself_was_reached(double seconds, string words) =>
        Assert.Equal(words, Band(Held("stance", Side.Left, seconds), new Person(65, null)).Words.Id);

    [Fact]
    public void Each_side_stands_beside_the_band_of_its_own_side()
    {
        var tape = Hold(new Tape(), "side-hold", Side.Left, 80);
        var both = NormBands.Of(
            Finding(Hold(tape, "side-hold", Side.Right, 80), "side-hold"),
            new Person(22, Sex.Male),
            Content.Library
        );
        Assert.Equal([(Side.Left, 97.0), (Side.Right, 94.0)], both.Select(n => (n.Side, n.Mean ?? 0)));
    }

    /// <summary>Groups of 18 to 30 by sex, and of men from 30 to 60.</summary>
    [Theory]
    [InlineData(70, Sex.Male, null)] // men of 30 to 60, told by lines
    [InlineData(16, Sex.Male, 146.0)]
    [InlineData(70, Sex.Female, 189.0)]
    [InlineData(45, null, null)]
    [InlineData(12, null, 146.0)]
    public void Outside_all_groups_the_nearest_by_age_and_sex_is_shown_and_not_compared(
        int age,
        Sex? sex,
        double? mean
    )
    {
        var norm = Band(Held("extensor-hold", Side.Both, 100), new Person(age, sex));
        Assert.Equal((mean, false), (norm.Mean, norm.Inside));
        Assert.Equal("norm.outside", norm.Words.Id);
    }

    [Theory]
    [InlineData(100, false)]
    [InlineData(101, true)]
    public void A_ratio_is_worth_attention_beyond_its_bound_not_at_it(double flexor, bool attention)
    {
        var tape = Hold(new Tape(), "flexor-hold", Side.Both, flexor);
        Hold(tape, "extensor-hold", Side.Both, 100);
        var tasks = FindingsMaker.Of(tape.Trials(), Someone.Calm, Content.Policy, Content.Library).Tasks;
        RatioShown Of(Person person) =>
            NormBands.Ratios(tasks, person, Content.Library).Single(r => r.Id == "flexor-extensor");
        var inside = Of(new Person(25, null));
        Assert.Equal((attention, false), (inside.Attention, inside.Words.Values.ContainsKey("outside")));
        var outside = Of(new Person(31, null));
        Assert.Null(outside.Attention);
        Assert.IsType<Message>(outside.Words.Values["outside"]);
    }

    /// <summary>Over 4 cm in front meant more injuries in the group that was followed: at 4 it did not.</summary>
    [Theory]
    [InlineData(66, false)]
    [InlineData(65.5, true)]
    public void A_difference_counts_over_its_bound_and_says_what_it_meant_in_its_group_alone(
        double left,
        bool attention
    )
    {
        var tape = new Tape().Task("reaches", Side.Left, "front", leg: 90).Measure(left).End();
        tape.Task("reaches", Side.Right, "front", leg: 90).Measure(70).End();
        var finding = Finding(tape, "reaches");
        var shown = NormBands.DifferenceOf(finding, new Person(16, null), Content.Library)!;
        Assert.Equal(attention, shown.Attention);
        Assert.True(shown.Words.Values.ContainsKey("means"));
        Assert.False(shown.Words.Values.ContainsKey("outside"));
        var outside = NormBands.DifferenceOf(finding, new Person(19, null), Content.Library)!;
        Assert.Null(outside.Attention);
        Assert.False(outside.Words.Values.ContainsKey("means"));
        Assert.True(outside.Words.Values.ContainsKey("outside"));
    }

    [Fact]
    public void Only_the_way_that_was_studied_has_a_difference_to_compare_with()
    {
        var tape = new Tape().Task("reaches", Side.Left, "side", leg: 90).Measure(60).End();
        tape.Task("reaches", Side.Right, "side", leg: 90).Measure(70).End();
        Assert.Null(NormBands.DifferenceOf(Finding(tape, "reaches"), new Person(16, null), Content.Library));
    }
}
