using System.Security.Cryptography;
using SpringLoft.App.Workspaces;
using SpringLoft.Core.People;
using SpringLoft.Core.Workspaces;
using SpringLoft.Formats.Print;
using SpringLoft.Store.Naming;
using SpringLoft.Store.People;
using SpringLoft.Store.Rosters;

namespace SpringLoft.App.People;

/// <summary>Whether somebody has a sign-in slip. The first password is not on it: see <see cref="Slips.Show(Caller, ClassId?, IReadOnlyList{PersonId})"/>.</summary>
/// <param name="Waits">There is a first password that is still to be used.</param>
/// <param name="HasOwn">True if the person has chosen a password of their own.</param>
/// <param name="Bar">What keeps the asker from it.</param>
/// <param name="ForClass">What keeps the staff of the class from it; for a coordinator who may say yes.</param>
/// <param name="From">The day from which the staff of the class have it; null where that is not a matter of days.</param>
/// <param name="MayMake">May the asker make a new one, as things are?</param>
public sealed record Slip(PersonId Person, string Name, string SortName, string? Grade, string UserName, bool Waits, bool HasOwn, SlipBar Bar, SlipBar ForClass, LocalDate? From, bool MayMake);

/// <summary>A slip with its first password, as it is printed.</summary>
public sealed record ShownSlip(PersonId Person, string Name, string? Grade, string UserName, string Phrase);

/// <summary>
/// Sign-in slips: paper with somebody's first sign-in details. The staff of a class have those of its students, by
/// <see cref="SlipRules"/>; the coordinator has those of anybody, staff too. Each that is shown or made is in the audit trail.
/// </summary>
public sealed class Slips(Premises premises)
{
    /// <summary>Most people of one act.</summary>
    public const int MostAtOnce = 500;

    /// <summary>Who of a class's students has a slip, by name.</summary>
    public IReadOnlyList<Slip> Of(Caller by, ClassId id) => premises.Db.Read(c =>
    {
        ClassGate.Demand(c, by, id, Act.HaveSlips);
        var kept = PersonStore.FirstPhrases(c, id);
        return Students(c, id).Select(m => One(by, m.PersonId, m.Name, m.Grade, m.UserName, kept, BarOf(c, by, m), ForClass(c, by, m), m.Since)).ToList();
    });

    /// <summary>The same of any people of the directory, by name; of those who have left there are none.</summary>
    public IReadOnlyList<Slip> Of(Caller by, IReadOnlyCollection<PersonId> people) => premises.Db.Read(c =>
    {
        Refusals.CheckPeople(people.Count, MostAtOnce);
        var kept = PersonStore.FirstPhrases(c, people);
        return PersonStore.Find(c, people).Where(p => p.Active).OrderBy(p => PersonName.SearchKey(p.Name.Sort), StringComparer.Ordinal).Select(p => One(by, p.Id, p.Name, p.Grade, p.UserName, kept, SlipBar.None, SlipBar.None, default)).ToList();
    });

    /// <summary>Shows first passwords that are still to be used, by name; who has none is left out.</summary>
    /// <param name="id">The class whose students they are; null for anybody of the directory.</param>
    /// <exception cref="RefusedException"><c>slip-staff</c>, <c>slip-too-new</c>; <c>not-found</c> for who is no student of the class.</exception>
    public IReadOnlyList<ShownSlip> Show(Caller by, ClassId? id, IReadOnlyList<PersonId> people)
    {
        Refusals.CheckPeople(people.Count, MostAtOnce);
        return premises.Db.Write(c =>
        {
            if (id is { } k) Demand(c, by, k, people);
            var kept = PersonStore.FirstPhrases(c, people);
            var shown = PersonStore.Find(c, people.Distinct()).Where(p => p.Active && kept.GetValueOrDefault(p.Id).Phrase is not null)
                .OrderBy(p => PersonName.SearchKey(p.Name.Sort), StringComparer.Ordinal).Select(p => new ShownSlip(p.Id, p.Name.Display, p.Grade, p.UserName, kept[p.Id].Phrase!)).ToList();
            foreach (var s in shown) Premises.Add(c, by, premises.Clock.Now, new("saw a first password", "person", s.Person.Value, id, s.Name));
            return shown;
        });
    }

