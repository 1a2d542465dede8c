using System.IO.Compression;
using System.Net;
using System.Net.Http.Headers;
using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Palaestra.Core.Visits;
using Palaestra.Data;
using Palaestra.Data.Records;
using Palaestra.Exchange.Records;
using Palaestra.Server.Clients;
using Palaestra.Server.Intake;
using Palaestra.Server.Records;
using Palaestra.Server.Tests.Given;
using Palaestra.Server.Visits;

namespace Palaestra.Server.Tests;

/// <summary>A client's whole record goes out as one file and comes in again, here or elsewhere: all of it, once, or nothing.</summary>
public sealed class RecordTests : IDisposable
{
    private readonly string place = Directory.CreateTempSubdirectory("palaestra-record-").FullName;
    private readonly List<RunningServer> servers = [];

    public void Dispose()
    {
        servers.ForEach(server => server.Dispose());
        SqliteConnection.ClearAllPools();
        Directory.Delete(place, recursive: true);
    }

    private async Task<HttpClient> Clinic(string name)
    {
        var server = new RunningServer(folder: Path.Combine(place, name, "clinic"));
        servers.Add(server);
        return await server.SignedIn();
    }

    private static async Task InStore(RunningServer server, Func<PalaestraDb, Task> look)
    {
        await using var db = Store.Open(server.Folder);
        await look(db);
    }

    private static async Task<HttpResponseMessage> Give(HttpClient browser, byte[] file)
    {
        using var content = new ByteArrayContent(file);
        content.Headers.ContentType = new MediaTypeHeaderValue("application/zip");
        return await browser.PostAsync(new Uri("/api/records", UriKind.Relative), content);
    }

    private static Task<byte[]> Take(HttpClient browser, Guid client) =>
        browser.GetByteArrayAsync(new Uri($"/api/clients/{client}/record.zip", UriKind.Relative));

    private static async Task<(Opened Opened, Guid Client)> Lived(
        HttpClient browser,
        string name = "Wenna Sorrel"
    )
    {
        var clinic = new Given.Clinic(browser);
        var opened = await clinic.NewClient(Given.Clinic.Form() with { Name = name });
        await clinic.Screen(opened.VisitId, 3, 3);
        await clinic.AcceptProposal(opened);
        await clinic.Book(opened.EpisodeId);
        var view = await browser.Get<EpisodeView>($"/api/episodes/{opened.EpisodeId}");
        return (opened, view.ClientId);
    }

    private static JsonObject RecordOf(byte[] file)
    {
        using var zip = new ZipArchive(new MemoryStream(file));
        using var json = zip.GetEntry(ClientRecord.FileName)!.Open();
        return JsonNode.Parse(json)!.AsObject();
    }

    /// <summary>Without ids, and without what says where and when the file was made.</summary>
    private static string Told(byte[] file)
    {
        var record = RecordOf(file);
        foreach (var changing in new[] { "madeAt", "from", "audit", "version" })
        {
            record.Remove(changing);
        }
        foreach (var client in record["merged"]!.AsArray().Append(record["client"]))
        {
            client!.AsObject().Remove("inChargeId");
            client.AsObject().Remove("number");
        }
        foreach (var visit in record["visits"]!.AsArray())
        {
            visit!.AsObject().Remove("withId");
        }
        foreach (var episode in record["episodes"]!.AsArray())
        {
            episode!.AsObject().Remove("practiceConsent");
        }
        foreach (var part in record.Where(part => part.Value is JsonArray).ToList())
        {
            record[part.Key] = new JsonArray([
                .. part.Value!.AsArray()
                    .Select(row => Plain(row!))
                    .Order(StringComparer.Ordinal)
                    .Select(row => (JsonNode)row),
            ]);
        }
        return Plain(record);
    }

    private static string Plain(JsonNode node) =>
        System.Text.RegularExpressions.Regex.Replace(
            System.Text.RegularExpressions.Regex.Replace(node.ToJsonString(), @" \(imported[^)]*\)", ""),
            "[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}",
            "id"
        );

    private static async Task<HttpResponseMessage> GiveAll(HttpClient browser, byte[] file)
    {
        using var content = new ByteArrayContent(file);
        content.Headers.ContentType = new MediaTypeHeaderValue("application/zip");
        return await browser.PostAsync(new Uri("/api/clinic/records", UriKind.Relative), content);
    }

