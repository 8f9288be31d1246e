using SpringLoft.App.Plans;
using SpringLoft.App.Workspaces;
using SpringLoft.Core.People;
using SpringLoft.Core.Rosters;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Assignments;
using SpringLoft.Store.Audit;
using SpringLoft.Store.People;
using SpringLoft.Store.Rosters;

namespace SpringLoft.App.Rosters;

/// <summary>A person found in the directory.</summary>
/// <param name="InThisClass">Their role in the class at hand; null if not on its roster.</param>
/// <param name="OtherClasses">Names of the classes they are in now.</param>
public sealed record FoundPerson(PersonId Id, string SortName, string? Grade, string? StudentNumber, SchoolRole Role, ClassRole? InThisClass, IReadOnlyList<string> OtherClasses);

/// <summary>A person on the roster.</summary>
/// <param name="HasFolder">Does the student have their own folder?</param>
/// <param name="Held">Pieces of theirs that the teacher holds.</param>
public sealed record RosterRow(PersonId Id, string SortName, string? Grade, string? StudentNumber, ClassRole Role, bool HasFolder, int Held, LocalDate Joined, LocalDate? Left)
{
    /// <summary>How they came onto the roster.</summary>
    public EnrolledBy By { get; init; }

    /// <summary>True for a student who joined the open class and does not see what was set before.</summary>
    public bool FromThenOn { get; init; }

    /// <summary>False for a student who only views: they add, change and hand in nothing.</summary>
    public bool Posts { get; init; } = true;

    /// <summary>Name of the class that they moved here from; null if from none.</summary>
    public string? MovedFrom { get; init; }
}

/// <summary>What taking somebody off the roster would mean.</summary>
/// <param name="Returned">Pieces that they go on seeing.</param>
/// <param name="Unfinished">Pieces begun and not handed in: nobody sees them while they are off.</param>
/// <param name="By">How they came onto the roster: who came by the feed comes back with its next delivery, unless the records change too.</param>
/// <param name="WhyNot">Why they can't be taken off; null if they can.</param>
public sealed record Leaving(PersonId Id, string Name, int Held, int Returned, int Unfinished, IReadOnlyList<string> Groups, EnrolledBy By, string? WhyNot);

/// <summary>What became of each person who was to be enrolled.</summary>
public sealed record EnrollReport(int Joined, int Folders, IReadOnlyList<EnrollDecision> Decisions);

/// <summary>A line of a pasted list, and whom it is about.</summary>
/// <param name="People">The one who is known, or those who might be meant, the likeliest first.</param>
public sealed record PastedLine(string Text, Knowledge Knowledge, string Why, IReadOnlyList<FoundPerson> People);

/// <summary>Where people are taken from, all at once: a class, a group of it, or a grade.</summary>
public sealed record TakeFrom(ClassId? Class, GroupId? Group, string? Grade);

/// <summary>The roster of a class, filled from the directory.</summary>
public sealed class RosterDesk(Premises premises)
{
    private const int MostFound = 12;
    private const int MostKnown = 100_000;

    /// <summary>People whose name begins with what was typed.</summary>
    /// <param name="typed">First letters of a last or first name, in any case, with or without accents; or of a student number.</param>
    public IReadOnlyList<FoundPerson> Search(ClassId? id, string? typed, bool students) => premises.Db.Read(c =>
    {
        var text = Refusals.NotLonger(typed ?? "", "typed", "What you typed", 100);
        var found = PersonStore.StartingWith(c, PersonName.SearchKey(text), students, MostFound);
        var now = RosterStore.Now(c, found.Select(f => f.Id), id);
        return found.Select(p => Found(p, now[p.Id])).ToList();
    });

    /// <summary>Reads people out of what was pasted and says whom the directory knows. Writes nothing.</summary>
    public IReadOnlyList<PastedLine> ReadPaste(ClassId id, string? text, bool students) => premises.Db.Read(c =>
    {
        var pasted = PastedList.Read(Refusals.NotLonger(text ?? "", "text", "The list", 100_000));
        var all = students ? PersonStore.Students(c, MostKnown) : PersonStore.Staff(c);
        var byId = all.ToDictionary(p => p.Id);
        var knowing = new Knowing([.. all.Select(p => new KnownPerson(p.Id, null, p.StudentNumber, p.Email, p.UserName, p.Name, p.Grade))]);
        var found = pasted.Select(l => (l.Text, Who: knowing.Find(l.Claim))).ToList();
        var people = Found(c, id, [.. found.SelectMany(f => Meant(f.Who)).Distinct().Select(p => byId[p])]).ToDictionary(p => p.Id);
        return found.Select(f => new PastedLine(f.Text, f.Who.Knowledge, f.Who.Why, [.. Meant(f.Who).Select(p => people[p])])).ToList();
    });

