using System.Globalization;
using SpringLoft.Core.Naming;
using SpringLoft.Core.People;
using SpringLoft.Core.Rosters;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Rows;

namespace SpringLoft.Store.Rosters;

/// <summary>A place on a roster as it was, so that it can be put back.</summary>
/// <param name="Existed">False if there was none.</param>
public sealed record MemberBefore(ClassId Class, PersonId Person, bool Existed, ClassRole Role, EnrolledBy By, Instant JoinedAt, Instant? LeftAt, Instant? SeesFrom, bool MayPost, ClassId? MovedTo = null)
{
    /// <summary>Is it the same place, as far as a delivery decides on it? Whether its student may post is the teacher's.</summary>
    public bool SamePlace(MemberBefore other) => this == other with { MayPost = MayPost, SeesFrom = SeesFrom };
}

/// <summary>Where a folder stood.</summary>
public sealed record FolderBefore(long Id, int Position, int? GivenPosition);

/// <summary>What deliveries read and write, many rows at a time: explicit SQL over person, class and member.</summary>
public static class DeliveredStore
{
    /// <summary>Everybody of the directory, those who left too.</summary>
    public static IReadOnlyList<TodayPerson> People(IDbConnection c) => Bulk.Read(c, "SELECT id, record_id, student_number, email, user_name, given, family, grade, role, school, active, joined_into FROM person ORDER BY id", null, r =>
        new TodayPerson(new(r.GetInt64(0)), Text(r, 1), Text(r, 2), Text(r, 3), r.GetString(4), r.GetString(5), r.GetString(6), Text(r, 7), SchoolRoleOf(r.GetString(8)), Text(r, 9), r.GetInt64(10) == 1) { JoinedInto = r.IsDBNull(11) ? null : new PersonId(r.GetInt64(11)) });

    private static string? Text(IDataReader r, int i) => r.IsDBNull(i) ? null : r.GetString(i);

    private static SchoolRole SchoolRoleOf(string text) => text switch { "Student" => SchoolRole.Student, "Teacher" => SchoolRole.Teacher, "Coordinator" => SchoolRole.Coordinator, _ => SchoolRole.Staff };

    /// <summary>Classes of a year.</summary>
    public static IReadOnlyList<TodayClass> Classes(IDbConnection c, YearId year) => Bulk.Read(c,
        "SELECT k.id, k.record_id, k.name, o.name, k.section, k.period, k.room, k.state FROM class k JOIN course o ON o.id = k.course_id WHERE k.year_id = @id AND k.kind = 'Class' ORDER BY k.id", year.Value, r =>
        new TodayClass(new(r.GetInt64(0)), Text(r, 1), r.GetString(2), r.GetString(3), Text(r, 4), Text(r, 5), Text(r, 6), Enum.Parse<ClassState>(r.GetString(7))));

    /// <summary>Places on the rosters of a year, those that were left too.</summary>
    public static IReadOnlyList<TodayMember> Members(IDbConnection c, YearId year)
    {
        // A class is one row, its places a line of numbers: person, then role (two bits), way (two) and leaving (one). Fetching hundreds of thousands of rows one by one takes four times as long.
        const string sql =
            """
            SELECT m.class_id, group_concat(m.person_id * 32 + CASE m.role WHEN 'Student' THEN 0 WHEN 'Lead' THEN 1 ELSE 2 END + CASE m.enrolled_by WHEN 'Hand' THEN 0 WHEN 'Feed' THEN 4 WHEN 'Code' THEN 8 ELSE 12 END + (m.left_at IS NOT NULL) * 16)
            FROM class k JOIN member m ON m.class_id = k.id WHERE k.year_id = @id AND k.kind = 'Class' GROUP BY m.class_id
            """;
        var classes = Bulk.Read(c, sql, year.Value, r => (Class: new ClassId(r.GetInt64(0)), Places: r.GetString(1)));
        var members = new List<TodayMember>(classes.Sum(k => k.Places.Length) / 6);
        foreach (var (id, places) in classes)
        {
            foreach (var place in places.AsSpan().Split(','))
            {
                var n = long.Parse(places.AsSpan()[place], CultureInfo.InvariantCulture);
                members.Add(new(id, new(n >> 5), Roles[n & 3], Ways[(n >> 2) & 3], (n & 16) != 0));
            }
        }
        return members;
    }

    private static readonly ClassRole[] Roles = [ClassRole.Student, ClassRole.Lead, ClassRole.CoTeacher];

