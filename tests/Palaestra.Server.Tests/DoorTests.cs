using System.Diagnostics;
using System.Net;
using System.Net.Http.Json;
using System.Net.Security;
using System.Net.Sockets;
using System.Security.Cryptography.X509Certificates;
using Palaestra.Server.Serving;

namespace Palaestra.Server.Tests;

/// <summary>How the server is reached: a real process, real TLS under another host name, a proxy, wrong names.</summary>
public sealed class DoorTests : IDisposable
{
    private const string Name = "clinic.example";

    private readonly string folder = Directory.CreateTempSubdirectory("palaestra-door-").FullName;
    private readonly int http = FreePort();
    private readonly int https = FreePort();
    private Process? server;

    private ClinicCertificate Own => new(Path.Combine(folder, ClinicCertificate.FolderName));

    public void Dispose()
    {
        if (server is { HasExited: false })
        {
            server.Kill();
            server.WaitForExit();
        }
        server?.Dispose();
        Directory.Delete(folder, recursive: true);
    }

    private static int FreePort()
    {
        using var listener = new TcpListener(IPAddress.Loopback, 0);
        listener.Start();
        return ((IPEndPoint)listener.LocalEndpoint).Port;
    }

    private ProcessStartInfo Command(params string[] words)
    {
        var start = new ProcessStartInfo("dotnet")
        {
            RedirectStandardOutput = true,
            RedirectStandardError = true,
            UseShellExecute = false,
        };
        start.ArgumentList.Add(typeof(Settings).Assembly.Location);
        foreach (var word in words)
        {
            start.ArgumentList.Add(word);
        }
        start.Environment["PALAESTRA_DATA"] = folder;
        start.Environment["PALAESTRA_BACKUPS"] = folder + "-none";
        start.Environment["PALAESTRA_HTTPS_PORT"] = https.ToString();
        start.Environment["ASPNETCORE_URLS"] = $"http://127.0.0.1:{http}";
        return start;
    }

    private async Task<(int Code, string Out, string Error)> Run(params string[] words)
    {
        using var process = Process.Start(Command(words))!;
        var (output, error) = (
            process.StandardOutput.ReadToEndAsync(),
            process.StandardError.ReadToEndAsync()
        );
        await process.WaitForExitAsync();
        return (process.ExitCode, await output, await error);
    }

    private async Task Serve(string? proxy = null)
    {
        var start = Command();
        if (proxy is not null)
        {
            start.Environment["PALAESTRA_PROXY"] = proxy;
        }
        server = Process.Start(start)!;
        server.OutputDataReceived += (_, _) => { };
        server.BeginOutputReadLine();
        server.ErrorDataReceived += (_, _) => { };
        server.BeginErrorReadLine();
        using var client = new HttpClient();
        for (var i = 0; i < 600; i++)
        {
            try
            {
                using var health = await client.GetAsync($"http://127.0.0.1:{http}/health");
                // The one port opens after the other.
                if (File.Exists(Own.AuthorityFile))
                {
                    using var door = new TcpClient();
                    await door.ConnectAsync(IPAddress.Loopback, https);
                }
                return;
            }
            catch (Exception notYet) when (notYet is HttpRequestException or SocketException)
            {
                Assert.False(server.HasExited, "The server ended before it was ready.");
                await Task.Delay(100);
            }
        }
        Assert.Fail("The server did not start.");
    }

    /// <summary>A tablet that knows the clinic's authority, and nothing else.</summary>
    private HttpClient Tablet(X509Certificate2? authority) =>
        new(
            new SocketsHttpHandler
            {
                ConnectCallback = async (_, stop) =>
                {
                    var socket = new Socket(SocketType.Stream, ProtocolType.Tcp);
                    await socket.ConnectAsync(IPAddress.Loopback, https, stop);
                    return new NetworkStream(socket, ownsSocket: true);
                },
                SslOptions = new SslClientAuthenticationOptions
                {
                    CertificateChainPolicy = authority is null
                        ? null
                        : new X509ChainPolicy
                        {
                            TrustMode = X509ChainTrustMode.CustomRootTrust,
                            CustomTrustStore = { authority },
                            RevocationMode = X509RevocationMode.NoCheck,
                        },
                },
                CookieContainer = new CookieContainer(),
            }
        );

