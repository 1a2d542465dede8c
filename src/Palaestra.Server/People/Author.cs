using NodaTime;
using Palaestra.Server.Clinics;

namespace Palaestra.Server.People;

/// <summary>Who writes, and when: whoever is signed in, now; where nobody is, as in the course of the demo, somebody who was told.</summary>
public sealed class Author(WhoIsHere who, ClinicClock clock)
{
    private (string Name, Guid? Account, Func<Instant> Now)? told;

    /// <summary>Empty where nobody is known: the server by itself.</summary>
    public string Name => told?.Name ?? who.SignIn?.Name ?? "";
    public Guid? AccountId => told is { } somebody ? somebody.Account : who.AccountId;
    public Instant Now => told?.Now() ?? clock.Now;

    /// <summary>What this scope writes from here on is written by somebody, at a time of their own.</summary>
    public void Is(string name, Guid? account, Func<Instant> now) => told = (name, account, now);
}
