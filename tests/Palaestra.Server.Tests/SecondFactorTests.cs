using System.Buffers.Binary;
using System.Net;
using System.Net.Http.Json;
using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using Palaestra.Data.Staff;
using Palaestra.Server.Clinics;
using Palaestra.Server.People;
using Palaestra.Server.Tests.Given;

namespace Palaestra.Server.Tests;

/// <summary>The digits of an app beside the password, and the lock of a tablet that was left alone.</summary>
public sealed class SecondFactorTests : IDisposable
{
    private readonly HeldClock clock = new();
    private readonly RunningServer server;
    private const string Email = "edda@clinic.example";

    public SecondFactorTests() => server = new RunningServer(clock: clock);

    public void Dispose() => server.Dispose();

    /// <summary>An app by itself: RFC 6238 with SHA-1, thirty seconds, as many digits as asked.</summary>
    private static string Digits(byte[] secret, long seconds, int digits = 6)
    {
        var moving = new byte[8];
        BinaryPrimitives.WriteInt64BigEndian(moving, seconds / 30);
#pragma warning disable CA5350 // What every app reckons with.
        var hash = HMACSHA1.HashData(secret, moving);
#pragma warning restore CA5350
        var at = hash[^1] & 15;
        var number = BinaryPrimitives.ReadInt32BigEndian(hash.AsSpan(at)) & 0x7fffffff;
        return (number % (int)Math.Pow(10, digits)).ToString(
            $"D{digits}",
            System.Globalization.CultureInfo.InvariantCulture
        );
    }

    private static byte[] FromBase32(string text)
    {
        var bits = string.Concat(
            text.Select(c =>
                Convert
                    .ToString("ABCDEFGHIJKLMNOPQRSTUVWXYZ234567".IndexOf(c, StringComparison.Ordinal), 2)
                    .PadLeft(5, '0')
            )
        );
        return
        [
            .. Enumerable.Range(0, bits.Length / 8).Select(i => Convert.ToByte(bits.Substring(i * 8, 8), 2)),
        ];
    }

    /// <param name="steps">Of thirty seconds from now: 0, or one beside it where the digits of now were used.</param>
    private static string Now(string secret, int steps = 0) =>
        Digits(FromBase32(secret), DateTimeOffset.UtcNow.ToUnixTimeSeconds() + steps * 30);

    /// <summary>RFC 6238, appendix B, the rows for SHA-1.</summary>
    [Theory]
    [InlineData(59, "94287082")]
    [InlineData(1111111109, "07081804")]
    [InlineData(1234567890, "89005924")]
    [InlineData(20000000000, "65353130")]
    public void The_app_of_these_tests_reckons_as_the_standard(long seconds, string digits) =>
        Assert.Equal(digits, Digits(Encoding.ASCII.GetBytes("12345678901234567890"), seconds, 8));

    private static async Task<(string Secret, IReadOnlyList<string> Codes)> SetUp(HttpClient browser)
    {
        var begun = await browser.PostAsync("/api/account/second-factor", null).Ok<SecondFactorBegun>();
        Assert.Contains($"secret={begun.Secret}&", begun.Address);
        Assert.StartsWith("otpauth://totp/", begun.Address);
        var made = await browser
            .Post("/api/account/second-factor/confirm", new SecondFactorForm(Now(begun.Secret)))
            .Ok<RecoveryCodesMade>();
        return (begun.Secret, made.Codes);
    }

