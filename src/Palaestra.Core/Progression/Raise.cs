using Palaestra.Core.Library;

namespace Palaestra.Core.Progression;

/// <summary>Something a visit made harder: a rung, a dose or a setting of one exercise on one side.</summary>
/// <param name="Visit">The visit that decided it, <paramref name="On"/> that day.</param>
/// <param name="RungId">What it was before, at <paramref name="Dose"/>.</param>
public sealed record Raise(Guid PlanItemId, Side Side, int Visit, DateOnly On, string RungId, Dose Dose)
{
    /// <summary>Whether a rung and dose ask more than what was before: a higher rung, more work, or a harder setting.</summary>
    public static bool Raised(PracticeLibrary library, string before, Dose was, string after, Dose now)
    {
        if (before != after)
        {
            var ladder = library.LadderOf(before);
            return ladder.IndexOf(after) > ladder.IndexOf(before);
        }
        return now.Seconds(1) > was.Seconds(1) + 1e-9
            || !was.SettingCovers(now)
            || now.Modifier is null && library.FindModifier(was.Modifier) is { Harder: false };
    }
}

/// <summary>A change of set-up that was tried because an exercise was felt in the wrong place.</summary>
/// <param name="Place">Where it had been felt.</param>
public sealed record SetUpTry(Guid PlanItemId, int Visit, string Place);

/// <summary>Pain of one day of the home log.</summary>
/// <param name="Pain">While exercising, 0 to 10. <paramref name="NextMorning"/>: the morning after; none where not written.</param>
public sealed record HomePain(DateOnly Day, int? Pain, int? NextMorning)
{
    internal int? Most => Pain is null ? NextMorning : Math.Max(Pain.Value, NextMorning ?? 0);
}
