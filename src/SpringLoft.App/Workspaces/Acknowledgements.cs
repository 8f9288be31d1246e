using System.Security.Cryptography;
using SpringLoft.App.Assignments;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Workspaces;

/// <summary>What is asked of those who find something: by whom it is acknowledged, and until when.</summary>
/// <param name="Until">The last day on which it is wanted; null for no day.</param>
public sealed record Asks(AskedOf Of, LocalDate? Until);

/// <summary>What is asked of the asker, a student, and what they said to it.</summary>
/// <param name="OwnAt">When they acknowledged it; null where that is still wanted of them, or never was.</param>
/// <param name="Own">Is it still wanted of them?</param>
/// <param name="Home">Is it still wanted from their home?</param>
/// <param name="Late">Its day is over.</param>
/// <param name="RemindedAt">When staff reminded of it last; null if never.</param>
public sealed record OwnAsking(long Id, AskedOf Of, LocalDate? Until, Instant? OwnAt, bool Own, bool Home, bool Late, Instant? RemindedAt);

/// <summary>Something of a class that asks, with how far it has come.</summary>
/// <param name="Kind">Null for a notice.</param>
/// <param name="Item">The thing; null for a notice.</param>
/// <param name="Title">Its name; of a notice, its first words.</param>
/// <param name="Students">How many it is asked of: who is on the roster and finds it.</param>
/// <param name="OwnLeft">Of them, those who have not acknowledged it themselves and are asked to.</param>
/// <param name="HomeLeft">Those from whose home it is wanted still.</param>
/// <param name="Reached">False where nobody finds it yet: the class is not open, or the notice waits.</param>
public sealed record AskingLine(
    long Id, ItemKind? Kind, ItemId? Item, string Title, AskedOf Of, LocalDate? Until, string By, Instant AskedAt, int Wording, int Students, int OwnLeft, int HomeLeft, int Done, bool Late, bool Reached);

/// <summary>What one student, and their home, said to it.</summary>
/// <param name="HomeName">Who said so at home, as they wrote it.</param>
/// <param name="NotedBy">Staff who noted a signed paper; null where it came by the code.</param>
/// <param name="Earlier">Something was said to an earlier wording, and does not count any more.</param>
/// <param name="BeforeChange">What was said was said before the thing was changed last.</param>
public sealed record AskingRowView(
    PersonId Person, string SortName, Instant? OwnAt, Instant? HomeAt, string? HomeName, string? NotedBy, Instant? RemindedAt, bool OwnLeft, bool HomeLeft, bool Earlier, bool BeforeChange);

/// <summary>One asking with its students.</summary>
public sealed record AskingView(AskingLine Line, IReadOnlyList<AskingRowView> Rows);

/// <summary>What a reminder did.</summary>
/// <param name="Students">Who is reminded by it.</param>
/// <param name="Already">Who was reminded today already, and is not again.</param>
public sealed record Reminded(int Students, int Already);

/// <summary>A paper for a home.</summary>
public sealed record HomePaper(PersonId Person, string Name, string? Grade, string Code);

/// <summary>Papers to be printed.</summary>
public sealed record HomePapers(string School, string ClassName, string Title, LocalDate? Until, IReadOnlyList<HomePaper> Papers);

/// <summary>Pages, files, links and notices that ask to be read and acknowledged: by the student, at home, or both.</summary>
public sealed class Acknowledgements(Premises premises)
{
    /// <summary>Longest name that somebody at home gives.</summary>
    public const int MostName = 120;

    /// <summary>All that asks in a class, with how far each has come.</summary>
    public IReadOnlyList<AskingLine> Of(Caller who, ClassId id) => premises.Db.Read(c =>
    {
        var at = ClassGate.Demand(c, who, id, Act.KeepAcknowledgements);
        return Lines(c, at, premises.Clock.Today);
    });

