using System.Text.Json;
using SpringLoft.Core.Plans;

namespace SpringLoft.Store.People;

/// <summary>Two people who were joined into one.</summary>
public sealed record PersonJoinRow
{
    public long Id { get; init; }
    public PersonId Kept { get; init; }
    public PersonId Gone { get; init; }
    public Instant At { get; init; }
    public string By { get; init; } = "";
    public string Undo { get; init; } = "";
    public Instant? UndoneAt { get; init; }
}

/// <summary>What belonged to the one who is gone, and what was in the way, as it was before.</summary>
/// <param name="Moved">Table, column and rows whose person was changed from the one to the other.</param>
/// <param name="Works">Pieces of work of both for one assignment: what the kept one's was.</param>
/// <param name="Earlier">Who had been joined into the one who is gone: they are the kept one then, so that nobody is somebody who is gone.</param>
/// <param name="TakeHomes">Take-homes of years of which the kept one had none; null where the join was made before they came along.</param>
internal sealed record JoinUndo(
    List<MovedRows> Moved, List<WorkBefore> Works, List<RowsTo> WorkFiles, List<RowsTo> WorkComments, List<long> Classes, List<LeftBefore> Left, List<long> Groups, List<long> Given, List<KeyBefore> Keys, PersonBefore Kept, PersonBefore Gone, List<TakeHomeMoved>? TakeHomes = null, List<long>? Asked = null, List<RowsTo>? WorkTurns = null, List<long>? Earlier = null, List<long>? Told = null, List<long>? Quiet = null, List<long>? Said = null, List<long>? Homes = null);

internal sealed record MovedRows(string Table, string Column, List<long> Rows);

internal sealed record WorkBefore(long Id, string State, decimal? Score, string? HandedInAt, string? ReturnedAt, decimal? ReturnedScore = null, string? Chosen = null, string? ReturnedChosen = null);

internal sealed record RowsTo(long WorkId, List<long> Rows);

internal sealed record LeftBefore(long ClassId, string? LeftAt);

internal sealed record KeyBefore(long FolderId, string? Key);

internal sealed record TakeHomeMoved(long YearId, string Sha256);

internal sealed record PersonBefore(long Id, string? RecordId, string? StudentNumber, string? Email, string? Grade, string? School, bool Active);

/// <summary>
/// Owns person_join: folds one person into another with every enrollment, folder and piece of work, and takes it apart
/// again. Where both have the same thing, the one kept has both: files and comments of the two pieces of work stand in one.
/// </summary>
public static class PersonJoinStore
{
    private static readonly (string Table, string Column)[] Plain =
        [("item", "added_by"), ("folder", "student_id"), ("work_file", "added_by"), ("work_comment", "author_id"), ("notice", "author_id"), ("talk_message", "author_id")];

    private static readonly string[] Ways = ["Working", "HandedIn", "Returned"];

