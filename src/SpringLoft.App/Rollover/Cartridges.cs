using System.Text;
using SpringLoft.App.Workspaces;
using SpringLoft.Core.Naming;
using SpringLoft.Core.Rollover;
using SpringLoft.Core.Workspaces;
using SpringLoft.Formats.Cartridges;
using SpringLoft.Formats.Zips;
using SpringLoft.Store.Assignments;
using SpringLoft.Store.Files;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Rollover;

/// <summary>What taking a cartridge in does, or did.</summary>
/// <param name="Title">As the cartridge says.</param>
/// <param name="ForStaff">Of the folders, those that only staff will see.</param>
/// <param name="There">Of what is in it, what stands already and is left as it is.</param>
/// <param name="Left">What it has and can't be taken in, each with its reason.</param>
public sealed record CartridgeTaken(string Title, int Folders, int Things, int Assignments, int There, IReadOnlyList<string> ForStaff, IReadOnlyList<CartridgeLeft> Left);

/// <summary>Lets the set-up of a class travel to other programs, and arrive from them, as a 1EdTech Common Cartridge.</summary>
public sealed class Cartridges(Premises premises)
{
    private const string StaffFolder = "For staff";

    /// <summary>Writes the set-up of a class aside; it is gone when the download is closed. What rolling over would carry comes, and what there is no right to copy stays.</summary>
    public Download Write(ClassId id, CancellationToken stop)
    {
        var (k, cartridge) = premises.Db.Read(c => (ClassStore.Find(c, id) ?? throw Refusals.NotFound("class"), Of(c, id)));
        var to = premises.Files.Scratch();
        try
        {
            CartridgeWriter.Write(to, cartridge, $"SL{k.Id.Value}", premises.Clock.Now, stop);
            to.Position = 0;
            return new Download($"{SafeName.Make(k.Name)?.Name ?? "class"}.imscc", to, to.Length);
        }
        catch
        {
            to.Dispose();
            throw;
        }
    }

    /// <summary>Takes a cartridge into a class: what is missing is made, what stands there is left as it is. All of it or nothing.</summary>
    /// <param name="apply">False to only say what would be done.</param>
    /// <exception cref="RefusedException"><c>cartridge-…</c>, <c>zip-…</c>, <c>structure-wrong</c>, <c>file-too-long</c>, <c>quota-full</c>; nothing is made.</exception>
    public async Task<CartridgeTaken> Take(Caller by, ClassId id, Stream content, bool apply, CancellationToken stop)
    {
        var (limit, room) = premises.Db.Read(c =>
        {
            ClassGate.Demand(c, by, id, Act.Arrange).NotArchived();
            return (Store.Naming.SchoolStore.Get(c)!.UploadLimitBytes, FileIntake.RoomFor(c, null, id));
        });
        await using var scratch = premises.Files.Scratch();
        await premises.Files.Spool(content, scratch, stop).ConfigureAwait(false);
        using var zip = ZipTree.Open(scratch, new(TreeIntake.MostFiles, TreeIntake.MostBytes));
        var read = CartridgeReader.Read(zip);
        var arriving = Arriving.Of(read);
        StructureFiles.Check(arriving.Structure, files: true);
        if (room is not null && arriving.Bytes > room.Left) throw new RefusedException(Core.School.Room.Full(room, "The cartridge"));
        using var batch = premises.Files.Batch();
        var bytes = await arriving.Keep(batch, limit, stop).ConfigureAwait(false);
        CartridgeTaken Said(StructureTaken t) => new(read.Title, t.Folders, t.Things, t.Assignments, t.There, [.. arriving.Structure.Folders.Where(f => f.Rule == FolderRule.StaffOnly).Select(f => string.Join(" / ", f.Path))], read.Left);
        if (!apply) return Said(premises.Db.Read(c => new StructureFiles.Taking(c, by, ClassStore.Find(c, id)!, arriving.Structure, bytes, premises.Clock.Now, false).Do()));
        batch.Keep();
        return premises.Db.Write(c =>
        {
            var done = new StructureFiles.Taking(c, by, ClassGate.Demand(c, by, id, Act.Arrange).NotArchived().Class, arriving.Structure, bytes, premises.Clock.Now, true).Do();
            Premises.Add(c, by, premises.Clock.Now, new("took a cartridge in", "class", id.Value, id, $"{done.Folders} folders, {done.Things} things, {done.Assignments} assignments, {read.Left.Count} left out"));
            return Said(done);
        });
    }

