using SpringLoft.Store.Files;
using SpringLoft.Core.Closing;
using SpringLoft.Core.School;
using SpringLoft.Core.Workspaces;
using SpringLoft.Formats.Zips;
using SpringLoft.Store.Closing;
using SpringLoft.Store.School;

namespace SpringLoft.App.Closing;

/// <summary>What letting go of a take-home would let go of.</summary>
/// <param name="Files">Files in it.</param>
/// <param name="Alone">Of those, how many stand nowhere else: in no class, in no bin, in no other take-home of theirs.</param>
public sealed record LettingGo(string Student, int Files, int Alone);

/// <summary>
/// Keeps what students put in: knows by its content what each take-home holds, and lets a take-home go only when what is in
/// it stands elsewhere too, or when a person says so by name.
/// </summary>
public sealed class LastCopies(Premises premises)
{
    /// <summary>Reads take-homes of which it is not known yet what they hold. One that is damaged or missing holds nothing.</summary>
    public void Read()
    {
        foreach (var sha in premises.Db.Read(LastCopyStore.Unread))
            try
            {
                using var zip = premises.Files.Open(sha);
                var held = ZipContents.Read(zip).Select(f => f.Sha256).ToList();
                premises.Db.Write(c => LastCopyStore.SetHolds(c, sha, held));
            }
            catch (Exception e) when (e is FileNotFoundException or DamagedFileException or InvalidDataException) { /* it counts for nobody until it is mended or made anew */ }
    }

    /// <summary>Lets go of take-homes of people who left long enough ago. One that alone holds something stays.</summary>
    /// <returns>How many are gone.</returns>
    public int LetGoOfLeavers()
    {
        Read();
        return premises.Db.Write(c =>
        {
            var today = premises.Clock.Today;
            TakeHomeStore.NoteLeavers(c, today);
            var gone = 0;
            foreach (var (person, year) in TakeHomeStore.OfLeavers(c, Leaving.LeftBy(today, RulesStore.Get(c).Rules.LeaverDays)))
            {
                if (TakeHomeStore.Of(c, person).First(t => t.YearId == year) is var t && LastCopyStore.Holds(c, t.Sha256).Count == 0) continue;
                if (LastCopyStore.OnlyIn(c, person, year) > 0) continue;
                TakeHomeStore.LetGo(c, person, year);
                Premises.Add(c, null, premises.Clock.Now, new("let go of take-home", "person", person.Value, null, $"year {year.Value}: they left, and all of it stands elsewhere"));
                gone++;
            }
            RulesStore.NoteLetGo(c, today, LetGoKind.TakeHomes, gone);
            return gone;
        });
    }

    /// <summary>What letting go of a take-home would let go of.</summary>
    /// <exception cref="RefusedException"><c>not-allowed</c>, <c>not-found</c>.</exception>
    public LettingGo Look(Caller by, PersonId student, YearId year) => premises.Db.Read(c =>
    {
        var (person, home) = Find(c, by, student, year);
        return new LettingGo(person.Name.Display, home.Files, LastCopyStore.OnlyIn(c, student, year));
    });

    /// <summary>Lets go of one take-home for good: its own person, or a coordinator by name and with a reason.</summary>
    /// <param name="typed">The student's name, as a coordinator typed it; not asked of the person themselves.</param>
    /// <exception cref="RefusedException"><c>not-allowed</c>, <c>delete-name</c>, <c>missing</c>, <c>not-found</c>.</exception>
    public void LetGo(Caller by, PersonId student, YearId year, string? typed, string? reason) => premises.Db.Write(c =>
    {
        var own = by.Id == student;
        var (person, _) = Find(c, by, student, year);
        var why = own ? "their own wish" : Refusals.Needed(reason, "reason", "The reason", 300);
        if (!own && typed?.Trim() != person.Name.Display) throw new RefusedException("delete-name", "What you typed is not the name of the student.", $"Type “{person.Name.Display}” exactly.", "name");
        var alone = LastCopyStore.OnlyIn(c, student, year);
        TakeHomeStore.LetGo(c, student, year);
        Premises.Add(c, by, premises.Clock.Now, new("let go of take-home", "person", student.Value, null, $"year {year.Value}: {why}; {alone} files stood nowhere else"));
    });

    private static (Store.People.PersonRow Person, TakeHomeRow Home) Find(System.Data.IDbConnection c, Caller by, PersonId student, YearId year)
    {
        if (by.Id != student && !Permissions.InSchool(by.Role, Act.LetGoOfTakeHome)) throw new RefusedException("not-allowed", "A take-home is its student's.", "Ask the coordinator.");
        var person = Store.People.PersonStore.Find(c, student) ?? throw Refusals.NotFound("student");
        return (person, TakeHomeStore.Of(c, student).FirstOrDefault(t => t.YearId == year) ?? throw Refusals.NotFound("take-home"));
    }
}
