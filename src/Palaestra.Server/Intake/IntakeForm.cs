using FluentValidation;
using FluentValidation.Results;
using Palaestra.Core.Body;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Server.Clinics;

namespace Palaestra.Server.Intake;

/// <summary>All that is asked. Lengths in centimetres and kilograms here, at the edge; metres inside.</summary>
/// <param name="Goals">What the client wants to do again, by id.</param>
/// <param name="Equipment">What is at hand at home; none: not asked, everything is taken to be.</param>
/// <param name="DaysPerWeek">1 to 7. <paramref name="Away"/>: days without training.</param>
/// <param name="VisitId">The visit at which it is asked; none: the latest that has begun.</param>
/// <param name="FlagsAsked">The red flags were asked about, and there are none but those named.</param>
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
    bool? FlagsAsked = null
)
{
    /// <summary>Days a week, unless asked. Common practice.</summary>
    public const int UsualDays = 5;
}

public sealed class IntakeFormValidator : AbstractValidator<IntakeForm>
{
    public IntakeFormValidator(PracticeLibrary library, ClinicClock clock)
    {
        var today = clock.Today;
        RuleFor(f => f.Name).NotEmpty().WithMessage("Give the client's name.");
        RuleFor(f => f.Name).MaximumLength(120).WithMessage("A name has at most 120 letters.");
        RuleFor(f => f.BirthDate)
            .InclusiveBetween(today.AddYears(-120), today)
            .WithMessage("The birth date is in the last 120 years, as year-month-day.");
        RuleFor(f => f.Complaint).NotEmpty().WithMessage("Say what the main complaint is.");
        RuleFor(f => f.Complaint).MaximumLength(1000).WithMessage("The complaint has at most 1000 letters.");
        RuleFor(f => f.HeightCm).InclusiveBetween(100, 230).WithMessage("Height is between 100 and 230 cm.");
        RuleFor(f => f.MassKg).InclusiveBetween(25, 250).WithMessage("Mass is between 25 and 250 kg.");
        RuleFor(f => f.MinutesPerDay)
            .InclusiveBetween(PlanInput.MinutesMin, PlanInput.MinutesMax)
            .WithMessage("Minutes a day are between 1 and 90.");
        RuleFor(f => f.DaysPerWeek).InclusiveBetween(1, 7).WithMessage("Days a week are between 1 and 7.");
        RuleForEach(f => f.Goals)
            .Must(id => library.Goals.Any(goal => goal.Id == id))
            .WithMessage((_, id) => $"There is no goal “{id}”.");
        RuleForEach(f => f.Equipment)
            .Must(id => library.Equipment.Any(piece => piece.Id == id))
            .WithMessage((_, id) => $"There is no equipment “{id}”.");
        RuleForEach(f => f.Away)
            .Must(away => away.From <= away.To && away.To.DayNumber - away.From.DayNumber <= 366)
            .WithMessage("Days away end on or after the day they begin, within a year.");
        RuleFor(f => f.PolicyId)
            .Must(id => library.FindPolicy(id) is not null)
            .WithMessage(f => $"There is no policy “{f.PolicyId}”.");
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
            .WithMessage((_, id) => $"There is no red flag “{id}”.");
    }
}
