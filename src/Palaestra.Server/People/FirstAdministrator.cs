using System.Security.Cryptography;
using System.Text;
using Palaestra.Data;
using Palaestra.Data.Keeping;

namespace Palaestra.Server.People;

/// <summary>
/// The code with which an empty clinic gets its first administrator: made at the start, told on the console and in a file that
/// only this account reads, used once. A folder that ever held a clinic has none.
/// </summary>
public sealed class FirstAdministrator(Settings settings)
{
    public const string FileName = "first-admin-code";

    private readonly string path = Path.Combine(settings.DataFolder, FileName);

    /// <summary>One at a time: of many who ask at once, one becomes the first.</summary>
    public SemaphoreSlim Turn { get; } = new(1);

    /// <summary>Whether a first administrator may be made; false for a folder that ever held a clinic.</summary>
    public bool Open => !settings.Demo && !ClinicMark.Stands(settings.DataFolder);

    /// <summary>At a start: marks a folder that has accounts, and gives an empty one its code.</summary>
    /// <returns>The code to be told; none where somebody can sign in already.</returns>
    public async Task<string?> Offer(DateTimeOffset now)
    {
        if (settings.Demo)
        {
            return null;
        }
        if (await Store.HasAccounts(settings.DataFolder))
        {
            Close(now);
            return null;
        }
        if (Known() is not { } code)
        {
            code = InvitationCode.New();
            WholeFile.Write(path, code + "\n");
        }
        return code;
    }

    public bool Is(string? told) =>
        Known() is { } code && CryptographicOperations.FixedTimeEquals(Bytes(code), Bytes(told ?? ""));

    /// <summary>Somebody can sign in: never again.</summary>
    public void Close(DateTimeOffset now)
    {
        ClinicMark.Put(settings.DataFolder, now);
        File.Delete(path);
    }

    private string? Known() =>
        File.Exists(path) && File.ReadAllText(path).Trim() is { Length: >= InvitationCode.Letters } code
            ? code
            : null;

    private static byte[] Bytes(string code) => Encoding.UTF8.GetBytes(InvitationCode.Plain(code));
}
