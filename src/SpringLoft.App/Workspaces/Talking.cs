using SpringLoft.Core.Workspaces;
using SpringLoft.Core.Years;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Workspaces;
using SpringLoft.Store.Years;

namespace SpringLoft.App.Workspaces;

/// <summary>How a folder is a place to talk.</summary>
/// <param name="Group">Who writes beside staff, where a group does.</param>
/// <param name="Question">Asked each school day; none if blank.</param>
/// <param name="Version">As it was seen; 0 for a folder that is none yet.</param>
public sealed record TalkSetting(TalkWriters Writers, GroupId? Group, string? Question, bool Closed, int Version);

/// <summary>A message as the asker sees it.</summary>
/// <param name="Text">CommonMark; null where it is hidden from the asker.</param>
/// <param name="HiddenBy">For staff: who hid it.</param>
public sealed record TalkMessage(long Id, PersonId Author, string Name, bool Staff, bool Mine, string? Text, long? Answers, Instant At, bool Hidden, string? HiddenBy, string? HiddenWhy, bool ReadsOnly);

/// <summary>Whether somebody has answered the question of a day.</summary>
public sealed record TalkAnswered(PersonId Person, string SortName, Instant? At);

/// <summary>A place to talk as the asker sees it.</summary>
/// <param name="Setting">How it is one; null while the folder is none.</param>
/// <param name="CantWrite">Why the asker does not write; null where they do.</param>
/// <param name="Earlier">How many messages there are before these.</param>
/// <param name="AsksToday">Is its question asked today, a school day?</param>
/// <param name="Answered">For a student: have they written today?</param>
/// <param name="ReadOnly">For staff: students who only read in this class.</param>
/// <param name="Quiet">All students of the class only read.</param>
public sealed record TalkView(
    TalkSetting? Setting, string? GroupName, CantTalk? CantWrite, IReadOnlyList<TalkMessage> Messages, int Earlier, bool AsksToday, bool Answered, IReadOnlyList<TalkPerson> ReadOnly, bool Quiet);

/// <summary>Somebody by name.</summary>
public sealed record TalkPerson(PersonId Id, string Name);

/// <summary>Folders in which a class talks: messages, answers, a question each school day, and who writes.</summary>
public sealed class Talking(Premises premises)
{
    /// <summary>Messages that are shown at once.</summary>
    public const int Shown = 100;

    /// <summary>The place that a folder is, with its newest messages.</summary>
    /// <param name="before">Those before this message.</param>
    public TalkView See(Caller who, ClassId id, FolderId folder, long? before) => premises.Db.Read(c =>
    {
        var (at, staff) = Reads(c, who, id, folder);
        var quiet = TalkStore.IsQuiet(c, id);
        var readers = TalkStore.Readers(c, id);
        if (TalkStore.Find(c, folder) is not { } place) return new TalkView(null, null, null, [], 0, false, false, [], quiet);
        var members = RosterStore.Members(c, id).ToDictionary(m => m.PersonId);
        bool IsStaff(PersonId p) => !members.TryGetValue(p, out var m) || m.Role != ClassRole.Student;
        var rows = TalkStore.Newest(c, folder, before, Shown);
        var today = premises.Clock.Today;
        return new TalkView(new(place.Writers, place.GroupId, place.Question, place.ClosedAt is not null, place.Version), place.GroupId is { } g ? GroupStore.OfClass(c, id).FirstOrDefault(x => x.Id == g)?.Name : null,
            Talk.WhyNot(place.Fact, Of(c, at, who, staff), at.Class.State),
            [.. rows.Select(m => new TalkMessage(m.Id, m.AuthorId, m.Author, IsStaff(m.AuthorId), m.AuthorId == who.Id, m.HiddenAt is null || staff ? m.Text : null, m.Answers, m.At, m.HiddenAt is not null,
                staff ? m.HiddenBy : null, staff ? m.HiddenWhy : null, staff && readers.Contains(m.AuthorId)))],
            rows.Count == 0 ? 0 : TalkStore.CountBefore(c, folder, rows[0].Id), place.Question is not null && IsSchoolDay(c, at, today), !staff && TalkStore.WroteOn(c, folder, today).ContainsKey(who.Id),
            staff ? [.. members.Values.Where(m => readers.Contains(m.PersonId) && m.LeftAt is null).Select(m => new TalkPerson(m.PersonId, m.Name.Display))] : [], quiet);
    });

