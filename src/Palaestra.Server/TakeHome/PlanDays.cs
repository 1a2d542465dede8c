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
            First(revision),
            until is { } day && day > end ? day : end,
            file.Episode.DaysPerWeek,
            away ?? file.Episode.Away,
            file.Policy,
            library
        );
    }

    /// <summary>The day after it was accepted: on the day itself it was done at the visit.</summary>
    public static DateOnly First(PlanRevision revision) =>
        DateOnly.FromDateTime(revision.AcceptedAt.ToLocalTime()).AddDays(1);

    public static DateOnly Review(CaseFile file, PlanRevision revision) =>
        DateOnly.FromDateTime(revision.AcceptedAt.ToLocalTime()).AddDays(7 * file.Policy.ReviewWeeks);

    /// <summary>The review, or the day before the next visit where that is later.</summary>
    private static DateOnly End(CaseFile file, PlanRevision revision)
    {
        var review = Review(file, revision);
        var next = file
            .Visits.Select(visit => DateOnly.FromDateTime(visit.PlannedAt))
            .FirstOrDefault(day => day > First(revision));
        return next != default && next > review ? next.AddDays(-1) : review;
    }
}
