using System.Globalization;
using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Unicode;
using SpringLoft.Core.Assignments;
using SpringLoft.Formats.Bags;
using SpringLoft.Formats.Csv;
using SpringLoft.Store.Assignments;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Workspaces;
using SpringLoft.Store.Years;

namespace SpringLoft.App.Closing;

/// <summary>The metadata part of an archive package: what is no file in the workspace, each table as CSV and as JSON. Described in docs/archive-package.md.</summary>
internal static class ClassMetadata
{
    private static readonly JsonSerializerOptions Json = new() { WriteIndented = true, NewLine = "\n", Encoder = JavaScriptEncoder.Create(UnicodeRanges.All) };

    internal static IEnumerable<BagFile> Files(IDbConnection c, ClassRow k)
    {
        var stamp = k.MadeAt;
        foreach (var (name, header, rows) in Tables(c, k))
        {
            yield return BagFile.Of($"metadata/{name}.csv", CsvTable.Write(header, rows), stamp);
            var objects = rows.Select(r => header.Zip(r).ToDictionary(x => x.First, x => x.Second)).ToList();
            yield return BagFile.Of($"metadata/{name}.json", JsonSerializer.SerializeToUtf8Bytes(objects, Json), stamp);
        }
    }

    private static IEnumerable<(string Name, string[] Header, List<string?[]> Rows)> Tables(IDbConnection c, ClassRow k)
    {
        var members = RosterStore.Members(c, k.Id);
        var people = members.ToDictionary(m => m.PersonId);
        var folders = FolderStore.OfClass(c, k.Id);
        var groups = GroupStore.OfClass(c, k.Id);
        var assignments = AssignmentStore.OfClass(c, k.Id);
        var titles = assignments.ToDictionary(a => a.Id, a => a.Title);
        var schemes = assignments.Where(a => a.Scheme is not null).ToDictionary(a => a.Id, a => a.Scheme!);
        var work = WorkStore.OfClass(c, k.Id);
        string User(PersonId id) => people.TryGetValue(id, out var m) ? m.UserName : Number(id.Value)!;

        yield return ("class", ["name", "course", "section", "period", "level", "room", "schoolYear", "endsOn", "teacherShown", "welcome", "made", "opened"],
            [[k.Name, k.Course, k.Section, k.Period, k.Level, k.Room, YearStore.All(c).First(y => y.Id == k.YearId).Year.Label, Day(k.EndsOn), k.TeacherShown, k.Welcome, At(k.MadeAt), At(k.OpenedAt)]]);
        yield return ("roster", ["userName", "givenName", "familyName", "studentNumber", "grade", "role", "mayPost", "joined", "left"],
            [.. members.Select(m => new[] { m.UserName, m.Given, m.Family, m.StudentNumber, m.Grade, m.Role.ToString(), m.MayPost ? "true" : "false", At(m.JoinedAt), At(m.LeftAt) })]);
        yield return ("folders", ["folder", "inFolder", "name", "position", "rule", "ownFolderOf", "group"],
            [.. folders.Select(f => new[] { Number(f.Id.Value), Number(f.ParentId?.Value), f.Name, Number(f.Position), f.Rule.ToString(), f.StudentId is { } s ? User(s) : null, f.GroupId is { } g ? groups.FirstOrDefault(x => x.Id == g)?.Name : null })]);
        var inGroups = GroupStore.Members(c, k.Id);
        yield return ("groups", ["group", "name", "members"], [.. groups.Select(g => new[] { Number(g.Id.Value), g.Name, string.Join(' ', inGroups[g.Id].Select(User)) })]);
        yield return ("used", ["title", "address", "file"], [.. ResourceStore.OfClass(c, k.Id).Select(r => new[] { r.Title, r.Url, r.FileName })]);
        var filings = ItemStore.Filings(c, k.Id).ToLookup(f => f.Item, f => f.Folder);
        yield return ("items", ["item", "kind", "name", "folders", "address", "sha512", "bytes", "addedBy", "added"],
            [.. ItemStore.OfClass(c, k.Id).Select(i => new[] { Number(i.Id.Value), i.Kind.ToString(), i.Name, Ids(filings[i.Id]), i.Url, i.Sha512, Number(i.Size), User(i.AddedBy), At(i.AddedAt) })]);
        var placed = AssignmentStore.Filings(c, k.Id);
        var given = AssignmentStore.GivenTo(c, k.Id);
        var toGroups = AssignmentStore.GivenGroups(c, k.Id);
        var attached = AttachedStore.OfClass(c, k.Id);
        yield return ("assignments", ["assignment", "title", "instructions", "points", "scheme", "due", "dueTime", "lateDays", "published", "folders", "givenTo", "groups"],
            [.. assignments.Select(a => new[] { Number(a.Id.Value), a.Title, a.Instructions, Number(a.Points), a.SchemeJson, Day(a.DueOn), a.DueTime is { } t ? $"{t:HH:mm}" : null, Number(a.LateDays), At(a.PublishedAt), Ids(placed[a.Id]), string.Join(' ', given[a.Id].Where(p => p != AssignmentStore.Nobody).Select(User)), string.Join(' ', toGroups[a.Id].Select(g => Number(g.Id.Value))) })]);
        yield return ("attached", ["assignment", "kind", "name", "address", "sha512", "bytes"],
            [.. from a in assignments from t in attached[a.Id] select new[] { Number(a.Id.Value), t.Kind.ToString(), t.Name, t.Url, t.Sha512, Number(t.Size) }]);
        yield return ("marks", ["work", "assignment", "title", "student", "state", "heldBy", "score", "handedIn", "returned", "returnedScore", "returnedLevel", "chosen", "returnedChosen"],
            [.. work.Select(w => new[] { Number(w.Id.Value), Number(w.AssignmentId.Value), titles.GetValueOrDefault(w.AssignmentId), User(w.StudentId), w.State.ToString(), WorkFlow.Holder(w.State).ToString(), Number(w.Score), At(w.HandedInAt), At(w.ReturnedAt), Number(w.ReturnedScore), w.ReturnedScore is { } s ? schemes.GetValueOrDefault(w.AssignmentId)?.NameOf(s) : null, w.Chosen, w.ReturnedChosen })]);
        yield return ("comments", ["work", "author", "text", "at"],
            [.. WorkStore.CommentsOfClass(c, k.Id).OrderBy(g => g.Key.Value).SelectMany(g => g).Select(m => new[] { Number(m.WorkId.Value), m.Author, m.Text, At(m.At) })]);
        yield return ("talk", ["folder", "writers", "group", "question", "closed"],
            [.. TalkStore.OfClass(c, k.Id).Select(t => new[] { Number(t.FolderId.Value), t.Writers.ToString(), t.GroupId is { } g ? groups.FirstOrDefault(x => x.Id == g)?.Name : null, t.Question, At(t.ClosedAt) })]);
        yield return ("messages", ["message", "folder", "author", "userName", "text", "answers", "at", "day", "hidden", "hiddenBy", "hiddenWhy"],
            [.. TalkStore.AllOf(c, k.Id).Select(m => new[] { Number(m.Id), Number(m.FolderId.Value), m.Author, User(m.AuthorId), m.Text, Number(m.Answers), At(m.At), Day(m.Day), At(m.HiddenAt), m.HiddenBy, m.HiddenWhy })]);
        yield return ("acknowledged", ["asking", "item", "notice", "title", "askedOf", "until", "askedBy", "asked", "wording", "student", "own", "ownWording", "home", "homeName", "homeWording", "homeNotedBy"],
            [.. AskingStore.AllOf(c, k.Id).Select(x => new[]
            {
                Number(x.Asking.Id), Number(x.Asking.ItemId?.Value), Number(x.Asking.NoticeId), x.Asking.Title, x.Asking.AskedOf.ToString(), Day(x.Asking.Until), x.Asking.AskedByName, At(x.Asking.AskedAt), Number(x.Asking.Wording),
                x.Said is { } s ? User(s.PersonId) : null, At(x.Said?.OwnAt), Number(x.Said?.OwnWording), At(x.Said?.HomeAt), x.Said?.HomeName, Number(x.Said?.HomeWording), x.Said?.HomeNotedBy is { } by ? User(by) : null,
            })]);
        var notices = NoticeStore.OfClass(c, k.Id);
        var withThem = NoticeFileStore.Of(c, notices.Select(n => n.Id));
        yield return ("noticeFiles", ["notice", "name", "sha512", "bytes"],
            [.. from n in notices from f in withThem[n.Id] select new[] { Number(n.Id), f.Name, f.Sha512, Number(f.Size) }]);
        yield return ("notices", ["notice", "author", "text", "posted", "group", "changed", "withdrawn"],
            [.. notices.Select(n => new[] { Number(n.Id), n.Author, n.Text, At(n.PostedAt), n.GroupId is { } g ? Number(g.Value) : null, At(n.ChangedAt), At(n.WithdrawnAt) })]);
    }

    private static string Ids(IEnumerable<FolderId> folders) => string.Join(' ', folders.Select(f => f.Value).Order());

    private static string? Number(IFormattable? n) => n?.ToString(null, CultureInfo.InvariantCulture);

    private static string? Day(LocalDate? day) => day?.ToString("uuuu-MM-dd", CultureInfo.InvariantCulture);

    private static string? At(Instant? at) => at?.ToString("uuuu-MM-dd'T'HH:mm:ss'Z'", CultureInfo.InvariantCulture);
}
