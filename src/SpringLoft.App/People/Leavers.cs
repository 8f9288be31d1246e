using SpringLoft.App.Workspaces;
using SpringLoft.Core.Rosters;
using SpringLoft.Store.Closing;
using SpringLoft.Store.Letters;
using SpringLoft.Store.Naming;
using SpringLoft.Store.People;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.School;
using SpringLoft.Store.Years;

namespace SpringLoft.App.People;

/// <summary>A roster on which somebody stands who has left.</summary>
/// <param name="WhyNot">Why they can't be taken off it; null if they can.</param>
public sealed record LeaverPlace(PersonId Person, string SortName, ClassId Class, string ClassName, string? WhyNot);

/// <summary>What marking people as having left, or as being back, did.</summary>
/// <param name="Off">Places on rosters that they were taken off.</param>
/// <param name="Stays">Places that stay, each with its reason.</param>
public sealed record LeaversReport(int People, int Off, IReadOnlyList<LeaverPlace> Stays);

/// <summary>
/// People who leave the school: they can no longer sign in and never vanish. Where nothing is held by a teacher they come
/// off the rosters of classes that are not archived.
/// </summary>
public sealed class Leavers(Premises premises)
{
    private const int Most = 500;

    /// <summary>On which rosters they stand, and which of them they can't be taken off yet.</summary>
    public IReadOnlyList<LeaverPlace> Preview(IReadOnlyList<PersonId> people) => premises.Db.Read(c => Places(c, Limited(people)));

    /// <summary>Marks people as having left.</summary>
    /// <param name="offRosters">True to take them off their rosters too, in the same act.</param>
    public LeaversReport Mark(Caller by, IReadOnlyList<PersonId> people, bool offRosters) => premises.Db.Write(c =>
    {
        var marked = SchoolDirectory.SetActive(c, by, Limited(people), false, premises.Clock.Now);
        TellOfTakeHomes(c, people);
        if (!offRosters) return new LeaversReport(marked, 0, []);
        var places = Places(c, people);
        var off = places.Where(p => p.WhyNot is null).ToList();
        foreach (var p in off)
        {
            RosterStore.Leave(c, p.Class, p.Person, premises.Clock.Now);
            Premises.Add(c, by, premises.Clock.Now, new("took off the roster", "person", p.Person.Value, p.Class, $"{p.SortName}, who has left the school"));
        }
        return new LeaversReport(marked, off.Count, [.. places.Where(p => p.WhyNot is not null)]);
    });

    /// <summary>Marks people as being back. Rosters that they came off they are put on again by hand.</summary>
    public LeaversReport BringBack(Caller by, IReadOnlyList<PersonId> people) => premises.Db.Write(c => new LeaversReport(SchoolDirectory.SetActive(c, by, Limited(people), true, premises.Clock.Now), 0, []));

    // Who can't sign in any more is told where their work is, and for how long.
    private void TellOfTakeHomes(IDbConnection c, IReadOnlyList<PersonId> people)
    {
        var (school, until) = (SchoolStore.Get(c)!.Name, premises.Clock.Today.PlusDays(RulesStore.Get(c).Rules.LeaverDays));
        foreach (var p in PersonStore.Find(c, people).Where(p => p is { Active: false, Email: not null }))
        {
            if (TakeHomeStore.Of(c, p.Id) is not { Count: > 0 } homes) continue;
            var years = YearStore.All(c).ToDictionary(y => y.Id, y => y.Year.Label);
            LetterStore.Add(c, p.Email!, p.Name.Display, $"Your work at {school} waits for you",
                $"You have left {school}. Your work of {string.Join(", ", homes.Select(h => years[h.YearId]))} is kept for you until {until:d MMMM uuuu}.\n\nAsk the school for it by then: a coordinator hands it out as one file that opens on any computer.\n", premises.Clock.Now);
        }
    }

    private static IReadOnlyList<PersonId> Limited(IReadOnlyList<PersonId> people) =>
        people.Count <= Most ? people : throw new RefusedException("too-many", $"{people.Count} people at once are too many.", $"Mark up to {Most} in one act.", "people");

    private static IReadOnlyList<LeaverPlace> Places(IDbConnection c, IReadOnlyList<PersonId> people) =>
        [.. RosterStore.PlacesOf(c, people).Select(p => new LeaverPlace(p.PersonId, p.Name.Sort, p.ClassId, p.ClassName, Enrolling.WhyNotOff(p.Name.Display, p.Role, p.Held)))];
}