    /// <summary>Slips as PDF.</summary>
    /// <param name="address">Where one signs in.</param>
    /// <exception cref="RefusedException"><c>slips-none</c>.</exception>
    public Download Pdf(IReadOnlyList<ShownSlip> of, string address, Paper paper, bool letters)
    {
        if (of.Count == 0) throw new RefusedException("slips-none", "None of them has a first password that is still to be used.", "Make new slips for them first.", "people");
        var file = premises.Files.Scratch();
        SlipSheet.Write(file, [.. of.Select(s => new PrintedSlip(s.Name, s.Grade, s.UserName, s.Phrase))], premises.Db.Read(c => SchoolStore.Get(c)!.Name), address, paper, letters);
        file.Position = 0;
        return new Download("sign-in slips.pdf", file, file.Length);
    }

    /// <summary>
    /// Gives people a new first password. The old one is dead, and where they are signed in they are signed out.
    /// Nothing is given back: answers to acts are kept for a day, and a first password stands nowhere but on its slip.
    /// </summary>
    /// <param name="id">The class whose students they are; null for anybody of the directory.</param>
    /// <exception cref="RefusedException"><c>slip-own</c> for the asker's own; <c>person-left</c>; <c>not-found</c> for who is no student of the class; <c>slip-staff</c>, <c>slip-too-new</c>, <c>slip-chosen</c>.</exception>
    public void Renew(Caller by, ClassId? id, IReadOnlyList<PersonId> people)
    {
        Refusals.CheckPeople(people.Count, MostAtOnce);
        // Hashing is slow on purpose; it is done before the one writer is held up.
        var (rule, known) = premises.Db.Read(c =>
        {
            if (id is { } k) Demand(c, by, k, people);
            return (SchoolStore.Get(c)!.FirstPasswordRule, PersonStore.Find(c, people.Distinct()).ToDictionary(p => p.Id));
        });
        if (people.Any(p => !known.ContainsKey(p))) throw Refusals.NotFound("person");
        if (id is null && known.ContainsKey(by.Id)) throw new RefusedException("slip-own", "A slip of your own would end your password and sign you out.", "Choose another password yourself, or ask another coordinator for a slip.", "people");
        if (id is null && known.Values.FirstOrDefault(p => !p.Active) is { } gone) throw new RefusedException("person-left", $"{gone.Name.Display} has left and can't sign in.", "Say in the directory that they are back, then make the slip.", "people");
        var made = known.Values.Select(p => (Person: p, Phrase: FirstPassword.Make(rule, new(p.Given, p.Family, p.StudentNumber, p.Grade), RandomNumberGenerator.GetInt32))).Select(x => (x.Person, x.Phrase, Hash: SigningIn.Hash(x.Phrase))).ToList();
        premises.Db.Write(c =>
        {
            if (id is { } k)
            {
                ClassGate.Find(c, by, k).NotArchived();
                Demand(c, by, k, people);
            }
            var kept = PersonStore.FirstPhrases(c, people);
            if (!Permissions.InSchool(by.Role, Act.EndOwnPassword) && made.FirstOrDefault(m => HasOwn(kept, m.Person.Id)).Person is { } own)
                throw new RefusedException("slip-chosen", $"{own.Name.Display} has chosen a password: a new slip would end it, and let whoever has the slip sign in as {own.Name.Display}.", "Ask a coordinator; they make it in the directory.", "people");
            foreach (var (person, phrase, hash) in made)
            {
                PersonStore.SetPassword(c, person.Id, hash, mustChange: true, by.Id, premises.Clock.Now, phrase);
                Premises.Add(c, by, premises.Clock.Now, new("made a new slip", "person", person.Id.Value, id, person.Name.Display));
            }
        });
    }

