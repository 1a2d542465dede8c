using Microsoft.EntityFrameworkCore;
using Palaestra.Data;
using Palaestra.Data.Staff;

namespace Palaestra.Server.Clients;

/// <summary>Whom clients are booked with: whoever treats or trains and can sign in.</summary>
public sealed class Staffing(PalaestraDb db)
{
    private IReadOnlyList<Practitioner>? all;

    /// <summary>By name.</summary>
    public async Task<IReadOnlyList<BookedWith>> Bookable() =>
        [
            .. (await All())
                .Where(IsBookable)
                .OrderBy(p => p.DisplayName, StringComparer.Ordinal)
                .Select(p => new BookedWith(p.Id, p.DisplayName)),
        ];

    public async Task<bool> IsBookable(Guid account) =>
        (await All()).Any(p => p.Id == account && IsBookable(p));

    /// <summary>The name of an account, whoever it is now; none for none.</summary>
    public async Task<string?> NameOf(Guid? account) =>
        (await All()).FirstOrDefault(p => p.Id == account)?.DisplayName;

    private static bool IsBookable(Practitioner account) =>
        account.DisabledAt is null && account.Roles.Any(role => role is Role.Practitioner or Role.Trainer);

    private async Task<IReadOnlyList<Practitioner>> All() =>
        all ??= await db.Users.AsNoTracking().ToListAsync();
}
