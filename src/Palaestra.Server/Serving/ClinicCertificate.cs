using System.Net;
using System.Security.Cryptography;
using System.Security.Cryptography.X509Certificates;
using Palaestra.Data.Keeping;

namespace Palaestra.Server.Serving;

/// <summary>
/// A clinic's own authority and the server's certificate signed by it, in a folder of the data folder. The framework's own
/// certificates throughout; the authority is made once and may sign nothing but servers.
/// </summary>
public sealed class ClinicCertificate(string folder)
{
    public const string FolderName = "certificates";

    /// <summary>To be installed on each tablet. Public.</summary>
    public string AuthorityFile => Path.Combine(folder, "clinic-authority.crt");
    public string CertificateFile => Path.Combine(folder, "server.crt");
    public string KeyFile => Path.Combine(folder, "server.key");
    private string AuthorityKeyFile => Path.Combine(folder, "clinic-authority.key");

    public bool Made => File.Exists(CertificateFile) && File.Exists(KeyFile);

    /// <summary>The authority lives ten years.</summary>
    private const int AuthorityYears = 10;

    /// <summary>Browsers take no certificate of a server for longer than 825 days (CA/Browser Forum, from memory).</summary>
    public const int DaysMax = 825;

    /// <param name="names">Host names and addresses it answers to, at least one.</param>
    /// <param name="days">1 to <see cref="DaysMax"/>.</param>
    public X509Certificate2 Make(IReadOnlyList<string> names, int days, DateTimeOffset now)
    {
        ArgumentOutOfRangeException.ThrowIfZero(names.Count);
        ArgumentOutOfRangeException.ThrowIfNotEqual(days is >= 1 and <= DaysMax, true, nameof(days));
        Directory.CreateDirectory(folder, OwnFolder);
        using var authority = Authority(now);
        using var key = ECDsa.Create(ECCurve.NamedCurves.nistP256);
        var request = new CertificateRequest(Named(names[0]), key, HashAlgorithmName.SHA256);
        var alternatives = new SubjectAlternativeNameBuilder();
        foreach (var name in names)
        {
            if (IPAddress.TryParse(name, out var address))
            {
                alternatives.AddIpAddress(address);
            }
            else
            {
                alternatives.AddDnsName(name);
            }
        }
        request.CertificateExtensions.Add(alternatives.Build());
        request.CertificateExtensions.Add(new X509BasicConstraintsExtension(false, false, 0, true));
        request.CertificateExtensions.Add(
            new X509KeyUsageExtension(X509KeyUsageFlags.DigitalSignature, true)
        );
        request.CertificateExtensions.Add(
            new X509EnhancedKeyUsageExtension([new Oid("1.3.6.1.5.5.7.3.1", "server authentication")], false)
        );
        request.CertificateExtensions.Add(
            X509AuthorityKeyIdentifierExtension.CreateFromCertificate(authority, true, false)
        );
        // A tablet whose clock is behind by a day takes it all the same.
        var from = now.AddDays(-1);
        var until = now.AddDays(days);
        var last = new DateTimeOffset(authority.NotAfter);
        using var signed = request.Create(
            authority,
            from,
            until < last ? until : last,
            RandomNumberGenerator.GetBytes(16)
        );
        Keep(KeyFile, key.ExportPkcs8PrivateKeyPem() + "\n");
        Keep(CertificateFile, signed.ExportCertificatePem() + "\n");
        return X509CertificateLoader.LoadCertificate(signed.RawData);
    }

    private X509Certificate2 Authority(DateTimeOffset now)
    {
        if (File.Exists(AuthorityFile) && File.Exists(AuthorityKeyFile))
        {
            var known = X509Certificate2.CreateFromPemFile(AuthorityFile, AuthorityKeyFile);
            if (known.NotAfter > now.AddDays(30).LocalDateTime)
            {
                return known;
            }
            known.Dispose();
        }
        using var key = ECDsa.Create(ECCurve.NamedCurves.nistP256);
        var request = new CertificateRequest(
            Named("Palaestra: authority of this clinic"),
            key,
            HashAlgorithmName.SHA256
        );
        request.CertificateExtensions.Add(new X509BasicConstraintsExtension(true, true, 0, true));
        request.CertificateExtensions.Add(new X509KeyUsageExtension(X509KeyUsageFlags.KeyCertSign, true));
        request.CertificateExtensions.Add(new X509SubjectKeyIdentifierExtension(request.PublicKey, false));
        var authority = request.CreateSelfSigned(now.AddDays(-1), now.AddYears(AuthorityYears));
        Keep(AuthorityKeyFile, key.ExportPkcs8PrivateKeyPem() + "\n");
        Keep(AuthorityFile, authority.ExportCertificatePem() + "\n");
        return authority;
    }

    private static X500DistinguishedName Named(string name)
    {
        var builder = new X500DistinguishedNameBuilder();
        builder.AddCommonName(name);
        return builder.Build();
    }

    private const UnixFileMode OwnFolder =
        UnixFileMode.UserRead | UnixFileMode.UserWrite | UnixFileMode.UserExecute;

    private static void Keep(string path, string text) =>
        WholeFile.Put(
            path,
            part =>
            {
                var own = new FileStreamOptions
                {
                    Mode = FileMode.Create,
                    Access = FileAccess.Write,
                    UnixCreateMode = UnixFileMode.UserRead | UnixFileMode.UserWrite,
                };
                using var writer = new StreamWriter(part, own);
                writer.Write(text);
            }
        );

    /// <summary>Host names and addresses a certificate answers to.</summary>
    public static IReadOnlyList<string> NamesOf(X509Certificate2 certificate) =>
        [
            .. certificate
                .Extensions.OfType<X509SubjectAlternativeNameExtension>()
                .SelectMany(names =>
                    names.EnumerateDnsNames().Concat(names.EnumerateIPAddresses().Select(ip => ip.ToString()))
                ),
        ];
}