    /// <summary>A coordinator's yes: the staff of a class may have the slips of people on its roster.</summary>
    public void SayYes(Caller by, ClassId id, IReadOnlyList<PersonId> people)
    {
        ClassGate.Demand(by, Act.LetClassHaveSlips);
        Refusals.CheckPeople(people.Count, MostAtOnce);
        premises.Db.Write(c =>
        {
            var roster = Students(c, id).ToDictionary(m => m.PersonId);
            if (people.Any(p => !roster.ContainsKey(p))) throw Refusals.NotFound("student on the roster");
            RosterStore.SayYesToSlips(c, id, people);
            foreach (var p in people) Premises.Add(c, by, premises.Clock.Now, new("let a class have a slip", "person", p.Value, id, roster[p].Name.Display));
        });
    }

    // Of somebody else's student, or of staff, nobody in a class has a slip, whoever put them on the roster.
    private void Demand(IDbConnection c, Caller by, ClassId id, IReadOnlyList<PersonId> people)
    {
        ClassGate.Demand(c, by, id, Act.HaveSlips);
        var roster = Students(c, id).ToDictionary(m => m.PersonId);
        foreach (var p in people)
        {
            if (!roster.TryGetValue(p, out var m)) throw Refusals.NotFound("student on the roster");
            switch (BarOf(c, by, m))
            {
                case SlipBar.IsStaff: throw new RefusedException("slip-staff", $"{m.Name.Display} is staff in the school; a class has the slips of its students.", "Ask a coordinator.", "people");
                case SlipBar.TooNew: throw new RefusedException("slip-too-new", $"{m.Name.Display} was put on this roster by hand and has not been on it for {SlipRules.OnRoster.TotalDays:0} days.", "Wait until then, or ask a coordinator to say yes.", "people");
            }
        }
    }

    private SlipBar BarOf(IDbConnection c, Caller by, MemberRow m) => Permissions.InSchool(by.Role, Act.HaveSlipsOfAnybody) ? SlipBar.None : ForClass(c, by, m);

    private SlipBar ForClass(IDbConnection c, Caller by, MemberRow m)
    {
        var bar = SlipRules.ForStaffOfClass(m.SchoolRole, m.EnrolledBy, m.Since, m.SlipYes, madeByAsker: false, premises.Clock.Now);
        // Who made it is looked up only for the few whom it can matter to.
        return bar == SlipBar.TooNew && PersonStore.SignIn(c, m.PersonId) is { MustChange: true } s && s.SetBy == by.Id
            ? SlipRules.ForStaffOfClass(m.SchoolRole, m.EnrolledBy, m.Since, m.SlipYes, madeByAsker: true, premises.Clock.Now) : bar;
    }

    private Slip One(Caller by, PersonId id, PersonName name, string? grade, string userName, IReadOnlyDictionary<PersonId, (string? Phrase, bool MustChange)> kept, SlipBar bar, SlipBar forClass, Instant since)
    {
        var own = HasOwn(kept, id);
        return new(id, name.Display, name.Sort, grade, userName, kept.GetValueOrDefault(id).Phrase is not null, own, bar, forClass,
            forClass == SlipBar.TooNew ? premises.Clock.DateOf(since + SlipRules.OnRoster) : null, bar == SlipBar.None && (!own || Permissions.InSchool(by.Role, Act.EndOwnPassword)));
    }

    private static bool HasOwn(IReadOnlyDictionary<PersonId, (string? Phrase, bool MustChange)> kept, PersonId id) => kept.TryGetValue(id, out var k) && !k.MustChange;

    private static IEnumerable<MemberRow> Students(IDbConnection c, ClassId id) => RosterStore.Members(c, id).Where(m => m.Role == ClassRole.Student && m.LeftAt is null);
}
