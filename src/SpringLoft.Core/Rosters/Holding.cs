using SpringLoft.Core.Workspaces;

namespace SpringLoft.Core.Rosters;

/// <summary>
/// Which changes of a delivery wait until a person says yes: a class that would lose more than a fifth of its students
/// (3 at the least), a school more than a twentieth of them or of its staff; a file that came empty; a delivery outside the year's dates; a person
/// in conflict. Source: docs/rules.md, "People and rosters".
/// </summary>
public static class Holding
{
    /// <summary>Fewest students that a class must lose to be held.</summary>
    public const int FewestOfClass = 3;

    /// <summary>Puts the holds on the changes.</summary>
    /// <param name="before">Holds found while comparing: people who are unclear, classes that are gone.</param>
    /// <param name="standing">Keys of holds from comparing this delivery before. What was applied since may have filled a class so that the loss is a fifth no more: no person has said yes by that.</param>
    internal static (IReadOnlyList<RosterChange> Changes, IReadOnlyList<Hold> Holds) Of(List<RosterChange> changes, List<Hold> before, RosterDelivery delivery, RosterToday today, IReadOnlySet<string> standing)
    {
        var holds = new List<Hold>(before);
        var all = Outside(delivery, today, holds);
        if (changes.Count == 0) return (changes, holds);
        var people = today.People.Where(p => p.Active).ToDictionary(p => p.Id);
        var perClass = today.Members.Where(m => !m.Left && m.Role == ClassRole.Student).GroupBy(m => m.Class).ToDictionary(g => g.Key, g => g.Count());
        var byClass = Classes(changes, perClass, today, holds, standing);
        var bySchool = Schools(changes, people, today, holds, standing);
        var (noPeople, classes, enrollments) = (Empty(delivery.PeopleList, delivery.People.Count, "people", holds, changes, ChangeKind.PersonGone),
            Empty(delivery.ClassList, delivery.Classes.Count, "classes", holds, changes, ChangeKind.ClassGone), Empty(delivery.EnrollmentList, delivery.Enrollments.Count, "enrollments", holds, changes, ChangeKind.Leaves));
        if (holds.Count == before.Count && before.Count == 0) return (changes, holds);
        var held = changes.Select(c =>
        {
            List<string>? keys = null;
            void On(string? key) { if (key is not null) (keys ??= [.. c.Holds]).Add(key); }
            On(all);
            if (LosesClass(c) is { } k) On(byClass.GetValueOrDefault(k));
            if (c.Kind is ChangeKind.PersonGone or ChangeKind.Leaves && c.Person is { } p) On(bySchool.GetValueOrDefault(p));
            if (c.Kind == ChangeKind.PersonGone) On(noPeople);
            if (c.Kind == ChangeKind.ClassGone) On(classes);
            if (c.Kind is ChangeKind.Leaves or ChangeKind.Moves) On(enrollments);
            return keys is null ? c : c with { Holds = keys };
        }).ToList();
        return (held, holds);
    }

    /// <summary>Is so much of a class's roster gone that a person must say yes?</summary>
    public static bool ClassIsHeld(int before, int losing) => losing >= FewestOfClass && losing * 5 > before;

    /// <summary>Is so much of a school gone that a person must say yes?</summary>
    public static bool SchoolIsHeld(int before, int losing) => losing * 20 > before && losing > 0;

    // The class that loses a student by the change; null if none does.
    private static ClassId? LosesClass(RosterChange c) => c switch
    {
        { Kind: ChangeKind.Leaves, Role: ClassRole.Student } => c.Class,
        { Kind: ChangeKind.Moves } => c.FromClass,
        _ => null,
    };

