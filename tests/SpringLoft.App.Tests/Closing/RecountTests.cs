using System.Data;
using CsCheck;
using Dapper;
using SpringLoft.App.Assignments;
using SpringLoft.App.Closing;
using SpringLoft.App.Rosters;
using SpringLoft.App.Workspaces;
using SpringLoft.App.Years;
using SpringLoft.Core.Assignments;

namespace SpringLoft.App.Tests.Closing;

/// <summary>
/// Schools in random states, made by the acts of people as in <see cref="LastCopyModelTests"/>: each figure of the board, the
/// closing desk, the gate, the loft, the combined desk and the take-homes is counted again by plain SQL, a class and a thing at a time.
/// </summary>
public sealed class RecountTests
{
    private const int Schools = 200;

    [Fact]
    public void Every_figure_is_what_plain_counting_comes_to()
    {
        var figures = 0;
        Gen.Select(Gen.Int[0, LastCopyModelTests.Acts.Length - 1], Gen.Bool).List[4, 24].Sample(sequence =>
        {
            using var world = new LastCopyModelTests.World();
            var school = world.School;
            var combined = new CombinedRosters(school.Premises, school.Returns);
            var list = combined.Make(school.Lead, "Both", [new(school.Class, 0), new(world.Other, 1)]);
            new Invitations(school.Premises).Send(school.Lead, school.Class, "a@x.invalid b@x.invalid", ClassRole.Student, "https://l.invalid");
            var done = new List<string>();
            foreach (var (which, first) in sequence)
            {
                done.Add(LastCopyModelTests.Acts[which].Name);
                try { LastCopyModelTests.Acts[which].Do(world, first ? school.Umi : school.Rúna); }
                catch (Exception e) when (e is RefusedException or InvalidOperationException) { }
            }
            try
            {
                foreach (var year in school.Years.Select(y => y.Id).Distinct()) figures += Recount(school, year);
                Combined(school, combined, list);
            }
            catch (Exception e) when (e is not ShouldAssertException) { throw new InvalidOperationException(string.Join("; ", done), e); }
            catch (ShouldAssertException e) { throw new ShouldAssertException($"{e.Message}\nafter {string.Join("; ", done)}"); }
        }, iter: Schools, threads: 1);
        figures.ShouldBeGreaterThan(Schools * 20);
    }

