using SpringLoft.Core.Naming;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Assignments;
using SpringLoft.Store.Closing;
using SpringLoft.Store.People;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Workspaces;

/// <summary>Something in the bin of a class, for who may bring it back.</summary>
/// <param name="Kind">File, Link, Page, Folder or Assignment.</param>
/// <param name="By">Who binned it; blank where a folder plan or the program did.</param>
/// <param name="From">The folder that it stood in; null at the top or in none.</param>
/// <param name="Folders">Folders that went with it and come back with it.</param>
/// <param name="GoneAt">When its days in the bin are over.</param>
/// <param name="WaitsFor">Students in whose take-home it must be before it goes: they made it, or wrote in it, and somebody else binned it.</param>
public sealed record BinnedThing(string Kind, long Id, string Name, string By, Instant At, string? From, int Folders, string AddedBy, Instant GoneAt, IReadOnlyList<string> WaitsFor);

/// <summary>The bin of a class: what is in it, and the way out of it, back or for good.</summary>
public sealed class ClassBin(Premises premises, Closing.LastCopies copies)
{
    /// <summary>What is in the bin that the asker may bring back, newest first: all of it for staff, one's own for students.</summary>
    public IReadOnlyList<BinnedThing> See(Caller who, ClassId id)
    {
        copies.Read();
        return premises.Db.Read(c =>
        {
            var at = ClassGate.Demand(c, who, id, Act.AddItem);
            return BinStore.OfClass(c, id).Where(b => Binning.MayBringBack(at.Standing, IsOwn(b, who)))
                .Select(b => new BinnedThing(b.Kind, b.Id, b.Name, b.BinnedByName, b.BinnedAt, b.From, b.Folders, b.AddedByName, Binning.GoneAt(b.BinnedAt), Names(c, PutIn(c, b)))).ToList();
        });
    }

    /// <summary>Brings something back to where it stood; a number tells it apart where its name is taken by now.</summary>
    public void BringBack(Caller by, ClassId id, string kind, long thing) => premises.Db.Write(c =>
    {
        var at = ClassGate.Demand(c, by, id, Act.AddItem).NotArchived();
        var b = BinStore.OfClass(c, id).FirstOrDefault(b => b.Kind == kind && b.Id == thing && Binning.MayBringBack(at.Standing, IsOwn(b, by))) ?? throw Refusals.NotFound("thing in the bin");
        switch (b.Kind)
        {
            case "Folder": Arranging.OutOfBin(c, id, new(b.Id)); break;
            case "Assignment":
                var taken = AssignmentStore.OfClass(c, id).Select(a => SafeName.Key(a.Title)).ToHashSet();
                AssignmentStore.BringBack(c, new(b.Id), SafeName.Distinct(b.Name, taken, isFile: false));
                break;
            default:
                var item = new ItemId(b.Id);
                var there = ItemStore.Filings(c, id).Where(f => f.Item == item).SelectMany(f => ItemStore.NamesIn(c, f.Folder)).Select(SafeName.Key).ToHashSet();
                ItemStore.SetBinned(c, item, null, null);
                if (SafeName.Distinct(b.Name, there, isFile: b.Kind == nameof(ItemKind.File)) is var free && free != b.Name && ItemStore.Find(c, id, item) is { } row) ItemStore.Save(c, row with { Name = free });
                break;
        }
        Premises.Add(c, by, premises.Clock.Now, new("brought back", b.Kind is "Folder" or "Assignment" ? b.Kind.ToLowerInvariant() : "item", b.Id, id, b.Name));
    });

    /// <summary>Lets go of what has lain in bins long enough and may go. A clock that was set back lets go of nothing early.</summary>
    /// <returns>How many things are gone.</returns>
    public int LetGo()
    {
        var due = premises.Db.Read(c => BinStore.Since(c, premises.Clock.Now - Duration.FromDays(Binning.Days)));
        if (due.Count == 0) return 0;
        copies.Read();
        return due.GroupBy(b => b.ClassId).Sum(g => premises.Db.Write(c =>
        {
            // Looked at again, as somebody may have brought it back meanwhile. Folders last: what stood in them is gone by then.
            var still = BinStore.OfClass(c, g.Key).ToDictionary(b => (b.Kind, b.Id));
            var gone = g.Where(b => still.TryGetValue((b.Kind, b.Id), out var now) && now.BinnedAt == b.BinnedAt && Binning.MayGo(Fact(c, b))).OrderBy(b => b.Kind == "Folder").Count(b =>
            {
                switch (b.Kind)
                {
                    case "Folder": BinStore.RemoveFolder(c, new(b.Id)); return true;
                    case "Assignment": return BinStore.RemoveAssignment(c, new(b.Id));
                    default: BinStore.RemoveItem(c, new(b.Id)); return true;
                }
            });
            if (gone > 0) Premises.Add(c, null, premises.Clock.Now, new("emptied bin", "class", g.Key.Value, g.Key, $"{gone} things after {Binning.Days} days"));
            return gone;
        }));
    }

    private static bool IsOwn(BinnedRow b, Caller who) => b.AddedBy == who.Id;

    // A folder and an assignment hold nothing themselves: what stood in them is in the bin beside them.
    private static IReadOnlyList<(PersonId Student, bool TakenHome)> PutIn(IDbConnection c, BinnedRow b) => b.Kind is "Folder" or "Assignment" ? [] : LastCopyStore.OfItem(c, new(b.Id));

    private static BinnedFact Fact(IDbConnection c, BinnedRow b)
    {
        var all = PutIn(c, b);
        return new(all.Count, all.Count(p => p.TakenHome));
    }

    private static List<string> Names(IDbConnection c, IReadOnlyList<(PersonId Student, bool TakenHome)> putIn) =>
        [.. PersonStore.Find(c, putIn.Where(p => !p.TakenHome).Select(p => p.Student).Distinct()).Select(p => p.Name.Display)];
}
