using SpringLoft.Core.Closing;
using SpringLoft.Core.Workspaces;

namespace SpringLoft.Store.Closing;

/// <summary>Counts of one class, as the board and the closing desk need them.</summary>
public sealed record ClassCounts
{
    public ClassId ClassId { get; init; }
    public int Students { get; init; }

    /// <summary>With those who left: their work is packed too.</summary>
    public int StudentsEver { get; init; }
    public int Groups { get; init; }
    public int GroupMembers { get; init; }
    public int Folders { get; init; }
    public int PlanFolders { get; init; }
    public int OwnFolders { get; init; }
    public int Assignments { get; init; }
    public int DraftAssignments { get; init; }
    public int HeldMarked { get; init; }
    public int LooseDrafts { get; init; }
    public int HeldUnmarked { get; init; }
    public int Returned { get; init; }
    public int Unsent { get; init; }
    public int Unfiled { get; init; }
    public bool RunGoing { get; init; }
    public ClassState? NextYear { get; init; }
    public int BlindCopies { get; init; }
    public int Invitations { get; init; }
    public int OnHold { get; init; }
    public bool CalendarOn { get; init; }
    public bool ShelfSet { get; init; }

    /// <summary>As the rules on closing see it.</summary>
    public ClosingFacts Facts(ClassState state) =>
        new(state, Students, HeldMarked, HeldUnmarked, Unsent, Unfiled, DraftAssignments, NextYear is not null, RunGoing)
        {
            LooseDrafts = LooseDrafts,
            BlindCopies = BlindCopies,
            Invitations = Invitations,
            OnHold = OnHold,
            CalendarOn = CalendarOn,
            ShelfSet = ShelfSet,
        };
}

/// <summary>Counts for readiness: reads what others own, owns nothing.</summary>
public static class ClosingStore
{
    /// <summary>Counts for all classes of a year, or for one of them. One pass over each table, not one a class.</summary>
    /// <param name="today">A shelf is open until its day is over.</param>
    /// <param name="now">An invitation is open until it runs out.</param>
    public static IReadOnlyDictionary<ClassId, ClassCounts> Counts(IDbConnection c, YearId year, LocalDate today, Instant now, ClassId? only = null) => c.Query<ClassCounts>(
        """
        WITH k AS MATERIALIZED (SELECT id FROM class WHERE year_id = @year AND (@only IS NULL OR id = @only)),
        m AS (SELECT class_id, sum(left_at IS NULL) AS students, count(*) AS students_ever FROM member WHERE class_id IN (SELECT id FROM k) AND role = 'Student' GROUP BY class_id),
        gr AS (SELECT g.class_id, count(DISTINCT g.id) AS groups, count(m.person_id) AS group_members
          FROM class_group g LEFT JOIN group_member x ON x.group_id = g.id LEFT JOIN member m ON m.class_id = g.class_id AND m.person_id = x.person_id AND m.left_at IS NULL
          WHERE g.class_id IN (SELECT id FROM k) AND g.binned_at IS NULL GROUP BY g.class_id),
        f AS (SELECT class_id, count(*) AS folders, count(plan_key) AS plan_folders, count(DISTINCT student_id) AS own_folders
          FROM folder WHERE class_id IN (SELECT id FROM k) AND binned_at IS NULL GROUP BY class_id),
        -- Folders of students who left stand on, but the plan no longer asks for them, nor for what is in them.
        g AS (
          SELECT m.class_id, count(DISTINCT d.student_id) AS own_folders,
            sum((d.plan_key IS NOT NULL) + (SELECT count(*) FROM folder s WHERE s.class_id = d.class_id AND s.binned_at IS NULL AND s.plan_key > d.plan_key || '/' AND s.plan_key < d.plan_key || '0')) AS plan_folders
          FROM member m JOIN folder d ON d.class_id = m.class_id AND d.student_id = m.person_id AND d.binned_at IS NULL
          WHERE m.class_id IN (SELECT id FROM k) AND m.left_at IS NOT NULL GROUP BY m.class_id),
        a AS (SELECT class_id, count(*) AS assignments, sum(published_at IS NULL) AS draft_assignments
          FROM assignment WHERE class_id IN (SELECT id FROM k) AND binned_at IS NULL GROUP BY class_id),
        w AS (
          SELECT class_id, sum(CASE state WHEN 'HandedIn' THEN marked END) AS held_marked, sum(CASE state WHEN 'HandedIn' THEN pieces - marked END) AS held_unmarked,
            sum(loose) AS loose_drafts, sum(CASE state WHEN 'Returned' THEN pieces END) AS returned, sum(CASE state WHEN 'Working' THEN pieces END) AS unsent
          FROM (SELECT class_id, state, count(*) AS pieces, count(score) AS marked, sum(state <> 'HandedIn' AND score IS NOT NULL AND (state <> 'Returned' OR score IS NOT returned_score OR chosen IS NOT returned_chosen)) AS loose FROM work WHERE class_id IN (SELECT id FROM k) GROUP BY class_id, state) GROUP BY class_id),
        u AS (
          SELECT i.class_id, count(*) AS unfiled FROM item i
          WHERE i.class_id IN (SELECT id FROM k) AND i.binned_at IS NULL
            AND NOT EXISTS (SELECT 1 FROM filing x JOIN folder d ON d.id = x.folder_id WHERE x.item_id = i.id AND d.binned_at IS NULL) GROUP BY i.class_id),
        r AS (SELECT DISTINCT class_id FROM run_class WHERE state IN ('Waiting', 'Working') AND run_id IN (SELECT id FROM run WHERE kind = 'Closing')),
        -- Held, and its student has those bytes in no place of their own: not in a folder, not in other work that is with them.
        b AS (
          SELECT w.class_id, count(DISTINCT w.id) AS blind_copies FROM work w JOIN work_file x ON x.work_id = w.id
          WHERE w.class_id IN (SELECT id FROM k) AND w.state = 'HandedIn'
            AND NOT EXISTS (SELECT 1 FROM item i WHERE i.sha256 = x.sha256 AND i.added_by = w.student_id AND i.binned_at IS NULL)
            AND NOT EXISTS (SELECT 1 FROM work_file y JOIN work v ON v.id = y.work_id WHERE +y.sha256 = x.sha256 AND v.student_id = w.student_id AND v.state <> 'HandedIn') GROUP BY w.class_id),
        iv AS (SELECT class_id, count(*) AS invitations FROM invitation WHERE class_id IN (SELECT id FROM k) AND accepted_at IS NULL AND withdrawn_at IS NULL AND expires_at > @now GROUP BY class_id),
        oh AS (SELECT class_id, sum(changes) AS on_hold FROM delivery_on_hold WHERE class_id IN (SELECT id FROM k) AND delivery_id IN (SELECT id FROM delivery WHERE state IN ('Waiting', 'Applied')) GROUP BY class_id),
        n AS (SELECT rolled_from, min(state) AS next_year FROM class WHERE rolled_from IS NOT NULL AND kind = 'Class' AND binned_at IS NULL GROUP BY rolled_from)
        SELECT k.id AS class_id, ifnull(m.students, 0) AS students, ifnull(m.students_ever, 0) AS students_ever, ifnull(gr.groups, 0) AS groups, ifnull(gr.group_members, 0) AS group_members, ifnull(f.folders, 0) AS folders, ifnull(f.plan_folders, 0) - ifnull(g.plan_folders, 0) AS plan_folders,
          ifnull(f.own_folders, 0) - ifnull(g.own_folders, 0) AS own_folders, ifnull(a.assignments, 0) AS assignments, ifnull(a.draft_assignments, 0) AS draft_assignments,
          ifnull(w.held_marked, 0) AS held_marked, ifnull(w.held_unmarked, 0) AS held_unmarked, ifnull(w.loose_drafts, 0) AS loose_drafts, ifnull(w.returned, 0) AS returned, ifnull(w.unsent, 0) AS unsent,
          ifnull(u.unfiled, 0) AS unfiled, r.class_id IS NOT NULL AS run_going, n.next_year,
          ifnull(b.blind_copies, 0) AS blind_copies, ifnull(iv.invitations, 0) AS invitations, ifnull(oh.on_hold, 0) AS on_hold,
          (SELECT calendar_token IS NOT NULL FROM class WHERE id = k.id) AS calendar_on, EXISTS (SELECT 1 FROM shelf s WHERE s.class_id = k.id AND s.shut_at IS NULL AND s.until_day >= @today) AS shelf_set
        FROM k LEFT JOIN m ON m.class_id = k.id LEFT JOIN gr ON gr.class_id = k.id LEFT JOIN f ON f.class_id = k.id LEFT JOIN g ON g.class_id = k.id LEFT JOIN a ON a.class_id = k.id LEFT JOIN w ON w.class_id = k.id
          LEFT JOIN u ON u.class_id = k.id LEFT JOIN r ON r.class_id = k.id LEFT JOIN n ON n.rolled_from = k.id
          LEFT JOIN b ON b.class_id = k.id LEFT JOIN iv ON iv.class_id = k.id LEFT JOIN oh ON oh.class_id = k.id
        """, new { year, only, today, now }).ToDictionary(x => x.ClassId);

