using System.Net.Http.Json;
using Palaestra.Data.Staff;
using Palaestra.Server.People;

namespace Palaestra.Server.Tests.Given;

/// <summary>Accounts of a clinic beside its first administrator.</summary>
public static class Staff
{
    public const string Password = "three quiet words";

    private static int count;

    /// <summary>A code for somebody who has no account yet.</summary>
    public static Task<InvitationMade> Invites(
        this HttpClient administrator,
        string name = "Rosa",
        string email = "rosa@clinic.example",
        params Role[] roles
    ) =>
        administrator
            .Post(
                "/api/accounts/invitations",
                new InvitationForm(name, email, roles.Length > 0 ? roles : [Role.Trainer])
            )
            .Ok<InvitationMade>();

    /// <summary>Somebody new with these roles, signed in on a browser of their own.</summary>
    public static async Task<(HttpClient Browser, string Email)> Joins(
        this RunningServer server,
        params Role[] roles
    )
    {
        var administrator = await server.SignedIn();
        var email = $"somebody{Interlocked.Increment(ref count)}@clinic.example";
        var made = await administrator.Invites("Some Body", email, roles);
        var browser = server.Browser();
        (
            await browser.Post($"/api/invitations/{made.Code}", new TakeInvitationForm(Password))
        ).EnsureSuccessStatusCode();
        return (browser, email);
    }

    public static async Task<HttpResponseMessage> SignsIn(
        this HttpClient browser,
        string email,
        string password = Password
    ) => await browser.PostAsJsonAsync("/api/sign-in", new { email, password });
}
