using System.Security.Cryptography;
using SpringLoft.App.Assignments;
using SpringLoft.App.Workspaces;
using SpringLoft.Core.Workspaces;
using SpringLoft.Core.Years;
using SpringLoft.Formats.Calendars;
using SpringLoft.Store.People;
using SpringLoft.Store.Workspaces;
using SpringLoft.Store.Years;

namespace SpringLoft.App.Years;

/// <summary>The calendar of a class, to which calendar programs subscribe: assignments that are published, due and found by whose address it is, terms and days off. It tells no names of students.</summary>
public sealed class ClassCalendars(Premises premises)
{
    /// <summary>Gives the class a calendar, or new addresses for it: then the old ones are dead.</summary>
    /// <returns>The asker's own address.</returns>
    public string Make(Caller by, ClassId id) => premises.Db.Write(c =>
    {
        ClassGate.Demand(c, by, id, Act.Arrange).NotArchived();
        ClassStore.SetCalendar(c, id, Convert.ToHexStringLower(RandomNumberGenerator.GetBytes(32)));
        Premises.Add(c, by, premises.Clock.Now, new("made class calendar", "class", id.Value, id, "new addresses"));
        return AddressOf(c, id, by.Id)!;
    });

    /// <summary>Shuts all its addresses.</summary>
    public void Retire(Caller by, ClassId id) => premises.Db.Write(c =>
    {
        ClassGate.Demand(c, by, id, Act.Arrange);
        ClassStore.SetCalendar(c, id, null);
        Premises.Add(c, by, premises.Clock.Now, new("retired class calendar", "class", id.Value, id, "its addresses are shut"));
    });

    /// <summary>The address of a class's calendar that is somebody's own; null if it has no calendar.</summary>
    internal static string? AddressOf(IDbConnection c, ClassId id, PersonId who) => ClassStore.CalendarSecret(c, id) is { } secret ? $"/api/calendars/{new CalendarAddress(id, who).Under(secret)}.ics" : null;

    /// <summary>The calendar as it is now, as iCalendar.</summary>
    /// <exception cref="RefusedException"><c>calendar-retired</c>: nobody has that address, whoever had it is not in the class any more, or the class is archived.</exception>
    public (string Name, string Text) Feed(string token) => premises.Db.Read(c =>
    {
        var behind = Behind(c, token);
        if (behind is not ({ Class: { State: not ClassState.Archived } k } at, var who)) throw new RefusedException("calendar-retired", "This class calendar is not kept any more.", "Take it out of your calendar program; the new year's class has an address of its own.");
        var year = YearStore.All(c).First(y => y.Id == k.YearId);
        return ($"{k.Name}.ics", CalendarFile.Write(k.Name, [.. Days(year.Year, year.Terms.FirstOrDefault(t => t.Id == k.TermId)?.Name),
            .. k.State == ClassState.Open ? InSight.Of(c, at, who).Where(a => a is { PublishedAt: not null, DueOn: not null }).Select(a => new NamedDays($"Due: {a.Title}{(a.DueTime is { } t ? $", by {t:HH:mm}" : "")}", a.DueOn!.Value, a.DueOn.Value, "ASSIGNMENT")) : []], premises.Clock.Now));
    });

    // An address is worth what its owner's place in the class is worth.
    private static (ClassAndPlace At, PersonId Who)? Behind(IDbConnection c, string token)
    {
        if (CalendarAddress.Read(token) is not { } asked || PersonStore.Find(c, asked.Address.Person) is not { Active: true } person || ClassStore.Find(c, asked.Address.Class) is null) return null;
        var at = ClassGate.Find(c, new Caller(person.Id, person.Role, person.Name.Display), asked.Address.Class);
        return Permissions.InClass(at.Standing, Act.SeeClass) && ClassStore.CalendarSecret(c, at.Class.Id) is { } secret && asked.Address.Fits(secret, asked.Mark) ? (at, person.Id) : null;
    }

    /// <summary>Terms and days off as a class's calendar shows them.</summary>
    /// <param name="term">Of the class; null for the whole year.</param>
    internal static IReadOnlyList<NamedDays> Days(SchoolYear year, string? term)
    {
        var terms = year.Terms.Where(t => term is null || t.Name == term).ToList();
        return [.. terms.Select(t => new NamedDays(t.Name, t.First, t.Last, CalendarFile.Term)),
            .. year.DaysOff.Where(d => terms.Any(t => d.First <= t.Last && t.First <= d.Last)).Select(d => new NamedDays($"No school: {d.Name}", d.First, d.Last, CalendarFile.DayOff))];
    }
}
