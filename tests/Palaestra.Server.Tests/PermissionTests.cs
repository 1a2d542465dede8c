using System.Net;
using System.Text.Json;
using System.Text.RegularExpressions;
using Palaestra.Data.Staff;
using Palaestra.Server.People;
using Palaestra.Server.Tests.Given;

namespace Palaestra.Server.Tests;

/// <summary>Every operation of the API, for every role, over HTTP.</summary>
public sealed partial class PermissionTests(OneServer one) : IClassFixture<OneServer>
{
    private sealed record Operation(string Name, string Verb, string Path);

    /// <summary>A record and a sign-in whose ids stand in addresses.</summary>
    private sealed record Record(Intake.Opened Opened, Guid SignIn)
    {
        public string? IdFor(string path, string blank) =>
            blank switch
            {
                "{visitId}" => $"{Opened.VisitId}",
                "{id}" when path.StartsWith("/api/episodes", StringComparison.Ordinal) =>
                    $"{Opened.EpisodeId}",
                "{signInId}" => $"{SignIn}",
                _ => null,
            };

        public static async Task<Record> Of(HttpClient clinician, HttpClient whose) =>
            new(
                await new Clinic(clinician).NewClient(),
                (await whose.Get<IReadOnlyList<SignInView>>("/api/account/sign-ins")).Single(s => s.Here).Id
            );
    }

    /// <param name="of">Whose ids stand in the addresses; none: nobody's.</param>
    private static async Task<IReadOnlyList<Operation>> Operations(HttpClient browser, Record? of = null)
    {
        using var description = JsonDocument.Parse(await browser.GetStringAsync("/openapi/v1.json"));
        return
        [
            .. from path in description.RootElement.GetProperty("paths").EnumerateObject()
            from method in path.Value.EnumerateObject()
            let name = method.Value.GetProperty("operationId").GetString()!
            select new Operation(
                name,
                method.Name.ToUpperInvariant(),
                Blank()
                    .Replace(path.Name, blank => of?.IdFor(path.Name, blank.Value) ?? Guid.Empty.ToString())
            ),
        ];
    }

    /// <summary>Nobody is signed in for these.</summary>
    private static readonly string[] Anonymous =
    [
        "CreateFirstAdministrator",
        "GetFeed",
        "GetHomePageAtAddress",
        "GetInvitation",
        "GetStart",
        "SignIn",
        "TakeInvitation",
    ];

    [Fact]
    public async Task Every_operation_has_its_row_and_every_row_its_operation()
    {
        var names = (await Operations(one.Running.Browser())).Select(o => o.Name).ToList();
        Assert.Equal(
            names.Except(Anonymous).Order(StringComparer.Ordinal),
            Permissions.ByOperation.Keys.Order(StringComparer.Ordinal)
        );
        Assert.Subset(Permissions.ByOperation.Keys.ToHashSet(), Permissions.Confirmed.ToHashSet());
        Assert.False(Permissions.May(Enum.GetValues<Role>(), "SomethingNew"));
    }

    /// <summary>What the rows must say, written down a second time for those that could hurt.</summary>
    [Theory]
    [InlineData("ClearDangerReport", new[] { Role.Practitioner })]
    [InlineData("StoreLetter", new[] { Role.Practitioner })]
    [InlineData("ChangePolicy", new[] { Role.Administrator, Role.Practitioner })]
    [InlineData("SetAccount", new[] { Role.Administrator })]
    [InlineData("InviteAccount", new[] { Role.Administrator })]
    [InlineData("MakeBackup", new[] { Role.Administrator })]
    [InlineData("GetEpisode", new[] { Role.Practitioner, Role.Trainer })]
    [InlineData("AppendEvents", new[] { Role.Practitioner, Role.Trainer })]
    [InlineData("BookVisit", new[] { Role.Practitioner, Role.Trainer, Role.Reception })]
    public void What_could_hurt_is_for_these_roles_alone(string operation, Role[] roles) =>
        Assert.Equal(roles, Permissions.ByOperation[operation].Order());

    /// <summary>Whose record it is that an address names.</summary>
    public enum Whose
    {
        /// <summary>Begun by whoever asks, where they may begin one.</summary>
        Own,

        /// <summary>Begun by somebody else.</summary>
        Other,

        /// <summary>There is no such record.</summary>
        None,
    }

    public static TheoryData<Role, Whose> Rows =>
        new(from role in Enum.GetValues<Role>() from whose in Enum.GetValues<Whose>() select (role, whose));

