using SpringLoft.App.Plans;
using SpringLoft.App.Workspaces;
using SpringLoft.Core.Letters;
using SpringLoft.Core.Naming;
using SpringLoft.Core.People;
using SpringLoft.Core.Rosters;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Letters;
using SpringLoft.Store.Naming;
using SpringLoft.Store.People;
using SpringLoft.Store.Plans;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Runs;
using SpringLoft.Store.Workspaces;
using SpringLoft.Store.Years;

namespace SpringLoft.App.Rosters;

/// <summary>What applying a delivery did.</summary>
/// <param name="OnHold">Changes that were not applied, because they wait for a person.</param>
/// <param name="Folders">Folders that unfolded for new classes and students.</param>
public sealed record DeliveryApplied(int Changes, int OnHold, int Folders);

/// <summary>What taking a delivery back did.</summary>
/// <param name="Left">What could not be put back because it is used by now, in words.</param>
public sealed record DeliveryTakenBack(int Changes, IReadOnlyList<string> Left);

/// <summary>What it takes to take an applied delivery back.</summary>
/// <param name="MembersAfter">The places as applying left them: what differs at taking back was changed by somebody since.</param>
internal sealed record DeliveryUndo(
    IReadOnlyList<PersonId> NewPeople, IReadOnlyList<TodayPerson> People, IReadOnlyList<ClassId> NewClasses, IReadOnlyList<TodayClass> Classes, IReadOnlyList<MemberBefore> Members, IReadOnlyList<long> Folders, IReadOnlyList<FolderBefore> Positions, IReadOnlyList<ItemId> Items, Instant At, int Changes, IReadOnlyList<MemberBefore>? MembersAfter)
{
    /// <summary>Family contacts as they were; null in what was applied before deliveries brought any.</summary>
    public IReadOnlyList<ContactBefore>? Contacts { get; init; }
}

/// <summary>Applies what a delivery was shown to change, whole or not at all, and takes it back.</summary>
public sealed class ApplyingDelivery(Premises premises, Deliveries deliveries)
{
    /// <summary>Applies every change that is shown and that nothing holds up.</summary>
    /// <param name="by">Null where the feed applies by itself.</param>
    /// <param name="plan">The folder plan of classes that are new; null for none.</param>
    /// <param name="version">Of the delivery as it was seen.</param>
    /// <exception cref="RefusedException"><c>changed-meanwhile</c> if something else would be changed than was shown; <c>run-going</c>; <c>delivery-nothing</c>.</exception>
    public DeliveryApplied Apply(Caller? by, long id, PlanId? plan, int version)
    {
        var d = premises.Db.Read(c => Deliveries.Find(c, id));
        if (d.Version != version) throw Refusals.ChangedMeanwhile("delivery");
        if (d.State is not (DeliveryState.Waiting or DeliveryState.Applied)) throw new RefusedException("delivery-settled", "Nothing comes of this delivery any more.", "Look at the newest one.");
        var read = deliveries.Reading(d);
        var shown = deliveries.Kept(d.ChangesSha256!).Changes;
        var stale = false;
        try
        {
            return premises.Db.Write(c =>
            {
                if (Deliveries.Find(c, id).Version != version) throw Refusals.ChangedMeanwhile("delivery");
                var holds = DeliveryStore.Holds(c, id);
                var today = DeliveryReading.Today(c, d.YearId);
                var compared = DeliveryReading.Compare(c, read, today, holds);
                var lifted = Deliveries.Lifted(holds);
                var chosen = compared.Changes.Where(x => x.Holds.All(lifted.Contains)).ToList();
                if (chosen.Count == 0) throw new RefusedException("delivery-nothing", "There is nothing to apply: all is as the delivery has it, or waits for a person.", "Say yes to what is on hold, if it is right.");
                stale = !RosterChange.AllStandOn(chosen, shown);
                if (stale) throw Refusals.ChangedMeanwhile("school");
                if (chosen.Select(x => x.Class).OfType<ClassId>().Concat(chosen.Select(x => x.FromClass).OfType<ClassId>()).Distinct().FirstOrDefault(k => RunStore.IsGoing(c, k)) is { Value: > 0 } going)
                    throw new RefusedException("run-going", $"“{today.Classes.First(k => k.Id == going).Name}” is being closed or worked on by a run just now.", "Wait until the run has ended, then apply the delivery.");
                var newPlan = plan is { } p ? PlanStore.Find(c, p) ?? throw Refusals.NotFound("folder plan") : null;
                var at = new Applying(c, premises.Clock.Now, read.Delivery, today, compared, chosen, newPlan, d.YearId);
                var undo = at.Do();
                foreach (var h in holds.Where(h => h is { Kind: HoldKind.PersonUnclear, Decision: HoldDecision.Yes, SettledAs: null }))
                    if (at.Made(h.PersonRef!) is { } made) DeliveryStore.Came(c, id, h, made);
                DeliveryStore.SetState(c, id, DeliveryState.Applied);
                DeliveryStore.AddApplied(c, id, premises.Clock.Now, by?.Id, chosen.Count, DeliveryReading.Write(premises, c, undo));
                Tell(c, by, id, d.Name, chosen, today);
                return new DeliveryApplied(chosen.Count, compared.Changes.Count - chosen.Count, undo.Folders.Count);
            });
        }
        finally
        {
            // So that what is shown next is what would be done.
            if (stale) deliveries.Compare(id);
        }
    }