    /// <summary>One of them, student by student; those of whom something is outstanding first.</summary>
    public AskingView See(Caller who, ClassId id, long asking) => premises.Db.Read(c =>
    {
        var at = ClassGate.Demand(c, who, id, Act.KeepAcknowledgements);
        var (a, asked) = Find(c, at, asking);
        var said = AskingStore.SaidTo(c, [asking])[asking].ToDictionary(s => s.PersonId);
        var staff = RosterStore.Members(c, id).ToDictionary(m => m.PersonId, m => m.Name.Display);
        return new AskingView(Line(at, a, asked, [.. said.Values], premises.Clock.Today), [.. asked.Select(m =>
        {
            var s = said.GetValueOrDefault(m.PersonId);
            var left = Acknowledging.Of(a.AskedOf, s?.Fact ?? default, a.Wording);
            var (own, home) = (s?.OwnWording >= a.Wording ? s.OwnAt : null, s?.HomeWording >= a.Wording ? s.HomeAt : null);
            return new AskingRowView(m.PersonId, m.Name.Sort, own, home, home is null ? null : s!.HomeName, home is not null && s!.HomeNotedBy is { } by ? staff.GetValueOrDefault(by) ?? Store.People.PersonStore.Find(c, by)?.Name.Display : null, s?.RemindedAt,
                left.Own, left.Home, s is { } && ((s.OwnWording is { } o && o < a.Wording) || (s.HomeWording is { } h && h < a.Wording)), a.ChangedAt is { } changed && (own < changed || home < changed));
        }).OrderByDescending(r => r.OwnLeft || r.HomeLeft).ThenBy(r => r.SortName, StringComparer.CurrentCulture)]);
    });

    /// <summary>Has a thing of the class ask to be acknowledged, or changes of whom and until when; null has it ask no more; what was said stays on record.</summary>
    /// <exception cref="RefusedException"><c>ask-past</c>, <c>bank-no-students</c>.</exception>
    public void Ask(Caller by, ClassId id, ItemId item, Asks? asks) => premises.Db.Write(c =>
    {
        var at = ClassGate.Demand(c, by, id, Act.KeepAcknowledgements).NotArchived();
        var row = ItemStore.Find(c, id, item) ?? throw Refusals.NotFound("thing");
        var now = premises.Clock.Now;
        if (asks is null)
        {
            if (AskingStore.OfItem(c, item) is not { } there) return;
            AskingStore.End(c, there, now);
            Premises.Add(c, by, now, new("asks no more to acknowledge", "item", item.Value, id, row.Name));
            return;
        }
        if (at.Class.Kind != WorkspaceKind.Class) throw new RefusedException("bank-no-students", $"“{at.Class.Name}” has no students who could acknowledge anything.", "Give the thing to classes and ask there.", "item");
        Check(asks, AskingStore.OfItem(c, item) is { } asking ? AskingStore.Find(c, id, asking)?.Until : null);
        AskingStore.AskItem(c, item, asks.Of, asks.Until, by.Id, now);
        Premises.Add(c, by, now, new("asks to acknowledge", "item", item.Value, id, row.Name));
    });

    /// <summary>Asks anew, after what it says was changed: whoever acknowledged it before is asked again, and what they said stays on record.</summary>
    public void Anew(Caller by, ClassId id, long asking) => premises.Db.Write(c =>
    {
        var at = ClassGate.Demand(c, by, id, Act.KeepAcknowledgements).NotArchived();
        var a = AskingStore.Find(c, id, asking) ?? throw Refusals.NotFound("asking");
        Everywhere(c, by, a);
        AskingStore.Anew(c, asking, premises.Clock.Now);
        Premises.Add(c, by, premises.Clock.Now, new("asks anew to acknowledge", "asking", asking, at.Class.Id, Called(a)));
    });

