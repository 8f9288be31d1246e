using SpringLoft.Store.Workspaces;
using SpringLoft.Core.Workspaces;
using SpringLoft.App.Closing;
using SpringLoft.App.Letters;
using SpringLoft.App.People;
using SpringLoft.Core.School;
using SpringLoft.Store.Audit;
using SpringLoft.Store.School;

namespace SpringLoft.App.School;

/// <summary>Keeps the school's rules on how long things stay, once a day, and notes what went.</summary>
public sealed class Keeping(Premises premises, LastCopies copies, SendingLetters letters, Erasing erasing)
{
    /// <summary>Lets go of what is older than the rules keep it; each notes what went in the transaction in which it goes.</summary>
    public void Go()
    {
        copies.LetGoOfLeavers();
        letters.LetGo();
        // After their take-homes: what was theirs alone has waited for them.
        erasing.ByRule();
        premises.Db.Write(c =>
        {
            // Where the school keeps none any more, what was kept goes too.
            var before = RulesStore.Get(c).Rules.KeepsActivity ? premises.Clock.Today.PlusDays(-Activity.KeptDays) : premises.Clock.Today.PlusDays(1);
            RulesStore.NoteLetGo(c, premises.Clock.Today, LetGoKind.Activity, ActivityStore.LetGoBefore(c, before));
        });
        premises.Db.Write(c => Store.Assignments.AttachedStore.LetGoOfUploads(c, premises.Clock.Now - Duration.FromDays(Store.Assignments.AttachedStore.UploadDays)));
        premises.Db.Write(c =>
        {
            if (RulesStore.Get(c).Rules.AuditYears is not { } years) return;
            var today = premises.Clock.Today;
            var gone = AuditStore.LetGoBefore(c, premises.Clock.StartOf(today.PlusYears(-years)));
            RulesStore.NoteLetGo(c, today, LetGoKind.AuditLines, gone);
            if (gone > 0) Premises.Add(c, null, premises.Clock.Now, new("let go of audit lines", "school", null, null, $"{gone}, older than {years} years"));
        });
    }
}
