using SpringLoft.Core.Workspaces;

namespace SpringLoft.Core.Rosters;

/// <summary>Something in a delivery that could not be taken as it is: where it stands, and what became of it.</summary>
/// <param name="Line">In the file, 1 and up; 0 where it is about the whole file.</param>
/// <param name="Column">As the file calls it; empty where it is about the whole row.</param>
/// <param name="Text">What is wrong and what follows, for a person.</param>
public sealed record DeliveryFinding(string File, int Line, string Column, string Text);

/// <summary>A person as a delivery has them.</summary>
/// <param name="Ref">How the delivery itself calls the person; unique in it.</param>
/// <param name="RecordId">The lasting id of the school's records; null where a delivery has none.</param>
/// <param name="Gone">True if the delivery says in so many words that the person is no longer there.</param>
/// <param name="Line">Where they stand in their file.</param>
public sealed record DeliveredPerson(
    string Ref, string? RecordId, string Given, string Family, SchoolRole Role, string? Grade, string? StudentNumber, string? Email, string? UserName, string? School, bool Gone, int Line);

/// <summary>Somebody at home whom a delivery names, for one student or several.</summary>
/// <param name="Ref">How the delivery itself calls them: their lasting id in the school's records.</param>
/// <param name="Children">How it calls the students.</param>
/// <param name="Gone">True if the delivery says in so many words that they are no longer there.</param>
public sealed record DeliveredContact(string Ref, string Name, string? Email, IReadOnlyList<string> Children, bool Gone, int Line);

/// <summary>A class as a delivery has it.</summary>
/// <param name="Ref">How the delivery itself calls the class; unique in it.</param>
/// <param name="RecordId">The lasting id of the school's records; null where the delivery names classes by name.</param>
/// <param name="Course">Title of its course, never blank; where the delivery names classes by name, that name.</param>
public sealed record DeliveredClass(string Ref, string? RecordId, string Course, string? Section, string? Period, string? Room, string? Term, bool Gone, int Line);

/// <summary>Somebody's place in a class as a delivery has it.</summary>
/// <param name="ClassRef">Of a class of the delivery, or of one that an earlier delivery brought.</param>
/// <param name="PersonRef">Of a person of the delivery, or of one that an earlier delivery brought.</param>
public readonly record struct DeliveredEnrollment(string ClassRef, string PersonRef, ClassRole Role, bool Gone, int Line);

/// <summary>Which of the three lists a delivery brought, and whether it claims to be whole.</summary>
/// <param name="File">Its name, for findings.</param>
/// <param name="Whole">True if who is not on it is no longer there; false if it tells only what has changed.</param>
public sealed record DeliveredList(string File, bool Whole);

/// <summary>One sending of the school's records, as it was read.</summary>
/// <param name="PeopleList">Null if the delivery has no list of people.</param>
/// <param name="First">First day of the school year or term that the delivery says it is for; null if it says none.</param>
public sealed record RosterDelivery(
    IReadOnlyList<DeliveredPerson> People, IReadOnlyList<DeliveredClass> Classes, IReadOnlyList<DeliveredEnrollment> Enrollments,
    DeliveredList? PeopleList, DeliveredList? ClassList, DeliveredList? EnrollmentList, LocalDate? First, LocalDate? Last)
{
    /// <summary>Family contacts; empty where the delivery says nothing about any.</summary>
    public IReadOnlyList<DeliveredContact> Contacts { get; init; } = [];
}