    [Fact]
    public async Task A_tablet_that_knows_the_authority_signs_in_over_https_under_the_clinics_name()
    {
        var made = await Run("certificate", Name, "10.0.0.7");
        Assert.True(made.Code == 0, made.Error);
        Assert.Contains(Own.AuthorityFile, made.Out);
        await Serve();
        using var authority = X509CertificateLoader.LoadCertificateFromFile(Own.AuthorityFile);
        using var tablet = Tablet(authority);
        var code = (
            await File.ReadAllTextAsync(Path.Combine(folder, People.FirstAdministrator.FileName))
        ).Trim();
        using var signedIn = await tablet.PostAsJsonAsync(
            $"https://{Name}:{https}/api/first-administrator",
            new
            {
                code,
                name = "Edda Marl",
                email = "edda@clinic.example",
                password = "a long enough one",
            }
        );
        Assert.True(signedIn.IsSuccessStatusCode, await signedIn.Content.ReadAsStringAsync());
        var cookie = Assert.Single(signedIn.Headers.GetValues("Set-Cookie"));
        Assert.Contains("secure", cookie);
        Assert.Contains("httponly", cookie);
        Assert.Contains("samesite=strict", cookie);
        Assert.True(signedIn.Headers.CacheControl?.NoStore);
        using var day = await tablet.GetAsync($"https://{Name}:{https}/api/day");
        Assert.True(day.IsSuccessStatusCode);
        Assert.Equal("no-store", day.Headers.CacheControl?.ToString());
        Assert.Contains("max-age=", Assert.Single(signedIn.Headers.GetValues("Strict-Transport-Security")));

        // Somebody who does not know the authority, and somebody who is told another name, get nothing.
        using var stranger = Tablet(null);
        await Assert.ThrowsAsync<HttpRequestException>(() =>
            stranger.GetAsync($"https://{Name}:{https}/health")
        );
        await Assert.ThrowsAsync<HttpRequestException>(() =>
            tablet.GetAsync($"https://other.example:{https}/health")
        );
    }

    [Fact]
    public async Task A_name_that_is_not_the_servers_is_refused_and_a_strangers_word_of_https_is_not_taken()
    {
        await Serve();
        using var client = new HttpClient();
        async Task<HttpResponseMessage> Ask(string host, string? proto = null)
        {
            var ask = new HttpRequestMessage(HttpMethod.Get, $"http://127.0.0.1:{http}/health");
            ask.Headers.Host = host;
            if (proto is not null)
            {
                ask.Headers.Add("X-Forwarded-Proto", proto);
            }
            return await client.SendAsync(ask);
        }
        Assert.Equal(HttpStatusCode.OK, (await Ask($"127.0.0.1:{http}")).StatusCode);
        Assert.Equal(HttpStatusCode.BadRequest, (await Ask("evil.example")).StatusCode);
        Assert.False((await Ask("localhost", "https")).Headers.Contains("Strict-Transport-Security"));
    }

    [Fact]
    public async Task The_named_proxys_word_of_https_makes_the_cookie_secure()
    {
        await Serve(proxy: "127.0.0.1");
        using var client = new HttpClient(new HttpClientHandler { UseCookies = false });
        var code = (
            await File.ReadAllTextAsync(Path.Combine(folder, People.FirstAdministrator.FileName))
        ).Trim();
        var ask = new HttpRequestMessage(HttpMethod.Post, $"http://127.0.0.1:{http}/api/first-administrator")
        {
            Content = JsonContent.Create(
                new
                {
                    code,
                    name = "Edda Marl",
                    email = "edda@clinic.example",
                    password = "a long enough one",
                }
            ),
        };
        ask.Headers.Add("X-Forwarded-Proto", "https");
        using var answer = await client.SendAsync(ask);
        Assert.Contains("secure", Assert.Single(answer.Headers.GetValues("Set-Cookie")));
    }

