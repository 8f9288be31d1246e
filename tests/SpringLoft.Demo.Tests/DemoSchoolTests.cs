using SpringLoft.App.Workspaces;
using Dapper;
using Microsoft.Extensions.Logging.Abstractions;
using NodaTime;
using SpringLoft.App;
using SpringLoft.App.Closing;
using SpringLoft.App.Years;
using SpringLoft.Core.Workspaces;
using SpringLoft.Demo;
using SpringLoft.Store;
using SpringLoft.Store.Files;
using SpringLoft.Store.People;
using SpringLoft.Tests.Shared;

namespace SpringLoft.Demo.Tests;

/// <summary>The demo school as it is promised to those who try the program, made once for all of these.</summary>
public sealed class DemoSchoolTests(DemoSchoolTests.Made made) : IClassFixture<DemoSchoolTests.Made>
{
    public sealed class Made : IDisposable
    {
        private readonly Scratch scratch = new();

        public Made()
        {
            var clock = new SchoolClock(SystemClock.Instance, DateTimeZone.Utc);
            clock.MoveTo(new LocalDate(2027, 6, 7));
            Premises = new(new Database(scratch.Under("demo.db")), new FileStore(scratch.Under("files")), clock);
            SignIns = Make();
        }

        public Premises Premises { get; }

        public string SignIns { get; }

        public string Make() => DemoSchool.MakeOnce(Premises, new ClosingRunner(Premises, new RunNews(), new NoMilestones(), NullLogger<ClosingRunner>.Instance, new(Premises)), _ => { });

        /// <summary>The database as a file of its own, to be changed at will.</summary>
        public void CopyTo(string file)
        {
            using var c = new Microsoft.Data.Sqlite.SqliteConnection($"Data Source={Premises.Db.Path};Pooling=False");
            c.Execute("VACUUM INTO @file", new { file });
        }

        public void Dispose()
        {
            Premises.Db.Dispose();
            scratch.Dispose();
        }
    }

    private T Ask<T>(string sql) => made.Premises.Db.Read(c => c.ExecuteScalar<T>(sql))!;

    private BoardView Board()
    {
        var wren = made.Premises.Db.Read(c => PersonStore.ByUserName(c, "wren"))!;
        return new YearBoard(made.Premises, new BlindCounts(made.Premises)).See(new Caller(wren.Id, wren.Role, wren.Name.Display), null);
    }

    [Fact]
    public void There_are_260_students_16_staff_and_24_classes_this_year()
    {
        Ask<int>("SELECT count(*) FROM person WHERE role = 'Student' AND student_number IS NOT NULL").ShouldBe(260);
        // One of them was typed in a second time, as happens.
        Ask<int>("SELECT count(*) FROM person WHERE role = 'Student'").ShouldBe(261);
        Ask<int>("SELECT count(*) FROM person WHERE role <> 'Student'").ShouldBe(16);
        Board().Rows.Count.ShouldBe(24);
    }

    [Fact]
    public void Last_year_is_in_the_loft_with_checked_packages_and_next_year_is_begun()
    {
        Ask<int>("SELECT count(*) FROM class k JOIN package p ON p.class_id = k.id AND p.kind = 'Archive' AND p.verified_at IS NOT NULL WHERE k.state = 'Archived'").ShouldBe(16);
        Ask<int>("SELECT count(*) FROM class WHERE rolled_from IS NOT NULL AND state = 'InPreparation'").ShouldBe(8);
    }

    [Fact]
    public void This_year_has_the_untidiness_of_real_life()
    {
        var board = Board();

        board.Blocked.ShouldBe(6);
        board.HeldPieces.ShouldBe(15);
        board.Attention.ShouldBe(4);
        board.Rows.Where(r => r.Cells.Folders.State == CellState.Attention).Count().ShouldBe(2);
    }

    [Fact]
    public void Every_student_on_a_roster_has_a_folder_of_their_own_but_where_a_teacher_binned_one() =>
        Ask<int>("""
            SELECT count(*) FROM member m JOIN class k ON k.id = m.class_id
            WHERE m.role = 'Student' AND NOT EXISTS (SELECT 1 FROM folder f WHERE f.class_id = m.class_id AND f.student_id = m.person_id)
            """).ShouldBe(0);

    [Fact]
    public void A_second_start_makes_nothing_new()
    {
        var before = Ask<long>("SELECT max(id) FROM audit");

        made.Make().ShouldBe(made.SignIns);

        Ask<long>("SELECT max(id) FROM audit").ShouldBe(before);
    }

    [Fact]
    public void The_sign_ins_that_are_printed_are_there()
    {
        foreach (var name in (string[])["wren", "oisin", DemoSchool.StudentUserName])
        {
            made.SignIns.ShouldContain(name);
            made.Premises.Db.Read(c => PersonStore.ByUserName(c, name)).ShouldNotBeNull();
        }
    }
}
