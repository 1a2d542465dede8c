using System.Text;
using System.Text.Json;
using System.Text.Json.Serialization;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using Palaestra.Core.Capture;
using Palaestra.Core.Library;
using Palaestra.Data;
using Palaestra.Server.Description;
using Palaestra.Server.Intake;
using Palaestra.Server.Live;
using Palaestra.Server.People;
using Palaestra.Server.Problems;
using Palaestra.Server.Screening;

namespace Palaestra.Server.Tablet;

/// <param name="Sealed">The key the tablet has, as it was sealed; none: it has none yet.</param>
public sealed record TabletKeyForm(string? Sealed);

/// <param name="Secret">32 bytes in base64, for AES-256-GCM: never kept as it is.</param>
/// <param name="Sealed">The same, to be read by this server alone.</param>
public sealed record TabletKeyView(Guid Id, Guid AccountId, string Secret, string Sealed);

/// <summary>An event as a tablet locked it up, bound to its visit.</summary>
/// <param name="Nonce">12 bytes in base64. <paramref name="Data"/>: the text and its tag of 16 bytes, in base64.</param>
public sealed record SealedEvent(string Nonce, string Data);

/// <param name="Sealed">The key they were locked up with, as the server sealed it.</param>
public sealed record SealedBatch(string Sealed, IReadOnlyList<SealedEvent> Events);

/// <summary>A red flag as a tablet locked it up.</summary>
/// <param name="Sealed">The key it was locked up with, as the server sealed it.</param>
/// <param name="About">What it was bound to: the name it has on the tablet.</param>
/// <param name="Nonce">12 bytes in base64. <paramref name="Data"/>: the text and its tag of 16 bytes, in base64.</param>
public sealed record SealedFlag(string Sealed, string About, string Nonce, string Data);

/// <summary>What such a text says, as the tablet holds it.</summary>
[JsonUnmappedMemberHandling(JsonUnmappedMemberHandling.Skip)]
internal sealed record HeldFlag(HeldSigns Answer);

/// <param name="Kind">"red-flags": nothing else that is held is written for somebody who left.</param>
[JsonUnmappedMemberHandling(JsonUnmappedMemberHandling.Skip)]
internal sealed record HeldSigns(string Kind, Guid EpisodeId, IReadOnlyList<string>? DangerSigns);

/// <summary>What a tablet takes along so that a visit goes on without the server, and what it brings back.</summary>
public static class TabletEndpoints
{
    public static void MapTablet(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api").WithTags("Tablet");
        group
            .MapPost("/account/tablet-key", Key)
            .Described(
                "GetTabletKey",
                "The key with which this tablet locks up what it keeps: the one it shows, or a new one."
            );
        group
            .MapGet("/day/tablet", Day)
            .Described(
                "GetTabletDay",
                "What a tablet needs to ask, screen and run today’s visits of whoever asks without the server."
            );
        group
            .MapPost("/visits/{visitId:guid}/sealed-events", Append)
            .Described(
                "AppendSealedEvents",
                "Stores capture events that somebody else tapped on this tablet, as they were locked up there, under the name of who tapped.",
                404,
                409
            );
        group
            .MapPost("/sealed-red-flags", Report)
            .Described(
                "ReportSealedDangerSigns",
                "Reports red flags that somebody else noted on this tablet, as they were locked up there, under the name of who noted them.",
                404
            );
    }

    private static Ok<TabletKeyView> Key(TabletKeyForm form, TabletKeys keys, WhoIsHere who)
    {
        var account = who.AccountId!.Value;
        var shown = keys.Open(form.Sealed);
        var key = shown?.AccountId == account ? shown : TabletKeys.New(account);
        return TypedResults.Ok(
            new TabletKeyView(
                key.Id,
                account,
                Convert.ToBase64String(key.Secret),
                key == shown ? form.Sealed! : keys.Seal(key)
            )
        );
    }

    private static async Task<Ok<TabletDay>> Day(TabletDays days, WhoIsHere who) =>
        TypedResults.Ok(await days.Of(who.SignIn!));

