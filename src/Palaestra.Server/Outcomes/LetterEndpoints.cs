using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Palaestra.Core.Outcomes;
using Palaestra.Data;
using Palaestra.Data.Outcomes;
using Palaestra.Exchange.Letters;
using Palaestra.Exchange.Sheets;
using Palaestra.Server.Clinics;
using Palaestra.Server.Description;
using Palaestra.Server.Intake;
using Palaestra.Server.People;
using Palaestra.Server.Problems;
using Palaestra.Server.Serving;
using Palaestra.Server.Words;

namespace Palaestra.Server.Outcomes;

/// <param name="Letter">As it was edited, or as it is written from the record.</param>
/// <param name="Fresh">As it is written from the record now.</param>
/// <param name="Version">0 before it was edited.</param>
public sealed record LetterView(Letter Letter, Letter Fresh, int Version, string? EditedBy);

public sealed record LetterForm(Letter Letter, int Version);

public static class LetterEndpoints
{
    public static void MapLetters(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api/visits/{visitId:guid}").WithTags("Outcomes");
        group
            .MapGet("/letter", Get)
            .Described("GetLetter", "The letter of a visit: as proposed and as kept.");
        group
            .MapPut("/letter", Put)
            .Described("StoreLetter", "Keeps the letter of a visit, on the version that was read.", 409);
        group
            .MapGet("/letter.pdf", Pdf)
            .Described("GetLetterPdf", "The letter of a visit as PDF, A4 or Letter.");
    }

    private static async Task<Results<Ok<LetterView>, ProblemHttpResult>> Get(
        Guid visitId,
        OpenCase open,
        LetterComposer composer,
        PalaestraDb db
    )
    {
        var file = open.File;
        var fresh = await composer.Fresh(file, visitId);
        var stored = await db.Letters.AsNoTracking().FirstOrDefaultAsync(l => l.VisitId == visitId);
        return TypedResults.Ok(
            new LetterView(stored?.Letter ?? fresh, fresh, stored?.Version ?? 0, stored?.WrittenBy)
        );
    }

    private static async Task<Results<Ok<LetterView>, ProblemHttpResult>> Put(
        Guid visitId,
        LetterForm form,
        OpenCase open,
        LetterComposer composer,
        PalaestraDb db,
        WhoIsHere who,
        ClinicClock clock
    )
    {
        var file = open.File;
        if (Letter.Errors(form.Letter, "letter").ToList() is { Count: > 0 } errors)
        {
            return Problem.Fields(errors);
        }
        var meanwhile = Message.Of("letter.meanwhile");
        var stored = await db.Letters.FirstOrDefaultAsync(l => l.VisitId == visitId);
        if ((stored?.Version ?? 0) != form.Version)
        {
            return Problem.Conflict(meanwhile, stored?.Letter);
        }
        if (stored is null)
        {
            stored = new LetterDraft
            {
                VisitId = visitId,
                Letter = form.Letter,
                WrittenBy = who.Name,
            };
            db.Letters.Add(stored);
        }
        else
        {
            stored.Letter = form.Letter;
            stored.WrittenBy = who.Name;
            stored.Version++;
        }
        stored.WrittenAt = clock.Now;
        if (!await db.SavedFirst())
        {
            return Problem.Conflict(meanwhile);
        }
        return TypedResults.Ok(
            new LetterView(
                stored.Letter,
                await composer.Fresh(file, visitId),
                stored.Version,
                stored.WrittenBy
            )
        );
    }

    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> Pdf(
        Guid visitId,
        OpenCase open,
        LetterComposer composer,
        PalaestraDb db,
        WhoIsHere who,
        ClinicWords words,
        ClinicClock clock,
        HttpResponse response,
        Word<Paper>? paper
    )
    {
        var file = open.File;
        var stored = await db.Letters.AsNoTracking().FirstOrDefaultAsync(l => l.VisitId == visitId);
        var letter = stored?.Letter ?? await composer.Fresh(file, visitId);
        var page = await composer.Page(letter, who.Name, file, visitId);
        return NamedFile.Pdf(
            response,
            LetterPdf.Write(page, paper?.Value ?? Paper.A4),
            words.Say(Message.Of("file.letter", ("name", file.Episode.Client!.Name), ("day", clock.Today)))
        );
    }
}
