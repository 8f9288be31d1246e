using SpringLoft.App.Workspaces;
using SpringLoft.Core.Letters;
using SpringLoft.Core.People;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Letters;
using SpringLoft.Store.People;

namespace SpringLoft.App.Letters;

/// <summary>A student of a family contact.</summary>
/// <param name="ByHand">A person said so; false where the school's records do.</param>
public sealed record ContactChild(PersonId Id, string Name, string? Grade, bool ByHand);

/// <summary>Somebody at home to whom the school may write.</summary>
/// <param name="FromRecords">The school's records brought them.</param>
/// <param name="Let">The school lets them be written to.</param>
/// <param name="Why">Why no letter goes to them; null where one does.</param>
/// <param name="LetterOn">The day of the last letter; null if none.</param>
public sealed record ContactLine(ContactId Id, string Name, string? Email, string Language, bool FromRecords, bool Let, NoLetter? Why, LocalDate? LetterOn, IReadOnlyList<ContactChild> Children, int Version);

/// <summary>A language in which letters are written.</summary>
public sealed record LetterLanguage(string Code, string Name);

/// <summary>How the weekly letter stands.</summary>
/// <param name="On">Does it go out?</param>
/// <param name="SeenMarks">With marks or without, as one was looked at before; null where nobody looked yet.</param>
/// <param name="Next">When the next ones go out, or would.</param>
/// <param name="Reached">To how many contacts.</param>
/// <param name="Students">Active students, and of them those about whom a letter goes to somebody.</param>
public sealed record WeeklyView(bool On, IsoDayOfWeek Day, bool Marks, bool? SeenMarks, LocalDateTime Next, int Reached, int Students, int StudentsReached);

/// <summary>The contacts of families.</summary>
/// <param name="Contacts">Found, the first of them.</param>
/// <param name="Found">How many there are.</param>
public sealed record FamiliesView(WeeklyView Weekly, IReadOnlyList<ContactLine> Contacts, int Found, IReadOnlyList<LetterLanguage> Languages);

/// <summary>A contact as somebody writes it down.</summary>
public sealed record NewContact(string? Name, string? Email, string? Language, IReadOnlyList<PersonId>? Children);

/// <summary>Keeps the contacts of families, and says which letters go to them. A contact has no account and no sign-in.</summary>
public sealed class Families(Premises premises)
{
    private const int MostShown = 2000;
    private const int MostName = 120;
    private const int MostChildren = 20;
    private const int MostTicked = 5000;

    /// <summary>All, or those in whose name, address or student's name some words stand.</summary>
    public FamiliesView See(Caller who, string? find) => premises.Db.Read(c =>
    {
        ClassGate.Demand(who, Act.KeepFamilies);
        var all = FamilyStore.All(c);
        var children = FamilyStore.ChildrenOf(c);
        var words = (find ?? "").Split(' ', StringSplitOptions.RemoveEmptyEntries).Select(PersonName.SearchKey).ToList();
        bool Has(ContactRow k)
        {
            if (words.Count == 0) return true;
            var text = PersonName.SearchKey($"{k.Name} {k.Email} {string.Join(' ', children[k.Id].Select(x => x.Name.Display))}");
            return words.All(w => text.Contains(w, StringComparison.Ordinal));
        }
        var found = all.Where(Has).ToList();
        return new FamiliesView(Weekly(c, all, children), [.. found.Take(MostShown).Select(k => Line(k, children))], found.Count, [.. HomeWords.All.Select(w => new LetterLanguage(w.Code, w.Name))]);
    });

    /// <summary>Adds somebody by hand. Whoever adds them says that the school may write to them.</summary>
    /// <exception cref="RefusedException"><c>missing</c>, <c>too-long</c>, <c>email-wrong</c>, <c>contact-language</c>, <c>contact-no-student</c>.</exception>
    public ContactId Add(Caller by, NewContact n) => premises.Db.Write(c =>
    {
        var (name, email, language, children) = Read(c, by, n);
        var now = premises.Clock.Now;
        var id = FamilyStore.Add(c, null, name, email, language, now);
        FamilyStore.SetChildren(c, id, children, byHand: true);
        Premises.Add(c, by, now, new("added family contact", "contact", id.Value, null, name));
        return id;
    });

    /// <summary>Changes one, at the version that was seen. Of one whom the records brought, name and address are theirs: what is changed here stands until a delivery says otherwise.</summary>
    public void Change(Caller by, ContactId id, NewContact n, int version) => premises.Db.Write(c =>
    {
        var (name, email, language, children) = Read(c, by, n);
        var before = FamilyStore.Find(c, id) ?? throw Refusals.NotFound("contact");
        if (!FamilyStore.Save(c, id, name, email, language, version)) throw Refusals.ChangedMeanwhile("contact");
        // What the records say of their students, they go on saying.
        var fed = FamilyStore.ChildrenOf(c, [id])[id].Where(x => !x.ByHand).Select(x => x.PersonId).ToHashSet();
        FamilyStore.SetChildren(c, id, children.Where(x => !fed.Contains(x)), byHand: true);
        // A letter that waits goes to the address and about the students that were.
        LetterStore.TakeBackOf(c, id, premises.Clock.Now);
        Premises.Add(c, by, premises.Clock.Now, new("changed family contact", "contact", id.Value, null, before.Name == name ? name : $"{before.Name}: {name}"));
    });

