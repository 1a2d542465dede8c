using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Palaestra.Server.People;
using Palaestra.Server.Tests.Given;

namespace Palaestra.Server.Tests;

public sealed class SignInTests : IDisposable
{
    private readonly RunningServer server = new();

    public void Dispose() => server.Dispose();

    [Fact]
    public async Task Everything_in_the_api_is_behind_sign_in_but_the_door_itself()
    {
        var browser = server.Browser();
        using var description = JsonDocument.Parse(await browser.GetStringAsync("/openapi/v1.json"));
        var open = new HashSet<string>
        {
            "GET /api/start",
            "POST /api/sign-in",
            "POST /api/first-administrator",
            // Whoever has the code has no account yet.
            "GET /api/invitations/{code}",
            "POST /api/invitations/{code}",
            // The secret is in the address: a calendar program cannot sign in.
            "GET /feeds/{key}.ics",
            // Nor a client's phone.
            "GET /home/{key}",
        };
        var seen = 0;
        foreach (var path in description.RootElement.GetProperty("paths").EnumerateObject())
        {
            foreach (var method in path.Value.EnumerateObject())
            {
                var verb = method.Name.ToUpperInvariant();
                if (open.Contains($"{verb} {path.Name}"))
                {
                    continue;
                }
                var address = System.Text.RegularExpressions.Regex.Replace(
                    path.Name,
                    "\\{[^}]+\\}",
                    Guid.NewGuid().ToString()
                );
                var answer = await browser.SendAsync(new HttpRequestMessage(new HttpMethod(verb), address));
                Assert.True(
                    answer.StatusCode == HttpStatusCode.Unauthorized,
                    $"{verb} {path.Name} answered {answer.StatusCode}"
                );
                seen++;
            }
        }
        Assert.True(seen > 15);
    }

    [Fact]
    public async Task An_empty_database_asks_for_its_first_administrator_once()
    {
        var browser = server.Browser();
        Assert.True((await browser.Get<StartView>("/api/start")).NeedsFirstAdministrator);
        await server.SignedIn();
        var start = await browser.Get<StartView>("/api/start");
        Assert.False(start.NeedsFirstAdministrator);
        Assert.Empty(start.Accounts);
        var second = await browser.PostAsJsonAsync(
            "/api/first-administrator",
            new
            {
                code = "",
                name = "Other",
                email = "other@clinic.example",
                password = "another long one",
            }
        );
        Assert.Equal(HttpStatusCode.Conflict, second.StatusCode);
    }

    [Fact]
    public async Task Of_fifty_who_ask_at_once_one_becomes_the_first_administrator()
    {
        var code = server.FirstCode;
        var answers = await Task.WhenAll(
            Enumerable
                .Range(0, 50)
                .Select(i =>
                    server
                        .Browser()
                        .PostAsJsonAsync(
                            "/api/first-administrator",
                            new
                            {
                                code,
                                name = $"Number {i}",
                                email = $"number{i}@clinic.example",
                                password = "three quiet words",
                            }
                        )
                )
        );
        Assert.Single(answers, answer => answer.StatusCode == HttpStatusCode.NoContent);
        Assert.Equal(49, answers.Count(answer => answer.StatusCode == HttpStatusCode.Conflict));
        Assert.Equal("", server.FirstCode);
    }

    [Theory]
    [InlineData("")]
    [InlineData("AAAAA-AAAAA-AAAAA-AAAAA")]
    public async Task Without_the_code_nobody_becomes_administrator(string code)
    {
        var fields = await server
            .Browser()
            .PostAsJsonAsync(
                "/api/first-administrator",
                new
                {
                    code,
                    name = "Anybody",
                    email = "a@clinic.example",
                    password = "three quiet words",
                }
            )
            .RefusedFields(HttpStatusCode.UnprocessableEntity);
        Assert.Equal(["code"], fields);
        Assert.True((await server.Browser().Get<StartView>("/api/start")).NeedsFirstAdministrator);
    }

    [Fact]
    public async Task The_code_may_be_typed_without_its_dashes_and_in_small_letters()
    {
        var code = server.FirstCode;
        Assert.Matches("^([A-HJ-NP-Z2-9]{5}-){3}[A-HJ-NP-Z2-9]{5}$", code);
        var made = await server
            .Browser()
            .PostAsJsonAsync(
                "/api/first-administrator",
                new
                {
                    code = code.Replace("-", " ", StringComparison.Ordinal).ToLowerInvariant(),
                    name = "Edda Marl",
                    email = "edda@clinic.example",
                    password = "three quiet words",
                }
            );
        Assert.Equal(HttpStatusCode.NoContent, made.StatusCode);
    }

    [Fact]
    public async Task A_short_password_is_refused_by_name() =>
        Assert.Contains(
            "password",
            await server
                .Browser()
                .PostAsJsonAsync(
                    "/api/first-administrator",
                    new
                    {
                        code = server.FirstCode,
                        name = "A",
                        email = "a@clinic.example",
                        password = "short",
                    }
                )
                .RefusedFields(HttpStatusCode.UnprocessableEntity)
        );

    [Fact]
    public async Task A_wrong_password_does_not_enter_and_too_many_lock_the_door()
    {
        await server.SignedIn();
        var browser = server.Browser();
        Task<HttpResponseMessage> Try(string password) =>
            browser.PostAsJsonAsync("/api/sign-in", new { email = "edda@clinic.example", password });
        for (var i = 0; i < 5; i++)
        {
            Assert.Equal(HttpStatusCode.Unauthorized, (await Try("not it at all")).StatusCode);
        }
        var locked = await Try("three quiet words");
        Assert.Equal(HttpStatusCode.TooManyRequests, locked.StatusCode);
        Assert.Contains("Wait", await locked.Content.ReadAsStringAsync(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task Signing_out_closes_the_door()
    {
        var browser = await server.SignedIn();
        (await browser.PostAsync("/api/sign-out", null)).EnsureSuccessStatusCode();
        Assert.Equal(HttpStatusCode.Unauthorized, (await browser.GetAsync("/api/day")).StatusCode);
    }
}