    private static int Recount(TinySchool school, YearId year) => school.Read(c =>
    {
        var figures = 0;
        void Same(string what, long told, long counted)
        {
            figures++;
            told.ShouldBe(counted, what);
        }
        long Count(string sql, object? of = null) => c.ExecuteScalar<long>($"SELECT count(*) FROM {sql}", of);

        var board = new YearBoard(school.Premises, new BlindCounts(school.Premises)).See(school.Coordinator, year);
        var desk = school.Runs.See(school.Coordinator, year);
        var classes = c.Query<(long Id, string Name, string State)>("SELECT id, name, state FROM class WHERE year_id = @year AND kind = 'Class' AND binned_at IS NULL", new { year }).ToList();
        board.Rows.Select(r => r.Id.Value).ShouldBe(classes.Select(k => k.Id), ignoreOrder: true);
        desk.Classes.Select(r => r.Id.Value).ShouldBe(classes.Select(k => k.Id), ignoreOrder: true);
        foreach (var (id, name, state) in classes)
        {
            var (b, d) = (board.Rows.Single(r => r.Id.Value == id), desk.Classes.Single(r => r.Id.Value == id));
            var students = Count("member WHERE class_id = @id AND role = 'Student' AND left_at IS NULL", new { id });
            var held = Count("work WHERE class_id = @id AND state = 'HandedIn'", new { id });
            var returned = Count("work WHERE class_id = @id AND state = 'Returned'", new { id });
            var marked = Count("work WHERE class_id = @id AND state = 'HandedIn' AND score IS NOT NULL", new { id });
            var unfiled = c.Query<long>("SELECT id FROM item WHERE class_id = @id AND binned_at IS NULL", new { id }).Count(i => Count("filing x JOIN folder f ON f.id = x.folder_id WHERE x.item_id = @i AND f.binned_at IS NULL", new { i }) == 0);
            Same($"{name}: students of the board", b.Students, students);
            Same($"{name}: held of the board", b.Held, held);
            Same($"{name}: draft marks of the board", b.HeldMarked, marked);
            Same($"{name}: unfiled of the board", b.Unfiled, unfiled);
            Same($"{name}: held of the desk", d.Held, held);
            Same($"{name}: draft marks of the desk", d.DraftMarks, marked);
            Same($"{name}: unfiled of the desk", d.Unfiled, unfiled);
            Same($"{name}: only copies", d.OnlyCopies, OnlyCopies(c, id));
            var now = school.Clock.GetCurrentInstant();
            Same($"{name}: invitations", d.Invitations, new Invitations(school.Premises).Of(new(id)).Count(i => i.State == InvitationState.Open));
            Same($"{name}: invitations, counted", d.Invitations, Count("invitation WHERE class_id = @id AND accepted_at IS NULL AND withdrawn_at IS NULL AND expires_at > @now", new { id, now }));
            Same($"{name}: on hold", d.OnHold, c.ExecuteScalar<long?>("SELECT sum(h.changes) FROM delivery_on_hold h JOIN delivery x ON x.id = h.delivery_id WHERE h.class_id = @id AND x.state IN ('Waiting', 'Applied')", new { id }) ?? 0);
            Same($"{name}: next year made", d.NextYearMade ? 1 : 0, Math.Min(1, Count("class WHERE rolled_from = @id AND kind = 'Class' AND binned_at IS NULL", new { id })));
            Same($"{name}: shelf", d.ShelfSet ? 1 : 0, Math.Min(1, Count("shelf WHERE class_id = @id AND shut_at IS NULL AND until_day >= @today", new { id, today = school.Premises.Clock.Today })));
            Same($"{name}: calendar", d.CalendarOn ? 1 : 0, Count("class WHERE id = @id AND calendar_token IS NOT NULL", new { id }));
            b.State.ShouldBe(Enum.Parse<ClassState>(state));
            d.State.ShouldBe(b.State);
            // What is said in words is the same figure.
            if (state == "Open") (held > 0).ShouldBe(b.Cells.Close.Text == $"{held} held", $"{name}: {b.Cells.Close.Text}, {held} held");
            if (state == "InPreparation") b.Cells.Close.Text.ShouldBe("not open yet");
            if (held + returned > 0) b.Cells.Work.Text.ShouldBe(held == 0 ? $"{returned} back" : $"{returned} back, {held} held");
            if (students == 0) b.Cells.Roster.Text.ShouldBe(state == "Archived" ? "enrollment ended" : d.OnHold > 0 ? $"0, {d.OnHold} on hold" : "nobody yet");
            // "Wants attention" has a column that shows why.
            if (state == "Open" && d.Level == Core.Closing.FindingLevel.Attention) d.Findings.ShouldContain(f => f.Level == Core.Closing.FindingLevel.Attention && f.Code != "next-year", $"{name} wants attention for no reason");
            // What a plan of closing and the package itself say of files is one figure.
            if (school.Runs.Plan(school.Coordinator, [new(id)], new(AfterArchive.View)).Classes.SingleOrDefault() is { Skipped: null } planned)
            {
                Same($"{name}: files of the plan", planned.Files, PlainFiles(c, id));
                Same($"{name}: students of the plan", planned.Students, Count("member WHERE class_id = @id AND role = 'Student'", new { id }));
            }
        }
        Same("ready of the board", board.Ready + board.Attention + board.Blocked, classes.Count(k => k.State == "Open"));
        Same("held of the board", board.HeldPieces, classes.Sum(k => Count("work WHERE class_id = @Id AND state = 'HandedIn'", new { k.Id })));

        var gate = new NewYearGate(school.Premises).See(year);
        var verified = classes.Count(k => k.State == "Archived" && Count("package WHERE class_id = @Id AND kind = 'Archive' AND verified_at IS NOT NULL", new { k.Id }) > 0);
        Same("classes of the gate", gate.Classes, classes.Count);
        Same("verified", gate.Verified, verified);
        Same("missing and signed off", gate.Missing.Count + gate.Exceptions.Count, classes.Count - verified);
        Same("entrants", gate.Entrants, Count("person p WHERE p.role = 'Student' AND p.active = 1 AND p.id NOT IN (SELECT m.person_id FROM member m JOIN class k ON k.id = m.class_id WHERE k.year_id = @year AND m.role = 'Student')", new { year }));
        Same("students who go up", gate.Grades.Sum(g => g.Students), Count("person WHERE role = 'Student' AND active = 1 AND grade IS NOT NULL"));

        var loft = school.Loft.See(school.Coordinator).SelectMany(y => y.Classes).ToList();
        Same("the loft", loft.Count, Count("class WHERE state = 'Archived' AND binned_at IS NULL"));
        // As many as the plan said before, for nothing in an archived class changes.
        foreach (var k in loft.Where(k => k.Package is not null)) Same($"files of {k.Name} in the loft", k.Files ?? 0, PlainFiles(c, k.Id.Value));

        var homes = school.TakeHomes.See(school.Coordinator, year);
        foreach (var h in homes.Students)
        {
            Same($"held of {h.SortName}", h.Held, Count("work w JOIN class k ON k.id = w.class_id WHERE w.student_id = @Student AND w.state = 'HandedIn' AND k.year_id = @year AND k.binned_at IS NULL", new { h.Student, year }));
            Same($"take-home of {h.SortName}", h.MadeAt is null ? 0 : 1, Count("take_home WHERE person_id = @Student AND year_id = @year", new { h.Student, year }));
        }
        return figures;
    });

