using System.Security.Cryptography;
using System.Security.Cryptography.X509Certificates;

namespace Palaestra.Server.Serving;

/// <summary>The certificate the server shows, and who signed it.</summary>
/// <param name="Chain">Certificates shown beside it, so that a client that knows the authority can follow.</param>
public sealed record TlsFiles(X509Certificate2 Certificate, X509Certificate2Collection Chain)
{
    public IReadOnlyList<string> Names => ClinicCertificate.NamesOf(Certificate);

    /// <summary>Of the settings, else the clinic's own where one was made; none: https is not served.</summary>
    /// <exception cref="InvalidOperationException">A file is named that is not there or does not fit.</exception>
    public static TlsFiles? Of(Settings settings)
    {
        if (settings.Certificate is { } named)
        {
            return Read(named, settings.CertificateKey ?? named);
        }
        var own = new ClinicCertificate(settings.CertificateFolder);
        return own.Made ? Read(own.CertificateFile, own.KeyFile) : null;
    }

    private static TlsFiles Read(string certificate, string key)
    {
        try
        {
            var all = new X509Certificate2Collection();
            all.ImportFromPemFile(certificate);
            return new(X509Certificate2.CreateFromPemFile(certificate, key), all);
        }
        catch (Exception problem)
            when (problem is IOException or UnauthorizedAccessException or CryptographicException)
        {
            throw new InvalidOperationException(
                $"The certificate {certificate} with the key {key} cannot be used: {problem.Message}",
                problem
            );
        }
    }
}