    private static async Task<string> TypeOf(HttpResponseMessage answer) =>
        (await answer.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("type").GetString() ?? "";

    private static Task<HttpResponseMessage> SignIn(HttpClient browser, string? code) =>
        browser.PostAsJsonAsync(
            "/api/sign-in",
            new
            {
                email = Email,
                password = Staff.Password,
                code,
            }
        );

    [Fact]
    public async Task With_a_second_factor_the_password_alone_signs_nobody_in()
    {
        var browser = await server.SignedIn();
        // A secret counts only once digits from it were told.
        await browser.PostAsync("/api/account/second-factor", null).Ok<SecondFactorBegun>();
        Assert.Equal(HttpStatusCode.NoContent, (await SignIn(server.Browser(), null)).StatusCode);
        Assert.Equal(
            ["code"],
            await browser
                .Post("/api/account/second-factor/confirm", new SecondFactorForm("000000"))
                .RefusedFields(HttpStatusCode.UnprocessableEntity)
        );
        var (secret, codes) = await SetUp(browser);
        Assert.Equal(SecondFactor.RecoveryCodes, codes.Distinct().Count());
        var view = await browser.Get<AccountView>("/api/account");
        Assert.Equal((true, 10), (view.SecondFactor, view.RecoveryCodes));
        var tablet = server.Browser();
        var asked = await SignIn(tablet, null);
        Assert.Equal((HttpStatusCode.Unauthorized, "second-factor"), (asked.StatusCode, await TypeOf(asked)));
        Assert.Equal(HttpStatusCode.Unauthorized, (await tablet.GetAsync("/api/day")).StatusCode);
        // The digits that set it up were used: those of the next half minute are taken a little early.
        Assert.NotEqual("second-factor", await TypeOf(await SignIn(tablet, Now(secret))));
        Assert.Equal(HttpStatusCode.NoContent, (await SignIn(tablet, Now(secret, 1))).StatusCode);
        Assert.Equal(HttpStatusCode.OK, (await tablet.GetAsync("/api/day")).StatusCode);
        // A recovery code, once.
        var third = server.Browser();
        Assert.Equal(HttpStatusCode.NoContent, (await SignIn(third, codes[0].ToLowerInvariant())).StatusCode);
        Assert.Equal(HttpStatusCode.Unauthorized, (await SignIn(server.Browser(), codes[0])).StatusCode);
        Assert.Equal(9, (await third.Get<AccountView>("/api/account")).RecoveryCodes);
        // It is not set up twice, and turned off the password alone is enough.
        Assert.Equal(
            HttpStatusCode.Conflict,
            (await browser.PostAsync("/api/account/second-factor", null)).StatusCode
        );
        (await browser.DeleteAsync("/api/account/second-factor")).EnsureSuccessStatusCode();
        Assert.Equal(HttpStatusCode.NoContent, (await SignIn(server.Browser(), null)).StatusCode);
    }

    [Fact]
    public async Task Wrong_digits_count_as_wrong_passwords()
    {
        await SetUp(await server.SignedIn());
        var tablet = server.Browser();
        for (var i = 0; i < Attempts.Most; i++)
        {
            Assert.Equal(HttpStatusCode.Unauthorized, (await SignIn(tablet, "123123")).StatusCode);
        }
        Assert.Equal(HttpStatusCode.TooManyRequests, (await SignIn(tablet, null)).StatusCode);
    }

    [Fact]
    public async Task A_lost_telephone_is_answered_by_a_code_of_another_administrator()
    {
        var administrator = await server.SignedIn();
        var (lost, email) = await server.Joins(Role.Trainer);
        await SetUp(lost);
        var line = (await administrator.Get<AccountsView>("/api/accounts")).Accounts.Single(a =>
            a.Email == email
        );
        var made = await administrator.Post($"/api/accounts/{line.Id}/reset", new { }).Ok<InvitationMade>();
        var tablet = server.Browser();
        (
            await tablet.Post(
                $"/api/invitations/{made.Code}",
                new TakeInvitationForm("lanterns under the old quay")
            )
        ).EnsureSuccessStatusCode();
        Assert.False((await tablet.Get<AccountView>("/api/account")).SecondFactor);
        Assert.Equal(
            HttpStatusCode.NoContent,
            (await server.Browser().SignsIn(email, "lanterns under the old quay")).StatusCode
        );
    }

    [Fact]
    public async Task An_administrator_has_a_day_to_set_it_up_and_then_keeps_no_clinic_without()
    {
        var browser = await server.SignedIn();
        Assert.NotNull((await browser.Get<StartView>("/api/start")).SecondFactorDue);
        Assert.Equal(HttpStatusCode.OK, (await browser.GetAsync("/api/accounts")).StatusCode);
        clock.Go(SecondFactor.Grace.ToTimeSpan() + TimeSpan.FromMinutes(1));
        (await SignIn(browser, null)).EnsureSuccessStatusCode();
        var refused = await browser.GetAsync("/api/accounts");
        Assert.Equal(
            (HttpStatusCode.Forbidden, "second-factor"),
            (refused.StatusCode, await TypeOf(refused))
        );
        // The clients of a practitioner go on, and so does setting it up.
        await new Clinic(browser).NewClient();
        Assert.Equal(HttpStatusCode.OK, (await browser.GetAsync("/api/policies")).StatusCode);
        await SetUp(browser);
        Assert.Equal(HttpStatusCode.OK, (await browser.GetAsync("/api/accounts")).StatusCode);
        Assert.Null((await browser.Get<StartView>("/api/start")).SecondFactorDue);
    }

    [Fact]
    public async Task A_locked_tablet_answers_nothing_until_its_user_opens_it()
    {
        var browser = await server.SignedIn();
        foreach (var bad in new[] { "12345", "1234567890123", "12345a", "111111", "123456", "987654" })
        {
            Assert.Equal(
                ["value"],
                await browser
                    .Put("/api/account/pin", new PinForm(bad))
                    .RefusedFields(HttpStatusCode.UnprocessableEntity)
            );
        }
        (await browser.Put("/api/account/pin", new PinForm("482917"))).EnsureSuccessStatusCode();
        (await browser.PostAsync("/api/lock", null)).EnsureSuccessStatusCode();
        var locked = await browser.GetAsync("/api/day");
        Assert.Equal((HttpStatusCode.Locked, "locked"), (locked.StatusCode, await TypeOf(locked)));
        Assert.Equal(HttpStatusCode.Locked, (await browser.GetAsync("/api/account")).StatusCode);
        var start = await browser.Get<StartView>("/api/start");
        Assert.Equal(("Edda Marl", true, true), (start.SignedInAs, start.Locked, start.HasPin));
        Assert.Equal(
            ["pin"],
            await browser
                .Post("/api/unlock", new UnlockForm("482918"))
                .RefusedFields(HttpStatusCode.UnprocessableEntity)
        );
        (await browser.Post("/api/unlock", new UnlockForm("482917"))).EnsureSuccessStatusCode();
        Assert.Equal(HttpStatusCode.OK, (await browser.GetAsync("/api/day")).StatusCode);
        // Without the digits, by the password.
        (await browser.PostAsync("/api/lock", null)).EnsureSuccessStatusCode();
        (await browser.Post("/api/unlock", new UnlockForm(null, Staff.Password))).EnsureSuccessStatusCode();
        Assert.Equal(HttpStatusCode.OK, (await browser.GetAsync("/api/day")).StatusCode);
    }

    [Fact]
    public async Task After_five_wrong_digits_the_sign_in_is_over_and_a_colleague_is_not()
    {
        var browser = await server.SignedIn();
        (await browser.Put("/api/account/pin", new PinForm("482917"))).EnsureSuccessStatusCode();
        var other = server.Browser();
        (await SignIn(other, null)).EnsureSuccessStatusCode();
        (await browser.PostAsync("/api/lock", null)).EnsureSuccessStatusCode();
        var last = HttpStatusCode.OK;
        for (var i = 0; i < Attempts.Most; i++)
        {
            last = (await browser.Post("/api/unlock", new UnlockForm($"00000{i}"))).StatusCode;
        }
        Assert.Equal(HttpStatusCode.Unauthorized, last);
        Assert.Null((await browser.Get<StartView>("/api/start")).SignedInAs);
        Assert.Equal(HttpStatusCode.OK, (await other.GetAsync("/api/day")).StatusCode);
    }

    [Fact]
    public async Task Whoever_takes_a_tablet_over_ends_the_sign_in_of_before()
    {
        var browser = await server.SignedIn();
        var (_, email) = await server.Joins(Role.Trainer);
        var watching = server.Browser();
        (await SignIn(watching, null)).EnsureSuccessStatusCode();
        async Task<int> OfEdda() =>
            (await watching.Get<IReadOnlyList<SignInView>>("/api/account/sign-ins")).Count;
        var before = await OfEdda();
        (await browser.SignsIn(email)).EnsureSuccessStatusCode();
        Assert.Equal("Some Body", (await browser.Get<StartView>("/api/start")).SignedInAs);
        Assert.Equal(before - 1, await OfEdda());
    }

    [Theory]
    [InlineData("POST", "/api/account/second-factor")]
    [InlineData("DELETE", "/api/account/second-factor")]
    [InlineData("POST", "/api/account/second-factor/recovery-codes")]
    [InlineData("PUT", "/api/account/pin")]
    [InlineData("POST", "/api/backups")]
    public async Task What_opens_doors_wants_the_password_again(string method, string path)
    {
        var browser = await server.SignedIn();
        clock.Go(TimeSpan.FromMinutes(6));
        using var request = new HttpRequestMessage(new HttpMethod(method), path);
        var refused = await browser.SendAsync(request);
        Assert.Equal(
            (HttpStatusCode.Forbidden, "reauthenticate"),
            (refused.StatusCode, await TypeOf(refused))
        );
        (
            await browser.Post("/api/reauthenticate", new ConfirmForm(Staff.Password))
        ).EnsureSuccessStatusCode();
        using var again = new HttpRequestMessage(new HttpMethod(method), path);
        Assert.NotEqual(HttpStatusCode.Forbidden, (await browser.SendAsync(again)).StatusCode);
    }

    [Fact]
    public async Task Minutes_of_the_lock_are_the_clinics_own()
    {
        var browser = await server.SignedIn();
        var form = await browser.Get<ClinicForm>("/api/clinic");
        Assert.Equal(10, form.LockMinutes);
        foreach (var bad in new[] { 0, 61, -5 })
        {
            Assert.Equal(
                ["lockMinutes"],
                await browser
                    .Put("/api/clinic", form with { LockMinutes = bad })
                    .RefusedFields(HttpStatusCode.UnprocessableEntity)
            );
        }
        await browser.Put("/api/clinic", form with { LockMinutes = 3 }).Ok<ClinicForm>();
        Assert.Equal(3, (await browser.Get<StartView>("/api/start")).LockMinutes);
        // An older client does not name it: it stays.
        var stored = await browser.Get<ClinicForm>("/api/clinic");
        await browser.Put("/api/clinic", stored with { LockMinutes = null }).Ok<ClinicForm>();
        Assert.Equal(3, (await browser.Get<StartView>("/api/start")).LockMinutes);
    }
}
