namespace Palaestra.Data.Intake;

/// <summary>What the client said when asked whether pictures of them may be kept.</summary>
/// <param name="By">Who asked.</param>
public sealed record PhotoConsent(bool Given, string By, DateTime At);
