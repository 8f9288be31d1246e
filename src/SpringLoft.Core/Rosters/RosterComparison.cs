using SpringLoft.Core.Naming;
using SpringLoft.Core.People;
using SpringLoft.Core.Workspaces;

namespace SpringLoft.Core.Rosters;

/// <summary>
/// Compares a delivery with what is there and says what it would change. Nothing is written here. What a person did by
/// hand stays; what would hurt is held. Source: docs/rules.md, "People and rosters".
/// </summary>
public sealed class RosterComparison
{
    private readonly RosterDelivery delivery;
    private readonly RosterToday today;
    private readonly IReadOnlyDictionary<string, PersonId?> settled;
    private readonly IReadOnlyDictionary<string, PersonId> before;
    private readonly List<RosterChange> changes = [];
    private readonly List<Hold> holds = [];
    private readonly List<DeliveryFinding> findings = [];
    private readonly Dictionary<string, PersonId?> matched = new(StringComparer.Ordinal);
    private readonly Dictionary<string, ClassId?> classes = new(StringComparer.Ordinal);
    private readonly Dictionary<string, string> names = new(StringComparer.Ordinal);
    // Somebody may be meant by an unclear person of the delivery: until it is settled nothing is taken from them.
    private readonly Dictionary<PersonId, string> perhaps = [];
    private readonly HashSet<PersonId> gone = [];
    private readonly HashSet<PersonId> unlinked = [];
    private readonly Dictionary<string, DeliveredPerson> asSettled = new(StringComparer.Ordinal);
    private readonly Dictionary<PersonId, TodayPerson> people;
    private readonly Dictionary<ClassId, TodayClass> byId;
    private readonly Dictionary<string, DeliveredPerson> delivered;
    private readonly Dictionary<string, DeliveredClass> deliveredClasses;
    private int same;

    private RosterComparison(RosterDelivery delivery, RosterToday today, IReadOnlyDictionary<string, PersonId?> settled, IReadOnlyDictionary<string, PersonId> before)
    {
        (this.delivery, this.today, this.settled, this.before) = (delivery, today, settled, before);
        people = today.People.ToDictionary(p => p.Id);
        byId = today.Classes.ToDictionary(k => k.Id);
        delivered = delivery.People.ToDictionary(p => p.Ref, StringComparer.Ordinal);
        deliveredClasses = delivery.Classes.ToDictionary(k => k.Ref, StringComparer.Ordinal);
    }

    /// <summary>Compares.</summary>
    /// <param name="settled">Who people of the delivery are, as a person decided; null for somebody new.</param>
    /// <param name="before">Who records are, as a person decided about an earlier delivery and as it still is: nobody is asked the same every night.</param>
    /// <param name="standing">Keys of holds that this delivery was put on before: they stand until a person decides, however much the rosters grew since.</param>
    public static RosterChanges Compare(RosterDelivery delivery, RosterToday today, IReadOnlyDictionary<string, PersonId?> settled, IReadOnlyDictionary<string, PersonId> before, IReadOnlySet<string> standing)
    {
        var at = new RosterComparison(delivery, today, settled, before);
        at.ComparePeople();
        at.changes.AddRange(ContactComparison.Compare(delivery, today, at.matched, at.findings));
        at.CompareClasses();
        at.CompareEnrollments();
        var (changes, holds) = Holding.Of(at.changes, at.holds, delivery, today, standing);
        return new(changes, holds, at.findings, at.matched, at.classes, at.names, at.asSettled, at.same);
    }

