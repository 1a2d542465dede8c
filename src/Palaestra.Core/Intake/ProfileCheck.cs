using Palaestra.Core.Library;

namespace Palaestra.Core.Intake;

/// <summary>Bounds of what can be true of a client. Outside them the input is refused, with the field named.</summary>
public static class ProfileCheck
{
    /// <summary>The worst pain of the scale.</summary>
    public const int PainMax = 10;

    /// <summary>Two weeks; longer is not settling.</summary>
    public const double SettleHoursMax = 336;

    /// <summary>Letters of a note at most.</summary>
    public const int NoteMax = 500;

    /// <summary>What cannot be of a client, by field under <paramref name="path"/>; empty where all can be.</summary>
    public static IEnumerable<FieldError> Errors(ClientProfile profile, PracticeLibrary library, string path)
    {
        foreach (
            var (name, value) in new[]
            {
                ("now", profile.Pain.Now),
                ("worst", profile.Pain.Worst),
                ("usual", profile.Pain.Usual),
            }
        )
        {
            if (value is < 0 or > PainMax)
            {
                yield return new($"{path}.pain.{name}", Message.Of("pain.range"));
            }
        }
        if (profile.Pain.Worst < profile.Pain.Now || profile.Pain.Worst < profile.Pain.Usual)
        {
            yield return new($"{path}.pain.worst", Message.Of("profile.worst"));
        }
        if (profile.SettleHours is < 0 or > SettleHoursMax || double.IsNaN(profile.SettleHours))
        {
            yield return new($"{path}.settleHours", Message.Of("settling.range"));
        }
        for (var i = 0; i < profile.Precautions.Count; i++)
        {
            foreach (
                var error in PrecautionErrors(profile.Precautions[i], library, $"{path}.precautions[{i}]")
            )
            {
                yield return error;
            }
        }
    }

    private static IEnumerable<FieldError> PrecautionErrors(
        ClientPrecaution mine,
        PracticeLibrary library,
        string at
    )
    {
        if (library.Precautions.FirstOrDefault(p => p.Id == mine.Id) is not { } precaution)
        {
            yield return new($"{at}.id", Message.Of("no.precaution", ("precaution", mine.Id)));
            yield break;
        }
        var options = mine.Options ?? [];
        foreach (var option in options.Where(o => precaution.Options?.Any(known => known.Id == o) != true))
        {
            yield return new(
                $"{at}.options",
                Message.Of("profile.no-option", ("precaution", precaution.Id), ("option", option))
            );
        }
        if (options.Count > 1 && !precaution.Many)
        {
            yield return new(
                $"{at}.options",
                Message.Of("profile.one-option", ("precaution", precaution.Id))
            );
        }
        if (mine.Until is not null && !precaution.Dated)
        {
            yield return new($"{at}.until", Message.Of("profile.no-date", ("precaution", precaution.Id)));
        }
        if (mine.Note?.Length > NoteMax)
        {
            yield return new($"{at}.note", Message.Of("profile.note", ("most", NoteMax)));
        }
    }
}
