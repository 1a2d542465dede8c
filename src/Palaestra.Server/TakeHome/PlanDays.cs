using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Data.Planning;
using Palaestra.Server.Intake;

namespace Palaestra.Server.TakeHome;

/// <summary>The days a revision is done on; the same for the screen, the sheet and the feed.</summary>
internal static class PlanDays
{
    /// <param name="until">At least to this day; none: to the end of the plan.</param>
    /// <param name="away">None: the client's own.</param>
    public static IReadOnlyList<TrainingDay> Of(
        CaseFile file,
        PlanRevision revision,
        PracticeLibrary library,
        DateOnly? until = null,
        IReadOnlyList<DaysAway>? away = null
    )
    {
        var end = End(file, revision);
        return PlanCalendar.Of(
            revision.Plan,
            First(file, revision),
            until is { } day && day > end ? day : end,
            file.Episode.DaysPerWeek,
            away ?? file.Episode.Away,
            file.Policy,
            library
        );
    }

    /// <summary>The day after it was accepted: on the day itself it was done at the visit.</summary>
    public static DateOnly First(CaseFile file, PlanRevision revision) =>
        file.Zone.DayOf(revision.AcceptedAt).AddDays(1);

    public static DateOnly Review(CaseFile file, PlanRevision revision) =>
        file.Zone.DayOf(revision.AcceptedAt).AddDays(7 * file.Policy.ReviewWeeks);

    /// <summary>The review, or the day before the next visit where that is later.</summary>
    private static DateOnly End(CaseFile file, PlanRevision revision)
    {
        var review = Review(file, revision);
        var next = file
            .Visits.Select(visit => file.DayOf(visit))
            .FirstOrDefault(day => day > First(file, revision));
        return next != default && next > review ? next.AddDays(-1) : review;
    }
}
