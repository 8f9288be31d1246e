using SpringLoft.Core.Assignments;
using SpringLoft.Core.Naming;
using SpringLoft.Store.Rows;

namespace SpringLoft.Store.Assignments;

/// <summary>An assignment.</summary>
public sealed record AssignmentRow
{
    public AssignmentId Id { get; init; }
    public string Title { get; init; } = "";
    public string Instructions { get; init; } = "";
    public decimal? Points { get; init; }

    /// <summary>How it is marked, where that is not in plain points, as it is kept.</summary>
    public string? SchemeJson { get; init; }
    public MarkScheme? Scheme => MarkScheme.Read(SchemeJson);
    public LocalDate? DueOn { get; init; }
    public LocalTime? DueTime { get; init; }
    public int? LateDays { get; init; }
    public Instant? PublishedAt { get; init; }
    public Instant? PublishAt { get; init; }
    public Instant MadeAt { get; init; }
    public int Version { get; init; }
    public Due Due => new(DueOn, DueTime, LateDays);

    /// <summary>The assignment of a department's bank that this is a copy of, and at which version it was copied.</summary>
    public AssignmentId? BankId { get; init; }
    public int? BankVersion { get; init; }

    /// <summary>Those that were given to several classes in one act have the same number; null for one that stands alone.</summary>
    public long? Together { get; init; }
}

/// <summary>A copy of an assignment of a bank.</summary>
public sealed record BankCopyRow
{
    public AssignmentId Id { get; init; }
    public ClassId ClassId { get; init; }
    public AssignmentId BankId { get; init; }
    public int BankVersion { get; init; }
    public string Title { get; init; } = "";
    public int HandedIn { get; init; }
}

/// <summary>An assignment of any class that is due in some days, and for how many of some people.</summary>
public sealed record DueRow
{
    public ClassId ClassId { get; init; }
    public string ClassName { get; init; } = "";
    public string Title { get; init; } = "";
    public LocalDate DueOn { get; init; }
    public int Students { get; init; }
}

/// <summary>Owns assignment, assignment_filing, assignment_given and assignment_group.</summary>
public static class AssignmentStore
{
    private const string Columns = "id, title, instructions, points, scheme_json, due_on, due_time, late_days, published_at, publish_at, made_at, version, bank_id, bank_version, together";

    /// <summary>Assignments of a class by date due, those without a date last; the bin left out.</summary>
    public static IReadOnlyList<AssignmentRow> OfClass(IDbConnection c, ClassId id) => [.. c.Query<AssignmentRow>(
        $"SELECT {Columns} FROM assignment WHERE class_id = @id AND binned_at IS NULL ORDER BY due_on IS NULL, due_on, due_time IS NULL, due_time, id", new { id })];

    /// <summary>How many assignments a class has, the bin left out.</summary>
    public static int CountOf(IDbConnection c, ClassId id) => c.ExecuteScalar<int>("SELECT count(*) FROM assignment WHERE class_id = @id AND binned_at IS NULL", new { id });

    /// <summary>One assignment of a class; null if there is no such or it is in the bin.</summary>
    public static AssignmentRow? Find(IDbConnection c, ClassId id, AssignmentId assignment) => c.QuerySingleOrDefault<AssignmentRow>(
        $"SELECT {Columns} FROM assignment WHERE class_id = @id AND id = @assignment AND binned_at IS NULL", new { id, assignment });

    /// <summary>Which assignments stand in which folders of a class.</summary>
    public static ILookup<AssignmentId, FolderId> Filings(IDbConnection c, ClassId id) => c.Query<(long, long)>(
        "SELECT f.assignment_id, f.folder_id FROM assignment_filing f JOIN assignment a ON a.id = f.assignment_id JOIN folder d ON d.id = f.folder_id WHERE a.class_id = @id AND d.binned_at IS NULL", new { id })
        .ToLookup(x => new AssignmentId(x.Item1), x => new FolderId(x.Item2));

