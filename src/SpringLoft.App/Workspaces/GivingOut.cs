using SpringLoft.Core.Naming;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Assignments;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Workspaces;

/// <summary>What is to stand in several classes.</summary>
/// <param name="Folders">With all files, links and pages in them, and from a bank with the assignments too; own folders and folders of groups are left out.</param>
/// <param name="Welcome">The welcome note too.</param>
/// <param name="To">The classes that receive.</param>
/// <param name="Into">From a bank: the folder at the top of each class into which it goes, made where there is none; blank for the first that the class sees.</param>
public sealed record GiveDraft(IReadOnlyList<ItemId>? Items, IReadOnlyList<FolderId>? Folders, IReadOnlyList<AssignmentId>? Assignments, bool Welcome, IReadOnlyList<ClassId>? To, string? Into = null);

/// <summary>One line of what giving does.</summary>
/// <param name="There">True if it stands there already: then nothing is done.</param>
public sealed record GiveLine(string What, string Where, bool There);

/// <summary>What giving does, or did, to one class.</summary>
/// <param name="Refused">Why this class can't receive; null if it can.</param>
/// <param name="WelcomeReplaced">The welcome note there is another one, and is replaced.</param>
/// <param name="Unseen">Of what is added, how much its students will not see: it goes into a folder for staff.</param>
/// <param name="Undated">Of the assignments that are added, how many leave a due day behind.</param>
/// <param name="Unpublished">Of those, how many are published here and come as drafts.</param>
/// <param name="Barred">Things in the folders that stay behind, since they are marked as nothing to copy.</param>
/// <param name="Tops">Folders at the top of the class into which it could go.</param>
public sealed record GiveClass(ClassId Class, string Name, string? Refused, int MakesFolders, int Adds, int ThereAlready, bool Welcome, bool WelcomeReplaced, IReadOnlyList<GiveLine> Lines, int Unseen = 0, int Undated = 0, int Unpublished = 0, IReadOnlyList<string>? Tops = null, int Barred = 0);

/// <summary>Puts the same files, links, pages, folders, drafts and welcome note into several classes in one act.</summary>
public sealed class GivingOut(Premises premises)
{
    private const int MostLines = 60;

    /// <summary>Most classes in one act.</summary>
    public const int MostClasses = 500;

    /// <summary>What it would do, class by class. Writes nothing.</summary>
    public IReadOnlyList<GiveClass> Preview(Caller who, ClassId from, GiveDraft draft) => premises.Db.Read(c => Each(c, who, from, draft, null));

    /// <summary>Does it, in all classes or in none.</summary>
    public IReadOnlyList<GiveClass> Give(Caller by, ClassId from, GiveDraft draft) => premises.Db.Write(c => Each(c, by, from, draft, premises.Clock.Now));

    private static IReadOnlyList<GiveClass> Each(IDbConnection c, Caller who, ClassId from, GiveDraft draft, Instant? at)
    {
        var source = Source.Load(c, ClassGate.Demand(c, who, from, Act.Arrange).Class, draft);
        var to = (draft.To ?? []).Distinct().Where(k => k != from).ToList();
        if (to.Count == 0) throw new RefusedException("missing", "No class is ticked.", "Tick the classes that are to receive it.", "to");
        if (to.Count > MostClasses) throw new RefusedException("too-many", $"{to.Count} classes at once are too many.", $"Take up to {MostClasses} in one act.", "to");
        return [.. to.Select(k => One(c, who, source, k, at))];
    }

    private static GiveClass One(IDbConnection c, Caller who, Source source, ClassId id, Instant? at)
    {
        var place = ClassGate.Demand(c, who, id, Act.Arrange);
        var k = place.Class;
        if (k.State == ClassState.Archived) return new(id, k.Name, "It is archived: restore it from the loft first.", 0, 0, 0, false, false, []);
        var folders = FolderStore.OfClass(c, id);
        List<ReceivingFolder> receiving = [.. folders.Where(f => f.StudentId is null && f.GroupId is null).OrderBy(f => f.Position).Select(f => new ReceivingFolder(f.Id, f.ParentId, f.Name, f.Rule))];
        var plan = source.DecideFor(receiving, WhatStands(c, id));
        var welcome = source.Welcome is not null && source.Welcome != k.Welcome;
        if (at is { } now) Write(c, who, source, k, plan, welcome, folders, now);
        var lines = plan.Folders.Select(f => new GiveLine("makes a folder", f.Way, false))
            .Concat(plan.Things.Select(t => new GiveLine(t.Name, string.Join("; ", t.Places.Select(p => p.Way)), t.There))).ToList();
        var added = plan.Things.Where(t => !t.There).ToList();
        var drafts = added.Where(t => t.Index >= source.Items.Count).Select(t => source.Drafts[t.Index - source.Items.Count].Row).ToList();
        return new(id, k.Name, null, plan.Folders.Count, added.Count, plan.Things.Count - added.Count, welcome, welcome && k.Welcome.Length > 0, [.. lines.Take(MostLines)],
            Core.Workspaces.Giving.Unseen(plan, folders.Select(f => f.Fact)), drafts.Count(d => d.DueOn is not null), drafts.Count(d => d.PublishedAt is not null), [.. Core.Workspaces.Giving.Tops(receiving).Select(f => f.Name)], source.Barred);
    }