    private void ComparePeople()
    {
        var knowing = new Knowing([.. today.People.Select(p => new KnownPerson(p.Id, p.RecordId, p.StudentNumber, p.Email, p.UserName, new(p.Given, p.Family), p.Grade))]);
        var taken = new Dictionary<PersonId, DeliveredPerson>();
        // Whom a record names comes first: a sister with the same e-mail does not get there before them.
        var records = today.People.Where(p => p is { RecordId: not null, JoinedInto: null }).Select(p => p.RecordId!).ToHashSet(StringComparer.OrdinalIgnoreCase);
        foreach (var first in new[] { true, false })
            foreach (var d in delivery.People)
                if ((d.RecordId is not null && records.Contains(d.RecordId)) == first) ComparePerson(d, knowing, taken);
        if (delivery.PeopleList is { Whole: true })
            foreach (var p in today.People.Where(p => p.Active && p.RecordId is not null && !taken.ContainsKey(p.Id) && !unlinked.Contains(p.Id)))
                Goes(new(ChangeKind.PersonGone, Sort(p), "", "no longer in the school's records") { Person = p.Id, Holds = HoldsOf(p.Id) });
    }

    private void ComparePerson(DeliveredPerson d, Knowing knowing, Dictionary<PersonId, DeliveredPerson> taken)
    {
        if (settled.TryGetValue(d.Ref, out var who))
        {
            // Said to be somebody who was joined into another since.
            if (who is { } said && Real(said) is var real && real != said) Take(AsJoined(d, people[real]), real, taken);
            else Take(Settle(d, who), who, taken);
            return;
        }
        if (before.TryGetValue(d.Ref, out var then) && people.TryGetValue(then, out var still) && !Crosses(still, d)) { Take(Settle(d, then), then, taken); return; }
        var known = knowing.Find(new(d.RecordId, d.StudentNumber, d.Email, d.UserName, new(d.Given, d.Family), true, d.Grade), closeNames: false);
        if (known.Knowledge == Knowledge.Unknown) { Take(d, null, taken); return; }
        if (known.Knowledge != Knowledge.Known) { Unclear(d, known with { Candidates = [.. known.Candidates.Select(Real).Distinct()] }); return; }
        var p = people[Real(known.Person!.Value)];
        var other = taken.GetValueOrDefault(p.Id);
        if (other is not null && !d.Gone && (p.Id != known.Person || SameName(p, d))) { Twice(d, p, other); return; }
        var doubt = d.Gone ? null
            : Crosses(p, d) ? $"who is {SchoolRoles.Say(p.Role)} here and {SchoolRoles.Say(d.Role)} in the delivery{(p.Role == SchoolRole.Coordinator ? "" : $"; if it is them, they become {SchoolRoles.Say(d.Role)}")}"
            : other is not null ? $"and so is line {other.Line}"
            : IsOtherChild(p, d) ? "under another record and another name"
            : null;
        if (p.Id != known.Person) d = AsJoined(d, p);
        if (doubt is null) Take(d, p.Id, taken);
        else Unclear(d, new(Knowledge.Conflict, null, [p.Id], $"{known.Why} it is {Sort(p)}, {doubt}"));
    }

    // What leads to somebody through an account that was joined into theirs changes no number of theirs.
    private DeliveredPerson AsJoined(DeliveredPerson d, TodayPerson p) => delivered[d.Ref] = asSettled[d.Ref] = d with { RecordId = p.RecordId, StudentNumber = p.StudentNumber, Email = p.Email };

    // A number or an address alone does not make one child of two: families share an address, a number is given out again.
    private static bool IsOtherChild(TodayPerson p, DeliveredPerson d) =>
        p.RecordId is { } has && d.RecordId is { } said && !has.Equals(said, StringComparison.OrdinalIgnoreCase) && !SameName(p, d);

    private static bool SameName(TodayPerson p, DeliveredPerson d) => PersonName.SearchKey($"{p.Given} {p.Family}") == PersonName.SearchKey($"{d.Given} {d.Family}");

    // A student who becomes staff sees what others hand in: no row of a table does that by itself.
    private static bool Crosses(TodayPerson p, DeliveredPerson d) => !d.Gone && SchoolRoles.Changed(p.Role, d.Role);