    // Who is in a group that a draft is given to, and on the roster.
    private const string InItsGroups =
        """
        SELECT x.assignment_id, m.person_id FROM assignment_group x JOIN class_group g ON g.id = x.group_id AND g.binned_at IS NULL
        JOIN group_member i ON i.group_id = g.id JOIN member m ON m.class_id = g.class_id AND m.person_id = i.person_id AND m.role = 'Student' AND m.left_at IS NULL
        """;

    /// <summary>Stands for nobody: among those whom a draft is given to whose groups have no member. No row means everybody, and it is not that.</summary>
    public static readonly PersonId Nobody = new(0);

    /// <summary>Whom assignments are given to, where not to all: by name, and the members of its groups, of a draft as they are now.</summary>
    public static ILookup<AssignmentId, PersonId> GivenTo(IDbConnection c, ClassId id) => c.Query<(long, long)>(
        $"""
        SELECT g.assignment_id, g.person_id FROM assignment_given g JOIN assignment a ON a.id = g.assignment_id WHERE a.class_id = @id
        UNION SELECT y.assignment_id, y.person_id FROM ({InItsGroups}) y JOIN assignment a ON a.id = y.assignment_id WHERE a.class_id = @id AND a.published_at IS NULL
        UNION SELECT x.assignment_id, @nobody FROM assignment_group x JOIN assignment a ON a.id = x.assignment_id WHERE a.class_id = @id
          AND NOT EXISTS (SELECT 1 FROM assignment_given g WHERE g.assignment_id = a.id) AND (a.published_at IS NOT NULL OR NOT EXISTS (SELECT 1 FROM ({InItsGroups}) y WHERE y.assignment_id = a.id))
        """, new { id, nobody = Nobody }).ToLookup(x => new AssignmentId(x.Item1), x => new PersonId(x.Item2));

    /// <summary>Groups that assignments of a class are given to, in the order of the groups; those that were taken away too: there is nobody in them.</summary>
    public static ILookup<AssignmentId, (GroupId Id, string Name)> GivenGroups(IDbConnection c, ClassId id) => c.Query<(long, long, string)>(
        "SELECT x.assignment_id, x.group_id, g.name FROM assignment_group x JOIN class_group g ON g.id = x.group_id WHERE g.class_id = @id ORDER BY g.position, g.id", new { id })
        .ToLookup(x => new AssignmentId(x.Item1), x => (new GroupId(x.Item2), x.Item3));

    /// <summary>Those whom assignments of a class are given to by name, and those who have it because of a group.</summary>
    public static ILookup<AssignmentId, (PersonId Person, bool ByGroup)> GivenRows(IDbConnection c, ClassId id) => c.Query<(long, long, bool)>(
        "SELECT g.assignment_id, g.person_id, g.by_group FROM assignment_given g JOIN assignment a ON a.id = g.assignment_id WHERE a.class_id = @id", new { id })
        .ToLookup(x => new AssignmentId(x.Item1), x => (new PersonId(x.Item2), x.Item3));

    /// <summary>Adds an assignment as a draft.</summary>
    public static AssignmentId Add(IDbConnection c, ClassId id, AssignmentRow a, IEnumerable<FolderId> folders, IEnumerable<PersonId> givenTo, AssignmentId? rolledFrom = null)
    {
        var made = c.ExecuteScalar<long>(
            """
            INSERT INTO assignment(class_id, title, title_key, instructions, points, due_on, due_time, late_days, made_at, rolled_from, bank_id, bank_version, scheme_json)
            VALUES(@id, @Title, @key, @Instructions, @Points, @DueOn, @DueTime, @LateDays, @MadeAt, @rolledFrom, @BankId, @BankVersion, @SchemeJson) RETURNING id
            """, new { id, a.Title, key = SafeName.Key(a.Title), a.Instructions, a.Points, a.DueOn, a.DueTime, a.LateDays, a.MadeAt, rolledFrom, a.BankId, a.BankVersion, a.SchemeJson });
        foreach (var folder in folders.Distinct()) c.Execute("INSERT INTO assignment_filing(assignment_id, folder_id) VALUES(@made, @folder)", new { made, folder });
        foreach (var person in givenTo.Distinct()) c.Execute("INSERT INTO assignment_given(assignment_id, person_id) VALUES(@made, @person)", new { made, person });
        return new(made);
    }

