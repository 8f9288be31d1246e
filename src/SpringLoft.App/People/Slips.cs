using System.Security.Cryptography;
using SpringLoft.App.Workspaces;
using SpringLoft.Core.People;
using SpringLoft.Core.Workspaces;
using SpringLoft.Formats.Print;
using SpringLoft.Store.Naming;
using SpringLoft.Store.People;
using SpringLoft.Store.Rosters;

namespace SpringLoft.App.People;

/// <summary>A student's sign-in slip.</summary>
/// <param name="Phrase">The first password; null once it has been used, or if none was ever made here.</param>
/// <param name="HasOwn">True if the student has chosen a password of their own.</param>
public sealed record Slip(PersonId Person, string Name, string SortName, string? Grade, string UserName, string? Phrase, bool HasOwn);

/// <summary>Sign-in slips: paper with a student's first sign-in details, printed for the family.</summary>
public sealed class Slips(Premises premises)
{
    /// <summary>Most new slips of one act.</summary>
    public const int MostAtOnce = 500;

    /// <summary>The slips of a class's students, by name.</summary>
    public IReadOnlyList<Slip> Of(ClassId id) => premises.Db.Read(c =>
    {
        var kept = PersonStore.FirstPhrases(c, id);
        return Students(c, id).Select(m => new Slip(m.PersonId, m.Name.Display, m.Name.Sort, m.Grade, m.UserName, kept.GetValueOrDefault(m.PersonId).Phrase, kept.TryGetValue(m.PersonId, out var k) && !k.MustChange)).ToList();
    });

    /// <summary>Slips of the class as PDF; who has no first password that is still to be used has none.</summary>
    /// <param name="people">Whose; empty for all.</param>
    /// <param name="address">Where one signs in.</param>
    /// <exception cref="RefusedException"><c>slips-none</c>.</exception>
    public Download Pdf(ClassId id, IReadOnlyCollection<long> people, string address, Paper paper, bool letters)
    {
        var slips = Of(id).Where(s => s.Phrase is not null && (people.Count == 0 || people.Contains(s.Person.Value))).Select(s => new PrintedSlip(s.Name, s.Grade, s.UserName, s.Phrase!)).ToList();
        if (slips.Count == 0) throw new RefusedException("slips-none", "None of them has a first password that is still to be used.", "Make new slips for them first.", "people");
        var file = premises.Files.Scratch();
        SlipSheet.Write(file, slips, premises.Db.Read(c => SchoolStore.Get(c)!.Name), address, paper, letters);
        file.Position = 0;
        return new Download("sign-in slips.pdf", file, file.Length);
    }

    /// <summary>
    /// Gives students of the class a new first password. The old one is dead, and where they are signed in they are signed out.
    /// Nothing is given back: answers to acts are kept for a day, and a first password stands nowhere but on its slip.
    /// </summary>
    public void Renew(Caller by, ClassId id, IReadOnlyList<PersonId> people)
    {
        if (people.Count == 0) throw new RefusedException("missing", "Nobody is ticked.", "Tick the students who are to get a new slip.", "people");
        if (people.Count > MostAtOnce) throw new RefusedException("too-many", $"{people.Count} slips at once are too many.", $"Make up to {MostAtOnce} in one act.", "people");
        // Hashing is slow on purpose; it is done before the one writer is held up.
        var (rule, parts) = premises.Db.Read(c => (SchoolStore.Get(c)!.FirstPasswordRule, PersonStore.Find(c, people.Distinct()).ToDictionary(p => p.Id, p => new Core.Naming.UserNameParts(p.Given, p.Family, p.StudentNumber, p.Grade))));
        var made = people.Distinct().Where(parts.ContainsKey).Select(p => (Person: p, Phrase: FirstPassword.Make(rule, parts[p], RandomNumberGenerator.GetInt32))).Select(x => (x.Person, x.Phrase, Hash: SigningIn.Hash(x.Phrase))).ToList();
        if (made.Count < people.Distinct().Count()) throw Refusals.NotFound("student on the roster");
        premises.Db.Write(c =>
        {
            ClassGate.Find(c, by, id).NotArchived();
            var roster = Students(c, id).ToDictionary(m => m.PersonId);
            if (made.FirstOrDefault(m => !roster.ContainsKey(m.Person)) is { Phrase: not null }) throw Refusals.NotFound("student on the roster");
            foreach (var (person, phrase, hash) in made)
            {
                PersonStore.SetPassword(c, person, hash, mustChange: true, SigningIn.NewStamp(), phrase);
                Premises.Add(c, by, premises.Clock.Now, new("made a new slip", "person", person.Value, id, roster[person].Name.Display));
            }
        });
    }

    private static IEnumerable<MemberRow> Students(IDbConnection c, ClassId id) => RosterStore.Members(c, id).Where(m => m.Role == ClassRole.Student && m.LeftAt is null);
}