    /// <summary>Makes a folder a place to talk, or changes how it is one; closed, nobody writes in it until it is opened again.</summary>
    public void Set(Caller by, ClassId id, FolderId folder, TalkSetting s) => premises.Db.Write(c =>
    {
        ClassGate.Demand(c, by, id, Act.KeepTalk).NotArchived();
        var row = FolderStore.OfClass(c, id).FirstOrDefault(f => f.Id == folder) ?? throw Refusals.NotFound("folder");
        var question = Refusals.NotLonger(s.Question?.Trim() ?? "", "question", "The question", 200);
        if (s.Writers == TalkWriters.Group && (s.Group is not { } g || GroupStore.OfClass(c, id).All(x => x.Id != g))) throw new RefusedException("missing", "No group is chosen.", "Choose the group that writes there, or let everybody write who sees it.", "group");
        var now = premises.Clock.Now;
        var before = TalkStore.Find(c, folder);
        if (!TalkStore.Put(c, id, new() { FolderId = folder, Writers = s.Writers, GroupId = s.Writers == TalkWriters.Group ? s.Group : null, Question = question.Length == 0 ? null : question, ClosedAt = s.Closed ? before?.ClosedAt ?? now : null, Version = s.Version }))
            throw Refusals.ChangedMeanwhile("place to talk");
        Premises.Add(c, by, now, new(before is null ? "made a place to talk" : s.Closed && before.ClosedAt is null ? "closed a place to talk" : "changed a place to talk", "folder", folder.Value, id, row.Name));
    });

    /// <summary>Writes a message.</summary>
    /// <param name="answers">The message that it answers; null for none.</param>
    /// <exception cref="RefusedException"><c>talk-shut</c>: they do not write there; nothing is kept.</exception>
    public long Write(Caller by, ClassId id, FolderId folder, string? text, long? answers)
    {
        var said = Refusals.Needed(text, "text", "The message", Talk.MostText);
        return premises.Db.Write(c =>
        {
            var (at, staff) = Reads(c, by, id, folder);
            var place = TalkStore.Find(c, folder) ?? throw Refusals.NotFound("place to talk");
            if (Talk.WhyNot(place.Fact, Of(c, at, by, staff), at.Class.State) is { } why) throw Shut(why);
            if (answers is { } a && TalkStore.Message(c, folder, a) is not { HiddenAt: null }) throw new RefusedException("talk-gone", "What you answer is not there any more.", "Write it as a message of its own.", "answers");
            var now = premises.Clock.Now;
            Activities.Note(c, premises, by, id, Did.Wrote);
            return TalkStore.Add(c, id, folder, by.Id, said, answers, now, premises.Clock.DateOf(now));
        });
    }

    /// <summary>Hides a message from students: it is kept, with who hid it and why.</summary>
    public void Hide(Caller by, ClassId id, FolderId folder, long message, string? why) => OnMessage(by, id, folder, message, "hid a message", (c, m, now) =>
    {
        if (m.HiddenAt is not null) return;
        TalkStore.Hide(c, message, now, by.Id, Refusals.NotLonger(why?.Trim() ?? "", "why", "The reason", 500));
    });

    /// <summary>Shows a hidden message again.</summary>
    public void Show(Caller by, ClassId id, FolderId folder, long message) => OnMessage(by, id, folder, message, "showed a message again", (c, _, _) => TalkStore.Hide(c, message, null, null, null));

    /// <summary>Lets a student of the class only read what is talked about, or write again. They hand in and put in as before.</summary>
    public void SetReader(Caller by, ClassId id, PersonId student, bool only) => premises.Db.Write(c =>
    {
        ClassGate.Demand(c, by, id, Act.KeepTalk).NotArchived();
        var m = RosterStore.Member(c, id, student) is { Role: ClassRole.Student, LeftAt: null } there ? there : throw Refusals.NotFound("student on the roster");
        TalkStore.SetReader(c, id, student, only);
        Premises.Add(c, by, premises.Clock.Now, new(only ? "lets only read in talk" : "lets write in talk", "person", student.Value, id, m.Name.Display));
    });

