using System.Text;
using SpringLoft.App.Workspaces;
using SpringLoft.Core.Naming;
using SpringLoft.Core.Rollover;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Assignments;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Rollover;

/// <summary>A folder of a structure, by its way from the top.</summary>
public sealed record StructureFolder(IReadOnlyList<string> Path, FolderRule Rule);

/// <summary>A link or a page of a structure.</summary>
/// <param name="Address">For a link; null for a page.</param>
/// <param name="Text">For a page, CommonMark; null for a link.</param>
public sealed record StructureThing(string Title, string? Address, string? Text, IReadOnlyList<IReadOnlyList<string>> Folders)
{
    internal ItemKind Kind => Text is not null ? ItemKind.Page : Address is not null ? ItemKind.Link : ItemKind.File;
}

/// <summary>What of a structure has bytes, as they are kept. Of a thing that is not in it nothing is known yet.</summary>
internal sealed class TakenBytes
{
    internal Dictionary<StructureThing, Store.Files.StoredFile> Things { get; } = new(ReferenceEqualityComparer.Instance);
    internal Dictionary<StructureAssignment, IReadOnlyList<(string Name, Store.Files.StoredFile Stored)>> Attached { get; } = new(ReferenceEqualityComparer.Instance);
}

/// <summary>An assignment of a structure.</summary>
public sealed record StructureAssignment(string Title, string Instructions, decimal? Points, IReadOnlyList<IReadOnlyList<string>> Folders);

/// <summary>The set-up of a class as a file, without people, work and dates. Described in docs/structure-file.md.</summary>
/// <param name="Version">1.</param>
public sealed record StructureFile(int Version, string Course, string Welcome, IReadOnlyList<StructureFolder> Folders, IReadOnlyList<StructureThing> Things, IReadOnlyList<StructureAssignment> Assignments, IReadOnlyList<string> Groups);

/// <summary>What taking a structure in does, or did.</summary>
/// <param name="There">Of the folders, things and assignments, how many stand already and are left as they are.</param>
public sealed record StructureTaken(int Folders, int Things, int Assignments, int Groups, int There);

/// <summary>Lets the set-up of a class leave as a file, and arrive from one.</summary>
public sealed class StructureFiles(Premises premises)
{
    private const int Most = 5000;

    /// <summary>The set-up of a class: what rolling over would carry, but for files.</summary>
    public StructureFile Write(ClassId id) => premises.Db.Read(c =>
    {
        var k = ClassStore.Find(c, id) ?? throw Refusals.NotFound("class");
        var stands = WhatStands.Load(c, id);
        var along = stands.Along;
        var byId = stands.Rows.ToDictionary(f => f.Id);
        var coming = along.Folders.ToHashSet();
        List<string> Way(FolderId f) => byId[f].ParentId is { } p ? [.. Way(p), byId[f].Name] : [byId[f].Name];
        var placed = AssignmentStore.Filings(c, id);
        var things = along.Items.ToHashSet();
        return new StructureFile(1, k.Course, k.Welcome, [.. along.Folders.Select(f => new StructureFolder(Way(f), byId[f].Rule))],
            [.. stands.Live.Where(i => things.Contains(i.Id) && i.Kind != ItemKind.File).Select(i => new StructureThing(i.Name, i.Url, i.Kind == ItemKind.Page ? Text(i.Sha256!) : null, [.. stands.Filings[i.Id].Where(coming.Contains).Select(Way)]))],
            [.. stands.Assignments.Select(a => new StructureAssignment(a.Title, a.Instructions, a.Points, [.. placed[a.Id].Where(coming.Contains).Select(Way)]))],
            stands.Groups);
    });