    private Cartridge Of(IDbConnection c, ClassId id)
    {
        var k = ClassStore.Find(c, id)!;
        var stands = WhatStands.Load(c, id);
        var byId = stands.Rows.ToDictionary(f => f.Id);
        var coming = stands.Along.Folders.ToHashSet();
        List<string> Way(FolderId f) => byId[f].ParentId is { } p ? [.. Way(p), byId[f].Name] : [byId[f].Name];
        // By the one rule of sight: a folder for the class inside one of staff is shut too. In several folders, students see it if they see one of them.
        var access = new Access(Viewer.AnyStudent, stands.Rows.Where(f => f.BinnedAt is null).Select(f => f.Fact));
        bool Staff(IReadOnlyList<FolderId> folders) => folders.Count > 0 && folders.All(f => access.Of(f).Right == Right.None);
        CartridgeFile File(string name, string sha, long? size) => new(name, size, () => premises.Files.Open(sha));
        var things = stands.Along.Items.ToHashSet();
        var placed = AssignmentStore.Filings(c, id);
        CartridgeThing Thing(ItemRow i)
        {
            List<FolderId> folders = [.. stands.Filings[i.Id].Where(coming.Contains)];
            return new(i.Name, i.Kind == ItemKind.File ? File(i.Name, i.Sha256!, i.Size) : null, i.Url, i.Kind == ItemKind.Page ? Text(i.Sha256!) : null, [.. folders.Select(Way)], Staff(folders));
        }
        CartridgeAssignment Assignment(AssignmentRow a)
        {
            List<FolderId> folders = [.. placed[a.Id].Where(coming.Contains)];
            var links = stands.Attached[a.Id].Where(t => t.Kind == ItemKind.Link).Select(t => $"{t.Name}: {t.Url}").ToList();
            return new(a.Title, links.Count == 0 ? a.Instructions : $"{a.Instructions}\n\n{string.Join('\n', links)}".Trim(), a.Points,
                [.. stands.Attached[a.Id].Where(t => t.Sha256 is not null).Select(t => File(t.FileName, t.Sha256!, t.Size))], [.. folders.Select(Way)], Staff(folders));
        }
        return new(k.Course, [.. stands.Along.Folders.OrderBy(f => Way(f).Count).Select(f => (IReadOnlyList<string>)Way(f))],
            [.. stands.Live.Where(i => things.Contains(i.Id)).Select(Thing)], [.. stands.Assignments.Select(Assignment)], []);
    }

    private string Text(string sha)
    {
        using var reader = new StreamReader(premises.Files.Open(sha), Encoding.UTF8);
        return reader.ReadToEnd();
    }

    /// <summary>A cartridge as a structure that a class takes in.</summary>
    private sealed record Arriving(StructureFile Structure, Dictionary<StructureThing, CartridgeFile> Files, Dictionary<StructureAssignment, IReadOnlyList<CartridgeFile>> Attached)
    {
        internal long Bytes => Files.Values.Concat(Attached.Values.SelectMany(a => a)).Sum(f => f.Size ?? 0);

