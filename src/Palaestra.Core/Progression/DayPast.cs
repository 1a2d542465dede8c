using Palaestra.Core.Capture;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;

namespace Palaestra.Core.Progression;

/// <summary>
/// What the visits before say of this one: pain's reference and drift, the legs, how calm it has been. It rests on nothing that
/// was done or asked today but usual pain and the leg, so a search that changes the rest works it out once.
/// </summary>
internal sealed class DayPast
{
    private readonly DecideInput input;
    private readonly Policy policy;
    private readonly Judgement judgement;
    private readonly Dictionary<(string Rung, Side Side), Allowance> allowances = [];
    private bool? flaredLately;

    private DayPast(DecideInput input, PracticeLibrary library)
    {
        this.input = input;
        policy = library.FindPolicy(input.PolicyId) ?? library.DefaultPolicy;
        judgement = policy.Judgement;
        Reference = ReferencePain.Of(input.Pain, Own, judgement);
        Drift = ReferencePain.Drift(input.Pain, input.CheckIn.UsualPain);
        Remembered = [.. LegMemory.Sides(input.Sessions ?? [], input.Visit, input.Date, judgement)];
        Profile = LegPain.Told(input.Profile, Reports(), Remembered, library, judgement);
        Level = IrritabilityLevel.Of(Profile, policy);
        Even = IsEven();
        Quiet = IsQuiet();
        WeekCalm = !CheckIns.Any(c => c.Date > input.Date.AddDays(-judgement.ReadyCalmDays) && Irritable(c));
    }

    /// <summary><paramref name="known"/> where it still holds, else worked out anew.</summary>
    public static DayPast Of(DecideInput input, PracticeLibrary library, DayPast? known) =>
        known is not null && known.Says(input) ? known : new(input, library);

    public Reference Reference { get; }
    public int Drift { get; }
    public IReadOnlyList<Side> Remembered { get; }
    public ClientProfile Profile { get; }
    public Irritability Level { get; }

    /// <summary>Usual pain of the last check-ins, today's among them, is low and hardly changes.</summary>
    public bool Even { get; }

    /// <summary>No flare, no rise before a visit and no session that hurt within the policy's days.</summary>
    public bool Quiet { get; }

    /// <summary>Not highly irritable at any check-in of the days a try asks for.</summary>
    public bool WeekCalm { get; }

    /// <summary>A flare within the policy's weeks before today.</summary>
    public bool FlaredLately => flaredLately ??= FlaredSince(-7 * judgement.FlareWeeks);

    /// <summary>What the precautions say of a rung, looked up once for all cases of a search; one search runs on one thread.</summary>
    public Allowance AllowanceOf(PracticeLibrary library, Rung rung, Side side)
    {
        if (!allowances.TryGetValue((rung.Id, side), out var allowance))
        {
            allowance = Allowance.Of(library, Profile.Precautions, rung, side);
            allowances[(rung.Id, side)] = allowance;
        }
        return allowance;
    }

    private int Own => input.CheckIn.UsualPain ?? input.Profile.Pain.Usual;

    private IReadOnlyList<PastCheckIn> CheckIns => input.Pain?.CheckIns ?? [];

    private bool Says(DecideInput other) =>
        ReferenceEquals(other.Pain, input.Pain)
        && ReferenceEquals(other.Profile, input.Profile)
        && ReferenceEquals(other.Sessions, input.Sessions)
        && other.CheckIn.UsualPain == input.CheckIn.UsualPain
        && ReferenceEquals(other.CheckIn.Leg, input.CheckIn.Leg)
        && other.Date == input.Date
        && other.Visit == input.Visit
        && other.PolicyId == input.PolicyId;

    private bool FlaredSince(int days)
    {
        var from = input.Date.AddDays(days);
        return CheckIns.Any(check => check.Date >= from && check.Date < input.Date && Flared(check));
    }

    /// <summary>Against the reference as it was then.</summary>
    private bool Flared(PastCheckIn check) =>
        check.Hours > policy.SettleHours || check.NextDay - ReferenceAt(check) >= policy.NextDayRise;

    private int ReferenceAt(PastCheckIn check)
    {
        var before = input.Pain! with { CheckIns = [.. CheckIns.Where(c => c.Date < check.Date)] };
        return ReferencePain.Of(before, check.Usual ?? Own, judgement).Value;
    }

    private IReadOnlyList<LegReport> Reports() =>
        [
            .. CheckIns
                .OrderByDescending(c => c.Date)
                .ThenByDescending(c => c.Visit)
                .Select(c => c.Leg)
                .Prepend(input.CheckIn.Leg)
                .OfType<LegReport>(),
        ];

    private bool IsEven()
    {
        var usuals = CheckIns
            .Where(c => c.Usual is not null)
            .GroupBy(c => c.Date)
            .OrderBy(day => day.Key)
            .Select(day => day.OrderBy(c => c.Visit).Last().Usual!.Value)
            .ToList();
        if (input.CheckIn.UsualPain is { } own)
        {
            usuals.Add(own);
        }
        var last = usuals.TakeLast(ReferencePain.Window).ToList();
        return last.Count == ReferencePain.Window
            && last.Max() <= judgement.SteadyUsualMax
            && last.Max() - last.Min() <= judgement.SteadyWithin;
    }

    private bool IsQuiet()
    {
        var from = input.Date.AddDays(-judgement.SteadyDays);
        return !CheckIns.Any(c =>
                c.Date >= from && (Flared(c) || c.Now - ReferenceAt(c) >= judgement.NowRise)
            ) && !(input.Sessions ?? []).Any(s => s.Date >= from && Hurt(s));
    }

    private bool Irritable(PastCheckIn check) =>
        Math.Max(check.Usual ?? 0, check.Now ?? 0) >= policy.Irritability.High.PainFrom
        || check.Hours >= policy.Irritability.High.SettleHoursFrom;

    private bool Hurt(SessionPain session) =>
        session.End - session.Start >= judgement.SessionEndRise
        || session.Peak - session.Start >= judgement.SessionPeakRise
        || session.Legs is { Count: > 0 };
}
