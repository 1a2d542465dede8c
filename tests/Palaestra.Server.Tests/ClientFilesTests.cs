using System.IO.Compression;
using System.Net;
using System.Net.Http.Headers;
using System.Text;
using System.Text.Json;
using System.Text.RegularExpressions;
using Palaestra.Core.Library;
using Palaestra.Server.Library;
using Palaestra.Server.Policies;
using Palaestra.Server.Serving;
using Palaestra.Server.Tests.Given;

namespace Palaestra.Server.Tests;

/// <summary>The client's files: packed, kept by browsers for as long as they are what their address says, and over an update.</summary>
public sealed partial class ClientFilesTests : IDisposable
{
    private const string Script = "console.log('a body, and a body that is longer than it')";

    private readonly string client = Directory.CreateTempSubdirectory("palaestra-client-").FullName;
    private readonly string data = Directory.CreateTempSubdirectory("palaestra-test-").FullName;

    public void Dispose()
    {
        Directory.Delete(client, recursive: true);
        Directory.Delete(data, recursive: true);
    }

    /// <summary>Puts a build in the place of the one there was, as the build does it.</summary>
    private void Build(string name)
    {
        var assets = Path.Combine(client, "assets");
        if (Directory.Exists(assets))
        {
            Directory.Delete(assets, recursive: true);
        }
        Directory.CreateDirectory(assets);
        var script = Path.Combine(assets, $"door-{name}.js");
        File.WriteAllText(script, Script);
        using (var packed = new BrotliStream(File.Create($"{script}.br"), CompressionLevel.SmallestSize))
        {
            packed.Write(Encoding.UTF8.GetBytes(Script));
        }
        File.WriteAllText(
            Path.Combine(client, "index.html"),
            $"<html><head></head><body><script vite-ignore src=\"/words.js\"></script><script src=\"/assets/door-{name}.js\"></script></body></html>"
        );
    }

    private RunningServer Serve() => new(folder: data, client: client);

    private static HttpRequestMessage Asking(string path, string? encoding = null)
    {
        var request = new HttpRequestMessage(HttpMethod.Get, path);
        if (encoding is not null)
        {
            request.Headers.Add("Accept-Encoding", encoding);
        }
        return request;
    }

    [Theory]
    [InlineData("br", true)]
    [InlineData("gzip, deflate, br;q=0.5", true)]
    [InlineData("gzip", false)]
    [InlineData("br;q=0", false)]
    [InlineData(null, false)]
    public async Task A_file_goes_packed_to_whoever_takes_that_and_is_kept_for_good(
        string? takes,
        bool packed
    )
    {
        Build("one");
        await using var server = Serve();
        using var browser = server.Browser();
        using var answer = await browser.SendAsync(Asking("/assets/door-one.js", takes));
        Assert.Equal(HttpStatusCode.OK, answer.StatusCode);
        Assert.Equal("text/javascript", answer.Content.Headers.ContentType?.MediaType);
        Assert.Equal(packed ? ["br"] : [], answer.Content.Headers.ContentEncoding);
        Assert.Equal(ClientPages.Forever, answer.Headers.GetValues("Cache-Control").Single());
        Assert.Contains("Accept-Encoding", answer.Headers.Vary);
        var bytes = await answer.Content.ReadAsStreamAsync();
        await using var read = packed ? new BrotliStream(bytes, CompressionMode.Decompress) : bytes;
        Assert.Equal(Script, await new StreamReader(read).ReadToEndAsync());
    }

    [Theory]
    [InlineData("/assets/door-none.js")]
    [InlineData("/assets/..%2findex.html")]
    [InlineData("/assets/..%2f..%2fpalaestra.db")]
    [InlineData("/favicon.ico")]
    public async Task A_file_that_there_is_not_is_not_found_and_is_no_page(string path)
    {
        Build("one");
        await using var server = Serve();
        using var answer = await server.Browser().SendAsync(Asking(path, "br"));
        Assert.Equal(HttpStatusCode.NotFound, answer.StatusCode);
        Assert.Equal("application/problem+json", answer.Content.Headers.ContentType?.MediaType);
    }

