using SpringLoft.App.Workspaces;
using SpringLoft.Core.Closing;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Runs;
using SpringLoft.Store.Workspaces;
using SpringLoft.Store.Years;

namespace SpringLoft.App.Closing;

/// <summary>An archived class in the loft.</summary>
/// <param name="Sha256">Of the package, to be compared with a copy kept elsewhere.</param>
public sealed record LoftClass(ClassId Id, string Name, string Mark, string Lead, LocalDate? Archived, string? Package, long? Size, int? Files, string? Sha256, bool MayRestore, ClassId? NextYear)
{
    /// <summary>When the package was last read, byte by byte, and compared with the class.</summary>
    public LocalDate? LastRead { get; init; }

    /// <summary>What was wrong with it then; null if nothing was.</summary>
    public PackageFault? Fault { get; init; }

    /// <summary>Where.</summary>
    public string? FaultDetail { get; init; }
}

/// <summary>A school year in the loft.</summary>
public sealed record LoftYear(string Label, IReadOnlyList<LoftClass> Classes);

/// <summary>A thing in the loft.</summary>
/// <param name="Kind">File, Link, Page, Assignment or Folder.</param>
public sealed record LoftFound(ClassId Class, string ClassName, string YearLabel, string Kind, long Id, string Name, string? Folder);

/// <summary>Where archived classes stand, by school year.</summary>
public sealed class Loft(Premises premises)
{
    private const int MostFound = 200;

    /// <summary>Archived classes by year, newest first: all for a coordinator, one's own for others.</summary>
    public IReadOnlyList<LoftYear> See(Caller who) => premises.Db.Read(c =>
    {
        var packages = RunStore.Archives(c);
        var classes = ClassStore.Archived(c);
        if (who.Role != SchoolRole.Coordinator)
        {
            var mine = ClassStore.OfPerson(c, who.Id).Select(k => k.Id).ToHashSet();
            classes = [.. classes.Where(k => mine.Contains(k.Id))];
        }
        return YearStore.All(c).Reverse().Select(y =>
        {
            var staff = StaffStore.Of(c, y.Id);
            return new LoftYear(y.Year.Label, [.. classes.Where(k => k.YearId == y.Id).Select(k =>
            {
                var p = packages.GetValueOrDefault(k.Id);
                var may = ClassGate.May(c, who, k.Id, Act.CloseClass);
                return new LoftClass(k.Id, k.Name, k.Mark, staff.Lead(k.Id), k.ArchivedAt is { } a ? premises.Clock.DateOf(a) : null,
                    p?.Name, p?.Size, p?.OwnFiles, p?.Sha256, may, ClassStore.RolledTo(c, k.Id)?.Id)
                { LastRead = p is null ? null : premises.Clock.DateOf(p.LastRead), Fault = may ? p?.Fault : null, FaultDetail = may ? p?.FaultDetail : null };
            })]);
        }).Where(y => y.Classes.Count > 0).ToList();
    });

    /// <summary>Things of archived classes and of one's own kept copies, over all years, by a part of their name.</summary>
    public IReadOnlyList<LoftFound> Search(Caller who, string? find)
    {
        var part = Refusals.NotLonger(find?.Trim() ?? "", "find", "What you typed", 100);
        if (part.Length < 2) return [];
        return premises.Db.Read(c =>
        {
            var years = YearStore.All(c).ToDictionary(y => y.Id, y => y.Year.Label);
            return Store.Closing.LoftStore.Search(c, part, who.Role == SchoolRole.Coordinator ? null : who.Id, who.Id, MostFound).Select(h => new LoftFound(h.ClassId, h.ClassName, years[h.YearId], h.Kind, h.Id, h.Name, h.Folder)).ToList();
        });
    }

    /// <summary>Opens the newest verified archive package of a class.</summary>
    public Download OpenPackage(ClassId id) => premises.Db.Read(c =>
    {
        var p = RunStore.Archives(c).GetValueOrDefault(id) ?? throw new RefusedException("not-found", "This class has no archive package yet.", "Close the class first.");
        return new Download(p.Name, premises.Files.Open(p.Sha256), p.Size);
    });

    /// <summary>Opens the asker's own take-home from a class.</summary>
    public Download OpenTakeHome(Caller who, ClassId id) => premises.Db.Read(c =>
    {
        ClassGate.Demand(c, who, id, Act.TakeHome);
        var p = RunStore.TakeHome(c, id, who.Id) ?? throw new RefusedException("not-found", "There is no take-home for you from this class yet.", "It is made when the class is closed.");
        return new Download(p.Name, premises.Files.Open(p.Sha256), p.Size);
    });

    /// <summary>Takes a class out of the loft: it is open again, as it was. Its packages stay.</summary>
    public void Restore(Caller by, ClassId id, int version) => premises.Db.Write(c =>
    {
        var k = ClassGate.Demand(c, by, id, Act.CloseClass).Class;
        if (k.State != ClassState.Archived) throw new RefusedException("class-not-archived", $"“{k.Name}” is not archived.", "Nothing to restore.");
        var now = premises.Clock.Now;
        if (!ClassStore.SetState(c, k with { Version = version }, ClassState.Open, now, k.AfterArchive)) throw Refusals.ChangedMeanwhile("class");
        ClosingExtras.Undo(c, id);
        Premises.Add(c, by, now, new("restored class", "class", id.Value, id, k.Name));
    });
}