    /// <summary>Joins.</summary>
    public static void Join(IDbConnection c, PersonId kept, PersonId gone, PersonId by, Instant at)
    {
        var moved = new List<MovedRows>();
        foreach (var (table, column) in Plain)
        {
            var rows = c.Query<long>($"SELECT rowid FROM {table} WHERE {column} = @gone", new { gone }).ToList();
            if (rows.Count == 0) continue;
            c.Execute($"UPDATE {table} SET {column} = @kept WHERE {column} = @gone", new { kept, gone });
            moved.Add(new(table, column, rows));
        }
        Packages(c, kept, gone, moved);
        var (works, files, comments, turns) = Work(c, kept, gone, moved);
        var keys = Keys(c, kept, gone, moved);
        var (classes, left) = Members(c, kept, gone, at);
        var groups = Pairs(c, "group_member", "group_id", kept, gone);
        var given = Pairs(c, "assignment_given", "assignment_id", kept, gone);
        var takeHomes = TakeHomes(c, kept, gone);
        var asked = Pairs(c, "join_wait", "class_id", kept, gone);
        // Both were the same person on those days; each account keeps its own.
        c.Execute("INSERT INTO activity(class_id, person_id, day, did) SELECT class_id, @kept, day, did FROM activity WHERE person_id = @gone ON CONFLICT DO UPDATE SET did = did | excluded.did", new { kept, gone });
        var quiet = Pairs(c, "talk_reader", "class_id", kept, gone);
        var told = Pairs(c, "notice_seen", "notice_id", kept, gone);
        var said = Pairs(c, "acknowledged", "asking_id", kept, gone);
        var homes = Pairs(c, "family_of", "contact_id", kept, gone);
        c.Execute("DELETE FROM join_wait WHERE person_id = @gone OR (person_id = @kept AND class_id IN (SELECT class_id FROM member WHERE person_id = @kept AND left_at IS NULL))", new { kept, gone });
        var (a, b) = (Before(c, kept), Before(c, gone));
        var earlier = c.Query<long>("SELECT id FROM person WHERE joined_into = @gone", new { gone }).ToList();
        c.Execute("UPDATE person SET joined_into = @kept WHERE joined_into = @gone", new { kept, gone });
        // What the kept one takes over is unique and first goes from the other; the rest stays there, so that the school's records still lead here.
        c.Execute("UPDATE person SET record_id = iif(@record IS NULL, NULL, record_id), student_number = iif(@number IS NULL, NULL, student_number), active = 0, joined_into = @kept WHERE id = @gone",
            new { kept, gone, record = a.RecordId, number = a.StudentNumber });
        c.Execute("UPDATE person SET record_id = ifnull(record_id, @RecordId), student_number = ifnull(student_number, @StudentNumber), email = ifnull(email, @Email), grade = ifnull(grade, @Grade), school = ifnull(school, @School) WHERE id = @kept",
            new { kept, b.RecordId, b.StudentNumber, b.Email, b.Grade, b.School });
        c.Execute("INSERT INTO person_join(kept, gone, at, by, undo) VALUES(@kept, @gone, @at, @by, @undo)",
            new { kept, gone, at, by, undo = JsonSerializer.Serialize(new JoinUndo(moved, works, files, comments, classes, left, groups, given, keys, a, b, takeHomes, asked, turns, earlier, told, quiet, said, homes)) });
    }

    /// <summary>Who somebody was joined into; null for who is themselves.</summary>
    public static PersonId? Into(IDbConnection c, PersonId id) => c.ExecuteScalar<long?>("SELECT joined_into FROM person WHERE id = @id", new { id }) is { } into ? new(into) : null;

    /// <summary>Joins that stand, newest first.</summary>
    public static IReadOnlyList<PersonJoinRow> All(IDbConnection c, int most) => [.. c.Query<PersonJoinRow>(
        "SELECT j.id, j.kept, j.gone, j.at, p.given || ' ' || p.family AS by, j.undo, j.undone_at FROM person_join j JOIN person p ON p.id = j.by ORDER BY j.id DESC LIMIT @most", new { most })];