    /// <summary>Takes back what was applied last of a delivery: everything stands as it stood before, but for what has been used since.</summary>
    public DeliveryTakenBack TakeBack(Caller by, long id) => premises.Db.Write(c =>
    {
        var d = Deliveries.Find(c, id);
        var applied = DeliveryStore.Applied(c, id).FirstOrDefault(a => a.TakenBackAt is null) ?? throw new RefusedException("delivery-nothing", "Nothing of this delivery is applied.", "There is nothing to take back.");
        if (DeliveryStore.AppliedLater(c, d.YearId, applied.Id)) throw new RefusedException("delivery-later", "A later delivery has been applied since.", "Take that one back first, or change rosters by hand.");
        var undo = DeliveryReading.Open<DeliveryUndo>(premises, applied.UndoSha256);
        if (undo.Members.Select(m => m.Class).Concat(undo.NewClasses).Distinct().FirstOrDefault(k => ClassStore.Find(c, k) is null or { State: ClassState.Archived } || RunStore.IsGoing(c, k)) is { Value: > 0 } shut)
            throw new RefusedException("class-archived", $"“{ClassStore.Find(c, shut)?.Name}” is archived or being closed: its roster stays as it was.", "Restore the class from the loft first.");
        var left = new List<string>();
        var places = undo.Members.Select(m => (m.Class, m.Person)).ToList();
        var standing = DeliveredStore.Before(c, places).ToDictionary(m => (m.Class, m.Person));
        var untouched = (undo.MembersAfter ?? []).Where(m => m.SamePlace(standing[(m.Class, m.Person)])).ToDictionary(m => (m.Class, m.Person));
        foreach (var m in undo.Members)
        {
            if (!untouched.TryGetValue((m.Class, m.Person), out var after)) continue;
            // Whether a student may post goes back only if it is as the delivery left it.
            var posts = standing[(m.Class, m.Person)].MayPost;
            DeliveredStore.PutBack(c, posts == after.MayPost ? m : m with { MayPost = posts }, premises.Clock.Now);
        }
        if (places.Count - untouched.Count is var since and > 0) left.Add(since == 1 ? "1 place on a roster was changed by hand since and stays" : $"{since} places on rosters were changed by hand since and stay");
        foreach (var k in undo.NewClasses) DeliveredStore.RemoveJoined(c, k, undo.At, premises.Clock.Now);
        if (DeliveredStore.RemoveUnchanged(c, undo.Items) is var changed and > 0) left.Add(changed == 1 ? "1 thing that was carried along was changed since and stays" : $"{changed} things that were carried along were changed since and stay");
        if (DeliveredStore.RemoveEmpty(c, undo.Folders) is var full and > 0) left.Add(full == 1 ? "1 folder has something in it by now and stays" : $"{full} folders have something in them by now and stay");
        DeliveredStore.SetPositions(c, undo.Positions);
        foreach (var k in undo.Classes) DeliveredStore.SaveClass(c, k);
        foreach (var k in undo.NewClasses)
            if (ClassRemoval.UsedSince(c, k, undo.At) is { Count: > 0 } uses) left.Add($"“{ClassStore.Find(c, k)?.Name}” is in use by now and stays: {ClassUses.Said(uses)}");
            else ClassRemoval.Go(c, k);
        DeliveryStore.ForgetSettled(c, id);
        // Whoever had a record before has it again; until then nobody has.
        DeliveredStore.Unlink(c, undo.People.Where(p => p.RecordId is not null).Select(p => p.RecordId!));
        foreach (var p in undo.People)
        {
            var taken = p.StudentNumber is { } n && DirectoryStore.HolderOf(c, n) is { } holder && holder.Id != p.Id ? holder : null;
            if (taken is not null) left.Add($"the student number {p.StudentNumber} of {new PersonName(p.Given, p.Family).Sort} is {taken.Name.Sort}'s by now and stays theirs");
            DeliveredStore.Save(c, taken is null ? p : p with { StudentNumber = null });
        }
        foreach (var k in undo.Contacts ?? [])
        {
            if (FamilyStore.Find(c, k.Id) is not { } still) continue;
            if (!k.Existed && (still.LetterAt is not null || FamilyStore.ChildrenOf(c, [k.Id])[k.Id].Any(x => x.ByHand))) left.Add($"{still.Name} has been written to or is somebody's contact by hand, and stays");
            else if (!k.Existed) FamilyStore.Remove(c, k.Id);
            else
            {
                FamilyStore.SaveDelivered(c, k);
                FamilyStore.SetChildren(c, k.Id, k.Children, byHand: false);
                LetterStore.TakeBackOf(c, k.Id, premises.Clock.Now);
            }
        }
        foreach (var p in undo.NewPeople)
        {
            if (DeliveredStore.Remove(c, p)) continue;
            var person = DeliveredStore.People(c).First(x => x.Id == p);
            DeliveredStore.Save(c, person with { Active = false });
            left.Add($"{new PersonName(person.Given, person.Family).Sort} is known elsewhere by now: inactive, not gone");
        }
        DeliveryStore.SetTakenBack(c, applied.Id, premises.Clock.Now);
        DeliveryStore.SetState(c, id, DeliveryState.TakenBack);
        DeliveryStore.LetHoldsGo(c, id);
        foreach (var k in undo.Members.Select(m => m.Class).Distinct().Where(k => !undo.NewClasses.Contains(k)))
            Premises.Add(c, by, premises.Clock.Now, new("took back roster", "class", k.Value, k, d.Name));
        Premises.Add(c, by, premises.Clock.Now, new("took delivery back", "delivery", id, null, $"{d.Name}: {applied.Changes} changes{(left.Count > 0 ? $"; {left.Count} stay" : "")}"));
        return new DeliveryTakenBack(applied.Changes, left);
    });