    [Theory]
    [InlineData("Which name", "certificate")]
    [InlineData("no host name", "certificate", "not a name")]
    [InlineData("--days", "certificate", Name, "--days", "9000")]
    public async Task A_certificate_for_nothing_is_refused_with_words(string words, params string[] command)
    {
        var (code, _, error) = await Run(command);
        Assert.Equal(2, code);
        Assert.Contains(words, error);
        Assert.False(Own.Made);
    }

    [Fact]
    public void A_certificate_is_renewed_under_the_same_authority_and_read_by_its_account_alone()
    {
        var now = DateTimeOffset.Now;
        using var first = Own.Make([Name], 30, now);
        var authority = File.ReadAllText(Own.AuthorityFile);
        using var second = Own.Make([Name, "10.0.0.7"], ClinicCertificate.DaysMax, now);
        Assert.Equal(authority, File.ReadAllText(Own.AuthorityFile));
        Assert.NotEqual(first.Thumbprint, second.Thumbprint);
        Assert.Equal([Name, "10.0.0.7"], ClinicCertificate.NamesOf(second));
        Assert.Equal(UnixFileMode.UserRead | UnixFileMode.UserWrite, File.GetUnixFileMode(Own.KeyFile));
    }

    /// <summary>The command of a release, with a server that only tells what it was given.</summary>
    [Fact]
    public async Task A_releases_command_reads_its_settings_and_what_stands_in_the_environment_goes_before()
    {
        var release = Path.Combine(folder, "release");
        Directory.CreateDirectory(Path.Combine(release, "server"));
        File.Copy(
            Path.Combine(AppContext.BaseDirectory, "release", "palaestra"),
            Path.Combine(release, "palaestra")
        );
        var server = Path.Combine(release, "server", "Palaestra.Server");
        await File.WriteAllTextAsync(
            server,
            "#!/bin/sh\necho \"$1 $PALAESTRA_DATA $PALAESTRA_BACKUPS $ASPNETCORE_URLS $SHOE\"\n"
        );
        File.SetUnixFileMode(server, UnixFileMode.UserRead | UnixFileMode.UserExecute);
        var settings = Path.Combine(folder, "palaestra.conf");
        await File.WriteAllTextAsync(
            settings,
            "# ours\nPALAESTRA_DATA=/srv/one two\nPALAESTRA_BACKUPS=/srv/three\nPALAESTRA_PORT=5099\nSHOE=44\n"
        );
        var start = new ProcessStartInfo("bash", [Path.Combine(release, "palaestra"), "doctor"])
        {
            RedirectStandardOutput = true,
            Environment = { ["PALAESTRA_CONF"] = settings, ["PALAESTRA_BACKUPS"] = "/mnt/else" },
        };
        start.Environment.Remove("ASPNETCORE_URLS");
        using var command = Process.Start(start)!;
        Assert.Equal(
            "doctor /srv/one two /mnt/else http://127.0.0.1:5099",
            (await command.StandardOutput.ReadToEndAsync()).Trim()
        );
    }

    [Fact]
    public async Task The_doctor_says_what_is_missing_and_goes_red_for_what_is_bad()
    {
        var (code, before, _) = await Run("doctor");
        Assert.Equal(0, code);
        Assert.Contains("look  https: There is no certificate", before);
        Assert.Contains("look  Last backup: There is none yet", before);
        using (Own.Make([Name], 5, DateTimeOffset.Now.AddDays(-10))) { }
        File.SetUnixFileMode(folder, (UnixFileMode)0b111_101_101);
        var (bad, after, _) = await Run("doctor");
        Assert.Equal(1, bad);
        Assert.Contains("BAD   https: The certificate ended", after);
        Assert.Contains("BAD   Data folder:", after);
    }

    [Theory]
    [InlineData("http://0.0.0.0:5080", true)]
    [InlineData("http://192.168.1.5:5080", true)]
    [InlineData("http://127.0.0.1:5080", false)]
    [InlineData("http://localhost:5080", false)]
    [InlineData("https://0.0.0.0:5443", false)]
    public void Plain_http_that_others_reach_is_said(string address, bool open) =>
        Assert.Equal(open, Door.Open([address]).Count == 1);
}