    // What a person settled can go against the directory: the record is theirs then; a number or an address that is somebody else's is not.
    private DeliveredPerson Settle(DeliveredPerson d, PersonId? who)
    {
        if (d.Gone) return d;
        TodayPerson? Other(string? said, Func<TodayPerson, string?> of) =>
            said is null ? null : today.People.FirstOrDefault(p => p.Id != who && string.Equals(of(p)?.Trim(), said.Trim(), StringComparison.OrdinalIgnoreCase));
        if (Other(d.RecordId, p => p.RecordId) is { } holder && unlinked.Add(holder.Id))
            Add(new(ChangeKind.ChangedPerson, Sort(holder), "", $"no longer linked to the school's records: line {d.Line} is not them") { Person = holder.Id });
        if (Other(d.StudentNumber, p => p.StudentNumber) is { } numbered)
        {
            // An account that was joined into theirs keeps its number.
            if (who is null || numbered.JoinedInto != who) findings.Add(new(delivery.PeopleList!.File, d.Line, "", $"The student number {d.StudentNumber} is that of {Sort(numbered)}: it is left out, the person comes. Correct it in the school's records or in the directory."));
            d = d with { StudentNumber = null };
        }
        if (Other(d.Email, p => p.JoinedInto is null ? p.Email : null) is { } addressed)
        {
            findings.Add(new(delivery.PeopleList!.File, d.Line, "", $"The e-mail {d.Email} is that of {Sort(addressed)}: it is left out, the person comes. Correct it in the school's records or in the directory."));
            d = d with { Email = null };
        }
        // Who coordinates the school's technology is nothing that its records know.
        if (who is { } known && people[known].Role == SchoolRole.Coordinator) d = d with { Role = SchoolRole.Coordinator };
        return delivered[d.Ref] = asSettled[d.Ref] = d;
    }

    // Somebody who was found to be another is that other. Going round in a circle, as no join makes it, it ends where it began.
    private PersonId Real(PersonId id)
    {
        var at = id;
        for (var left = people.Count; left > 0 && people[at].JoinedInto is { } into; left--) at = into;
        return people[at].JoinedInto is null ? at : id;
    }

    // The records have twice whom the directory has once: both rows' places are that person's.
    private void Twice(DeliveredPerson d, TodayPerson p, DeliveredPerson other)
    {
        matched[d.Ref] = p.Id;
        findings.Add(new(delivery.PeopleList!.File, d.Line, "", $"{Sort(d)} is the same person as line {other.Line}: only the places in classes are taken from this row."));
    }

    private void Goes(RosterChange change)
    {
        gone.Add(change.Person!.Value);
        Add(change);
    }

    private void Unclear(DeliveredPerson d, Recognised known)
    {
        if (d.Gone) return;
        var key = $"person:{d.Ref}";
        foreach (var c in known.Candidates) perhaps[c] = key;
        holds.Add(new(key, HoldKind.PersonUnclear, $"{Sort(d)}: {known.Why}.", null, d.Ref, known.Candidates));
        Add(new(ChangeKind.NewPerson, Sort(d), "", known.Why) { PersonRef = d.Ref, Holds = [key] });
    }

    private void Take(DeliveredPerson d, PersonId? who, Dictionary<PersonId, DeliveredPerson> taken)
    {
        if (who is { } id && !taken.TryAdd(id, d))
        {
            findings.Add(new(delivery.PeopleList!.File, d.Line, "", $"{Sort(d)} is the same person as line {taken[id].Line}: the row is left out."));
            return;
        }
        matched[d.Ref] = who;
        if (who is not { } known)
        {
            if (!d.Gone) Add(new(ChangeKind.NewPerson, Sort(d), "", d.Role == SchoolRole.Student ? $"a student who is not in the directory{(d.Grade is null ? "" : $", grade {d.Grade}")}" : "staff who is not in the directory") { PersonRef = d.Ref });
            else matched.Remove(d.Ref);
            return;
        }
        var p = people[known];
        if (d.Gone)
        {
            if (p.Active) Goes(new(ChangeKind.PersonGone, Sort(p), "", "the school's records say so") { PersonRef = d.Ref, Person = known });
            return;
        }
        if (!p.Active) Add(new(ChangeKind.PersonBack, Sort(p), "", "in the school's records again") { PersonRef = d.Ref, Person = known });
        var differs = Differences(p, d).ToList();
        if (differs.Count > 0) Add(new(ChangeKind.ChangedPerson, Sort(p), "", string.Join("; ", differs)) { PersonRef = d.Ref, Person = known });
    }