    // One line a class, not one a student: the list of changes itself is kept with the delivery.
    private void Tell(IDbConnection c, Caller? by, long id, string name, IReadOnlyList<RosterChange> chosen, RosterToday today)
    {
        var now = premises.Clock.Now;
        Premises.Add(c, by, now, new("applied delivery", "delivery", id, null, $"{name}: {chosen.Count} changes"));
        var names = today.Classes.ToDictionary(k => k.Id, k => k.Name);
        foreach (var g in chosen.SelectMany(x => new[] { x.Class, x.FromClass }.OfType<ClassId>().Select(k => (Class: k, Change: x))).GroupBy(x => x.Class))
            Premises.Add(c, by, now, new("roster by delivery", "class", g.Key.Value, g.Key, $"{g.Count()} changes by “{name}”"));
    }
}

/// <summary>One applying: the order in which people, classes and places are written.</summary>
internal sealed class Applying(IDbConnection c, Instant now, RosterDelivery delivery, RosterToday today, RosterChanges compared, IReadOnlyList<RosterChange> chosen, PlanRow? plan, YearId yearId)
{
    private readonly Dictionary<string, PersonId> newPeople = new(StringComparer.Ordinal);
    private readonly Dictionary<string, ClassId> newClasses = new(StringComparer.Ordinal);
    private readonly List<TodayPerson> peopleBefore = [];
    private readonly List<TodayClass> classesBefore = [];
    private readonly List<PersonId> crossed = [];
    private readonly List<FolderBefore> positions = [];
    private readonly List<ItemId> items = [];
    private readonly List<ContactBefore> contactsBefore = [];

