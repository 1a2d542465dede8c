using FluentValidation;
using Palaestra.Core.Body;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;

namespace Palaestra.Server.Intake;

/// <summary>All that is asked. Lengths in centimetres and kilograms here, at the edge; metres inside.</summary>
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
    int? Version = null
);

public sealed class IntakeFormValidator : AbstractValidator<IntakeForm>
{
    public IntakeFormValidator(PracticeLibrary library, TimeProvider time)
    {
        var today = DateOnly.FromDateTime(time.GetLocalNow().DateTime);
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
            .InclusiveBetween(3, 90)
            .WithMessage("Minutes a day are between 3 and 90.");
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
                        context.AddFailure(error.Field.TrimStart('.'), error.Message);
                    }
                }
            );
        RuleForEach(f => f.DangerSigns)
            .Must(id => library.DangerSigns.Any(sign => sign.Id == id))
            .WithMessage((_, id) => $"There is no danger sign “{id}”.");
    }
}
