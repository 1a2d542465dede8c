using FluentValidation;
using NodaTime;
using Palaestra.Core.Body;
using Palaestra.Data.Intake;
using Palaestra.Data.Visits;
using Palaestra.Server.Clinics;

namespace Palaestra.Server.Clients;

/// <summary>Who a client is and how to reach them; nothing clinical.</summary>
/// <param name="Id">Made by whoever sends it, so that a second tap makes no second client; none: one is made here.</param>
/// <param name="Number">What the clinic files them under; none: the next one.</param>
/// <param name="InChargeId">Account of the practitioner in charge.</param>
/// <param name="Version">The edit this one is based on; none for a new client.</param>
/// <param name="Reason">Why name or birth date is written anew, 1 to 500 characters; none: it was mistyped, or never told.</param>
public sealed record ClientForm(
    string Name,
    DateOnly BirthDate,
    Guid? Id = null,
    string? Number = null,
    string? Phone = null,
    string? Email = null,
    string? Address = null,
    Guardian? Guardian = null,
    string? DeskNotes = null,
    Guid? InChargeId = null,
    int? Version = null,
    string? Reason = null
);

/// <param name="Complaint">Empty for whoever may not read what is clinical, and where nobody has asked yet.</param>
/// <param name="VisitId">The visit to open: the latest that was not planned for later; none: there is none.</param>
public sealed record EpisodeLine(
    Guid Id,
    DateOnly OpenedOn,
    DateOnly? DischargedOn,
    string Complaint,
    bool Asked,
    Guid? VisitId,
    int Visits
);

/// <summary>That the record, or more of it, came as a file.</summary>
/// <param name="From">Name of the clinic that made it; empty: it had none.</param>
public sealed record ImportLine(string From, Instant At, string By);

/// <summary>A client as the desk sees them.</summary>
/// <param name="Age">Whole years today.</param>
/// <param name="GuardianMissing">Under age, and nobody is named who speaks for them.</param>
/// <param name="MergedIntoId">Whom they turned out to be.</param>
/// <param name="Episodes">The latest first.</param>
/// <param name="Bookings">Of all episodes, the latest first, those that were called off among them.</param>
/// <param name="Imports">The latest first.</param>
public sealed record ClientCard(
    Guid Id,
    string Number,
    string Name,
    DateOnly BirthDate,
    int Age,
    Sex? Sex,
    string? Phone,
    string? Email,
    string? Address,
    Guardian? Guardian,
    bool GuardianMissing,
    string? DeskNotes,
    Guid? InChargeId,
    bool Archived,
    Guid? MergedIntoId,
    int Version,
    IReadOnlyList<EpisodeLine> Episodes,
    IReadOnlyList<Visits.Booking> Bookings,
    IReadOnlyList<ImportLine> Imports
)
{
    /// <summary>§ 2 BGB, and most of Europe; where the clinic is decides.</summary>
    public const int Adult = 18;

    public static ClientCard Of(
        Client client,
        DateOnly today,
        IReadOnlyList<EpisodeLine> episodes,
        IReadOnlyList<Visits.Booking> bookings,
        IReadOnlyList<ImportLine> imports
    ) =>
        new(
            client.Id,
            client.Number,
            client.Name,
            client.BirthDate,
            client.AgeOn(today),
            client.Sex is null ? null : Enum.Parse<Sex>(client.Sex),
            client.Phone,
            client.Email,
            client.Address,
            client.Guardian,
            client.AgeOn(today) < Adult && client.Guardian is null,
            client.DeskNotes,
            client.InChargeId,
            client.ArchivedAt is not null,
            client.MergedIntoId,
            client.Version,
            episodes,
            bookings,
            imports
        );
}

public sealed class ClientFormValidator : AbstractValidator<ClientForm>
{
    public ClientFormValidator(ClinicClock clock)
    {
        this.Person(f => f.Name, f => f.BirthDate, clock.Today);
        RuleFor(f => f.Number)
            .Must(number => number is null || number.Trim() is { Length: > 0 and <= 20 })
            .WithState(_ => Message.Of("client.number"));
        Short(f => f.Phone, 40);
        RuleFor(f => f.Phone)
            .Must(phone => string.IsNullOrWhiteSpace(phone) || phone.Any(char.IsDigit))
            .WithState(_ => Message.Of("client.phone"));
        Short(f => f.Email, 200);
        RuleFor(f => f.Email)
            .Must(email => string.IsNullOrWhiteSpace(email) || email.Trim().IndexOf('@', 1) > 0)
            .WithState(_ => Message.Of("client.email"));
        Short(f => f.Address, 300);
        Short(f => f.DeskNotes, 1000);
        RuleFor(f => f.Guardian!.Name)
            .Must(name => !string.IsNullOrWhiteSpace(name) && name.Length <= 120)
            .When(f => f.Guardian is not null)
            .WithState(_ => Message.Of("client.guardian"));
        RuleFor(f => f.Guardian!.Relation)
            .MaximumLength(60)
            .When(f => f.Guardian is not null)
            .WithState(_ => Message.Of("client.long", ("most", 60)));
        RuleFor(f => f.Guardian!.Phone)
            .MaximumLength(40)
            .When(f => f.Guardian is not null)
            .WithState(_ => Message.Of("client.long", ("most", 40)));
    }

    private void Short(System.Linq.Expressions.Expression<Func<ClientForm, string?>> of, int most) =>
        RuleFor(of).MaximumLength(most).WithState(_ => Message.Of("client.long", ("most", most)));
}
