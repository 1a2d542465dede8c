using Palaestra.Data.Staff;
using Palaestra.Server.Clinics;

namespace Palaestra.Server.People;

public static class AccountReading
{
    public static OwnReading Reading(this Practitioner account) =>
        new(account.DateOrder, account.WeekStart, account.Units);
}
