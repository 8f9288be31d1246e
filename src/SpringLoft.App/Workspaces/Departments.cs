using SpringLoft.App.Plans;
using SpringLoft.Core.Naming;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Assignments;
using SpringLoft.Store.Naming;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Workspaces;
using SpringLoft.Store.Years;

namespace SpringLoft.App.Workspaces;

/// <summary>A department's workspace.</summary>
/// <param name="Changed">Copies in classes that the bank has a newer version of.</param>
public sealed record DepartmentView(ClassId Id, string Name, string Mark, int Members, int Folders, int Assignments, int Things, int Copies, int Changed, bool Member);

/// <summary>A copy of a bank's thing whose original has changed since.</summary>
/// <param name="IsAssignment">An assignment, or else a file, link or page.</param>
/// <param name="HandedIn">Pieces of work that were handed in for it: then it stays as it is.</param>
public sealed record BankOffer(bool IsAssignment, long Copy, ClassId Class, string ClassName, ClassId Bank, string BankName, string Title, string NewTitle, int VersionsBehind, int HandedIn);

/// <summary>Departments: their staff as members, their papers, and a bank of assignments and materials that classes draw on.</summary>
public sealed class Departments(Premises premises)
{
    /// <summary>All departments.</summary>
    public IReadOnlyList<DepartmentView> All(Caller who) => premises.Db.Read(c => ClassStore.Departments(c).Select(k =>
    {
        var members = RosterStore.Members(c, k.Id).Where(m => m.LeftAt is null).ToList();
        var offers = Offers(c, k);
        return new DepartmentView(k.Id, k.Name, k.Mark, members.Count, FolderStore.OfClass(c, k.Id).Count, AssignmentStore.OfClass(c, k.Id).Count, ItemStore.OfClass(c, k.Id).Count,
            AssignmentStore.CopiesOf(c, k.Id).Count + ItemStore.CopiesOf(c, k.Id).Count, offers.Count(o => o.HandedIn == 0), members.Any(m => m.PersonId == who.Id));
    }).ToList());

    /// <summary>Makes a department's workspace with its first folders; its maker leads it.</summary>
    public ClassId Make(Caller by, string? name, string? mark, IReadOnlyList<PersonId> members) => premises.Db.Write(c =>
    {
        var raw = Refusals.Needed(name, "name", "The name of the department", 80);
        var safe = SafeName.Make(raw)?.Name ?? throw new RefusedException("name-empty", $"“{raw}” leaves nothing to call the department by.", "Give it a name with a letter or a number.", "name");
        if (mark is not null && !CourseMarks.All.Contains(mark)) throw new RefusedException("mark-unknown", $"There is no mark “{mark}”.", $"Use one of: {string.Join(", ", CourseMarks.All)}.", "mark");
        if (ClassStore.Names(c, SafeName.Key(safe)).Count > 0 || SchoolStore.Courses(c).Any(o => SafeName.Clash(o.Name, safe)))
            throw new RefusedException("name-taken", $"There is already a class or course “{safe}”.", "Give the department another name, such as “Department of …”.", "name");
        var now = premises.Clock.Now;
        var course = SchoolStore.CourseNamed(c, safe, mark ?? CourseMarks.All[^1], safe);
        var year = Years.YearLine.Current(YearStore.All(c), premises.Clock.Today);
        var id = ClassStore.Add(c, new ClassRow { Kind = WorkspaceKind.Department, YearId = year.Id, CourseId = course.Id, Name = safe, TeacherShown = by.Name, MadeAt = now });
        ClassStore.SetState(c, ClassStore.Find(c, id)!, ClassState.Open, now, AfterArchive.View);
        RosterStore.Put(c, id, by.Id, ClassRole.Lead, now);
        foreach (var m in members.Where(m => m != by.Id))
        {
            if (Store.People.PersonStore.Find(c, m) is not { Role: not SchoolRole.Student }) throw new RefusedException("department-students", "A department's members are staff.", "Choose teachers and other staff.", "members");
            RosterStore.Put(c, id, m, ClassRole.CoTeacher, now);
        }
        string[] first = ["Meetings", "Bank", "Shared papers"];
        for (var i = 0; i < first.Length; i++) FolderStore.Add(c, id, null, first[i], i, FolderRule.StaffOnly, null, null);
        Premises.Add(c, by, now, new("made department", "class", id.Value, id, $"“{safe}” with {members.Count} members"));
        return id;
    });

