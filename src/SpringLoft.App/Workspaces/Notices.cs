using SpringLoft.Core.Assignments;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Workspaces;

/// <summary>What a notice is made from.</summary>
/// <param name="Classes">Where it stands; none for one to the whole school.</param>
/// <param name="Group">For one group alone, where it stands in one class.</param>
/// <param name="School">To everybody of the school.</param>
/// <param name="PostAt">By the school's clock: when it is posted by itself; null for at once.</param>
/// <param name="PinnedUntil">The last day on which it stands above the others.</param>
/// <param name="Asks">To be acknowledged; null where it asks nothing.</param>
/// <param name="Files">In that order; null leaves them as they are.</param>
public sealed record NewNotice(string? Text, IReadOnlyList<ClassId>? Classes, GroupId? Group, bool School, LocalDateTime? PostAt, LocalDate? PinnedUntil, Asks? Asks = null, IReadOnlyList<ToTell>? Files = null);

/// <summary>Whom a notice reaches in a class.</summary>
public sealed record NoticeReach(ClassId Class, string Name, ClassState State, int Students);

/// <summary>Whom a notice would reach.</summary>
/// <param name="Students">Each once, in however many of the classes.</param>
/// <param name="Later">Of them, those who find it only when a class is opened.</param>
public sealed record NoticePreview(int Students, int Later, IReadOnlyList<NoticeReach> Classes);

/// <summary>How a notice stands.</summary>
public enum NoticeState { Waits, Posted, Withdrawn }

/// <summary>Where a notice stands.</summary>
public sealed record NoticePlace(ClassId Class, string Name, string? Group);

/// <summary>A notice in the list of those whom it concerns as staff.</summary>
/// <param name="Places">Those of its classes in which the asker may post.</param>
/// <param name="Elsewhere">How many others there are.</param>
/// <param name="For">How many students it is for; null for one to the school.</param>
/// <param name="Seen">How many of them have had it in view.</param>
public sealed record NoticeLine(
    long Id, string Text, string Author, bool School, NoticeState State, LocalDateTime? PostAt, Instant? PostedAt, Instant? ChangedAt, LocalDate? PinnedUntil, IReadOnlyList<NoticePlace> Places, int Elsewhere, int? For, int Seen, bool May, int Version, Asks? Asks, IReadOnlyList<NoticeFile> Files);

/// <summary>A class in which somebody may post.</summary>
public sealed record NoticeClass(ClassId Id, string Name, string Mark, ClassState State, int Students, IReadOnlyList<GroupName> Groups);

/// <summary>All notices of somebody's classes, and where they may post.</summary>
public sealed record NoticesView(IReadOnlyList<NoticeLine> Notices, IReadOnlyList<NoticeClass> Classes, bool MayTellSchool);

/// <summary>Who has seen a notice.</summary>
public sealed record NoticeReader(PersonId Person, string SortName, string ClassName, Instant? SeenAt);

/// <summary>Messages to one class or several, to a group, to the whole school.</summary>
public sealed class Notices(Premises premises)
{
    /// <summary>Most classes of one notice.</summary>
    public const int MostClasses = 500;

    /// <summary>Notices that are listed.</summary>
    private const int MostListed = 300;

    private readonly Acknowledgements acknowledgements = new(premises);

    /// <summary>Those of the asker's classes, the newest first, and where they may post.</summary>
    public NoticesView Mine(Caller who) => premises.Db.Read(c =>
    {
        var school = Permissions.InSchool(who.Role, Act.TellSchool);
        var classes = (who.Role == SchoolRole.Coordinator ? ClassStore.OfYear(c, Years.YearLine.Current(Store.Years.YearStore.All(c), premises.Clock.Today).Id) : ClassStore.OfPerson(c, who.Id))
            .Where(k => k is { Kind: WorkspaceKind.Class, State: not ClassState.Archived } && ClassGate.May(c, who, k.Id, Act.PostNotices)).ToList();
        var rows = NoticeStore.OfClasses(c, classes.Select(k => k.Id), school: true, MostListed);
        var places = NoticeStore.Places(c, rows.Select(n => n.Id));
        var asks = AskingStore.OfNotices(c, rows.Select(n => n.Id));
        var files = NoticeFileStore.Of(c, rows.Select(n => n.Id));
        var mine = classes.Select(k => k.Id).ToHashSet();
        return new NoticesView([.. rows.Select(n => Line(c, n, places[n.Id].ToLookup(p => mine.Contains(p.ClassId)), asks, NoticeFile.Of(files[n.Id]), school))],
            [.. classes.Select(k => new NoticeClass(k.Id, k.Name, k.Mark, k.State, Students(c, k.Id, null).Count, [.. GroupStore.OfClass(c, k.Id).Select(g => new GroupName(g.Id, g.Name))]))], school);
    });