        /// <summary>A cartridge says of things, not of folders, that they are for staff. Where all that is in a folder is, it is a folder for staff; else those things stand in one of their own within.</summary>
        internal static Arriving Of(Cartridge read)
        {
            var open = new HashSet<string>();
            var closed = new HashSet<string>();
            static string Key(IEnumerable<string> way) => string.Join('\n', way.Select(SafeName.Key));
            foreach (var (folders, staff) in read.Things.Select(t => (t.Folders, t.ForStaff)).Concat(read.Assignments.Select(a => (a.Folders, a.ForStaff))))
                foreach (var f in folders)
                    for (var n = f.Count; n > 0; n--) (staff ? closed : open).Add(Key(f.Take(n)));
            var ways = read.Folders.ToList();
            IReadOnlyList<IReadOnlyList<string>> Placed(IReadOnlyList<IReadOnlyList<string>> folders, bool staff)
            {
                if (!staff) return folders;
                return [.. (folders.Count == 0 ? [[]] : folders).Select(f =>
                {
                    if (f.Count > 0 && !open.Contains(Key(f))) return f;
                    IReadOnlyList<string> within = [.. f.Take(19), StaffFolder];
                    closed.Add(Key(within));
                    if (!ways.Any(w => Key(w) == Key(within))) ways.Add(within);
                    return within;
                })];
            }
            var files = new Dictionary<StructureThing, CartridgeFile>(ReferenceEqualityComparer.Instance);
            var attached = new Dictionary<StructureAssignment, IReadOnlyList<CartridgeFile>>(ReferenceEqualityComparer.Instance);
            var things = read.Things.Select(t =>
            {
                var thing = new StructureThing(t.Title, t.Address, t.Text, Placed(t.Folders, t.ForStaff));
                if (t.File is { } f) files[thing] = f;
                return thing;
            }).ToList();
            var assignments = read.Assignments.Select(a =>
            {
                var assignment = new StructureAssignment(a.Title, a.Instructions, a.Points, Placed(a.Folders, a.ForStaff));
                if (a.Attached.Count > 0) attached[assignment] = a.Attached;
                return assignment;
            }).ToList();
            FolderRule Rule(IReadOnlyList<string> way) => closed.Contains(Key(way)) && !open.Contains(Key(way)) ? FolderRule.StaffOnly : way.Count > 1 ? FolderRule.AsAbove : FolderRule.ClassViews;
            return new(new(1, read.Title, "", [.. ways.Select(w => new StructureFolder(w, Rule(w)))], things, assignments, []), files, attached);
        }

        internal async Task<TakenBytes> Keep(FileBatch batch, long limit, CancellationToken stop)
        {
            var bytes = new TakenBytes();
            async Task<StoredFile> One(CartridgeFile f)
            {
                if (f.Size > limit) throw new RefusedException("file-too-long", $"“{f.Name}” is longer than the {limit / (1024 * 1024)} MB that this school allows. Nothing of the cartridge was kept.", "Take it out and send the rest.", "file");
                try
                {
                    await using var open = f.Open();
                    return await batch.TakeIn(open, f.Size!.Value, stop).ConfigureAwait(false);
                }
                catch (Exception e) when (e is FileTooLongException or InvalidDataException)
                {
                    throw new RefusedException("cartridge-broken", $"“{f.Name}” in the cartridge is damaged. Nothing of it was kept.", "Make the cartridge again where it came from.", "file");
                }
            }
            foreach (var t in Structure.Things)
            {
                if (Files.TryGetValue(t, out var f)) bytes.Things[t] = await One(f).ConfigureAwait(false);
                if (t.Text is not { } text) continue;
                using var words = new MemoryStream(Encoding.UTF8.GetBytes(text));
                bytes.Things[t] = await batch.TakeIn(words, words.Length, stop).ConfigureAwait(false);
            }
            foreach (var (a, all) in Attached)
            {
                var kept = new List<(string, StoredFile)>();
                foreach (var f in all) kept.Add((SafeName.Make(f.Name, keepExtension: true)?.Name ?? "File", await One(f).ConfigureAwait(false)));
                bytes.Attached[a] = kept;
            }
            return bytes;
        }
    }
}
