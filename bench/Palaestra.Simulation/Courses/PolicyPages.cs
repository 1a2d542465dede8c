using System.Globalization;
using System.Text;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Core.Progression;

namespace Palaestra.Simulation.Courses;

/// <summary>docs/policies.md, written from what the simulated courses did.</summary>
public static class PolicyPages
{
    /// <param name="clients">Of the first nature; a third of them of the others and of each choice, so that it does not take for ever.</param>
    public static string Write(
        PracticeLibrary library,
        IReadOnlyList<CourseNature> natures,
        int clients,
        int seed
    )
    {
        var fewer = Math.Max(1, clients / 3);
        var text = new StringBuilder();
        text.AppendLine(
            """
            # Policies on simulated courses

            Written by `./palaestra courses`; not to be edited by hand. Other natures: `./palaestra courses --nature FILE --clients N --seed S --out FILE`
            writes the same tables for a file like those in `bench/natures`, and beside it a `.json`. What a file leaves out is as in the typical one.

            A simulated client has a true ability by direction and side (docs/screening-simulation.md) that grows with clean work near it and fades without
            work; a rep gives way when its rung is higher than the ability that is left. A back is irritated by flares and by work above ability, and
            settles; a flare is the likelier the further work is above ability and the more clean time grew in two weeks, both squared. Effort is
            told with noise; a rater misses faults and imagines some; most do most of the home work, a few little. A try costs minutes and strength, and it
            can flare. Every figure of a nature is our own choice; no data of real people stand behind them, and what differs between rows says more than a
            row.

            Beside the policies: the *oracle* knows true ability and goes up at once where the next rung is truly held, under the same rules of safety; the
            *first plan* never changes; the *map* goes up at its stages whatever happens. Exercises that cannot move (neutral, switch-on, the top of a
            ladder) are not counted.
            """
        );
        text.AppendLine();
        foreach (var nature in natures)
        {
            var many = nature == natures[0] ? clients : fewer;
            text.Append(CourseReport.Write(CourseTable.Of(library, nature, many, seed)));
        }
        Choices(text, library, natures[0], fewer, seed);
        Pace(text, library);
        return text.ToString();
    }

    /// <summary>The default policy with one choice changed.</summary>
    private static void Choices(
        StringBuilder text,
        PracticeLibrary library,
        CourseNature nature,
        int clients,
        int seed
    )
    {
        var policy = library.DefaultPolicy;
        var judgement = policy.Judgement;
        Policy Judged(Judgement other) => policy with { Judgement = other };
        (string Name, Policy Policy)[] choices =
        [
            ("as it is", policy),
            ("no tries", Judged(judgement with { ProbesCalm = 0, ProbesElse = 0 })),
            ("ready after one visit", Judged(judgement with { ReadyVisits = 1 })),
            ("ready at half the target", Judged(judgement with { ReadyShare = 0.5 })),
            ("ready with effort up to 5", Judged(judgement with { ReadyEffortMax = 5 })),
            ("nothing carried over", Judged(judgement with { CarryShare = 0 })),
            ("every rep has to be clean", Judged(judgement with { BrokenPer = 1000 })),
            ("clean time grows by a tenth a week", policy with { WeeklyGrowth = 0.1 }),
            ("by two fifths", policy with { WeeklyGrowth = 0.4 }),
            ("one clean visit at the target is enough", policy with { MasteryVisits = 1 }),
        ];
        text.AppendLine("## One choice changed");
        text.AppendLine();
        text.AppendLine(I($"{policy.Name}, {nature.Name} nature, {clients} clients."));
        text.AppendLine();
        text.AppendLine("| choice | up in 12 weeks | flared | of steps up too early |");
        text.AppendLine("|---|---|---|---|");
        foreach (var (name, other) in choices)
        {
            var with = library with { Policies = [other, .. library.Policies.Skip(1)] };
            var guide = new ByRules(other.Id, other);
            var row = CourseRow.Of(guide, name, CourseTable.Lived(with, guide, nature, clients, seed));
            text.AppendLine(
                I(
                    $"| {name} | {row.Figures.Up12 * 100:0.0} ± {row.Errors.Up12 * 100:0.0} % | {row.Figures.Flared * 100:0.0} ± {row.Errors.Flared * 100:0.0} % | {row.Figures.TooEarly * 100:0.0} ± {row.Errors.TooEarly * 100:0.0} % |"
                )
            );
        }
        text.AppendLine();
    }

    /// <summary>Clean visits from a rung's first dose, back calm, to the visit that earns the next rung without a try.</summary>
    private static void Pace(StringBuilder text, PracticeLibrary library)
    {
        text.AppendLine("## What clean time may grow by");
        text.AppendLine();
        text.AppendLine(
            "Visits on one rung of a calm client in whom every rep is clean, from the start dose to the second visit at the target, without any try, over all trained rungs:"
        );
        text.AppendLine();
        text.AppendLine(
            "| clean time grows a week by | quickest quarter of rungs | median | slowest quarter |"
        );
        text.AppendLine("|---|---|---|---|");
        foreach (var growth in new[] { 0.1, library.DefaultPolicy.WeeklyGrowth, 0.4 })
        {
            var visits = library
                .TrainedLadders.SelectMany(ladder => ladder.Rungs)
                .Select(rung => VisitsOn(rung, growth, library.DefaultPolicy))
                .Order()
                .ToList();
            int At(double share) => visits[(int)(visits.Count * share)];
            text.AppendLine(I($"| {growth:P0} | {At(0.25)} | {At(0.5)} | {At(0.75)} |"));
        }
    }

    private static int VisitsOn(Rung rung, double growth, Policy policy)
    {
        var visits = policy.MasteryVisits;
        var dose = DosePlanner.Start(rung, StirredUp.Low, policy);
        while (DoseStep.Harder(dose, rung, rung.Target, growth) is { } more)
        {
            dose = more;
            visits++;
        }
        return visits;
    }

    private static string I(FormattableString text) => text.ToString(CultureInfo.InvariantCulture);
}
