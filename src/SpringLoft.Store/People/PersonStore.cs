using SpringLoft.Core.People;
using SpringLoft.Core.Workspaces;

namespace SpringLoft.Store.People;

/// <summary>A person of the directory.</summary>
public sealed record PersonRow
{
    public PersonId Id { get; init; }
    public SchoolRole Role { get; init; }
    public string Given { get; init; } = "";
    public string Family { get; init; } = "";
    public string? Grade { get; init; }
    public string? StudentNumber { get; init; }
    public string? Email { get; init; }
    public string UserName { get; init; } = "";
    public bool Active { get; init; } = true;

    /// <summary>How the school's records call the person; null if they follow none.</summary>
    public string? RecordId { get; init; }

    /// <summary>Name of the school, where there are several; null if none is said.</summary>
    public string? School { get; init; }

    /// <summary>The name in its forms.</summary>
    public PersonName Name => new(Given, Family);
}

/// <summary>What is kept for signing in.</summary>
public sealed record SignInRow
{
    public PersonId PersonId { get; init; }
    public string PasswordHash { get; init; } = "";
    public bool MustChange { get; init; }

    /// <summary>Who set the password, and when; null if that was not kept.</summary>
    public PersonId? SetBy { get; init; }

    /// <inheritdoc cref="SetBy"/>
    public Instant? SetAt { get; init; }
}

/// <summary>Owns person and sign_in.</summary>
public static class PersonStore
{
    private const string Columns = "p.id, p.role, p.given, p.family, p.grade, p.student_number, p.email, p.user_name, p.active, p.record_id, p.school";

    private static readonly string Family = Beginning("family_key", "p.family_key, p.given_key, p.id"), Given = Beginning("given_key", "p.given_key, p.family_key, p.id"), Number = Beginning("student_number", "p.student_number");

    private static string Beginning(string column, string order) => $"SELECT {Columns} FROM person p WHERE p.{column} >= @key AND p.{column} < @end AND p.active = 1 AND (p.role = 'Student') = @students ORDER BY {order} LIMIT @most";

    /// <summary>One person; null if there is no such.</summary>
    public static PersonRow? Find(IDbConnection c, PersonId id) =>
        c.QuerySingleOrDefault<PersonRow>($"SELECT {Columns} FROM person p WHERE p.id = @id", new { id });

    /// <summary>Who has a student number; null if nobody.</summary>
    public static PersonRow? ByNumber(IDbConnection c, string number) => c.QuerySingleOrDefault<PersonRow>($"SELECT {Columns} FROM person p WHERE p.student_number = @number", new { number });

    /// <summary>By user name, whatever the case.</summary>
    public static PersonRow? ByUserName(IDbConnection c, string userName) =>
        c.QuerySingleOrDefault<PersonRow>($"SELECT {Columns} FROM person p WHERE p.user_name = @userName COLLATE NOCASE", new { userName });

    /// <summary>How many people there are who have not left, students and staff.</summary>
    public static int CountActive(IDbConnection c) => c.ExecuteScalar<int>("SELECT count(*) FROM person WHERE active = 1");

    /// <summary>How many students are at the school.</summary>
    public static int CountStudents(IDbConnection c) => c.ExecuteScalar<int>("SELECT count(*) FROM person WHERE active = 1 AND role = 'Student'");

    /// <summary>Is an address somebody's who can sign in?</summary>
    public static bool HasEmail(IDbConnection c, string email) => c.ExecuteScalar<bool>("SELECT EXISTS(SELECT 1 FROM person WHERE email = @email COLLATE NOCASE AND active = 1)", new { email });

    /// <summary>Several people, in no order.</summary>
    public static IReadOnlyList<PersonRow> Find(IDbConnection c, IEnumerable<PersonId> ids) =>
        [.. c.Query<PersonRow>($"SELECT {Columns} FROM person p WHERE p.id IN @ids", new { ids = ids.Select(i => i.Value).ToArray() })];

    /// <summary>Active staff of every kind, by name.</summary>
    public static IReadOnlyList<PersonRow> Staff(IDbConnection c) =>
        [.. c.Query<PersonRow>($"SELECT {Columns} FROM person p WHERE p.active = 1 AND p.role <> 'Student' ORDER BY p.family_key, p.given_key, p.id")];

    /// <summary>Active students, by name.</summary>
    public static IReadOnlyList<PersonRow> Students(IDbConnection c, int most) =>
        [.. c.Query<PersonRow>($"SELECT {Columns} FROM person p WHERE p.active = 1 AND p.role = 'Student' ORDER BY p.family_key, p.given_key, p.id LIMIT @most", new { most })];

    /// <summary>User names ever given, of people who left too: none is used for another person.</summary>
    public static IReadOnlyList<(PersonId Id, string UserName)> UserNames(IDbConnection c) =>
        [.. c.Query<(long, string)>("SELECT id, user_name FROM person").Select(x => (new PersonId(x.Item1), x.Item2))];

    /// <summary>
    /// Active people whose family name begins with the text, then those whose given name does, then those whose student
    /// number does (first of all if the text begins with a digit); each in the order of the list.
    /// </summary>
    /// <param name="key">As <see cref="PersonName.SearchKey"/> makes it; may be empty for the first of all.</param>
    public static IReadOnlyList<PersonRow> StartingWith(IDbConnection c, string key, bool students, int most)
    {
        // Each of the three walks along an index and stops at the most that is shown, however many more there are.
        var found = new List<PersonRow>();
        foreach (var by in key.Length == 0 ? [Family] : char.IsAsciiDigit(key[0]) ? [Number, Family, Given] : (string[])[Family, Given, Number])
            if (found.Count < most) found.AddRange(c.Query<PersonRow>(by, new { key, end = key + "\uFFFF", students, most }));
        return [.. found.DistinctBy(p => p.Id).Take(most)];
    }

