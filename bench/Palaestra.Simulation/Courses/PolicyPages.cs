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
    /// <summary>A third, for the other natures and each choice, so that it does not take for ever.</summary>
    public static int Fewer(int clients) => Math.Max(1, clients / 3);

    /// <param name="clients">Of the first nature; fewer of the others.</param>
    public static string Write(
        PracticeLibrary library,
        IReadOnlyList<CourseNature> natures,
        int clients,
        int seed,
        Simulated simulated
    )
    {
        var fewer = Fewer(clients);
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
        Choices(text, library, simulated);
        Pace(text, library);
        return text.ToString();
    }

    /// <summary>Numbers of the default policy that are tried, each by itself; those that decide how soon and how much.</summary>
    private static readonly (string Path, double Value)[] Tried =
    [
        ("judgement.probesCalm", 0),
        ("judgement.probesCalm", 1),
        ("judgement.probesElse", 0),
        ("judgement.probeGap", 4),
        ("judgement.readyVisits", 1),
        ("judgement.readyVisits", 3),
        ("judgement.readyShare", 0.5),
        ("judgement.readyReps", 20),
        ("judgement.readyEffortMax", 5),
        ("judgement.readyEffortMax", 7),
        ("judgement.readyCalmDays", 14),
        ("judgement.carryShare", 0),
        ("judgement.carryShare", 1),
        ("judgement.brokenPer", 5),
        ("judgement.brokenPer", 100),
        ("judgement.takeBackDays", 42),
        ("weeklyGrowth", 0.1),
        ("weeklyGrowth", 0.4),
        ("masteryVisits", 1),
        ("masteryVisits", 3),
        ("masteryEffortMax", 5),
        ("nextDayRise", 3),
        ("homeLessFraction", 0.3),
        ("homeLessFraction", 0.7),
    ];

    /// <summary>The default policy with one number changed.</summary>
    public static Simulated Choices(PracticeLibrary library, CourseNature nature, int clients, int seed)
    {
        var policy = library.DefaultPolicy;
        SimulatedFigures Of(Policy other)
        {
            var with = library with { Policies = [other, .. library.Policies.Skip(1)] };
            var guide = new ByRules(other.Id, other);
            var row = CourseRow.Of(guide, other.Name, CourseTable.Lived(with, guide, nature, clients, seed));
            double Round(double share) => Math.Round(share, 4);
            return new(
                Round(row.Figures.Up12),
                Round(row.Errors.Up12),
                Round(row.Figures.Flared),
                Round(row.Errors.Flared),
                row.Figures.TooEarly is { } early ? Round(early) : null,
                row.Errors.TooEarly is { } error ? Round(error) : null
            );
        }
        return new(
            nature.Name,
            clients,
            seed,
            policy.Id,
            Of(policy),
            [
                .. Tried.Select(t => new SimulatedChoice(
                    t.Path,
                    t.Value,
                    Of(Simulated.With(policy, t.Path, t.Value))
                )),
            ]
        );
    }

    private static void Choices(StringBuilder text, PracticeLibrary library, Simulated simulated)
    {
        text.AppendLine("## One choice changed");
        text.AppendLine();
        text.AppendLine(
            I(
                $"{library.DefaultPolicy.Name}, {simulated.Nature} nature, {simulated.Clients} clients; the same figures stand beside the choices in Settings."
            )
        );
        text.AppendLine();
        text.AppendLine("| choice | up in 12 weeks | flared | of steps up too early |");
        text.AppendLine("|---|---|---|---|");
        var names = library.Schools.SelectMany(g => g.Choices).ToDictionary(c => c.Path);
        text.AppendLine(Line("as it is", simulated.AsItIs));
        foreach (var changed in simulated.Changed)
        {
            var choice = names[changed.Path];
            text.AppendLine(
                Line(I($"{choice.Name}: {changed.Value:0.##} {choice.Unit}").Trim(), changed.Figures)
            );
        }
        text.AppendLine();
    }

    private static string Line(string name, SimulatedFigures f) =>
        I(
            $"| {name} | {f.Up12 * 100:0.0} ± {f.Up12Error * 100:0.0} % | {f.Flared * 100:0.0} ± {f.FlaredError * 100:0.0} % | {(f.TooEarly is { } early ? I($"{early * 100:0.0} ± {f.TooEarlyError * 100:0.0} %") : "–")} |"
        );

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
        var dose = DosePlanner.Start(rung, Irritability.Low, policy);
        while (DoseStep.Harder(dose, rung, rung.Target, growth) is { } more)
        {
            dose = more;
            visits++;
        }
        return visits;
    }

    private static string I(FormattableString text) => text.ToString(CultureInfo.InvariantCulture);
}