    private static void Write(IDbConnection c, Caller by, Source source, ClassRow k, GivePlan plan, bool welcome, IReadOnlyList<FolderRow> folders, Instant now)
    {
        var last = folders.GroupBy(f => f.ParentId ?? default).ToDictionary(g => g.Key, g => g.Max(f => f.Position));
        var made = new List<FolderId>();
        foreach (var f in plan.Folders)
        {
            FolderId? parent = f.Parent is { } p ? made[p] : f.In;
            last[parent ?? default] = last.GetValueOrDefault(parent ?? default, -1) + 1;
            made.Add(FolderStore.Add(c, k.Id, parent, f.Name, last[parent ?? default], f.Rule, null, null));
        }
        FolderId Place(ThingPlace p) => p.In ?? made[p.Made!.Value];
        foreach (var step in plan.Things.Where(t => !t.There))
        {
            if (step.Index < source.Items.Count)
            {
                var item = source.Items[step.Index];
                var bank = source.IsBank ? (item.Id, item.Version) : ((ItemId, int)?)null;
                var copy = ItemStore.Add(c, k.Id, item with { Name = step.Name, AddedBy = by.Id, ByStudent = false, AddedAt = now, BankId = bank?.Item1, BankVersion = bank?.Item2 });
                foreach (var p in step.Places) ItemStore.File(c, copy, Place(p));
                if (AskingStore.AsksOf(c, item.Id) is var (of, until)) AskingStore.AskItem(c, copy, of, until, by.Id, now);
            }
            else
            {
                var a = source.Drafts[step.Index - source.Items.Count].Row;
                var taken = AssignmentStore.OfClass(c, k.Id).Select(x => SafeName.Key(x.Title)).ToHashSet();
                var copy = AssignmentStore.Add(c, k.Id, a with { Title = SafeName.Distinct(a.Title, taken, isFile: false), DueOn = null, DueTime = null, MadeAt = now, BankId = source.IsBank ? a.Id : null, BankVersion = source.IsBank ? a.Version : null }, step.Places.Select(Place), []);
                AttachedStore.Copy(c, a.Id, copy);
            }
        }
        if (welcome) ClassStore.SetWelcome(c, k.Id, k.Version, source.Welcome!, by.Id, now);
        Premises.Add(c, by, now, new(source.IsBank ? "used from the bank" : "gave the same things", "class", k.Id.Value, k.Id, $"from “{source.Name}”: {plan.Things.Count(t => !t.There)} things, {plan.Folders.Count} folders"));
    }

    private static List<ReceivingThing> WhatStands(IDbConnection c, ClassId id)
    {
        var items = ItemStore.OfClass(c, id).ToDictionary(i => i.Id);
        var assignments = AssignmentStore.OfClass(c, id);
        var placed = AssignmentStore.Filings(c, id);
        return [.. ItemStore.Filings(c, id).Where(f => items.ContainsKey(f.Item)).Select(f => new ReceivingThing(f.Folder, items[f.Item].Name, SameAs(items[f.Item]))),
            .. assignments.SelectMany(a => placed[a.Id].SelectMany(f => SameAs(a).Select(same => new ReceivingThing(f, a.Title, same))))];
    }

    private static string SameAs(ItemRow i) => $"{i.Kind}:{i.Url ?? i.Sha256}";

    // A copy of a bank's is known by that, whatever it is called; another class's by its title.
    private static IEnumerable<string> SameAs(AssignmentRow a) => a.BankId is { } bank ? [OfBank(bank), Titled(a)] : [Titled(a)];

    private static string OfBank(AssignmentId id) => $"Assignment of bank:{id.Value}";

    private static string Titled(AssignmentRow a) => $"Assignment:{SafeName.Key(a.Title)}";