    private static readonly EnrolledBy[] Ways = [EnrolledBy.Hand, EnrolledBy.Feed, EnrolledBy.Code, EnrolledBy.Invitation];

    /// <summary>Writes over what the directory says of a person; the user name stays.</summary>
    public static void Save(IDbConnection c, TodayPerson p) => c.Execute(
        """
        UPDATE person SET record_id = @RecordId, student_number = @StudentNumber, email = @Email, given = @Given, family = @Family, given_key = @givenKey, family_key = @familyKey, grade = @Grade, role = @role, school = @School, active = @Active
        WHERE id = @Id
        """, Row(p));

    /// <summary>From now on these people are no record's.</summary>
    public static void Unlink(IDbConnection c, IEnumerable<PersonId> people) => c.Execute("UPDATE person SET record_id = NULL WHERE id = @id", people.Select(id => new { id }));

    /// <summary>From now on these records are nobody's.</summary>
    public static void Unlink(IDbConnection c, IEnumerable<string> records) => c.Execute("UPDATE person SET record_id = NULL WHERE record_id = @record", records.Select(record => new { record }));

    /// <summary>Adds people; their ids are ignored.</summary>
    /// <returns>Their ids, in the same order.</returns>
    public static IReadOnlyList<PersonId> Add(IDbConnection c, IReadOnlyList<TodayPerson> people)
    {
        // One after another from the next id: an id asked back for each row would take twice as long.
        var next = c.ExecuteScalar<long>("SELECT ifnull(max(id), 0) + 1 FROM person");
        var rows = people.Select((p, i) => p with { Id = new(next + i) }).ToList();
        Bulk.Run(c,
            """
            INSERT INTO person(id, role, given, family, given_key, family_key, grade, student_number, email, user_name, active, record_id, school)
            VALUES(@p0, @p1, @p2, @p3, @p4, @p5, @p6, @p7, @p8, @p9, @p10, @p11, @p12)
            """, 13, rows.Select(p => new object?[] { p.Id.Value, p.Role.ToString(), p.Given, p.Family, PersonName.SearchKey(p.Given), PersonName.SearchKey(p.Family), p.Grade, p.StudentNumber, p.Email, p.UserName, p.Active ? 1 : 0, p.RecordId, p.School }));
        return [.. rows.Select(p => p.Id)];
    }

    private static object Row(TodayPerson p) => new
    {
        Id = p.Id.Value,
        p.RecordId,
        p.StudentNumber,
        p.Email,
        p.UserName,
        p.Given,
        p.Family,
        givenKey = PersonName.SearchKey(p.Given),
        familyKey = PersonName.SearchKey(p.Family),
        p.Grade,
        role = p.Role.ToString(),
        p.School,
        p.Active,
    };

    /// <summary>Says how the records call a class, and where and when they say it meets.</summary>
    public static void SaveClass(IDbConnection c, TodayClass k) => c.Execute(
        "UPDATE class SET record_id = @RecordId, section = @Section, period = @Period, room = @Room, version = version + 1 WHERE id = @Id", new { k.Id, k.RecordId, k.Section, k.Period, k.Room });

    /// <summary>Places on rosters as they are now, so that they can be put back.</summary>
    public static IReadOnlyList<MemberBefore> Before(IDbConnection c, IReadOnlyList<(ClassId Class, PersonId Person)> places)
    {
        var wanted = places.ToHashSet();
        var found = new List<MemberBefore>();
        foreach (var k in places.Select(p => p.Class).Distinct())
            found.AddRange(c.Query<MemberRead>("SELECT class_id, person_id, role, enrolled_by, joined_at, left_at, sees_from, may_post, moved_to FROM member WHERE class_id = @k", new { k })
                .Where(m => wanted.Contains((m.ClassId, m.PersonId))).Select(m => new MemberBefore(m.ClassId, m.PersonId, true, m.Role, m.EnrolledBy, m.JoinedAt, m.LeftAt, m.SeesFrom, m.MayPost, m.MovedTo)));
        var there = found.Select(m => (m.Class, m.Person)).ToHashSet();
        return [.. found, .. places.Distinct().Where(p => !there.Contains(p)).Select(p => new MemberBefore(p.Class, p.Person, false, ClassRole.Student, EnrolledBy.Hand, default, null, null, true))];
    }