    /// <summary>Copies of a department's things whose originals have changed since: those in classes that the asker teaches, or all for a member of the department.</summary>
    public IReadOnlyList<BankOffer> OffersOf(ClassId department) => premises.Db.Read(c =>
        ClassStore.Find(c, department) is { Kind: WorkspaceKind.Department } k ? Offers(c, k) : throw Refusals.NotFound("department"));

    /// <summary>What banks offer to one class.</summary>
    public IReadOnlyList<BankOffer> OffersTo(ClassId id) => premises.Db.Read(c => ClassStore.Departments(c).SelectMany(k => Offers(c, k)).Where(o => o.Class == id).ToList());

    /// <summary>Takes what the bank has now into copies of one class. Work that was handed in keeps its assignment as it is.</summary>
    /// <returns>How many copies were brought up to date.</returns>
    public int Take(Caller by, ClassId id, IReadOnlyList<AssignmentId> assignments, IReadOnlyList<ItemId> items) => premises.Db.Write(c =>
    {
        ClassGate.Demand(c, by, id, Act.Arrange).NotArchived();
        var offers = ClassStore.Departments(c).SelectMany(k => Offers(c, k)).Where(o => o.Class == id).ToList();
        var now = premises.Clock.Now;
        foreach (var a in assignments)
        {
            var offer = offers.FirstOrDefault(o => o.IsAssignment && o.Copy == a.Value) ?? throw Refusals.NotFound("newer version in the bank");
            if (WorkStore.AnyCame(c, a)) throw new RefusedException("bank-handed-in", $"Work was handed in, or marked, for “{offer.Title}” as it is.", "Make a new assignment of the bank's for those who come.");
            var copy = AssignmentStore.Find(c, id, a)!;
            var bank = AssignmentStore.Find(c, offer.Bank, copy.BankId!.Value)!;
            var taken = AssignmentStore.OfClass(c, id).Where(x => x.Id != a).Select(x => SafeName.Key(x.Title)).ToHashSet();
            AssignmentStore.Save(c, copy with { Title = SafeName.Distinct(bank.Title, taken, isFile: false), Instructions = bank.Instructions, Points = bank.Points, SchemeJson = bank.SchemeJson, BankVersion = bank.Version });
            AttachedStore.Copy(c, bank.Id, a);
            Premises.Add(c, by, now, new("took from the bank", "assignment", a.Value, id, bank.Title));
        }
        foreach (var i in items)
        {
            if (!offers.Any(o => !o.IsAssignment && o.Copy == i.Value)) throw Refusals.NotFound("newer version in the bank");
            var copy = ItemStore.Find(c, id, i)!;
            var bank = ItemStore.Find(c, offers.First(o => !o.IsAssignment && o.Copy == i.Value).Bank, copy.BankId!.Value)!;
            // What stands there becomes an earlier version: somebody of the class may have written in it.
            if (bank.Sha256 is { } sha && sha != copy.Sha256) ItemStore.Replace(c, copy, bank.Name, sha, copy.Version, by.Id, now);
            ItemStore.Save(c, ItemStore.Find(c, id, i)! with { Name = bank.Name, Url = bank.Url, BankVersion = bank.Version });
            Premises.Add(c, by, now, new("took from the bank", "item", i.Value, id, bank.Name));
        }
        return assignments.Count + items.Count;
    });

    private static List<BankOffer> Offers(IDbConnection c, ClassRow bank)
    {
        var names = new Dictionary<ClassId, string>();
        string NameOf(ClassId id) => names.TryGetValue(id, out var n) ? n : names[id] = ClassStore.Find(c, id)!.Name;
        var originals = AssignmentStore.OfClass(c, bank.Id).ToDictionary(a => a.Id);
        var things = ItemStore.OfClass(c, bank.Id).ToDictionary(i => i.Id);
        return [.. AssignmentStore.CopiesOf(c, bank.Id).Where(x => originals.TryGetValue(x.BankId, out var o) && o.Version > x.BankVersion)
                .Select(x => new BankOffer(true, x.Id.Value, x.ClassId, NameOf(x.ClassId), bank.Id, bank.Name, x.Title, originals[x.BankId].Title, originals[x.BankId].Version - x.BankVersion, x.HandedIn)),
            .. ItemStore.CopiesOf(c, bank.Id).Where(x => things.TryGetValue(x.Bank, out var o) && o.Version > x.At)
                .Select(x => new BankOffer(false, x.Copy.Value, x.Class, NameOf(x.Class), bank.Id, bank.Name, ItemStore.Find(c, x.Class, x.Copy)!.Name, things[x.Bank].Name, things[x.Bank].Version - x.At, 0))];
    }
}
