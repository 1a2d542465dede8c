using FluentValidation;
using FluentValidation.Results;
using Palaestra.Core.Body;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Server.Clients;
using Palaestra.Server.Clinics;

namespace Palaestra.Server.Intake;

/// <summary>All that is asked. Lengths in centimetres and kilograms here, at the edge; metres inside.</summary>
/// <param name="Goals">What the client wants to do again, by id.</param>
/// <param name="Equipment">What is at hand at home; none: not asked, everything is taken to be.</param>
/// <param name="DaysPerWeek">1 to 7. <paramref name="Away"/>: days without training.</param>
/// <param name="VisitId">The visit at which it is asked; none: the latest that has begun.</param>
/// <param name="FlagsAsked">The red flags were asked about, and there are none but those named.</param>
/// <param name="Reason">Why the answers of a visit are written anew, 1 to 500 characters: needed where the visit was decided or its day is over.</param>
/// <param name="Id">Of a new client, made by whoever sends it, so that a second tap makes no second one; none: one is made here.</param>
/// <param name="Version">The edit this one is based on; none for a new client.</param>
public sealed record IntakeForm(
    string Name,
    DateOnly BirthDate,
    string Complaint,
    Pain Pain,
    double SettleHours,
    bool WakesAtNight,
    IReadOnlyList<ClientPrecaution> Precautions,
    IReadOnlyList<string> DangerSigns,
    double MinutesPerDay,
    string PolicyId,
    Sex? Sex = null,
    double? HeightCm = null,
    double? MassKg = null,
    int? Version = null,
    IReadOnlyList<string>? Goals = null,
    IReadOnlyList<string>? Equipment = null,
    int DaysPerWeek = IntakeForm.UsualDays,
    IReadOnlyList<DaysAway>? Away = null,
    Guid? VisitId = null,
    bool? FlagsAsked = null,
    string? Reason = null,
    Guid? Id = null
)
{
    /// <summary>Days a week, unless asked. Common practice.</summary>
    public const int UsualDays = 5;

    /// <summary>Minutes a day, unless asked. Common practice.</summary>
    public const int UsualMinutes = 15;
}

public sealed class IntakeFormValidator : AbstractValidator<IntakeForm>
{
    public IntakeFormValidator(PracticeLibrary library, ClinicClock clock)
    {
        this.Person(f => f.Name, f => f.BirthDate, clock.Today);
        RuleFor(f => f.Complaint).NotEmpty().WithState(_ => Message.Of("client.complaint"));
        RuleFor(f => f.Complaint).MaximumLength(1000).WithState(_ => Message.Of("client.complaint-long"));
        RuleFor(f => f.HeightCm).InclusiveBetween(100, 230).WithState(_ => Message.Of("client.height"));
        RuleFor(f => f.MassKg).InclusiveBetween(25, 250).WithState(_ => Message.Of("client.mass"));
        RuleFor(f => f.MinutesPerDay)
            .InclusiveBetween(PlanInput.MinutesMin, PlanInput.MinutesMax)
            .WithState(_ => Message.Of("minutes.range"));
        RuleFor(f => f.DaysPerWeek).InclusiveBetween(1, 7).WithState(_ => Message.Of("client.days"));
        RuleForEach(f => f.Goals)
            .Must(id => library.Goals.Any(goal => goal.Id == id))
            .WithState((_, id) => Message.Of("no.goal", ("goal", id)));
        RuleForEach(f => f.Equipment)
            .Must(id => library.Equipment.Any(piece => piece.Id == id))
            .WithState((_, id) => Message.Of("no.equipment", ("equipment", id)));
        RuleForEach(f => f.Away)
            .Must(away => away.From <= away.To && away.To.DayNumber - away.From.DayNumber <= 366)
            .WithState(_ => Message.Of("client.away"));
        RuleFor(f => f.PolicyId)
            .Must(id => library.FindPolicy(id) is not null)
            .WithState(f => Message.Of("no.policy", ("policy", f.PolicyId)));
        RuleFor(f => f)
            .Custom(
                (form, context) =>
                {
                    var profile = new ClientProfile(
                        form.Pain,
                        form.SettleHours,
                        form.WakesAtNight,
                        form.Precautions
                    );
                    foreach (var error in ProfileCheck.Errors(profile, library, ""))
                    {
                        context.AddFailure(
                            new ValidationFailure(error.Field.TrimStart('.'), "")
                            {
                                CustomState = error.Message,
                            }
                        );
                    }
                }
            );
        RuleForEach(f => f.DangerSigns)
            .Must(id => library.DangerSigns.Any(sign => sign.Id == id))
            .WithState((_, id) => Message.Of("no.red-flag", ("flag", id)));
    }
}
