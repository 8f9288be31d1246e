using SpringLoft.Core.Workspaces;

namespace SpringLoft.Store.Workspaces;

/// <summary>
/// The one way a class goes, whoever asks: deleted for good, a roll-over undone, a delivery taken back. Every table that
/// refers to a class, or to what is in one, is named here; a test reads the schema and fails for one that is not.
/// </summary>
public static class ClassRemoval
{
    /// <summary>Rows that go with the class, leaves first: the table, its column, and the table of the class that the column refers to.</summary>
    public static IReadOnlyList<(string Table, string Column, string Of)> Goes { get; } =
    [
        ("filing", "item_id", "item"), ("filing", "folder_id", "folder"),
        ("work_turn_file", "turn_id", "work_turn"), ("work_turn", "work_id", "work"), ("work_turn", "class_id", "class"), ("item_version", "item_id", "item"),
        ("page_doc", "item_id", "item"), ("page_update", "item_id", "item"), ("page_writer", "item_id", "item"),
        ("score_import_mark", "work_id", "work"), ("score_import_mark", "class_id", "class"),
        ("work_file", "work_id", "work"), ("work_comment", "work_id", "work"), ("work", "assignment_id", "assignment"), ("work", "class_id", "class"),
        ("assignment_filing", "assignment_id", "assignment"), ("assignment_filing", "folder_id", "folder"), ("assignment_given", "assignment_id", "assignment"), ("assignment_group", "assignment_id", "assignment"), ("assignment_group", "group_id", "class_group"),
        ("assignment_thing", "assignment_id", "assignment"), ("assignment_thing", "item_id", "item"), ("assignment_upload", "class_id", "class"), ("assignment", "class_id", "class"),
        ("talk_message", "answers", "talk_message"), ("talk_message", "folder_id", "folder"), ("talk_message", "class_id", "class"), ("talk", "group_id", "class_group"), ("talk", "folder_id", "folder"), ("talk", "class_id", "class"),
        ("talk_reader", "class_id", "class"), ("talk_quiet", "class_id", "class"),
        ("asking", "item_id", "item"), ("item", "class_id", "class"), ("folder", "parent_id", "folder"), ("folder", "group_id", "class_group"), ("folder", "class_id", "class"),
        ("group_member", "group_id", "class_group"), ("class_group", "class_id", "class"),
        ("shelf_thing", "shelf_id", "shelf"), ("shelf_visit", "shelf_id", "shelf"), ("shelf", "class_id", "class"),
        ("activity", "class_id", "class"), ("notice_class", "group_id", "class_group"), ("notice_class", "class_id", "class"), ("class_resource", "class_id", "class"), ("class_blind", "class_id", "class"),
        ("package", "class_id", "class"), ("run_step", "class_id", "class"), ("run_class", "class_id", "class"), ("plan_put", "class_id", "class"),
        ("delivery_on_hold", "class_id", "class"), ("join_code", "class_id", "class"), ("join_wait", "class_id", "class"), ("invitation", "class_id", "class"),
        ("combined_section", "class_id", "class"), ("sign_off", "class_id", "class"), ("lead_offer", "class_id", "class"), ("member", "class_id", "class"),
    ];

    /// <summary>Rows of others that stay and no longer refer to the class: the table, the columns that become empty, and what the first of them refers to.</summary>
    public static IReadOnlyList<(string Table, string[] Columns, string Of)> LetsGo { get; } =
    [
        ("item", ["bank_id", "bank_version"], "item"), ("assignment", ["bank_id", "bank_version"], "assignment"), ("assignment", ["rolled_from"], "assignment"),
        ("class", ["rolled_from"], "class"), ("member", ["moved_to"], "class"), ("roll_line", ["made_id"], "class"),
    ];

    /// <summary>Columns that name a class and outlive it: what was done.</summary>
    public static IReadOnlyList<string> Outlives { get; } = ["audit.class_id"];

    /// <summary>Takes away everything of a class for good. The audit trail and the bytes of its files stay.</summary>
    public static void Go(IDbConnection c, ClassId id)
    {
        c.Execute("PRAGMA defer_foreign_keys = ON");
        foreach (var (table, columns, of) in LetsGo)
            c.Execute($"UPDATE {table} SET {string.Join(", ", columns.Select(x => $"{x} = NULL"))} WHERE {columns[0]} {Rows(of)}", new { id });
        foreach (var (table, column, of) in Goes) c.Execute($"DELETE FROM {table} WHERE {column} {Rows(of)}", new { id });
        c.Execute("DELETE FROM class WHERE id = @id", new { id });
    }

    private static string Rows(string of) => of == "class" ? "= @id" : $"IN (SELECT id FROM {of} WHERE class_id = @id)";

    /// <summary>What people did in a class since an act made it.</summary>
    /// <param name="madeAt">The moment of that act: what bears it, came with the class.</param>
    public static IReadOnlyList<ClassUse> UsedSince(IDbConnection c, ClassId id, Instant madeAt)
    {
        var used = c.QuerySingle<Used>(
            """
            SELECT EXISTS (SELECT 1 FROM class WHERE id = @id AND state <> 'InPreparation') AS opened,
              EXISTS (SELECT 1 FROM member WHERE class_id = @id AND role = 'Student') OR EXISTS (SELECT 1 FROM work WHERE class_id = @id) AS students,
              EXISTS (SELECT 1 FROM member WHERE class_id = @id AND role <> 'Student' AND joined_at <> @madeAt) AS people,
              EXISTS (SELECT 1 FROM item WHERE class_id = @id AND (added_at <> @madeAt OR version > 1)) AS things,
              EXISTS (SELECT 1 FROM assignment WHERE class_id = @id AND (made_at <> @madeAt OR version > 1)) AS assignments,
              EXISTS (SELECT 1 FROM notice_class WHERE class_id = @id) OR EXISTS (SELECT 1 FROM talk_message WHERE class_id = @id) AS notices,
              EXISTS (SELECT 1 FROM class_group g WHERE g.class_id = @id AND (EXISTS (SELECT 1 FROM group_member m WHERE m.group_id = g.id) OR (SELECT rolled_from FROM class WHERE id = @id) IS NULL)) AS groups,
              EXISTS (SELECT 1 FROM shelf WHERE class_id = @id) AS shelf,
              EXISTS (SELECT 1 FROM class WHERE rolled_from = @id) AS made_into
            """, new { id, madeAt });
        return [.. Enum.GetValues<ClassUse>().Where(used.Of)];
    }

    private sealed record Used
    {
        public bool Opened { get; init; }
        public bool Students { get; init; }
        public bool People { get; init; }
        public bool Things { get; init; }
        public bool Assignments { get; init; }
        public bool Notices { get; init; }
        public bool Groups { get; init; }
        public bool Shelf { get; init; }
        public bool MadeInto { get; init; }

        internal bool Of(ClassUse use) => use switch
        {
            ClassUse.Opened => Opened,
            ClassUse.Students => Students,
            ClassUse.People => People,
            ClassUse.Things => Things,
            ClassUse.Assignments => Assignments,
            ClassUse.Notices => Notices,
            ClassUse.Groups => Groups,
            ClassUse.Shelf => Shelf,
            ClassUse.MadeInto => MadeInto,
            _ => throw new ArgumentOutOfRangeException(nameof(use)),
        };
    }
}
