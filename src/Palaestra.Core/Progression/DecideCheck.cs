using Palaestra.Core.Capture;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Visits;

namespace Palaestra.Core.Progression;

/// <summary>Refuses what cannot be true of a visit to decide, with the field named.</summary>
public static class DecideCheck
{
    /// <summary>What no visit can hold, by field under <paramref name="path"/>; empty where all can be.</summary>
    public static IEnumerable<FieldError> Errors(DecideInput input, PracticeLibrary library, string path)
    {
        if (input.Visit < 1)
        {
            yield return new($"{path}.visit", Message.Of("decide.visit"));
        }
        if (input.LastWorkDate > input.Date)
        {
            yield return new($"{path}.lastWorkDate", Message.Of("decide.last-work"));
        }
        if (input.CheckIn.LastTrained > input.Date)
        {
            yield return new($"{path}.checkIn.lastTrained", Message.Of("decide.last-work"));
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
                yield return new($"{at}.rungId", Message.Of("no.rung", ("rung", done.RungId)));
            }
            if (done.Visit > input.Visit || done.Visit < 1)
            {
                yield return new($"{at}.visit", Message.Of("decide.work-visit"));
            }
            if (done.Date > input.Date)
            {
                yield return new($"{at}.date", Message.Of("decide.work-date"));
            }
            if (done.Prescribed.Reps < 1 || done.Prescribed.Sets < 1 || !(done.Prescribed.Hold >= 0))
            {
                yield return new($"{at}.prescribed", Message.Of("dose.least"));
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
                yield return new($"{at}.side", Message.Of("decide.work-twice"));
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
                yield return new($"{at}.rungId", Message.Of("no.rung", ("rung", probe.RungId)));
            }
            if (probe.Visit > input.Visit || probe.Visit < 1)
            {
                yield return new($"{at}.visit", Message.Of("decide.try-visit"));
            }
            if (probe.On > input.Date)
            {
                yield return new($"{at}.on", Message.Of("decide.try-date"));
            }
            if (probe.Dose.Reps < 1 || probe.Dose.Sets != 1 || !(probe.Dose.Hold >= 0))
            {
                yield return new($"{at}.dose", Message.Of("decide.try-dose"));
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
                yield return new($"{at}.side", Message.Of("decide.try-twice"));
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
                yield return new($"{at}.{name}", Message.Of("decide.counts"));
            }
        }
        if (!(set.CleanSeconds >= 0))
        {
            yield return new($"{at}.cleanSeconds", Message.Of("decide.seconds"));
        }
        if (set.CleanReps + set.CuedCleanReps > set.Reps)
        {
            yield return new($"{at}.cleanReps", Message.Of("decide.clean-reps"));
        }
        if (set.Effort is < 0 or > 10)
        {
            yield return new($"{at}.effort", Message.Of("effort.range"));
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
                yield return new($"{at}.{name}", Message.Of("pain.range"));
            }
        }
        if (set.PainPeak < set.PainAfter)
        {
            yield return new($"{at}.painPeak", Message.Of("decide.peak"));
        }
        if (!(set.Tremor is >= 0 and <= 1))
        {
            yield return new($"{at}.tremor", Message.Of("share.range"));
        }
        if (set.Felt is { } felt && library.FeltPlaces.All(place => place.Id != felt))
        {
            yield return new($"{at}.felt", Message.Of("no.place", ("place", felt)));
        }
        if (set.FirstFault is { } fault && library.FindFault(fault) is null)
        {
            yield return new($"{at}.firstFault", Message.Of("no.fault", ("fault", fault)));
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
                    yield return new($"{at}.{name}", Message.Of("pain.range"));
                }
            }
            if (checks[i].Date > input.Date || checks[i].Visit >= input.Visit)
            {
                yield return new($"{at}.date", Message.Of("decide.earlier"));
            }
        }
        if (input.Pain?.FirstUsual is < 0 or > ProfileCheck.PainMax)
        {
            yield return new($"{path}.pain.firstUsual", Message.Of("pain.range"));
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
                yield return new($"{at}.{name}", Message.Of("pain.range"));
            }
        }
        if (session.Date > input.Date || session.Visit > input.Visit)
        {
            yield return new($"{at}.date", Message.Of("decide.session"));
        }
        if (session.EndMinutes is { } minutes && !(minutes is >= 0 and <= 240))
        {
            yield return new($"{at}.endMinutes", Message.Of("capture.minutes"));
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
                yield return new($"{at}.rungId", Message.Of("no.rung", ("rung", raise.RungId)));
            }
            if (raise.On > input.Date)
            {
                yield return new($"{at}.on", Message.Of("decide.raised"));
            }
            if (raise.Dose.Reps < 1 || raise.Dose.Sets < 1 || !(raise.Dose.Hold >= 0))
            {
                yield return new($"{at}.dose", Message.Of("dose.least"));
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
                    Message.Of("no.place", ("place", input.SetUps![i].Place))
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
                yield return new($"{at}.pain", Message.Of("pain.range"));
            }
            if (day.NextMorning is < 0 or > ProfileCheck.PainMax)
            {
                yield return new($"{at}.nextMorning", Message.Of("pain.range"));
            }
            if (day.Day > input.Date)
            {
                yield return new($"{at}.day", Message.Of("decide.future"));
            }
        }
        for (var i = 0; i < (input.Home?.Count ?? 0); i++)
        {
            var home = input.Home![i];
            if (home.PlannedReps < 0 || home.DoneReps < 0)
            {
                yield return new($"{path}.home[{i}].doneReps", Message.Of("decide.counts"));
            }
            if (
                home.WorstPain is < 0 or > ProfileCheck.PainMax
                || home.WorstMorning is < 0 or > ProfileCheck.PainMax
            )
            {
                yield return new($"{path}.home[{i}].worstPain", Message.Of("pain.range"));
            }
        }
    }
}
