using SpringLoft.App.Assignments;
using SpringLoft.Core.Assignments;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Assignments;
using SpringLoft.Store.Plans;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Runs;
using SpringLoft.Store.Workspaces;
using SpringLoft.Store.Years;

namespace SpringLoft.App.Workspaces;

/// <summary>Shows a workspace to a person: what the rules let them see, and nothing else.</summary>
public sealed class Workspace(Premises premises)
{
    /// <summary>The head of a class alone.</summary>
    public ClassHead Head(Caller who, ClassId id) => premises.Db.Read(c => Head(c, ClassGate.Demand(c, who, id, Act.SeeClass)));

    /// <summary>The workspace as the asker sees it.</summary>
    public WorkspaceView See(Caller who, ClassId id) => premises.Db.Read(c => See(c, ClassGate.Demand(c, who, id, Act.SeeClass), who.Id));

    /// <summary>The workspace exactly as a person of the roster sees it, or any student, who has no own folder and is in no group.</summary>
    /// <param name="person">Null for any student.</param>
    /// <returns>But for the address of the calendar, which is each person's own.</returns>
    public WorkspaceView SeeAs(ClassId id, PersonId? person) => premises.Db.Read(c =>
    {
        var k = ClassStore.Find(c, id) ?? throw Refusals.NotFound("class");
        if (person is not { } who) return See(c, new ClassAndPlace(k, Standing.Student, null, new HashSet<GroupId>()), default) with { Calendar = null };
        var member = RosterStore.Member(c, id, who) ?? throw Refusals.NotFound("person on the roster");
        var role = member.Role == ClassRole.Student ? SchoolRole.Student : SchoolRole.Teacher;
        return See(c, new ClassAndPlace(k, Permissions.StandingOf(role, member.Role, member.LeftAt is not null), member, GroupStore.Of(c, id, who)), who) with { Calendar = null };
    });

    private WorkspaceView See(IDbConnection c, ClassAndPlace at, PersonId who)
    {
        var id = at.Class.Id;
        var viewer = at.Viewer(who);
        var folders = FolderStore.OfClass(c, id);
        var access = new Access(viewer, folders.Select(f => f.Fact));
        var staff = at.Standing >= Standing.CoTeacher;
        var names = RosterStore.Members(c, id).ToDictionary(m => m.PersonId, m => m.Name.Display);

        var talks = TalkStore.OfClass(c, id).Select(t => t.FolderId).ToHashSet();
        var seen = folders.Select(f => (f, right: access.Of(f.Id))).Where(x => x.right.Right > Right.None)
            .Select(x => new FolderView(x.f.Id, x.f.ParentId, x.f.Name, x.f.Rule, x.right.Right,
                x.f.StudentId is { } s ? names.GetValueOrDefault(s) : null, x.f.StudentId == who, x.right.Steps, x.f.Version, x.f.GivenName is not null && (x.f.GivenName != x.f.Name || x.f.GivenRule != x.f.Rule), x.f.GroupId, x.f.Fact.Members, talks.Contains(x.f.Id))).ToList();
        var visible = seen.Select(f => f.Id).ToHashSet();
        var filings = ItemStore.Filings(c, id).ToLookup(f => f.Item, f => f.Folder);
        var asks = staff ? AskingStore.OfClass(c, id).Where(a => a.ItemId is not null).ToDictionary(a => a.ItemId!.Value, a => new Asks(a.AskedOf, a.Until)) : [];
        var asked = staff ? [] : Acknowledgements.OfStudent(c, at, who, premises.Clock.Today);
        var items = ItemStore.OfClass(c, id).Where(i => access.OfThing(filings[i.Id]) > Right.None)
            .Select(i => new ItemView(i.Id, i.Kind, i.Name, i.Size, i.Url, [.. filings[i.Id].Where(visible.Contains)], i.AddedByName, i.AddedAt,
                access.MayRename(filings[i.Id], i.AddedBy == who), access.MayRemove(filings[i.Id], i.AddedBy == who), i.Version, i.MayCopy, i.ByStudent)
            { Asks = asks.GetValueOrDefault(i.Id), Asked = asked.FirstOrDefault(a => a.Asking.ItemId == i.Id).Own }).ToList();

        var open = InSight.IsOpen(at);
        var placed = AssignmentStore.Filings(c, id);
        var given = AssignmentStore.GivenTo(c, id);
        var toGroups = AssignmentStore.GivenGroups(c, id);
        // Who has it by name, and who is in which group, is for staff alone.
        var (byName, inGroups) = staff ? (AssignmentStore.GivenRows(c, id), GroupStore.Members(c, id)) : default;
        var attached = AttachedStore.OfClass(c, id);
        var own = staff ? null : OwnWork.Of(c, id, who, premises.Clock.Zone);
        var assignments = InSight.Of(c, at, who, access, placed, given, a => own?.View(a) is not null)
            .Select(a => new AssignmentView(a.Id, a.Title, a.Instructions, a.Points, a.Scheme, a.DueOn, a.DueTime, a.LateDays, Lateness.StateOf(a.Due, premises.Clock), a.PublishedAt is not null, a.PublishAt is { } p ? premises.Clock.LocalOf(p) : null, [.. placed[a.Id].Where(visible.Contains)],
                byName is not null ? [.. byName[a.Id].Where(x => !x.ByGroup).Select(x => x.Person)] : [], [.. toGroups[a.Id].Where(g => staff || at.Groups.Contains(g.Id)).Select(g => new GroupName(g.Id, g.Name))],
                inGroups is not null && a.PublishedAt is not null ? GivenGroups.JoinedSince(toGroups[a.Id].Select(g => g.Id), [.. given[a.Id]], inGroups) : [], a.Version, own?.View(a.Id), [.. attached[a.Id].Select(t => AttachedView.Of(t, staff))])).ToList();
        var groupNames = GroupStore.OfClass(c, id).ToDictionary(g => g.Id, g => g.Name);
        var told = Notices.OfClass(c, at, premises.Clock.Today).ToList();
        var withThem = NoticeFileStore.Of(c, told.Select(n => n.Id));
        var notices = told.Select(n => new NoticeView(n.Id, n.Text, n.Author, n.PostedAt, n.PostAt is { } p ? premises.Clock.LocalOf(p) : null, n.ChangedAt,
            NoticeSight.IsPinned(n.Fact, premises.Clock.Today), n.GroupId is { } g ? groupNames.GetValueOrDefault(g) : null, NoticeFile.Of(withThem[n.Id]))
        { Asked = asked.FirstOrDefault(a => a.Asking.NoticeId == n.Id).Own }).ToList();
        var uses = staff || open ? ResourceStore.OfClass(c, id).Where(r => staff || ResourceFit.StudentsSee(r.ForWhom)).Select(r => new UsedThing(r.Id, r.Title, r.Url, r.FileName, r.ForWhom)).ToList() : [];
        return new WorkspaceView(Head(c, at), seen, items, assignments, notices, RunStore.TakeHome(c, id, who) is not null, staff || open ? at.Class.Welcome : "", uses,
            staff ? [.. GroupStore.OfClass(c, id).Select(g => new GroupName(g.Id, g.Name))] : [],
            at.Class is { HasCalendar: true, State: not ClassState.Archived } && (staff || open) ? Years.ClassCalendars.AddressOf(c, id, who) : null)
        {
            ActivityDays = Store.School.RulesStore.Get(c).Rules.KeepsActivity ? Activity.KeptDays : null,
            Room = staff ? new(Store.Files.UsageStore.OfClass(c, id), Store.School.RulesStore.Get(c).Rules.ClassBytes()) : null,
        };
    }

