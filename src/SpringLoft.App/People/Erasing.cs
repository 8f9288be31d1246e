using SpringLoft.Core.People;
using SpringLoft.Core.School;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Closing;
using SpringLoft.Store.People;
using SpringLoft.Store.School;

namespace SpringLoft.App.People;

/// <summary>What erasing somebody would do.</summary>
/// <param name="Bar">What is in the way.</param>
/// <param name="Until">The day until which what is theirs alone waits for them.</param>
/// <param name="NotFetched">Years whose take-home holds what stands nowhere else, and was not fetched.</param>
/// <param name="Becomes">What stands where the name stood.</param>
public sealed record ErasureView(string Name, ErasureBar Bar, LocalDate? Until, IReadOnlyList<string> NotFetched, ErasureCounts Counts, string Becomes);

/// <summary>Takes the data of people who left out of the directory: by hand, or when the school's rule says so.</summary>
public sealed class Erasing(Premises premises)
{
    /// <summary>What it would do. Writes nothing.</summary>
    public ErasureView Preview(PersonId id) => premises.Db.Read(c =>
    {
        var (person, facts, days) = Found(c, id);
        return new ErasureView(person.Name.Display, Erasure.BarOf(facts, premises.Clock.Today, days), Erasure.FetchableUntil(facts, days),
            [.. facts.Homes.Where(h => h is { Alone: > 0, Fetched: false }).Select(h => h.Year)], ErasingStore.Counts(c, id), Erasure.Pseudonym(id, person.Role == SchoolRole.Student));
    });

    /// <summary>Does it, for good.</summary>
    /// <param name="typed">The name, as a coordinator typed it.</param>
    /// <exception cref="RefusedException"><c>erase-not-yet</c> where something is in the way; <c>delete-name</c>.</exception>
    public void Erase(Caller by, PersonId id, string? typed) => premises.Db.Write(c =>
    {
        var (person, facts, days) = Found(c, id);
        if (Erasure.BarOf(facts, premises.Clock.Today, days) is var bar and not ErasureBar.None) throw new RefusedException("erase-not-yet", $"{person.Name.Display} can't be erased: {Why(bar, facts, days)}.", "Look at what is in the way first.");
        if (typed?.Trim() != person.Name.Display) throw new RefusedException("delete-name", "What you typed is not the name of the person.", $"Type “{person.Name.Display}” exactly.", "name");
        Do(c, by, person);
    });

    /// <summary>Erases whoever left longer ago than the school's rule keeps people.</summary>
    /// <returns>How many.</returns>
    public int ByRule() => premises.Db.Write(c =>
    {
        var (rules, _) = RulesStore.Get(c);
        if (rules.PeopleYears is not { } years) return 0;
        var done = 0;
        foreach (var id in ErasingStore.Left(c, premises.Clock.Today.PlusYears(-years)))
        {
            var (person, facts, days) = Found(c, id);
            if (Erasure.BarOf(facts, premises.Clock.Today, days) != ErasureBar.None) continue;
            Do(c, null, person);
            done++;
        }
        RulesStore.NoteLetGo(c, premises.Clock.Today, LetGoKind.People, done);
        return done;
    });

    private void Do(IDbConnection c, Caller? by, PersonRow person)
    {
        var pseudonym = Erasure.Pseudonym(person.Id, person.Role == SchoolRole.Student);
        ErasingStore.Erase(c, person.Id, pseudonym, premises.Clock.Now);
        Premises.Add(c, by, premises.Clock.Now, new("erased person", "person", person.Id.Value, null, by is null ? $"{pseudonym}, by the school's rule" : pseudonym));
    }

    private static (PersonRow Person, ErasureFacts Facts, int LeaverDays) Found(IDbConnection c, PersonId id)
    {
        var person = PersonStore.Find(c, id) ?? throw Refusals.NotFound("person");
        var homes = TakeHomeStore.Of(c, id).ToDictionary(t => t.YearId);
        // One of which it is not known what it holds (not read yet, or damaged) may hold what stands nowhere else: all of it counts as that.
        int Alone(YearId year) => LastCopyStore.Holds(c, homes[year].Sha256).Count == 0 ? Math.Max(1, homes[year].Files) : LastCopyStore.OnlyIn(c, id, year);
        return (person, ErasingStore.Facts(c, id, Alone)!, RulesStore.Get(c).Rules.LeaverDays);
    }

    private static string Why(ErasureBar bar, ErasureFacts f, int days) => bar switch
    {
        ErasureBar.Erased => "that was done already",
        ErasureBar.Joined => "this account is joined into another, which is theirs",
        ErasureBar.StillHere => "they have not left; say in the directory that they have",
        ErasureBar.WorkHeld => $"a teacher holds {f.Held} {(f.Held == 1 ? "piece" : "pieces")} of their work",
        ErasureBar.OnRoster => $"they stand on {f.OnRosters} {(f.OnRosters == 1 ? "roster" : "rosters")} of classes that go on",
        _ => $"their take-home holds what stands nowhere else, and waits for them until {Erasure.FetchableUntil(f, days):uuuu-MM-dd}",
    };
}
