using System.Globalization;
using F23.StringSimilarity;
using Microsoft.EntityFrameworkCore;
using Palaestra.Data;
using Palaestra.Data.Intake;
using Palaestra.Server.Clinics;

namespace Palaestra.Server.Clients;

/// <summary>A client in a list, with the episode to open.</summary>
/// <param name="EpisodeId">The one seen last, open ones first; none: nothing was opened yet.</param>
/// <param name="VisitId">The latest of its visits; none: there is none.</param>
/// <param name="Complaint">Empty for whoever may not read what is clinical.</param>
/// <param name="Discharged">All their episodes are.</param>
public sealed record ClientLine(
    Guid? EpisodeId,
    Guid? VisitId,
    string Name,
    string Complaint,
    Guid ClientId,
    string Number,
    DateOnly BirthDate,
    bool Discharged,
    bool Archived
);

/// <summary>Somebody who may be the same person.</summary>
/// <param name="Sure">Name and birth date are the same.</param>
public sealed record AlikeClient(
    Guid ClientId,
    string Number,
    string Name,
    DateOnly BirthDate,
    string? Phone,
    bool Sure
);

/// <summary>Finds clients by folded name, number, birth date, telephone and, for whoever may, complaint.</summary>
public sealed class ClientSearch(PalaestraDb db, ClinicClock clock)
{
    private const int Most = 30;

    /// <summary>A telephone of fewer digits is nobody's.</summary>
    private const int PhoneDigits = 6;

    /// <summary>Letters two spellings of one name differ in at most.</summary>
    private const int LettersApart = 2;

    /// <summary>Those seen last first.</summary>
    /// <param name="words">All of them are found in a client; empty: everybody.</param>
    /// <param name="archived">Those that were put away, instead of the others.</param>
    /// <param name="without">Episodes whose clients are left out.</param>
    public async Task<IReadOnlyList<ClientLine>> Find(
        string? words,
        bool clinical,
        bool archived = false,
        IReadOnlyCollection<Guid>? without = null
    )
    {
        var sought = (words ?? "").Trim();
        var clients = archived
            ? db.Clients.Where(c => c.ArchivedAt != null && c.MergedIntoId == null)
            : db.Clients.Where(c => c.ArchivedAt == null && c.MergedIntoId == null);
        if (without is { Count: > 0 })
        {
            clients = clients.Where(c => !db.Episodes.Any(e => e.ClientId == c.Id && without.Contains(e.Id)));
        }
        var found = sought.Length == 0 ? clients : Matching(clients, sought, clinical);
        var rows = await (
            from client in found.AsNoTracking()
            join episode in db.Episodes on client.Id equals episode.ClientId into episodes
            from episode in episodes.DefaultIfEmpty()
            join standing in db.Standings on episode.Id equals standing.EpisodeId into standings
            from standing in standings.DefaultIfEmpty()
            orderby episode.DischargedOn == null descending, standing.LatestOn descending, client.Name
            select new
            {
                client.Id,
                client.Name,
                client.Number,
                client.BirthDate,
                client.ArchivedAt,
                EpisodeId = episode == null ? null : (Guid?)episode.Id,
                Complaint = episode == null ? "" : episode.Complaint,
                DischargedOn = episode == null ? null : episode.DischargedOn,
                VisitId = standing == null ? null : (Guid?)standing.LatestVisitId,
            }
        )
            .Take(3 * Most)
            .ToListAsync();
        return
        [
            .. rows.DistinctBy(row => row.Id)
                .Take(Most)
                .Select(row => new ClientLine(
                    row.EpisodeId,
                    row.VisitId == Guid.Empty ? null : row.VisitId,
                    row.Name,
                    clinical ? row.Complaint : "",
                    row.Id,
                    row.Number,
                    row.BirthDate,
                    row.DischargedOn is not null,
                    row.ArchivedAt is not null
                )),
        ];
    }

    private IQueryable<Client> Matching(IQueryable<Client> clients, string sought, bool clinical)
    {
        var named = clients;
        var words = WordsOf(sought);
        foreach (var word in words)
        {
            named = named.Where(c => c.SearchText.Contains(word));
        }
        if (!clinical)
        {
            return words.Count == 0 ? clients.Where(c => false) : named;
        }
        var like = $"%{Escaped(sought)}%";
        var complaining = clients.Where(c =>
            db.Episodes.Any(e => e.ClientId == c.Id && EF.Functions.Like(e.Complaint, like, "\\"))
        );
        return words.Count == 0
            ? complaining
            : clients.Where(c => named.Contains(c) || complaining.Contains(c));
    }

