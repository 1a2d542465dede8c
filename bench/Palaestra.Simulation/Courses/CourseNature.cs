namespace Palaestra.Simulation.Courses;

/// <summary>
/// How simulated clients train, tire, gain and flare over weeks. Every figure is our own choice, stated in docs/policies.md;
/// no data of real people stand behind them.
/// </summary>
/// <param name="Weeks">Visits, one a week, the screen before the first.</param>
/// <param name="Gain">Rungs of ability gained in a week of full, well chosen clean work.</param>
/// <param name="Forget">Rungs of the gain lost in a week without work.</param>
/// <param name="Missed">Chance that a rater does not see a fault. <paramref name="Imagined"/>: chance of a fault marked in a clean rep.</param>
/// <param name="RepNoise">Standard deviation of ability from rep to rep, rungs. <paramref name="DayNoise"/>: from day to day.</param>
/// <param name="Tires">Rungs of ability lost from the first rep of a set to its last at the rung's cap.</param>
/// <param name="PainPerRung">Points of pain for each rung of work above ability.</param>
/// <param name="FlareBase">Chance of a flare in any week. <paramref name="FlarePerRung"/>: added for each rung of work above ability.</param>
/// <param name="FlarePerGrowth">Added for each doubling of clean time in a week.</param>
public sealed record CourseNature(
    int Weeks = 12,
    double Gain = 0.35,
    double Forget = 0.15,
    double Missed = 0.10,
    double Imagined = 0.01,
    double RepNoise = 0.3,
    double DayNoise = 0.3,
    double Tires = 0.4,
    double PainPerRung = 0.8,
    double FlareBase = 0.015,
    double FlarePerRung = 0.08,
    double FlarePerGrowth = 0.08
)
{
    public static readonly CourseNature Typical = new();
}
