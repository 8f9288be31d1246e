using SpringLoft.App.Workspaces;
using SpringLoft.Core.Naming;
using SpringLoft.Core.Rollover;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Assignments;
using SpringLoft.Store.Rollover;
using SpringLoft.Store.Workspaces;
using SpringLoft.Store.Years;

namespace SpringLoft.App.Rollover;

/// <summary>Where a thing of the past stands.</summary>
public enum PastWhere { Loft, Bank, KeptCopy, OtherClass }

/// <summary>A thing that was found.</summary>
/// <param name="Folder">That it stands in; null at the top or in none.</param>
/// <param name="Also">In how many more classes the same stands, word for word.</param>
/// <param name="MayCopy">False if it is marked as nothing to copy into another class.</param>
public sealed record PastHit(PastKind Kind, long Id, string Name, string? Folder, ClassId Class, string ClassName, string YearLabel, PastWhere Where, bool MayCopy, int Also = 0);

/// <summary>What a search over the past found.</summary>
/// <param name="Progress">While not all is read, there may be more.</param>
/// <param name="Classes">Over how many classes and banks it looked.</param>
public sealed record PastFound(IReadOnlyList<PastHit> Hits, PastProgress Progress, int Classes);

/// <summary>A thing as it looks, before it is taken.</summary>
/// <param name="Text">Its words, from a little before the first that was asked for; null where there are none.</param>
/// <param name="Facts">What there is to it besides: points, criteria, attachments, what is in a folder.</param>
public sealed record PastLook(PastHit Hit, string? Text, IReadOnlyList<string> Facts);

/// <summary>Looks for what was set up before, in the loft, banks, kept copies and one's own classes, from a class of this year.</summary>
public sealed class DrawingOnPast(Premises premises, PastWords words)
{
    private const int MostFound = 300;
    private const int MostHits = 60;
    private const int MostShown = 2000;
    private const int MostFacts = 40;

    // So much is shown before the first word that was asked for.
    private const int Before = 200;

    /// <summary>Things whose title or text has all words, or words that begin so; the nearest first.</summary>
    /// <param name="into">The class that draws: its own things are not found.</param>
    /// <param name="find">As typed; nothing is found by fewer than two signs.</param>
    public PastFound Search(Caller who, ClassId into, string? find)
    {
        var typed = Refusals.NotLonger(find?.Trim() ?? "", "find", "What you typed", 200);
        return premises.Db.Read(c =>
        {
            var places = Places(c, who, into);
            if (typed.Length < 2) return new PastFound([], words.Progress, places.Count);
            // Things may have gone, been renamed or been moved since they were read.
            var found = words.Find(typed, places.Keys, MostFound);
            var rows = PastStore.Some(c, [.. found.Select(f => f.Key)]);
            var years = YearStore.All(c).ToDictionary(y => y.Id, y => y.Year.Label);
            // What was rolled over year after year is one thing to whoever looks for it; the newest stands for all.
            var hits = found.Where(f => rows.ContainsKey(f.Key) && places.ContainsKey(rows[f.Key].ClassId)).Select(f => rows[f.Key]).GroupBy(r => r.Same)
                .Select(g => (One: g.OrderByDescending(r => r.MayCopy).First(), Count: g.Count()))
                .Select(g => Hit(g.One, places[g.One.ClassId], years) with { Also = g.Count - 1 });
            return new PastFound([.. hits.Take(MostHits)], words.Progress, places.Count);
        });
    }

    /// <summary>A thing as it looks.</summary>
    /// <param name="find">What was asked for, to show the place where it is written.</param>
    public PastLook Look(Caller who, ClassId into, PastKind kind, long id, string? find) => premises.Db.Read(c =>
    {
        var places = Places(c, who, into);
        var row = PastStore.Some(c, [new(kind, id)]).Values.SingleOrDefault(r => places.ContainsKey(r.ClassId)) ?? throw Refusals.NotFound("thing");
        var hit = Hit(row, places[row.ClassId], YearStore.All(c).ToDictionary(y => y.Id, y => y.Year.Label));
        var text = words.Body(row);
        return new PastLook(hit, kind == PastKind.Folder || text.Length == 0 ? null : From(text, PastIndex.WordsOf(find ?? "")), kind switch
        {
            PastKind.Assignment => OfAssignment(c, row),
            PastKind.Folder => Within(c, row),
            _ => [],
        });
    });

    private static Dictionary<ClassId, PastPlace> Places(IDbConnection c, Caller who, ClassId into)
    {
        ClassGate.Demand(c, who, into, Act.Arrange);
        return PastStore.Places(c, who.Id, who.Role == SchoolRole.Coordinator).Where(p => p.Id != into).ToDictionary(p => p.Id);
    }

    private static PastHit Hit(PastRow r, PastPlace p, IReadOnlyDictionary<YearId, string> years) => new(r.Kind, r.Id, r.Name, r.Folder, p.Id, p.Name, years[p.YearId], p switch
    {
        { Kind: WorkspaceKind.Department } => PastWhere.Bank,
        { Kind: WorkspaceKind.Kept } => PastWhere.KeptCopy,
        { State: ClassState.Archived } => PastWhere.Loft,
        _ => PastWhere.OtherClass,
    }, r.MayCopy);

    private static string From(string text, IReadOnlyList<string> asked)
    {
        var at = asked.Select(w => System.Globalization.CultureInfo.InvariantCulture.CompareInfo.IndexOf(text, w, System.Globalization.CompareOptions.IgnoreCase | System.Globalization.CompareOptions.IgnoreNonSpace)).Where(i => i > Before).DefaultIfEmpty(0).Min();
        var start = at == 0 ? 0 : Math.Max(0, text.LastIndexOf('\n', at, Math.Min(at, Before)) is var line and > 0 ? line + 1 : at - Before);
        return $"{(start > 0 ? "… " : "")}{Cut.Whole(text, start, MostShown)}{(text.Length - start > MostShown ? " …" : "")}";
    }

    private static IReadOnlyList<string> OfAssignment(IDbConnection c, PastRow row)
    {
        var a = AssignmentStore.OfClass(c, row.ClassId).First(x => x.Id.Value == row.Id);
        return
        [
            .. a.Scheme is { } scheme ? scheme.Criteria.Select(x => $"criterion: {x.Name}") : a.Points is { } points ? (string[])[$"{points} points"] : [],
            .. AttachedStore.Of(c, a.Id).Select(t => $"attached: {t.FileName}"),
        ];
    }

    private static IReadOnlyList<string> Within(IDbConnection c, PastRow row)
    {
        var inside = FolderStore.OfClass(c, row.ClassId).Where(f => f.ParentId?.Value == row.Id && f.StudentId is null && f.GroupId is null).OrderBy(f => f.Position).Select(f => $"{f.Name}/");
        var held = ItemStore.Filings(c, row.ClassId).Where(f => f.Folder.Value == row.Id).Select(f => f.Item).ToHashSet();
        return [.. inside.Concat(ItemStore.OfClass(c, row.ClassId).Where(i => held.Contains(i.Id) && !i.ByStudent).Select(i => i.Name)).Take(MostFacts)];
    }
}