    /// <summary>The asker, a student, says that they have read it. Said again, it stays as it was said first.</summary>
    public void Say(Caller by, ClassId id, long asking) => premises.Db.Write(c =>
    {
        var at = ClassGate.Demand(c, by, id, Act.Acknowledge).NotArchived();
        var (a, asked) = Find(c, at, asking);
        if (asked.All(m => m.PersonId != by.Id)) throw Refusals.NotFound("asking");
        if (a.AskedOf == AskedOf.Home) throw new RefusedException("ask-home", "This is to be acknowledged at home, with the code that your family has.", "Ask your teacher for the paper if you have none.");
        AskingStore.SayOwn(c, asking, by.Id, a.Wording, premises.Clock.Now);
        Premises.Add(c, by, premises.Clock.Now, new("acknowledged", "asking", asking, id, Called(a)));
    });

    /// <summary>Staff note that a signed paper came back.</summary>
    /// <param name="name">Who signed; blank if it cannot be read.</param>
    public void NotePaper(Caller by, ClassId id, long asking, PersonId student, string? name) => OnStudent(by, id, asking, student, (c, a, m) =>
    {
        if (a.AskedOf == AskedOf.Student) throw new RefusedException("ask-own", "This is asked of the students themselves, not of their homes.", "Change of whom it is asked first.");
        var signed = Refusals.NotLonger(name?.Trim() ?? "", "name", "The name", MostName);
        if (AskingStore.SayHome(c, asking, student, a.Wording, signed, by.Id, premises.Clock.Now)) Premises.Add(c, by, premises.Clock.Now, new("noted a signed paper", "person", student.Value, id, $"{m.Name.Display}: {Called(a)}"));
    });

    /// <summary>Takes back what staff noted by mistake. What came from home by its code stays.</summary>
    public void TakeBackNoted(Caller by, ClassId id, long asking, PersonId student) => OnStudent(by, id, asking, student, (c, a, m) =>
    {
        if (AskingStore.TakeBackNoted(c, asking, student)) Premises.Add(c, by, premises.Clock.Now, new("took back a noted paper", "person", student.Value, id, $"{m.Name.Display}: {Called(a)}"));
    });

    /// <summary>Reminds everybody of whom something is outstanding, once a day at most: it stands on top of their day.</summary>
    public Reminded Remind(Caller by, ClassId id, long asking) => premises.Db.Write(c =>
    {
        var at = ClassGate.Demand(c, by, id, Act.KeepAcknowledgements).NotArchived();
        var (a, asked) = Find(c, at, asking);
        var now = premises.Clock.Now;
        var said = AskingStore.SaidTo(c, [asking])[asking].ToDictionary(s => s.PersonId);
        var left = asked.Where(m => Acknowledging.Of(a.AskedOf, said.GetValueOrDefault(m.PersonId)?.Fact ?? default, a.Wording).Any).ToList();
        var fresh = left.Where(m => said.GetValueOrDefault(m.PersonId)?.RemindedAt is not { } r || premises.Clock.DateOf(r) < premises.Clock.Today).ToList();
        foreach (var m in fresh) AskingStore.Remind(c, asking, m.PersonId, now);
        if (fresh.Count > 0) Premises.Add(c, by, now, new("reminded to acknowledge", "asking", asking, id, $"{fresh.Count}: {Called(a)}"));
        return new Reminded(fresh.Count, left.Count - fresh.Count);
    });

    /// <summary>Papers for the homes from which it is wanted still, each with a code for that student alone. A code that was printed before stays.</summary>
    /// <exception cref="RefusedException"><c>ask-none</c>: no home is asked, or all have answered.</exception>
    public HomePapers Papers(Caller by, ClassId id, long asking) => premises.Db.Write(c =>
    {
        var at = ClassGate.Demand(c, by, id, Act.KeepAcknowledgements).NotArchived();
        var (a, asked) = Find(c, at, asking);
        var said = AskingStore.SaidTo(c, [asking])[asking].ToDictionary(s => s.PersonId);
        var left = asked.Where(m => Acknowledging.Of(a.AskedOf, said.GetValueOrDefault(m.PersonId)?.Fact ?? default, a.Wording).Home).OrderBy(m => m.Name.Sort, StringComparer.CurrentCulture).ToList();
        if (left.Count == 0) throw new RefusedException("ask-none", "No home has anything to acknowledge here.", a.AskedOf == AskedOf.Student ? "Ask it of homes too first." : "All have answered.");
        var papers = left.Select(m => new HomePaper(m.PersonId, m.Name.Display, m.Grade, CodeFor(c, asking, m.PersonId))).ToList();
        Premises.Add(c, by, premises.Clock.Now, new("printed papers for homes", "asking", asking, id, $"{papers.Count}: {Called(a)}"));
        return new HomePapers(Store.Naming.SchoolStore.Get(c)!.Name, at.Class.Name, Called(a), a.Until, papers);
    });

