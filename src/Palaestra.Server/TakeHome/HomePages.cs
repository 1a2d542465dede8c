using Palaestra.Core.Body;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Data.Planning;
using Palaestra.Exchange.HomeCodes;
using Palaestra.Exchange.Sheets;
using Palaestra.Server.Clinics;
using Palaestra.Server.Intake;
using Palaestra.Server.Library;

namespace Palaestra.Server.TakeHome;

/// <summary>Fills the page that a client opens on a phone: the same words and numbers as the sheet, side by side and set by set.</summary>
public sealed class HomePages(
    PracticeLibrary library,
    FigureStore figures,
    HomeProgrammes programmes,
    HomeSeals seals,
    CalendarFeeds feeds,
    ClinicClock clock
)
{
    /// <summary>The one there is.</summary>
    public const string Language = "en";

    public async Task<HomePage> Of(CaseFile file, PlanRevision revision)
    {
        var sheet = await programmes.Of(file, revision, record: false);
        var secret = await seals.Secret();
        var seal = new HomeSeal(secret);
        var token = HomeSeals.TokenOf(secret, file, revision);
        var written = seal.Write(token);
        var days = PlanDays.Of(file, revision, library);
        // As the sheet of the same day: what rests is left out, and what is halved is halved.
        var today = revision.Plan.ToDoOn(clock.Today).Items.ToDictionary(item => item.Id);
        var columns = ProgrammeColumns
            .Of(revision.Plan)
            .Where(column => today.ContainsKey(column.Item.Id))
            .Select(column => Today(column, today[column.Item.Id]));
        return new(
            Language,
            token.Page.ToString("N"),
            Convert.ToBase64String(written),
            Convert.ToBase64String(seal.KeyOf(written)),
            sheet.ClinicName,
            sheet.Contact,
            sheet.Line,
            sheet.Stop,
            sheet.NextVisit,
            sheet.Made,
            file.Policy.Judgement.NoTrainingFrom,
            [
                .. columns
                    .GroupBy(column => column.Item.Id)
                    .Select(item =>
                        Exercise(
                            [.. item],
                            sheet.Exercises.First(e => e.ItemId == item.Key),
                            file.Policy,
                            [.. days.Where(day => day.ItemIds.Contains(item.Key)).Select(day => day.Day)]
                        )
                    ),
            ],
            await feeds.Text(file)
        );
    }

    private static ProgrammeColumn Today(ProgrammeColumn column, PlanItem item) =>
        column with
        {
            Item = item,
            Dose = item.Doses.First(dose => dose.Side == column.Dose.Side),
        };

    private HomeExercise Exercise(
        IReadOnlyList<ProgrammeColumn> columns,
        SheetExercise written,
        Policy policy,
        IReadOnlyList<DateOnly> days
    )
    {
        var item = columns[0].Item;
        var rung = library.Rung(item.RungId);
        return new(
            written.Name,
            item.Cue,
            library.ReturnsToCheck(rung) ? [.. written.Lines, library.Cautions.BetweenReps] : written.Lines,
            written.Feel,
            written.NotFeel,
            written.Changes,
            [
                .. columns.Select(column =>
                    OneSide(column, written.Doses.First(d => d.Side == column.Dose.Side), rung, policy)
                ),
            ],
            days
        );
    }

    private HomeSide OneSide(ProgrammeColumn column, SheetDose written, Rung rung, Policy policy)
    {
        var dose = column.Dose.Dose;
        var whole = RepTempo.MoveSeconds(rung, policy);
        var outward = policy.Tempo.Out / (policy.Tempo.Out + policy.Tempo.Back);
        return new(
            column.Place,
            column.Dose.Side,
            column.Dose.Side == Side.Both ? "" : rung.SideMeans,
            [.. Enumerable.Range(0, dose.Sets).Select(dose.RepsOf)],
            dose.Hold,
            Round(whole * outward),
            Round(whole * (1 - outward)),
            dose.Hold > 0 ? policy.Seconds.RestHolds : policy.Seconds.RestOther,
            rung.Features.Contains(Rung.ToleranceFeature),
            written.Figures,
            written.Written,
            HomeDrawing.Of(figures.Keyframes(rung, column.Dose.Side, column.Dose.Range))
        );
    }

    private static double Round(double seconds) => Math.Round(seconds, 1);
}
