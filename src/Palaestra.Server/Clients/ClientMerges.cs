using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Palaestra.Data;
using Palaestra.Data.Intake;
using Palaestra.Server.People;
using Palaestra.Server.Problems;

namespace Palaestra.Server.Clients;

/// <summary>Files episodes under another client: all of somebody who is the same person, or one that is not theirs. Nothing is lost, and the record says so.</summary>
public sealed class ClientMerges(PalaestraDb db, Author author)
{
    /// <returns>What is wrong; none: it is done.</returns>
    public async Task<ProblemHttpResult?> Merge(Guid fromId, Guid intoId, string reason)
    {
        if (await db.Clients.FindAsync(fromId) is not { } from)
        {
            return Problem.NotFound("client");
        }
        if (intoId == fromId || await db.Clients.FindAsync(intoId) is not { } into)
        {
            return Problem.Field("intoId", Message.Of("client.merge-into"));
        }
        if (from.MergedIntoId is not null || into.MergedIntoId is not null)
        {
            return Problem.Conflict(Message.Of("client.merged"));
        }
        foreach (var episode in await db.Episodes.Where(e => e.ClientId == fromId).ToListAsync())
        {
            Move(episode, from.Id, into.Id, reason);
        }
        // Whoever was merged into this one before is the same person too.
        foreach (var older in await db.Clients.Where(c => c.MergedIntoId == fromId).ToListAsync())
        {
            older.MergedIntoId = intoId;
        }
        from.MergedIntoId = intoId;
        from.Version++;
        Complete(into, from);
        into.ArchivedAt = null;
        into.Version++;
        return await db.SavedFirst() ? null : Problem.Conflict(Message.Of("conflict.changed"));
    }

    /// <param name="toId">None: <paramref name="fresh"/> is made.</param>
    public async Task<(Guid? Client, ProblemHttpResult? Problem)> File(
        Guid episodeId,
        Guid? toId,
        ClientForm? fresh,
        string reason
    )
    {
        if (await db.Episodes.FindAsync(episodeId) is not { } episode)
        {
            return (null, Problem.NotFound("episode"));
        }
        Client to;
        if (toId is { } id)
        {
            if (id == episode.ClientId || await db.Clients.FindAsync(id) is not { } known)
            {
                return (null, Problem.Field("clientId", Message.Of("client.file-under")));
            }
            // One that was merged by mistake stands for themselves again.
            known.MergedIntoId = null;
            known.ArchivedAt = null;
            known.Version++;
            to = known;
        }
        else
        {
            to = new Client { Name = "" };
            ClientCards.Write(fresh!, to);
            db.Clients.Add(to);
        }
        Move(episode, episode.ClientId, to.Id, reason);
        return await db.SavedFirst()
            ? (to.Id, null)
            : (null, Problem.Conflict(Message.Of("conflict.changed")));
    }

    private void Move(Episode episode, Guid from, Guid to, string reason)
    {
        episode.ClientId = to;
        episode.Version++;
        db.EpisodeMoves.Add(
            new()
            {
                EpisodeId = episode.Id,
                FromClientId = from,
                ToClientId = to,
                Reason = reason,
                At = author.Now,
                By = author.Name,
                AccountId = author.AccountId,
            }
        );
    }

    /// <summary>What is known of one alone is known of both.</summary>
    private static void Complete(Client into, Client from)
    {
        into.Phone ??= from.Phone;
        into.Email ??= from.Email;
        into.Address ??= from.Address;
        into.Guardian ??= from.Guardian;
        into.InChargeId ??= from.InChargeId;
        into.Sex ??= from.Sex;
        into.Height ??= from.Height;
        into.Mass ??= from.Mass;
        if (from.DeskNotes is { } notes && into.DeskNotes != notes)
        {
            into.DeskNotes = into.DeskNotes is { } own ? $"{own}\n{notes}" : notes;
        }
    }
}
