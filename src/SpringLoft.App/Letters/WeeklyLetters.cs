using System.Globalization;
using System.Text;
using SpringLoft.App.Assignments;
using SpringLoft.App.Workspaces;
using SpringLoft.Core.Assignments;
using SpringLoft.Core.Letters;
using SpringLoft.Core.Naming;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Letters;
using SpringLoft.Store.Naming;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Letters;

/// <summary>A letter as it would go out.</summary>
/// <param name="To">Name and address.</param>
/// <param name="Text">Null where there is nothing to write: then no letter goes.</param>
public sealed record LetterSeen(string To, string Language, string Subject, string? Text);

/// <summary>The letter that goes to each home once a week: what is due, what came back, notices, what to acknowledge; of the contact's own students and of nobody else.</summary>
public sealed class WeeklyLetters(Premises premises, Today today, SchoolAddress address)
{
    internal const int StopGroups = 6;
    private const int MostNotice = 600;

    // So many in one go: the clock has other things to do too.
    private const int AtOnce = 100;

    /// <summary>Writes letters that are due, each with the note that it is, in one transaction. None where there is nothing to say.</summary>
    /// <returns>How many were written.</returns>
    public int Go()
    {
        var now = premises.Clock.LocalNow;
        var due = premises.Db.Read(c =>
        {
            var rule = Families.Rule(premises, FamilyStore.Weekly(c));
            return rule.From is null ? [] : FamilyStore.All(c).Select(k => (k.Id, Day: DueOn(rule, k, now))).Where(k => k.Day is not null).Take(AtOnce).ToList();
        });
        return due.Count(k => premises.Db.Write(c => Write(c, k.Id)));
    }

    /// <summary>The letter to one contact as it would go out now, with marks or without; notes that one was looked at.</summary>
    public LetterSeen Preview(Caller by, ContactId id, bool marks) => premises.Db.Write(c =>
    {
        ClassGate.Demand(by, Act.KeepFamilies);
        var k = FamilyStore.Find(c, id) ?? throw Refusals.NotFound("contact");
        FamilyStore.SeeWeekly(c, marks);
        var text = Text(c, k, marks, code: null);
        return new LetterSeen(k.Email is null ? k.Name : $"{k.Name} <{k.Email}>", k.Language, Subject(c, k), text);
    });

    private LocalDate? DueOn(WeeklyLetter rule, ContactRow k, LocalDateTime now) => k.Fact.Why is null ? rule.DueOn(k.LetterOn, premises.Clock.LocalOf(k.WriteFrom!.Value), now) : null;

    private bool Write(IDbConnection c, ContactId id)
    {
        var weekly = FamilyStore.Weekly(c);
        if (FamilyStore.Find(c, id) is not { } k || DueOn(Families.Rule(premises, weekly), k, premises.Clock.LocalNow) is not { } day) return false;
        var now = premises.Clock.Now;
        var text = Text(c, k, weekly.Marks, (asking, student) => Acknowledgements.CodeFor(c, asking, student));
        if (!FamilyStore.Wrote(c, id, day, now) || text is null) return false;
        LetterStore.Add(c, k.Email!, k.Name, Subject(c, k), text, now, id);
        return true;
    }

    private string Subject(IDbConnection c, ContactRow k) => HomeWords.Of(k.Language).LetterTitle(SchoolStore.Get(c)!.Name, premises.Clock.Today);

    // Codes are made where a letter goes out; one who only looks sees where they stand.
    private string? Text(IDbConnection c, ContactRow k, bool marks, Func<long, PersonId, string>? code)
    {
        var words = HomeWords.Of(k.Language);
        var now = premises.Clock.Now;
        // What the last one did not tell yet; after a long silence no more than a day's screen shows.
        var since = Instant.Max(k.LetterAt ?? now - Duration.FromDays(WeeklyLetter.Days), now - Today.Recent);
        var told = new HashSet<long>();
        var parts = FamilyStore.ChildrenOf(c, [k.Id])[k.Id].Where(x => x.Active).Select(x => (Child: x, Lines: About(c, x, words, since, marks, code, told))).Where(p => p.Lines.Length > 0).ToList();
        var school = NoticeStore.OfSchool(c, since, premises.Clock.Today).Where(n => told.Add(n.Id)).Select(n => $"- {Short(n.Text)} ({n.Author})\n").ToList();
        if (parts.Count == 0 && school.Count == 0) return null;
        var name = SchoolStore.Get(c)!.Name;
        var text = new StringBuilder($"{words.Greeting(k.Name)}\n");
        foreach (var (child, lines) in parts) text.Append($"\n{words.AboutWhom(child.Name.Display)}\n{lines}");
        if (school.Count > 0) text.Append($"\n{name}: {words.Notices}\n").AppendJoin("", school);
        text.Append($"\n{words.WhyThisLetter(name)} {words.StopHere}\n{address.To($"letters/stop/{(code is null ? "…" : StopCode(c, k.Id))}")}\n");
        return text.ToString();
    }