    private static Task<byte[]> TakeAll(HttpClient browser) =>
        browser.GetByteArrayAsync(new Uri("/api/clinic/clinic.zip", UriKind.Relative));

    [Fact]
    public async Task All_records_of_a_clinic_are_the_same_in_another_one_and_there_once()
    {
        var here = await Clinic("here");
        var (_, wenna) = await Lived(here);
        var (_, odo) = await Lived(here, "Odo Fenwick");
        var all = await TakeAll(here);
        var there = await Clinic("there");
        var taken = await GiveAll(there, all).Ok<ClinicRecordsTaken>();
        Assert.Empty(taken.Refused);
        Assert.Equal(["Wenna Sorrel", "Odo Fenwick"], taken.Taken.Select(one => one.Name));
        foreach (var (client, came) in new[] { wenna, odo }.Zip(taken.Taken))
        {
            Assert.True(came.Fresh);
            Assert.Equal(Told(await Take(here, client)), Told(await Take(there, came.ClientId)));
        }
        var again = await GiveAll(there, all).Ok<ClinicRecordsTaken>();
        Assert.All(
            again.Taken,
            one => Assert.Equal((false, 0), (one.Fresh, one.Parts.Sum(part => part.Came)))
        );
        Assert.Equal(taken.Taken.Select(one => one.ClientId), again.Taken.Select(one => one.ClientId));
    }

    /// <summary>The list of the clinic's file is right, but one record in it was made by somebody else.</summary>
    [Fact]
    public async Task A_record_among_all_that_is_none_is_told_and_the_others_come()
    {
        var here = await Clinic("here");
        await Lived(here);
        using var made = new MemoryStream();
        using (var zip = new RecordZipWriter(made, DateTimeOffset.UtcNow, RecordManifest.ClinicKind))
        {
            zip.AddPacked("records/0 nonsense.zip", new MemoryStream("not a record"u8.ToArray()));
            using var whole = new ZipArchive(new MemoryStream(await TakeAll(here)));
            var entry = whole.Entries.Single(e =>
                e.FullName.StartsWith("records/", StringComparison.Ordinal)
            );
            using var copy = new MemoryStream();
            await using (var open = await entry.OpenAsync())
            {
                await open.CopyToAsync(copy);
            }
            zip.AddPacked(entry.FullName, copy);
        }
        var taken = await GiveAll(await Clinic("there"), made.ToArray()).Ok<ClinicRecordsTaken>();
        Assert.Equal("Wenna Sorrel", Assert.Single(taken.Taken).Name);
        Assert.Equal("0 nonsense.zip", Assert.Single(taken.Refused).File);
    }

    [Fact]
    public async Task One_record_is_not_all_of_a_clinic_nor_the_other_way_round()
    {
        var here = await Clinic("here");
        var (_, client) = await Lived(here);
        Assert.Equal(
            ["file"],
            await GiveAll(here, await Take(here, client)).RefusedFields(HttpStatusCode.UnprocessableEntity)
        );
        Assert.Equal(
            ["file"],
            await Give(here, await TakeAll(here)).RefusedFields(HttpStatusCode.UnprocessableEntity)
        );
    }

    [Fact]
    public async Task A_record_is_the_same_in_another_clinic_and_there_once()
    {
        var here = await Clinic("here");
        var (opened, client) = await Lived(here);
        var file = await Take(here, client);
        var there = await Clinic("there");
        var taken = await Give(there, file).Ok<RecordTaken>();
        Assert.True(taken.Fresh);
        Assert.NotEqual(client, taken.ClientId);
        Assert.Equal("Wenna Sorrel", taken.Name);
        Assert.Equal(Told(file), Told(await Take(there, taken.ClientId)));
        // What is worked out of it is the same.
        var episode = RecordOf(await Take(there, taken.ClientId))["episodes"]![0]!["id"]!.GetValue<Guid>();
        var view = await there.Get<EpisodeView>($"/api/episodes/{episode}");
        var visit = view.Visits[0].Id;
        Assert.Equal(
            Plain(
                JsonNode.Parse(
                    await here.GetStringAsync(
                        new Uri($"/api/visits/{opened.VisitId}/findings", UriKind.Relative)
                    )
                )!
            ),
            Plain(
                JsonNode.Parse(
                    await there.GetStringAsync(new Uri($"/api/visits/{visit}/findings", UriKind.Relative))
                )!
            )
        );
        // Again: nothing comes.
        var again = await Give(there, file).Ok<RecordTaken>();
        Assert.False(again.Fresh);
        Assert.Equal(taken.ClientId, again.ClientId);
        Assert.All(again.Parts, part => Assert.Equal(0, part.Came));
        // At home it is known by its own ids.
        var home = await Give(here, file).Ok<RecordTaken>();
        Assert.Equal((client, false), (home.ClientId, home.Fresh));
        Assert.All(home.Parts, part => Assert.Equal(0, part.Came));
    }