    // What the records leave blank, they say nothing about.
    private static IEnumerable<string> Differences(TodayPerson p, DeliveredPerson d)
    {
        if (d.Given != p.Given || d.Family != p.Family) yield return $"name “{p.Given} {p.Family}” to “{d.Given} {d.Family}”";
        if (d.Grade is { } grade && grade != p.Grade) yield return p.Grade is null ? $"grade {grade}" : $"grade {p.Grade} to {grade}";
        if (d.StudentNumber is { } number && number != p.StudentNumber) yield return p.StudentNumber is null ? $"student number {number}" : $"student number {p.StudentNumber} to {number}";
        if (d.Email is { } email && !string.Equals(email, p.Email, StringComparison.OrdinalIgnoreCase)) yield return p.Email is null ? $"e-mail {email}" : $"e-mail {p.Email} to {email}";
        if (d.School is { } school && school != p.School) yield return p.School is null ? $"school {school}" : $"moves from {p.School} to {school}";
        if (d.RecordId is { } record && record != p.RecordId) yield return p.RecordId is null ? "is now linked to the school's records" : $"record id {p.RecordId} to {record}";
        if (SchoolRoles.Changed(p.Role, d.Role)) yield return $"{SchoolRoles.Say(p.Role)} to {SchoolRoles.Say(d.Role)}";
    }

    private void CompareClasses()
    {
        var linked = today.Classes.Where(k => k.RecordId is not null).ToDictionary(k => k.RecordId!, StringComparer.OrdinalIgnoreCase);
        var named = new Lazy<ILookup<string, TodayClass>>(() => today.Classes.OrderBy(k => k.State == ClassState.Archived).ToLookup(k => SafeName.Key(k.Name)));
        var taken = new Lazy<HashSet<string>>(() => today.Names.Select(SafeName.Key).ToHashSet(StringComparer.Ordinal));
        var seen = new HashSet<ClassId>();
        foreach (var d in delivery.Classes)
        {
            string? wanted = null;
            // Where the delivery knows classes by name alone, any class of that name is meant, one that follows the records too.
            var k = d.RecordId is null ? named.Value[SafeName.Key(d.Course)].FirstOrDefault(f => !seen.Contains(f.Id))
                : linked.TryGetValue(d.RecordId, out var byRecord) ? byRecord : named.Value[SafeName.Key(wanted = NameOf(d))].FirstOrDefault(f => f.RecordId is null && !seen.Contains(f.Id));
            if (k is null)
            {
                if (d.Gone) continue;
                if (d.RecordId is null)
                {
                    findings.Add(new(delivery.EnrollmentList?.File ?? "", d.Line, "class", $"There is no class “{d.Course}” in {today.YearLabel}: its rows are left out."));
                    continue;
                }
                var name = Free(wanted!, taken.Value);
                classes[d.Ref] = null;
                names[d.Ref] = name;
                Add(new(ChangeKind.NewClass, "", name, "a class that is not here yet; it begins in preparation") { ClassRef = d.Ref });
                continue;
            }
            if (!seen.Add(k.Id)) { findings.Add(new(delivery.ClassList?.File ?? "", d.Line, "", $"“{k.Name}” is the same class as an earlier row: this one is left out.")); continue; }
            classes[d.Ref] = k.Id;
            if (k.State == ClassState.Archived) continue;
            if (d.Gone) { Add(Gone(k, "the school's records say so") with { ClassRef = d.Ref }); continue; }
            var differs = Differences(k, d).ToList();
            if (differs.Count > 0) Add(new(ChangeKind.ChangedClass, "", k.Name, string.Join("; ", differs)) { ClassRef = d.Ref, Class = k.Id });
        }
        if (delivery.ClassList is { Whole: true })
            foreach (var k in today.Classes.Where(k => k.RecordId is not null && k.State != ClassState.Archived && !seen.Contains(k.Id)))
                Add(Gone(k, "no longer in the school's records"));
        foreach (var k in linked.Values.Where(k => !classes.ContainsKey(k.RecordId!))) classes[k.RecordId!] = k.Id;
    }