    private string About(IDbConnection c, ChildRow child, HomeWords words, Instant since, bool marks, Func<long, PersonId, string>? code, HashSet<long> told)
    {
        var clock = premises.Clock;
        var who = new Caller(child.PersonId, SchoolRole.Student, child.Name.Display);
        var day = today.OfStudent(c, who, clock.Today.PlusDays(WeeklyLetter.Days), since);
        var asked = new Dictionary<long, string>();
        var notices = new List<string>();
        foreach (var at in day.Classes)
        {
            foreach (var (a, _) in Acknowledgements.OfStudent(c, at, child.PersonId, clock.Today).Where(a => a.Own.Home))
                asked.TryAdd(a.Id, $"{at.Class.Course}: {Acknowledgements.Called(a)}{(a.Until is { } until ? $" · {words.Until(until)}" : "")}\n  {address.To($"home/{(code is null ? "…" : code(a.Id, child.PersonId))}")}");
            // A notice in several classes of theirs is told once; what it asks is asked of each child by itself.
            foreach (var n in Notices.OfClass(c, at, clock.Today).Where(n => n.PostedAt > since && told.Add(n.Id))) notices.Add($"{at.Class.Course}: {Short(n.Text)} ({n.Author})");
        }
        var text = new StringBuilder();
        Part(words.ToAcknowledge, asked.Values);
        Part(words.DueSoon, day.Pieces.Where(p => p.When is When.Today or When.ThisWeek).Select(p => $"{p.Course}: {p.Title} · {words.DueOn(p.DueOn!.Value, p.DueTime)}"));
        Part(words.NotIn, day.Pieces.Where(p => p.When == When.Late).Select(p => $"{p.Course}: {p.Title} · {words.WasDueOn(p.DueOn!.Value)}"));
        Part(words.CameBack, day.Back.Where(b => b.ReturnedAt > since).Select(b => $"{b.Course}: {b.Title}{(marks ? PaperLists.Mark(b, words) : "")}"));
        Part(words.Notices, notices);
        return text.ToString();

        void Part(string title, IEnumerable<string> lines)
        {
            var all = lines.ToList();
            if (all.Count > 0) text.Append($"\n{title}\n").AppendJoin("", all.Select(l => $"- {l}\n"));
        }
    }

    private static string Short(string text) => Formats.Print.HomePage.Words(text) is { Length: > MostNotice } t ? t[..MostNotice] + "…" : Formats.Print.HomePage.Words(text);

    private static string StopCode(IDbConnection c, ContactId id)
    {
        if (FamilyStore.StopCode(c, id) is { Length: > 0 } there) return there;
        var code = TypedCode.Make(System.Security.Cryptography.RandomNumberGenerator.GetInt32, StopGroups);
        FamilyStore.SetStopCode(c, id, code);
        return code;
    }
}

/// <summary>What whoever has a letter's stop address sees.</summary>
/// <param name="Students">Given names alone.</param>
public sealed record StopView(string School, string Language, IReadOnlyList<string> Students, bool Stopped);

/// <summary>Stops the letters to a home, by the address that each of them has; without an account.</summary>
public sealed class StoppingLetters(Premises premises, HomeGuesses guesses)
{
    /// <summary>What an address is about.</summary>
    /// <exception cref="RefusedException"><c>home-code</c>: it leads nowhere; <c>home-slow</c> after too many that did not.</exception>
    public StopView See(string? code, string network) => premises.Db.Read(c => View(c, Opened(c, code, network)));

    /// <summary>Stops them, and takes back what waits; or has them again. Only whoever has the address can do either: nobody at the school takes it back.</summary>
    public void Set(string? code, bool stopped, string network) => premises.Db.Write(c =>
    {
        var k = Opened(c, code, network);
        if (k.StoppedAt is not null == stopped) return;
        var now = premises.Clock.Now;
        FamilyStore.SetStopped(c, k.Id, stopped ? now : null);
        if (stopped) LetterStore.TakeBackOf(c, k.Id, now);
        Premises.Add(c, null, now, new(stopped ? "stopped letters to home" : "has letters to home again", "contact", k.Id.Value, null, k.Name, network));
    });

    private static StopView View(IDbConnection c, ContactRow k) => new(SchoolStore.Get(c)!.Name, k.Language, [.. FamilyStore.ChildrenOf(c, [k.Id])[k.Id].Select(x => x.Name.Given)], k.StoppedAt is not null);

    private ContactRow Opened(IDbConnection c, string? typed, string network) => guesses.Opened(network, () => TypedCode.Read(typed, WeeklyLetters.StopGroups) is { } code ? FamilyStore.ByStopCode(c, code) : null);
}
