using SpringLoft.App.Workspaces;
using SpringLoft.Core.Assignments;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Assignments;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Assignments;

/// <summary>Something to be attached: exactly one of what it may be.</summary>
/// <param name="Id">What is attached already and stays.</param>
/// <param name="Upload">A file that was sent for it.</param>
/// <param name="Item">A thing of the class, put in by staff.</param>
/// <param name="Name">What a link is called.</param>
/// <param name="Url">Where a link leads.</param>
public sealed record ToAttach(long? Id, long? Upload, long? Item, string? Name, string? Url);

/// <summary>Something attached to an assignment.</summary>
/// <param name="Size">In bytes; null for a link.</param>
/// <param name="Item">The thing of the class that it is; null for what stands nowhere else. Staff only.</param>
public sealed record AttachedView(long Id, ItemKind Kind, string Name, long? Size, string? Url, long? Item)
{
    internal static AttachedView Of(AttachedRow t, bool staff) => new(t.Id, t.Kind, t.Name, t.Size, t.Url, staff ? t.ItemId?.Value : null);
}

/// <summary>A file that came for an assignment which is being written.</summary>
/// <param name="Size">In bytes.</param>
public sealed record UploadedView(long Id, string Name, long Size);

/// <summary>Files, links and things of the class that belong to an assignment: whoever finds the assignment, opens them.</summary>
public sealed class Attaching(Premises premises)
{
    /// <summary>Most things of one assignment.</summary>
    public const int Most = 30;

    /// <summary>Takes in a file for an assignment that is being written. It is seen by nobody until that is saved.</summary>
    public async Task<UploadedView> Upload(Caller by, ClassId id, string? name, Stream content, CancellationToken stop)
    {
        var safe = Items.CheckName(name);
        premises.Db.Read(c => ClassGate.Demand(c, by, id, Act.Arrange).NotArchived());
        var file = await FileIntake.TakeIn(premises, content, safe.Name, null, id, stop).ConfigureAwait(false);
        return premises.Db.Write(c =>
        {
            ClassGate.Demand(c, by, id, Act.Arrange).NotArchived();
            var now = premises.Clock.Now;
            ItemStore.AddBlob(c, file, now);
            AttachedStore.LetGoOfUploads(c, now - Duration.FromDays(AttachedStore.UploadDays));
            return new UploadedView(AttachedStore.AddUpload(c, id, by.Id, safe.Name, file.Sha256, now), safe.Name, file.Size);
        });
    }

    /// <summary>Opens what is attached, for somebody who finds the assignment.</summary>
    public Download Open(Caller who, ClassId id, AssignmentId assignment, long thing) => premises.Db.Read(c =>
    {
        var at = ClassGate.Demand(c, who, id, Act.SeeClass);
        if (InSight.Of(c, at, who.Id).All(a => a.Id != assignment)) throw Refusals.NotFound("assignment");
        return AttachedStore.Of(c, assignment).FirstOrDefault(t => t.Id == thing && t.Sha256 is not null) is { } row
            ? new Download(row.FileName, premises.Files.Open(row.Sha256!), row.Size ?? 0) : throw Refusals.NotFound("thing");
    });

    /// <summary>What was asked for as rows; throws for what can't be attached. Writes nothing.</summary>
    /// <param name="assignment">The one that is changed; null for a new one.</param>
    internal static List<AttachedRow> Rows(IDbConnection c, Caller by, ClassId id, AssignmentId? assignment, IReadOnlyList<ToAttach> things)
    {
        if (things.Count > Most) throw new RefusedException("too-many", $"{things.Count} things are too many for one assignment.", $"Attach up to {Most}, or file them in a folder.", "things");
        var there = assignment is { } a ? AttachedStore.Of(c, a).ToDictionary(t => t.Id) : [];
        var items = things.Any(t => t.Item is not null) ? ItemStore.OfClass(c, id).Where(i => !i.ByStudent).ToDictionary(i => i.Id) : [];
        return [.. things.Select(t => t switch
        {
            null => throw Refusals.NotFound("thing"),
            { Id: { } kept } => there.GetValueOrDefault(kept) ?? throw Refusals.NotFound("thing"),
            { Upload: { } u } => AttachedStore.Upload(c, id, by.Id, u) is { } up
                ? new AttachedRow { Kind = ItemKind.File, Name = up.Name, Sha256 = up.Sha256 } : throw new RefusedException("upload-gone", "A file that was sent for this assignment is not there any more.", "Attach it once more.", "things"),
            { Item: { } i } => items.TryGetValue(new(i), out var item)
                ? new AttachedRow { Kind = item.Kind, Name = item.Name, Sha256 = item.Sha256, Url = item.Url, ItemId = item.Id } : throw Refusals.NotFound("thing of the class that staff put in"),
            _ => new AttachedRow { Kind = ItemKind.Link, Name = Refusals.Needed(t.Name, "things", "What the link is called", 120), Url = Items.WebAddress(t.Url) },
        })];
    }
}
