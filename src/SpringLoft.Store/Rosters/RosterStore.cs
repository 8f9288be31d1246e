using System.Text.Json;
using SpringLoft.Core.People;
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
    public Core.Rosters.EnrolledBy EnrolledBy { get; init; }

    /// <summary>Since when they are on the roster without a break.</summary>
    public Instant Since { get; init; }

    /// <summary>A coordinator said that the staff of the class may have their slip.</summary>
    public bool SlipYes { get; init; }
    public SchoolRole SchoolRole { get; init; }

    /// <summary>Assignments published earlier are not seen; null where all are.</summary>
    public Instant? SeesFrom { get; init; }
    public string Given { get; init; } = "";
    public string Family { get; init; } = "";
    public string? Grade { get; init; }
    public string? StudentNumber { get; init; }
    public string UserName { get; init; } = "";

    /// <summary>The name in its forms.</summary>
    public Core.People.PersonName Name => new(Given, Family);
}

/// <summary>A roster that somebody is on.</summary>
public sealed record PlaceRow
{
    public PersonId PersonId { get; init; }
    public string Given { get; init; } = "";
    public string Family { get; init; } = "";
    public ClassId ClassId { get; init; }
    public string ClassName { get; init; } = "";
    public ClassRole Role { get; init; }

    /// <summary>Pieces of their work that a teacher of the class holds.</summary>
    public int Held { get; init; }

    /// <summary>The name in its forms.</summary>
    public PersonName Name => new(Given, Family);
}

/// <summary>Where a person is now.</summary>
public sealed record ClassesNow
{
    public PersonId Person { get; init; }

    /// <summary>Their role in the class at hand; null if they are not on its roster.</summary>
    public ClassRole? Here { get; init; }

    /// <summary>Names of the classes that are not archived, as a JSON list.</summary>
    public string Classes { get; init; } = "[]";
    public IReadOnlyList<string> Names => JsonSerializer.Deserialize<string[]>(Classes)!;
}

/// <summary>Owns member.</summary>
public static class RosterStore
{
    /// <summary>Everybody who is or was on the roster: staff first, then by name.</summary>
    public static IReadOnlyList<MemberRow> Members(IDbConnection c, ClassId id) => [.. c.Query<MemberRow>(
        """
        SELECT m.person_id, m.role, m.may_post, m.joined_at, m.left_at, m.enrolled_by, m.sees_from, ifnull(m.since, m.joined_at) AS since, m.slip_yes, p.role AS school_role, p.given, p.family, p.grade, p.student_number, p.user_name
        FROM member m JOIN person p ON p.id = m.person_id WHERE m.class_id = @id
        ORDER BY CASE m.role WHEN 'Lead' THEN 0 WHEN 'CoTeacher' THEN 1 ELSE 2 END, p.family_key, p.given_key, p.id
        """, new { id })];

    /// <summary>How many people are on the roster in a role now.</summary>
    public static int CountOf(IDbConnection c, ClassId id, ClassRole role) =>
        c.ExecuteScalar<int>("SELECT count(*) FROM member WHERE class_id = @id AND role = @role AND left_at IS NULL", new { id, role = role.ToString() });

    /// <summary>How many students of a class have neither a sign-in nor an account at a provider.</summary>
    public static int WithoutSignIn(IDbConnection c, ClassId id) => c.ExecuteScalar<int>(
        """
        SELECT count(*) FROM member m WHERE m.class_id = @id AND m.role = 'Student' AND m.left_at IS NULL
          AND NOT EXISTS (SELECT 1 FROM sign_in s WHERE s.person_id = m.person_id) AND NOT EXISTS (SELECT 1 FROM provider_account a WHERE a.person_id = m.person_id)
        """, new { id });

    /// <summary>The lead teacher; the first by name where there are several, null if the class has none.</summary>
    public static PersonId? Lead(IDbConnection c, ClassId id) => c.QueryFirstOrDefault<long?>(
        "SELECT m.person_id FROM member m JOIN person p ON p.id = m.person_id WHERE m.class_id = @id AND m.role = 'Lead' AND m.left_at IS NULL ORDER BY p.family_key, p.given_key, p.id LIMIT 1", new { id }) is { } lead ? new(lead) : null;

    /// <summary>One person's place in a class; null if never on its roster.</summary>
    public static MemberRow? Member(IDbConnection c, ClassId id, PersonId person) => c.QuerySingleOrDefault<MemberRow>(
        """
        SELECT m.person_id, m.role, m.may_post, m.joined_at, m.left_at, m.enrolled_by, m.sees_from, ifnull(m.since, m.joined_at) AS since, m.slip_yes, p.role AS school_role, p.given, p.family, p.grade, p.student_number, p.user_name
        FROM member m JOIN person p ON p.id = m.person_id WHERE m.class_id = @id AND m.person_id = @person
        """, new { id, person });

    /// <summary>Puts a person on the roster, or back on it.</summary>
    /// <param name="seesFrom">Assignments published earlier are not seen; null where all are.</param>
    public static void Put(IDbConnection c, ClassId id, PersonId person, ClassRole role, Instant at, Core.Rosters.EnrolledBy by = Core.Rosters.EnrolledBy.Hand, Instant? seesFrom = null) => c.Execute(
        """
        INSERT INTO member(class_id, person_id, role, joined_at, since, enrolled_by, sees_from) VALUES(@id, @person, @role, @at, @at, @by, @seesFrom)
        ON CONFLICT(class_id, person_id) DO UPDATE SET role = @role, since = @at, slip_yes = 0, left_at = NULL, enrolled_by = @by, sees_from = @seesFrom
        """, new { id, person, role = role.ToString(), at, by = by.ToString(), seesFrom });