    /// <summary>Adds many assignments as drafts for everybody, as <see cref="Add"/> does one.</summary>
    public static void AddAll(IDbConnection c, ClassId id, IReadOnlyList<(AssignmentRow Row, AssignmentId RolledFrom, IReadOnlyList<FolderId> Folders)> assignments)
    {
        var made = Bulk.Insert(c,
            """
            INSERT INTO assignment(class_id, title, title_key, instructions, points, due_on, made_at, rolled_from, bank_id, bank_version, due_time, late_days, scheme_json)
            VALUES(@p0, @p1, @p2, @p3, @p4, @p5, @p6, @p7, @p8, @p9, @p10, @p11, @p12) RETURNING id
            """, 13, assignments.Select(a => new object?[]
            {
                id.Value, a.Row.Title, SafeName.Key(a.Row.Title), a.Row.Instructions, a.Row.Points, a.Row.DueOn is { } due ? NodaTime.Text.LocalDatePattern.Iso.Format(due) : null, Bulk.Text(a.Row.MadeAt), a.RolledFrom.Value, a.Row.BankId?.Value, a.Row.BankVersion, a.Row.DueTime is { } time ? NodaTime.Text.LocalTimePattern.CreateWithInvariantCulture("HH:mm").Format(time) : null, a.Row.LateDays, a.Row.SchemeJson,
            }));
        Bulk.Run(c, "INSERT INTO assignment_filing(assignment_id, folder_id) VALUES(@p0, @p1)", 2, made.Zip(assignments).SelectMany(m => m.Second.Folders.Distinct().Select(f => new object?[] { m.First, f.Value })));
    }

    /// <summary>Files an assignment in one more folder.</summary>
    public static void File(IDbConnection c, AssignmentId id, FolderId folder) =>
        c.Execute("INSERT INTO assignment_filing(assignment_id, folder_id) VALUES(@id, @folder) ON CONFLICT DO NOTHING", new { id, folder });

    /// <summary>Files the copy of an assignment that a class was given in one more folder.</summary>
    public static void FileRolled(IDbConnection c, ClassId id, AssignmentId from, FolderId folder) => c.Execute(
        "INSERT INTO assignment_filing(assignment_id, folder_id) SELECT id, @folder FROM assignment WHERE class_id = @id AND rolled_from = @from ON CONFLICT DO NOTHING", new { id, from, folder });

    /// <summary>Changes what an assignment says, at the version that was seen; false if changed meanwhile.</summary>
    public static bool Save(IDbConnection c, AssignmentRow a) => c.Execute(
        """
        UPDATE assignment SET title = @Title, title_key = @key, instructions = @Instructions, points = @Points, scheme_json = @SchemeJson, due_on = @DueOn, due_time = @DueTime, late_days = @LateDays, bank_id = @BankId, bank_version = @BankVersion, version = version + 1
        WHERE id = @Id AND version = @Version
        """, new { a.Id, a.Version, a.Title, key = SafeName.Key(a.Title), a.Instructions, a.Points, a.SchemeJson, a.DueOn, a.DueTime, a.LateDays, a.BankId, a.BankVersion }) == 1;

