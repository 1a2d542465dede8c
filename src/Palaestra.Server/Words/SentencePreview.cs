using Microsoft.EntityFrameworkCore;
using Palaestra.Core.Library;
using Palaestra.Data;
using Palaestra.Server.Clinics;
using Palaestra.Server.Intake;
using Palaestra.Server.Library;
using Palaestra.Server.Outcomes;
using Palaestra.Server.People;
using Palaestra.Server.TakeHome;
using Palaestra.Words;

namespace Palaestra.Server.Words;

/// <param name="Client">In whose letter or home programme it is said; none: nobody's, so it is said with made-up values.</param>
/// <param name="Lines">Every line in which it is said.</param>
public sealed record SentencePreviewView(string? Client, IReadOnlyList<string> Lines);

/// <summary>Says a sentence that is being written where a client would read it.</summary>
public sealed class SentencePreview(
    PalaestraDb db,
    PracticeLibrary library,
    CaseFiles files,
    OutcomeSummary outcomes,
    FigureStore figures,
    ClinicClock clock,
    ClinicWords words,
    SentenceSamples samples,
    WhoIsHere who
)
{
    private const int ClientsMost = 12;

    // No text of a clinic has them: Unicode keeps them for private use.
    private const char Begin = '\uE000';
    private const char End = '\uE001';

    public async Task<SentencePreviewView> Of(string id, string text)
    {
        var trying = words.Trying(id, $"{Begin}{text}{End}");
        // An administrator alone reads no client's letter.
        foreach (var episode in who.Clinical ? await Recent() : [])
        {
            if (await files.OfEpisode(episode) is not { } file)
            {
                continue;
            }
            var lines = (await Letter(file, trying))
                .Concat(await Sheet(file, trying))
                .Where(line => line.Contains(Begin, StringComparison.Ordinal))
                .Select(Plain)
                .Distinct()
                .ToList();
            if (lines.Count > 0)
            {
                return new(file.Episode.Client!.Name, lines);
            }
        }
        return new(null, [Plain(trying.Say(samples.Of(id)))]);
    }

    private static string Plain(string line) =>
        line.Replace($"{Begin}", "", StringComparison.Ordinal)
            .Replace($"{End}", "", StringComparison.Ordinal);

    /// <summary>Of clients that were seen, the last first.</summary>
    private Task<List<Guid>> Recent()
    {
        var now = clock.Now;
        return db
            .Visits.AsNoTracking()
            .Where(visit => visit.PlannedAt <= now)
            .GroupBy(visit => visit.EpisodeId)
            .OrderByDescending(visits => visits.Max(visit => visit.PlannedAt))
            .Select(visits => visits.Key)
            .Take(ClientsMost)
            .ToListAsync();
    }

    private async Task<IEnumerable<string>> Letter(CaseFile file, ClinicWords trying)
    {
        var composer = new LetterComposer(db, library, outcomes, clock, trying);
        var letter = await composer.Fresh(file, file.Visits.Last(visit => visit.PlannedAt <= clock.Now).Id);
        return [letter.About, .. letter.Parts.SelectMany(part => part.Paragraphs.Prepend(part.Heading))];
    }

    private async Task<IEnumerable<string>> Sheet(CaseFile file, ClinicWords trying)
    {
        if (file.CurrentPlan is not { Plan.Items.Count: > 0 } plan)
        {
            return [];
        }
        var sheet = await new HomeProgrammes(db, library, figures, clock, trying).Of(
            file,
            plan,
            record: false
        );
        return sheet.Lines();
    }
}
