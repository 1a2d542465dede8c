using FluentValidation;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Palaestra.Data;
using Palaestra.Data.Intake;
using Palaestra.Server.Amendments;
using Palaestra.Server.Clinics;
using Palaestra.Server.Description;
using Palaestra.Server.People;
using Palaestra.Server.Problems;
using Palaestra.Server.Visits;

namespace Palaestra.Server.Clients;

/// <param name="Reason">Why both are one person, 1 to 500 characters.</param>
public sealed record MergeForm(Guid IntoId, string? Reason);

/// <summary>Where an episode belongs: to a client there is, or to a new one.</summary>
/// <param name="ClientId">None: a new client is made, with <paramref name="Name"/> and <paramref name="BirthDate"/>.</param>
/// <param name="Reason">1 to 500 characters.</param>
public sealed record FileEpisodeForm(
    Guid? ClientId,
    string? Reason,
    string? Name = null,
    DateOnly? BirthDate = null
);

public sealed record ArchiveForm(bool Archived, int Version);

/// <summary>Opens an episode with its first visit, before anybody has asked the client anything.</summary>
/// <param name="EpisodeId">Made by whoever sends it, so that a second tap opens no second episode; none: one is made here.</param>
/// <param name="Visit">When the client comes.</param>
public sealed record OpenEpisodeForm(BookVisitForm Visit, Guid? EpisodeId = null);

/// <summary>An account that clients are booked with.</summary>
public sealed record BookedWith(Guid Id, string Name);

public static class ClientEndpoints
{
    public static void MapClients(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api").WithTags("Clients");
        group
            .MapGet("/clients", Find)
            .Described(
                "FindClients",
                "Clients by words of their name, number, birth date, telephone or complaint; those seen last where none are given."
            );
        group
            .MapGet("/clients/alike", FindAlike)
            .Described(
                "FindAlikeClients",
                "Clients who may be the same person as one with this name and birth date."
            );
        group
            .MapPost("/clients/registered", Register)
            .Described(
                "RegisterClient",
                "Takes a client in at the desk: who they are and how to reach them.",
                409
            );
        group
            .MapGet("/clients/{clientId:guid}", Get)
            .Described("GetClient", "Who a client is, how to reach them, their episodes and visits.", 404);
        group
            .MapPut("/clients/{clientId:guid}", Put)
            .Described(
                "UpdateClient",
                "Writes who a client is and how to reach them, on the version that was read.",
                404,
                409
            );
        group
            .MapPut("/clients/{clientId:guid}/archived", Archive)
            .Described("ArchiveClient", "Puts a client away from the lists, or back.", 404, 409);
        group
            .MapPost("/clients/{clientId:guid}/episodes", OpenEpisode)
            .Described(
                "OpenEpisode",
                "Opens an episode with a booked visit; it is asked about then.",
                404,
                409
            );
        group
            .MapPost("/clients/{clientId:guid}/merge", Merge)
            .Described(
                "MergeClients",
                "Files all of a client under another who is the same person.",
                404,
                409
            );
        group
            .MapPost("/episodes/{id:guid}/client", FileEpisode)
            .Described(
                "FileEpisode",
                "Files an episode under another client: out of a merge, or since it was the wrong one.",
                404,
                409
            );
        group
            .MapGet("/practitioners", Practitioners)
            .Described("GetPractitioners", "Whom clients can be booked with.");
    }

    private static async Task<Ok<IReadOnlyList<ClientLine>>> Find(
        string? words,
        ClientSearch search,
        WhoIsHere who,
        bool archived = false
    ) => TypedResults.Ok(await search.Find(words, who.Clinical, archived));

    private static async Task<Ok<IReadOnlyList<AlikeClient>>> FindAlike(
        string name,
        DateOnly? birthDate,
        string? phone,
        Guid? besides,
        ClientSearch search
    ) => TypedResults.Ok(await search.Alike(name, birthDate, phone, besides));

    private static async Task<Results<Created<ClientCard>, Ok<ClientCard>, ProblemHttpResult>> Register(
        ClientForm form,
        IValidator<ClientForm> validator,
        ClientCards cards,
        PalaestraDb db
    )
    {
        if (form.Id is { } sent && await db.Clients.AnyAsync(c => c.Id == sent))
        {
            // The same tap once more.
            return TypedResults.Ok((await cards.Of(sent))!);
        }
        var errors = validator.Errors(form).Concat(await cards.Errors(form, null)).ToList();
        if (errors.Count > 0)
        {
            return Problem.Fields(errors);
        }
        var client = new Client { Id = form.Id ?? Guid.CreateVersion7(), Name = "" };
        ClientCards.Write(form, client);
        db.Clients.Add(client);
        if (!await db.SavedFirst())
        {
            // The same tap, twice at once.
            db.ChangeTracker.Clear();
            return form.Id is { } first && await cards.Of(first) is { } known
                ? TypedResults.Ok(known)
                : Problem.Conflict(Message.Of("conflict.meanwhile"));
        }
        return TypedResults.Created($"/api/clients/{client.Id}", (await cards.Of(client.Id))!);
    }

    private static async Task<Results<Ok<ClientCard>, ProblemHttpResult>> Get(
        Guid clientId,
        ClientCards cards
    ) => await cards.Of(clientId) is { } card ? TypedResults.Ok(card) : Problem.NotFound("client");