    /// <summary>All classes that the asker is in, with what waits for them; those that students do not see yet left out for students.</summary>
    public IReadOnlyList<OwnClass> Mine(Caller who) => premises.Db.Read(c =>
    {
        var years = YearStore.All(c).ToDictionary(y => y.Id, y => y.Year.Label);
        return ClassStore.OfPerson(c, who.Id).Where(k => k.Kind != WorkspaceKind.Kept).Select(k =>
        {
            var at = ClassGate.Find(c, who, k.Id);
            var takeHome = RunStore.TakeHome(c, k.Id, who.Id) is not null;
            var back = at.Standing == Standing.Left ? Store.Assignments.WorkStore.OfStudent(c, k.Id, who.Id).Count(w => w.State == WorkState.Returned) : 0;
            if (at.Standing < Standing.Student && !(at.Standing == Standing.Left && (takeHome || back > 0))) return null;
            if (at.Standing <= Standing.Student && k.State == ClassState.InPreparation) return null;
            var todo = 0;
            var returned = back;
            if (at.Standing == Standing.Student && k.State == ClassState.Open)
            {
                var seen = See(who, k.Id).Assignments;
                if (at.Member?.MayPost != false) todo = seen.Count(a => a is { DueState: not DueState.Closed, Own: null or { State: WorkState.Working } });
                returned = seen.Count(a => a.Own?.ReturnedAt is not null);
            }
            return new OwnClass(k.Id, k.Name, k.Course, k.Mark, years[k.YearId], k.State, k.TeacherShown, at.Standing, todo, returned, takeHome);
        }).OfType<OwnClass>().ToList();
    });

    private static ClassHead Head(IDbConnection c, ClassAndPlace at)
    {
        var k = at.Class;
        var label = YearStore.All(c).First(y => y.Id == k.YearId).Year.Label;
        var students = RosterStore.Members(c, k.Id).Count(m => m.Role == ClassRole.Student && m.LeftAt is null);
        var staff = at.Standing >= Standing.CoTeacher;
        return new(k.Id, k.Kind, k.Name, k.Course, k.Mark, k.Section, k.Period, k.Level, k.Room, k.TermId, k.EndsOn, k.YearId, label, k.State, k.AfterArchive, k.TeacherShown, at.Standing,
            [.. Enum.GetValues<Act>().Where(a => Permissions.IsAboutClass(a) && Permissions.InClass(at.Standing, a))], k.Version,
            staff ? students : 0, staff && RunStore.IsGoing(c, k.Id), staff ? k.RolledFrom : null,
            staff && k.PlanId is { } p ? PlanStore.Find(c, p)?.Plan.Name : null)
        { Posts = staff || at.Member?.MayPost != false };
    }
}