    /// <summary>Has a notice ask, in the transaction in which it is written; null has it ask no more.</summary>
    internal void AskNotice(IDbConnection c, Caller by, long notice, Asks? asks, bool school)
    {
        if (asks is null)
        {
            AskingStore.EndOfNotice(c, notice, premises.Clock.Now);
            return;
        }
        if (school) throw new RefusedException("ask-school", "A notice to the whole school can't ask to be acknowledged.", "Post it to classes, or have it ask nothing.", "asks");
        Check(asks, AskingStore.OfNotices(c, [notice]).TryGetValue(notice, out var before) ? before.Until : null);
        AskingStore.AskNotice(c, notice, asks.Of, asks.Until, by.Id, premises.Clock.Now);
    }

    /// <summary>What is asked of one student in a class, by asking.</summary>
    internal static IReadOnlyList<(AskingRow Asking, OwnAsking Own)> OfStudent(IDbConnection c, ClassAndPlace at, PersonId student, LocalDate today)
    {
        if (at.Class.State != ClassState.Open || AskingStore.OfClass(c, at.Class.Id) is not { Count: > 0 } all) return [];
        var reach = new AskedReach(c, at.Class.Id);
        return [.. all.Where(a => reach.Asks(a, student, at.Groups, at.Member?.MayPost ?? true)).Select(a =>
        {
            var said = AskingStore.SaidBy(c, a.Id, student);
            var left = Acknowledging.Of(a.AskedOf, said?.Fact ?? default, a.Wording);
            return (a, new OwnAsking(a.Id, a.AskedOf, a.Until, said?.OwnWording >= a.Wording ? said.OwnAt : null, left.Own, left.Home, Acknowledging.IsLate(left, a.Until, today), said?.RemindedAt));
        })];
    }

    /// <summary>All that asks in a class, with how far each has come.</summary>
    internal static IReadOnlyList<AskingLine> Lines(IDbConnection c, ClassAndPlace at, LocalDate today)
    {
        if (AskingStore.OfClass(c, at.Class.Id) is not { Count: > 0 } all) return [];
        var said = AskingStore.SaidTo(c, all.Select(a => a.Id));
        var reach = new AskedReach(c, at.Class.Id);
        return [.. all.Select(a => Line(at, a, reach.Of(a), [.. said[a.Id]], today))];
    }

    /// <summary>The code by which a student's home answers; made where there is none.</summary>
    internal static string CodeFor(IDbConnection c, long asking, PersonId student)
    {
        if (AskingStore.CodeOf(c, asking, student) is { Length: > 0 } there) return there;
        var code = Acknowledging.MakeCode(RandomNumberGenerator.GetInt32);
        AskingStore.SetCode(c, asking, student, code);
        return code;
    }

    /// <summary>What it is called: a thing by its name as it is, a notice by its first words without what formats them.</summary>
    internal static string Called(AskingRow a) => a.Kind is null ? ShortWords(a.Title) : a.Title;

    /// <summary>The first words of formatted text, without what formats them.</summary>
    internal static string ShortWords(string text) => Formats.Print.HomePage.Words(text) is { Length: > 80 } t ? t[..80] + "…" : Formats.Print.HomePage.Words(text);