    private static Dictionary<ClassId, string> Classes(List<RosterChange> changes, Dictionary<ClassId, int> perClass, RosterToday today, List<Hold> holds, IReadOnlySet<string> standing)
    {
        var names = today.Classes.ToDictionary(k => k.Id, k => k.Name);
        var held = new Dictionary<ClassId, string>();
        foreach (var g in changes.Select(LosesClass).OfType<ClassId>().GroupBy(k => k))
        {
            var (losing, before) = (g.Count(), perClass.GetValueOrDefault(g.Key));
            var key = $"class:{g.Key.Value}";
            if (!ClassIsHeld(before, losing) && !standing.Contains(key)) continue;
            held[g.Key] = key;
            holds.Add(new(key, HoldKind.ClassLoses, $"“{names[g.Key]}” would lose {losing} of its {before} students.", g.Key, null, []));
        }
        return held;
    }

    // Students and staff of each school by themselves: who would be gone, or in no class any more.
    private static Dictionary<PersonId, string> Schools(List<RosterChange> changes, Dictionary<PersonId, TodayPerson> people, RosterToday today, List<Hold> holds, IReadOnlySet<string> standing)
    {
        var had = new Dictionary<PersonId, int>();
        foreach (var m in today.Members) if (!m.Left) had[m.Person] = had.GetValueOrDefault(m.Person) + 1;
        var after = new Dictionary<PersonId, int>(had);
        var losing = new HashSet<PersonId>();
        foreach (var c in changes)
        {
            if (c.Person is not { } p) continue;
            // Of staff whom somebody is asked about already, that question is enough.
            if (c.Holds.Count > 0 && people.TryGetValue(p, out var asked) && asked.Role != SchoolRole.Student) continue;
            if (c.Kind == ChangeKind.PersonGone) losing.Add(p);
            else if (c.Kind == ChangeKind.Leaves) after[p] = after.GetValueOrDefault(p) - 1;
            else if (c.Kind == ChangeKind.Joins) after[p] = after.GetValueOrDefault(p) + 1;
        }
        foreach (var (p, n) in after) if (n <= 0 && had.GetValueOrDefault(p) > 0) losing.Add(p);
        (bool Students, string School) Of(TodayPerson p) => (p.Role == SchoolRole.Student, p.School ?? "");
        var held = new Dictionary<PersonId, string>();
        foreach (var g in losing.Where(people.ContainsKey).GroupBy(p => Of(people[p])))
        {
            var (students, school) = g.Key;
            var before = people.Values.Count(p => Of(p) == g.Key);
            var key = $"{(students ? "school" : "staff")}:{school}";
            if (!SchoolIsHeld(before, g.Count()) && !standing.Contains(key)) continue;
            var called = school.Length == 0 ? "The school" : school;
            holds.Add(students ? new(key, HoldKind.SchoolLoses, $"{called} would lose {g.Count()} of its {before} students: they would be gone or in no class.", null, null, [])
                : new(key, HoldKind.StaffLoses, $"{called} would lose {g.Count()} of its {before} staff: they could no longer sign in, or would be in none of their classes.", null, null, []));
            foreach (var p in g) held[p] = key;
        }
        return held;
    }

    private static string? Outside(RosterDelivery delivery, RosterToday today, List<Hold> holds)
    {
        if (delivery is not { First: { } first, Last: { } last } || (first <= today.YearLast && last >= today.YearFirst)) return null;
        holds.Add(new("dates", HoldKind.OutsideDates, $"The delivery is for {first:uuuu-MM-dd} to {last:uuuu-MM-dd}; {today.YearLabel} runs from {today.YearFirst:uuuu-MM-dd} to {today.YearLast:uuuu-MM-dd}.", null, null, []));
        return "dates";
    }

    private static string? Empty(DeliveredList? list, int rows, string what, List<Hold> holds, List<RosterChange> changes, ChangeKind loses)
    {
        if (list is not { Whole: true } || rows > 0 || changes.All(c => c.Kind != loses)) return null;
        var key = $"empty:{what}";
        holds.Add(new(key, HoldKind.CameEmpty, $"“{list.File}” came empty: it would take away all {what} that the records had brought.", null, null, []));
        return key;
    }
}