    /// <summary>Puts people on rosters, or back on them, as a delivery says. Nobody is given twice in a class.</summary>
    /// <param name="places">Where <c>FromNow</c> is true, the person sees what is given from this moment on, and not what was there before.</param>
    public static void Join(IDbConnection c, IEnumerable<(ClassId Class, PersonId Person, ClassRole Role, bool FromNow)> places, Instant at)
    {
        var joined = Bulk.Text(at);
        // One statement a class, its people as a list of numbers in order: person, then from now (one bit) and role (two). Row by row takes three times as long.
        Bulk.Run(c,
            """
            INSERT INTO member(class_id, person_id, role, joined_at, since, enrolled_by, sees_from)
            SELECT @p0, p.value >> 3, CASE p.value & 3 WHEN 0 THEN 'Student' WHEN 1 THEN 'Lead' ELSE 'CoTeacher' END, @p1, @p1, 'Feed', CASE p.value & 4 WHEN 4 THEN @p1 END FROM json_each(@p2) p WHERE true
            ON CONFLICT(class_id, person_id) DO UPDATE SET role = excluded.role, since = excluded.since, left_at = NULL, enrolled_by = 'Feed', sees_from = excluded.sees_from
            """, 3, places.GroupBy(x => x.Class.Value).OrderBy(k => k.Key).Select(k => new object?[]
            {
                k.Key, joined, $"[{string.Join(',', k.Select(x => (x.Person.Value << 3) | (x.FromNow ? 4L : 0) | (long)Array.IndexOf(Roles, x.Role)).Order())}]",
            }));
    }

    /// <summary>Takes off a new class those whom its delivery put on it.</summary>
    /// <param name="joined">When that was.</param>
    public static void RemoveJoined(IDbConnection c, ClassId id, Instant joined, Instant at)
    {
        c.Execute($"DELETE FROM member WHERE class_id = @id AND joined_at = @joined AND enrolled_by = 'Feed' AND NOT {HasWork}", new { id, joined });
        c.Execute("UPDATE member SET left_at = @at WHERE class_id = @id AND joined_at = @joined AND enrolled_by = 'Feed' AND left_at IS NULL", new { id, joined, at });
    }

    /// <summary>Notes that people left rosters.</summary>
    public static void Leave(IDbConnection c, IEnumerable<(ClassId Class, PersonId Person)> places, Instant at) =>
        c.Execute("UPDATE member SET left_at = @at WHERE class_id = @k AND person_id = @p", places.Select(x => new { k = x.Class.Value, p = x.Person.Value, at }));

    /// <summary>Changes roles.</summary>
    public static void SetRole(IDbConnection c, IEnumerable<(ClassId Class, PersonId Person, ClassRole Role)> places) =>
        c.Execute("UPDATE member SET role = @role WHERE class_id = @k AND person_id = @p", places.Select(x => new { k = x.Class.Value, p = x.Person.Value, role = x.Role.ToString() }));

    /// <summary>From now on the rosters of a class are its teachers' own: no delivery takes anybody off.</summary>
    public static void LetGo(IDbConnection c, ClassId id) => c.Execute("UPDATE class SET record_id = NULL, version = version + 1 WHERE id = @id", new { id });

    // Who has work or things in a class has been there: without the place they would never see again what is returned to them.
    private const string HasWork = "(EXISTS (SELECT 1 FROM work w WHERE w.class_id = member.class_id AND w.student_id = member.person_id) OR EXISTS (SELECT 1 FROM item i WHERE i.class_id = member.class_id AND i.added_by = member.person_id))";

    /// <summary>Puts a place on a roster back as it was; who has work there by now has left it, as anybody who leaves.</summary>
    public static void PutBack(IDbConnection c, MemberBefore m, Instant at)
    {
        if (!m.Existed)
        {
            if (c.Execute($"DELETE FROM member WHERE class_id = @Class AND person_id = @Person AND NOT {HasWork}", new { m.Class, m.Person }) == 0)
                c.Execute("UPDATE member SET left_at = @at WHERE class_id = @Class AND person_id = @Person AND left_at IS NULL", new { m.Class, m.Person, at });
        }
        else
            c.Execute("UPDATE member SET role = @role, enrolled_by = @by, joined_at = @JoinedAt, left_at = @LeftAt, sees_from = @SeesFrom, may_post = @MayPost, moved_to = @MovedTo WHERE class_id = @Class AND person_id = @Person",
                new { m.Class, m.Person, role = m.Role.ToString(), by = m.By.ToString(), m.JoinedAt, m.LeftAt, m.SeesFrom, m.MayPost, m.MovedTo });
    }

