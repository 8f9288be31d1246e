using SpringLoft.App.Workspaces;
using SpringLoft.App.Years;

namespace SpringLoft.App.Tests.Workspaces;

public class ClassDetailsTests : SchoolTest
{
    private ClassDetails Details => new(school.Premises);

    private ClassHead Head => school.Workspace.Head(school.Lead, school.Class);

    private DetailsDraft Draft(string? section = "6B", string? period = "3", LocalDate? ends = null) => new(section, period, "beginners", "Kiln room", null, ends, "Mx Farquhar", Head.Version);

    [Fact]
    public void What_is_said_about_a_class_is_changed_and_a_name_of_the_pattern_follows()
    {
        Details.Change(school.Lead, school.Class, Draft(period: "5")).ShouldBe("Clay 6B · period 5 · 2026–27");

        Head.ShouldSatisfyAllConditions(h => h.Level.ShouldBe("beginners"), h => h.Room.ShouldBe("Kiln room"), h => h.TeacherShown.ShouldBe("Mx Farquhar"));
    }

    [Fact]
    public void A_name_given_by_hand_stays()
    {
        new App.Naming.NameDesk(school.Premises).RenameOne(school.Lead, school.Class, "Mud and fire", Head.Version);

        Details.Change(school.Lead, school.Class, Draft(period: "5")).ShouldBe("Mud and fire");
    }

    [Fact]
    public void A_name_that_would_clash_stops_the_whole_change()
    {
        school.Making.Make(school.Lead, school.New("Clay", "7A"));

        Refused(() => Details.Change(school.Lead, school.Class, Draft(section: "7A"))).ShouldBe("name-taken");
        Head.Section.ShouldBe("6B");
    }

    [Fact]
    public void A_last_day_outside_the_year_is_refused_and_so_is_a_version_that_has_passed()
    {
        Refused(() => Details.Change(school.Lead, school.Class, Draft(ends: new(2030, 1, 1)))).ShouldBe("ends-outside");
        var seen = Draft();
        Details.Change(school.Lead, school.Class, seen);
        Refused(() => Details.Change(school.Lead, school.Class, seen)).ShouldBe("changed-meanwhile");
    }

    [Fact]
    public void The_mark_is_the_courses_and_all_its_classes_wear_it()
    {
        var other = school.Making.Make(school.Lead, school.New("Clay", "7A"));

        Details.SetMark(school.Lead, school.Class, "pot").ShouldBe(2);

        school.Workspace.Head(school.Lead, other).Mark.ShouldBe("pot");
        Refused(() => Details.SetMark(school.Lead, school.Class, "skull")).ShouldBe("mark-unknown");
    }

    [Fact]
    public void Students_read_the_welcome_note_once_the_class_is_open()
    {
        Details.SetWelcome(school.Lead, school.Class, "Bring an apron.", Head.Version);
        school.Roster.Enroll(school.Lead, school.Class, [school.Umi.Id], ClassRole.Student);
        school.Workspace.See(school.Umi, school.Class).Welcome.ShouldBe("");

        school.Making.Open(school.Lead, school.Class, Head.Version);

        school.Workspace.See(school.Umi, school.Class).Welcome.ShouldBe("Bring an apron.");
    }

    [Fact]
    public void Before_opening_it_is_said_whose_roster_it_is_and_what_they_will_see()
    {
        school.Roster.Enroll(school.Lead, school.Class, [school.Umi.Id, school.Rúna.Id], ClassRole.Student);
        var twin = school.Making.Make(school.Lead, school.New("Clay", "7A"));
        school.Roster.Enroll(school.Lead, twin, [school.Umi.Id], ClassRole.Student);
        school.Assign(folders: "Staff room");

        var check = school.Making.CheckOpening(school.Class);

        (check.Period, check.Students, check.First, check.Last).ShouldBe(("3", 2, "Hallgrímsson, Umi", "Ravndal, Rúna"));
        (check.FoldersSeen, check.Published, check.BlindSpots, check.HasWelcome).ShouldBe((4, 1, 1, false));
        check.Also.ShouldBe(["Umi Hallgrímsson is also in “Clay 7A · period 3 · 2026–27”"]);
    }

    [Fact]
    public void Blind_spots_are_counted_on_the_board_and_anew_only_after_something_was_written()
    {
        school.OpenClass();
        var counts = new BlindCounts(school.Premises);
        var board = new YearBoard(school.Premises, counts);
        board.See(school.Coordinator, null).Rows.Single().BlindSpots.ShouldBe(0);
        counts.Refresh(10).ShouldBe(0);

        school.Assign(folders: "Staff room");

        counts.Refresh(10).ShouldBe(1);
        var row = board.See(school.Coordinator, null).Rows.Single();
        (row.BlindSpots, row.Cells.Folders.Text).ShouldBe((1, "1 blind spot"));
    }
}
