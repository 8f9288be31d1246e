using SpringLoft.Core.Letters;
using SpringLoft.Core.School;
using SpringLoft.Store.Letters;
using SpringLoft.Store.School;

namespace SpringLoft.App.Letters;

/// <summary>Sends what was written. Whoever writes a letter waits for no mail server, and nothing else stops because one is away.</summary>
public sealed class SendingLetters(Premises premises, IPost post)
{
    private const int AtOnce = 50;

    /// <summary>Tries the letters whose turn it is.</summary>
    /// <returns>How many were tried; more may wait.</returns>
    public int Go(CancellationToken stop)
    {
        var due = premises.Db.Read(c => LetterStore.Due(c, premises.Clock.Now, AtOnce));
        for (var i = 0; i < due.Count; i++)
        {
            stop.ThrowIfCancellationRequested();
            var l = due[i];
            try
            {
                var text = l.Text ?? throw new NotTakenException(NotTaken.Never, "Its text can't be opened: the keys that it was sealed with are gone. Write to them again.");
                post.Send(l.Id, l.ToAddress, l.ToName, l.Subject, text, l.WrittenAt);
                premises.Db.Write(c => LetterStore.Sent(c, l.Id, premises.Clock.Now));
            }
            catch (NotTakenException e)
            {
                // A server that is away takes none of them: they are put off together, not each after waiting in vain.
                var put = e.Why == NotTaken.ServerAway ? due.Skip(i) : [l];
                premises.Db.Write(c =>
                {
                    var now = premises.Clock.Now;
                    foreach (var p in put) LetterStore.NotSent(c, p.Id, e.Message, LetterRetries.Next(p.Tries + 1, p.WrittenAt, now, e.Why == NotTaken.Never), now);
                });
                if (e.Why == NotTaken.ServerAway) return i + 1;
            }
        }
        return due.Count;
    }

    /// <summary>Takes letters off the list that were sent or given up longer ago than the school's rule lists them.</summary>
    /// <returns>How many.</returns>
    public int LetGo()
    {
        var (gone, listed) = premises.Db.Write(c =>
        {
            var days = Duration.FromDays(RulesStore.Get(c).Rules.LetterDays);
            var removed = LetterStore.RemoveBefore(c, premises.Clock.Now - days);
            RulesStore.NoteLetGo(c, premises.Clock.Today, LetGoKind.Letters, removed);
            return (removed, days);
        });
        post.LetGo(premises.Clock.Real - listed);
        return gone;
    }
}