    internal DeliveryUndo Do()
    {
        var newest = DeliveredStore.NewestFolder(c);
        People();
        Contacts();
        Classes();
        var members = Places();
        UnfoldFolders();
        Carry();
        return new([.. newPeople.Values], peopleBefore, [.. newClasses.Values], classesBefore, members, DeliveredStore.FoldersAfter(c, newest), positions, items, now, chosen.Count, DeliveredStore.Before(c, [.. members.Select(m => (m.Class, m.Person))])) { Contacts = contactsBefore };
    }

    /// <summary>Who came into the directory for a person of the delivery; null for nobody.</summary>
    internal PersonId? Made(string personRef) => newPeople.TryGetValue(personRef, out var made) ? made : null;

    private void People()
    {
        var delivered = delivery.People.ToDictionary(p => p.Ref, StringComparer.Ordinal);
        foreach (var (who, p) in compared.AsSettled) delivered[who] = p;
        // A record that turned out to be somebody else's is free before that somebody has it.
        DeliveredStore.Unlink(c, chosen.Where(IsUnlinked).Select(x => x.Person!.Value));
        var people = today.People.ToDictionary(p => p.Id);
        var taken = today.People.Select(p => p.UserName.ToLowerInvariant()).ToHashSet(StringComparer.Ordinal);
        var pattern = SchoolStore.Get(c)!.UserNamePattern;
        var coming = chosen.Where(x => x.Kind == ChangeKind.NewPerson).Select(x => delivered[x.PersonRef!]).ToList();
        var ids = DeliveredStore.Add(c, [.. coming.Select(d =>
        {
            var name = UserName.Make(pattern, new(d.Given, d.Family, d.StudentNumber, d.Grade), taken).Name;
            taken.Add(name);
            return new TodayPerson(default, d.RecordId, d.StudentNumber, d.Email, name, d.Given, d.Family, d.Grade, d.Role, d.School, true);
        })]);
        foreach (var (d, id) in coming.Zip(ids)) newPeople[d.Ref] = id;
        foreach (var g in chosen.Where(x => x.Kind is ChangeKind.ChangedPerson or ChangeKind.PersonGone or ChangeKind.PersonBack).GroupBy(x => x.Person!.Value))
        {
            var before = people[g.Key];
            peopleBefore.Add(before);
            var after = before;
            foreach (var x in g)
                after = x.Kind switch
                {
                    ChangeKind.PersonGone => after with { Active = false },
                    ChangeKind.PersonBack => after with { Active = true },
                    _ when IsUnlinked(x) => after with { RecordId = null },
                    _ => Changed(after, delivered[x.PersonRef!]),
                };
            DeliveredStore.Save(c, after);
            if (before.Role == SchoolRole.Student && after.Role != SchoolRole.Student) crossed.Add(before.Id);
        }
    }

    private void Contacts()
    {
        var students = new ContactComparison.Children(delivery, today, compared.Matched);
        var delivered = delivery.Contacts.ToDictionary(k => k.Ref, StringComparer.OrdinalIgnoreCase);
        var there = today.Contacts.ToDictionary(k => k.RecordId, StringComparer.OrdinalIgnoreCase);
        var whole = delivery.PeopleList is { Whole: true };
        foreach (var x in chosen.Where(x => x.Kind is ChangeKind.NewContact or ChangeKind.ChangedContact or ChangeKind.ContactGone))
        {
            if (there.TryGetValue(x.PersonRef!, out var k))
            {
                var before = new ContactBefore(k.Id, true, k.Name, k.Email, FamilyStore.Find(c, k.Id)!.GoneAt, k.Children);
                contactsBefore.Add(before);
                if (x.Kind == ChangeKind.ContactGone)
                {
                    FamilyStore.SaveDelivered(c, before with { GoneAt = now });
                    LetterStore.TakeBackOf(c, k.Id, now);
                    continue;
                }
                var d = delivered[x.PersonRef!];
                FamilyStore.SaveDelivered(c, before with { Name = d.Name, Email = d.Email ?? k.Email, GoneAt = null });
                FamilyStore.SetChildren(c, k.Id, Theirs(d).Union(whole ? [] : k.Children).Except(k.ByHand), byHand: false);
                // A letter that waits goes to the address and about the students that were.
                LetterStore.TakeBackOf(c, k.Id, now);
                continue;
            }
            var made = delivered[x.PersonRef!];
            // Whose children all wait for a person to say who they are, waits with them.
            if (Theirs(made).ToList() is not { Count: > 0 } theirs) continue;
            // Nobody is written to because a delivery came: whether they are, a person says.
            var id = FamilyStore.Add(c, made.Ref, made.Name, made.Email, HomeWords.All[0].Code, null);
            FamilyStore.SetChildren(c, id, theirs, byHand: false);
            contactsBefore.Add(new(id, false, made.Name, made.Email, null, []));
        }

        IEnumerable<PersonId> Theirs(DeliveredContact d) => students.Known(d).Concat(students.Refs(d).Where(newPeople.ContainsKey).Select(r => newPeople[r]));
    }