    private static string Escaped(string text) =>
        text.Replace("\\", @"\\", StringComparison.Ordinal)
            .Replace("%", @"\%", StringComparison.Ordinal)
            .Replace("_", @"\_", StringComparison.Ordinal);

    /// <summary>Folded; a birth date as it is stored, a telephone as its digits.</summary>
    private IReadOnlyList<string> WordsOf(string sought)
    {
        if (DayOf(sought) is { } day)
        {
            return [day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture)];
        }
        if (
            sought.All(c => char.IsAsciiDigit(c) || c is '+' or '-' or '/' or '(' or ')' or ' ' or '.')
            && FoldedName.Digits(sought) is { Length: >= PhoneDigits } digits
        )
        {
            // What stands before the area differs with where it is dialled from.
            return [digits.TrimStart('0')];
        }
        return
        [
            .. sought
                .Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries)
                .SelectMany(word =>
                    DayOf(word) is { } born
                        ? [born.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture)]
                        : FoldedName.Of(word).Split(' ', StringSplitOptions.RemoveEmptyEntries)
                ),
        ];
    }

    /// <summary>A date as people write it, in the clinic's order or the year first.</summary>
    private DateOnly? DayOf(string text)
    {
        string[] own = clock.Order switch
        {
            DateOrder.MonthDayYear => ["M/d/yyyy", "M.d.yyyy", "M-d-yyyy"],
            _ => ["d.M.yyyy", "d/M/yyyy", "d-M-yyyy"],
        };
        return DateOnly.TryParseExact(
            text,
            ["yyyy-M-d", .. own],
            CultureInfo.InvariantCulture,
            DateTimeStyles.None,
            out var day
        )
            ? day
            : null;
    }

    /// <summary>
    /// Who may be the same: the same name, in any order of its words; the same birth date and a name that shares a word or is nearly
    /// spelled so; the same telephone. The sure ones first.
    /// </summary>
    /// <param name="besides">A client who is not meant; none: a new one is asked for.</param>
    public async Task<IReadOnlyList<AlikeClient>> Alike(
        string name,
        DateOnly? birthDate,
        string? phone,
        Guid? besides
    )
    {
        var words = SortedWords(name);
        var digits = FoldedName.Digits(phone);
        var known = await db
            .Clients.AsNoTracking()
            .Where(c => c.MergedIntoId == null && c.Id != besides)
            .Select(c => new
            {
                c.Id,
                c.Number,
                c.Name,
                c.BirthDate,
                c.Phone,
            })
            .ToListAsync();
        return
        [
            .. known
                .Select(c => (Client: c, Words: SortedWords(c.Name)))
                .Where(c =>
                    words.Count > 0 && c.Words.SequenceEqual(words)
                    || c.Client.BirthDate == birthDate && Resemble(c.Words, words)
                    || digits.Length >= PhoneDigits && FoldedName.Digits(c.Client.Phone) == digits
                )
                .Select(c => new AlikeClient(
                    c.Client.Id,
                    c.Client.Number,
                    c.Client.Name,
                    c.Client.BirthDate,
                    c.Client.Phone,
                    c.Client.BirthDate == birthDate && c.Words.SequenceEqual(words)
                ))
                .OrderByDescending(c => c.Sure)
                .ThenBy(c => c.Name, StringComparer.Ordinal)
                .Take(Most),
        ];
    }

    private static List<string> SortedWords(string name) =>
        [
            .. FoldedName
                .Of(name)
                .Split(' ', StringSplitOptions.RemoveEmptyEntries)
                .Order(StringComparer.Ordinal),
        ];

    private static bool Resemble(List<string> one, List<string> other) =>
        one.Exists(word => word.Length > LettersApart && other.Contains(word))
        || one.Count > 0
            && other.Count > 0
            && new Levenshtein().Distance(string.Join(' ', one), string.Join(' ', other)) <= LettersApart;
}