    /// <summary>All students of another class that the asker sees, of a group of it, or of a grade, who might be enrolled here.</summary>
    public IReadOnlyList<FoundPerson> All(Caller who, ClassId id, TakeFrom from) => premises.Db.Read(c =>
    {
        ClassGate.Demand(c, who, id, Act.ManageRoster);
        if (from.Class is { } k)
        {
            ClassGate.Demand(c, who, k, Act.ManageRoster);
            var members = from.Group is { } g ? GroupStore.Members(c, k)[g].ToHashSet() : null;
            return Found(c, id, PersonStore.Find(c, RosterStore.Members(c, k).Where(m => m.Role == ClassRole.Student && m.LeftAt is null && members?.Contains(m.PersonId) != false).Select(m => m.PersonId)));
        }
        var grade = Refusals.Needed(from.Grade, "grade", "The grade", 20);
        return Found(c, id, [.. PersonStore.Students(c, MostKnown).Where(p => string.Equals(p.Grade, grade, StringComparison.OrdinalIgnoreCase))]);
    });

    private static IEnumerable<PersonId> Meant(Recognised who) => who.Person is { } one ? [one] : who.Candidates;

    internal static List<FoundPerson> Found(IDbConnection c, ClassId id, IReadOnlyList<PersonRow> people)
    {
        var now = RosterStore.Now(c, people.Select(f => f.Id), id);
        return [.. people.OrderBy(p => PersonName.SearchKey(p.Name.Sort), StringComparer.Ordinal).Select(p => Found(p, now[p.Id]))];
    }

    private static FoundPerson Found(PersonRow p, ClassesNow now) => new(p.Id, p.Name.Sort, p.Grade, p.StudentNumber, p.Role, now.Here, now.Names);

    /// <summary>The roster: staff first, then students by name; those who left at the end.</summary>
    public IReadOnlyList<RosterRow> See(ClassId id) => premises.Db.Read(c =>
    {
        var folders = Store.Workspaces.FolderStore.OfClass(c, id).Where(f => f.StudentId is not null).Select(f => f.StudentId!.Value).ToHashSet();
        var held = WorkStore.OfClass(c, id).Where(w => w.State == Core.Assignments.WorkState.HandedIn).ToLookup(w => w.StudentId);
        var moved = RosterStore.MovedFrom(c, id);
        return RosterStore.Members(c, id).Select(m => new RosterRow(m.PersonId, m.Name.Sort, m.Grade, m.StudentNumber, m.Role, folders.Contains(m.PersonId),
            held[m.PersonId].Count(), premises.Clock.DateOf(m.JoinedAt), m.LeftAt is { } l ? premises.Clock.DateOf(l) : null)
        { By = m.EnrolledBy, FromThenOn = m.SeesFrom is not null, Posts = m.MayPost, MovedFrom = m.LeftAt is null ? moved[m.PersonId].LastOrDefault() : null })
            .OrderBy(r => r.Left is not null).ToList();
    });

    /// <summary>Enrolls people. Each who can be is; for the others the report says why not. Own folders unfold at once.</summary>
    /// <param name="includeOpen">True if students who join an open class also get the assignments that are open already.</param>
    public EnrollReport Enroll(Caller by, ClassId id, IReadOnlyList<PersonId> people, ClassRole role, bool includeOpen = false)
    {
        if (people.Count == 0) throw new RefusedException("missing", "Nobody is named.", "Choose at least one person.", "people");
        if (people.Count > 500) throw new RefusedException("too-many", $"{people.Count} people at once are too many.", "Enroll up to 500 in one act.", "people");
        if (role == ClassRole.Lead) throw new RefusedException("role-lead", "A lead teacher is not enrolled this way.", "Say on the roster who leads the class: they come onto it with that.", "role");
        return premises.Db.Write(c =>
        {
            var at = ClassGate.Demand(c, by, id, Act.ManageRoster);
            if (role == ClassRole.Student && at.Class.Kind != WorkspaceKind.Class) throw new RefusedException("department-students", "A department's members are staff.", "Choose teachers and other staff.", "role");
            var found = PersonStore.Find(c, people).ToDictionary(p => p.Id);
            if (people.Where(p => !found.ContainsKey(p)).ToList() is [var missing, ..])
                throw new RefusedException("person-unknown", $"The directory has nobody with the id {missing.Value}.", "Reload the page and choose again.", "people");
            var candidates = people.Select(p =>
            {
                var member = RosterStore.Member(c, id, p);
                return new Candidate(p, found[p].Name.Display, found[p].Role, found[p].Active, member?.Role, member?.LeftAt is not null);
            });
            var decisions = Enrolling.Decide(candidates, role, at.Class.State);
            var now = premises.Clock.Now;
            var joining = decisions.Where(d => d.Outcome is EnrollOutcome.Joins or EnrollOutcome.ComesBack).ToList();
            foreach (var d in joining)
            {
                RosterStore.Put(c, id, d.Person, role, now, EnrolledBy.Hand, SeesFrom(at.Class, role, includeOpen, now));
                Premises.Add(c, by, now, new(role == ClassRole.Student ? "enrolled student" : "enrolled co-teacher", "person", d.Person.Value, id, found[d.Person].Name.Display));
            }
            if (Permissions.InSchool(by.Role, Act.LetClassHaveSlips)) RosterStore.SayYesToSlips(c, id, joining.Select(d => d.Person));
            var folders = joining.Count > 0 ? Settings.Unfold(c, at.Class) : 0;
            return new EnrollReport(joining.Count, folders, decisions);
        });
    }