    /// <summary>Makes somebody on the roster something else there, by hand: the next delivery leaves it so.</summary>
    public static void SetRole(IDbConnection c, ClassId id, PersonId person, ClassRole role) =>
        c.Execute("UPDATE member SET role = @role, enrolled_by = 'Hand' WHERE class_id = @id AND person_id = @person", new { id, person, role = role.ToString() });

    /// <summary>Notes that a coordinator lets the staff of a class have the slips of people on its roster.</summary>
    public static void SayYesToSlips(IDbConnection c, ClassId id, IEnumerable<PersonId> people) =>
        c.Execute("UPDATE member SET slip_yes = 1 WHERE class_id = @id AND person_id IN @people AND left_at IS NULL", new { id, people = people.Select(p => p.Value).ToArray() });

    /// <summary>From when on a student sees assignments; null for all.</summary>
    public static void SetSeesFrom(IDbConnection c, ClassId id, PersonId person, Instant? from) =>
        c.Execute("UPDATE member SET sees_from = @from WHERE class_id = @id AND person_id = @person", new { id, person, from });

    /// <summary>Whether a student may post, or views only.</summary>
    public static void SetMayPost(IDbConnection c, ClassId id, PersonId person, bool may) =>
        c.Execute("UPDATE member SET may_post = @may WHERE class_id = @id AND person_id = @person", new { id, person, may });

    /// <summary>Notes that a person left for another class of the course.</summary>
    public static void Move(IDbConnection c, ClassId id, PersonId person, ClassId to, Instant at) =>
        c.Execute("UPDATE member SET left_at = @at, moved_to = @to WHERE class_id = @id AND person_id = @person", new { id, person, to, at });

    /// <summary>Classes that a student left for this one.</summary>
    public static IReadOnlyList<ClassId> MovedFrom(IDbConnection c, ClassId id, PersonId person) =>
        [.. c.Query<long>("SELECT class_id FROM member WHERE moved_to = @id AND person_id = @person AND class_id <> @id ORDER BY left_at", new { id, person }).Select(k => new ClassId(k))];

    /// <summary>Names of the classes that students left for this one.</summary>
    public static ILookup<PersonId, string> MovedFrom(IDbConnection c, ClassId id) => c.Query<(long, string)>(
        "SELECT m.person_id, k.name FROM member m JOIN class k ON k.id = m.class_id WHERE m.moved_to = @id ORDER BY m.left_at", new { id }).ToLookup(x => new PersonId(x.Item1), x => x.Item2);

    /// <summary>Notes that a person left; their work and folder stay.</summary>
    public static void Leave(IDbConnection c, ClassId id, PersonId person, Instant at) =>
        c.Execute("UPDATE member SET left_at = @at WHERE class_id = @id AND person_id = @person", new { id, person, at });

    /// <summary>Students on any roster of a year.</summary>
    public static IReadOnlySet<PersonId> StudentsOf(IDbConnection c, YearId year) => c.Query<long>(
        "SELECT DISTINCT m.person_id FROM member m JOIN class k ON k.id = m.class_id WHERE k.year_id = @year AND m.role = 'Student'", new { year }).Select(p => new PersonId(p)).ToHashSet();

    /// <summary>Puts back those who left at one moment.</summary>
    public static void ComeBack(IDbConnection c, ClassId id, IEnumerable<PersonId> people, Instant leftAt) =>
        c.Execute("UPDATE member SET left_at = NULL WHERE class_id = @id AND person_id = @person AND left_at = @leftAt", people.Select(person => new { id, person, leftAt }));

    /// <summary>The classes that people are in now, in one statement whose text is always the same, however many they are.</summary>
    /// <param name="here">The class at hand; null for none.</param>
    public static IReadOnlyDictionary<PersonId, ClassesNow> Now(IDbConnection c, IEnumerable<PersonId> people, ClassId? here = null) => c.Query<ClassesNow>(
        """
        SELECT p.value AS person, (SELECT m.role FROM member m WHERE m.class_id = @here AND m.person_id = p.value AND m.left_at IS NULL) AS here,
          (SELECT json_group_array(name) FROM (SELECT k.name FROM member m JOIN class k ON k.id = m.class_id WHERE m.person_id = p.value AND m.left_at IS NULL AND k.state <> 'Archived' ORDER BY k.name)) AS classes
        FROM json_each(@people) p
        """, new { people = JsonSerializer.Serialize(people.Select(p => p.Value).Distinct()), here = here?.Value }).ToDictionary(n => n.Person);

    /// <summary>Rosters that people are on, in classes that are not archived, by name of the class; and how much of their work is held there.</summary>
    public static IReadOnlyList<PlaceRow> PlacesOf(IDbConnection c, IEnumerable<PersonId> people) => [.. c.Query<PlaceRow>(
        """
        SELECT m.person_id, p.given, p.family, m.class_id, k.name AS class_name, m.role,
          (SELECT count(*) FROM work w WHERE w.class_id = m.class_id AND w.student_id = m.person_id AND w.state = 'HandedIn') AS held
        FROM member m JOIN class k ON k.id = m.class_id JOIN person p ON p.id = m.person_id
        WHERE m.person_id IN @people AND m.left_at IS NULL AND k.state <> 'Archived' ORDER BY p.family_key, p.given_key, p.id, k.name_key
        """, new { people = people.Select(p => p.Value).ToArray() })];

    /// <summary>E-mail addresses of everybody on a roster who has one.</summary>
    public static IReadOnlyDictionary<PersonId, string> Emails(IDbConnection c, ClassId id) => c.Query<(long, string)>(
        "SELECT p.id, p.email FROM member m JOIN person p ON p.id = m.person_id WHERE m.class_id = @id AND p.email IS NOT NULL", new { id }).ToDictionary(x => new PersonId(x.Item1), x => x.Item2);
}
