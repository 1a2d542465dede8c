using Palaestra.Core.Intake;
using Palaestra.Core.Progression;
using Palaestra.Core.Visits;

namespace Palaestra.Core.Tests.Given;

public enum StoryKind
{
    Steady,
    Fluctuating,
    Worsening,
    LegComesAndGoes,
    NoHomeWork,
}

/// <summary>
/// A client's pain over twelve weekly visits. Whole numbers from 0 to 10 as a client tells them: the true course rounded, and
/// one time in four a point off either way (common practice: one point is inside the error of the scale).
/// </summary>
public sealed class Story(StoryKind kind, int seed)
{
    public const int Visits = 12;

    private static readonly DateOnly First = new(2026, 1, 5);
    private readonly Random dice = new(seed);

    /// <summary>What the rules see at each visit from the second on.</summary>
    public IEnumerable<DayFacts> Days()
    {
        var level = 1 + dice.Next(4);
        var past = new List<PastCheckIn> { new(1, First, level, level) };
        for (var visit = 2; visit <= Visits; visit++)
        {
            var day = First.AddDays(7 * (visit - 1));
            var usual = Told(Course(level, visit - 1));
            var checkIn = new CheckIn(
                Told(usual),
                usual,
                Told(usual),
                dice.Next(20) == 0 ? 30 : dice.Next(1, 20),
                [],
                Leg: kind == StoryKind.LegComesAndGoes
                    ? new(dice.Next(3) == 0 ? LegReach.Thigh : LegReach.None, LegReach.None)
                    : null,
                Home: kind == StoryKind.NoHomeWork ? HomeTraining.NotDone : HomeTraining.Done
            );
            yield return new DayFacts(
                new DecideInput(
                    visit,
                    day,
                    new ClientProfile(new Pain(level, level, level), 6, false, []),
                    Content.Policy.Id,
                    [],
                    checkIn,
                    [],
                    kind == StoryKind.NoHomeWork ? day.AddDays(-7) : day.AddDays(-1),
                    Pain: new PainHistory([.. past], level)
                ),
                Content.Library
            );
            past.Add(
                new(
                    visit,
                    day,
                    usual,
                    checkIn.PainNow,
                    checkIn.NextDayPain,
                    checkIn.SettledHours,
                    Leg: checkIn.Leg
                )
            );
        }
    }

    private double Course(int level, int week) =>
        kind switch
        {
            StoryKind.Fluctuating => 3 + 3 * dice.NextDouble(),
            StoryKind.Worsening => level + 0.4 * week,
            _ => level,
        };

    private int Told(double pain) =>
        Math.Clamp(
            (int)Math.Round(pain)
                + dice.Next(8) switch
                {
                    0 => 1,
                    1 => -1,
                    _ => 0,
                },
            0,
            10
        );
}
