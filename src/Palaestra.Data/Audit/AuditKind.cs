namespace Palaestra.Data.Audit;

/// <summary>What an entry of the audit tells of.</summary>
public enum AuditKind
{
    /// <summary>A record was looked at.</summary>
    View,

    /// <summary>Something was stored; the payload holds what was before and after.</summary>
    Change,

    /// <summary>Something left the house: a file, a print.</summary>
    Export,

    /// <summary>Somebody signed in or out, or a sign-in was ended.</summary>
    SignIn,

    /// <summary>Somebody was refused.</summary>
    Refusal,

    /// <summary>For some time nothing could be written here.</summary>
    Gap,
}
