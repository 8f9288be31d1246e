using SpringLoft.Core.Naming;

namespace SpringLoft.Core.Closing;

/// <summary>A folder to be laid out.</summary>
public sealed record LayFolder(FolderId Id, FolderId? Parent, string Name);

/// <summary>Bytes to be laid out.</summary>
/// <param name="Name">The file's own name.</param>
/// <param name="Sha256">Where its bytes are in the store.</param>
public sealed record LayFile(string Name, string Sha256, string Sha512, long Size, Instant Modified);

/// <summary>An item's bytes, and the folders it is filed in; unfiled if none.</summary>
public sealed record LayItem(LayFile File, IReadOnlyList<FolderId> FiledIn)
{
    /// <summary>Which thing of the class it is; null where that does not matter.</summary>
    public ItemId? Id { get; init; }
}

/// <summary>A piece of work with its files.</summary>
public sealed record LayWork(string Assignment, PersonId Student, string StudentSortName, string? StudentNumber, IReadOnlyList<LayFile> Files)
{
    /// <summary>Which piece it is; null where that does not matter.</summary>
    public WorkId? Id { get; init; }

    /// <summary>Files of earlier handings-in that are no longer among <see cref="Files"/>, named by their day.</summary>
    public IReadOnlyList<LayFile> Earlier { get; init; } = [];
}

/// <summary>A file that belongs to something else that is not a folder: to an assignment, to a notice.</summary>
/// <param name="To">What that is called.</param>
public sealed record LayAttached(string To, LayFile File)
{
    /// <summary>The number of that, where it matters.</summary>
    public long ToId { get; init; }
}

/// <summary>A file and where it goes in a package; forward slashes, safe on any computer, no two alike but for case.</summary>
public sealed record LaidFile(string Path, LayFile File);

/// <summary>Where everything of a class goes in its package, each thing with its places.</summary>
/// <param name="Folders">The folders, also those with nothing in them.</param>
/// <param name="Items">One line for each place of each thing.</param>
public sealed record LaidArchive(
    IReadOnlyDictionary<FolderId, string> Folders, IReadOnlyList<(LayItem Item, LaidFile File)> Items, IReadOnlyList<(LayWork Work, IReadOnlyList<LaidFile> Files)> Work,
    IReadOnlyList<(LayWork Work, IReadOnlyList<LaidFile> Files)> Earlier, IReadOnlyList<(LayAttached Of, LaidFile File)> Attached, IReadOnlyList<(LayAttached Of, LaidFile File)> Notices)
{
    /// <summary>All files, in the order in which they are packed.</summary>
    public IReadOnlyList<LaidFile> Files { get; } =
        [.. Items.Select(x => x.File), .. Work.SelectMany(x => x.Files), .. Earlier.SelectMany(x => x.Files), .. Attached.Select(x => x.File), .. Notices.Select(x => x.File)];

    /// <summary>Folders in which nothing stands, neither a file nor a folder: a zip shows them only where it names them.</summary>
    public IReadOnlyList<string> EmptyFolders
    {
        get
        {
            var full = Files.Select(f => f.Path).Concat(Folders.Values).Select(p => p[..Math.Max(0, p.LastIndexOf('/'))]).ToHashSet(StringComparer.Ordinal);
            return [.. Folders.Values.Where(f => !full.Contains(f))];
        }
    }
}

/// <summary>Decides where files go in a package, as a person would lay them out.</summary>
public static class PackageLayout
{
    /// <summary>The top folder for things that are in no folder.</summary>
    public const string Unfiled = "unfiled";

    /// <summary>The top folder for what was handed in earlier and replaced since.</summary>
    public const string EarlierTop = "earlier";

    /// <summary>The top folder for what is attached to assignments.</summary>
    public const string AttachedTop = "assignments";

    /// <summary>The top folder for files with notices.</summary>
    public const string NoticesTop = "notices";

    /// <summary>
    /// Items under <c>folders/</c> at the place they are filed, in each place if in several; work under
    /// <c>work/assignment/student/</c>, and what was handed in earlier and replaced since under <c>earlier/assignment/student/</c>;
    /// what is attached to assignments under <c>assignments/assignment/</c>, files with notices under <c>notices/notice/</c>.
    /// </summary>
    public static IReadOnlyList<LaidFile> Archive(IReadOnlyList<LayFolder> folders, IEnumerable<LayItem> items, IEnumerable<LayWork> work, IEnumerable<LayAttached>? attached = null, IEnumerable<LayAttached>? notices = null) =>
        Lay(folders, items, work, attached ?? [], notices ?? []).Files;

