using SpringLoft.App.Workspaces;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Assignments;

namespace SpringLoft.App.Assignments;

/// <summary>A phrase of one's own.</summary>
public sealed record PhraseView(long Id, string Text);

/// <summary>What somebody writes again and again about work, kept to be put into a comment; each has theirs, nobody sees another's.</summary>
public sealed class Phrases(Premises premises)
{
    /// <summary>Most of one person.</summary>
    public const int Most = 200;

    private const int MostText = 1000;

    /// <summary>The asker's.</summary>
    public IReadOnlyList<PhraseView> See(Caller who) => premises.Db.Read(c =>
    {
        ClassGate.Demand(who, Act.KeepPhrases);
        return PhraseStore.Of(c, who.Id).Select(p => new PhraseView(p.Id, p.Text)).ToList();
    });

    /// <summary>Keeps one; one that is kept already stays as it is.</summary>
    /// <exception cref="RefusedException"><c>missing</c>, <c>too-long</c>, <c>too-many</c>.</exception>
    public void Keep(Caller by, string? text)
    {
        ClassGate.Demand(by, Act.KeepPhrases);
        var said = Refusals.Needed(text, "text", "The phrase", MostText);
        premises.Db.Write(c =>
        {
            if (PhraseStore.Of(c, by.Id).Count >= Most) throw new RefusedException("too-many", $"You have {Most} phrases already.", "Remove some that you do not use.", "text");
            PhraseStore.Add(c, by.Id, said);
        });
    }

    /// <summary>Lets go of one.</summary>
    public void Remove(Caller by, long id) => premises.Db.Write(c =>
    {
        ClassGate.Demand(by, Act.KeepPhrases);
        if (!PhraseStore.Remove(c, by.Id, id)) throw Refusals.NotFound("phrase of yours");
    });
}
