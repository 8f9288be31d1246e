using System.Globalization;
using SpringLoft.App.Assignments;
using SpringLoft.Core.Closing;
using SpringLoft.Core.Workspaces;
using SpringLoft.Formats.Print;

namespace SpringLoft.App.Closing;

/// <summary>What the page of an archive package tells, of a class that was read and laid out.</summary>
internal static class ClassPageOf
{
    internal static ClassPageFacts Facts(ClassRead r, LaidArchive laid, Instant made, SchoolClock clock)
    {
        var places = laid.Items.ToLookup(x => x.Item.Id!.Value, x => x.File.Path);
        return new(r.Class.Name, r.School, r.Year, r.Class.TeacherShown, clock.DateOf(made), r.Class.Welcome, Folders(r, laid, places, clock), Unfiled(r, places, clock),
            Assignments(r, laid, clock), Notices(r, laid, clock), Talk(r, clock), Asked(r, clock),
            [.. r.Members.Select(m => new ClassPagePerson(m.Name.Display, m.StudentNumber, m.UserName, m.Grade, InWords.Of(m.Role), clock.DateOf(m.JoinedAt), m.LeftAt is { } l ? clock.DateOf(l) : null))]);
    }

    private static string Day(LocalDate day) => day.ToString("d MMMM uuuu", CultureInfo.InvariantCulture);

    private static PageLink Link(LaidFile f) => new(f.File.Name, $"data/{f.Path}");

    private static ClassPageThing Thing(Store.Workspaces.ItemRow i, string? path, SchoolClock clock) => new(i.Url is { } url ? new(i.Name, url, Outside: true) : new(i.Name, $"data/{path}"), i.AddedByName, clock.DateOf(i.AddedAt));

    private static IReadOnlyList<ClassPageFolder> Folders(ClassRead r, LaidArchive laid, ILookup<ItemId, string> places, SchoolClock clock)
    {
        var inside = r.Folders.ToLookup(f => f.ParentId);
        var filed = r.Items.SelectMany(i => r.Filings[i.Id].Select(f => (Folder: f, Item: i))).ToLookup(x => x.Folder, x => x.Item);
        string Rule(Store.Workspaces.FolderRow f) => f.StudentId is { } s && r.People.TryGetValue(s, out var m) ? $"own folder of {m.Name.Display}" : f.GroupId is { } g ? $"of the group {r.Groups.FirstOrDefault(x => x.Id == g)?.Name}" : InWords.Of(f.Rule);
        // A thing that is filed in several folders stands at a path of its own in each.
        string? To(Store.Workspaces.ItemRow i, FolderId f) => places[i.Id].FirstOrDefault(p => p[..p.LastIndexOf('/')] == laid.Folders[f]);
        return [.. inside[null].Select(Of)];

        ClassPageFolder Of(Store.Workspaces.FolderRow f) => new(f.Name, Rule(f), [.. filed[f.Id].Select(i => Thing(i, To(i, f.Id), clock))], [.. inside[f.Id].Select(Of)]);
    }

    private static List<ClassPageThing> Unfiled(ClassRead r, ILookup<ItemId, string> places, SchoolClock clock) =>
        [.. r.Items.Where(i => !r.Filings[i.Id].Any()).Select(i => Thing(i, places[i.Id].FirstOrDefault(), clock))];

