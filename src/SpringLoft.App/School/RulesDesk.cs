using SpringLoft.Core.People;
using SpringLoft.Core.School;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Files;
using SpringLoft.Store.People;
using SpringLoft.Store.School;

namespace SpringLoft.App.School;

/// <summary>The school's rules, with what they mean now.</summary>
/// <param name="WithoutStep">Staff who can sign in and have no second step, by role.</param>
/// <param name="SchoolBytes">All that is kept, each file once.</param>
/// <param name="BinDays">Days that what is binned waits; the same at every school.</param>
/// <param name="LetGo">What was let go of by these rules, newest first.</param>
public sealed record RulesView(SchoolRules Rules, int Version, WithoutStep WithoutStep, long SchoolBytes, IReadOnlyList<UsageRow> LargestClasses, IReadOnlyList<UsageRow> LargestPeople, int BinDays, IReadOnlyList<LetGoRow> LetGo);

/// <summary>How many have no second step yet.</summary>
public sealed record WithoutStep(int Coordinators, int Others);

/// <summary>What other rules would do, before they are laid down.</summary>
/// <param name="AskedToSetUp">Staff who would be asked to set up a second step when they sign in next.</param>
/// <param name="Lines">Lines of the audit trail that would go.</param>
/// <param name="People">People who left and would be erased.</param>
/// <param name="FullClasses">Classes that have more in them than they would have room for: nothing is taken out of them.</param>
public sealed record RulesPreview(int AskedToSetUp, long Lines, int People, IReadOnlyList<UsageRow> FullClasses);

/// <summary>Lays down what holds for the whole school.</summary>
public sealed class RulesDesk(Premises premises)
{
    private const int Shown = 5;
    private const int LetGoShown = 20;

    /// <summary>The rules as they are.</summary>
    public RulesView See() => premises.Db.Read(c =>
    {
        var (rules, version) = RulesStore.Get(c);
        var without = Without(c);
        return new RulesView(rules, version, new(without.Count(p => p.Role == SchoolRole.Coordinator), without.Count(p => p.Role != SchoolRole.Coordinator)), UsageStore.OfSchool(c),
            UsageStore.LargestClasses(c, Shown), UsageStore.LargestPeople(c, Shown), Binning.Days, RulesStore.LetGo(c, LetGoShown));
    });

    /// <summary>What other rules would do. Writes nothing.</summary>
    /// <exception cref="RefusedException"><c>rule-range</c>.</exception>
    public RulesPreview Preview(SchoolRules next)
    {
        next.Check();
        return premises.Db.Read(c => new RulesPreview(
            Without(c).Count(p => SecondStepRules.IsRequired(next.SecondStep, p.Role)),
            next.AuditYears is { } years ? Store.Audit.AuditStore.CountBefore(c, premises.Clock.StartOf(premises.Clock.Today.PlusYears(-years))) : 0,
            next.PeopleYears is { } left ? ErasingStore.Left(c, premises.Clock.Today.PlusYears(-left)).Count : 0,
            next.ClassBytes() is { } most ? UsageStore.ClassesOver(c, most) : []));
    }

    /// <summary>Lays them down, at the version that was seen.</summary>
    public void Set(Caller by, SchoolRules next, int version)
    {
        next.Check();
        premises.Db.Write(c =>
        {
            var (before, _) = RulesStore.Get(c);
            if (!RulesStore.Set(c, next, version)) throw Refusals.ChangedMeanwhile("school's rules");
            Premises.Add(c, by, premises.Clock.Now, new("laid down rules", "school", null, null, Said(before, next)));
        });
    }

    // Each rule that is another one now, by its name.
    private static string Said(SchoolRules before, SchoolRules next)
    {
        (string Name, object? Before, object? Next)[] all =
        [
            ("second step", before.SecondStep, next.SecondStep), ("MB of a file", before.FileMegabytes, next.FileMegabytes), ("MB of a student", before.PersonMegabytes, next.PersonMegabytes),
            ("MB of a class", before.ClassMegabytes, next.ClassMegabytes), ("GB of the school", before.SchoolGigabytes, next.SchoolGigabytes), ("years of the audit trail", before.AuditYears, next.AuditYears),
            ("days of letters", before.LetterDays, next.LetterDays), ("days of leavers' take-homes", before.LeaverDays, next.LeaverDays), ("years of people who left", before.PeopleYears, next.PeopleYears),
            ("hours of a sign-in without use", before.IdleHours, next.IdleHours), ("days of a sign-in", before.MostDays, next.MostDays),
            ("activity", Kept(before.KeepsActivity), Kept(next.KeepsActivity)),
        ];
        return string.Join("; ", all.Where(r => !Equals(r.Before, r.Next)).Select(r => $"{r.Name}: {r.Before ?? "no limit"} to {r.Next ?? "no limit"}"));
    }

    private static string Kept(bool kept) => kept ? "kept" : "not kept";

    private static IReadOnlyList<PersonRow> Without(System.Data.IDbConnection c)
    {
        var having = SecondStepStore.Having(c);
        return [.. PersonStore.Staff(c).Where(p => p.Active && !having.Contains(p.Id))];
    }
}
