using SpringLoft.Core.Closing;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Closing;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Closing;

/// <summary>What deleting an archived class would take away, and what stands against it.</summary>
public sealed record DeletingView(ClassId Id, string Name, IReadOnlyList<string> Against, int Files, long Bytes, int Students, int Work);

/// <summary>A class in the bin.</summary>
/// <param name="GoneAt">When it is gone for good.</param>
public sealed record BinnedView(ClassId Id, string Name, Instant BinnedAt, Instant GoneAt);

/// <summary>Deletes archived classes: after take-homes exist and nothing is held, by its typed name, with 30 days in the bin.</summary>
public sealed class LoftBin(Premises premises)
{
    /// <summary>Classes in the bin.</summary>
    public IReadOnlyList<BinnedView> See() => premises.Db.Read(c => LoftStore.Bin(c).Select(b => new BinnedView(b.Id, b.Name, b.BinnedAt, Deleting.GoneAt(b.BinnedAt))).ToList());

    /// <summary>What deleting a class comes to. Writes nothing.</summary>
    public DeletingView Check(ClassId id) => premises.Db.Read(c =>
    {
        var k = Find(c, id);
        var (facts, n) = Facts(c, k);
        var (files, bytes) = ClosingStore.FilesOf(c, id);
        return new DeletingView(id, k.Name, Deleting.Against(facts), files, bytes, n.Students, n.HeldMarked + n.HeldUnmarked + n.Returned + n.Unsent);
    });

    /// <summary>Puts an archived class into the bin.</summary>
    /// <param name="typed">Its name, as the person typed it.</param>
    /// <exception cref="RefusedException"><c>delete-barred</c>, saying why; <c>delete-name</c> if the name is another.</exception>
    public void Bin(Caller by, ClassId id, string? typed) => premises.Db.Write(c =>
    {
        var k = Find(c, id);
        var against = Deleting.Against(Facts(c, k).Facts);
        if (against.Count > 0) throw new RefusedException("delete-barred", $"“{k.Name}” can't be deleted. {string.Join(" ", against)}", "Mend what is listed, or leave it in the loft: that is the advice.");
        if (typed?.Trim() != k.Name) throw new RefusedException("delete-name", "What you typed is not the name of the class.", $"Type “{k.Name}” exactly.", "name");
        LoftStore.SetBinned(c, id, premises.Clock.Now);
        LoftStore.Seal(c, id, true);
        Premises.Add(c, by, premises.Clock.Now, new("deleted archived class", "class", id.Value, id, $"{k.Name}: in the bin for {Deleting.Days} days"));
    });

    /// <summary>Brings a class back from the bin: it stands in the loft again.</summary>
    public void BringBack(Caller by, ClassId id) => premises.Db.Write(c =>
    {
        var b = LoftStore.Bin(c).FirstOrDefault(b => b.Id == id) ?? throw Refusals.NotFound("class in the bin");
        LoftStore.SetBinned(c, id, null);
        LoftStore.Seal(c, id, false);
        Premises.Add(c, by, premises.Clock.Now, new("brought class back", "class", id.Value, id, b.Name));
    });

    /// <summary>Lets go of what has lain in the bin long enough. A clock that was set back lets go of nothing early.</summary>
    /// <returns>How many classes are gone.</returns>
    public int LetGo()
    {
        var due = premises.Db.Read(c => LoftStore.Bin(c).Where(b => Deleting.GoneAt(b.BinnedAt) <= premises.Clock.Now).ToList());
        foreach (var b in due)
            premises.Db.Write(c =>
            {
                ClassRemoval.Go(c, b.Id);
                Premises.Add(c, null, premises.Clock.Now, new("removed deleted class", "class", b.Id.Value, null, b.Name));
            });
        return due.Count;
    }

    private static (DeletingFacts Facts, ClassCounts Counts) Facts(IDbConnection c, ClassRow k)
    {
        var n = ClosingStore.Counts(c, k.YearId, k.Id)[k.Id];
        var (withWork, withTakeHome) = LoftStore.TakeHomes(c, k.Id);
        return (new(k.State, n.HeldMarked + n.HeldUnmarked, withWork, withTakeHome, n.ShelfSet ? 1 : 0), n);
    }

    private static ClassRow Find(IDbConnection c, ClassId id) => ClassStore.Find(c, id) is { Kind: WorkspaceKind.Class } k ? k : throw Refusals.NotFound("archived class");
}