    private RosterChange Gone(TodayClass k, string why)
    {
        var key = $"gone:{k.Id.Value}";
        if (holds.All(h => h.Key != key)) holds.Add(new(key, HoldKind.ClassGone, $"“{k.Name}” is {why}. It would stay with everything and everybody in it, and follow the records no longer.", k.Id, null, []));
        return new(ChangeKind.ClassGone, "", k.Name, $"{why}; it stays with everything and everybody in it, and follows the records no longer") { Class = k.Id, Holds = [key] };
    }

    private static IEnumerable<string> Differences(TodayClass k, DeliveredClass d)
    {
        if (d.RecordId is null) yield break;
        if (k.RecordId is null) yield return "is now linked to the school's records";
        if (d.Section is { } section && section != k.Section) yield return k.Section is null ? $"section {section}" : $"section {k.Section} to {section}";
        if (d.Period is { } period && period != k.Period) yield return k.Period is null ? $"period {period}" : $"period {k.Period} to {period}";
        if (d.Room is { } room && room != k.Room) yield return k.Room is null ? $"room {room}" : $"room {k.Room} to {room}";
    }

    private string NameOf(DeliveredClass d) => ClassName.Preview(today.Pattern, new(d.Course, d.Section, d.Period, d.Term, today.YearLabel), []).Name;

    private static string Free(string wanted, HashSet<string> taken)
    {
        var name = wanted;
        for (var n = 2; !taken.Add(SafeName.Key(name)); n++) name = $"{wanted} ({n})";
        return name;
    }

