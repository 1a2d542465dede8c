using System.Globalization;

namespace Palaestra.Server.Serving;

/// <summary><c>certificate NAME... [--days N]</c>. Exit codes: 0 made, 1 refused, 2 not understood.</summary>
public static class CertificateCommand
{
    public const string Usage =
        "certificate NAME [NAME ...] [--days 1..825]   names and addresses the tablets call the server by";

    /// <summary>A year and a month: time to renew it.</summary>
    private const int Days = 397;

    /// <returns>None where the words are no command of ours.</returns>
    public static int? Run(string[] args, Settings settings)
    {
        if (args is not ["certificate", .. var words])
        {
            return null;
        }
        var days = Days;
        var at = Array.IndexOf(words, "--days");
        if (at >= 0)
        {
            if (
                at + 1 >= words.Length
                || !int.TryParse(words[at + 1], NumberStyles.None, CultureInfo.InvariantCulture, out days)
                || days is < 1 or > ClinicCertificate.DaysMax
            )
            {
                return Wrong($"--days: a whole number from 1 to {ClinicCertificate.DaysMax}.");
            }
            words = [.. words[..at], .. words[(at + 2)..]];
        }
        if (words.Length == 0 || words.FirstOrDefault(IsNoName) is not null)
        {
            return Wrong(
                words.Length == 0
                    ? "Which name do the tablets call the server by?"
                    : $"{words.First(IsNoName)} is no host name."
            );
        }
        var own = new ClinicCertificate(settings.CertificateFolder);
        try
        {
            using var made = own.Make(words, days, DateTimeOffset.Now);
            Console.WriteLine(
                $"""
                {own.CertificateFile}: for {string.Join(", ", words)}, until {made.NotAfter:yyyy-MM-dd}.
                Install {own.AuthorityFile} on each tablet as a trusted authority (docs/clinic.md), and start the server again:
                it then answers at https://{words[0]}:{settings.HttpsPort}
                """
            );
            return 0;
        }
        catch (Exception problem) when (problem is IOException or UnauthorizedAccessException)
        {
            Console.Error.WriteLine(problem.Message);
            return 1;
        }
    }

    private static bool IsNoName(string word) => Uri.CheckHostName(word) == UriHostNameType.Unknown;

    private static int Wrong(string why)
    {
        Console.Error.WriteLine($"{why}\n{Usage}");
        return 2;
    }
}
