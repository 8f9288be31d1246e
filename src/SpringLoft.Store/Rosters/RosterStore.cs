using SpringLoft.Core.Workspaces;
using SpringLoft.Store.People;

namespace SpringLoft.Store.Rosters;

/// <summary>A person on a roster, or one who was.</summary>
public sealed record MemberRow
{
    public PersonId PersonId { get; init; }
    public ClassRole Role { get; init; }
    public bool MayPost { get; init; }
    public Instant JoinedAt { get; init; }
    public Instant? LeftAt { get; init; }
    public string Given { get; init; } = "";
    public string Family { get; init; } = "";
    public string? Grade { get; init; }
    public string? StudentNumber { get; init; }
    public string UserName { get; init; } = "";

    /// <summary>The name in its forms.</summary>
    public Core.People.PersonName Name => new(Given, Family);
}

/// <summary>Owns member.</summary>
public static class RosterStore
{
    /// <summary>Everybody who is or was on the roster: staff first, then by name.</summary>
    public static IReadOnlyList<MemberRow> Members(IDbConnection c, ClassId id) => [.. c.Query<MemberRow>(
        """
        SELECT m.person_id, m.role, m.may_post, m.joined_at, m.left_at, p.given, p.family, p.grade, p.student_number, p.user_name
        FROM member m JOIN person p ON p.id = m.person_id WHERE m.class_id = @id
        ORDER BY CASE m.role WHEN 'Lead' THEN 0 WHEN 'CoTeacher' THEN 1 ELSE 2 END, p.family_key, p.given_key, p.id
        """, new { id })];

    /// <summary>One person's place in a class; null if never on its roster.</summary>
    public static MemberRow? Member(IDbConnection c, ClassId id, PersonId person) => c.QuerySingleOrDefault<MemberRow>(
        """
        SELECT m.person_id, m.role, m.may_post, m.joined_at, m.left_at, p.given, p.family, p.grade, p.student_number, p.user_name
        FROM member m JOIN person p ON p.id = m.person_id WHERE m.class_id = @id AND m.person_id = @person
        """, new { id, person });

    /// <summary>Puts a person on the roster, or back on it.</summary>
    public static void Put(IDbConnection c, ClassId id, PersonId person, ClassRole role, Instant at) => c.Execute(
        """
        INSERT INTO member(class_id, person_id, role, joined_at) VALUES(@id, @person, @role, @at)
        ON CONFLICT(class_id, person_id) DO UPDATE SET role = @role, left_at = NULL
        """, new { id, person, role = role.ToString(), at });

    /// <summary>Notes that a person left; their work and folder stay.</summary>
    public static void Leave(IDbConnection c, ClassId id, PersonId person, Instant at) =>
        c.Execute("UPDATE member SET left_at = @at WHERE class_id = @id AND person_id = @person", new { id, person, at });

    /// <summary>Names of the other classes of the same year that people are in.</summary>
    public static ILookup<PersonId, string> ClassesOf(IDbConnection c, IEnumerable<PersonId> people) => c.Query<(long Person, string Name)>(
        """
        SELECT m.person_id, k.name FROM member m JOIN class k ON k.id = m.class_id
        WHERE m.person_id IN @people AND m.left_at IS NULL AND k.state <> 'Archived' ORDER BY k.name
        """, new { people = people.Select(p => p.Value).ToArray() }).ToLookup(x => new PersonId(x.Person), x => x.Name);
}