    /// <summary>Gives an assignment to these and no others; to everybody where there are none, and no groups.</summary>
    /// <param name="people">By name.</param>
    /// <param name="groups">The groups it is given to.</param>
    /// <param name="because">Who has it because of one of them; nobody while it is a draft.</param>
    public static void GiveTo(IDbConnection c, AssignmentId id, IEnumerable<PersonId> people, IEnumerable<GroupId> groups, IEnumerable<PersonId> because)
    {
        c.Execute("DELETE FROM assignment_given WHERE assignment_id = @id", new { id });
        c.Execute("DELETE FROM assignment_group WHERE assignment_id = @id", new { id });
        foreach (var person in people.Distinct()) c.Execute("INSERT INTO assignment_given(assignment_id, person_id) VALUES(@id, @person)", new { id, person });
        foreach (var person in because.Distinct()) c.Execute("INSERT INTO assignment_given(assignment_id, person_id, by_group) VALUES(@id, @person, 1) ON CONFLICT DO NOTHING", new { id, person });
        foreach (var g in groups.Distinct()) c.Execute("INSERT INTO assignment_group(assignment_id, group_id) VALUES(@id, @g)", new { id, g });
    }

    /// <summary>Files an assignment in these folders and no other.</summary>
    public static void FileIn(IDbConnection c, AssignmentId id, IEnumerable<FolderId> folders)
    {
        c.Execute("DELETE FROM assignment_filing WHERE assignment_id = @id", new { id });
        foreach (var f in folders) File(c, id, f);
    }

    /// <summary>Copies of a bank's assignments in classes that are not archived, the bin left out, with how many of each have work that was handed in.</summary>
    public static IReadOnlyList<BankCopyRow> CopiesOf(IDbConnection c, ClassId bank) => [.. c.Query<BankCopyRow>(
        """
        SELECT a.id, a.class_id, a.bank_id, a.bank_version, a.title, (SELECT count(*) FROM work w WHERE w.assignment_id = a.id AND w.state <> 'Working') AS handed_in
        FROM assignment b JOIN assignment a ON a.bank_id = b.id JOIN class k ON k.id = a.class_id
        WHERE b.class_id = @bank AND a.binned_at IS NULL AND k.state <> 'Archived' ORDER BY k.name_key, a.id
        """, new { bank })];

    /// <summary>What is due from one day to another, in any open class, for any of these people.</summary>
    public static IReadOnlyList<DueRow> DueFor(IDbConnection c, IReadOnlyCollection<PersonId> people, LocalDate from, LocalDate to) => people.Count == 0 ? [] : [.. c.Query<DueRow>(
        """
        SELECT a.class_id, k.name AS class_name, a.title, a.due_on, count(*) AS students
        FROM assignment a JOIN class k ON k.id = a.class_id JOIN member r ON r.class_id = a.class_id
        WHERE a.due_on BETWEEN @from AND @to AND a.published_at IS NOT NULL AND a.binned_at IS NULL AND k.state = 'Open'
          AND r.role = 'Student' AND r.left_at IS NULL AND r.person_id IN (SELECT value FROM json_each(@ids))
          AND (NOT EXISTS (SELECT 1 FROM assignment_given g WHERE g.assignment_id = a.id) OR EXISTS (SELECT 1 FROM assignment_given g WHERE g.assignment_id = a.id AND g.person_id = r.person_id))
        GROUP BY a.id ORDER BY a.due_on, k.name_key, a.id
        """, new { from, to, ids = $"[{string.Join(',', people.Select(p => p.Value))}]" })];

    /// <summary>Says that these were given in one act and are kept in step.</summary>
    public static void KeepInStep(IDbConnection c, IReadOnlyList<AssignmentId> assignments)
    {
        foreach (var id in assignments) c.Execute("UPDATE assignment SET together = @first WHERE id = @id", new { id, first = assignments[0] });
    }

    /// <summary>Those that are kept in step under one number, by the name of their class, the bin left out.</summary>
    public static IReadOnlyList<(ClassId Class, AssignmentRow Row)> Together(IDbConnection c, long together) => [.. c.Query<(long, long)>(
        "SELECT a.class_id, a.id FROM assignment a JOIN class k ON k.id = a.class_id WHERE a.together = @together AND a.binned_at IS NULL AND k.binned_at IS NULL ORDER BY k.name_key", new { together })
        .Select(x => (new ClassId(x.Item1), Find(c, new ClassId(x.Item1), new AssignmentId(x.Item2))!))];

