namespace Palaestra.Data.Keeping;

/// <summary>A backup that is not taken, or not restored, with a sentence that says why. Nothing was changed.</summary>
public sealed class BackupRefusedException(string words, Exception? cause = null) : Exception(words, cause);