    /// <summary>Takes a structure into a class: what is missing is made, what stands there is left as it is.</summary>
    /// <param name="apply">False to only say what would be done.</param>
    /// <exception cref="RefusedException"><c>structure-wrong</c>, naming the line; nothing is made.</exception>
    public StructureTaken Take(Caller by, ClassId id, StructureFile? file, bool apply)
    {
        var here = premises.Db.Read(c => ClassGate.Demand(c, by, id, Act.Arrange).NotArchived().Class);
        var s = Check(file);
        var said = premises.Db.Read(c => new Taking(c, by, here, s, new(), premises.Clock.Now, false).Do());
        if (!apply) return said;
        var bytes = new TakenBytes();
        foreach (var t in s.Things.Where(t => t.Text is not null)) bytes.Things[t] = premises.Files.Make(to => to.Write(Encoding.UTF8.GetBytes(t.Text!)));
        return premises.Db.Write(c =>
        {
            var done = new Taking(c, by, ClassGate.Demand(c, by, id, Act.Arrange).NotArchived().Class, s, bytes, premises.Clock.Now, true).Do();
            Premises.Add(c, by, premises.Clock.Now, new("took a structure in", "class", id.Value, id, $"{done.Folders} folders, {done.Things} things, {done.Assignments} assignments"));
            return done;
        });
    }

    private string Text(string sha)
    {
        using var reader = new StreamReader(premises.Files.Open(sha), Encoding.UTF8);
        return reader.ReadToEnd();
    }

    internal static StructureFile Check(StructureFile? s, bool files = false)
    {
        RefusedException Wrong(string what) => new("structure-wrong", $"The structure can't be taken in: {what}", "Mend the file, or fetch it again from where it was made.", "structure");
        if (s is null || s.Version != 1) throw Wrong("it does not say version 1.");
        s = s with { Folders = s.Folders ?? [], Things = s.Things ?? [], Assignments = s.Assignments ?? [], Groups = s.Groups ?? [], Welcome = s.Welcome ?? "" };
        if (s.Folders.Count + s.Things.Count + s.Assignments.Count > Most) throw Wrong($"it has more than {Most} folders, things and assignments.");
        var known = new HashSet<string>(StringComparer.Ordinal);
        foreach (var (f, i) in s.Folders.Select((f, i) => (f, i)))
        {
            if (f?.Path is not { Count: > 0 and <= 20 } path || path.Any(n => SafeName.Make(n ?? "") is null)) throw Wrong($"folder {i + 1} has no name, or stands deeper than 20.");
            if (path.Count > 1 && !known.Contains(Key(path.SkipLast(1)))) throw Wrong($"folder {i + 1}, “{string.Join("/", path)}”, stands in a folder that is not listed before it.");
            known.Add(Key(path));
        }
        foreach (var (t, i) in s.Things.Select((t, i) => (t, i)))
        {
            if (t is null || SafeName.Make(t.Title ?? "") is null || (t.Address is not null && t.Text is not null) || (!files && t.Address is null && t.Text is null)) throw Wrong($"thing {i + 1} is neither a link with an address nor a page with a text.");
            if (t.Address is { } a && (!Uri.TryCreate(a, UriKind.Absolute, out var u) || u.Scheme is not ("http" or "https"))) throw Wrong($"“{t.Title}” leads to “{a}”, which is no address of the web.");
        }
        foreach (var (places, title) in s.Things.Select(t => (t.Folders, t.Title)).Concat(s.Assignments.Select(a => (a.Folders, a.Title))))
            if ((places ?? []).Any(p => p is null || p.Any(n => n is null))) throw Wrong($"“{title}” is filed in a folder without a name.");
            else if ((places ?? []).FirstOrDefault(p => !known.Contains(Key(p))) is { } lost) throw Wrong($"“{title}” is filed in “{string.Join("/", lost)}”, which is not among the folders.");
        return s;
    }

    private static string Key(IEnumerable<string> path) => string.Join('/', path.Select(SafeName.Key));

    /// <summary>Takes a structure in, or says what taking it in would do.</summary>
    internal sealed class Taking(IDbConnection c, Caller by, ClassRow k, StructureFile s, TakenBytes bytes, Instant now, bool apply)
    {
        private readonly Dictionary<string, FolderId?> at = new(StringComparer.Ordinal);

