using System.Text.RegularExpressions;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Outcomes;
using Palaestra.Core.Planning;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Outcomes;

/// <summary>What stands in the record stands in the letter, and nothing else does.</summary>
public partial class LetterWriterTests
{
    private static readonly DateOnly First = new(2026, 3, 2);

    /// <summary>A client seen once, with nothing but the first questions answered.</summary>
    private static readonly LetterInput Bare = new(
        "Wenna Sorrel",
        47,
        First,
        "Aches after splicing rope",
        Someone.Calm,
        [],
        [],
        1,
        First,
        null,
        null,
        null,
        null,
        [],
        [],
        0,
        null,
        [],
        Content.Policy
    );

    private static Plan PlanOf(Work work) =>
        new(work.Input().Items, SpinalStrategy.Neutral, Activation.Brace, Content.Policy.Id, 1, "", 12, []);

    private static Letter Write(LetterInput input)
    {
        var said = new LetterWriter(input, Content.Library).Write();
        return new Letter(
            "",
            said.About.En(input.Dates),
            [
                .. said.Parts.Select(p => new LetterPart(
                    p.Heading.En(),
                    [.. p.Paragraphs.Select(s => s.En(input.Dates))]
                )),
            ]
        );
    }

    private static string Text(LetterInput input) =>
        string.Join("\n", Write(input).Parts.SelectMany(part => part.Paragraphs));

    private static OutcomeSeries Pain(params double[] values) =>
        OutcomeSeries.Of(
            Content.Library.Outcomes.First(m => m.Id == "pain"),
            [.. values.Select((value, i) => new OutcomePoint(i + 1, First.AddDays(7 * i), value))]
        )!;

    [GeneratedRegex(@"\d+(\.\d+)?")]
    private static partial Regex Numbers();

    [Fact]
    public void Of_a_client_seen_once_it_tells_the_problem_and_invents_no_findings_and_no_work()
    {
        var letter = Write(Bare);
        Assert.Equal(["The problem", "Advice"], letter.Parts.Select(part => part.Heading));
        Assert.Equal("Wenna Sorrel, aged 47: Aches after splicing rope.", letter.About);
        // Day and year of the first visit, and the answers of the first questions: pain 1, 1 and 2, settled within 1 h.
        HashSet<string> known = ["2", "2026", "1", "10"];
        Assert.All(
            Numbers().Matches(letter.Parts[0].Paragraphs[0]),
            match => Assert.Contains(match.Value, known)
        );
    }

    [Fact]
    public void Precautions_and_danger_signs_are_told_as_they_were_recorded()
    {
        var text = Text(
            Bare with
            {
                Precautions = [Message.Plain("fragile bone"), Message.Plain("wrist, left")],
                DangerSigns = [Message.Plain("Red flag reported: fever. Done: sent on.")],
            }
        );
        Assert.Contains("Precautions: fragile bone; wrist, left.", text, StringComparison.Ordinal);
        Assert.Contains("Done: sent on.", text, StringComparison.Ordinal);
        Assert.DoesNotContain("No red flags", text, StringComparison.Ordinal);
        Assert.Contains("Red flags not recorded.", Text(Bare), StringComparison.Ordinal);
        Assert.Contains(
            "No red flags identified; asked at each visit.",
            Text(Bare with { FlagsAsked = 1 }),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public void Outcomes_stand_with_the_change_that_counts_and_a_trend_only_where_there_is_one()
    {
        var falling = Text(Bare with { Outcomes = [Pain(8, 7, 6, 5, 4, 3)] });
        Assert.Contains(
            "8 to 3 of 10, clearly better (a change counts from 2",
            falling,
            StringComparison.Ordinal
        );
        Assert.Contains("Trend: getting better", falling, StringComparison.Ordinal);
        var level = Text(Bare with { Outcomes = [Pain(5, 4, 5, 5)] });
        Assert.Contains("no clear change", level, StringComparison.Ordinal);
        Assert.DoesNotContain("Trend", level, StringComparison.Ordinal);
        Assert.Contains("asked once", Text(Bare with { Outcomes = [Pain(5)] }), StringComparison.Ordinal);
    }

    [Fact]
    public void What_was_done_counts_exercises_flares_and_sides_from_the_record()
    {
        var work = new Work("B6", new Dose(10, 1, 3))
            .Visit(1, Side.Left, 0.5)
            .Visit(1, Side.Right)
            .Visit(2, Side.Left)
            .Visit(2, Side.Right);
        var input = Bare with
        {
            FirstPlan = PlanOf(work),
            Plan = PlanOf(work),
            Visits = 3,
            LastVisit = First.AddDays(14),
            Work = work.Done,
            Decisions = work.Decisions(),
            Flares = 1,
        };
        var text = Text(input);
        Assert.Contains(
            "3 visits in 2 weeks. The plan began with leg reach, arms still",
            text,
            StringComparison.Ordinal
        );
        Assert.Contains(
            "Pain was still up the next day or had risen over the weeks at 1 visit;",
            text,
            StringComparison.Ordinal
        );
        Assert.Contains(
            "differed by 50 % at the first session and by 0 % at the last",
            text,
            StringComparison.Ordinal
        );
        Assert.DoesNotContain("At home", text, StringComparison.Ordinal);
        Assert.Contains("At home about 70 %", Text(input with { HomeShare = 0.7 }), StringComparison.Ordinal);
    }

    [Fact]
    public void A_letter_it_writes_may_be_stored_and_one_that_is_emptied_may_not()
    {
        Assert.Empty(Letter.Errors(Write(Bare), "letter"));
        Assert.Equal(
            ["letter.about", "letter.parts"],
            Letter.Errors(new Letter("", "", []), "letter").Select(error => error.Field)
        );
    }
}