    private void CompareEnrollments()
    {
        var leaves = today.Members.Where(m => !m.Left && gone.Contains(m.Person) && byId[m.Class].State != ClassState.Archived).Select(m => Leave(m, "has left the school")).OfType<RosterChange>().ToList();
        if (delivery.EnrollmentList is null)
        {
            AddLeaves(leaves);
            return;
        }
        // Who an earlier delivery brought is known by record id alone.
        foreach (var p in today.People.Where(p => p.RecordId is not null)) matched.TryAdd(p.RecordId!, p.Id);
        var members = today.Members.ToDictionary(m => Pair(m.Class, m.Person));
        var kept = new HashSet<(long, long)>(delivery.Enrollments.Count);
        var joins = new List<RosterChange>();
        var said = new HashSet<(string, string)>();
        var unclear = holds.Where(h => h.Kind == HoldKind.PersonUnclear).Select(h => h.PersonRef!).ToHashSet(StringComparer.Ordinal);
        // A class has one lead. Where people here said who, another whom the records call lead is its co-teacher.
        var ledHere = today.Members.Where(m => m is { Role: ClassRole.Lead, Left: false, By: EnrolledBy.Hand }).GroupBy(m => m.Class).ToDictionary(g => g.Key, g => g.First().Person);
        foreach (var row in delivery.Enrollments)
        {
            var e = row;
            if (e.Role == ClassRole.Lead && classes.GetValueOrDefault(e.ClassRef) is { } led && ledHere.TryGetValue(led, out var leads) && matched.GetValueOrDefault(e.PersonRef) != leads) e = e with { Role = ClassRole.CoTeacher };
            if (!classes.TryGetValue(e.ClassRef, out var classId))
            {
                if (deliveredClasses.ContainsKey(e.ClassRef)) continue;
                Left(e, "classSourcedId", $"“{e.ClassRef}” is no class of this delivery or of the school: the row is left out.");
                continue;
            }
            var isUnclear = unclear.Contains(e.PersonRef);
            if (!matched.TryGetValue(e.PersonRef, out var who) && !isUnclear)
            {
                if (!e.Gone && delivered.GetValueOrDefault(e.PersonRef) is not { Gone: true }) Left(e, "userSourcedId", $"“{e.PersonRef}” is nobody of this delivery or of the directory: the row is left out.");
                continue;
            }
            if (e.Gone)
            {
                if (who is { } goner && gone.Contains(goner)) continue;
                if (classId is { } k && who is { } p && members.TryGetValue(Pair(k, p), out var m) && !m.Left && Leave(m, "the school's records say so") is { } leave) leaves.Add(leave);
                continue;
            }
            var first = classId is { } c && who is { } w ? kept.Add(Pair(c, w)) : said.Add((e.ClassRef, e.PersonRef));
            if (!first) { Left(e, "", "says what an earlier row says: it is left out."); continue; }
            if (classId is { } archived && byId[archived].State == ClassState.Archived) { same++; continue; }
            if (classId is { } at && who is { } known && members.TryGetValue(Pair(at, known), out var there) && !there.Left) { Stay(e, there); continue; }
            if (Join(e, classId, isUnclear ? null : who, isUnclear, row.Role) is { } join) joins.Add(join);
        }
        if (delivery.EnrollmentList.Whole)
        {
            // A table that knows classes by name is whole for those it names; the records are whole for all that follow them.
            var only = delivery.Classes.Any(d => d.RecordId is null) ? delivery.Classes.Select(d => classes.GetValueOrDefault(d.Ref)).OfType<ClassId>().ToHashSet() : null;
            leaves.AddRange(today.Members.Where(m => !m.Left && !gone.Contains(m.Person) && !kept.Contains(Pair(m.Class, m.Person))
                    && byId[m.Class] is { State: not ClassState.Archived } k && (only?.Contains(k.Id) ?? k.RecordId is not null))
                .Select(m => Leave(m, only is null ? "no longer on this roster in the school's records" : "not in the table")).OfType<RosterChange>());
        }
        Moves(joins, leaves);
    }

    // Bare numbers are told apart in a third of the time that two ids are; there may be hundreds of thousands.
    private static (long, long) Pair(ClassId k, PersonId p) => (k.Value, p.Value);

    private void Stay(DeliveredEnrollment e, TodayMember m)
    {
        if (m.By != EnrolledBy.Feed || m.Role == e.Role || m.Role == ClassRole.Lead || e.Role == ClassRole.Student != (m.Role == ClassRole.Student)) { same++; return; }
        var k = byId[m.Class];
        Add(new(ChangeKind.ChangesRole, Sort(people[m.Person]), k.Name, $"{InWords.Of(m.Role)} to {InWords.Of(e.Role)}") { PersonRef = e.PersonRef, Person = m.Person, ClassRef = e.ClassRef, Class = m.Class, Role = e.Role });
    }

