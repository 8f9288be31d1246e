using SpringLoft.Core.Naming;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Workspaces;

/// <summary>Pages that were made for groups.</summary>
/// <param name="Folders">Folders that were made for groups without one.</param>
public sealed record PagesMade(int Pages, int Folders);

/// <summary>One page for each group of a class, in one act: for them to write together.</summary>
public sealed class PagesForGroups(Premises premises)
{
    /// <summary>Puts a page into the folder of each group that has members. A group without a folder of its own has one made.</summary>
    /// <param name="folder">Where folders are made, and looked for first.</param>
    /// <exception cref="RefusedException"><c>rule-group</c> where the class has no group; <c>name-empty</c>, <c>missing</c>, <c>too-long</c>.</exception>
    public async Task<PagesMade> Make(Caller by, ClassId id, FolderId folder, string? title, string? text, CancellationToken stop)
    {
        var at = premises.Db.Read(c => Folder(c, by, id, folder));
        var name = Items.PageTitle(title);
        var file = await FileIntake.TakeIn(premises, new MemoryStream(Items.PageBytes(text)), name, null, at.Class.Id, stop).ConfigureAwait(false);
        return premises.Db.Write(c =>
        {
            Folder(c, by, id, folder);
            var now = premises.Clock.Now;
            var members = GroupStore.Members(c, id);
            var groups = GroupStore.OfClass(c, id).Where(g => members[g.Id].Any()).ToList();
            if (groups.Count == 0) throw new RefusedException("rule-group", "No group of this class has anybody in it.", "Make groups first, on the groups desk.");
            ItemStore.AddBlob(c, file, now);
            var folders = 0;
            foreach (var g in groups)
            {
                var all = FolderStore.OfClass(c, id);
                var own = all.Where(f => f.GroupId == g.Id && f.Rule == FolderRule.OnePerGroup).OrderBy(f => f.ParentId != folder && f.Id != folder).FirstOrDefault()?.Id ?? MakeFolder(c, id, folder, g.Name, g.Id, all, ref folders);
                var free = SafeName.Distinct(name, ItemStore.NamesIn(c, own).Select(SafeName.Key).ToHashSet(), isFile: false);
                var item = ItemStore.Add(c, id, new ItemRow { Kind = ItemKind.Page, Name = free, Sha256 = file.Sha256, AddedBy = by.Id, AddedAt = now });
                ItemStore.File(c, item, own);
                Premises.Add(c, by, now, new("added page", "item", item.Value, id, $"{free}, for {g.Name}"));
            }
            return new PagesMade(groups.Count, folders);
        });
    }

    private static FolderId MakeFolder(IDbConnection c, ClassId id, FolderId under, string name, GroupId group, IReadOnlyList<FolderRow> all, ref int made)
    {
        var siblings = all.Where(f => f.ParentId == under).ToList();
        var free = SafeName.Distinct(SafeName.Make(name)?.Name ?? "Group", siblings.Select(f => SafeName.Key(f.Name)).ToHashSet(), isFile: false);
        made++;
        return FolderStore.Add(c, id, under, free, siblings.Select(f => f.Position + 1).DefaultIfEmpty(0).Max(), FolderRule.OnePerGroup, null, null, group: group, may: GroupMay.Everything);
    }

    private static ClassAndPlace Folder(IDbConnection c, Caller by, ClassId id, FolderId folder)
    {
        var at = ClassGate.Demand(c, by, id, Act.Arrange).NotArchived();
        return FolderStore.OfClass(c, id).Any(f => f.Id == folder) ? at : throw Refusals.NotFound("folder");
    }
}