    /// <summary>Says whom a notice would reach. Writes nothing.</summary>
    public NoticePreview Preview(Caller by, NewNotice n) => premises.Db.Read(c =>
    {
        if (n.School)
        {
            ClassGate.Demand(by, Act.TellSchool);
            return new NoticePreview(Store.People.PersonStore.CountActive(c), 0, []);
        }
        var reach = Classes(c, by, n).Select(k => (Class: k, Students: Students(c, k.Id, n.Group))).ToList();
        var now = reach.Where(r => r.Class.State == ClassState.Open).SelectMany(r => r.Students).ToHashSet();
        var all = reach.SelectMany(r => r.Students).ToHashSet();
        return new NoticePreview(all.Count, all.Count - now.Count, [.. reach.Select(r => new NoticeReach(r.Class.Id, r.Class.Name, r.Class.State, r.Students.Count))]);
    });

    /// <summary>Posts a notice, at once or when its moment comes.</summary>
    /// <returns>Its number.</returns>
    public long Post(Caller by, NewNotice n)
    {
        var text = Text(n);
        return premises.Db.Write(c =>
        {
            var now = premises.Clock.Now;
            if (n.School) ClassGate.Demand(by, Act.TellSchool);
            var places = n.School ? [] : Classes(c, by, n);
            var at = Moment(n);
            var id = NoticeStore.Add(c, new NoticeRow { AuthorId = by.Id, Text = text, ForSchool = n.School, MadeAt = now, PostAt = at, PostedAt = at is null ? now : null, PinnedUntil = n.PinnedUntil }, places.Select(k => (k.Id, n.Group)));
            NoticeFileStore.Set(c, id, NoticeFiles.Rows(c, by, null, n.Files ?? []));
            acknowledgements.AskNotice(c, by, id, n.Asks, n.School);
            Note(c, by, now, at is null ? "posted notice" : "set notice", id, places.Select(k => k.Id), text);
            return id;
        });
    }

    /// <summary>Changes what a notice says, when it is posted where it is not yet, and until when it is pinned; where it stands, stays.</summary>
    /// <exception cref="RefusedException"><c>notice-posted</c>, <c>changed-meanwhile</c>.</exception>
    public void Change(Caller by, long id, NewNotice n, int version)
    {
        var text = Text(n);
        premises.Db.Write(c =>
        {
            var (row, places) = MayChange(c, by, id);
            var now = premises.Clock.Now;
            if (row.PostedAt is not null && n.PostAt is not null) throw new RefusedException("notice-posted", "The notice is posted already.", "Leave its moment empty, or withdraw it and write another.", "postAt");
            var at = Moment(n);
            if (!NoticeStore.Save(c, row with { Text = text, PinnedUntil = n.PinnedUntil, PostAt = at, ChangedAt = row.PostedAt is not null && text != row.Text ? now : row.ChangedAt, Version = version })) throw Refusals.ChangedMeanwhile("notice");
            if (n.Files is { } files) NoticeFileStore.Set(c, id, NoticeFiles.Rows(c, by, id, files));
            // A moment that is taken away means now.
            if (row.PostedAt is null && at is null) NoticeStore.Post(c, id, now);
            acknowledgements.AskNotice(c, by, id, n.Asks, row.ForSchool);
            Note(c, by, now, "changed notice", id, places, text);
        });
    }

    /// <summary>Withdraws a notice: nobody finds it any more, and it stays on record.</summary>
    public void Withdraw(Caller by, long id, int version) => premises.Db.Write(c =>
    {
        var (row, places) = MayChange(c, by, id);
        var now = premises.Clock.Now;
        if (!NoticeStore.Withdraw(c, id, version, by.Id, now)) throw Refusals.ChangedMeanwhile("notice");
        Note(c, by, now, "withdrew notice", id, places, row.Text);
    });

    /// <summary>Who of those whom it is for has seen it; those who have not come first. Nobody by name for one to the school.</summary>
    public IReadOnlyList<NoticeReader> Readers(Caller who, long id) => premises.Db.Read(c =>
    {
        May(c, who, id);
        return NoticeStore.ReadersOf(c, id).Select(r => new NoticeReader(r.PersonId, new Core.People.PersonName(r.Given, r.Family).Sort, r.ClassName, r.SeenAt)).ToList();
    });

    /// <summary>Notes that the asker has the notices of a class in view.</summary>
    public void SeenIn(Caller who, ClassId id) => premises.Db.Write(c =>
    {
        var at = ClassGate.Demand(c, who, id, Act.SeeClass);
        NoticeStore.See(c, who.Id, OfClass(c, at).Where(n => n.PostedAt is not null).Select(n => n.Id), premises.Clock.Now);
    });

    /// <summary>Posts the notices whose moment has come, each once, whenever the program gets to it.</summary>
    /// <returns>How many.</returns>
    public int Go() => premises.Db.Read(c => NoticeStore.Ripe(c, premises.Clock.Now)) is { Count: > 0 } ? premises.Db.Write(c => NoticeStore.Ripe(c, premises.Clock.Now).Count(n =>
    {
        var now = premises.Clock.Now;
        if (!NoticeStore.Post(c, n.Id, now)) return false;
        Note(c, null, now, "posted notice", n.Id, NoticeStore.Places(c, [n.Id])[n.Id].Select(p => p.ClassId), n.Text);
        return true;
    })) : 0;

