using SpringLoft.App.Workspaces;
using SpringLoft.Core.Closing;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Closing;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Closing;

/// <summary>What deleting an archived class would take away, and what stands against it.</summary>
public sealed record DeletingView(ClassId Id, string Name, IReadOnlyList<string> Against, int Files, long Bytes, int Students, int Work);

/// <summary>A class in the bin.</summary>
/// <param name="GoneAt">When it is gone for good.</param>
/// <param name="Waits">Why it will not go then; empty if nothing is in the way.</param>
public sealed record BinnedView(ClassId Id, string Name, Instant BinnedAt, Instant GoneAt, IReadOnlyList<string> Waits);

/// <summary>Deletes archived classes: after take-homes exist and nothing is held, by its typed name, with 30 days in the bin.</summary>
public sealed class LoftBin(Premises premises, LastCopies copies)
{
    /// <summary>Classes in the bin.</summary>
    public IReadOnlyList<BinnedView> See() => premises.Db.Read(c => LoftStore.Bin(c).Select(b => new BinnedView(b.Id, b.Name, b.BinnedAt, Deleting.GoneAt(b.BinnedAt), Deleting.Against(Facts(c, b.Id, b.YearId, ClassState.Archived).Facts))).ToList());

    /// <summary>What deleting a class comes to. Writes nothing.</summary>
    public DeletingView Check(ClassId id)
    {
        copies.Read();
        return premises.Db.Read(c =>
        {
            var k = Find(c, id);
            var (facts, n) = Facts(c, id, k.YearId, k.State);
            var (files, bytes) = ClosingStore.FilesOf(c, id);
            return new DeletingView(id, k.Name, Deleting.Against(facts), files, bytes, n.Students, n.HeldMarked + n.HeldUnmarked + n.Returned + n.Unsent);
        });
    }

    /// <summary>Puts an archived class into the bin.</summary>
    /// <param name="typed">Its name, as the person typed it.</param>
    /// <exception cref="RefusedException"><c>delete-barred</c>, saying why; <c>delete-name</c> if the name is another.</exception>
    public void Bin(Caller by, ClassId id, string? typed)
    {
        ClassGate.Demand(by, Act.DeleteClasses);
        copies.Read();
        premises.Db.Write(c =>
        {
            var k = Find(c, id);
            var against = Deleting.Against(Facts(c, id, k.YearId, k.State).Facts);
            if (against.Count > 0) throw new RefusedException("delete-barred", $"“{k.Name}” can't be deleted. {string.Join(" ", against)}", "Mend what is listed, or leave it in the loft: that is the advice.");
            if (typed?.Trim() != k.Name) throw new RefusedException("delete-name", "What you typed is not the name of the class.", $"Type “{k.Name}” exactly.", "name");
            LoftStore.SetBinned(c, id, premises.Clock.Now);
            Premises.Add(c, by, premises.Clock.Now, new("deleted archived class", "class", id.Value, id, $"{k.Name}: in the bin for {Deleting.Days} days"));
        });
    }

    /// <summary>Brings a class back from the bin: it stands in the loft again.</summary>
    public void BringBack(Caller by, ClassId id) => premises.Db.Write(c =>
    {
        var b = LoftStore.Bin(c).FirstOrDefault(b => b.Id == id) ?? throw Refusals.NotFound("class in the bin");
        LoftStore.SetBinned(c, id, null);
        Premises.Add(c, by, premises.Clock.Now, new("brought class back", "class", id.Value, id, b.Name));
    });

    /// <summary>
    /// Lets go of what has lain in the bin long enough, if nothing stands against it now: a take-home may have been let go
    /// meanwhile. A clock that was set back lets go of nothing early.
    /// </summary>
    /// <returns>How many classes are gone.</returns>
    public int LetGo()
    {
        var due = premises.Db.Read(c => LoftStore.Bin(c).Where(b => Deleting.GoneAt(b.BinnedAt) <= premises.Clock.Now).ToList());
        if (due.Count == 0) return 0;
        copies.Read();
        return due.Count(b => premises.Db.Write(c =>
        {
            if (Deleting.Against(Facts(c, b.Id, b.YearId, ClassState.Archived).Facts).Count > 0) return false;
            ClassRemoval.Go(c, b.Id);
            Premises.Add(c, null, premises.Clock.Now, new("removed deleted class", "class", b.Id.Value, null, b.Name));
            return true;
        }));
    }

    private (DeletingFacts Facts, ClassCounts Counts) Facts(IDbConnection c, ClassId id, YearId year, ClassState state)
    {
        var n = ClosingStore.Counts(c, year, premises.Clock.Today, premises.Clock.Now, id)[id];
        var (putIn, missing) = LastCopyStore.OfClass(c, id);
        return (new(state, n.HeldMarked + n.HeldUnmarked, putIn.Count, putIn.Count - missing.Select(m => m.Student).Distinct().Count(), n.ShelfSet ? 1 : 0), n);
    }

    private static ClassRow Find(IDbConnection c, ClassId id) => ClassStore.Find(c, id) is { Kind: WorkspaceKind.Class } k ? k : throw Refusals.NotFound("archived class");
}