    /// <summary>The page is asked for each time, and answered with nothing where it is the same.</summary>
    [Fact]
    public async Task What_keeps_the_page_in_the_browser_names_the_page_and_is_another_with_another_page()
    {
        Build("one");
        using var server = Serve();
        var browser = server.Browser();
        Assert.Equal(HttpStatusCode.NotFound, (await browser.GetAsync("/sw.js")).StatusCode);
        // Packed beside it as the build leaves it: the page is not known there.
        File.WriteAllText(Path.Combine(client, "sw.js"), "const page = '__PALAESTRA_PAGE__';");
        File.WriteAllText(Path.Combine(client, "sw.js.br"), "not this one");
        async Task<string> Worker()
        {
            var answer = await browser.SendAsync(Asking("/sw.js", "br"));
            Assert.Equal("text/javascript", answer.Content.Headers.ContentType?.MediaType);
            Assert.True(answer.Headers.CacheControl!.NoCache);
            return await answer.Content.ReadAsStringAsync();
        }
        var page = await browser.GetStringAsync("/");
        var build = Regex.Match(page, "palaestra-client\" content=\"([0-9a-f]+)\"").Groups[1].Value;
        var first = await Worker();
        Assert.Equal($"const page = '{build}';", first);
        Build("two");
        File.SetLastWriteTimeUtc(Path.Combine(client, "index.html"), DateTime.UtcNow.AddMinutes(1));
        Assert.NotEqual(first, await Worker());
    }

    [Fact]
    public async Task A_page_knows_its_build_and_every_answer_tells_which_one_is_served()
    {
        Build("one");
        await using var server = Serve();
        using var browser = server.Browser();
        var (page, tag) = await Page(browser);
        Assert.Equal(page, await Told(browser, ClientBuild.Header));

        Assert.Equal(page, BuildTag().Match(await browser.GetStringAsync("/index.html")).Groups[1].Value);
        using var again = Asking("/library");
        again.Headers.IfNoneMatch.Add(tag);
        Assert.Equal(HttpStatusCode.NotModified, (await browser.SendAsync(again)).StatusCode);

        Build("two");
        File.SetLastWriteTimeUtc(Path.Combine(client, "index.html"), DateTime.UtcNow.AddSeconds(5));
        Assert.NotEqual(page, await Told(browser, ClientBuild.Header));
        Assert.Equal((await Page(browser)).Build, await Told(browser, ClientBuild.Header));
    }

    [Fact]
    public async Task Words_are_asked_for_only_where_a_clinic_has_its_own_and_by_what_they_say()
    {
        Build("one");
        await using (var plain = Serve())
        {
            Assert.DoesNotContain("words.js", await plain.Browser().GetStringAsync("/"));
        }
        var own = Path.Combine(data, "content", "words", "en", "screens");
        Directory.CreateDirectory(own);
        await File.WriteAllTextAsync(
            Path.Combine(own, "day.json"),
            JsonSerializer.Serialize(new Dictionary<string, string> { ["day.now"] = "jetzt" })
        );
        await using var server = Serve();
        using var browser = server.Browser();
        var address = WordsAddress().Match(await browser.GetStringAsync("/")).Groups[1].Value;
        using var words = await browser.GetAsync(address);
        Assert.Contains("jetzt", await words.Content.ReadAsStringAsync());
        Assert.Contains("immutable", $"{words.Headers.CacheControl}");
        using var other = await browser.GetAsync("/words.js?version=0123");
        Assert.True(other.Headers.CacheControl!.NoCache);
    }

    /// <summary>A tablet left on over two updates has had its time; over one it finds what it needs.</summary>
    [Fact]
    public async Task The_build_before_is_still_there_after_an_update_and_the_one_before_that_is_not()
    {
        foreach (var build in (string[])["one", "two", "three"])
        {
            Build(build);
            await using var server = Serve();
            using var browser = server.Browser();
            await Kept(build);
            Assert.Equal(HttpStatusCode.OK, await Status(browser, build));
            Assert.Equal(
                build == "three" ? HttpStatusCode.NotFound : HttpStatusCode.OK,
                await Status(browser, "one")
            );
            Assert.Equal(
                build == "one" ? HttpStatusCode.NotFound : HttpStatusCode.OK,
                await Status(browser, "two")
            );
        }
    }