    /// <summary>Notices of a class that somebody finds, pinned ones first.</summary>
    internal IEnumerable<NoticeRow> OfClass(IDbConnection c, ClassAndPlace at) => OfClass(c, at, premises.Clock.Today);

    /// <inheritdoc cref="OfClass(IDbConnection, ClassAndPlace)"/>
    internal static IEnumerable<NoticeRow> OfClass(IDbConnection c, ClassAndPlace at, LocalDate today) =>
        NoticeStore.OfClass(c, at.Class.Id).Where(n => NoticeSight.Sees(n.Fact, at.Standing, at.Groups, Assignments.InSight.IsOpen(at))).OrderByDescending(n => NoticeSight.IsPinned(n.Fact, today));

    private NoticeLine Line(IDbConnection c, NoticeRow n, ILookup<bool, NoticePlaceRow> places, IReadOnlyDictionary<long, (AskedOf Of, LocalDate? Until)> asks, IReadOnlyList<NoticeFile> files, bool school)
    {
        var (of, seen) = n.ForSchool ? (0, NoticeStore.SeenBy(c, n.Id)) : NoticeStore.Reach(c, n.Id);
        return new(n.Id, n.Text, n.Author, n.ForSchool, n.WithdrawnAt is not null ? NoticeState.Withdrawn : n.PostedAt is null ? NoticeState.Waits : NoticeState.Posted, n.PostAt is { } at ? premises.Clock.LocalOf(at) : null,
            n.PostedAt, n.ChangedAt, n.PinnedUntil, [.. places[true].Select(p => new NoticePlace(p.ClassId, p.ClassName, p.GroupName))], places[false].Count(), n.ForSchool ? null : of, seen, n.ForSchool ? school : !places[false].Any(), n.Version,
            asks.TryGetValue(n.Id, out var a) ? new(a.Of, a.Until) : null, files);
    }

    // Whoever may post in all of its classes may change it, whoever wrote it.
    private static (NoticeRow Row, List<ClassId> Places) MayChange(IDbConnection c, Caller by, long id)
    {
        var (row, places) = May(c, by, id);
        // What an archived class was told, stays as it was.
        foreach (var k in places) ClassGate.Demand(c, by, k, Act.PostNotices).NotArchived();
        return (row, places);
    }

    private static (NoticeRow Row, List<ClassId> Places) May(IDbConnection c, Caller by, long id)
    {
        var row = NoticeStore.Find(c, id) ?? throw Refusals.NotFound("notice");
        var places = NoticeStore.Places(c, [id])[id].Select(p => p.ClassId).ToList();
        if (row.ForSchool ? !Permissions.InSchool(by.Role, Act.TellSchool) : places.Any(k => !ClassGate.May(c, by, k, Act.PostNotices))) throw Refusals.NotFound("notice");
        return (row, places);
    }

    private static List<ClassRow> Classes(IDbConnection c, Caller by, NewNotice n)
    {
        var ids = (n.Classes ?? []).Distinct().ToList();
        Refusals.CheckTicked(ids.Count, MostClasses, "classes");
        var classes = ids.Select(id =>
        {
            var at = ClassGate.Demand(c, by, id, Act.PostNotices).NotArchived();
            if (at.Class.Kind != WorkspaceKind.Class) throw new RefusedException("bank-no-students", $"“{at.Class.Name}” has no students whom a notice could reach.", "Choose classes.", "classes");
            return at.Class;
        }).ToList();
        if (n.Group is { } group && (classes.Count != 1 || GroupStore.OfClass(c, classes[0].Id).All(g => g.Id != group))) throw Refusals.NotFound("group of the class");
        return classes;
    }

    private static IReadOnlyList<PersonId> Students(IDbConnection c, ClassId id, GroupId? group)
    {
        var members = group is { } g ? GroupStore.Members(c, id)[g].ToHashSet() : null;
        return [.. RosterStore.Members(c, id).Where(m => m.Role == ClassRole.Student && m.LeftAt is null && members?.Contains(m.PersonId) != false).Select(m => m.PersonId)];
    }

    private string Text(NewNotice n)
    {
        var text = Refusals.Needed(n.Text, "text", "The notice", 4000);
        if (n.PinnedUntil is { } until && until < premises.Clock.Today) throw new RefusedException("notice-pin-past", "The day until which it is pinned is over.", "Set a later one, or none.", "pinnedUntil");
        return text;
    }

    private Instant? Moment(NewNotice n)
    {
        if (n.PostAt is not { } set) return null;
        var moment = Due.Of(set, premises.Clock.Zone);
        return moment > premises.Clock.Now ? moment : throw new RefusedException("publish-past", "The moment that is set for posting is over.", "Set a later one, or post it now.", "postAt");
    }

    private static void Note(IDbConnection c, Caller? by, Instant now, string act, long id, IEnumerable<ClassId> classes, string text)
    {
        var words = text.Length > 60 ? text[..60] + "…" : text;
        foreach (var k in classes.Cast<ClassId?>().DefaultIfEmpty()) Premises.Add(c, by, now, new(act, "notice", id, k, words));
    }
}
