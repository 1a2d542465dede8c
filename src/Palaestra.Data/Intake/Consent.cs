namespace Palaestra.Data.Intake;

/// <summary>What the client said when asked whether something of them may be kept or shown.</summary>
/// <param name="By">Who asked.</param>
public sealed record Consent(bool Given, string By, DateTime At);