    private static bool IsUnlinked(RosterChange x) => x is { Kind: ChangeKind.ChangedPerson, PersonRef: null };

    private static TodayPerson Changed(TodayPerson p, DeliveredPerson d) => p with
    {
        Given = d.Given,
        Family = d.Family,
        Grade = d.Grade ?? p.Grade,
        StudentNumber = d.StudentNumber ?? p.StudentNumber,
        Email = d.Email ?? p.Email,
        School = d.School ?? p.School,
        RecordId = d.RecordId ?? p.RecordId,
        Role = p.Role == SchoolRole.Student != (d.Role == SchoolRole.Student) ? d.Role : p.Role,
    };

    private void Classes()
    {
        var delivered = delivery.Classes.ToDictionary(k => k.Ref, StringComparer.Ordinal);
        var classes = today.Classes.ToDictionary(k => k.Id);
        var coming = chosen.Where(x => x.Kind == ChangeKind.NewClass).Select(x => delivered[x.ClassRef!]).ToList();
        var terms = coming.Count > 0 ? YearStore.All(c).First(y => y.Id == yearId).Terms : [];
        var courses = new Dictionary<string, CourseId>(StringComparer.OrdinalIgnoreCase);
        var leads = Leads(coming.Select(k => k.Ref).ToHashSet(StringComparer.Ordinal));
        foreach (var d in coming)
        {
            if (!courses.TryGetValue(d.Course, out var course)) course = courses[d.Course] = SchoolStore.CourseNamed(c, d.Course, CourseMarks.All[^1], null).Id;
            newClasses[d.Ref] = ClassStore.Add(c, new ClassRow
            {
                YearId = yearId,
                CourseId = course,
                Section = d.Section,
                Period = d.Period,
                Room = d.Room,
                TermId = terms.FirstOrDefault(t => string.Equals(t.Name, d.Term, StringComparison.OrdinalIgnoreCase))?.Id,
                Name = SafeName.Make(compared.ClassNames[d.Ref])!.Name,
                TeacherShown = leads.GetValueOrDefault(d.Ref, ""),
                PlanId = plan?.Id,
                PlanVersion = plan?.Version,
                RecordId = d.RecordId,
                MadeAt = now,
            });
        }
        foreach (var x in chosen.Where(x => x.Kind == ChangeKind.ChangedClass))
        {
            var (k, d) = (classes[x.Class!.Value], delivered[x.ClassRef!]);
            classesBefore.Add(k);
            DeliveredStore.SaveClass(c, k with { RecordId = d.RecordId, Section = d.Section ?? k.Section, Period = d.Period ?? k.Period, Room = d.Room ?? k.Room });
        }
        foreach (var x in chosen.Where(x => x.Kind == ChangeKind.ClassGone))
        {
            classesBefore.Add(classes[x.Class!.Value]);
            DeliveredStore.LetGo(c, x.Class.Value);
        }
    }

