namespace Palaestra.Data.Staff;

/// <summary>What somebody may do here; several add up. What each may is told by the server's table of permissions.</summary>
public enum Role
{
    /// <summary>Keeps accounts, the clinic, policies, backups.</summary>
    Administrator,

    /// <summary>Everything clinical.</summary>
    Practitioner,

    /// <summary>Runs screens and sessions, logs and proposes.</summary>
    Trainer,

    /// <summary>The day, bookings and how to reach clients; nothing clinical.</summary>
    Reception,
}
