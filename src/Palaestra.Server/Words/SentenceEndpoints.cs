using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Palaestra.Data;
using Palaestra.Data.Clinics;
using Palaestra.Server.Clinics;
using Palaestra.Server.Description;
using Palaestra.Server.People;
using Palaestra.Server.Problems;
using Palaestra.Words;

namespace Palaestra.Server.Words;

/// <param name="On">Where it is read: "letter" or "home".</param>
/// <param name="Text">The template in force. <paramref name="Ours"/>: as it is without the clinic's own.</param>
/// <param name="Example">As it is said with made-up values.</param>
/// <param name="Values">What may stand in it.</param>
/// <param name="Version">Of the clinic's own; 0 where it has none.</param>
/// <param name="ChangedBy">Who wrote the clinic's own; none where it has none.</param>
public sealed record SentenceView(
    string Id,
    string On,
    string Text,
    string Ours,
    string Example,
    IReadOnlyList<string> Values,
    int Version,
    string? ChangedBy
);

public sealed record SentenceForm(string Text, int Version);

public sealed record SentenceTry(string Text);

/// <summary>The sentences of letters and home programmes, which a clinic may write otherwise.</summary>
public static class SentenceEndpoints
{
    private const int Longest = 2000;

    public static void MapSentences(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api/clinic/sentences").WithTags("Clinic");
        group
            .MapGet("", List)
            .Described(
                "GetSentences",
                "Sentences of letters and home programmes that a clinic may write itself."
            );
        group
            .MapPut("/{id}", Put)
            .Described("WriteSentence", "Writes a sentence in the clinic’s own words.", 404, 409);
        group
            .MapDelete("/{id}", Remove)
            .Described("RemoveSentence", "Back to the sentence that ships with the product.", 404);
        group
            .MapPost("/{id}/preview", Preview)
            .Described(
                "PreviewSentence",
                "How a sentence reads where a client meets it. Nothing is stored.",
                404
            );
    }

    /// <summary>Where a sentence is read; none: it is not the clinic's to write.</summary>
    private static string? On(string id, Catalog files) =>
        !files.Texts.ContainsKey(id) ? null
        : files.FileOf(id).EndsWith("/letter.json", StringComparison.Ordinal)
        && id.StartsWith("letter.", StringComparison.Ordinal)
            ? "letter"
        : id.StartsWith("sheet.", StringComparison.Ordinal) ? "home"
        : null;

    private static async Task<Ok<List<SentenceView>>> List(
        PalaestraDb db,
        ClinicCatalog catalog,
        SentenceSamples samples,
        ClinicWords words
    )
    {
        var own = await db.ClinicSentences.AsNoTracking().ToDictionaryAsync(s => s.Id);
        return TypedResults.Ok(
            catalog
                .Files.Texts.Keys.Where(id => On(id, catalog.Files) is not null)
                .Order(StringComparer.Ordinal)
                .Select(id => View(id, own.GetValueOrDefault(id), catalog, samples, words))
                .ToList()
        );
    }

    private static SentenceView View(
        string id,
        ClinicSentence? own,
        ClinicCatalog catalog,
        SentenceSamples samples,
        ClinicWords words
    ) =>
        new(
            id,
            On(id, catalog.Files)!,
            own?.Text ?? catalog.Files.Texts[id],
            catalog.Files.Texts[id],
            words.Say(samples.Of(id)),
            SentenceNames.In(catalog.Files.Texts[id]),
            own?.Version ?? 0,
            own?.ChangedBy
        );

    private static async Task<Results<Ok<SentenceView>, ProblemHttpResult>> Put(
        string id,
        SentenceForm form,
        PalaestraDb db,
        ClinicCatalog catalog,
        SentenceSamples samples,
        ClinicWords words,
        WhoIsHere who,
        ClinicClock clock
    )
    {
        if (On(id, catalog.Files) is null)
        {
            return Problem.NotFound("sentence");
        }
        var text = form.Text.Trim();
        if (Errors(id, text, catalog, samples, words) is { Count: > 0 } errors)
        {
            return Problem.Fields(errors);
        }
        var own = await db.ClinicSentences.FindAsync(id);
        if (form.Version != (own?.Version ?? 0))
        {
            return Problem.Conflict(Message.Of("conflict.meanwhile"), View(id, own, catalog, samples, words));
        }
        if (own is null)
        {
            own = new ClinicSentence
            {
                Id = id,
                Text = text,
                ChangedBy = who.Name,
            };
            db.ClinicSentences.Add(own);
        }
        else
        {
            (own.Text, own.ChangedBy) = (text, who.Name);
            own.Version++;
        }
        own.ChangedAt = clock.Now;
        if (!await db.SavedFirst())
        {
            return Problem.Conflict(Message.Of("conflict.meanwhile"));
        }
        await catalog.Read(db);
        return TypedResults.Ok(View(id, own, catalog, samples, words));
    }

    /// <summary>Back to ours.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> Remove(
        string id,
        PalaestraDb db,
        ClinicCatalog catalog
    )
    {
        if (On(id, catalog.Files) is null)
        {
            return Problem.NotFound("sentence");
        }
        await db.ClinicSentences.Where(sentence => sentence.Id == id).ExecuteDeleteAsync();
        await catalog.Read(db);
        return TypedResults.NoContent();
    }

    private static async Task<Results<Ok<SentencePreviewView>, ProblemHttpResult>> Preview(
        string id,
        SentenceTry form,
        ClinicCatalog catalog,
        SentenceSamples samples,
        ClinicWords words,
        SentencePreview preview
    )
    {
        if (On(id, catalog.Files) is null)
        {
            return Problem.NotFound("sentence");
        }
        var text = form.Text.Trim();
        return Errors(id, text, catalog, samples, words) is { Count: > 0 } errors
            ? Problem.Fields(errors)
            : TypedResults.Ok(await preview.Of(id, text));
    }

    private static List<FieldError> Errors(
        string id,
        string text,
        ClinicCatalog catalog,
        SentenceSamples samples,
        ClinicWords words
    ) =>
        text.Length == 0 ? [new("text", Message.Of("words.empty"))]
        : text.Length > Longest ? [new("text", Message.Of("words.too-long", ("most", Longest)))]
        :
        [
            .. catalog
                .Files.Errors(text, samples.Of(id), words.Manner)
                .Select(error => new FieldError("text", error)),
        ];
}
