using SpringLoft.App.Closing;
using SpringLoft.App.Letters;
using SpringLoft.App.People;
using SpringLoft.Store.Audit;
using SpringLoft.Store.School;

namespace SpringLoft.App.School;

/// <summary>Keeps the school's rules on how long things stay, once a day, and notes what went.</summary>
public sealed class Keeping(Premises premises, LastCopies copies, SendingLetters letters, Erasing erasing)
{
    /// <summary>What is noted of each kind.</summary>
    public const string Homes = "take-homes of people who left", Letters = "letters", Lines = "lines of the audit trail", People = "people who left";

    /// <summary>Lets go of what is older than the rules keep it.</summary>
    public void Go()
    {
        var today = premises.Clock.Today;
        Note(Homes, copies.LetGoOfLeavers());
        Note(Letters, letters.LetGo());
        // After their take-homes: what was theirs alone has waited for them.
        Note(People, erasing.ByRule());
        premises.Db.Write(c =>
        {
            if (RulesStore.Get(c).Rules.AuditYears is not { } years) return;
            var gone = AuditStore.LetGoBefore(c, premises.Clock.StartOf(today.PlusYears(-years)));
            RulesStore.NoteLetGo(c, today, Lines, gone);
            if (gone > 0) Premises.Add(c, null, premises.Clock.Now, new("let go of audit lines", "school", null, null, $"{gone}, older than {years} years"));
        });

        void Note(string kind, int many) => premises.Db.Write(c => RulesStore.NoteLetGo(c, today, kind, many));
    }
}