    /// <summary>Traces and pictures with them, and what PDFs lie in the file for whoever opens it without this program.</summary>
    [Fact]
    public async Task Every_client_of_the_demo_is_the_same_in_another_clinic()
    {
        var server = new RunningServer("demo", Path.Combine(place, "demo", "clinic"));
        servers.Add(server);
        var demo = await server.InDemo();
        var there = await Clinic("there");
        var clients = new List<Guid>();
        await InStore(
            server,
            async db =>
                clients.AddRange(
                    await db.Clients.Where(c => c.MergedIntoId == null).Select(c => c.Id).ToListAsync()
                )
        );
        Assert.True(clients.Count > 5);
        var (traces, documents) = (0, 0);
        foreach (var client in clients)
        {
            var file = await Take(demo, client);
            var taken = await Give(there, file).Ok<RecordTaken>();
            Assert.Equal(0, taken.Missing);
            var back = await Take(there, taken.ClientId);
            Assert.Equal(Told(file), Told(back));
            Assert.Equal(Files(file, "traces/"), Files(back, "traces/"));
            Assert.Equal(Files(file, "photos/"), Files(back, "photos/"));
            traces += Files(file, "traces/").Count;
            documents += Files(file, "documents/").Count;
        }
        Assert.True(traces > 0 && documents > 5, $"{traces} traces, {documents} documents");
    }

    /// <summary>A client of the demo as 0.27 wrote it: what later versions make of it must be all of it.</summary>
    [Fact]
    public async Task A_file_of_the_first_format_is_read()
    {
        var file = await File.ReadAllBytesAsync(
            Path.Combine(AppContext.BaseDirectory, "examples", "record-1.zip")
        );
        Assert.Equal(1, RecordOf(file)["format"]!.GetValue<int>());
        var browser = await Clinic("there");
        var taken = await Give(browser, file).Ok<RecordTaken>();
        Assert.Equal(("Fenwick Oduya", true, 0), (taken.Name, taken.Fresh, taken.Missing));
        Assert.Equal(Told(file), Told(await Take(browser, taken.ClientId)));
        var record = RecordOf(await Take(browser, taken.ClientId));
        foreach (var visit in record["visits"]!.AsArray())
        {
            var id = visit!["id"]!.GetValue<Guid>();
            Assert.Equal(HttpStatusCode.OK, (await browser.GetAsync($"/api/visits/{id}/session")).StatusCode);
        }
        Assert.NotEmpty(record["plans"]!.AsArray());
        Assert.NotEmpty(record["decisions"]!.AsArray());
    }

    private static readonly int Histories = Environment.GetEnvironmentVariable("PALAESTRA_SOAK") is null
        ? 4
        : 200;

    private static readonly string[] Names =
    [
        "Ζωή Παπά",
        "محمد العلي",
        "O'Neil \"Quill\"",
        "=SUM(A1)",
        "山田 太郎",
        "Ana\\Maria",
    ];

