using Dapper;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.Store.Tests.Workspaces;

public class ClassRemovalTests : StoreTest
{
    /// <summary>Everything that refers to a class, or to what is in one, is known to what removes classes.</summary>
    [Fact]
    public void No_table_of_the_schema_is_forgotten() => Db.Read(c =>
    {
        var gone = ClassRemoval.Goes.Select(g => g.Of).Distinct().ToHashSet();
        var known = ClassRemoval.Goes.Select(g => (g.Table, g.Column, g.Of)).Concat(ClassRemoval.LetsGo.Select(l => (l.Table, l.Columns[0], l.Of))).ToHashSet();
        var refers = AnyRows.Tables(c).SelectMany(t => c.Query($"PRAGMA foreign_key_list({t})").Select(k => (Table: t, Column: (string)k.@from, Of: (string)k.table))).Where(k => gone.Contains(k.Of)).ToList();
        var bare = AnyRows.Tables(c).SelectMany(t => c.Query($"PRAGMA table_info({t})").Select(x => $"{t}.{x.name}")).Where(x => x.EndsWith(".class_id", StringComparison.Ordinal))
            .Except(refers.Select(k => $"{k.Table}.{k.Column}")).Except(known.Select(k => $"{k.Table}.{k.Item2}")).ToList();

        refers.Except(known).ShouldBeEmpty();
        bare.ShouldBe(ClassRemoval.Outlives, ignoreOrder: true);
        return true;
    });

    [Fact]
    public void A_class_goes_whole_with_rows_in_every_table_and_another_keeps_all_of_its_own()
    {
        using var scratch = new Scratch();
        using var db = new Database(scratch.Under("full.db"));
        Dictionary<string, List<string>> before = [];
        using (var raw = new Microsoft.Data.Sqlite.SqliteConnection($"Data Source={scratch.Under("full.db")};Pooling=False"))
        {
            raw.Open();
            AnyRows.Fill(raw);
            before = Of(raw, 2);
        }

        db.Write(c => ClassRemoval.Go(c, new(1)));

        db.Read(c => c.Query("PRAGMA foreign_key_check").ToList()).ShouldBeEmpty();
        db.Read(c => c.Query<long>("SELECT id FROM class")).ShouldBe([2]);
        db.Read(c => Of(c, 1)).Where(x => !ClassRemoval.Outlives.Contains(x.Key)).ShouldAllBe(x => x.Value.Count == 0);
        foreach (var (column, rows) in db.Read(c => Of(c, 2))) rows.ShouldBe(before[column], column);
        before.Values.Count(rows => rows.Count > 0).ShouldBeGreaterThan(15);
    }

    // Rows that name a class, by column.
    private static Dictionary<string, List<string>> Of(System.Data.IDbConnection c, long id) => AnyRows.Tables(c)
        .SelectMany(t => c.Query($"PRAGMA table_info({t})").Where(x => (string)x.name == "class_id").Select(_ => t)).ToDictionary(t => $"{t}.class_id", t => c.Query($"SELECT * FROM {t} WHERE class_id = @id ORDER BY 1, 2", new { id }).Select(r => string.Join("|", ((IDictionary<string, object>)r).Values)).ToList());

    [Fact]
    public void A_class_that_nothing_was_added_to_is_not_used()
    {
        Db.Write(c =>
        {
            FolderStore.Add(c, Class, null, "Papers", 0, FolderRule.ClassViews, null, null);
            ItemStore.Add(c, Class, new ItemRow { Kind = ItemKind.Link, Name = "a", Url = "https://a.example/", AddedBy = Teacher, AddedAt = At });
            RosterStore.Put(c, Class, Teacher, ClassRole.Lead, At);
        });

        Db.Read(c => ClassRemoval.UsedSince(c, Class, At)).ShouldBeEmpty();
    }

    public static TheoryData<string, ClassUse> Used => new()
    {
        { "UPDATE class SET state = 'Open' WHERE id = @id", ClassUse.Opened },
        { "INSERT INTO member(class_id, person_id, role, joined_at) SELECT @id, id, 'Student', '2026-09-01T08:00:00Z' FROM person WHERE user_name = 'umi'", ClassUse.Students },
        { "INSERT INTO member(class_id, person_id, role, joined_at) SELECT @id, id, 'CoTeacher', '2026-09-02T08:00:00Z' FROM person WHERE user_name = 'umi'", ClassUse.People },
        { "INSERT INTO item(class_id, kind, name, added_by, by_student, added_at) SELECT @id, 'Link', 'x', id, 0, '2026-09-02T08:00:00Z' FROM person LIMIT 1", ClassUse.Things },
        { "INSERT INTO assignment(class_id, title, title_key, instructions, made_at, version) VALUES(@id, 'A', 'a', '', '2026-09-01T08:00:00Z', 2)", ClassUse.Assignments },
        { "INSERT INTO notice(author_id, text, made_at) SELECT id, 'n', '2026-09-01T08:00:00Z' FROM person LIMIT 1; INSERT INTO notice_class(notice_id, class_id) SELECT max(id), @id FROM notice", ClassUse.Notices },
        { "INSERT INTO class_group(class_id, name, name_key, position) VALUES(@id, 'Crew', 'CREW', 0)", ClassUse.Groups },
        { "INSERT INTO shelf(class_id, token, title, text, until_day, made_at, made_by) SELECT @id, 't', 's', '', '2027-08-01', '2026-09-02T08:00:00Z', id FROM person LIMIT 1", ClassUse.Shelf },
        { "INSERT INTO class(year_id, course_id, name, name_key, state, teacher_shown, made_at, rolled_from) SELECT year_id, course_id, 'N', 'N', 'Open', '', made_at, id FROM class WHERE id = @id", ClassUse.MadeInto },
    };

    [Theory]
    [MemberData(nameof(Used))]
    public void What_people_did_in_it_since_is_named(string sql, ClassUse use)
    {
        Db.Write(c =>
        {
            Person(c, SchoolRole.Student, "Umi", "H", "umi", "1001");
            c.Execute(sql, new { id = Class });
        });

        Db.Read(c => ClassRemoval.UsedSince(c, Class, At)).ShouldBe([use]);
    }

    [Fact]
    public void Every_kind_of_use_has_a_case_here() => Used.Select(u => (ClassUse)u[1]).Order().ShouldBe(Enum.GetValues<ClassUse>());
}