    /// <summary>Takes a person out of the directory who was never anything here; false if something is already theirs.</summary>
    public static bool Remove(IDbConnection c, PersonId id)
    {
        var used = c.ExecuteScalar<bool>(
            """
            SELECT EXISTS (SELECT 1 FROM sign_in WHERE person_id = @id AND must_change = 0) OR EXISTS (SELECT 1 FROM member WHERE person_id = @id) OR EXISTS (SELECT 1 FROM item WHERE added_by = @id)
              OR EXISTS (SELECT 1 FROM work WHERE student_id = @id) OR EXISTS (SELECT 1 FROM folder WHERE student_id = @id) OR EXISTS (SELECT 1 FROM audit WHERE person_id = @id)
              OR EXISTS (SELECT 1 FROM person_join WHERE kept = @id OR gone = @id) OR EXISTS (SELECT 1 FROM family_of WHERE person_id = @id AND by_hand)
            """, new { id });
        if (used) return false;
        c.Execute("DELETE FROM family_of WHERE person_id = @id", new { id });
        c.Execute("DELETE FROM sign_in WHERE person_id = @id", new { id });
        c.Execute("DELETE FROM group_member WHERE person_id = @id", new { id });
        c.Execute("DELETE FROM person_apart WHERE a = @id OR b = @id", new { id });
        DeliveryStore.Forget(c, id);
        return c.Execute("DELETE FROM person WHERE id = @id", new { id }) == 1;
    }

    /// <summary>The newest folder there is; what is made later has a higher id.</summary>
    public static long NewestFolder(IDbConnection c) => c.ExecuteScalar<long>("SELECT ifnull(max(id), 0) FROM folder");

    /// <summary>Folders made after one.</summary>
    public static IReadOnlyList<long> FoldersAfter(IDbConnection c, long newest) => [.. c.Query<long>("SELECT id FROM folder WHERE id > @newest", new { newest })];

    /// <summary>Where the folders of classes stand within their parents.</summary>
    public static IReadOnlyList<FolderBefore> Positions(IDbConnection c, ClassId id) =>
        [.. c.Query<(long, long, long?)>("SELECT id, position, given_position FROM folder WHERE class_id = @id", new { id }).Select(f => new FolderBefore(f.Item1, (int)f.Item2, (int?)f.Item3))];

    /// <summary>Puts folders back where they stood.</summary>
    public static void SetPositions(IDbConnection c, IEnumerable<FolderBefore> folders) =>
        c.Execute("UPDATE folder SET position = @Position, given_position = @GivenPosition WHERE id = @Id", folders);

    /// <summary>Takes away copies of things that were made by an act that is taken back; those changed since stay.</summary>
    /// <returns>How many stay.</returns>
    public static int RemoveUnchanged(IDbConnection c, IReadOnlyList<ItemId> items)
    {
        var stay = 0;
        foreach (var id in items)
        {
            if (c.ExecuteScalar<bool>("SELECT EXISTS (SELECT 1 FROM item WHERE id = @id AND (version > 1 OR binned_at IS NOT NULL))", new { id })) { stay++; continue; }
            c.Execute("DELETE FROM assignment_thing WHERE item_id = @id", new { id });
            c.Execute("DELETE FROM filing WHERE item_id = @id", new { id });
            c.Execute("DELETE FROM item WHERE id = @id", new { id });
        }
        return stay;
    }

    /// <summary>Takes away folders in which there is nothing; the others stay.</summary>
    /// <returns>How many stay.</returns>
    public static int RemoveEmpty(IDbConnection c, IReadOnlyList<long> folders)
    {
        var stay = 0;
        // Inner folders were made after those they stand in.
        foreach (var id in folders.OrderDescending())
            if (c.Execute(
                """
                DELETE FROM folder WHERE id = @id AND NOT EXISTS (SELECT 1 FROM filing WHERE folder_id = @id) AND NOT EXISTS (SELECT 1 FROM assignment_filing WHERE folder_id = @id) AND NOT EXISTS (SELECT 1 FROM talk WHERE folder_id = @id)
                  AND NOT EXISTS (SELECT 1 FROM folder f WHERE f.parent_id = @id)
                """, new { id }) == 0 && c.ExecuteScalar<bool>("SELECT EXISTS (SELECT 1 FROM folder WHERE id = @id)", new { id })) stay++;
        return stay;
    }

    private sealed record MemberRead
    {
        public ClassId ClassId { get; init; }
        public PersonId PersonId { get; init; }
        public ClassRole Role { get; init; }
        public EnrolledBy EnrolledBy { get; init; }
        public Instant JoinedAt { get; init; }
        public Instant? LeftAt { get; init; }
        public Instant? SeesFrom { get; init; }
        public bool MayPost { get; init; }
        public ClassId? MovedTo { get; init; }
    }
}