    /// <summary>Lets all students of the class only read, or write again.</summary>
    public void SetQuiet(Caller by, ClassId id, bool quiet) => premises.Db.Write(c =>
    {
        var at = ClassGate.Demand(c, by, id, Act.KeepTalk).NotArchived();
        TalkStore.SetQuiet(c, id, quiet, premises.Clock.Now);
        Premises.Add(c, by, premises.Clock.Now, new(quiet ? "lets the class only read in talk" : "lets the class write in talk", "class", id.Value, id, at.Class.Name));
    });

    /// <summary>Which students have written in a place on a day, those who have not first.</summary>
    /// <param name="day">Null for today.</param>
    public IReadOnlyList<TalkAnswered> Answered(Caller who, ClassId id, FolderId folder, LocalDate? day) => premises.Db.Read(c =>
    {
        ClassGate.Demand(c, who, id, Act.KeepTalk);
        if (FolderStore.OfClass(c, id).All(f => f.Id != folder) || TalkStore.Find(c, folder) is not { } place) throw Refusals.NotFound("place to talk");
        var wrote = TalkStore.WroteOn(c, folder, day ?? premises.Clock.Today);
        var facts = FolderStore.OfClass(c, id).ToDictionary(f => f.Id, f => f.Fact);
        var groups = GroupStore.Members(c, id);
        return RosterStore.Members(c, id).Where(m => m.Role == ClassRole.Student && m.LeftAt is null
                && new Access(new Viewer(m.PersonId, Standing.Student, m.MayPost, ClassState.Open, AfterArchive.View, groups.Where(g => g.Contains(m.PersonId)).Select(g => g.Key).ToHashSet()), facts).Of(folder).Right > Right.None
                && (place.GroupId is not { } g || groups[g].Contains(m.PersonId)))
            .Select(m => new TalkAnswered(m.PersonId, m.Name.Sort, wrote.TryGetValue(m.PersonId, out var at) ? at : null)).OrderBy(a => a.At is not null).ThenBy(a => a.SortName, StringComparer.CurrentCulture).ToList();
    });

    private void OnMessage(Caller by, ClassId id, FolderId folder, long message, string act, Action<IDbConnection, TalkMessageRow, Instant> change) => premises.Db.Write(c =>
    {
        ClassGate.Demand(c, by, id, Act.KeepTalk).NotArchived();
        if (FolderStore.OfClass(c, id).All(f => f.Id != folder)) throw Refusals.NotFound("folder");
        var m = TalkStore.Message(c, folder, message) ?? throw Refusals.NotFound("message");
        var now = premises.Clock.Now;
        change(c, m, now);
        Premises.Add(c, by, now, new(act, "folder", folder.Value, id, m.Author));
    });

    // Whoever sees the folder, reads.
    private static (ClassAndPlace At, bool Staff) Reads(IDbConnection c, Caller who, ClassId id, FolderId folder)
    {
        var at = ClassGate.Demand(c, who, id, Act.Talk);
        var facts = FolderStore.OfClass(c, id).Select(f => f.Fact).ToList();
        if (facts.All(f => f.Id != folder) || new Access(at.Viewer(who.Id), facts).Of(folder).Right == Right.None) throw Refusals.NotFound("folder");
        return (at, at.Standing >= Standing.CoTeacher);
    }

    private static Talker Of(IDbConnection c, ClassAndPlace at, Caller who, bool staff) =>
        new(staff, !(at.Member?.MayPost ?? true) || TalkStore.Readers(c, at.Class.Id).Contains(who.Id), TalkStore.IsQuiet(c, at.Class.Id), at.Groups);

    private static bool IsSchoolDay(IDbConnection c, ClassAndPlace at, LocalDate day) => SchoolWeeks.IsSchoolDay(YearStore.All(c).First(y => y.Id == at.Class.YearId).Year, day);

    private static RefusedException Shut(CantTalk why) => new("talk-shut", $"{Said(why)}", "What you typed is not sent. Ask your teacher.", "text");

    private static string Said(CantTalk why) => why switch
    {
        CantTalk.Archived => "The class is archived: nobody writes in it any more.",
        CantTalk.Closed => "This place is closed.",
        CantTalk.StaffOnly => "Only your teachers write here.",
        CantTalk.OtherGroup => "Only one group writes here, and you are not in it.",
        CantTalk.ReadsOnly => "You are set to read only.",
        _ => "For now the class only reads here.",
    };
}