    private static void Combined(TinySchool school, CombinedRosters combined, long list) => school.Read(c =>
    {
        var seen = combined.See(school.Lead, list);
        foreach (var s in seen.Sections)
        {
            ((long)s.Students).ShouldBe(c.ExecuteScalar<long>("SELECT count(*) FROM member WHERE class_id = @Class AND role = 'Student' AND left_at IS NULL", new { s.Class }), $"students of {s.Name}");
            ((long)s.Held).ShouldBe(c.ExecuteScalar<long>("SELECT count(*) FROM work WHERE class_id = @Class AND state = 'HandedIn'", new { s.Class }), $"held of {s.Name}");
        }
        foreach (var a in seen.Assignments)
        {
            var counts = c.Query<double>(
                """
                SELECT w.returned_score FROM work w JOIN assignment a ON a.id = w.assignment_id JOIN member m ON m.class_id = w.class_id AND m.person_id = w.student_id AND m.left_at IS NULL
                WHERE a.title = @Title AND w.class_id IN @sections AND w.returned_score IS NOT NULL AND a.binned_at IS NULL AND m.role = 'Student'
                """, new { a.Title, sections = seen.Sections.Select(s => s.Class.Value).ToList() }).ToList();
            (a.Numbers.Count, a.Numbers.Mean).ShouldBe((counts.Count, counts.Count == 0 ? null : counts.Average()), $"marks that count for {a.Title}");
        }
        return 0;
    });

    // Held, and none of its student's own places has one of its files: asked file by file.
    private static long OnlyCopies(IDbConnection c, long id) => c.Query<(long Work, long Student)>("SELECT id, student_id FROM work WHERE class_id = @id AND state = 'HandedIn'", new { id })
        .Count(w => c.Query<string>("SELECT sha256 FROM work_file WHERE work_id = @Work", new { w.Work }).Any(sha =>
            c.ExecuteScalar<long>("SELECT count(*) FROM item WHERE sha256 = @sha AND added_by = @Student AND binned_at IS NULL", new { sha, w.Student }) == 0
            && c.ExecuteScalar<long>("SELECT count(*) FROM work_file f JOIN work x ON x.id = f.work_id WHERE f.sha256 = @sha AND x.student_id = @Student AND x.state <> 'HandedIn'", new { sha, w.Student }) == 0));

    // Each thing at each place where it is filed, or once where it is unfiled; each file of work; and what was handed in before and is no more in it.
    private static long PlainFiles(IDbConnection c, long id)
    {
        long n = 0;
        foreach (var i in c.Query<long>("SELECT id FROM item WHERE class_id = @id AND binned_at IS NULL AND sha256 IS NOT NULL", new { id }))
            n += Math.Max(1, c.ExecuteScalar<long>("SELECT count(*) FROM filing x JOIN folder f ON f.id = x.folder_id WHERE x.item_id = @i AND f.binned_at IS NULL", new { i }));
        foreach (var w in c.Query<long>("SELECT w.id FROM work w JOIN assignment a ON a.id = w.assignment_id WHERE w.class_id = @id AND a.binned_at IS NULL", new { id }))
        {
            var now = c.Query<string>("SELECT sha256 FROM work_file WHERE work_id = @w", new { w }).ToList();
            var before = c.Query<string>("SELECT DISTINCT f.sha256 FROM work_turn t JOIN work_turn_file f ON f.turn_id = t.id WHERE t.work_id = @w", new { w }).ToList();
            n += now.Count + before.Except(now).Count();
        }
        return n;
    }
}