    private static async Task<Results<Ok<ClientCard>, ProblemHttpResult>> Put(
        Guid clientId,
        ClientForm form,
        IValidator<ClientForm> validator,
        ClientCards cards,
        PalaestraDb db,
        Amending amending
    )
    {
        if (await db.Clients.FindAsync(clientId) is not { } client)
        {
            return Problem.NotFound("client");
        }
        var errors = validator.Errors(form).Concat(await cards.Errors(form, clientId)).ToList();
        if (amending.Given(form.Reason) is { } unreasoned)
        {
            errors.Add(unreasoned);
        }
        if (errors.Count > 0)
        {
            return Problem.Fields(errors);
        }
        if (form.Version != client.Version)
        {
            return Problem.Conflict(Message.Of("conflict.changed"), await cards.Of(clientId));
        }
        // What was changed is told in each of their records.
        await db.Episodes.Where(e => e.ClientId == clientId).LoadAsync();
        ClientCards.Write(form, client);
        client.Version++;
        if (!await db.SavedFirst())
        {
            return Problem.Conflict(Message.Of("conflict.changed"));
        }
        return TypedResults.Ok((await cards.Of(clientId))!);
    }

    private static async Task<Results<Ok<ClientCard>, ProblemHttpResult>> Archive(
        Guid clientId,
        ArchiveForm form,
        ClientCards cards,
        PalaestraDb db,
        ClinicClock clock
    )
    {
        if (await db.Clients.FindAsync(clientId) is not { } client)
        {
            return Problem.NotFound("client");
        }
        if (client.MergedIntoId is not null)
        {
            return Problem.Conflict(Message.Of("client.merged"));
        }
        if (form.Version != client.Version)
        {
            return Problem.Conflict(Message.Of("conflict.changed"), await cards.Of(clientId));
        }
        if (form.Archived && await cards.WhyNotArchived(clientId) is { } why)
        {
            return Problem.Conflict(why);
        }
        client.ArchivedAt = form.Archived ? client.ArchivedAt ?? clock.Now : null;
        client.Version++;
        if (!await db.SavedFirst())
        {
            return Problem.Conflict(Message.Of("conflict.changed"));
        }
        return TypedResults.Ok((await cards.Of(clientId))!);
    }

    private static async Task<Results<Created<Booking>, Ok<Booking>, ProblemHttpResult>> OpenEpisode(
        Guid clientId,
        OpenEpisodeForm form,
        PalaestraDb db,
        Bookings bookings,
        Core.Library.PracticeLibrary library,
        ClinicClock clock,
        Live.VisitNews news
    )
    {
        if (await db.Clients.FindAsync(clientId) is not { } client)
        {
            return Problem.NotFound("client");
        }
        if (client.MergedIntoId is not null)
        {
            return Problem.Conflict(Message.Of("client.merged"));
        }
        // Asked before the visit: of two taps at once the first books both together.
        var opened = form.EpisodeId is { } named && await db.Episodes.AnyAsync(e => e.Id == named);
        if (form.Visit.Id is { } sent && await bookings.Of(sent) is { } known)
        {
            return TypedResults.Ok(known);
        }
        if (opened)
        {
            return Problem.Field("episodeId", Message.Of("episode.known"));
        }
        var episode = new Episode
        {
            Id = form.EpisodeId ?? Guid.CreateVersion7(),
            ClientId = clientId,
            Client = client,
            OpenedOn = clock.Today,
            Complaint = "",
            Precautions = [],
            PolicyId = library.DefaultPolicy.Id,
            MinutesPerDay = Intake.IntakeForm.UsualMinutes,
            Asked = false,
        };
        var (visit, problem) = await bookings.New(form.Visit, episode, "visit.");
        if (visit is null)
        {
            return problem!;
        }
        client.ArchivedAt = null;
        db.Episodes.Add(episode);
        db.Visits.Add(visit);
        if (!await db.SavedFirst())
        {
            db.ChangeTracker.Clear();
            return await bookings.Of(visit.Id) is { } first
                ? TypedResults.Ok(first)
                : Problem.Conflict(Message.Of("conflict.meanwhile"));
        }
        news.Tell(visit.Id);
        return TypedResults.Created($"/api/episodes/{episode.Id}", (await bookings.Of(visit.Id))!);
    }

    private static async Task<Results<Ok<ClientCard>, ProblemHttpResult>> Merge(
        Guid clientId,
        MergeForm form,
        ClientMerges merges,
        ClientCards cards,
        Amending amending
    )
    {
        if (amending.Always(form.Reason) is { } unreasoned)
        {
            return Problem.Fields([unreasoned]);
        }
        return await merges.Merge(clientId, form.IntoId, amending.Reason!)
            ?? (Results<Ok<ClientCard>, ProblemHttpResult>)TypedResults.Ok((await cards.Of(form.IntoId))!);
    }

    private static async Task<Results<Ok<ClientCard>, ProblemHttpResult>> FileEpisode(
        Guid id,
        FileEpisodeForm form,
        ClientMerges merges,
        ClientCards cards,
        IValidator<ClientForm> validator,
        Amending amending
    )
    {
        if (amending.Always(form.Reason) is { } unreasoned)
        {
            return Problem.Fields([unreasoned]);
        }
        var fresh = form.ClientId is null ? new ClientForm(form.Name ?? "", form.BirthDate ?? default) : null;
        if (fresh is not null && validator.Errors(fresh) is { Count: > 0 } errors)
        {
            return Problem.Fields(errors);
        }
        var (client, problem) = await merges.File(id, form.ClientId, fresh, amending.Reason!);
        return client is { } filed ? TypedResults.Ok((await cards.Of(filed))!) : problem!;
    }

    private static async Task<Ok<IReadOnlyList<BookedWith>>> Practitioners(Staffing staffing) =>
        TypedResults.Ok(await staffing.Bookable());
}