    private static List<ClassPageAssignment> Assignments(ClassRead r, LaidArchive laid, SchoolClock clock)
    {
        var files = laid.Work.ToDictionary(x => x.Work.Id!.Value, x => x.Files);
        var earlier = laid.Earlier.ToDictionary(x => x.Work.Id!.Value, x => x.Files);
        var attached = laid.Attached.ToLookup(x => x.Of.ToId, x => x.File);
        var work = r.Work.ToLookup(w => w.AssignmentId);
        return [.. r.Assignments.Select(a =>
        {
            string[] to = r.ToGroups[a.Id].Any() ? [.. r.ToGroups[a.Id].Select(g => $"the group {g.Name}")] : [.. r.GivenTo(a.Id).Select(p => r.People.TryGetValue(p, out var m) ? m.Name.Display : "somebody")];
            string[] facts = [a.PublishedAt is null ? "never published" : "", MarkWords.How(a), MarkWords.Due(a), to.Length > 0 ? $"for {string.Join(", ", to)}" : ""];
            PageLink[] links = [.. r.Attached[a.Id].Where(t => t.Url is not null).Select(t => new PageLink(t.Name, t.Url!, Outside: true))];
            return new ClassPageAssignment(a.Title, a.Instructions, [.. facts.Where(f => f.Length > 0)], [.. attached[a.Id.Value].Select(Link), .. links], [.. work[a.Id].OrderBy(w => r.People.GetValueOrDefault(w.StudentId)?.Name.Sort, StringComparer.Ordinal).Select(w => new ClassPagePiece(
                r.People.GetValueOrDefault(w.StudentId)?.Name.Display ?? "somebody", r.People.GetValueOrDefault(w.StudentId)?.StudentNumber, StudentPages.InWords(w.State), At(w.HandedInAt), At(w.ReturnedAt),
                MarkWords.Returned(w, a), Of(files, w.Id), Of(earlier, w.Id), [.. r.Comments[w.Id].Select(m => new PageSaid(m.Author, m.Text, clock.LocalOf(m.At)))]))]);
        })];

        LocalDateTime? At(Instant? at) => at is { } i ? clock.LocalOf(i) : null;
        static IReadOnlyList<PageLink> Of(Dictionary<WorkId, IReadOnlyList<LaidFile>> all, WorkId id) => all.TryGetValue(id, out var f) ? [.. f.Select(Link)] : [];
    }

    private static List<ClassPageNotice> Notices(ClassRead r, LaidArchive laid, SchoolClock clock)
    {
        var files = laid.Notices.ToLookup(x => x.Of.ToId, x => x.File);
        return [.. r.Notices.Select(n =>
        {
            string[] notes = [n.GroupId is { } g ? $"to the group {r.Groups.FirstOrDefault(x => x.Id == g)?.Name}" : "", n.ChangedAt is { } at ? $"changed on {Day(clock.DateOf(at))}" : "", n.WithdrawnAt is not null ? "withdrawn" : ""];
            return new ClassPageNotice(n.Author, n.Text, n.PostedAt is { } p ? clock.LocalOf(p) : null, string.Join(", ", notes.Where(x => x.Length > 0)), [.. files[n.Id].Select(Link)]);
        })];
    }

    private static List<ClassPageTalk> Talk(ClassRead r, SchoolClock clock)
    {
        var messages = r.Messages.ToLookup(m => m.FolderId);
        return [.. r.Talk.Select(t => new ClassPageTalk(r.Folders.FirstOrDefault(f => f.Id == t.FolderId)?.Name ?? "", t.Question, [.. messages[t.FolderId].Select(m => new PageSaid(m.HiddenAt is null ? m.Author : $"{m.Author} (hidden by {m.HiddenBy}: {m.HiddenWhy})", m.Text, clock.LocalOf(m.At)))]))];
    }

    private static List<ClassPageAsked> Asked(ClassRead r, SchoolClock clock) => [.. r.Asked.GroupBy(x => x.Asking.Id).Select(g =>
    {
        var a = g.First().Asking;
        var said = g.Select(x => x.Said).OfType<Store.Workspaces.AcknowledgedRow>().Select(s => (r.People.GetValueOrDefault(s.PersonId)?.Name.Display ?? "somebody", s.OwnAt is { } o ? clock.LocalOf(o) : (LocalDateTime?)null, s.HomeAt is { } h ? clock.LocalOf(h) : (LocalDateTime?)null));
        return new ClassPageAsked(a.Title, $"asked by {a.AskedByName} on {Day(clock.DateOf(a.AskedAt))}{(a.Until is { } u ? $", until {Day(u)}" : "")}", [.. said]);
    })];
}