    /// <summary>How many files a class's package will hold, each at every place it is filed, and their size in bytes.</summary>
    public static (int Files, long Bytes) FilesOf(IDbConnection c, ClassId id) => c.QuerySingle<(int, long)>(
        """
        SELECT count(*), ifnull(sum(size), 0) FROM (
          SELECT b.size FROM item i JOIN blob b ON b.sha256 = i.sha256
            LEFT JOIN filing x ON x.item_id = i.id AND x.folder_id IN (SELECT id FROM folder WHERE class_id = @id AND binned_at IS NULL)
          WHERE i.class_id = @id AND i.binned_at IS NULL
          UNION ALL
          SELECT b.size FROM work w JOIN work_file f ON f.work_id = w.id JOIN blob b ON b.sha256 = f.sha256 JOIN assignment a ON a.id = w.assignment_id WHERE w.class_id = @id AND a.binned_at IS NULL
          UNION ALL
          SELECT b.size FROM assignment_thing t JOIN assignment a ON a.id = t.assignment_id LEFT JOIN item i ON i.id = t.item_id JOIN blob b ON b.sha256 = ifnull(i.sha256, t.sha256)
            WHERE a.class_id = @id AND a.binned_at IS NULL AND i.binned_at IS NULL
          UNION ALL
          SELECT b.size FROM notice_file f JOIN notice_class x ON x.notice_id = f.notice_id JOIN blob b ON b.sha256 = f.sha256 WHERE x.class_id = @id
          UNION ALL
          SELECT b.size FROM (SELECT DISTINCT t.work_id, f.sha256 FROM work_turn t JOIN work_turn_file f ON f.turn_id = t.id
              WHERE t.class_id = @id AND NOT EXISTS (SELECT 1 FROM work_file x WHERE x.work_id = t.work_id AND x.sha256 = f.sha256)) e
            JOIN blob b ON b.sha256 = e.sha256 JOIN work w ON w.id = e.work_id JOIN assignment a ON a.id = w.assignment_id WHERE a.binned_at IS NULL)
        """, new { id });
}
