using Microsoft.EntityFrameworkCore;
using NodaTime;
using Palaestra.Data;
using Palaestra.Data.Audit;
using Palaestra.Server.Clinics;

namespace Palaestra.Server.People;

/// <summary>
/// accounts reset NAME, at the machine: opens a clinic nobody can sign in to any more. Whoever can run it can read the database too.
/// Exit codes: 0 done, 1 refused, 2 not understood.
/// </summary>
public static class AccountsCommand
{
    public const string Usage =
        "accounts reset NAME   a code for a new password of the account with this e-mail or name";

    /// <returns>None where the words are no command of ours.</returns>
    public static async Task<int?> Run(string[] args, Settings settings)
    {
        if (args is not ["accounts", .. var rest])
        {
            return null;
        }
        if (rest is not ["reset", { Length: > 0 } name])
        {
            await Console.Error.WriteLineAsync(Usage);
            return 2;
        }
        if (!File.Exists(Path.Combine(settings.DataFolder, Store.FileName)))
        {
            await Console.Error.WriteLineAsync($"There is no database in {settings.DataFolder}.");
            return 1;
        }
        await using var db = Store.Open(settings.DataFolder);
        if ((await db.Database.GetPendingMigrationsAsync()).Any())
        {
            await Console.Error.WriteLineAsync("The database is of an older version: start the server once.");
            return 1;
        }
        var upper = name.ToUpperInvariant();
        var found = await db
            .Users.Where(u => u.NormalizedEmail == upper || u.DisplayName == name)
            .ToListAsync();
        if (found is not [var account])
        {
            await Console.Error.WriteLineAsync(
                found.Count == 0
                    ? $"Nobody here signs in as {name}."
                    : $"Several are called {name}: give the e-mail."
            );
            return 1;
        }
        var before = account.DisabledAt;
        account.DisabledAt = null;
        db.AuditNotes.Add(
            new AuditNote
            {
                At = SystemClock.Instance.GetCurrentInstant(),
                Kind = AuditKind.Change,
                By = "",
                What = "AccountReset",
                Payload =
                    $$"""{"account":"{{account.Id}}","letInAgain":{{(before is null ? "false" : "true")}}}""",
            }
        );
        var (code, invitation) = await new Accounts(db, new ClinicClock(TimeProvider.System)).Invite(
            account.DisplayName,
            account.Email!,
            account.Roles,
            "the machine",
            account.Id
        );
        Console.WriteLine(
            $"A code for {account.DisplayName}, until {invitation.EndsAt.ToDateTimeUtc():yyyy-MM-dd HH:mm} UTC, used once at /invitation: {code}"
        );
        return 0;
    }
}
