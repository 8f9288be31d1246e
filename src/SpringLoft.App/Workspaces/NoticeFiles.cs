using SpringLoft.App.Assignments;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Assignments;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Workspaces;

/// <summary>A file that a notice is to have: one of the two.</summary>
/// <param name="Id">One that it has already and keeps.</param>
/// <param name="Upload">One that was sent for it.</param>
public sealed record ToTell(long? Id, long? Upload);

/// <summary>A file with a notice.</summary>
/// <param name="Size">In bytes.</param>
public sealed record NoticeFile(long Id, string Name, long Size)
{
    internal static IReadOnlyList<NoticeFile> Of(IEnumerable<NoticeFileRow> rows) => [.. rows.Select(f => new NoticeFile(f.Id, f.Name, f.Size))];
}

/// <summary>Files with notices: whoever finds the notice, opens them.</summary>
public sealed class NoticeFiles(Premises premises)
{
    /// <summary>Most files of one notice.</summary>
    public const int Most = 20;

    /// <summary>Takes in a file for a notice that is being written. It is seen by nobody until that is posted or changed.</summary>
    public async Task<UploadedView> Upload(Caller by, string? name, Stream content, CancellationToken stop)
    {
        premises.Db.Read(c => MayTell(c, by));
        var safe = Items.CheckName(name);
        var file = await FileIntake.TakeIn(premises, content, safe.Name, null, null, stop).ConfigureAwait(false);
        return premises.Db.Write(c =>
        {
            MayTell(c, by);
            var now = premises.Clock.Now;
            ItemStore.AddBlob(c, file, now);
            NoticeFileStore.LetGoOfUploads(c, now - Duration.FromDays(AttachedStore.UploadDays));
            return new UploadedView(NoticeFileStore.AddUpload(c, by.Id, safe.Name, file.Sha256, now), safe.Name, file.Size);
        });
    }

    /// <summary>Opens a file of a notice, for whoever finds the notice or may change it.</summary>
    public Download Open(Caller who, long notice, long file) => premises.Db.Read(c =>
    {
        ClassGate.Demand(who, Act.SeeOwnClasses);
        var row = NoticeStore.Find(c, notice) is { } n && Finds(c, who, n) ? NoticeFileStore.Of(c, [notice])[notice].FirstOrDefault(f => f.Id == file) : null;
        return row is null ? throw Refusals.NotFound("file") : new Download(row.Name, premises.Files.Open(row.Sha256), row.Size);
    });

    /// <summary>What was asked for as rows; throws for what is not there.</summary>
    /// <param name="notice">The one that is changed; null for a new one.</param>
    internal static List<NoticeFileRow> Rows(IDbConnection c, Caller by, long? notice, IReadOnlyList<ToTell> files)
    {
        if (files.Count > Most) throw new RefusedException("too-many", $"{files.Count} files are too many for one notice.", $"Send up to {Most}, or put them into a folder and link to it.", "files");
        var there = notice is { } n ? NoticeFileStore.Of(c, [n])[n].ToDictionary(f => f.Id) : [];
        return [.. files.Select(f => f switch
        {
            { Id: { } kept } => there.GetValueOrDefault(kept) ?? throw Refusals.NotFound("file"),
            { Upload: { } u } when NoticeFileStore.Upload(c, by.Id, u) is { } up => new NoticeFileRow { Name = up.Name, Sha256 = up.Sha256 },
            { Upload: not null } => throw new RefusedException("upload-gone", "A file that was sent for this notice is not there any more.", "Send it once more.", "files"),
            _ => throw Refusals.NotFound("file"),
        }).DistinctBy(f => f.Id != 0 ? (f.Id, "") : (0, $"{f.Sha256} {f.Name}"))];
    }

    // Whoever tells the school, or is staff of a class that can be told something.
    private static bool MayTell(IDbConnection c, Caller by)
    {
        if (!ClassStore.OfPerson(c, by.Id).Any(k => ClassGate.May(c, by, k.Id, Act.PostNotices))) ClassGate.Demand(by, Act.TellSchool);
        return true;
    }

    private bool Finds(IDbConnection c, Caller who, NoticeRow n)
    {
        if (n.ForSchool) return (n is { PostedAt: not null, WithdrawnAt: null }) || Permissions.InSchool(who.Role, Act.TellSchool);
        foreach (var k in NoticeStore.Places(c, [n.Id])[n.Id].Select(p => p.ClassId))
            if (ClassGate.May(c, who, k, Act.PostNotices) || (ClassGate.May(c, who, k, Act.SeeClass) && Notices.OfClass(c, ClassGate.Find(c, who, k), premises.Clock.Today).Any(x => x.Id == n.Id))) return true;
        return false;
    }
}
