using SpringLoft.Core.Rosters;
using SpringLoft.Core.Workspaces;

namespace SpringLoft.Core.Tests.Rosters;

/// <summary>A few people and classes as the school and its records have them, to compare.</summary>
internal static class SmallRecords
{
    internal static TodayPerson Person(long id, string? record = "auto", SchoolRole role = SchoolRole.Student, bool active = true, string? grade = "6", string? number = "auto", string given = "Given", string? family = null) =>
        new(new(id), record == "auto" ? $"p{id}" : record, number == "auto" ? $"{1000 + id}" : number, null, $"u{id}", given, family ?? $"Family{id}", grade, role, null, active);

    internal static TodayClass Class(long id, string course = "Clay", string? section = null, ClassState state = ClassState.Open, string? record = "auto", string? name = null) =>
        new(new(id), record == "auto" ? $"k{id}" : record, name ?? $"{course} {section ?? id.ToString(System.Globalization.CultureInfo.InvariantCulture)}", course, section, null, null, state);

    internal static TodayMember Member(long k, long p, ClassRole role = ClassRole.Student, EnrolledBy by = EnrolledBy.Feed, bool left = false) => new(new(k), new(p), role, by, left);

    internal static RosterToday Today(IEnumerable<TodayPerson> people, IEnumerable<TodayClass> classes, IEnumerable<TodayMember> members) =>
        new([.. people], [.. classes], [.. members], [.. classes.Select(k => k.Name)], "2026–27", "{course} {section}", new(2026, 8, 31), new(2027, 6, 18));

    internal static DeliveredPerson Said(TodayPerson p, bool gone = false) => new(p.RecordId!, p.RecordId, p.Given, p.Family, p.Role, p.Grade, p.StudentNumber, p.Email, p.UserName, p.School, gone, 2);

    internal static DeliveredPerson New(string id, string given = "New", string family = "Comer", string? number = null, string? grade = "6", string? email = null) =>
        new(id, id, given, family, SchoolRole.Student, grade, number, email, null, null, false, 2);

    internal static DeliveredClass Said(TodayClass k) => new(k.RecordId!, k.RecordId, k.Course, k.Section, k.Period, k.Room, null, false, 2);

    internal static DeliveredEnrollment In(string k, string p, ClassRole role = ClassRole.Student, bool gone = false) => new(k, p, role, gone, 2);

    internal static RosterDelivery Whole(IEnumerable<DeliveredPerson> people, IEnumerable<DeliveredClass> classes, IEnumerable<DeliveredEnrollment> enrollments, bool whole = true) =>
        new([.. people], [.. classes], [.. enrollments], new("users.csv", whole), new("classes.csv", whole), new("enrollments.csv", whole), null, null);

    /// <summary>The delivery that says exactly what is there.</summary>
    internal static RosterDelivery Same(RosterToday t) => Whole(t.People.Where(p => p.Active && p.RecordId is not null).Select(p => Said(p)), t.Classes.Where(k => k.RecordId is not null).Select(Said),
        t.Members.Where(m => !m.Left && m.By == EnrolledBy.Feed).Select(m => In($"k{m.Class.Value}", $"p{m.Person.Value}", m.Role)));

    internal static RosterChanges Compare(RosterDelivery d, RosterToday t, params (string Ref, PersonId? Who)[] settled) =>
        CompareAgain(d, t, [], settled);

    internal static RosterChanges CompareAgain(RosterDelivery d, RosterToday t, IEnumerable<string> standing, params (string Ref, PersonId? Who)[] settled) =>
        RosterComparison.Compare(d, t, settled.ToDictionary(s => s.Ref, s => s.Who), new Dictionary<string, PersonId>(), standing.ToHashSet());

    internal static RosterChange Only(this RosterChanges c, ChangeKind kind) => c.Changes.Where(x => x.Kind == kind).ShouldHaveSingleItem();
}