    [Theory]
    [MemberData(nameof(Rows))]
    public async Task Each_role_is_refused_what_is_not_in_its_rows_and_nothing_else(Role role, Whose whose)
    {
        var (browser, email) = await one.Running.Joins(role);
        var administrator = await one.Running.SignedIn();
        var record = whose switch
        {
            Whose.Own => await Record.Of(
                Permissions.May([role], "CreateClient") ? browser : administrator,
                browser
            ),
            Whose.Other => await Record.Of(administrator, administrator),
            _ => null,
        };
        // These end the sign-in itself, or never end.
        string[] apart =
        [
            .. whose == Whose.Own ? ["EndSignIn"] : Array.Empty<string>(),
            "SignOut",
            "Lock",
            "GetLiveNews",
            "WatchInstrument",
            .. Anonymous,
        ];
        foreach (var operation in (await Operations(browser, record)).Where(o => !apart.Contains(o.Name)))
        {
            using var request = new HttpRequestMessage(new HttpMethod(operation.Verb), operation.Path);
            using var answer = await browser.SendAsync(request);
            Assert.True(
                answer.StatusCode == HttpStatusCode.Forbidden != Permissions.May([role], operation.Name),
                $"{role}: {operation.Name} of {whose} answered {(int)answer.StatusCode}"
            );
            // Somebody else's sign-in is not theirs to end, whatever they may do.
            if (operation.Name == "EndSignIn" && whose != Whose.Own)
            {
                Assert.Equal(HttpStatusCode.NotFound, answer.StatusCode);
            }
        }
        Assert.Equal(HttpStatusCode.OK, (await browser.GetAsync("/api/account")).StatusCode);
        Assert.NotEmpty(email);
    }

    [Fact]
    public async Task Roles_add_up_and_a_change_of_them_counts_with_the_next_request()
    {
        var (browser, email) = await one.Running.Joins(Role.Reception);
        Assert.Equal(HttpStatusCode.Forbidden, (await browser.GetAsync("/api/policies")).StatusCode);
        var administrator = await one.Running.SignedIn();
        var line = (await administrator.Get<AccountsView>("/api/accounts")).Accounts.Single(a =>
            a.Email == email
        );
        await administrator
            .Put(
                $"/api/accounts/{line.Id}",
                new AccountSettings([Role.Trainer, Role.Reception, Role.Trainer], false)
            )
            .Ok<AccountLine>();
        Assert.Equal(HttpStatusCode.OK, (await browser.GetAsync("/api/policies")).StatusCode);
        Assert.Equal([Role.Trainer, Role.Reception], (await browser.Get<StartView>("/api/start")).Roles);
    }

    [Fact]
    public async Task The_desk_sees_names_and_times_and_nothing_clinical()
    {
        var practitioner = await one.Running.SignedIn();
        var form = Clinic.Form() with { Name = "Wilmot Sedge", Complaint = "sharp when bending" };
        await new Clinic(practitioner).NewClient(form);
        var (browser, _) = await one.Running.Joins(Role.Reception);
        var text =
            await browser.GetStringAsync("/api/day")
            + await browser.GetStringAsync("/api/clients?words=Wilmot");
        Assert.Contains("Wilmot Sedge", text, StringComparison.Ordinal);
        Assert.DoesNotContain("sharp when bending", text, StringComparison.Ordinal);
        // Nor can a complaint be found by asking for it.
        Assert.DoesNotContain(
            "Wilmot Sedge",
            await browser.GetStringAsync("/api/clients?words=sharp"),
            StringComparison.Ordinal
        );
        Assert.Contains(
            "Wilmot Sedge",
            await practitioner.GetStringAsync("/api/clients?words=sharp"),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task An_administrator_alone_sees_a_sentence_with_made_up_values_and_no_client()
    {
        var practitioner = await one.Running.SignedIn();
        await new Clinic(practitioner).NewClient(Clinic.Form() with { Name = "Wilmot Sedge" });
        var (browser, _) = await one.Running.Joins(Role.Administrator);
        foreach (
            var sentence in await browser.Get<IReadOnlyList<Server.Words.SentenceView>>(
                "/api/clinic/sentences"
            )
        )
        {
            var preview = await browser
                .Post($"/api/clinic/sentences/{sentence.Id}/preview", new { sentence.Text })
                .Ok<Server.Words.SentencePreviewView>();
            Assert.Null(preview.Client);
            Assert.NotEmpty(preview.Lines);
        }
    }

    [GeneratedRegex(@"\{[^}/]+\}")]
    private static partial Regex Blank();
}