    /// <summary>Random histories: screens of any height, with and without plan, later visits, days at home, a red flag.</summary>
    [Fact]
    public async Task Any_record_is_the_same_in_another_clinic()
    {
        var here = await Clinic("here");
        var there = await Clinic("there");
        var clinic = new Given.Clinic(here);
        var random = new Random(20_261_201);
        for (var i = 0; i < Histories; i++)
        {
            var form = Given.Clinic.Form() with { Name = Names[random.Next(Names.Length)] };
            var opened = await clinic.NewClient(
                form with
                {
                    Complaint = Names[random.Next(Names.Length)],
                    Pain = new(random.Next(4), 4 + random.Next(4), 3),
                }
            );
            if (random.Next(5) > 0)
            {
                await clinic.Screen(opened.VisitId, random.Next(6), random.Next(6));
                if (random.Next(5) > 0)
                {
                    await clinic.AcceptProposal(opened);
                }
            }
            if (random.Next(2) == 0)
            {
                var today = DateOnly.FromDateTime(DateTime.Now);
                var day = new HomeDay(
                    today,
                    [],
                    random.Next(11),
                    random.Next(11),
                    Names[random.Next(Names.Length)]
                );
                await here.Put($"/api/episodes/{opened.EpisodeId}/home-log", new HomeDayForm(day, 0));
            }
            var visit = await clinic.Book(opened.EpisodeId, 1 + random.Next(20));
            if (random.Next(4) == 0)
            {
                var sign = (await here.Get<Library.LibraryView>("/api/library")).DangerSigns[0].Id;
                await here.Post(
                    $"/api/episodes/{opened.EpisodeId}/danger-reports",
                    new DangerSignsForm([sign])
                );
            }
            else if (random.Next(3) == 0)
            {
                await here.Post(
                    $"/api/visits/{visit.Id}/called-off",
                    new CallOffForm(Data.Visits.CalledOff.Cancelled, visit.Version, "away")
                );
            }
            var client = (await here.Get<EpisodeView>($"/api/episodes/{opened.EpisodeId}")).ClientId;
            var file = await Take(here, client);
            var taken = await Give(there, file).Ok<RecordTaken>();
            Assert.Equal(Told(file), Told(await Take(there, taken.ClientId)));
        }
    }

    /// <summary>What each file of a folder of the archive holds.</summary>
    private static List<string> Files(byte[] file, string folder)
    {
        using var zip = new ZipArchive(new MemoryStream(file));
        return
        [
            .. zip
                .Entries.Where(e => e.FullName.StartsWith(folder, StringComparison.Ordinal))
                .Select(e =>
                {
                    using var bytes = e.Open();
                    return Convert.ToHexString(SHA256.HashData(bytes));
                })
                .Order(StringComparer.Ordinal),
        ];
    }

    [Fact]
    public async Task Authors_are_said_to_be_imported_and_are_nobody_here()
    {
        var here = await Clinic("here");
        var (_, client) = await Lived(here);
        var there = await Clinic("there");
        var taken = await Give(there, await Take(here, client)).Ok<RecordTaken>();
        var record = RecordOf(await Take(there, taken.ClientId));
        Assert.All(
            record["events"]!.AsArray(),
            e => Assert.EndsWith("(imported)", e!["by"]!.GetValue<string>(), StringComparison.Ordinal)
        );
        var account = await there.Get<JsonElement>("/api/account");
        Assert.DoesNotContain(
            account.GetProperty("id").GetString()!,
            record["events"]!.ToJsonString(),
            StringComparison.Ordinal
        );
        Assert.Null(record["client"]!["inChargeId"]);
    }

    /// <summary>A backup of before was put back: the file has what is missing.</summary>
    [Fact]
    public async Task What_is_missing_here_comes_and_what_stands_stays()
    {
        var here = await Clinic("here");
        var (opened, client) = await Lived(here);
        var file = await Take(here, client);
        await InStore(
            servers[0],
            async db =>
            {
                await db.Events.Where(e => e.VisitId == opened.VisitId).ExecuteDeleteAsync();
                await db.Clients.ExecuteUpdateAsync(set => set.SetProperty(c => c.Phone, "0000"));
            }
        );
        var taken = await Give(here, file).Ok<RecordTaken>();
        Assert.False(taken.Fresh);
        Assert.True(taken.Parts.Single(part => part.What == "events").Came > 10);
        Assert.Equal("0000", (await here.Get<ClientCard>($"/api/clients/{client}")).Phone);
    }

