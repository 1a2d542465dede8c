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
            .Select(column => column with { Item = today[column.Item.Id] });
        return new(
            "en",
            token.Page.ToString("N"),
            Convert.ToBase64String(written),
            Convert.ToBase64String(seal.KeyOf(written)),
            sheet.ClinicName,
            sheet.Contact,
            sheet.Line,
            sheet.Stop,
            library.Cautions.SheetSupports,
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
            feeds.Text(file)
        );
    }

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
            written.Lines,
            written.Feel,
            written.NotFeel,
            written.Changes,
            [
                .. columns.Select(column =>
                    OneSide(column, written.Doses.First(d => d.Side == column.Side), rung, policy)
                ),
            ],
            days
        );
    }

    private HomeSide OneSide(ProgrammeColumn column, SheetDose written, Rung rung, Policy policy)
    {
        var side = column.Item.Doses.First(d => d.Side == column.Side);
        var dose = side.Dose;
        var whole = RepTempo.MoveSeconds(rung, policy);
        var outward = policy.Tempo.Out / (policy.Tempo.Out + policy.Tempo.Back);
        return new(
            column.Place,
            column.Side,
            column.Side == Side.Both ? "" : rung.SideMeans,
            [.. Enumerable.Range(0, dose.Sets).Select(dose.RepsOf)],
            dose.Hold,
            Round(whole * outward),
            Round(whole * (1 - outward)),
            dose.Hold > 0 ? policy.Seconds.RestHolds : policy.Seconds.RestOther,
            rung.Features.Contains(Rung.ToleranceFeature),
            written.Figures,
            written.Written,
            Drawing(figures.Keyframes(rung, column.Side, side.Range))
        );
    }

    private static double Round(double seconds) => Math.Round(seconds, 1);

    private static HomeDrawing Drawing(IReadOnlyList<Figure> frames)
    {
        var first = frames[0];
        return new(
            first.Left,
            first.Top,
            first.Width,
            first.Height,
            frames.Count,
            [
                .. first.Shapes.Select(
                    (shape, i) =>
                    {
                        var all = frames.Select(frame => frame.Shapes[i].Outlines).ToList();
                        var still = all.TrueForAll(outlines =>
                            outlines.SelectMany(o => o).SequenceEqual(all[0].SelectMany(o => o))
                        );
                        return new HomeShape(shape.Role, still ? [all[0]] : [all[0], .. Steps(all)]);
                    }
                ),
            ]
        );
    }

    /// <summary>How far each point goes from one picture to the next: small numbers, where places are large ones.</summary>
    private static IEnumerable<IReadOnlyList<IReadOnlyList<int>>> Steps(
        IReadOnlyList<IReadOnlyList<IReadOnlyList<int>>> all
    ) =>
        all.Zip(
            all.Skip(1),
            (from, to) => from.Zip(to, (a, b) => (IReadOnlyList<int>)[.. a.Zip(b, (x, y) => y - x)]).ToList()
        );
}