    /// <summary>Takes a join apart: each has again what was theirs. What was added since stays with the one who was kept.</summary>
    public static void Undo(IDbConnection c, PersonJoinRow j, Instant at)
    {
        var u = JsonSerializer.Deserialize<JoinUndo>(j.Undo)!;
        var (kept, gone) = (j.Kept, j.Gone);
        foreach (var m in u.Moved) c.Execute($"UPDATE {m.Table} SET {m.Column} = @gone WHERE rowid IN @rows", new { gone, rows = m.Rows });
        foreach (var f in u.WorkFiles) c.Execute("UPDATE work_file SET work_id = @to WHERE id IN @rows", new { to = f.WorkId, rows = f.Rows });
        foreach (var f in u.WorkComments) c.Execute("UPDATE work_comment SET work_id = @to WHERE id IN @rows", new { to = f.WorkId, rows = f.Rows });
        foreach (var t in u.WorkTurns ?? []) c.Execute("UPDATE work_turn SET work_id = @to WHERE id IN @rows", new { to = t.WorkId, rows = t.Rows });
        foreach (var w in u.Works) c.Execute("UPDATE work SET state = @State, score = @Score, returned_score = @ReturnedScore, chosen = @Chosen, returned_chosen = @ReturnedChosen, handed_in_at = @HandedInAt, returned_at = @ReturnedAt, version = version + 1 WHERE id = @Id", w);
        foreach (var k in u.Keys) c.Execute("UPDATE folder SET plan_key = NULL WHERE id = @FolderId", k);
        // Where another folder has taken the place since, theirs is there as it was and follows no plan.
        foreach (var k in u.Keys) c.Execute("UPDATE folder SET plan_key = @Key WHERE id = @FolderId AND NOT EXISTS (SELECT 1 FROM folder f WHERE f.class_id = folder.class_id AND f.plan_key = @Key)", k);
        foreach (var k in u.Classes) c.Execute("UPDATE member SET person_id = @gone WHERE class_id = @k AND person_id = @kept", new { k, kept, gone });
        foreach (var l in u.Left) c.Execute("UPDATE member SET left_at = @LeftAt WHERE class_id = @ClassId AND person_id = @gone", new { l.ClassId, l.LeftAt, gone });
        foreach (var g in u.Groups) c.Execute("UPDATE group_member SET person_id = @gone WHERE group_id = @g AND person_id = @kept", new { g, kept, gone });
        foreach (var a in u.Given) c.Execute("UPDATE assignment_given SET person_id = @gone WHERE assignment_id = @a AND person_id = @kept", new { a, kept, gone });
        foreach (var n in u.Told ?? []) c.Execute("UPDATE notice_seen SET person_id = @gone WHERE notice_id = @n AND person_id = @kept", new { n, kept, gone });
        foreach (var a in u.Said ?? []) c.Execute("UPDATE acknowledged SET person_id = @gone WHERE asking_id = @a AND person_id = @kept", new { a, kept, gone });
        foreach (var h in u.Homes ?? []) c.Execute("UPDATE family_of SET person_id = @gone WHERE contact_id = @h AND person_id = @kept", new { h, kept, gone });
        foreach (var k in u.Quiet ?? []) c.Execute("UPDATE talk_reader SET person_id = @gone WHERE class_id = @k AND person_id = @kept", new { k, kept, gone });
        foreach (var k in u.Asked ?? []) c.Execute("UPDATE join_wait SET person_id = @gone WHERE class_id = @k AND person_id = @kept", new { k, kept, gone });
        // One that was made anew since holds the work of both, and stays.
        foreach (var t in u.TakeHomes ?? [])
            c.Execute("UPDATE take_home SET person_id = @gone WHERE person_id = @kept AND year_id = @YearId AND sha256 = @Sha256", new { gone, kept, t.YearId, t.Sha256 });
        const string person = "UPDATE person SET record_id = @RecordId, student_number = @StudentNumber, email = @Email, grade = @Grade, school = @School, active = @Active, joined_into = NULL WHERE id = @Id";
        c.Execute(person, u.Kept);
        c.Execute(person, u.Gone);
        c.Execute("UPDATE person SET joined_into = @gone WHERE id IN @earlier AND joined_into = @kept", new { gone, kept, earlier = u.Earlier ?? [] });
        c.Execute("UPDATE person_join SET undone_at = @at WHERE id = @Id", new { j.Id, at });
    }

