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
/// <param name="Taken">Written now. <paramref name="There"/>: were there already, from this log or a later one.</param>
/// <param name="Kept">Written at the clinic before: those stand.</param>
public sealed record HomeCodeTaken(
    IReadOnlyList<DateOnly> Taken,
    IReadOnlyList<DateOnly> There,
    IReadOnlyList<DateOnly> Kept
);

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
        var days = log.Days.OrderBy(day => day.Day).Select(day => DayOf(day, columns)).ToList();
        var errors = days.SelectMany((day, i) => homeLogs.ErrorsOf(file, day, $"days[{i}]"))
            .Select(error => error with { Field = "codes" })
            .DistinctBy(error => error.Message)
            .ToList();
        return errors.Count > 0
            ? Checked<HomeCodeTaken>.Bad([.. errors])
            : Checked<HomeCodeTaken>.Good(await Write(file, days, log, by));
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
                        columns[sets.Key].Side,
                        sets.Sum(set => set.Reps)
                    )),
            ],
            Highest(day.Sets.Select(set => set.Pain).Append(day.Pain)),
            day.Morning,
            day.Stopped ? words.Say(Message.Of("home-code.stopped")) : null
        );

    private static int? Highest(IEnumerable<int?> pains) => pains.Max();

    private async Task<HomeCodeTaken> Write(
        CaseFile file,
        IReadOnlyList<HomeDay> days,
        PackedLog log,
        string by
    )
    {
        var (taken, there, kept) = (new List<DateOnly>(), new List<DateOnly>(), new List<DateOnly>());
        foreach (var day in days.Where(day => !day.Empty))
        {
            var stored = await homeLogs.Stored(file, day.Day);
            if (stored is { ReportedCount: null, Log.Empty: false })
            {
                kept.Add(day.Day);
            }
            else if (IsThere(stored, log))
            {
                there.Add(day.Day);
            }
            else if (await homeLogs.Merged(file, day) is var merged && stored?.Log.Says(merged) == true)
            {
                there.Add(day.Day);
            }
            else
            {
                await homeLogs.Report(file, merged, log.Count, log.Token.Revision, by);
                taken.Add(day.Day);
            }
        }
        return new(taken, there, kept);
    }

    /// <summary>From this log, or a later state of it.</summary>
    private static bool IsThere(HomeLogDay? stored, PackedLog log) =>
        stored is { Log.Empty: false, ReportedCount: { } count, ReportedRevision: { } revision }
        && revision == log.Token.Revision
        && count >= log.Count;

    private static Checked<HomeCodeTaken> Bad(Message message) =>
        Checked<HomeCodeTaken>.Bad(new FieldError("codes", message));
}
