namespace Palaestra.Server.Tablet;

/// <summary>Which visits of a day went along with a sign-in: noted in the audit once, however often what was taken is freshened.</summary>
public sealed class TakenAlong
{
    private readonly Lock gate = new();
    private readonly HashSet<(Guid SignIn, Guid Visit)> taken = [];
    private DateOnly of;

    /// <returns>True the first time on a day.</returns>
    public bool First(DateOnly day, Guid signIn, Guid visit)
    {
        lock (gate)
        {
            if (day != of)
            {
                taken.Clear();
                of = day;
            }
            return taken.Add((signIn, visit));
        }
    }
}
