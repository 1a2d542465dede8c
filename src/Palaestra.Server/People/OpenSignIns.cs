using System.Collections.Concurrent;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using Palaestra.Data;
using Palaestra.Data.Staff;
using Palaestra.Server.Clinics;

namespace Palaestra.Server.People;

/// <summary>A sign-in that goes on, with what its account is now.</summary>
/// <param name="SecondFactorDue">From when an administrator needs a second factor that is not set up; none: it is, or need not be.</param>
public sealed record OpenSignIn(
    Guid Id,
    Guid AccountId,
    string Name,
    IReadOnlyList<Role> Roles,
    string Device,
    Instant BegunAt,
    Instant ConfirmedAt,
    bool Locked = false,
    Instant? SecondFactorDue = null
);

/// <summary>
/// Sign-ins that have not ended, kept in memory beside the store, so that one that ends is over with the next request of
/// its tablet, and asking costs nothing.
/// </summary>
public sealed class OpenSignIns(
    IServiceScopeFactory scopes,
    ClinicClock clock,
    TimeProvider time,
    Settings settings
)
{
    /// <summary>So long after its beginning a sign-in is over, whatever happens meanwhile.</summary>
    public static readonly Duration Longest = Duration.FromHours(12);

    /// <summary>So long a password that was given counts for what asks for it again.</summary>
    public static readonly Duration ConfirmedFor = Duration.FromMinutes(5);

    private const int DeviceLength = 200;

    private readonly ConcurrentDictionary<Guid, OpenSignIn> open = [];
    private readonly ConcurrentDictionary<Guid, CancellationTokenSource> ends = [];

    /// <summary>At a start: those of before.</summary>
    public async Task Read(PalaestraDb db)
    {
        var oldest = clock.Now - Longest;
        var rows = await (
            from session in db.SignIns.AsNoTracking()
            where session.EndedAt == null && session.BegunAt > oldest
            join account in db.Users.AsNoTracking() on session.AccountId equals account.Id
            where account.DisabledAt == null
            select new { session, account }
        ).ToListAsync();
        foreach (var row in rows)
        {
            Keep(row.session, row.account);
        }
    }

    public async Task<OpenSignIn> Begin(Practitioner account, string device)
    {
        foreach (var id in open.Keys.Where(id => Find(id) is null).ToList())
        {
            open.TryRemove(id, out _);
            ends.TryRemove(id, out _);
        }
        var session = new SignInSession
        {
            Id = Guid.CreateVersion7(),
            AccountId = account.Id,
            Device = device.Length > DeviceLength ? device[..DeviceLength] : device,
            BegunAt = clock.Now,
            ConfirmedAt = clock.Now,
        };
        await Store(db => db.SignIns.Add(session));
        return Keep(session, account);
    }

    /// <summary>None: ended, or longer ago than a sign-in lasts.</summary>
    public OpenSignIn? Find(Guid id) =>
        open.TryGetValue(id, out var found) && found.BegunAt > clock.Now - Longest ? found : null;

    public IReadOnlyList<OpenSignIn> Of(Guid account) =>
        [
            .. open
                .Values.Where(s => s.AccountId == account && Find(s.Id) is not null)
                .OrderBy(s => s.BegunAt)
                .ThenBy(s => s.Id),
        ];

    /// <summary>Cancelled when the sign-in ends, by somebody or by itself, for what goes on over one request.</summary>
    public CancellationToken EndOf(Guid id) =>
        Find(id) is not { } session
            ? new CancellationToken(canceled: true)
            : ends.GetOrAdd(
                id,
                _ => new CancellationTokenSource((session.BegunAt + Longest - clock.Now).ToTimeSpan(), time)
            ).Token;

    public bool IsConfirmed(OpenSignIn session) => session.ConfirmedAt > clock.Now - ConfirmedFor;

    /// <summary>The password was given again.</summary>
    public async Task Confirm(OpenSignIn session)
    {
        var now = clock.Now;
        Change(session.Id, s => s with { ConfirmedAt = now });
        await Store(db => db.SignIns.Where(s => s.Id == session.Id), s => s.ConfirmedAt = now);
    }

    /// <summary>The tablet was left alone, or put down on purpose.</summary>
    public async Task Lock(OpenSignIn session)
    {
        var now = clock.Now;
        Change(session.Id, s => s with { Locked = true });
        await Store(db => db.SignIns.Where(s => s.Id == session.Id), s => s.LockedAt = now);
    }

    /// <summary>Its user is back.</summary>
    public async Task Open(OpenSignIn session)
    {
        Change(session.Id, s => s with { Locked = false });
        await Store(db => db.SignIns.Where(s => s.Id == session.Id), s => s.LockedAt = null);
    }

    private void Change(Guid id, Func<OpenSignIn, OpenSignIn> change)
    {
        while (open.TryGetValue(id, out var was) && !open.TryUpdate(id, change(was), was)) { }
    }

    public Task End(Guid id) => End(s => s.Id == id);

    /// <param name="but">One that goes on; none: all end.</param>
    public Task EndAll(Guid account, Guid? but = null) => End(s => s.AccountId == account && s.Id != but);

    /// <summary>What an account is called and may do is another now.</summary>
    public void Renew(Practitioner account)
    {
        foreach (var session in open.Values.Where(s => s.AccountId == account.Id))
        {
            Change(
                session.Id,
                s =>
                    s with
                    {
                        Name = account.DisplayName,
                        Roles = account.Roles,
                        SecondFactorDue = SecondFactor.DueAt(account, settings),
                    }
            );
        }
    }

    private async Task End(Func<OpenSignIn, bool> which)
    {
        var ids = open.Values.Where(which).Select(s => s.Id).ToList();
        foreach (var id in ids)
        {
            open.TryRemove(id, out _);
            if (ends.TryRemove(id, out var end))
            {
                await end.CancelAsync();
                end.Dispose();
            }
        }
        var now = clock.Now;
        await Store(db => db.SignIns.Where(s => ids.Contains(s.Id)), s => s.EndedAt = now);
    }

    private OpenSignIn Keep(SignInSession session, Practitioner account) =>
        open[session.Id] = new(
            session.Id,
            account.Id,
            account.DisplayName,
            account.Roles,
            session.Device,
            session.BegunAt,
            session.ConfirmedAt,
            session.LockedAt is not null,
            SecondFactor.DueAt(account, settings)
        );

    private Task Store(Func<PalaestraDb, IQueryable<SignInSession>> which, Action<SignInSession> change) =>
        Store(async db => (await which(db).ToListAsync()).ForEach(change));

    private Task Store(Action<PalaestraDb> change) =>
        Store(db =>
        {
            change(db);
            return Task.CompletedTask;
        });

    private async Task Store(Func<PalaestraDb, Task> change)
    {
        await using var scope = scopes.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<PalaestraDb>();
        await change(db);
        await db.SaveChangesAsync();
    }
}
