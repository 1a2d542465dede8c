using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using Palaestra.Data;
using Palaestra.Data.Staff;
using Palaestra.Server.Clinics;

namespace Palaestra.Server.People;

/// <summary>Makes codes for new and for locked-out accounts.</summary>
public sealed class Accounts(PalaestraDb db, ClinicClock clock)
{
    /// <summary>So long a code is good for.</summary>
    public static readonly Duration CodeLasts = Duration.FromHours(72);

    /// <summary>For somebody who has no account yet, or none (<paramref name="account"/>) whose password they know.</summary>
    /// <returns>The code, told this once.</returns>
    public async Task<(string Code, Invitation Invitation)> Invite(
        string name,
        string email,
        IReadOnlyList<Role> roles,
        string by,
        Guid? account = null
    )
    {
        var code = InvitationCode.New();
        // One that was made for the same person before is worth nothing any more.
        var now = clock.Now;
        var before = await db.Invitations.Where(i => i.ClosedAt == null && i.Email == email).ToListAsync();
        before.ForEach(i => i.ClosedAt = now);
        var invitation = new Invitation
        {
            Id = Guid.CreateVersion7(),
            CodeHash = InvitationCode.Hash(code),
            AccountId = account,
            Name = name,
            Email = email,
            Roles = roles,
            MadeBy = by,
            MadeAt = now,
            EndsAt = now + CodeLasts,
        };
        db.Invitations.Add(invitation);
        await db.SaveChangesAsync();
        return (code, invitation);
    }

    /// <summary>None: unknown, taken, taken back, or too old.</summary>
    public async Task<Invitation?> Find(string? code)
    {
        var (hash, now) = (InvitationCode.Hash(code), clock.Now);
        return await db.Invitations.FirstOrDefaultAsync(i =>
            i.CodeHash == hash && i.ClosedAt == null && i.EndsAt > now
        );
    }

    public Task<List<Invitation>> Open()
    {
        var now = clock.Now;
        return db
            .Invitations.AsNoTracking()
            .Where(i => i.ClosedAt == null && i.EndsAt > now)
            .OrderBy(i => i.MadeAt)
            .ToListAsync();
    }

    public void Close(Invitation invitation) => invitation.ClosedAt = clock.Now;

    /// <summary>Whether somebody else could still keep the clinic.</summary>
    public async Task<bool> AnotherAdministrator(Guid but) =>
        (await db.Users.AsNoTracking().Where(u => u.Id != but && u.DisabledAt == null).ToListAsync()).Exists(
            u => u.Roles.Contains(Role.Administrator)
        );
}
