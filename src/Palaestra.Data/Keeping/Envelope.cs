using Org.BouncyCastle.Bcpg;
using Org.BouncyCastle.Bcpg.OpenPgp;
using Org.BouncyCastle.Security;

namespace Palaestra.Data.Keeping;

/// <summary>
/// The OpenPGP message around a backup: AES-256 with an integrity packet, for a passphrase or for a clinic's public key, so that
/// any OpenPGP program opens it. RFC 4880, from memory.
/// </summary>
public static class Envelope
{
    /// <summary>The most iterations a passphrase can be stretched by: coded count 255, 65,011,712 bytes hashed.</summary>
    private const int StretchCount = 255;

    private const int Chunk = 1 << 16;

    /// <summary>Whether a file begins like an OpenPGP message, bare or armoured, and not like a plain archive.</summary>
    public static bool Looks(string file)
    {
        using var stream = File.OpenRead(file);
        var first = stream.ReadByte();
        return first >= 0x80 || first == '-';
    }

    /// <summary>Writes what <paramref name="content"/> writes, sealed.</summary>
    public static void Seal(Stream to, Seal seal, Action<Stream> content)
    {
        var sealing = new PgpEncryptedDataGenerator(
            SymmetricKeyAlgorithmTag.Aes256,
            withIntegrityPacket: true,
            new SecureRandom()
        );
        if (seal.Key is { } key)
        {
            sealing.AddMethod(key);
        }
        else
        {
            sealing.AddMethodUtf8(seal.Passphrase!.ToCharArray(), HashAlgorithmTag.Sha256, StretchCount);
        }
        using var sealedTo = sealing.Open(to, new byte[Chunk]);
        using var literal = new PgpLiteralDataGenerator().Open(
            sealedTo,
            PgpLiteralData.Binary,
            "backup.tar.gz",
            DateTime.UtcNow,
            new byte[Chunk]
        );
        content(literal);
    }

    /// <summary>The content, once the whole message was read and found whole.</summary>
    /// <exception cref="BackupRefusedException">Another passphrase or key, cut, or altered.</exception>
    public static void Open(string file, Opener opener, string to)
    {
        try
        {
            using var read = File.OpenRead(file);
            using var stream = PgpUtilities.GetDecoderStream(read);
            var message = new PgpObjectFactory(stream);
            var first = message.NextPgpObject();
            // A marker may stand before the message.
            var list = first as PgpEncryptedDataList ?? message.NextPgpObject() as PgpEncryptedDataList;
            var (data, clear) = Decrypted(list ?? throw Altered(file), opener, file);
            var inner = new PgpObjectFactory(clear).NextPgpObject() as PgpLiteralData;
            using (var content = (inner ?? throw WrongSecret(file)).GetInputStream())
            using (var written = File.Create(to))
            {
                content.CopyTo(written);
            }
            if (!data.IsIntegrityProtected() || !data.Verify())
            {
                throw Altered(file);
            }
        }
        catch (Exception problem) when (IsBroken(problem) && problem.HResult != NoSpace)
        {
            throw Altered(file, problem);
        }
    }

    /// <summary>ENOSPC of Linux, as the framework passes it on: not the file's fault.</summary>
    private const int NoSpace = 28;

    private static bool IsBroken(Exception problem) =>
        problem
            is PgpException
                or IOException
                or InvalidDataException
                or ArgumentException
                or Org.BouncyCastle.Crypto.CryptoException;

    private static (PgpEncryptedData Data, Stream Clear) Decrypted(
        PgpEncryptedDataList list,
        Opener opener,
        string file
    )
    {
        try
        {
            return Decrypted(list, opener);
        }
        catch (Exception problem) when (IsBroken(problem))
        {
            throw WrongSecret(file, problem);
        }
    }

    private static (PgpEncryptedData Data, Stream Clear) Decrypted(PgpEncryptedDataList list, Opener opener)
    {
        foreach (var data in list.GetEncryptedDataObjects())
        {
            if (data is PgpPbeEncryptedData stretched && opener.Passphrase is { } words)
            {
                return (stretched, stretched.GetDataStreamUtf8(words.ToCharArray()));
            }
            if (data is PgpPublicKeyEncryptedData keyed && opener.SecretKey(keyed.KeyId) is { } key)
            {
                return (keyed, keyed.GetDataStream(key));
            }
        }
        throw new BackupRefusedException(
            list.GetEncryptedDataObjects().Any(data => data is PgpPublicKeyEncryptedData)
                ? "This backup is sealed for a key: give the secret key in --key FILE and its passphrase."
                : "This backup is sealed with a passphrase: give it."
        );
    }

    private static BackupRefusedException WrongSecret(string file, Exception? cause = null) =>
        new($"{Path.GetFileName(file)} does not open with this passphrase or key.", cause);

    private static BackupRefusedException Altered(string file, Exception? cause = null) =>
        new($"{Path.GetFileName(file)} is cut or was altered: it is not restored.", cause);
}

/// <summary>What a backup is sealed with: one of the two.</summary>
public sealed record Seal(string? Passphrase, PgpPublicKey? Key)
{
    /// <exception cref="BackupRefusedException">Holds no key to seal with.</exception>
    public static Seal For(string publicKeyFile)
    {
        try
        {
            using var read = File.OpenRead(publicKeyFile);
            using var stream = PgpUtilities.GetDecoderStream(read);
            var rings = new PgpPublicKeyRingBundle(stream);
            var key = rings
                .GetKeyRings()
                .SelectMany(ring => ring.GetPublicKeys())
                .LastOrDefault(key => key.IsEncryptionKey && !key.HasRevocation());
            return new(
                null,
                key ?? throw new BackupRefusedException($"{publicKeyFile} holds no key to seal with.")
            );
        }
        catch (Exception problem) when (problem is IOException or PgpException or UnauthorizedAccessException)
        {
            throw new BackupRefusedException(
                $"{publicKeyFile} cannot be read as an OpenPGP public key.",
                problem
            );
        }
    }
}

/// <summary>What a backup is opened with.</summary>
/// <param name="KeyFile">A secret key, opened by <paramref name="Passphrase"/>.</param>
public sealed record Opener(string? Passphrase, string? KeyFile = null)
{
    internal PgpPrivateKey? SecretKey(long id)
    {
        if (KeyFile is null)
        {
            return null;
        }
        using var read = File.OpenRead(KeyFile);
        using var stream = PgpUtilities.GetDecoderStream(read);
        return new PgpSecretKeyRingBundle(stream)
            .GetSecretKey(id)
            ?.ExtractPrivateKeyUtf8((Passphrase ?? "").ToCharArray());
    }
}
