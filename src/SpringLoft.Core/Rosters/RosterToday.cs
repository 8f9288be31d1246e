using SpringLoft.Core.Workspaces;

namespace SpringLoft.Core.Rosters;

/// <summary>How somebody came onto a roster. What a person did by hand, no delivery undoes.</summary>
public enum EnrolledBy { Hand, Feed, Code, Invitation }

/// <summary>A person of the directory, those who left included.</summary>
public sealed record TodayPerson(
    PersonId Id, string? RecordId, string? StudentNumber, string? Email, string UserName, string Given, string Family, string? Grade, SchoolRole Role, string? School, bool Active)
{
    /// <summary>The person that this one was found to be; null for almost everybody.</summary>
    public PersonId? JoinedInto { get; init; }
}

/// <summary>A class of the year.</summary>
public sealed record TodayClass(ClassId Id, string? RecordId, string Name, string Course, string? Section, string? Period, string? Room, ClassState State);

/// <summary>A place on a roster, one that was left included.</summary>
public readonly record struct TodayMember(ClassId Class, PersonId Person, ClassRole Role, EnrolledBy By, bool Left);

/// <summary>A family contact that a delivery brought.</summary>
/// <param name="Gone">No longer in the records.</param>
/// <param name="Children">Students of whom the records say that they are theirs.</param>
/// <param name="ByHand">Students of whom a person said so.</param>
public sealed record TodayContact(ContactId Id, string RecordId, string Name, string? Email, bool Gone, IReadOnlyList<PersonId> Children, IReadOnlyList<PersonId> ByHand);

/// <summary>What there is before a delivery.</summary>
/// <param name="Names">Of all classes of the school, in any year: a new one may not have the same.</param>
/// <param name="YearLabel">Of the year that the delivery is for.</param>
/// <param name="Pattern">How classes are named.</param>
public sealed record RosterToday(
    IReadOnlyList<TodayPerson> People, IReadOnlyList<TodayClass> Classes, IReadOnlyList<TodayMember> Members, IReadOnlyCollection<string> Names, string YearLabel, string Pattern,
    LocalDate YearFirst, LocalDate YearLast)
{
    /// <summary>Family contacts that deliveries brought.</summary>
    public IReadOnlyList<TodayContact> Contacts { get; init; } = [];
}