    private RosterChange? Join(DeliveredEnrollment e, ClassId? classId, PersonId? who, bool unclear, ClassRole called)
    {
        var d = delivered.GetValueOrDefault(e.PersonRef);
        var p = who is { } id ? people[id] : null;
        if (d is { Gone: true } || (d is null && p is { Active: false }) || (p is not null && gone.Contains(p.Id))) { Left(e, "userSourcedId", $"{(p is null ? e.PersonRef : Sort(p))} has left the school: the row is left out."); return null; }
        var role = d?.Role ?? p!.Role;
        if (role == SchoolRole.Student != (e.Role == ClassRole.Student)) { Left(e, "role", $"{(d is null ? Sort(p!) : Sort(d))} is {SchoolRoles.Say(role)} and can't be {InWords.Of(e.Role)}: the row is left out."); return null; }
        var name = classId is { } k ? byId[k].Name : names[e.ClassRef];
        return new(ChangeKind.Joins, d is null ? Sort(p!) : Sort(d), name, e.Role == ClassRole.Student ? "on this roster in the school's records" : $"{InWords.Of(called)} in the school's records{(called == e.Role ? "" : "; another was made its lead here")}")
        {
            PersonRef = e.PersonRef,
            Person = who,
            ClassRef = e.ClassRef,
            Class = classId,
            Role = e.Role,
            Holds = unclear ? [$"person:{e.PersonRef}"] : [],
        };
    }

    private RosterChange? Leave(TodayMember m, string why)
    {
        // What was enrolled by hand is not removed by a delivery, and a class keeps its lead teacher.
        if (m.By != EnrolledBy.Feed || m.Role == ClassRole.Lead) return null;
        return new(ChangeKind.Leaves, Sort(people[m.Person]), byId[m.Class].Name, why) { Person = m.Person, Class = m.Class, Role = m.Role, Holds = HoldsOf(m.Person) };
    }

    // Out of one class and into another of the same course is one act, in which the work must not be stranded.
    private void Moves(List<RosterChange> joins, List<RosterChange> leaves)
    {
        var from = leaves.Where(l => l.Role == ClassRole.Student && l.Holds.Count == 0).ToLookup(l => l.Person!.Value);
        var moved = new HashSet<RosterChange>(ReferenceEqualityComparer.Instance);
        foreach (var j in joins)
        {
            var left = j is { Person: { } who, Role: ClassRole.Student, Holds.Count: 0 } ? from[who].FirstOrDefault(l => !moved.Contains(l) && Course(l).Equals(Course(j), StringComparison.OrdinalIgnoreCase)) : null;
            if (left is null) { Add(j); continue; }
            moved.Add(left);
            Add(j with { Kind = ChangeKind.Moves, FromClass = left.Class, Why = $"from “{left.ClassName}”" });
        }
        AddLeaves(leaves.Where(l => !moved.Contains(l)));
    }

    // A class that is gone stays with everybody in it: whoever goes with it out of the records is not taken off.
    private void AddLeaves(IEnumerable<RosterChange> leaves)
    {
        var going = changes.Where(c => c.Kind == ChangeKind.ClassGone).Select(c => c.Class!.Value).ToHashSet();
        changes.AddRange(leaves.Where(l => !going.Contains(l.Class!.Value)));
    }

    private string Course(RosterChange c) => c.Class is { } id ? byId[id].Course : deliveredClasses[c.ClassRef!].Course;

    private void Left(DeliveredEnrollment e, string column, string text) => findings.Add(new(delivery.EnrollmentList!.File, e.Line, column, text));

    private IReadOnlyList<string> HoldsOf(PersonId person) => perhaps.TryGetValue(person, out var key) ? [key] : [];

    private void Add(RosterChange change) => changes.Add(change);

    private static string Sort(TodayPerson p) => new PersonName(p.Given, p.Family).Sort;

    private static string Sort(DeliveredPerson p) => new PersonName(p.Given, p.Family).Sort;
}

/// <summary>Roles in the school, as words and as deliveries know them.</summary>
internal static class SchoolRoles
{
    internal static string Say(SchoolRole role) => role == SchoolRole.Student ? "a student" : "staff";

    // Records know who is staff, not who coordinates the school's technology: that stays as it is here.
    internal static bool Changed(SchoolRole has, SchoolRole said) => has == SchoolRole.Student != (said == SchoolRole.Student);
}