    private static async Task<string> Refused(HttpClient browser, byte[] file)
    {
        var answer = await Give(browser, file);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, answer.StatusCode);
        var problem = await answer.Content.ReadAsStringAsync();
        var errors = JsonDocument.Parse(problem).RootElement.GetProperty("errors");
        Assert.Equal("file", errors[0].GetProperty("field").GetString());
        return errors[0].GetProperty("message").GetString()!;
    }

    /// <summary>The archive with its record written anew; with the list put right, as whoever means harm would.</summary>
    private static byte[] With(byte[] file, Action<JsonObject> change, bool listed = true)
    {
        var record = RecordOf(file);
        change(record);
        return Packed(
            [(ClientRecord.FileName, Encoding.UTF8.GetBytes(record.ToJsonString()))],
            listed ? null : RecordOf(file).ToJsonString()
        );
    }

    private static byte[] Packed(
        IReadOnlyList<(string Name, byte[] Bytes)> files,
        string? told = null,
        int format = 1
    )
    {
        using var to = new MemoryStream();
        using (var zip = new ZipArchive(to, ZipArchiveMode.Create, leaveOpen: true))
        {
            foreach (var (name, bytes) in files)
            {
                using var entry = zip.CreateEntry(name).Open();
                entry.Write(bytes);
            }
            var list = new RecordManifest(
                RecordManifest.RecordKind,
                format,
                [
                    .. files.Select(f =>
                    {
                        var of = told is null ? f.Bytes : Encoding.UTF8.GetBytes(told);
                        return new RecordEntry(
                            f.Name,
                            of.Length,
                            Convert.ToHexStringLower(SHA256.HashData(of))
                        );
                    }),
                ]
            );
            using var manifest = zip.CreateEntry(RecordManifest.Name).Open();
            manifest.Write(JsonSerializer.SerializeToUtf8Bytes(list, CoreJson.Options));
        }
        return to.ToArray();
    }

    [Fact]
    public async Task What_is_no_whole_record_is_refused_with_words_and_nothing_is_stored()
    {
        var here = await Clinic("here");
        var (_, client) = await Lived(here);
        var file = await Take(here, client);
        var there = await Clinic("there");
        foreach (var length in new[] { 0, 100, file.Length / 2, file.Length - 1 })
        {
            Assert.Contains("cut off", await Refused(there, file[..length]), StringComparison.Ordinal);
        }
        // As long as before, and another.
        Assert.Contains(
            "is not what it was",
            await Refused(
                there,
                With(
                    file,
                    r => r["version"] = new string('9', r["version"]!.GetValue<string>().Length),
                    listed: false
                )
            ),
            StringComparison.Ordinal
        );
        Assert.Contains(
            "is not what it was",
            await Refused(there, With(file, r => r["from"] = "Elsewhere", listed: false)),
            StringComparison.Ordinal
        );
        Assert.Contains(
            "newer version",
            await Refused(there, With(file, r => r["format"] = 99)),
            StringComparison.Ordinal
        );
        Assert.Contains(
            "newer version",
            await Refused(there, Packed([(ClientRecord.FileName, "{}"u8.ToArray())], format: 2)),
            StringComparison.Ordinal
        );
        Assert.Contains(
            "unpacks to much more",
            await Refused(there, Packed([("zeros.bin", new byte[60_000_000])])),
            StringComparison.Ordinal
        );
        Assert.Contains(
            "cut off",
            await Refused(there, RandomNumberGenerator.GetBytes(50 * 1024 * 1024)),
            StringComparison.Ordinal
        );
        Assert.Contains(
            "More",
            (
                await Refused(
                    there,
                    Packed([.. Enumerable.Range(0, 20_001).Select(i => ($"f{i}", Array.Empty<byte>()))])
                )
            ).Replace("There are more", "More", StringComparison.Ordinal),
            StringComparison.Ordinal
        );
        Assert.Contains(
            "not the file of a record",
            await Refused(there, Packed([("notes.txt", "hello"u8.ToArray())])),
            StringComparison.Ordinal
        );
        Assert.Contains(
            "cannot be read",
            await Refused(there, With(file, r => r["client"]!["name"] = 5)),
            StringComparison.Ordinal
        );
        Assert.Contains(
            "cannot be read",
            await Refused(there, With(file, r => r["events"] = "none")),
            StringComparison.Ordinal
        );
        Assert.Contains(
            "belongs to nothing",
            await Refused(there, With(file, r => r["visits"]![0]!["episodeId"] = Guid.NewGuid())),
            StringComparison.Ordinal
        );
        Assert.Contains(
            "does not have",
            await Refused(
                there,
                With(file, r => r["plans"]![0]!["plan"]!["items"]![0]!["rungId"] = "no-such")
            ),
            StringComparison.Ordinal
        );
        Assert.Contains(
            "0 to 10",
            await Refused(there, With(file, r => r["episodes"]![0]!["painNow"] = 90)),
            StringComparison.Ordinal
        );
        Assert.Contains(
            "events",
            await Refused(there, With(file, r => r["events"]![0]!["event"]!["rungId"] = "no-such")),
            StringComparison.Ordinal
        );
        // A precaution or a red flag that is not known here would bar nothing here.
        Assert.Contains(
            "precaution",
            await Refused(
                there,
                With(
                    file,
                    r =>
                        r["episodes"]![0]!["precautions"] = new JsonArray(
                            new JsonObject { ["id"] = "no-such-precaution" }
                        )
                )
            ),
            StringComparison.OrdinalIgnoreCase
        );
        Assert.Contains(
            "red flag",
            await Refused(
                there,
                With(
                    file,
                    r =>
                        r["dangerReports"]!
                            .AsArray()
                            .Add(
                                new JsonObject
                                {
                                    ["id"] = Guid.NewGuid(),
                                    ["episodeId"] = r["episodes"]![0]!["id"]!.DeepClone(),
                                    ["signId"] = "no-such-sign",
                                    ["notedAt"] = "2026-12-01T09:00:00Z",
                                    ["notedBy"] = "Edda Marl",
                                }
                            )
                )
            ),
            StringComparison.Ordinal
        );
        Assert.Contains(
            "neither female nor male",
            await Refused(there, With(file, r => r["client"]!["sex"] = "1")),
            StringComparison.Ordinal
        );
        Assert.Contains(
            "twice",
            await Refused(
                there,
                With(
                    file,
                    r =>
                    {
                        var second = r["plans"]![0]!.DeepClone();
                        second["id"] = Guid.NewGuid();
                        r["plans"]!.AsArray().Add(second);
                    }
                )
            ),
            StringComparison.Ordinal
        );
        await InStore(
            servers[1],
            async db =>
            {
                Assert.Equal(0, await db.Clients.CountAsync());
                Assert.Equal(0, await db.Events.CountAsync());
                Assert.Equal(0, await db.RecordImports.CountAsync());
            }
        );
    }

    /// <summary>Something in it is nothing, another kind, left out, or there twice: taken in or refused with words, and never a fault here.</summary>
    [Fact]
    public async Task Any_damage_inside_is_taken_in_or_refused_with_words()
    {
        var here = await Clinic("here");
        var (_, client) = await Lived(here);
        var file = await Take(here, client);
        var there = await Clinic("there");
        var random = new Random(20_261_202);
        var refused = 0;
        var faults = new List<string>();
        for (var i = 0; i < Damages; i++)
        {
            var said = "";
            var answer = await Give(there, With(file, record => said = Damage(record, random)));
            if (answer.StatusCode is not (HttpStatusCode.OK or HttpStatusCode.UnprocessableEntity))
            {
                faults.Add($"{said}: {answer.StatusCode}");
            }
            refused += answer.StatusCode == HttpStatusCode.UnprocessableEntity ? 1 : 0;
            if (answer.StatusCode == HttpStatusCode.OK)
            {
                // What was taken in can be worked with.
                var taken = JsonDocument.Parse(await answer.Content.ReadAsStringAsync()).RootElement;
                var id = taken.GetProperty("clientId").GetGuid();
                var card = await there.Get<ClientCard>($"/api/clients/{id}");
                foreach (var episode in card.Episodes)
                {
                    var view = await there.GetAsync(new Uri($"/api/episodes/{episode.Id}", UriKind.Relative));
                    if (!view.IsSuccessStatusCode)
                    {
                        faults.Add($"{said}, taken in: {view.StatusCode}");
                    }
                }
            }
        }
        Assert.Empty(faults);
        Assert.True(refused > Damages / 4, $"{refused} of {Damages} refused");
    }

    private static readonly int Damages = Environment.GetEnvironmentVariable("PALAESTRA_SOAK") is null
        ? 120
        : 5000;

    private static List<object> Inner(JsonNode? node) =>
        node switch
        {
            JsonObject one => [.. one.Select(part => (object)part.Key)],
            JsonArray list => [.. Enumerable.Range(0, list.Count).Select(i => (object)i)],
            _ => [],
        };

    private static JsonNode? Of(JsonNode node, object key) => key is int i ? node[i] : node[(string)key];

    /// <returns>What was done where.</returns>
    private static string Damage(JsonObject record, Random random)
    {
        // The longest lists are not hit more often than the shortest.
        var parts = record.Where(part => part.Value is JsonObject or JsonArray { Count: > 0 }).ToList();
        JsonNode at = parts[random.Next(parts.Count)].Value!;
        while (true)
        {
            var inner = Inner(at);
            if (inner.Count == 0)
            {
                return "nothing";
            }
            var next = inner[random.Next(inner.Count)];
            if (Of(at, next) is { } deeper && Inner(deeper).Count > 0 && random.Next(4) > 0)
            {
                at = deeper;
                continue;
            }
            var where = $"{at.GetPath()} {next}";
            var kind = random.Next(6);
            switch (kind)
            {
                case 0:
                    Put(null);
                    break;
                case 1:
                    Put(-7);
                    break;
                case 2:
                    Put("odd");
                    break;
                case 3:
                    Put(new JsonArray((JsonNode?)null));
                    break;
                case 4 when at is JsonArray list:
                    list.Add(list[(int)next]?.DeepClone());
                    break;
                case 4:
                    Put(Guid.NewGuid());
                    break;
                default:
                    Remove();
                    break;
            }
            return $"{where}: {kind}";

            void Put(JsonNode? value)
            {
                if (at is JsonArray list)
                {
                    list[(int)next] = value;
                }
                else
                {
                    ((JsonObject)at)[(string)next] = value;
                }
            }
            void Remove()
            {
                if (at is JsonArray list)
                {
                    list.RemoveAt((int)next);
                }
                else
                {
                    ((JsonObject)at).Remove((string)next);
                }
            }
        }
    }

    /// <summary>A file that says to be of one client and holds an episode of another.</summary>
    [Fact]
    public async Task Nothing_is_added_to_somebody_elses_record()
    {
        var here = await Clinic("here");
        var (_, client) = await Lived(here);
        var (other, _) = await Lived(here, "Tamsin Orrell");
        var file = await Take(here, client);
        var theirs = With(
            file,
            r =>
            {
                var text = r.ToJsonString();
                var own = r["episodes"]![0]!["id"]!.GetValue<string>();
                var changed = JsonNode
                    .Parse(text.Replace(own, $"{other.EpisodeId}", StringComparison.Ordinal))!
                    .AsObject();
                foreach (var part in changed.ToList())
                {
                    r[part.Key] = part.Value!.DeepClone();
                }
            }
        );
        Assert.Contains("another way", await Refused(here, theirs), StringComparison.Ordinal);
    }

    [Fact]
    public async Task Only_whoever_is_in_charge_or_keeps_the_clinic_takes_it_out()
    {
        var here = await Clinic("here");
        var (_, client) = await Lived(here);
        Assert.Equal(
            HttpStatusCode.NotFound,
            (
                await here.GetAsync(new Uri($"/api/clients/{Guid.NewGuid()}/record.zip", UriKind.Relative))
            ).StatusCode
        );
        var file = await here.GetAsync(new Uri($"/api/clients/{client}/record.zip", UriKind.Relative));
        Assert.Contains(
            "Wenna Sorrel",
            file.Content.Headers.ContentDisposition!.FileNameStar,
            StringComparison.Ordinal
        );
    }
}

/// <summary>The schema in docs is of the record as it is written.</summary>
public sealed class RecordSchemaTests
{
    [Fact]
    public void The_schema_in_docs_is_that_of_the_record()
    {
        var schema = System.Text.Json.Schema.JsonSchemaExporter.GetJsonSchemaAsNode(
            RecordJson.Options,
            typeof(ClientRecord)
        );
        var written = schema.ToJsonString(new JsonSerializerOptions { WriteIndented = true }) + "\n";
        var path = Path.Combine(Repository, "docs", "record.schema.json");
        if (Environment.GetEnvironmentVariable("PALAESTRA_WRITE_SCHEMA") is not null)
        {
            File.WriteAllText(path, written);
        }
        Assert.Equal(File.ReadAllText(path), written);
    }

    private static string Repository =>
        Enumerable
            .Range(1, 9)
            .Select(up =>
                Path.GetFullPath(Path.Combine([AppContext.BaseDirectory, .. Enumerable.Repeat("..", up)]))
            )
            .First(folder => File.Exists(Path.Combine(folder, "palaestra")));
}
