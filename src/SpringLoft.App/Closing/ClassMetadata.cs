using System.Globalization;
using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Unicode;
using SpringLoft.Core.Assignments;
using SpringLoft.Formats.Bags;
using SpringLoft.Formats.Csv;

namespace SpringLoft.App.Closing;

/// <summary>The metadata part of an archive package: what is no file in the workspace, each table as CSV and as JSON. Described in docs/archive-package.md.</summary>
internal static class ClassMetadata
{
    private static readonly JsonSerializerOptions Json = new() { WriteIndented = true, NewLine = "\n", Encoder = JavaScriptEncoder.Create(UnicodeRanges.All) };

    internal static IEnumerable<BagFile> Files(ClassRead k)
    {
        foreach (var (name, header, rows) in Tables(k))
        {
            yield return BagFile.Of($"metadata/{name}.csv", CsvTable.Write(header, rows), k.Class.MadeAt);
            var objects = rows.Select(r => header.Zip(r).ToDictionary(x => x.First, x => x.Second)).ToList();
            yield return BagFile.Of($"metadata/{name}.json", JsonSerializer.SerializeToUtf8Bytes(objects, Json), k.Class.MadeAt);
        }
    }

    private static IEnumerable<(string Name, string[] Header, List<string?[]> Rows)> Tables(ClassRead r)
    {
        var k = r.Class;
        string User(PersonId id) => r.People.TryGetValue(id, out var m) ? m.UserName : Number(id.Value)!;
        string? Name(PersonId id) => r.People.TryGetValue(id, out var m) ? m.Name.Display : null;
        string? StudentNumber(PersonId id) => r.People.TryGetValue(id, out var m) ? m.StudentNumber : null;
        string Group(GroupId id) => r.Groups.FirstOrDefault(x => x.Id == id)?.Name ?? "";

        yield return ("class", ["name", "course", "section", "period", "level", "room", "schoolYear", "endsOn", "teacherShown", "welcome", "made", "opened", "school"],
            [[k.Name, k.Course, k.Section, k.Period, k.Level, k.Room, r.Year, Day(k.EndsOn), k.TeacherShown, k.Welcome, At(k.MadeAt), At(k.OpenedAt), r.School]]);
        yield return ("roster", ["userName", "givenName", "familyName", "studentNumber", "grade", "role", "mayPost", "joined", "left"],
            [.. r.Members.Select(m => new[] { m.UserName, m.Given, m.Family, m.StudentNumber, m.Grade, m.Role.ToString(), m.MayPost ? "true" : "false", At(m.JoinedAt), At(m.LeftAt) })]);
        yield return ("folders", ["folder", "inFolder", "name", "position", "rule", "ownFolderOf", "group", "ownFolderOfName"],
            [.. r.Folders.Select(f => new[] { Number(f.Id.Value), Number(f.ParentId?.Value), f.Name, Number(f.Position), f.Rule.ToString(), f.StudentId is { } s ? User(s) : null, f.GroupId is { } g ? Group(g) : null, f.StudentId is { } n ? Name(n) : null })]);
        yield return ("groups", ["group", "name", "members", "memberNames"], [.. r.Groups.Select(g => new[] { Number(g.Id.Value), g.Name, string.Join(' ', r.InGroups[g.Id].Select(User)), string.Join("; ", r.InGroups[g.Id].Select(Name)) })]);
        yield return ("used", ["title", "address", "file"], [.. r.Used.Select(u => new[] { u.Title, u.Url, u.FileName })]);
        yield return ("items", ["item", "kind", "name", "folders", "address", "sha512", "bytes", "addedBy", "added", "addedByName"],
            [.. r.Items.Select(i => new[] { Number(i.Id.Value), i.Kind.ToString(), i.Name, Ids(r.Filings[i.Id]), i.Url, i.Sha512, Number(i.Size), User(i.AddedBy), At(i.AddedAt), i.AddedByName })]);
        yield return ("assignments", ["assignment", "title", "instructions", "points", "scheme", "due", "dueTime", "lateDays", "published", "folders", "givenTo", "groups"],
            [.. r.Assignments.Select(a => new[] { Number(a.Id.Value), a.Title, a.Instructions, Number(a.Points), a.SchemeJson, Day(a.DueOn), a.DueTime is { } t ? $"{t:HH:mm}" : null, Number(a.LateDays), At(a.PublishedAt), Ids(r.Placed[a.Id]), string.Join(' ', r.GivenTo(a.Id).Select(User)), string.Join(' ', r.ToGroups[a.Id].Select(g => Number(g.Id.Value))) })]);
        yield return ("attached", ["assignment", "kind", "name", "address", "sha512", "bytes"],
            [.. from a in r.Assignments from t in r.Attached[a.Id] select new[] { Number(a.Id.Value), t.Kind.ToString(), t.Name, t.Url, t.Sha512, Number(t.Size) }]);
        yield return ("marks", ["work", "assignment", "title", "student", "state", "heldBy", "score", "handedIn", "returned", "returnedScore", "returnedLevel", "chosen", "returnedChosen", "studentName", "studentNumber"],
            [.. r.Work.Select(w => new[] { Number(w.Id.Value), Number(w.AssignmentId.Value), r.Title(w.AssignmentId), User(w.StudentId), w.State.ToString(), WorkFlow.Holder(w.State).ToString(), Number(w.Score), At(w.HandedInAt), At(w.ReturnedAt), Number(w.ReturnedScore), w.ReturnedScore is { } s ? r.Scheme(w.AssignmentId)?.NameOf(s) : null, w.Chosen, w.ReturnedChosen, Name(w.StudentId), StudentNumber(w.StudentId) })]);
        yield return ("comments", ["work", "author", "text", "at", "authorUserName", "title", "student", "studentName", "studentNumber"],
            [.. from w in r.Work from m in r.Comments[w.Id] select new[] { Number(w.Id.Value), m.Author, m.Text, At(m.At), User(m.AuthorId), r.Title(w.AssignmentId), User(w.StudentId), Name(w.StudentId), StudentNumber(w.StudentId) }]);
        yield return ("talk", ["folder", "writers", "group", "question", "closed"],
            [.. r.Talk.Select(t => new[] { Number(t.FolderId.Value), t.Writers.ToString(), t.GroupId is { } g ? Group(g) : null, t.Question, At(t.ClosedAt) })]);
        yield return ("messages", ["message", "folder", "author", "userName", "text", "answers", "at", "day", "hidden", "hiddenBy", "hiddenWhy"],
            [.. r.Messages.Select(m => new[] { Number(m.Id), Number(m.FolderId.Value), m.Author, User(m.AuthorId), m.Text, Number(m.Answers), At(m.At), Day(m.Day), At(m.HiddenAt), m.HiddenBy, m.HiddenWhy })]);
        yield return ("acknowledged", ["asking", "item", "notice", "title", "askedOf", "until", "askedBy", "asked", "wording", "student", "own", "ownWording", "home", "homeName", "homeWording", "homeNotedBy", "studentName"],
            [.. r.Asked.Select(x => new[]
            {
                Number(x.Asking.Id), Number(x.Asking.ItemId?.Value), Number(x.Asking.NoticeId), x.Asking.Title, x.Asking.AskedOf.ToString(), Day(x.Asking.Until), x.Asking.AskedByName, At(x.Asking.AskedAt), Number(x.Asking.Wording),
                x.Said is { } s ? User(s.PersonId) : null, At(x.Said?.OwnAt), Number(x.Said?.OwnWording), At(x.Said?.HomeAt), x.Said?.HomeName, Number(x.Said?.HomeWording), x.Said?.HomeNotedBy is { } by ? User(by) : null, x.Said is { } n ? Name(n.PersonId) : null,
            })]);
        yield return ("noticeFiles", ["notice", "name", "sha512", "bytes"],
            [.. from n in r.Notices from f in r.WithNotices[n.Id] select new[] { Number(n.Id), f.Name, f.Sha512, Number(f.Size) }]);
        yield return ("notices", ["notice", "author", "text", "posted", "group", "changed", "withdrawn"],
            [.. r.Notices.Select(n => new[] { Number(n.Id), n.Author, n.Text, At(n.PostedAt), n.GroupId is { } g ? Number(g.Value) : null, At(n.ChangedAt), At(n.WithdrawnAt) })]);
    }

    private static string Ids(IEnumerable<FolderId> folders) => string.Join(' ', folders.Select(f => f.Value).Order());

    private static string? Number(IFormattable? n) => n?.ToString(null, CultureInfo.InvariantCulture);

    private static string? Day(LocalDate? day) => day?.ToString("uuuu-MM-dd", CultureInfo.InvariantCulture);

    private static string? At(Instant? at) => at?.ToString("uuuu-MM-dd'T'HH:mm:ss'Z'", CultureInfo.InvariantCulture);
}