    /// <summary>Sets grades, and whether people are active.</summary>
    public static void SetGrades(IDbConnection c, IEnumerable<(PersonId Id, string? Grade, bool Active)> people) =>
        c.Execute("UPDATE person SET grade = @grade, active = @active WHERE id = @id", people.Select(p => new { id = p.Id.Value, grade = p.Grade, active = p.Active }));

    /// <summary>Adds a person; the id of the row is ignored.</summary>
    public static PersonId Add(IDbConnection c, PersonRow p) => new(c.ExecuteScalar<long>(
        """
        INSERT INTO person(role, given, family, given_key, family_key, grade, student_number, email, user_name, active, record_id, school)
        VALUES(@role, @Given, @Family, @givenKey, @familyKey, @Grade, @StudentNumber, @Email, @UserName, @Active, @RecordId, @School) RETURNING id
        """, new
        {
            role = p.Role.ToString(),
            p.Given,
            p.Family,
            givenKey = PersonName.SearchKey(p.Given),
            familyKey = PersonName.SearchKey(p.Family),
            p.Grade,
            p.StudentNumber,
            p.Email,
            p.UserName,
            p.Active,
            p.RecordId,
            p.School,
        }));

    /// <summary>Sign-in details; null if the person has none.</summary>
    public static SignInRow? SignIn(IDbConnection c, PersonId id) => c.QuerySingleOrDefault<SignInRow>(
        "SELECT person_id, password_hash, must_change, set_by, set_at FROM sign_in WHERE person_id = @id", new { id });

    /// <summary>Sets a password; wrong tries are forgotten, and wherever the person is signed in they are signed out.</summary>
    /// <param name="by">Whose act it is; null for the program's own.</param>
    /// <param name="but">The sign-in that goes on, in which they set it themselves.</param>
    /// <param name="phrase">The password itself, for a first one that is to stand on a slip; kept until it has been used.</param>
    public static void SetPassword(IDbConnection c, PersonId id, string hash, bool mustChange, PersonId? by, Instant at, string? phrase = null, SessionId? but = null)
    {
        c.Execute(
            """
            INSERT INTO sign_in(person_id, password_hash, must_change, set_by, set_at, first_phrase) VALUES(@id, @hash, @mustChange, @by, @at, seal(@phrase))
            ON CONFLICT(person_id) DO UPDATE SET password_hash = @hash, must_change = @mustChange, set_by = @by, set_at = @at, first_phrase = excluded.first_phrase
            """, new { id, hash, mustChange, by, at, phrase });
        SessionStore.EndAll(c, id, but);
        SignInTryStore.Forget(c, c.ExecuteScalar<string>("SELECT user_name FROM person WHERE id = @id", new { id })!);
    }

    /// <summary>Keeps the same password under a stronger hash.</summary>
    public static void Rehash(IDbConnection c, PersonId id, string hash) => c.Execute("UPDATE sign_in SET password_hash = @hash WHERE person_id = @id", new { id, hash });

    /// <summary>Forgets the words of a first password: it has been used.</summary>
    public static void ForgetPhrase(IDbConnection c, PersonId id) => c.Execute("UPDATE sign_in SET first_phrase = NULL WHERE person_id = @id AND first_phrase IS NOT NULL", new { id });

    /// <summary>First passwords of a class's members that are still readable, and who has one of their own by now.</summary>
    public static IReadOnlyDictionary<PersonId, (string? Phrase, bool MustChange)> FirstPhrases(IDbConnection c, ClassId id) => c.Query<(long Id, string? Phrase, bool MustChange)>(
        "SELECT s.person_id, unseal(s.first_phrase), s.must_change FROM sign_in s JOIN member m ON m.person_id = s.person_id WHERE m.class_id = @id", new { id })
        .ToDictionary(x => new PersonId(x.Id), x => (x.Phrase, x.MustChange));

    /// <summary>The same of any people.</summary>
    public static IReadOnlyDictionary<PersonId, (string? Phrase, bool MustChange)> FirstPhrases(IDbConnection c, IEnumerable<PersonId> people) => c.Query<(long Id, string? Phrase, bool MustChange)>(
        "SELECT person_id, unseal(first_phrase), must_change FROM sign_in WHERE person_id IN @people", new { people = people.Select(p => p.Value).ToArray() })
        .ToDictionary(x => new PersonId(x.Id), x => (x.Phrase, x.MustChange));

    /// <summary>When somebody last looked at their day, and when the visit before that one ended; null for never.</summary>
    public static (Instant? Seen, Instant? Before) TodaySeen(IDbConnection c, PersonId id) => c.QuerySingle<(Instant?, Instant?)>("SELECT today_seen_at, today_before_at FROM person WHERE id = @id", new { id });

    /// <summary>Notes when somebody looked at their day, and when the visit before ended.</summary>
    public static void SeeToday(IDbConnection c, PersonId id, Instant seen, Instant? before) => c.Execute("UPDATE person SET today_seen_at = @seen, today_before_at = @before WHERE id = @id", new { id, seen, before });
}