    // Whom students will read as the teacher of each new class: the lead, or else the first who teaches it.
    private Dictionary<string, string> Leads(HashSet<string> refs)
    {
        var names = delivery.People.ToDictionary(p => p.Ref, p => new PersonName(p.Given, p.Family).Display, StringComparer.Ordinal);
        foreach (var p in today.People.Where(p => p.RecordId is not null)) names.TryAdd(p.RecordId!, new PersonName(p.Given, p.Family).Display);
        var leads = new Dictionary<string, string>(StringComparer.Ordinal);
        foreach (var e in delivery.Enrollments.Where(e => e.Role != ClassRole.Student && !e.Gone && refs.Contains(e.ClassRef)).OrderBy(e => e.Role != ClassRole.Lead))
            if (names.TryGetValue(e.PersonRef, out var name)) leads.TryAdd(e.ClassRef, name);
        return leads;
    }

    private IReadOnlyList<MemberBefore> Places()
    {
        var open = today.Classes.Where(k => k.State == ClassState.Open).Select(k => k.Id).ToHashSet();
        // A class or a person that is held is not there yet; whoever would join it waits with it.
        (ClassId Class, PersonId Person)? Place(RosterChange x)
        {
            var k = x.Class ?? (newClasses.TryGetValue(x.ClassRef!, out var made) ? made : null);
            var p = x.Person ?? (newPeople.TryGetValue(x.PersonRef!, out var come) ? come : null);
            return k is { } kk && p is { } pp ? (kk, pp) : null;
        }
        var joins = chosen.Where(x => x.Kind is ChangeKind.Joins or ChangeKind.Moves).Select(x => (Change: x, Place: Place(x))).Where(x => x.Place is not null).ToList();
        var leaves = chosen.Where(x => x.Kind is ChangeKind.Leaves or ChangeKind.Moves).Select(x => (Class: x.Kind == ChangeKind.Moves ? x.FromClass!.Value : x.Class!.Value, Person: x.Person!.Value)).ToList();
        var roles = chosen.Where(x => x.Kind == ChangeKind.ChangesRole).Select(x => (Class: x.Class!.Value, Person: x.Person!.Value, Role: x.Role!.Value)).ToList();
        // Who is staff from now on is nobody's student any more. What the records themselves say of a place stands; those that people gave end.
        var elsewhere = joins.Select(j => j.Place!.Value).Concat(roles.Select(r => (r.Class, r.Person))).Concat(leaves).ToHashSet();
        leaves.AddRange(RosterStore.PlacesOf(c, crossed).Where(p => p.Role == ClassRole.Student && !elsewhere.Contains((p.ClassId, p.PersonId)) && RosterStore.Member(c, p.ClassId, p.PersonId)?.EnrolledBy != EnrolledBy.Feed).Select(p => (p.ClassId, p.PersonId)));
        // In a class that is new nobody was before: there the moment tells whom the delivery brought.
        var made = newClasses.Values.ToHashSet();
        var undo = DeliveredStore.Before(c, [.. joins.Select(j => j.Place!.Value).Where(p => !made.Contains(p.Class)), .. leaves, .. roles.Select(r => (r.Class, r.Person))]);
        DeliveredStore.Join(c, joins.Select(j => (j.Place!.Value.Class, j.Place.Value.Person, j.Change.Role!.Value, j.Change.Role == ClassRole.Student && open.Contains(j.Place.Value.Class))), now);
        DeliveredStore.Leave(c, leaves, now);
        DeliveredStore.SetRole(c, roles);
        return undo;
    }

    private void UnfoldFolders()
    {
        var touched = chosen.Where(x => x.Kind is ChangeKind.Joins or ChangeKind.Moves && x.Class is not null).Select(x => x.Class!.Value).Concat(plan is null ? [] : newClasses.Values).ToHashSet();
        foreach (var k in touched)
        {
            if (ClassStore.Find(c, k) is not { PlanId: not null } row) continue;
            positions.AddRange(DeliveredStore.Positions(c, k));
            Settings.Unfold(c, row);
        }
    }

    // Who moves between sets takes along what is in their own folders.
    private void Carry()
    {
        foreach (var x in chosen.Where(x => x.Kind == ChangeKind.Moves))
        {
            var to = x.Class ?? newClasses[x.ClassRef!];
            RosterStore.Move(c, x.FromClass!.Value, x.Person!.Value, to, now);
            MovingSets.ViewOnlyAsBefore(c, RosterStore.Member(c, x.FromClass.Value, x.Person.Value)!, to);
            items.AddRange(MovingSets.Carry(c, x.FromClass.Value, to, x.Person.Value, now).Made);
        }
    }
}
