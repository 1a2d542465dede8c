using System.Security.Cryptography;
using Microsoft.EntityFrameworkCore;
using Palaestra.Core.Planning;
using Palaestra.Data;
using Palaestra.Data.Planning;
using Palaestra.Exchange.HomeCodes;
using Palaestra.Server.Intake;

namespace Palaestra.Server.TakeHome;

/// <summary>What pages of home programmes are signed with, and what they carry in the place of a name.</summary>
public sealed class HomeSeals(PalaestraDb db)
{
    /// <summary>Weeks after the review of a plan in which its log is still taken in. Our own.</summary>
    private const int WeeksAfterReview = 4;

    /// <summary>The clinic's own secret, made when it is needed first.</summary>
    public async Task<byte[]> Secret()
    {
        if (await Stored() is { } known)
        {
            return known;
        }
        var made = RandomNumberGenerator.GetBytes(HomeSeal.SecretBytes);
        // Of two at once the first one's stands.
        await db
            .Clinics.Where(clinic => clinic.HomeSecret == null)
            .ExecuteUpdateAsync(set => set.SetProperty(clinic => clinic.HomeSecret, made));
        return (await Stored())!;
    }

    private Task<byte[]?> Stored() =>
        db.Clinics.AsNoTracking().Select(clinic => clinic.HomeSecret).SingleAsync();

    /// <summary>The same for a revision however often its page is made, and of no use to whoever has not the secret.</summary>
    public static HomeToken TokenOf(byte[] secret, CaseFile file, PlanRevision revision) =>
        new(
            PageOf(secret, file.Episode.Id, revision.Revision),
            revision.Revision,
            PlanDays.Review(file, revision).AddDays(7 * WeeksAfterReview)
        );

    public static Guid PageOf(byte[] secret, Guid episode, int revision)
    {
        byte[] of =
        [
            .. "home-page"u8,
            .. episode.ToByteArray(bigEndian: true),
            (byte)(revision >> 8),
            (byte)revision,
        ];
        return new(HMACSHA256.HashData(secret, of).AsSpan(0, 16), bigEndian: true);
    }
}
