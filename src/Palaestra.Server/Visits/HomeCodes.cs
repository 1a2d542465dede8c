using System.Security.Cryptography;
using Palaestra.Core.Visits;
using Palaestra.Data.Planning;
using Palaestra.Data.Visits;
using Palaestra.Exchange.HomeCodes;
using Palaestra.Server.Clinics;
using Palaestra.Server.Intake;
using Palaestra.Server.TakeHome;
using Palaestra.Server.Words;

namespace Palaestra.Server.Visits;

/// <param name="Codes">What the codes or the file of a home programme say, in any order; one to four parts.</param>
public sealed record HomeCodeForm(IReadOnlyList<string> Codes);

/// <summary>What became of the days of a log.</summary>
/// <param name="Taken">Written now, or more of them. <paramref name="There"/>: were there already.</param>
/// <param name="Kept">Written at the clinic before: those stand, and where the log tells of more pain that is said.</param>
public sealed record HomeCodeTaken(
    IReadOnlyList<DateOnly> Taken,
    IReadOnlyList<DateOnly> There,
    IReadOnlyList<KeptDay> Kept
);

/// <param name="Pain">What the log tells, 0 to 10, where that is more than stands there; none: no more.</param>
/// <param name="NextMorning">The same of the morning after.</param>
public sealed record KeptDay(DateOnly Day, int? Pain, int? NextMorning);

/// <summary>Takes the log of a client's own programme into the home log, each day once.</summary>
public sealed class HomeCodes(HomeLogs homeLogs, HomeSeals seals, ClinicClock clock, ClinicWords words)
{
    /// <summary>Nothing is written where anything is wrong. The caller saves.</summary>
    public async Task<Checked<HomeCodeTaken>> Take(CaseFile file, HomeCodeForm form, string by)
    {
        var joined = HomeCodeParts.Join(form.Codes);
        if (!joined.IsValid)
        {
            return Checked<HomeCodeTaken>.Bad([.. joined.Errors]);
        }
        var secret = await seals.Secret();
        var read = HomePack.Read(joined.Value!, new HomeSeal(secret));
        if (!read.IsValid)
        {
            return Checked<HomeCodeTaken>.Bad([.. read.Errors]);
        }
        var log = read.Value!;
        if (Refused(file, log, secret) is { } refused)
        {
            return Bad(refused);
        }
        var plan = file.Plans.First(p => p.Revision == log.Token.Revision);
        var columns = ProgrammeColumns.Of(plan.Plan);
        if (
            log.Days.DistinctBy(day => day.Day).Count() != log.Days.Count
            || log.Days.SelectMany(day => day.Sets).Any(set => set.Column >= columns.Count)
        )
        {
            return Bad(Message.Of("home-code.unreadable"));
        }
        var days = log
            .Days.OrderBy(day => day.Day)
            .Select(day => DayOf(day, columns))
            .Where(day => !day.Empty)
            .ToList();
        if (days.Count == 0)
        {
            return Bad(Message.Of("home-code.empty"));
        }
        var errors = days.SelectMany((day, i) => homeLogs.ErrorsOf(file, day, $"days[{i}]"))
            .Select(error => error with { Field = "codes" })
            .DistinctBy(error => error.Message)
            .ToList();
        return errors.Count > 0
            ? Checked<HomeCodeTaken>.Bad([.. errors])
            : Checked<HomeCodeTaken>.Good(await Write(file, days, by));
    }

    private Message? Refused(CaseFile file, PackedLog log, byte[] secret)
    {
        var page = HomeSeals.PageOf(secret, file.Episode.Id, log.Token.Revision);
        if (
            !CryptographicOperations.FixedTimeEquals(page.ToByteArray(), log.Token.Page.ToByteArray())
            || !file.Plans.Any(plan => plan.Revision == log.Token.Revision)
        )
        {
            return Message.Of("home-code.other-client");
        }
        return clock.Today > log.Token.Expires
            ? Message.Of("home-code.expired", ("day", log.Token.Expires))
            : null;
    }

    private HomeDay DayOf(PackedDay day, IReadOnlyList<ProgrammeColumn> columns) =>
        new(
            day.Day,
            [
                .. day
                    .Sets.GroupBy(set => set.Column)
                    .OrderBy(sets => sets.Key)
                    .Select(sets => new HomeReps(
                        columns[sets.Key].Item.Id,
                        columns[sets.Key].Dose.Side,
                        sets.Sum(set => set.Reps)
                    )),
            ],
            day.Sets.Select(set => set.Pain).Append(day.Pain).Max(),
            day.Morning,
            day.Stopped ? words.Say(Message.Of("home-code.stopped")) : null
        );

    private async Task<HomeCodeTaken> Write(CaseFile file, IReadOnlyList<HomeDay> days, string by)
    {
        var (taken, there, kept) = (new List<DateOnly>(), new List<DateOnly>(), new List<KeptDay>());
        foreach (var day in days)
        {
            var stored = await homeLogs.Stored(file, day.Day);
            if (stored is null or { Log.Empty: true })
            {
                homeLogs.Report(file, stored, day, by);
                taken.Add(day.Day);
            }
            else if (!stored.Reported)
            {
                kept.Add(
                    new(
                        day.Day,
                        More(day.Pain, stored.Log.Pain),
                        More(day.NextMorning, stored.Log.NextMorning)
                    )
                );
            }
            else if (stored.Log.Joined(day) is var joined && stored.Log.Says(joined))
            {
                there.Add(day.Day);
            }
            else
            {
                homeLogs.Report(file, stored, joined, by);
                taken.Add(day.Day);
            }
        }
        return new(taken, there, kept);
    }

    private static int? More(int? told, int? stands) => told > (stands ?? -1) ? told : null;

    private static Checked<HomeCodeTaken> Bad(Message message) =>
        Checked<HomeCodeTaken>.Bad(new FieldError("codes", message));
}
