using SpringLoft.App.Workspaces;
using SpringLoft.App.Years;

namespace SpringLoft.App.Tests.Workspaces;

public class ClassDetailsTests : SchoolTest
{
    private ClassDetails Details => new(school.Premises);

    private ClassHead Head => school.Workspace.Head(school.Lead, school.Class);

    private AboutClass Was => school.About(school.Lead);

    private string Change(Func<AboutClass, AboutClass> made, Caller? by = null, AboutClass? was = null)
    {
        was ??= Was;
        return Details.Change(by ?? school.Lead, school.Class, was, made(was));
    }

    [Fact]
    public void What_is_said_about_a_class_is_changed_and_a_name_of_the_pattern_follows()
    {
        Change(a => a with { Period = " 5 ", Level = "beginners", Room = "Kiln room", TeacherShown = "Mx Farquhar" }).ShouldBe("Clay 6B · period 5 · 2026–27");

        Head.ShouldSatisfyAllConditions(h => h.Level.ShouldBe("beginners"), h => h.Room.ShouldBe("Kiln room"), h => h.TeacherShown.ShouldBe("Mx Farquhar"));
    }

    [Fact]
    public void A_name_given_by_hand_stays()
    {
        Change(a => a with { Name = "Mud and fire" }).ShouldBe("Mud and fire");
        Change(a => a with { Period = "5" }).ShouldBe("Mud and fire");
        Change(a => a with { Name = "Mud", Period = "6" }).ShouldBe("Mud");
    }

    [Theory]
    [InlineData("name")]
    [InlineData("endsOn")]
    [InlineData("mark")]
    [InlineData("teacherShown")]
    public void What_is_refused_at_one_place_changes_nothing_at_any_other(string where)
    {
        school.Making.Make(school.Lead, school.New("Clay", "7A"));
        var was = Was;

        Refused(() => Change(a => a with
        {
            Name = where == "name" ? "Clay 7A · period 3 · 2026–27" : "Mud and fire",
            Section = "7B",
            EndsOn = where == "endsOn" ? new(2030, 1, 1) : null,
            Mark = where == "mark" ? "skull" : "pot",
            TeacherShown = where == "teacherShown" ? " " : "Mx F",
        })).ShouldBe(where switch { "name" => "name-taken", "endsOn" => "ends-outside", "mark" => "mark-unknown", _ => "missing" });

        Was.ShouldBe(was);
    }

    [Fact]
    public void A_name_of_the_pattern_that_would_clash_stops_the_whole_change()
    {
        school.Making.Make(school.Lead, school.New("Clay", "7A"));

        Refused(() => Change(a => a with { Section = "7A" })).ShouldBe("name-taken");
        Head.Section.ShouldBe("6B");
    }

    [Fact]
    public void Two_who_change_different_things_have_both()
    {
        var seen = Was;
        Change(a => a with { Room = "Barn" }, school.Coordinator, seen);
        Change(a => a with { Level = "beginners" }, was: seen);

        (Head.Room, Head.Level).ShouldBe(("Barn", "beginners"));
    }

    [Fact]
    public void Two_who_change_the_same_thing_see_both_before_either_goes()
    {
        var seen = Was;
        Change(a => a with { Room = "Barn", Mark = "pot" }, school.Coordinator, seen);

        var refusal = Should.Throw<RefusedException>(() => Change(a => a with { Room = "Attic", Level = "beginners" }, was: seen)).Refusal;

        (refusal.Code, refusal.Field).ShouldBe(("about-changed", "room"));
        refusal.What.ShouldContain("The room is “Barn” by now, and you wrote “Attic”");
        (Head.Room, Head.Level, Head.Mark).ShouldBe(("Barn", null, "pot"));
        // Having seen it, the second one's stands, and what only the first one changed is not taken back.
        Details.Change(school.Lead, school.Class, seen with { Room = "Barn" }, seen with { Room = "Attic", Level = "beginners" });
        (Head.Room, Head.Level, Head.Mark).ShouldBe(("Attic", "beginners", "pot"));
    }

    [Fact]
    public void A_co_teacher_says_where_the_class_is_and_not_what_it_is_called()
    {
        school.Roster.Enroll(school.Lead, school.Class, [school.CoTeacher.Id], ClassRole.CoTeacher);

        Change(a => a with { Room = "Barn" }, school.CoTeacher);
        Head.Room.ShouldBe("Barn");
        Refused(() => Change(a => a with { Name = "Mine" }, school.CoTeacher)).ShouldBe("not-allowed");
        Refused(() => Change(a => a with { Mark = "pot" }, school.CoTeacher)).ShouldBe("not-allowed");
        Refused(() => Details.Change(school.Lead, school.Class, null, Was)).ShouldBe("missing");
    }

    [Fact]
    public void The_mark_is_the_courses_and_all_its_classes_wear_it()
    {
        var other = school.Making.Make(school.Lead, school.New("Clay", "7A"));

        Change(a => a with { Mark = "pot" });

        school.Workspace.Head(school.Lead, other).Mark.ShouldBe("pot");
    }

    [Fact]
    public void Of_two_who_write_the_welcome_note_the_second_sees_both_and_decides()
    {
        Details.SetWelcome(school.Lead, school.Class, "", "Bring an apron.\n\nWe begin at nine.");
        var was = "Bring an apron.\n\nWe begin at nine.";
        Details.SetWelcome(school.Coordinator, school.Class, was, "Bring an apron.\n\nWe begin at ten.");
        var mine = "Bring an apron and a towel.\n\nWe begin at nine.";

        Refused(() => Details.SetWelcome(school.Lead, school.Class, was, mine)).ShouldBe("changed-meanwhile");
        var met = Details.WelcomeTogether(school.Class, was, mine, null);

        (met.By, met.At, met.Open, met.Text).ShouldBe(("Wren Aldersund", school.Clock.GetCurrentInstant(), 0, "Bring an apron and a towel.\n\nWe begin at ten."));
        Details.SetWelcome(school.Lead, school.Class, met.Stands, met.Text);
        school.Workspace.See(school.Lead, school.Class).Welcome.ShouldBe(met.Text);
        // Somebody changed something else of the class: that is no reason to ask.
        Change(a => a with { Room = "Barn" });
        Details.SetWelcome(school.Lead, school.Class, met.Text, "");
        school.Workspace.See(school.Lead, school.Class).Welcome.ShouldBe("");
    }

    [Fact]
    public void Where_both_wrote_the_same_place_it_is_open_until_it_is_chosen_and_again_if_it_was_changed_once_more()
    {
        Details.SetWelcome(school.Lead, school.Class, "", "At ten.");
        var met = Details.WelcomeTogether(school.Class, "", "At nine.", null);
        (met.Open, met.Text).ShouldBe((1, null));
        IReadOnlyList<MergeChoice> both = [new(0, MergeSide.Both)];

        Details.WelcomeTogether(school.Class, "", "At nine.", new(met.Version, both)).Text.ShouldBe("At nine.\n\nAt ten.");
        Details.WelcomeTogether(school.Class, "", "At nine.", new(met.Version - 1, both)).Text.ShouldBeNull("it was chosen about another text");
    }

    [Fact]
    public void Students_read_the_welcome_note_once_the_class_is_open()
    {
        Details.SetWelcome(school.Lead, school.Class, "", "Bring an apron.");
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
