namespace Palaestra.Core.Visits;

/// <summary>A visit as it takes up the time of a client and of whom they are booked with.</summary>
/// <param name="With">None: of nobody in particular.</param>
/// <param name="Minutes">1 or more.</param>
public sealed record BookedTime(Guid Visit, Guid Client, Guid? With, DateTimeOffset From, int Minutes)
{
    private DateTimeOffset To => From.AddMinutes(Minutes);

    /// <summary>Both take up the same minute; one that begins as the other ends does not.</summary>
    public bool Overlaps(BookedTime other) => From < other.To && other.From < To;

    /// <summary>Those that cannot both be kept: of the same client, or with the same person, at the same minute.</summary>
    /// <param name="booked">Visits that stand; the same visit among them is not counted.</param>
    public IReadOnlyList<BookedTime> Collisions(IEnumerable<BookedTime> booked) =>
        [
            .. booked.Where(other =>
                other.Visit != Visit
                && Overlaps(other)
                && (other.Client == Client || With is not null && other.With == With)
            ),
        ];
}
