using SpringLoft.Core.Letters;
using SpringLoft.Store.Letters;

namespace SpringLoft.App.Letters;

/// <summary>A letter as a coordinator sees it: never its text, which is for whom it is written to.</summary>
/// <param name="NextAt">When it is tried next; null if it is not waiting, or is tried at once.</param>
/// <param name="Trouble">Why the last try failed.</param>
/// <param name="MayTryAgain">False if it is sent, or was taken back.</param>
public sealed record LetterView(long Id, string To, string Subject, Instant WrittenAt, LetterState State, int Tries, Instant? NextAt, Instant? SentAt, string? Trouble, bool MayTryAgain);

/// <summary>The letters.</summary>
/// <param name="StayHere">True if no mail server is connected: letters are kept on this machine and go to nobody.</param>
/// <param name="TriedForDays">For how long a letter that is not taken is tried again.</param>
public sealed record LettersView(bool StayHere, int TriedForDays, IReadOnlyList<LetterView> Letters);

/// <summary>Letters on their way, and what became of those before.</summary>
public sealed class LetterDesk(Premises premises, IPost post)
{
    private const int Most = 200;

    /// <summary>Those that are not sent first, then the newest.</summary>
    public LettersView See() => new(post.KeepsThem, (int)LetterRetries.Patience.TotalDays, premises.Db.Read(c => LetterStore.Newest(c, Most).Select(l =>
        new LetterView(l.Id, l.ToAddress, l.Subject, l.WrittenAt, l.State, l.Tries, l.State == LetterState.Waiting ? l.DueAt : null, l.SentAt, l.Trouble, l.State != LetterState.Sent && l.Text is not null)).ToList()));

    /// <summary>Has a letter tried at once, also one that was given up.</summary>
    /// <exception cref="RefusedException"><c>not-found</c>; <c>letter-sent</c>, <c>letter-taken-back</c>.</exception>
    public void TryAgain(Caller by, long id) => premises.Db.Write(c =>
    {
        var l = LetterStore.Find(c, id) ?? throw Refusals.NotFound("letter");
        if (l.State == LetterState.Sent) throw new RefusedException("letter-sent", "This letter is sent.", "There is nothing to try again.");
        if (l.Text is null) throw new RefusedException("letter-taken-back", "This letter was taken back.", "Write it anew where it came from.");
        LetterStore.Again(c, id, premises.Clock.Now);
        Premises.Add(c, by, premises.Clock.Now, new("had letter tried again", "letter", id, null, $"{l.ToAddress}: {l.Subject}"));
    });
}