    /// <summary>Removes one who was added by hand, with the letters to them that wait.</summary>
    /// <exception cref="RefusedException"><c>contact-delivered</c>.</exception>
    public void Remove(Caller by, ContactId id) => premises.Db.Write(c =>
    {
        ClassGate.Demand(by, Act.KeepFamilies);
        var k = FamilyStore.Find(c, id) ?? throw Refusals.NotFound("contact");
        if (k is { RecordId: not null, GoneAt: null }) throw new RefusedException("contact-delivered", $"{k.Name} comes from the school's records and would come again with the next delivery.", "Say that they are not to be written to, or have the records changed.");
        FamilyStore.Remove(c, id);
        Premises.Add(c, by, premises.Clock.Now, new("removed family contact", "contact", id.Value, null, k.Name));
    });

    /// <summary>Says of contacts whether the school lets them be written to. Who has stopped letters gets none for that.</summary>
    /// <returns>For how many it was otherwise before.</returns>
    public int LetWrite(Caller by, IReadOnlyList<ContactId>? contacts, bool let) => premises.Db.Write(c =>
    {
        ClassGate.Demand(by, Act.KeepFamilies);
        Refusals.CheckPeople(contacts?.Count ?? 0, MostTicked);
        var now = premises.Clock.Now;
        var changed = contacts!.Distinct().Count(id =>
        {
            if (!FamilyStore.SetMayWrite(c, id, let ? now : null)) return false;
            if (!let) LetterStore.TakeBackOf(c, id, now);
            return true;
        });
        if (changed > 0) Premises.Add(c, by, now, new(let ? "let families be written to" : "had families not written to", "contact", contacts!.Count == 1 ? contacts[0].Value : null, null, $"{changed} contacts"));
        return changed;
    });

    /// <summary>Lays down whether, on which day and with what it goes out. Nobody has it go out who has not looked at one as it would be.</summary>
    /// <exception cref="RefusedException"><c>letter-unseen</c>, <c>letter-day</c>.</exception>
    public void SetWeekly(Caller by, bool on, IsoDayOfWeek day, bool marks) => premises.Db.Write(c =>
    {
        ClassGate.Demand(by, Act.KeepFamilies);
        if (day == IsoDayOfWeek.None) throw new RefusedException("letter-day", "A weekly letter goes out on a day of the week.", "Choose one.", "day");
        var before = FamilyStore.Weekly(c);
        if (on && before.SeenMarks != marks)
            throw new RefusedException("letter-unseen", $"Nobody has looked at a letter {(marks ? "with" : "without")} marks yet.", "Look at one as it would go out, then have them sent.", "on");
        var now = premises.Clock.Now;
        FamilyStore.SetWeekly(c, on ? before.From ?? now : null, day, marks);
        Premises.Add(c, by, now, new("laid down weekly letter", "school", null, null, on ? $"on {day}s, {(marks ? "with" : "without")} marks" : "not sent"));
    });

    internal static WeeklyLetter Rule(Premises premises, WeeklyRow w) => new(w.From is { } from ? premises.Clock.LocalOf(from) : null, w.Day, w.Marks);

    private WeeklyView Weekly(IDbConnection c, IReadOnlyList<ContactRow> all, ILookup<ContactId, ChildRow> children)
    {
        var w = FamilyStore.Weekly(c);
        var reached = all.Where(k => k.Fact.Why is null && children[k.Id].Any(x => x.Active)).ToList();
        return new(w.From is not null, w.Day, w.Marks, w.SeenMarks, Rule(premises, w).Next(premises.Clock.LocalNow), reached.Count, PersonStore.CountStudents(c), reached.SelectMany(k => children[k.Id]).Where(x => x.Active).Select(x => x.PersonId).Distinct().Count());
    }

    private static ContactLine Line(ContactRow k, ILookup<ContactId, ChildRow> children) => new(k.Id, k.Name, k.Email, k.Language, k.RecordId is not null, k.WriteFrom is not null, k.Fact.Why, k.LetterOn,
        [.. children[k.Id].Select(x => new ContactChild(x.PersonId, x.Name.Display, x.Grade, x.ByHand))], k.Version);

    private static (string Name, string? Email, string Language, IReadOnlyList<PersonId> Children) Read(IDbConnection c, Caller by, NewContact n)
    {
        ClassGate.Demand(by, Act.KeepFamilies);
        var name = Refusals.Needed(n.Name, "name", "The name", MostName);
        var email = n.Email?.Trim() is { Length: > 0 } e ? e : null;
        if (email is not null && !EmailAddress.IsOne(email)) throw new RefusedException("email-wrong", $"“{email}” is no e-mail address.", "Write it like name@family.example.", "email");
        if (HomeWords.All.All(w => w.Code != n.Language)) throw new RefusedException("contact-language", "Letters are not written in that language.", $"Choose one of {string.Join(", ", HomeWords.All.Select(w => w.Name))}.", "language");
        List<PersonId> children = [.. (n.Children ?? []).Distinct()];
        if (children.Count is 0 or > MostChildren || PersonStore.Find(c, children).Count(p => p is { Role: SchoolRole.Student, Active: true }) != children.Count)
            throw new RefusedException("contact-no-student", $"Somebody at home is the contact of 1 to {MostChildren} students who are at the school.", "Choose their students.", "children");
        return (name, email, n.Language!, children);
    }
}
