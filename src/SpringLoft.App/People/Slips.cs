using System.Security.Cryptography;
using SpringLoft.App.Workspaces;
using SpringLoft.Core.People;
using SpringLoft.Core.Workspaces;
using SpringLoft.Formats.Print;
using SpringLoft.Store.Naming;
using SpringLoft.Store.People;
using SpringLoft.Store.Rosters;

namespace SpringLoft.App.People;

/// <summary>A sign-in slip.</summary>
/// <param name="Phrase">The first password; null once it has been used, or if none was ever made here.</param>
/// <param name="HasOwn">True if the person has chosen a password of their own.</param>
public sealed record Slip(PersonId Person, string Name, string SortName, string? Grade, string UserName, string? Phrase, bool HasOwn);

/// <summary>
/// Sign-in slips: paper with somebody's first sign-in details. The staff of a class have those of its students; the
/// coordinator has those of anybody, staff too.
/// </summary>
public sealed class Slips(Premises premises)
{
    /// <summary>Most people of one act.</summary>
    public const int MostAtOnce = 500;

    /// <summary>The slips of a class's students, by name.</summary>
    public IReadOnlyList<Slip> Of(ClassId id) => premises.Db.Read(c =>
    {
        var kept = PersonStore.FirstPhrases(c, id);
        return Students(c, id).Select(m => One(m.PersonId, m.Name, m.Grade, m.UserName, kept)).ToList();
    });

    /// <summary>The slips of any people of the directory, by name; of those who have left there are none.</summary>
    public IReadOnlyList<Slip> Of(IReadOnlyCollection<PersonId> people) => premises.Db.Read(c =>
    {
        Refusals.CheckPeople(people.Count, MostAtOnce);
        var kept = PersonStore.FirstPhrases(c, people);
        return PersonStore.Find(c, people).Where(p => p.Active).OrderBy(p => PersonName.SearchKey(p.Name.Sort), StringComparer.Ordinal).Select(p => One(p.Id, p.Name, p.Grade, p.UserName, kept)).ToList();
    });

    /// <summary>Slips as PDF; who has no first password that is still to be used has none.</summary>
    /// <param name="address">Where one signs in.</param>
    /// <exception cref="RefusedException"><c>slips-none</c>.</exception>
    public Download Pdf(IEnumerable<Slip> of, string address, Paper paper, bool letters)
    {
        var slips = of.Where(s => s.Phrase is not null).Select(s => new PrintedSlip(s.Name, s.Grade, s.UserName, s.Phrase!)).ToList();
        if (slips.Count == 0) throw new RefusedException("slips-none", "None of them has a first password that is still to be used.", "Make new slips for them first.", "people");
        var file = premises.Files.Scratch();
        SlipSheet.Write(file, slips, premises.Db.Read(c => SchoolStore.Get(c)!.Name), address, paper, letters);
        file.Position = 0;
        return new Download("sign-in slips.pdf", file, file.Length);
    }

    /// <summary>
    /// Gives people a new first password. The old one is dead, and where they are signed in they are signed out.
    /// Nothing is given back: answers to acts are kept for a day, and a first password stands nowhere but on its slip.
    /// </summary>
    /// <param name="id">The class whose students they are; null for anybody of the directory.</param>
    /// <exception cref="RefusedException"><c>slip-own</c> for the asker's own; <c>person-left</c>; <c>not-found</c> for who is no student of the class.</exception>
    public void Renew(Caller by, ClassId? id, IReadOnlyList<PersonId> people)
    {
        Refusals.CheckPeople(people.Count, MostAtOnce);
        // Hashing is slow on purpose; it is done before the one writer is held up.
        var (rule, known) = premises.Db.Read(c => (SchoolStore.Get(c)!.FirstPasswordRule, PersonStore.Find(c, people.Distinct()).ToDictionary(p => p.Id)));
        if (people.Any(p => !known.ContainsKey(p))) throw Refusals.NotFound("person");
        if (id is null && known.ContainsKey(by.Id)) throw new RefusedException("slip-own", "A slip of your own would end your password and sign you out.", "Choose another password yourself, or ask another coordinator for a slip.", "people");
        if (id is null && known.Values.FirstOrDefault(p => !p.Active) is { } gone) throw new RefusedException("person-left", $"{gone.Name.Display} has left and can't sign in.", "Say in the directory that they are back, then make the slip.", "people");
        var made = known.Values.Select(p => (Person: p, Phrase: FirstPassword.Make(rule, new(p.Given, p.Family, p.StudentNumber, p.Grade), RandomNumberGenerator.GetInt32))).Select(x => (x.Person, x.Phrase, Hash: SigningIn.Hash(x.Phrase))).ToList();
        premises.Db.Write(c =>
        {
            if (id is { } k)
            {
                ClassGate.Find(c, by, k).NotArchived();
                var roster = Students(c, k).Select(m => m.PersonId).ToHashSet();
                if (made.Any(m => !roster.Contains(m.Person.Id))) throw Refusals.NotFound("student on the roster");
            }
            foreach (var (person, phrase, hash) in made)
            {
                PersonStore.SetPassword(c, person.Id, hash, mustChange: true, SigningIn.NewStamp(), phrase);
                Premises.Add(c, by, premises.Clock.Now, new("made a new slip", "person", person.Id.Value, id, person.Name.Display));
            }
        });
    }

    private static Slip One(PersonId id, PersonName name, string? grade, string userName, IReadOnlyDictionary<PersonId, (string? Phrase, bool MustChange)> kept) =>
        new(id, name.Display, name.Sort, grade, userName, kept.GetValueOrDefault(id).Phrase, kept.TryGetValue(id, out var k) && !k.MustChange);

    private static IEnumerable<MemberRow> Students(IDbConnection c, ClassId id) => RosterStore.Members(c, id).Where(m => m.Role == ClassRole.Student && m.LeftAt is null);
}
