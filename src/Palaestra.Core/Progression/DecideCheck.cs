using Palaestra.Core.Capture;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Visits;

namespace Palaestra.Core.Progression;

/// <summary>Refuses what cannot be true of a visit to decide, with the field named.</summary>
public static class DecideCheck
{
    public static IEnumerable<FieldError> Errors(DecideInput input, PracticeLibrary library, string path)
    {
        if (input.Visit < 1)
        {
            yield return new($"{path}.visit", "Visits are counted from 1.");
        }
        if (input.LastWorkDate > input.Date)
        {
            yield return new($"{path}.lastWorkDate", "The last work is not after the visit.");
        }
        if (input.CheckIn.LastTrained > input.Date)
        {
            yield return new($"{path}.checkIn.lastTrained", "The last work is not after the visit.");
        }
        var errors = Work(input, library, path)
            .Concat(Probes(input, library, path))
            .Concat(Pain(input, path))
            .Concat(Before(input, library, path))
            .Concat(Home(input, path));
        foreach (var error in errors)
        {
            yield return error;
        }
    }

    private static IEnumerable<FieldError> Work(DecideInput input, PracticeLibrary library, string path)
    {
        for (var i = 0; i < input.Visits.Count; i++)
        {
            var done = input.Visits[i];
            var at = $"{path}.visits[{i}]";
            if (library.FindRung(done.RungId) is null)
            {
                yield return new($"{at}.rungId", $"There is no rung “{done.RungId}”.");
            }
            if (done.Visit > input.Visit || done.Visit < 1)
            {
                yield return new($"{at}.visit", "Work belongs to this visit or one before it.");
            }
            if (done.Date > input.Date)
            {
                yield return new($"{at}.date", "Work is not dated after the visit.");
            }
            if (done.Prescribed.Reps < 1 || done.Prescribed.Sets < 1 || !(done.Prescribed.Hold >= 0))
            {
                yield return new(
                    $"{at}.prescribed",
                    "A dose needs at least one rep and one set, and no negative hold."
                );
            }
            foreach (var error in DoseCheck.SettingErrors(done.Prescribed, $"{at}.prescribed"))
            {
                yield return error;
            }
            if (
                input
                    .Visits.Take(i)
                    .Any(other =>
                        other.Visit == done.Visit
                        && other.PlanItemId == done.PlanItemId
                        && other.Side == done.Side
                    )
            )
            {
                yield return new($"{at}.side", "This exercise and side stand twice at this visit.");
            }
            for (var s = 0; s < done.Sets.Count; s++)
            {
                foreach (var error in Set(done.Sets[s], library, $"{at}.sets[{s}]"))
                {
                    yield return error;
                }
            }
        }
    }

    private static IEnumerable<FieldError> Probes(DecideInput input, PracticeLibrary library, string path)
    {
        var probes = input.Probes ?? [];
        for (var i = 0; i < probes.Count; i++)
        {
            var probe = probes[i];
            var at = $"{path}.probes[{i}]";
            if (library.FindRung(probe.RungId) is null)
            {
                yield return new($"{at}.rungId", $"There is no rung “{probe.RungId}”.");
            }
            if (probe.Visit > input.Visit || probe.Visit < 1)
            {
                yield return new($"{at}.visit", "A try belongs to this visit or one before it.");
            }
            if (probe.On > input.Date)
            {
                yield return new($"{at}.on", "A try is not dated after the visit.");
            }
            if (probe.Dose.Reps < 1 || probe.Dose.Sets != 1 || !(probe.Dose.Hold >= 0))
            {
                yield return new($"{at}.dose", "A try is one set of at least one rep, and no negative hold.");
            }
            foreach (var error in DoseCheck.SettingErrors(probe.Dose, $"{at}.dose"))
            {
                yield return error;
            }
            if (
                probes
                    .Take(i)
                    .Any(other =>
                        other.Visit == probe.Visit
                        && other.PlanItemId == probe.PlanItemId
                        && other.Side == probe.Side
                    )
            )
            {
                yield return new($"{at}.side", "This exercise and side were tried twice at this visit.");
            }
            foreach (var error in Set(probe.Set, library, $"{at}.set"))
            {
                yield return error;
            }
        }
    }

    private static IEnumerable<FieldError> Set(SetDone set, PracticeLibrary library, string at)
    {
        foreach (
            var (name, value) in new[]
            {
                ("reps", set.Reps),
                ("cleanReps", set.CleanReps),
                ("cuedCleanReps", set.CuedCleanReps),
                ("breakingReps", set.BreakingReps),
            }
        )
        {
            if (value < 0)
            {
                yield return new($"{at}.{name}", "Counts are never negative.");
            }
        }
        if (!(set.CleanSeconds >= 0))
        {
            yield return new($"{at}.cleanSeconds", "Seconds are never negative.");
        }
        if (set.CleanReps + set.CuedCleanReps > set.Reps)
        {
            yield return new($"{at}.cleanReps", "More clean reps than reps.");
        }
        if (set.Effort is < 0 or > 10)
        {
            yield return new($"{at}.effort", "Effort is a whole number from 0 to 10.");
        }
        foreach (
            var (name, value) in new[]
            {
                ("painBefore", set.PainBefore),
                ("painPeak", set.PainPeak),
                ("painAfter", set.PainAfter),
            }
        )
        {
            if (value is < 0 or > ProfileCheck.PainMax)
            {
                yield return new($"{at}.{name}", "Pain is a whole number from 0 to 10.");
            }
        }
        if (set.PainPeak < set.PainAfter)
        {
            yield return new($"{at}.painPeak", "The peak is not below the pain after.");
        }
        if (!(set.Tremor is >= 0 and <= 1))
        {
            yield return new($"{at}.tremor", "A share is between 0 and 1.");
        }
        if (set.Felt is { } felt && library.FeltPlaces.All(place => place.Id != felt))
        {
            yield return new($"{at}.felt", $"There is no place “{felt}”.");
        }
        if (set.FirstFault is { } fault && library.FindFault(fault) is null)
        {
            yield return new($"{at}.firstFault", $"There is no fault “{fault}”.");
        }
        if (set.Setting is { } setting)
        {
            foreach (var error in DoseCheck.SettingErrors(setting, $"{at}.setting"))
            {
                yield return error;
            }
        }
    }

