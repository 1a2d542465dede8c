namespace Palaestra.Data.Keeping;

/// <summary>Why a server does not start on a data folder. The number is the exit code; docs/clinic.md lists them.</summary>
public enum StartFault
{
    InUse = 10,
    NotWritable = 11,
    DatabaseMissing = 12,
    DatabaseEmpty = 13,
    NotADatabase = 14,
    DatabaseCut = 15,
    DatabaseDamaged = 16,
    DatabaseNewer = 17,
    AccountsGone = 18,
    LogLost = 19,
    NotMigrated = 20,
    Content = 21,
}

/// <summary>A start that was refused, with a sentence for whoever started the server. Nothing in the folder was changed.</summary>
public sealed class StartRefusedException(StartFault fault, string words, Exception? cause = null)
    : Exception(words, cause)
{
    public StartFault Fault { get; } = fault;
    public int ExitCode => (int)Fault;
}