    private static (List<WorkBefore>, List<RowsTo>, List<RowsTo>, List<RowsTo>) Work(IDbConnection c, PersonId kept, PersonId gone, List<MovedRows> moved)
    {
        var (before, files, comments, turns) = (new List<WorkBefore>(), new List<RowsTo>(), new List<RowsTo>(), new List<RowsTo>());
        const string columns = "id, state, score, returned_score, handed_in_at, returned_at, chosen, returned_chosen";
        var both = c.Query<(long Mine, long Theirs)>("SELECT a.id, b.id FROM work a JOIN work b ON b.assignment_id = a.assignment_id AND b.student_id = @gone WHERE a.student_id = @kept", new { kept, gone }).ToList();
        foreach (var (mine, theirs) in both)
        {
            var a = WorkRow(c, columns, mine);
            var b = WorkRow(c, columns, theirs);
            before.AddRange([a, b]);
            files.Add(new(theirs, [.. c.Query<long>("SELECT id FROM work_file WHERE work_id = @theirs", new { theirs })]));
            comments.Add(new(theirs, [.. c.Query<long>("SELECT id FROM work_comment WHERE work_id = @theirs", new { theirs })]));
            turns.Add(new(theirs, [.. c.Query<long>("SELECT id FROM work_turn WHERE work_id = @theirs", new { theirs })]));
            c.Execute("UPDATE work_turn SET work_id = @mine WHERE work_id = @theirs", new { mine, theirs });
            c.Execute("UPDATE work_file SET work_id = @mine WHERE work_id = @theirs", new { mine, theirs });
            c.Execute("UPDATE work_comment SET work_id = @mine WHERE work_id = @theirs", new { mine, theirs });
            // The further of the two on its way is where the one that is kept stands.
            if (Array.IndexOf(Ways, b.State) > Array.IndexOf(Ways, a.State)) c.Execute("UPDATE work SET state = @State, score = @Score, returned_score = ifnull(@ReturnedScore, returned_score), chosen = @Chosen, returned_chosen = iif(@ReturnedScore IS NULL, returned_chosen, @ReturnedChosen), handed_in_at = @HandedInAt, returned_at = @ReturnedAt, version = version + 1 WHERE id = @mine", new { mine, b.State, b.Score, b.ReturnedScore, b.Chosen, b.ReturnedChosen, b.HandedInAt, b.ReturnedAt });
            c.Execute("UPDATE work SET state = 'Working', score = NULL, returned_score = NULL, chosen = NULL, returned_chosen = NULL, handed_in_at = NULL, returned_at = NULL, version = version + 1 WHERE id = @theirs", new { theirs });
        }
        var rest = c.Query<long>("SELECT w.id FROM work w WHERE w.student_id = @gone AND NOT EXISTS (SELECT 1 FROM work a WHERE a.assignment_id = w.assignment_id AND a.student_id = @kept)", new { kept, gone }).ToList();
        c.Execute("UPDATE work SET student_id = @kept WHERE id IN @rest", new { kept, rest });
        if (rest.Count > 0) moved.Add(new("work", "student_id", rest));
        return (before, files, comments, turns);
    }

    // A run makes one package of a class for each student: where both have one, the other's stays where the coordinator can hand it out.
    private static void Packages(IDbConnection c, PersonId kept, PersonId gone, List<MovedRows> moved)
    {
        var rows = c.Query<long>(
            """
            SELECT p.id FROM package p WHERE p.student_id = @gone
              AND NOT EXISTS (SELECT 1 FROM package k WHERE k.run_id = p.run_id AND k.class_id = p.class_id AND k.kind = p.kind AND k.student_id = @kept)
            """, new { kept, gone }).ToList();
        if (rows.Count == 0) return;
        c.Execute("UPDATE package SET student_id = @kept WHERE id IN @rows", new { kept, rows });
        moved.Add(new("package", "student_id", rows));
    }

    private static WorkBefore WorkRow(IDbConnection c, string columns, long id)
    {
        var w = c.QuerySingle<WorkThen>($"SELECT {columns} FROM work WHERE id = @id", new { id });
        return new(w.Id, w.State, (decimal?)w.Score, w.HandedInAt, w.ReturnedAt, (decimal?)w.ReturnedScore, w.Chosen, w.ReturnedChosen);
    }

    private sealed record WorkThen
    {
        public long Id { get; init; }
        public string State { get; init; } = "";
        public double? Score { get; init; }
        public double? ReturnedScore { get; init; }
        public string? HandedInAt { get; init; }
        public string? ReturnedAt { get; init; }
        public string? Chosen { get; init; }
        public string? ReturnedChosen { get; init; }
    }