    // What is given, in terms of ways that mean the same in every class.
    private sealed record Source(string Name, bool IsBank, IReadOnlyList<ItemRow> Items, IReadOnlyList<ThingToGive> Things, IReadOnlyList<(AssignmentRow Row, ThingToGive Thing)> Drafts, IReadOnlyList<Way> Empty, string? Welcome, string? Into, int Barred)
    {
        /// <summary>What becomes of it in one class. From a bank it goes where the class's students see it.</summary>
        internal GivePlan DecideFor(IReadOnlyList<ReceivingFolder> folders, IReadOnlyList<ReceivingThing> there)
        {
            var all = Things.Concat(Drafts.Select(d => d.Thing)).ToList();
            if (!IsBank) return Core.Workspaces.Giving.Decide(all, Empty, folders, there);
            var into = Core.Workspaces.Giving.Into(Into, Name, folders);
            Way In(Way w) => Core.Workspaces.Giving.FromBank(w, into);
            return Core.Workspaces.Giving.Decide([.. all.Select(t => t with { Ways = [.. t.Ways.Select(In)] })], [.. Empty.Select(In)], folders, there);
        }

        internal static Source Load(IDbConnection c, ClassRow k, GiveDraft draft)
        {
            var folders = FolderStore.OfClass(c, k.Id).ToDictionary(f => f.Id);
            bool Own(FolderId? id) => id is { } f && folders.TryGetValue(f, out var row) && (row.StudentId is not null || row.GroupId is not null || Own(row.ParentId));
            Way WayTo(FolderId id)
            {
                var way = new List<WayFolder>();
                for (FolderId? at = id; at is { } f && folders.TryGetValue(f, out var row); at = row.ParentId) way.Insert(0, new(row.Name, row.Rule));
                return new(way);
            }
            var chosen = (draft.Folders ?? []).ToHashSet();
            if (chosen.Any(f => !folders.ContainsKey(f))) throw Refusals.NotFound("folder");
            bool Within(FolderId? id) => id is { } f && (chosen.Contains(f) || (folders.TryGetValue(f, out var row) && Within(row.ParentId)));
            var going = folders.Values.Where(f => Within(f.Id) && !Own(f.Id)).ToList();
            var filings = ItemStore.Filings(c, k.Id).ToLookup(f => f.Item, f => f.Folder);
            var asked = (draft.Items ?? []).ToHashSet();
            var all = ItemStore.OfClass(c, k.Id);
            if (asked.Any(i => all.All(x => x.Id != i))) throw Refusals.NotFound("thing");
            if (all.FirstOrDefault(i => asked.Contains(i.Id) && !i.MayCopy) is { } barred)
                throw new RefusedException("may-not-copy", $"“{barred.Name}” is marked as nothing to copy into another class.", "Leave it out, or have the mark taken off in its class by whoever has the right to it.", "items");
            var items = all.Where(i => !i.ByStudent && i.MayCopy && (asked.Contains(i.Id) || filings[i.Id].Any(f => Within(f) && !Own(f)))).ToList();
            var things = items.Select((i, n) => new ThingToGive(n, i.Name, SameAs(i), i.Kind == ItemKind.File,
                [.. filings[i.Id].Where(f => !Own(f) && (asked.Contains(i.Id) || Within(f))).Select(WayTo)])).ToList();
            if (things.FirstOrDefault(t => t.Ways.Count == 0) is { } loose) throw new RefusedException("thing-unfiled", $"“{loose.Name}” stands in no folder that other classes could have.", "File it in a folder first.", "items");
            var wanted = (draft.Assignments ?? []).ToHashSet();
            var placed = AssignmentStore.Filings(c, k.Id);
            var there = AssignmentStore.OfClass(c, k.Id);
            if (wanted.Any(w => there.All(a => a.Id != w))) throw Refusals.NotFound("assignment");
            // A folder of a bank is used with the assignments in it: they are what a bank is for.
            var bank = k.Kind == WorkspaceKind.Department;
            var rows = there.Where(a => wanted.Contains(a.Id) || (bank && placed[a.Id].Any(f => Within(f) && !Own(f)))).ToList();
            var drafts = rows.Select((a, n) => (a, new ThingToGive(items.Count + n, a.Title, bank ? OfBank(a.Id) : Titled(a), false, [.. placed[a.Id].Where(f => !Own(f)).Select(WayTo)]))).ToList();
            if (drafts.FirstOrDefault(d => d.Item2.Ways.Count == 0).a is { } bare) throw new RefusedException("thing-unfiled", $"“{bare.Title}” stands in no folder that other classes could have.", "File it in a folder first.", "assignments");
            if (things.Count + drafts.Count + going.Count == 0 && !draft.Welcome) throw new RefusedException("missing", "Nothing is chosen to be given.", "Choose files, links, pages, folders or the welcome note.", "items");
            var stays = all.Count(i => !i.ByStudent && !i.MayCopy && filings[i.Id].Any(f => Within(f) && !Own(f)));
            return new(k.Name, bank, items, things, drafts, [.. going.Select(f => WayTo(f.Id))], draft.Welcome ? k.Welcome : null, SafeName.Make(draft.Into ?? "")?.Name, stays);
        }
    }
}