    private void OnStudent(Caller by, ClassId id, long asking, PersonId student, Action<IDbConnection, AskingRow, MemberRow> change) => premises.Db.Write(c =>
    {
        var at = ClassGate.Demand(c, by, id, Act.KeepAcknowledgements).NotArchived();
        var (a, asked) = Find(c, at, asking);
        change(c, a, asked.FirstOrDefault(m => m.PersonId == student) ?? throw Refusals.NotFound("student of whom it is asked"));
    });

    private static (AskingRow Asking, IReadOnlyList<MemberRow> Asked) Find(IDbConnection c, ClassAndPlace at, long asking)
    {
        var a = AskingStore.Find(c, at.Class.Id, asking) ?? throw Refusals.NotFound("asking");
        return (a, new AskedReach(c, at.Class.Id).Of(a));
    }

    // A notice stands in several classes: what holds in all of them is for whoever keeps all of them.
    private static void Everywhere(IDbConnection c, Caller by, AskingRow a)
    {
        foreach (var k in AskingStore.ClassesOf(c, a.Id)) ClassGate.Demand(c, by, k, Act.KeepAcknowledgements);
    }

    private static AskingLine Line(ClassAndPlace at, AskingRow a, IReadOnlyList<MemberRow> asked, IReadOnlyList<AcknowledgedRow> said, LocalDate today)
    {
        var by = said.ToDictionary(s => s.PersonId, s => s.Fact);
        var left = asked.Select(m => Acknowledging.Of(a.AskedOf, by.GetValueOrDefault(m.PersonId), a.Wording)).ToList();
        return new(a.Id, a.Kind, a.ItemId, Called(a), a.AskedOf, a.Until, a.AskedByName, a.AskedAt, a.Wording, asked.Count, left.Count(l => l.Own), left.Count(l => l.Home), left.Count(l => !l.Any),
            left.Exists(l => Acknowledging.IsLate(l, a.Until, today)), at.Class.State == ClassState.Open && a.Posted);
    }

    private void Check(Asks asks, LocalDate? before)
    {
        if (asks.Until is { } until && until != before && until < premises.Clock.Today) throw new RefusedException("ask-past", "The day until which it is wanted is over.", "Set a later one, or none.", "until");
    }
}

/// <summary>Of whom something is asked: students on the roster who find it.</summary>
internal sealed class AskedReach
{
    private readonly List<MemberRow> students;
    private readonly List<FolderFact> facts;
    private readonly ILookup<ItemId, FolderId> filed;
    private readonly ILookup<GroupId, PersonId> groups;
    private readonly Dictionary<PersonId, Access> access = [];

    internal AskedReach(IDbConnection c, ClassId id)
    {
        students = [.. RosterStore.Members(c, id).Where(m => m.Role == ClassRole.Student && m.LeftAt is null)];
        facts = [.. FolderStore.OfClass(c, id).Select(f => f.Fact)];
        filed = ItemStore.Filings(c, id).ToLookup(f => f.Item, f => f.Folder);
        groups = GroupStore.Members(c, id);
    }

    /// <summary>Those of the class.</summary>
    internal IReadOnlyList<MemberRow> Of(AskingRow a) => [.. students.Where(m => Asks(a, m.PersonId, groups.Where(g => g.Contains(m.PersonId)).Select(g => g.Key).ToHashSet(), m.MayPost))];

    /// <summary>Is it asked of this student?</summary>
    internal bool Asks(AskingRow a, PersonId student, IReadOnlySet<GroupId> inGroups, bool mayPost)
    {
        if (a.ItemId is not { } item) return a.Posted && (a.GroupId is not { } g || inGroups.Contains(g));
        // As it will be once the class is open: staff see beforehand of whom it is asked.
        if (!access.TryGetValue(student, out var sees))
            access[student] = sees = new Access(new Viewer(student, Standing.Student, mayPost, ClassState.Open, AfterArchive.View, inGroups), facts);
        return sees.OfThing(filed[item]) > Right.None;
    }
}