    // An own folder that a plan made carries its student in its key, and so does what stands in it; where the one kept has none there, it takes the place.
    private static List<KeyBefore> Keys(IDbConnection c, PersonId kept, PersonId gone, List<MovedRows> moved)
    {
        var before = new List<KeyBefore>();
        if (moved.FirstOrDefault(m => m.Table == "folder") is not { } folders) return before;
        foreach (var here in c.Query<(long Id, long Class, string Key)>("SELECT id, class_id, plan_key FROM folder WHERE plan_key IS NOT NULL AND class_id IN (SELECT class_id FROM folder WHERE id IN @rows)", new { rows = folders.Rows })
            .Select(f => (f.Id, f.Class, Key: FolderKey.Parse(f.Key))).GroupBy(f => f.Class).ToList())
        {
            var taken = here.Select(f => f.Key).ToHashSet();
            foreach (var (id, _, key) in here.OrderBy(f => f.Key.Parts.Count))
            {
                var wanted = key.With(m => m is FolderMark.Student s && s.Id == gone ? new FolderMark.Student(kept) : m);
                // What stands in a folder goes with it: it takes the place only where that one did.
                if (wanted == key || taken.Contains(wanted) || (wanted.Parent is { } parent && parent != key.Parent && !before.Exists(b => b.Key == key.Parent!.Text))) continue;
                taken.Add(wanted);
                before.Add(new(id, key.Text));
                c.Execute("UPDATE folder SET plan_key = @wanted WHERE id = @id", new { id, wanted });
            }
        }
        return before;
    }

    private static (List<long>, List<LeftBefore>) Members(IDbConnection c, PersonId kept, PersonId gone, Instant at)
    {
        var classes = c.Query<long>("SELECT class_id FROM member WHERE person_id = @gone AND class_id NOT IN (SELECT class_id FROM member WHERE person_id = @kept)", new { kept, gone }).ToList();
        c.Execute("UPDATE member SET person_id = @kept WHERE person_id = @gone AND class_id IN @classes", new { kept, gone, classes });
        var left = c.Query<(long, string?)>("SELECT class_id, left_at FROM member WHERE person_id = @gone", new { gone }).Select(x => new LeftBefore(x.Item1, x.Item2)).ToList();
        c.Execute("UPDATE member SET left_at = @at WHERE person_id = @gone AND left_at IS NULL", new { gone, at });
        return (classes, left);
    }

    private static List<long> Pairs(IDbConnection c, string table, string column, PersonId kept, PersonId gone)
    {
        var rows = c.Query<long>($"SELECT {column} FROM {table} WHERE person_id = @gone AND {column} NOT IN (SELECT {column} FROM {table} WHERE person_id = @kept)", new { kept, gone }).ToList();
        c.Execute($"UPDATE {table} SET person_id = @kept WHERE person_id = @gone AND {column} IN @rows", new { kept, gone, rows });
        return rows;
    }

    // A year has one take-home of each person: where both have one, the other's stays where the coordinator can hand it out.
    private static List<TakeHomeMoved> TakeHomes(IDbConnection c, PersonId kept, PersonId gone)
    {
        var moved = c.Query<(long Year, string Sha256)>("SELECT year_id, sha256 FROM take_home WHERE person_id = @gone AND year_id NOT IN (SELECT year_id FROM take_home WHERE person_id = @kept)", new { kept, gone })
            .Select(t => new TakeHomeMoved(t.Year, t.Sha256)).ToList();
        foreach (var t in moved) c.Execute("UPDATE take_home SET person_id = @kept WHERE person_id = @gone AND year_id = @YearId", new { kept, gone, t.YearId });
        return moved;
    }

    private static PersonBefore Before(IDbConnection c, PersonId id)
    {
        var p = c.QuerySingle<(string? Record, string? Number, string? Email, string? Grade, string? School, long Active)>("SELECT record_id, student_number, email, grade, school, active FROM person WHERE id = @id", new { id });
        return new(id.Value, p.Record, p.Number, p.Email, p.Grade, p.School, p.Active == 1);
    }
}
