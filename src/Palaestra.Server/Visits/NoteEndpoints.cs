using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using Palaestra.Core.Visits;
using Palaestra.Data;
using Palaestra.Data.Visits;
using Palaestra.Server.Amendments;
using Palaestra.Server.Clinics;
using Palaestra.Server.Description;
using Palaestra.Server.Intake;
using Palaestra.Server.People;
using Palaestra.Server.Problems;

namespace Palaestra.Server.Visits;

/// <param name="Version">0 before anything was written.</param>
/// <param name="SignedAt">None: it is a draft.</param>
public sealed record NoteView(
    NoteText Text,
    int Version,
    string? WrittenBy,
    Instant? WrittenAt,
    string? SignedBy,
    Instant? SignedAt
);

/// <param name="Reason">Why one that was signed is written anew, 1 to 500 characters.</param>
public sealed record NoteForm(NoteText Text, int Version, string? Reason = null);

public sealed record SignatureForm(int Version);

/// <summary>A note with its visit.</summary>
public sealed record NoteOfVisit(Guid VisitId, int Number, DateOnly Day, NoteView Note);

public static class NoteEndpoints
{
    private static Message Meanwhile => Message.Of("note.meanwhile");

    public static void MapNotes(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api").WithTags("Visits");
        group
            .MapGet("/episodes/{id:guid}/notes", All)
            .Described("GetNotes", "The notes of all visits of an episode, the latest first.");
        group.MapGet("/visits/{visitId:guid}/note", Get).Described("GetNote", "The note of a visit.");
        group
            .MapPut("/visits/{visitId:guid}/note", Put)
            .Described(
                "WriteNote",
                "Writes the note of a visit, on the version that was read; one that was signed only with a reason.",
                409
            );
        group
            .MapPost("/visits/{visitId:guid}/note/signature", Sign)
            .Described("SignNote", "Signs the note of a visit, on the version that was read.", 409);
    }

    private static async Task<Ok<IReadOnlyList<NoteOfVisit>>> All(Guid id, OpenCase open, PalaestraDb db)
    {
        var file = open.File;
        var notes = await db.Notes.AsNoTracking().Where(n => n.EpisodeId == id).ToListAsync();
        return TypedResults.Ok<IReadOnlyList<NoteOfVisit>>([
            .. file
                .Visits.Reverse()
                .Select(v => (Visit: v, Note: notes.Find(n => n.VisitId == v.Id)))
                .Where(pair => pair.Note is not null)
                .Select(pair => new NoteOfVisit(
                    pair.Visit.Id,
                    file.NumberOf(pair.Visit.Id),
                    file.DayOf(pair.Visit),
                    View(pair.Note)
                )),
        ]);
    }

    private static async Task<Ok<NoteView>> Get(Guid visitId, OpenCase open, PalaestraDb db) =>
        TypedResults.Ok(View(await db.Notes.AsNoTracking().FirstOrDefaultAsync(n => n.VisitId == visitId)));

    private static async Task<Results<Ok<NoteView>, ProblemHttpResult>> Put(
        Guid visitId,
        NoteForm form,
        OpenCase open,
        PalaestraDb db,
        Amending amending,
        ClinicClock clock,
        WhoIsHere who
    )
    {
        var errors = NoteText.Errors(form.Text, "text").ToList();
        if (errors.Count > 0)
        {
            return Problem.Fields(errors);
        }
        var note = await db.Notes.FindAsync(visitId);
        if ((note?.Version ?? 0) != form.Version)
        {
            return Problem.Conflict(Meanwhile, View(note));
        }
        if (note?.Text == form.Text)
        {
            return TypedResults.Ok(View(note));
        }
        if (
            (note?.SignedAt is null ? amending.Given(form.Reason) : amending.Always(form.Reason)) is
            { } unreasoned
        )
        {
            return Problem.Fields([unreasoned]);
        }
        if (note is null)
        {
            note = new VisitNote
            {
                VisitId = visitId,
                EpisodeId = open.File.Episode.Id,
                Text = form.Text,
                WrittenBy = who.Name,
            };
            db.Notes.Add(note);
        }
        else
        {
            note.Text = form.Text;
            note.WrittenBy = who.Name;
            (note.SignedAt, note.SignedBy, note.SignedById) = (null, null, null);
            note.Version++;
        }
        note.WrittenAt = clock.Now;
        return await Saved(note, db);
    }

    private static async Task<Results<Ok<NoteView>, ProblemHttpResult>> Sign(
        Guid visitId,
        SignatureForm form,
        OpenCase open,
        PalaestraDb db,
        ClinicClock clock,
        WhoIsHere who
    )
    {
        var note = await db.Notes.FindAsync(visitId);
        if (note is null || note.Text.IsEmpty)
        {
            return Problem.Conflict(Message.Of("note.empty"));
        }
        if (note.Version != form.Version)
        {
            return Problem.Conflict(Meanwhile, View(note));
        }
        if (note.SignedAt is not null)
        {
            return TypedResults.Ok(View(note));
        }
        (note.SignedAt, note.SignedBy, note.SignedById) = (clock.Now, who.Name, who.AccountId);
        note.Version++;
        return await Saved(note, db);
    }

    private static async Task<Results<Ok<NoteView>, ProblemHttpResult>> Saved(
        VisitNote note,
        PalaestraDb db
    ) => await db.SavedFirst() ? TypedResults.Ok(View(note)) : Problem.Conflict(Meanwhile);

    private static NoteView View(VisitNote? note) =>
        note is null
            ? new(new NoteText(Headings: false), 0, null, null, null, null)
            : new(note.Text, note.Version, note.WrittenBy, note.WrittenAt, note.SignedBy, note.SignedAt);
}