        internal StructureTaken Do()
        {
            var (folders, there) = Folders();
            var items = ItemStore.OfClass(c, k.Id).ToLookup(i => SafeName.Key(i.Name), i => i.Sha256);
            // A file is there if its bytes are; many files of a class may have one name.
            var things = s.Things.Where(t => items[SafeName.Key(SafeName.Make(t.Title)!.Name)] is var same && !(t.Kind == ItemKind.File ? same.Contains(bytes.Things.GetValueOrDefault(t)?.Sha256 ?? "") : same.Any())).ToList();
            var titles = AssignmentStore.OfClass(c, k.Id).Select(a => SafeName.Key(a.Title)).ToHashSet();
            var assignments = s.Assignments.Where(a => titles.Add(SafeName.Key(a.Title))).ToList();
            var groups = s.Groups.Except(GroupStore.OfClass(c, k.Id).Select(g => g.Name), StringComparer.OrdinalIgnoreCase).ToList();
            if (apply)
            {
                foreach (var t in things) Add(t);
                foreach (var a in assignments)
                    Attach(a, AssignmentStore.Add(c, k.Id, new AssignmentRow { Title = SafeName.Make(a.Title)!.Name, Instructions = a.Instructions ?? "", Points = a.Points, MadeAt = now }, (a.Folders ?? []).Select(p => at[Key(p)]!.Value), []));
                foreach (var g in groups) GroupStore.Add(c, k.Id, g);
                if (k.Welcome.Length == 0 && s.Welcome.Length > 0) ClassStore.SetWelcome(c, k.Id, k.Version, s.Welcome, by.Id, now);
            }
            return new(folders, things.Count, assignments.Count, groups.Count, there + s.Things.Count - things.Count + s.Assignments.Count - assignments.Count);
        }

        // A folder that stands there under the name is used, unless more people see it than are to see what comes.
        private (int Made, int There) Folders()
        {
            var rows = FolderStore.OfClass(c, k.Id);
            var byId = rows.ToDictionary(f => f.Id);
            FolderRule Holds(FolderRow f) => FolderHolds.Of(f.Rule, f.ParentId is { } p ? Holds(byId[p]) : null);
            var standing = rows.Where(f => f.StudentId is null && f.GroupId is null).GroupBy(f => (f.ParentId ?? default, SafeName.Key(f.Name))).ToDictionary(g => g.Key, g => g.First());
            var holds = new Dictionary<string, FolderRule>(StringComparer.Ordinal);
            var (made, there) = (0, 0);
            foreach (var (f, i) in s.Folders.Select((f, i) => (f, i)))
            {
                var (key, above) = (Key(f.Path), f.Path.Count > 1 ? Key(f.Path.SkipLast(1)) : null);
                if (at.ContainsKey(key)) { there++; continue; }
                var wants = holds[key] = FolderHolds.Of(f.Rule, above is null ? null : holds[above]);
                var name = SafeName.Make(f.Path[^1])!.Name;
                // In one that is only to be made nothing stands.
                FolderRow? Standing(string name) => above is not null && at[above] is null ? null : standing.GetValueOrDefault((above is null ? default : at[above]!.Value, SafeName.Key(name)));
                bool TooOpen(FolderRow? x) => x is not null && wants == FolderRule.StaffOnly && Holds(x) != FolderRule.StaffOnly;
                for (var n = 1; TooOpen(Standing(name)); n++) name = SafeName.Make($"{f.Path[^1]} (for staff{(n == 1 ? "" : $" {n}")})")!.Name;
                if (Standing(name) is { } same)
                {
                    there++;
                    at[key] = same.Id;
                    continue;
                }
                made++;
                at[key] = apply ? FolderStore.Add(c, k.Id, above is null ? null : at[above], name, rows.Count + i, f.Rule, null, null) : null;
            }
            return (made, there);
        }

        private void Attach(StructureAssignment a, AssignmentId made)
        {
            if (!bytes.Attached.TryGetValue(a, out var attached)) return;
            foreach (var f in attached) ItemStore.AddBlob(c, f.Stored, now);
            AttachedStore.Set(c, made, [.. attached.Select(f => new AttachedRow { Kind = ItemKind.File, Name = f.Name, Sha256 = f.Stored.Sha256 })]);
        }

        private void Add(StructureThing t)
        {
            if (bytes.Things.TryGetValue(t, out var page)) ItemStore.AddBlob(c, page, now);
            var item = ItemStore.Add(c, k.Id, new ItemRow { Kind = t.Kind, Name = SafeName.Make(t.Title, keepExtension: t.Kind == ItemKind.File)!.Name, Url = t.Address, Sha256 = page?.Sha256, AddedBy = by.Id, AddedAt = now });
            foreach (var p in t.Folders ?? []) ItemStore.File(c, item, at[Key(p)]!.Value);
        }
    }
}
