using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Palaestra.Core.Capture;
using Palaestra.Data.Staff;
using Palaestra.Server.Clinics;
using Palaestra.Server.Intake;
using Palaestra.Server.People;
using Palaestra.Server.Screening;
using Palaestra.Server.Tests.Given;

namespace Palaestra.Server.Tests;

/// <summary>Accounts, codes, passwords and sign-ins.</summary>
public sealed class AccountTests : IDisposable
{
    private readonly HeldClock clock = new();
    private readonly RunningServer server;

    public AccountTests() => server = new RunningServer(clock: clock);

    public void Dispose() => server.Dispose();

    private static async Task<HttpStatusCode> Day(HttpClient browser) =>
        (await browser.GetAsync("/api/day")).StatusCode;

    private static async Task<AccountLine> Line(HttpClient administrator, string email) =>
        (await administrator.Get<AccountsView>("/api/accounts")).Accounts.Single(a => a.Email == email);

    private static async Task<string> TypeOf(HttpResponseMessage answer) =>
        (await answer.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("type").GetString() ?? "";

    private static Task<HttpResponseMessage> Take(
        HttpClient browser,
        string code,
        string password = Staff.Password
    ) => browser.Post($"/api/invitations/{code}", new TakeInvitationForm(password));

    [Fact]
    public async Task Dates_and_measures_are_read_as_the_clinic_does_unless_an_account_chose_otherwise()
    {
        var browser = await server.SignedIn();
        async Task<ClinicTime> Read() => (await browser.Get<StartView>("/api/start")).Time!;
        var clinics = await Read();
        Assert.Equal(PersonUnits.KgCm, clinics.Units);
        var name = (await browser.Get<AccountView>("/api/account")).Name;
        var own = new OwnReading(DateOrder.MonthDayYear, Units: PersonUnits.LbFtIn);
        Assert.Equal(
            own,
            (await browser.Put("/api/account", new AccountForm(name, own)).Ok<AccountView>()).Reading
        );
        Assert.Equal(
            clinics with
            {
                DateOrder = DateOrder.MonthDayYear,
                Units = PersonUnits.LbFtIn,
            },
            await Read()
        );
        // An edit of the name alone leaves it; the clinic's stays the clinic's.
        await browser.Put("/api/account", new { name = "Edda Marl" }).Ok<AccountView>();
        Assert.Equal(DateOrder.MonthDayYear, (await Read()).DateOrder);
        var clinic = await browser.Get<ClinicForm>("/api/clinic");
        Assert.Equal(clinics, clinic.Time);
        // What is left open follows the clinic.
        await browser
            .Put(
                "/api/clinic",
                clinic with
                {
                    Time = clinic.Time! with { WeekStart = DayOfWeek.Saturday, Units = null },
                }
            )
            .Ok<ClinicForm>();
        Assert.Equal(
            (DayOfWeek.Saturday, PersonUnits.LbFtIn),
            ((await Read()).WeekStart, (await Read()).Units)
        );
        await browser.Put("/api/account", new AccountForm(name, new())).Ok<AccountView>();
        Assert.Equal(PersonUnits.KgCm, (await Read()).Units);
        await browser
            .Put("/api/account", new AccountForm(name, new(WeekStart: DayOfWeek.Sunday)))
            .Ok<AccountView>();
        Assert.Equal(DayOfWeek.Sunday, (await Read()).WeekStart);
    }

    [Fact]
    public async Task A_code_makes_one_account_once()
    {
        var administrator = await server.SignedIn();
        var made = await administrator.Invites(" Rosa Thorne ");
        var line = Assert.Single((await administrator.Get<AccountsView>("/api/accounts")).Invitations);
        Assert.Equal(("Rosa Thorne", "Edda Marl", false), (line.Name, line.MadeBy, line.Again));
        var browser = server.Browser();
        var told = await browser.Get<InvitationView>(
            $"/api/invitations/{made.Code.ToLowerInvariant().Replace("-", "")}"
        );
        Assert.Equal(("Rosa Thorne", "rosa@clinic.example", false), (told.Name, told.Email, told.Again));
        // A password that is not taken leaves the code good.
        Assert.Equal(
            ["password"],
            await Take(browser, made.Code, "Rosa Thorne rosa")
                .RefusedFields(HttpStatusCode.UnprocessableEntity)
        );
        Assert.Equal(HttpStatusCode.NoContent, (await Take(browser, made.Code)).StatusCode);
        var start = await browser.Get<StartView>("/api/start");
        Assert.Equal(("Rosa Thorne", false), (start.SignedInAs, start.Administrator));
        Assert.Equal([Role.Trainer], start.Roles);
        Assert.Equal(HttpStatusCode.NotFound, (await Take(server.Browser(), made.Code)).StatusCode);
        Assert.Empty((await administrator.Get<AccountsView>("/api/accounts")).Invitations);
        // The code stands nowhere in the data folder.
        var plain = InvitationCode.Plain(made.Code);
        foreach (
            var file in Directory
                .GetFiles(server.Folder, "*", SearchOption.AllDirectories)
                .Where(f => Path.GetFileName(f) != Data.Keeping.FolderLock.FileName)
        )
        {
            await using var stream = new FileStream(
                file,
                FileMode.Open,
                FileAccess.Read,
                FileShare.ReadWrite
            );
            var text = await new StreamReader(stream, System.Text.Encoding.Latin1).ReadToEndAsync();
            Assert.DoesNotContain(made.Code, text, StringComparison.Ordinal);
            Assert.DoesNotContain(plain, text, StringComparison.Ordinal);
        }
    }

    [Fact]
    public async Task Of_many_who_take_a_code_at_once_one_gets_the_account()
    {
        var administrator = await server.SignedIn();
        var made = await administrator.Invites();
        var answers = await Task.WhenAll(
            Enumerable.Range(0, 12).Select(_ => Take(server.Browser(), made.Code))
        );
        Assert.Single(answers, a => a.StatusCode == HttpStatusCode.NoContent);
        Assert.Equal(2, (await administrator.Get<AccountsView>("/api/accounts")).Accounts.Count);
    }

    [Fact]
    public async Task A_code_ends_after_three_days_or_when_it_is_taken_back_or_made_again()
    {
        var administrator = await server.SignedIn();
        Task<InvitationMade> Invite() => administrator.Invites();
        async Task<HttpStatusCode> Known(InvitationMade made) =>
            (await server.Browser().GetAsync($"/api/invitations/{made.Code}")).StatusCode;
        var first = await Invite();
        var second = await Invite();
        Assert.Equal((HttpStatusCode.NotFound, HttpStatusCode.OK), (await Known(first), await Known(second)));
        var line = Assert.Single((await administrator.Get<AccountsView>("/api/accounts")).Invitations);
        (await administrator.DeleteAsync($"/api/accounts/invitations/{line.Id}")).EnsureSuccessStatusCode();
        Assert.Equal(HttpStatusCode.NotFound, await Known(second));
        var third = await Invite();
        clock.Go(TimeSpan.FromHours(72));
        Assert.Equal(HttpStatusCode.NotFound, await Known(third));
    }

    [Theory]
    [InlineData("", "rosa@clinic.example", 1, "name")]
    [InlineData("Ro\u0007sa", "rosa@clinic.example", 1, "name")]
    [InlineData("Rosa", "not an address", 1, "email")]
    [InlineData("Rosa", "EDDA@clinic.example", 1, "email")]
    [InlineData("Rosa", "rosa@clinic.example", 0, "roles")]
    public async Task An_invitation_that_cannot_be_names_its_field(
        string name,
        string email,
        int roles,
        string field
    )
    {
        var administrator = await server.SignedIn();
        var form = new InvitationForm(name, email, [.. Enumerable.Repeat(Role.Trainer, roles)]);
        Assert.Equal(
            [field],
            await administrator
                .Post("/api/accounts/invitations", form)
                .RefusedFields(HttpStatusCode.UnprocessableEntity)
        );
    }

    [Theory]
    [InlineData("short words", false)]
    [InlineData("passwordpassword", false)]
    [InlineData("123456789012", false)]
    [InlineData("qwertyuiopasdf", false)]
    [InlineData("Edda Marl Edda", false)]
    [InlineData("lantern over the quay", true)]
    [InlineData("zk4-Vwp9qm_t", true)]
    public async Task A_password_is_weighed_not_counted(string password, bool taken)
    {
        var browser = await server.SignedIn();
        var answer = await browser.Post("/api/account/password", new PasswordForm(Staff.Password, password));
        Assert.Equal(
            taken ? HttpStatusCode.NoContent : HttpStatusCode.UnprocessableEntity,
            answer.StatusCode
        );
        Assert.Equal(
            taken ? HttpStatusCode.NoContent : HttpStatusCode.Unauthorized,
            (await server.Browser().SignsIn("edda@clinic.example", password)).StatusCode
        );
    }

    [Fact]
    public async Task A_password_of_128_characters_is_taken_and_one_more_is_not()
    {
        var browser = await server.SignedIn();
        var words = string.Concat(Enumerable.Repeat("quay lantern 7 mill ", 7));
        var past = await browser.Post(
            "/api/account/password",
            new PasswordForm(Staff.Password, words[..129])
        );
        Assert.Equal(HttpStatusCode.UnprocessableEntity, past.StatusCode);
        var last = await browser.Post(
            "/api/account/password",
            new PasswordForm(Staff.Password, words[..128])
        );
        Assert.Equal(HttpStatusCode.NoContent, last.StatusCode);
    }

    [Fact]
    public async Task A_changed_password_ends_every_other_sign_in_and_a_wrong_old_one_changes_nothing()
    {
        var (here, there) = (await server.SignedIn(), await server.SignedIn());
        Assert.Equal(
            ["old"],
            await here.Post(
                    "/api/account/password",
                    new PasswordForm("not this one at all", "lantern over the quay")
                )
                .RefusedFields(HttpStatusCode.UnprocessableEntity)
        );
        Assert.Equal(HttpStatusCode.OK, await Day(there));
        (
            await here.Post(
                "/api/account/password",
                new PasswordForm(Staff.Password, "lantern over the quay")
            )
        ).EnsureSuccessStatusCode();
        Assert.Equal((HttpStatusCode.OK, HttpStatusCode.Unauthorized), (await Day(here), await Day(there)));
    }

    /// <summary>A copy of the cookie, kept by somebody, is worth nothing after sign-out.</summary>
    [Fact]
    public async Task A_copied_cookie_does_not_outlive_the_sign_in()
    {
        await server.SignedIn();
        using var handler = new HttpClientHandler { CookieContainer = new CookieContainer() };
        using var browser = new HttpClient(handler) { BaseAddress = server.ClientOptions.BaseAddress };
        await browser.SignsIn("edda@clinic.example");
        var cookie = handler.CookieContainer.GetCookieHeader(browser.BaseAddress!);
        async Task<HttpStatusCode> Copied()
        {
            using var thief = new HttpClient(new HttpClientHandler { UseCookies = false })
            {
                BaseAddress = server.ClientOptions.BaseAddress,
            };
            thief.DefaultRequestHeaders.Add("Cookie", cookie);
            return await Day(thief);
        }
        Assert.Equal(HttpStatusCode.OK, await Copied());
        (await browser.PostAsync("/api/sign-out", null)).EnsureSuccessStatusCode();
        Assert.Equal(HttpStatusCode.Unauthorized, await Copied());
    }

    [Fact]
    public async Task A_sign_in_lasts_twelve_hours_however_often_it_is_used()
    {
        var browser = await server.SignedIn();
        for (var hour = 0; hour < 11; hour++)
        {
            clock.Go(TimeSpan.FromHours(1));
            Assert.Equal(HttpStatusCode.OK, await Day(browser));
        }
        clock.Go(TimeSpan.FromHours(1));
        Assert.Equal(HttpStatusCode.Unauthorized, await Day(browser));
    }

    [Fact]
    public async Task A_disabled_account_is_out_everywhere_its_stream_included_and_comes_back_enabled()
    {
        var (browser, email) = await server.Joins(Role.Trainer);
        var administrator = await server.SignedIn();
        var line = await Line(administrator, email);
        using var request = new HttpRequestMessage(HttpMethod.Get, "/api/live");
        using var stream = await browser.SendAsync(request, HttpCompletionOption.ResponseHeadersRead);
        var reading = (await stream.Content.ReadAsStreamAsync()).CopyToAsync(Stream.Null);
        Task<HttpResponseMessage> Set(bool disabled) =>
            administrator.Put($"/api/accounts/{line.Id}", new AccountSettings([Role.Trainer], disabled));
        (await Set(true)).EnsureSuccessStatusCode();
        Assert.Equal(HttpStatusCode.Unauthorized, await Day(browser));
        await Task.WhenAny(reading, Task.Delay(TimeSpan.FromSeconds(10)));
        Assert.True(reading.IsCompleted);
        Assert.Equal(HttpStatusCode.Unauthorized, (await browser.SignsIn(email)).StatusCode);
        Assert.NotNull((await Line(administrator, email)).DisabledAt);
        (await Set(false)).EnsureSuccessStatusCode();
        Assert.Equal(HttpStatusCode.NoContent, (await browser.SignsIn(email)).StatusCode);
    }

    [Fact]
    public async Task The_last_administrator_stays()
    {
        var administrator = await server.SignedIn();
        var me = await Line(administrator, "edda@clinic.example");
        Task<HttpResponseMessage> Set(Role role, bool disabled) =>
            administrator.Put($"/api/accounts/{me.Id}", new AccountSettings([role], disabled));
        Assert.Equal(HttpStatusCode.Conflict, (await Set(Role.Practitioner, false)).StatusCode);
        Assert.Equal(HttpStatusCode.Conflict, (await Set(Role.Administrator, true)).StatusCode);
        await server.Joins(Role.Administrator);
        Assert.Equal(HttpStatusCode.OK, (await Set(Role.Practitioner, false)).StatusCode);
        Assert.Equal(HttpStatusCode.Forbidden, (await administrator.GetAsync("/api/accounts")).StatusCode);
    }

    [Fact]
    public async Task A_forgotten_password_is_chosen_again_by_a_code_and_the_lost_tablet_is_out()
    {
        var (lost, email) = await server.Joins(Role.Practitioner);
        var administrator = await server.SignedIn();
        var line = await Line(administrator, email);
        var made = await administrator.Post($"/api/accounts/{line.Id}/reset", new { }).Ok<InvitationMade>();
        Assert.True((await server.Browser().Get<InvitationView>($"/api/invitations/{made.Code}")).Again);
        Assert.Equal(HttpStatusCode.OK, await Day(lost));
        var browser = server.Browser();
        (await Take(browser, made.Code, "lantern over the quay")).EnsureSuccessStatusCode();
        Assert.Equal((HttpStatusCode.OK, HttpStatusCode.Unauthorized), (await Day(browser), await Day(lost)));
        Assert.Equal(HttpStatusCode.Unauthorized, (await lost.SignsIn(email)).StatusCode);
        // Nothing else about the account is another.
        Assert.Equal([Role.Practitioner], (await Line(administrator, email)).Roles);
    }

    [Fact]
    public async Task One_sees_and_ends_ones_own_sign_ins_and_nobody_elses()
    {
        var (browser, email) = await server.Joins(Role.Trainer);
        var tablet = server.Browser();
        tablet.DefaultRequestHeaders.UserAgent.ParseAdd("tablet/7");
        await tablet.SignsIn(email);
        var mine = await browser.Get<IReadOnlyList<SignInView>>("/api/account/sign-ins");
        Assert.Equal([true, false], mine.Select(s => s.Here));
        var other = mine.Single(s => !s.Here);
        Assert.Equal("tablet/7", other.Device);
        var stranger = await server.SignedIn();
        Assert.Equal(
            HttpStatusCode.NotFound,
            (await stranger.DeleteAsync($"/api/account/sign-ins/{other.Id}")).StatusCode
        );
        (await browser.DeleteAsync($"/api/account/sign-ins/{other.Id}")).EnsureSuccessStatusCode();
        Assert.Equal(
            (HttpStatusCode.OK, HttpStatusCode.Unauthorized),
            (await Day(browser), await Day(tablet))
        );
        var line = await Line(stranger, email);
        (await stranger.DeleteAsync($"/api/accounts/{line.Id}/sign-ins")).EnsureSuccessStatusCode();
        Assert.Equal(HttpStatusCode.Unauthorized, await Day(browser));
    }

    [Fact]
    public async Task Sign_ins_go_on_over_a_restart_and_those_that_ended_do_not()
    {
        var folder = Directory.CreateTempSubdirectory("palaestra-test-").FullName;
        try
        {
            string stays;
            string gone;
            using (var first = new RunningServer(folder: folder))
            {
                (stays, gone) = (await Cookie(first), await Cookie(first));
                using var leaving = With(first, gone);
                (await leaving.PostAsync("/api/sign-out", null)).EnsureSuccessStatusCode();
            }
            using var second = new RunningServer(folder: folder);
            using (var browser = With(second, stays))
            {
                Assert.Equal(HttpStatusCode.OK, await Day(browser));
            }
            using var other = With(second, gone);
            Assert.Equal(HttpStatusCode.Unauthorized, await Day(other));
        }
        finally
        {
            Microsoft.Data.Sqlite.SqliteConnection.ClearAllPools();
            Directory.Delete(folder, recursive: true);
        }
    }

    private static HttpClient With(RunningServer server, string cookie)
    {
        var browser = new HttpClient(new HttpClientHandler { UseCookies = false })
        {
            BaseAddress = server.ClientOptions.BaseAddress,
        };
        browser.DefaultRequestHeaders.Add("Cookie", cookie);
        return browser;
    }

    private static async Task<string> Cookie(RunningServer server)
    {
        await server.SignedIn();
        using var handler = new HttpClientHandler { CookieContainer = new CookieContainer() };
        using var browser = new HttpClient(handler) { BaseAddress = server.ClientOptions.BaseAddress };
        (await browser.SignsIn("edda@clinic.example")).EnsureSuccessStatusCode();
        return handler.CookieContainer.GetCookieHeader(browser.BaseAddress!);
    }

    [Fact]
    public async Task What_is_grave_asks_for_the_password_again_after_five_minutes()
    {
        var administrator = await server.SignedIn();
        var form = new InvitationForm("Rosa", "rosa@clinic.example", [Role.Trainer]);
        await administrator.Post("/api/accounts/invitations", form).Ok<InvitationMade>();
        clock.Go(TimeSpan.FromMinutes(5));
        var refused = await administrator.Post("/api/accounts/invitations", form);
        Assert.Equal(HttpStatusCode.Forbidden, refused.StatusCode);
        Assert.Equal("reauthenticate", await TypeOf(refused));
        // What is not grave goes on.
        Assert.Equal(HttpStatusCode.OK, (await administrator.GetAsync("/api/accounts")).StatusCode);
        Assert.Equal(
            ["password"],
            await administrator
                .Post("/api/reauthenticate", new ConfirmForm("not this one"))
                .RefusedFields(HttpStatusCode.UnprocessableEntity)
        );
        (
            await administrator.Post("/api/reauthenticate", new ConfirmForm(Staff.Password))
        ).EnsureSuccessStatusCode();
        await administrator.Post("/api/accounts/invitations", form).Ok<InvitationMade>();
    }

    [Fact]
    public async Task Wrong_tries_close_the_door_for_that_account_at_that_address_alone()
    {
        var (browser, email) = await server.Joins(Role.Trainer);
        for (var i = 0; i < Attempts.Most; i++)
        {
            Assert.Equal(
                HttpStatusCode.Unauthorized,
                (await browser.SignsIn(email, "not it at all")).StatusCode
            );
        }
        Assert.Equal(
            HttpStatusCode.TooManyRequests,
            (await browser.SignsIn(email.ToUpperInvariant())).StatusCode
        );
        // A colleague at the same tablet comes in.
        Assert.Equal(HttpStatusCode.NoContent, (await browser.SignsIn("edda@clinic.example")).StatusCode);
        // And whoever guesses at codes is stopped too, but not who has one.
        var administrator = await server.SignedIn();
        var made = await administrator.Invites();
        for (var i = 0; i < Attempts.Most; i++)
        {
            Assert.Equal(
                HttpStatusCode.NotFound,
                (await browser.GetAsync("/api/invitations/AAAAA")).StatusCode
            );
        }
        Assert.Equal(
            HttpStatusCode.TooManyRequests,
            (await browser.GetAsync("/api/invitations/AAAAA")).StatusCode
        );
        Assert.Equal(HttpStatusCode.OK, (await browser.GetAsync($"/api/invitations/{made.Code}")).StatusCode);
    }

    /// <summary>Guesses sent all at once are looked at no more often than guesses in a row.</summary>
    [Fact]
    public async Task Many_wrong_tries_at_once_are_no_way_round()
    {
        var (_, email) = await server.Joins(Role.Trainer);
        var answers = await Task.WhenAll(
            Enumerable.Range(0, 40).Select(i => server.Browser().SignsIn(email, $"guess number {i}"))
        );
        Assert.Equal(Attempts.Most, answers.Count(a => a.StatusCode == HttpStatusCode.Unauthorized));
        Assert.Equal(40 - Attempts.Most, answers.Count(a => a.StatusCode == HttpStatusCode.TooManyRequests));
    }

    [Fact]
    public async Task Whoever_sends_is_the_author_and_whom_the_tablet_named_is_kept_beside()
    {
        var browser = await server.SignedIn();
        var clinic = new Clinic(browser);
        var opened = await clinic.NewClient();
        var rung = (await browser.Get<Server.Library.LibraryView>("/api/library"))
            .Ladders.First(l => l.Screened)
            .Rungs[0];
        var events = clinic
            .Trial(
                rung,
                rung.Sides == Core.Library.RungSides.Each ? Core.Terms.Side.Left : Core.Terms.Side.Both,
                rung.Start,
                1,
                0
            )
            .Select(e => e with { By = "Somebody Else" })
            .ToList();
        await clinic.Send(opened.VisitId, events).Ok<EventsTaken>();
        var screen = await browser.Get<ScreenView>($"/api/visits/{opened.VisitId}/screen");
        Assert.Equal("Edda Marl", Assert.Single(screen.Trials).By);
        await using var db = Palaestra.Data.Store.Open(server.Folder);
        var row = db.Events.First();
        Assert.Equal(("Edda Marl", "Somebody Else"), (row.By, row.ToldBy));
        Assert.Equal((await browser.Get<AccountView>("/api/account")).Id, row.AccountId);
    }

    [Fact]
    public async Task Locked_out_a_clinic_is_opened_at_its_machine_and_the_audit_tells()
    {
        var (_, email) = await server.Joins(Role.Trainer);
        var administrator = await server.SignedIn();
        var line = await Line(administrator, email);
        await administrator
            .Put($"/api/accounts/{line.Id}", new AccountSettings([Role.Trainer], Disabled: true))
            .Ok<AccountLine>();
        var settings = new Settings(false, server.Folder, "", "", "", server.Folder + "-backups");
        Assert.Null(await AccountsCommand.Run(["serve"], settings));
        Assert.Equal(2, await AccountsCommand.Run(["accounts", "reset"], settings));
        Assert.Equal(1, await AccountsCommand.Run(["accounts", "reset", "nobody@clinic.example"], settings));
        Assert.Equal(0, await AccountsCommand.Run(["accounts", "reset", email.ToUpperInvariant()], settings));
        Assert.Null((await Line(administrator, email)).DisabledAt);
        var waiting = Assert.Single((await administrator.Get<AccountsView>("/api/accounts")).Invitations);
        Assert.Equal(("the machine", true), (waiting.MadeBy, waiting.Again));
        var page = await administrator.Get<Server.Audit.AuditPage>("/api/audit?words=AccountReset");
        Assert.Single(page.Lines);
    }
}
