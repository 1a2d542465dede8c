using System.Globalization;
using System.Net;
using Palaestra.Data.Clinics;
using Palaestra.Server.Instruments;

namespace Palaestra.Server;

/// <summary>Where this server keeps and finds things, and whether it is the demo.</summary>
/// <param name="Demo">Demo accounts and invented clients; never true in real use.</param>
/// <param name="Instruments">Where the lines of instruments come from; none: there are no instruments.</param>
/// <param name="BackupFolder">Outside the data folder, best on another disk.</param>
/// <param name="BackupKey">File of the clinic's OpenPGP public key, for nightly backups; none: they are not sealed.</param>
/// <param name="OwnContentFolder">Rungs and poses of the clinic, laid over ours; need not be there. See docs/library.md.</param>
public sealed record Settings(
    bool Demo,
    string DataFolder,
    string ContentFolder,
    string ClientFolder,
    string OwnContentFolder,
    string BackupFolder,
    string? BackupKey = null,
    InstrumentAddress? Instruments = null
)
{
    /// <summary>Port https is served on where there is a certificate.</summary>
    public int HttpsPort { get; init; } = 5443;

    /// <summary>A certificate the clinic has from elsewhere, PEM with its chain; none: the one it made itself, if it did.</summary>
    public string? Certificate { get; init; }

    /// <summary>Its key, PEM; none: in the same file.</summary>
    public string? CertificateKey { get; init; }

    /// <summary>Whether what the first person of a morning asks for is made ready after the start (PALAESTRA_WARM_UP=no: not).</summary>
    public bool WarmUp { get; init; } = true;

    /// <summary>Host names the server answers to beside its own and its certificate's.</summary>
    public IReadOnlyList<string> Hosts { get; init; } = [];

    /// <summary>The one proxy whose word on address and scheme is taken; none: nobody's.</summary>
    public IPAddress? Proxy { get; init; }

    /// <summary>Of a clinic that begins, and of times that were stored before zones were; none: the machine's.</summary>
    public ClinicZone? TimeZone { get; init; }

    public string CertificateFolder => Path.Combine(DataFolder, Serving.ClinicCertificate.FolderName);

    public static Settings From(IConfiguration configuration)
    {
        var demo = string.Equals(configuration["PALAESTRA_MODE"], "demo", StringComparison.OrdinalIgnoreCase);
        var data =
            configuration["PALAESTRA_DATA"]
            ?? Path.Combine(Directory.GetCurrentDirectory(), ".data", demo ? "demo" : "clinic");
        var folder = Path.TrimEndingDirectorySeparator(Path.GetFullPath(data));
        return new Settings(
            demo,
            folder,
            configuration["PALAESTRA_CONTENT"] ?? Path.Combine(AppContext.BaseDirectory, "content"),
            configuration["PALAESTRA_CLIENT"] ?? Path.Combine(AppContext.BaseDirectory, "wwwroot"),
            configuration["PALAESTRA_OWN_CONTENT"] ?? Path.Combine(folder, "content"),
            Path.GetFullPath(configuration["PALAESTRA_BACKUPS"] ?? $"{folder}-backups"),
            configuration["PALAESTRA_BACKUP_KEY"],
            InstrumentAddress.From(configuration["PALAESTRA_INSTRUMENTS"])
        )
        {
            HttpsPort = int.TryParse(
                configuration["PALAESTRA_HTTPS_PORT"],
                NumberStyles.None,
                CultureInfo.InvariantCulture,
                out var port
            )
                ? port
                : 5443,
            WarmUp = configuration["PALAESTRA_WARM_UP"] != "no",
            Certificate = configuration["PALAESTRA_CERTIFICATE"],
            CertificateKey = configuration["PALAESTRA_CERTIFICATE_KEY"],
            Hosts =
            [
                .. (configuration["PALAESTRA_HOSTS"] ?? "").Split(
                    [',', ';', ' '],
                    StringSplitOptions.RemoveEmptyEntries
                ),
            ],
            TimeZone = configuration["PALAESTRA_TIME_ZONE"] is { Length: > 0 } zone
                ? ClinicZone.Find(zone)
                    ?? throw new InvalidOperationException(
                        $"PALAESTRA_TIME_ZONE is a name as Europe/Berlin, not {zone}."
                    )
                : null,
            Proxy = configuration["PALAESTRA_PROXY"] is { Length: > 0 } proxy
                ? IPAddress.TryParse(proxy, out var address)
                    ? address
                    : throw new InvalidOperationException(
                        $"PALAESTRA_PROXY is the proxy's IP address, not {proxy}."
                    )
                : null,
        };
    }
}