    /// <summary>The same, with what each file is of.</summary>
    public static LaidArchive Lay(IReadOnlyList<LayFolder> folders, IEnumerable<LayItem> items, IEnumerable<LayWork> work, IEnumerable<LayAttached> attached, IEnumerable<LayAttached> notices)
    {
        var names = new Siblings();
        var paths = FolderPaths(folders, names);
        var things = new List<(LayItem, LaidFile)>();
        foreach (var item in items)
        {
            var places = item.FiledIn.Where(paths.ContainsKey).Select(f => paths[f]).ToList();
            foreach (var place in places.Count == 0 ? [Unfiled] : places)
                things.Add((item, new(names.Place(place, item.File.Name, isFile: true), item.File)));
        }
        var pieces = work.ToList();
        return new(paths, things, Pieces("work", pieces, names), Pieces(EarlierTop, Earlier(pieces), names), Into(AttachedTop, attached), Into(NoticesTop, notices));

        List<(LayAttached, LaidFile)> Into(string top, IEnumerable<LayAttached> files)
        {
            var laid = new List<(LayAttached, LaidFile)>();
            foreach (var of in files.GroupBy(a => a.To, StringComparer.Ordinal))
            {
                var place = names.Place(top, of.Key, isFile: false);
                laid.AddRange(of.Select(a => (a, new LaidFile(names.Place(place, a.File.Name, isFile: true), a.File))));
            }
            return laid;
        }
    }

    private static List<(LayWork, IReadOnlyList<LaidFile>)> Pieces(string top, IEnumerable<LayWork> work, Siblings names) =>
        [.. Places(top, work, names, byStudent: true).Select(x => (x.Piece, (IReadOnlyList<LaidFile>)[.. x.Piece.Files.Select(f => new LaidFile(names.Place(x.Place, f.Name, isFile: true), f))]))];

    /// <summary>Where folders go, as <see cref="Archive"/> lays them out: under <c>folders/</c>.</summary>
    public static IReadOnlyDictionary<FolderId, string> Folders(IReadOnlyList<LayFolder> folders) => FolderPaths(folders, new Siblings());

    /// <summary>One student's own things: <c>class/assignment/</c> for work and <c>class/own folder/</c> for the rest.</summary>
    /// <param name="folders">The student's own folders.</param>
    public static IReadOnlyList<LaidFile> TakeHome(string className, IReadOnlyList<LayFolder> folders, IEnumerable<LayItem> items, IEnumerable<LayWork> work)
    {
        var names = new Siblings();
        var top = names.Place("", className, isFile: false);
        var laid = new List<LaidFile>();
        var pieces = work.ToList();
        LayWorkInto(top, pieces, names, laid, byStudent: false);
        var paths = FolderPaths(folders, names, names.Place(top, "own folder", isFile: false));
        foreach (var item in items)
        {
            var place = item.FiledIn.Where(paths.ContainsKey).Select(f => paths[f]).FirstOrDefault() ?? $"{top}/added by you";
            laid.Add(new(names.Place(place, item.File.Name, isFile: true), item.File));
        }
        if (pieces.Any(p => p.Earlier.Count > 0)) LayWorkInto(names.Place(top, "handed in earlier", isFile: false), Earlier(pieces), names, laid, byStudent: false);
        return laid;
    }

    private static IEnumerable<LayWork> Earlier(IEnumerable<LayWork> work) => work.Where(w => w.Earlier.Count > 0).Select(w => w with { Files = w.Earlier });

    /// <summary>The folder of each piece of work, as <see cref="Archive"/> lays them out, to find them again in a package.</summary>
    public static IReadOnlyList<string> WorkPlaces(IEnumerable<LayWork> work) => [.. Places("work", work, new Siblings(), byStudent: true).Select(x => x.Place)];

    private static void LayWorkInto(string top, IEnumerable<LayWork> work, Siblings names, List<LaidFile> laid, bool byStudent)
    {
        foreach (var (piece, place) in Places(top, work, names, byStudent)) laid.AddRange(piece.Files.Select(f => new LaidFile(names.Place(place, f.Name, isFile: true), f)));
    }

    private static IEnumerable<(LayWork Piece, string Place)> Places(string top, IEnumerable<LayWork> work, Siblings names, bool byStudent)
    {
        var assignments = new Dictionary<string, string>(StringComparer.Ordinal);
        foreach (var piece in work)
        {
            if (!assignments.TryGetValue(piece.Assignment, out var place))
                assignments[piece.Assignment] = place = names.Place(top, piece.Assignment, isFile: false);
            if (byStudent)
            {
                var label = piece.StudentNumber is { } number ? $"{piece.StudentSortName} ({number})" : piece.StudentSortName;
                place = names.Place(place, label, isFile: false);
            }
            yield return (piece, place);
        }
    }

    private static Dictionary<FolderId, string> FolderPaths(IReadOnlyList<LayFolder> folders, Siblings names, string top = "folders")
    {
        var byId = folders.ToDictionary(f => f.Id);
        var paths = new Dictionary<FolderId, string>();
        string PathOf(LayFolder f)
        {
            if (paths.TryGetValue(f.Id, out var known)) return known;
            var above = f.Parent is { } p && byId.TryGetValue(p, out var parent) ? PathOf(parent) : top;
            return paths[f.Id] = names.Place(above, f.Name, isFile: false);
        }
        foreach (var f in folders) PathOf(f);
        return paths;
    }

    private sealed class Siblings
    {
        private readonly Dictionary<string, HashSet<string>> taken = new(StringComparer.Ordinal);

        internal string Place(string folder, string name, bool isFile)
        {
            if (!taken.TryGetValue(folder, out var there)) taken[folder] = there = [];
            var safe = SafeName.Distinct(SafeName.Make(name, keepExtension: isFile)?.Name ?? "unnamed", there, isFile);
            there.Add(SafeName.Key(safe));
            return folder.Length == 0 ? safe : $"{folder}/{safe}";
        }
    }
}