    private static IEnumerable<FieldError> Pain(DecideInput input, string path)
    {
        var checks = input.Pain?.CheckIns ?? [];
        for (var i = 0; i < checks.Count; i++)
        {
            var at = $"{path}.pain.checkIns[{i}]";
            foreach (
                var (name, value) in new[]
                {
                    ("usual", checks[i].Usual),
                    ("now", checks[i].Now),
                    ("nextDay", checks[i].NextDay),
                }
            )
            {
                if (value is < 0 or > ProfileCheck.PainMax)
                {
                    yield return new($"{at}.{name}", "Pain is a whole number from 0 to 10.");
                }
            }
            if (checks[i].Date > input.Date || checks[i].Visit >= input.Visit)
            {
                yield return new($"{at}.date", "An earlier check-in is before this visit.");
            }
        }
        if (input.Pain?.FirstUsual is < 0 or > ProfileCheck.PainMax)
        {
            yield return new($"{path}.pain.firstUsual", "Pain is a whole number from 0 to 10.");
        }
        for (var i = 0; i < (input.Sessions?.Count ?? 0); i++)
        {
            foreach (var error in Session(input.Sessions![i], input, $"{path}.sessions[{i}]"))
            {
                yield return error;
            }
        }
    }

    private static IEnumerable<FieldError> Session(SessionPain session, DecideInput input, string at)
    {
        foreach (
            var (name, value) in new[]
            {
                ("start", session.Start),
                ("peak", session.Peak),
                ("end", session.End),
            }
        )
        {
            if (value is < 0 or > ProfileCheck.PainMax)
            {
                yield return new($"{at}.{name}", "Pain is a whole number from 0 to 10.");
            }
        }
        if (session.Date > input.Date || session.Visit > input.Visit)
        {
            yield return new($"{at}.date", "A session is at this visit or before it.");
        }
        if (session.EndMinutes is { } minutes && !(minutes is >= 0 and <= 240))
        {
            yield return new($"{at}.endMinutes", "Minutes since the last set are between 0 and 240.");
        }
    }

    private static IEnumerable<FieldError> Before(DecideInput input, PracticeLibrary library, string path)
    {
        for (var i = 0; i < (input.Raises?.Count ?? 0); i++)
        {
            var raise = input.Raises![i];
            var at = $"{path}.raises[{i}]";
            if (library.FindRung(raise.RungId) is null)
            {
                yield return new($"{at}.rungId", $"There is no rung “{raise.RungId}”.");
            }
            if (raise.On > input.Date)
            {
                yield return new($"{at}.on", "What was raised was raised before this visit.");
            }
            if (raise.Dose.Reps < 1 || raise.Dose.Sets < 1 || !(raise.Dose.Hold >= 0))
            {
                yield return new(
                    $"{at}.dose",
                    "A dose needs at least one rep and one set, and no negative hold."
                );
            }
            foreach (var error in DoseCheck.SettingErrors(raise.Dose, $"{at}.dose"))
            {
                yield return error;
            }
        }
        for (var i = 0; i < (input.SetUps?.Count ?? 0); i++)
        {
            if (library.FeltPlaces.All(place => place.Id != input.SetUps![i].Place))
            {
                yield return new(
                    $"{path}.setUps[{i}].place",
                    $"There is no place “{input.SetUps![i].Place}”."
                );
            }
        }
        if (
            input.Pain?.Set is { } set
            && ReferencePain.SetError(input.Pain, set, input, library) is { } wrong
        )
        {
            yield return new($"{path}.pain.set.value", wrong);
        }
    }

    private static IEnumerable<FieldError> Home(DecideInput input, string path)
    {
        for (var i = 0; i < (input.HomePain?.Count ?? 0); i++)
        {
            var day = input.HomePain![i];
            var at = $"{path}.homePain[{i}]";
            if (day.Pain is < 0 or > ProfileCheck.PainMax)
            {
                yield return new($"{at}.pain", "Pain is a whole number from 0 to 10.");
            }
            if (day.NextMorning is < 0 or > ProfileCheck.PainMax)
            {
                yield return new($"{at}.nextMorning", "Pain is a whole number from 0 to 10.");
            }
            if (day.Day > input.Date)
            {
                yield return new($"{at}.day", "This day is in the future.");
            }
        }
        for (var i = 0; i < (input.Home?.Count ?? 0); i++)
        {
            var home = input.Home![i];
            if (home.PlannedReps < 0 || home.DoneReps < 0)
            {
                yield return new($"{path}.home[{i}].doneReps", "Counts are never negative.");
            }
            if (
                home.WorstPain is < 0 or > ProfileCheck.PainMax
                || home.WorstMorning is < 0 or > ProfileCheck.PainMax
            )
            {
                yield return new($"{path}.home[{i}].worstPain", "Pain is a whole number from 0 to 10.");
            }
        }
    }
}