    /// <summary>Publishes at the version that was seen, to its groups as they are now; false if changed meanwhile, or given to nobody.</summary>
    public static bool Publish(IDbConnection c, AssignmentId id, int version, Instant at)
    {
        if (c.Execute($"UPDATE assignment SET published_at = @at, publish_at = NULL, version = version + 1 WHERE id = @id AND version = @version AND {HasSomebody}", new { id, version, at }) != 1) return false;
        c.Execute($"INSERT INTO assignment_given(assignment_id, person_id, by_group) SELECT assignment_id, person_id, 1 FROM ({InItsGroups}) WHERE assignment_id = @id ON CONFLICT DO NOTHING", new { id });
        return true;
    }

    // To everybody, to somebody by name, or to a group that somebody is in.
    private const string HasSomebody =
        $"""
        (NOT EXISTS (SELECT 1 FROM assignment_group x WHERE x.assignment_id = assignment.id) OR EXISTS (SELECT 1 FROM assignment_given g WHERE g.assignment_id = assignment.id)
          OR EXISTS (SELECT 1 FROM ({InItsGroups}) y WHERE y.assignment_id = assignment.id))
        """;

    /// <summary>Makes a published assignment a draft again, at the version that was seen; false if changed meanwhile.</summary>
    public static bool Withdraw(IDbConnection c, AssignmentId id, int version)
    {
        if (c.Execute("UPDATE assignment SET published_at = NULL, version = version + 1 WHERE id = @id AND version = @version", new { id, version }) != 1) return false;
        c.Execute("DELETE FROM assignment_given WHERE assignment_id = @id AND by_group = 1", new { id });
        return true;
    }

    /// <summary>Sets the moment at which a draft is published by the clock; null for by hand.</summary>
    public static void PublishAt(IDbConnection c, AssignmentId id, Instant? at) => c.Execute("UPDATE assignment SET publish_at = @at WHERE id = @id AND published_at IS NULL", new { id, at });

    /// <summary>Drafts whose moment has come and that are given to somebody, of classes that are not archived, the oldest moment first.</summary>
    public static IReadOnlyList<(ClassId Class, AssignmentRow Draft)> Ripe(IDbConnection c, Instant now) => [.. c.Query<(long, long)>(
        $"SELECT class_id, assignment.id FROM assignment JOIN class k ON k.id = class_id WHERE publish_at <= @now AND published_at IS NULL AND assignment.binned_at IS NULL AND k.state <> 'Archived' AND {HasSomebody} ORDER BY publish_at, assignment.id", new { now })
        .Select(x => (new ClassId(x.Item1), Find(c, new ClassId(x.Item1), new AssignmentId(x.Item2))!))];

    /// <summary>Puts an assignment in the bin.</summary>
    public static void Bin(IDbConnection c, AssignmentId id, Instant at, PersonId by) => c.Execute("UPDATE assignment SET binned_at = @at, binned_by = @by WHERE id = @id", new { id, at, by });

    /// <summary>Brings an assignment back from the bin, under a title that is free.</summary>
    public static void BringBack(IDbConnection c, AssignmentId id, string title) =>
        c.Execute("UPDATE assignment SET binned_at = NULL, binned_by = NULL, title = @title, title_key = @key, version = version + 1 WHERE id = @id", new { id, title, key = SafeName.Key(title) });

    /// <summary>How many assignments of a class are in the bin.</summary>
    public static int BinnedCount(IDbConnection c, ClassId id) =>
        c.ExecuteScalar<int>("SELECT count(*) FROM assignment WHERE class_id = @id AND binned_at IS NOT NULL", new { id });
}