    /// <summary>A student who joins a class that is open sees what is set from then on; earlier assignments only if the teacher says so.</summary>
    internal static Instant? SeesFrom(Store.Workspaces.ClassRow k, ClassRole role, bool includeOpen, Instant now) => role == ClassRole.Student && k.State == ClassState.Open && !includeOpen ? now : null;

    /// <summary>Gives students of the roster the assignments that were open before they came, or takes them away again.</summary>
    public void IncludeOpen(Caller by, ClassId id, PersonId person, bool include) => premises.Db.Write(c =>
    {
        ClassGate.Demand(c, by, id, Act.ManageRoster).NotArchived();
        var m = RosterStore.Member(c, id, person) is { LeftAt: null, Role: ClassRole.Student } found ? found : throw Refusals.NotFound("student on the roster");
        RosterStore.SetSeesFrom(c, id, person, include ? null : m.JoinedAt);
        Premises.Add(c, by, premises.Clock.Now, new(include ? "gave what was open before" : "took away what was open before", "person", person.Value, id, m.Name.Display));
    });

    /// <summary>Says what taking people off the roster would mean for each. Writes nothing.</summary>
    public IReadOnlyList<Leaving> PreviewRemoval(ClassId id, IReadOnlyList<PersonId> people) => premises.Db.Read(c => Leavings(c, id, people));

    /// <summary>Takes people off the roster, all of them or none.</summary>
    public int RemoveMany(Caller by, ClassId id, IReadOnlyList<PersonId> people) => premises.Db.Write(c =>
    {
        ClassGate.Demand(c, by, id, Act.ManageRoster).NotArchived();
        var leaving = Leavings(c, id, people);
        if (leaving.Count == 0) throw new RefusedException("missing", "Nobody is ticked.", "Tick those who are to be taken off.", "people");
        if (leaving.FirstOrDefault(l => l.WhyNot is not null) is { } first) throw new RefusedException(first.Held > 0 ? "work-held" : "role-lead", first.WhyNot!, "Leave them out, or see to that first.", "people");
        var now = premises.Clock.Now;
        foreach (var l in leaving)
        {
            RosterStore.Leave(c, id, l.Id, now);
            Premises.Add(c, by, now, new("took off the roster", "person", l.Id.Value, id, l.Name));
        }
        return leaving.Count;
    });

    private static IReadOnlyList<Leaving> Leavings(IDbConnection c, ClassId id, IReadOnlyList<PersonId> people)
    {
        var roster = RosterStore.Members(c, id).Where(m => m.LeftAt is null).ToDictionary(m => m.PersonId);
        var groups = GroupStore.OfClass(c, id);
        var members = GroupStore.Members(c, id);
        return [.. people.Distinct().Select(p =>
        {
            if (!roster.TryGetValue(p, out var m)) throw Refusals.NotFound("person on the roster");
            var work = WorkStore.OfStudent(c, id, p);
            var held = work.Count(w => w.State == Core.Assignments.WorkState.HandedIn);
            var why = Enrolling.WhyNotOff(m.Name.Display, m.Role, held);
            return new Leaving(p, m.Name.Sort, held, work.Count(w => w.State == Core.Assignments.WorkState.Returned), work.Count(w => w.State == Core.Assignments.WorkState.Working),
                [.. groups.Where(g => members[g.Id].Contains(p)).Select(g => g.Name)], m.EnrolledBy, why);
        })];
    }

    /// <summary>Takes a person off the roster. Their folder and work stay; what is held must be returned first.</summary>
    public void Remove(Caller by, ClassId id, PersonId person) => premises.Db.Write(c =>
    {
        ClassGate.Demand(c, by, id, Act.ManageRoster).NotArchived();
        var member = RosterStore.Member(c, id, person) is { LeftAt: null } m ? m : throw Refusals.NotFound("person on the roster");
        var held = WorkStore.OfStudent(c, id, person).Count(w => w.State == Core.Assignments.WorkState.HandedIn);
        if (Enrolling.WhyNotOff(member.Name.Display, member.Role, held) is { } why)
            throw held > 0 ? new RefusedException("work-held", why, "Return it on the returns desk first.") : new RefusedException("role-lead", why, "Say first who leads the class from now on.");
        var now = premises.Clock.Now;
        RosterStore.Leave(c, id, person, now);
        Premises.Add(c, by, now, new("took off the roster", "person", person.Value, id, member.Name.Display));
    });
}
