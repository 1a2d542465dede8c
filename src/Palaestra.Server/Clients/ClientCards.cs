using Microsoft.EntityFrameworkCore;
using Palaestra.Data;
using Palaestra.Data.Intake;
using Palaestra.Server.Clinics;
using Palaestra.Server.People;
using Palaestra.Server.Visits;

namespace Palaestra.Server.Clients;

/// <summary>Reads and writes what the desk knows of clients.</summary>
public sealed class ClientCards(
    PalaestraDb db,
    ClinicClock clock,
    WhoIsHere who,
    Bookings bookings,
    Staffing staffing
)
{
    /// <returns>None where there is no such client.</returns>
    public async Task<ClientCard?> Of(Guid clientId)
    {
        if (await db.Clients.AsNoTracking().FirstOrDefaultAsync(c => c.Id == clientId) is not { } client)
        {
            return null;
        }
        var booked = await bookings.OfClient(clientId);
        var episodes = await db
            .Episodes.AsNoTracking()
            .Where(e => e.ClientId == clientId)
            .Select(e => new
            {
                e.Id,
                e.OpenedOn,
                e.DischargedOn,
                e.Complaint,
                e.Asked,
            })
            .ToListAsync();
        return ClientCard.Of(
            client,
            clock.Today,
            [
                .. episodes
                    .OrderByDescending(e => e.DischargedOn is null)
                    .ThenByDescending(e => e.OpenedOn)
                    .ThenByDescending(e => e.Id)
                    .Select(e =>
                    {
                        var own = booked.Where(b => b.EpisodeId == e.Id && b.CalledOff is null).ToList();
                        return new EpisodeLine(
                            e.Id,
                            e.OpenedOn,
                            e.DischargedOn,
                            who.Clinical ? e.Complaint : "",
                            e.Asked,
                            (
                                own.FirstOrDefault(b => clock.Zone.DayOf(b.PlannedAt) <= clock.Today)
                                ?? own.LastOrDefault()
                            )?.VisitId,
                            own.Count
                        );
                    }),
            ],
            booked,
            await db
                .RecordImports.AsNoTracking()
                .Where(i => i.ClientId == clientId)
                .OrderByDescending(i => i.At)
                .Select(i => new ImportLine(i.From, i.At, i.By))
                .ToListAsync()
        );
    }

    /// <summary>What only the store knows to be wrong.</summary>
    public async Task<IReadOnlyList<FieldError>> Errors(ClientForm form, Guid? clientId)
    {
        var errors = new List<FieldError>();
        var number = form.Number?.Trim();
        if (number is not null && await db.Clients.AnyAsync(c => c.Number == number && c.Id != clientId))
        {
            errors.Add(new("number", Message.Of("client.number-taken", ("number", number))));
        }
        if (form.InChargeId is { } account && !await staffing.IsBookable(account))
        {
            errors.Add(new("inChargeId", Message.Of("visit.with")));
        }
        return errors;
    }

    public static void Write(ClientForm form, Client client)
    {
        client.Name = form.Name.Trim();
        client.BirthDate = form.BirthDate;
        client.Number = form.Number?.Trim() ?? client.Number;
        client.Phone = Told(form.Phone);
        client.Email = Told(form.Email);
        client.Address = Told(form.Address);
        client.DeskNotes = Told(form.DeskNotes);
        client.InChargeId = form.InChargeId;
        client.Guardian = form.Guardian is { } guardian
            ? new(guardian.Name.Trim(), Told(guardian.Relation), Told(guardian.Phone))
            : null;
    }

    /// <summary>Whoever is still to come, or whose red flag is open, is not put away.</summary>
    public async Task<Message?> WhyNotArchived(Guid clientId)
    {
        var episodes = db.Episodes.Where(e => e.ClientId == clientId).Select(e => e.Id);
        if (await db.DangerReports.AnyAsync(r => episodes.Contains(r.EpisodeId) && r.ClearedAt == null))
        {
            return Message.Of("client.archive-flag");
        }
        var from = clock.Zone.StartOf(clock.Today);
        return await db.Visits.AnyAsync(v =>
            episodes.Contains(v.EpisodeId) && v.CalledOff == null && v.PlannedAt >= from
        )
            ? Message.Of("client.archive-booked")
            : null;
    }

    private static string? Told(string? text) => string.IsNullOrWhiteSpace(text) ? null : text.Trim();
}