    private static async Task<Results<Ok<EventsTaken>, ProblemHttpResult>> Append(
        Guid visitId,
        SealedBatch batch,
        TabletKeys keys,
        EventLog log,
        PalaestraDb db,
        VisitNews news,
        IOptions<Microsoft.AspNetCore.Http.Json.JsonOptions> json
    )
    {
        if (await OwnerOf(batch.Sealed, keys, db) is not var (key, name))
        {
            return KeyUnknown();
        }
        var events = batch.Events.Select(e => Read(e, key, visitId, json.Value.SerializerOptions)).ToList();
        List<FieldError> unread =
        [
            .. events
                .Select((e, i) => (e, i))
                .Where(pair => pair.e is null || NullMembers.Errors(pair.e, "", 0).Any())
                .Select(pair => new FieldError($"events[{pair.i}]", Message.Of("tablet.unread"))),
        ];
        if (unread.Count > 0)
        {
            return Problem.Fields(unread);
        }
        return await ScreeningEndpoints.Store(
            visitId,
            [.. events.OfType<CaptureEvent>()],
            name,
            key.AccountId,
            log,
            news
        );
    }

    /// <summary>What somebody noted before they left closes the episode as soon as anybody is back, whoever that is.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> Report(
        SealedFlag flag,
        TabletKeys keys,
        IntakeStore intakes,
        PalaestraDb db,
        PracticeLibrary library,
        IOptions<Microsoft.AspNetCore.Http.Json.JsonOptions> json
    )
    {
        if (await OwnerOf(flag.Sealed, keys, db) is not var (key, name))
        {
            return KeyUnknown();
        }
        var held = Unlocked<HeldFlag>(key, flag.Nonce, flag.Data, flag.About, json.Value.SerializerOptions);
        if (
            held?.Answer is not { Kind: "red-flags", DangerSigns: [_, ..] signs, EpisodeId: var id }
            || NullMembers.Errors(held, "", 0).Any()
        )
        {
            return Problem.Field("data", Message.Of("tablet.unread"));
        }
        if (signs.FirstOrDefault(sign => library.DangerSigns.All(known => known.Id != sign)) is { } unknown)
        {
            return Problem.Field("data", Message.Of("no.red-flag", ("flag", unknown)));
        }
        var episode = await db.Episodes.Include(e => e.DangerReports).SingleOrDefaultAsync(e => e.Id == id);
        if (episode is null)
        {
            return Problem.NotFound("episode");
        }
        intakes.Report(episode, signs, name);
        await db.SaveChangesAsync();
        return TypedResults.NoContent();
    }

    /// <summary>Whose key it is, with their name. None: the key is not of this server, or they are not here any more.</summary>
    private static async Task<(TabletKey Key, string Name)?> OwnerOf(
        string sealedKey,
        TabletKeys keys,
        PalaestraDb db
    ) =>
        keys.Open(sealedKey) is { } key
        && await db
            .Users.AsNoTracking()
            .Where(u => u.Id == key.AccountId)
            .Select(u => u.DisplayName)
            .SingleOrDefaultAsync()
            is { } name
            ? (key, name)
            : null;

    private static ProblemHttpResult KeyUnknown() =>
        Problem.Field("sealed", Message.Of("tablet.key-unknown"));

    private static CaptureEvent? Read(
        SealedEvent sealedEvent,
        TabletKey key,
        Guid visitId,
        JsonSerializerOptions json
    ) => Unlocked<CaptureEvent>(key, sealedEvent.Nonce, sealedEvent.Data, visitId.ToString(), json);

    /// <returns>None: it cannot be opened, or says something else.</returns>
    private static T? Unlocked<T>(
        TabletKey key,
        string nonce,
        string data,
        string about,
        JsonSerializerOptions json
    )
        where T : class
    {
        try
        {
            return TabletKeys.Read(key, nonce, data, Encoding.UTF8.GetBytes(about)) is { } text
                ? JsonSerializer.Deserialize<T>(text, json)
                : null;
        }
        catch (JsonException)
        {
            return null;
        }
    }
}