    /// <summary>A copy that was broken off is no build: it is begun again.</summary>
    [Fact]
    public async Task Half_a_copy_serves_nothing_and_is_cleared_away()
    {
        Build("one");
        var half = Path.Combine(data, KeptFiles.FolderName, "0123.part", "assets");
        Directory.CreateDirectory(half);
        await File.WriteAllTextAsync(Path.Combine(half, "door-half.js"), "half");
        await using var server = Serve();
        await Kept("one");
        Assert.False(Directory.Exists(half));

        Directory.CreateDirectory(half);
        await File.WriteAllTextAsync(Path.Combine(half, "door-half.js"), "half");
        Assert.Equal(HttpStatusCode.NotFound, await Status(server.Browser(), "half"));
    }

    [Fact]
    public async Task The_library_by_its_version_is_kept_for_good_and_another_policy_is_another_version()
    {
        await using var server = Serve();
        using var browser = await server.SignedIn();
        var version = await Told(browser, WrittenLibrary.Header);
        Assert.Contains("immutable", await Caching(browser, $"/api/library?version={version}"));
        Assert.Contains("immutable", await Caching(browser, $"/api/figures?side=left&version={version}"));
        Assert.Equal("no-store", await Caching(browser, "/api/library?version=0123"));
        Assert.Equal("no-store", await Caching(browser, "/api/library"));

        var before = await browser.Get<LibraryView>($"/api/library?version={version}");
        await browser.Post(
            "/api/policies",
            new CopyPolicyForm(before.Policies[0].Id, "Quay way", "Shorter rests.")
        );
        var now = await Told(browser, WrittenLibrary.Header);
        Assert.NotEqual(version, now);
        Assert.Equal("no-store", await Caching(browser, $"/api/library?version={version}"));
        var after = await browser.Get<LibraryView>($"/api/library?version={now}");
        Assert.Equal(before.Policies.Count + 1, after.Policies.Count);
    }

    [Theory]
    [InlineData("/api/library")]
    [InlineData("/api/figures?side=right")]
    [InlineData("/api/policies")]
    public async Task Answers_say_the_same_packed_as_plain(string path)
    {
        await using var server = Serve();
        using var browser = await server.SignedIn();
        using var packed = await browser.SendAsync(Asking(path, "br"));
        Assert.Equal(["br"], packed.Content.Headers.ContentEncoding);
        await using var read = new BrotliStream(
            await packed.Content.ReadAsStreamAsync(),
            CompressionMode.Decompress
        );
        Assert.Equal(await browser.GetStringAsync(path), await new StreamReader(read).ReadToEndAsync());
    }

    private static async Task<(string Build, EntityTagHeaderValue Tag)> Page(HttpClient browser)
    {
        using var answer = await browser.GetAsync("/library");
        Assert.True(answer.Headers.CacheControl!.NoCache);
        var html = await answer.Content.ReadAsStringAsync();
        return (BuildTag().Match(html).Groups[1].Value, answer.Headers.ETag!);
    }

    private static async Task<string> Told(HttpClient browser, string header)
    {
        using var answer = await browser.GetAsync("/api/start");
        return answer.Headers.GetValues(header).Single();
    }

    private static async Task<string> Caching(HttpClient browser, string path)
    {
        using var answer = await browser.GetAsync(path);
        answer.EnsureSuccessStatusCode();
        return answer.Headers.GetValues("Cache-Control").Single();
    }

    private static async Task<HttpStatusCode> Status(HttpClient browser, string build)
    {
        using var answer = await browser.GetAsync($"/assets/door-{build}.js");
        return answer.StatusCode;
    }

    /// <summary>Waits for the server, which keeps its build beside what else it does.</summary>
    private async Task Kept(string build)
    {
        for (var i = 0; i < 200; i++)
        {
            var folder = Path.Combine(data, KeptFiles.FolderName);
            if (
                Directory.Exists(folder)
                && Directory.EnumerateFiles(folder, $"door-{build}.js", SearchOption.AllDirectories).Any()
                && Directory.GetDirectories(folder).Length <= 2
            )
            {
                return;
            }
            await Task.Delay(50);
        }
        Assert.Fail($"The build {build} was not kept.");
    }

    [GeneratedRegex("""name="palaestra-client" content="([0-9a-f]+)"[ /]""")]
    private static partial Regex BuildTag();

    [GeneratedRegex("""src="(/words\.js\?[^"]+)"[^<]*""")]
    private static partial Regex WordsAddress();
}
