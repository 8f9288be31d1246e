using SpringLoft.App.Rollover;

namespace SpringLoft.App.Tests.Rollover;

public class RollingOverTests : SchoolTest
{
    private static readonly NewYear Same = new(null, null, null);

    public RollingOverTests()
    {
        school.OpenClass();
        school.Put(school.Lead, "Papers", "plan.txt", "the plan").Wait();
        school.Put(school.Umi, "Shared table", "umi's.txt", "x").Wait();
        var a = school.Assign(folders: ["Papers", "Start here"]);
        school.HandIn(school.Umi, a).Wait();
        new App.Workspaces.Notices(school.Premises).Post(school.Lead, new("Bring an apron.", [school.Class], null, false, null, null));
    }

    private int FilesInStore() => Directory.EnumerateFiles(Path.Combine(school.Folder, "files"), "*", SearchOption.AllDirectories).Count();

    [Fact]
    public void The_new_class_is_in_preparation_under_the_new_years_name()
    {
        var made = school.Rolling.Make(school.Lead, school.Class, Same);

        school.Workspace.Head(school.Lead, made).ShouldSatisfyAllConditions(
            h => h.Name.ShouldBe("Clay 6B · period 3 · 2027–28"), h => h.State.ShouldBe(ClassState.InPreparation), h => h.Students.ShouldBe(0), h => h.RolledFrom.ShouldBe(school.Class));
    }

    [Fact]
    public void Folders_files_and_assignments_come_along_and_people_work_and_notices_do_not()
    {
        var made = school.Rolling.Make(school.Lead, school.Class, Same);

        var there = school.Workspace.See(school.Lead, made);
        there.Folders.Select(f => f.Name).ShouldBe(["Start here", "Papers", "Shared table", "Own folders", "Staff room", "Lesson plans", "Notes"], ignoreOrder: true);
        there.Items.Select(i => i.Name).ShouldBe(["plan.txt"]);
        there.Assignments.ShouldHaveSingleItem().ShouldSatisfyAllConditions(a => a.Published.ShouldBeFalse(), a => a.DueOn.ShouldBeNull(), a => a.Folders.Count.ShouldBe(2), a => a.Points.ShouldBe(20));
        there.Notices.ShouldBeEmpty();
        school.Roster.See(made).ShouldHaveSingleItem().Role.ShouldBe(ClassRole.Lead);
        school.Returns.See(school.Coordinator, made).Held.ShouldBe(0);
    }

    [Fact]
    public void The_preview_says_what_the_making_then_does()
    {
        var preview = school.Rolling.Preview(school.Class, Same);
        var made = school.Rolling.Make(school.Lead, school.Class, Same);

        var there = school.Workspace.See(school.Lead, made);
        int Comes(string what) => preview.Lines.First(l => l.What == what).Comes;
        there.Folders.Count.ShouldBe(Comes("Folders") + preview.PlanAdds);
        there.Items.Count.ShouldBe(Comes("Files, links and pages of staff"));
        there.Assignments.Count.ShouldBe(Comes("Assignments"));
        there.Head.Name.ShouldBe(preview.Name.Name);
    }

    [Fact]
    public void No_bytes_are_copied()
    {
        var before = FilesInStore();

        school.Rolling.Make(school.Lead, school.Class, Same);

        FilesInStore().ShouldBe(before);
    }

    [Fact]
    public void A_second_roll_over_to_the_same_name_is_refused_and_to_another_period_is_not()
    {
        school.Rolling.Make(school.Lead, school.Class, Same);

        Refused(() => school.Rolling.Make(school.Lead, school.Class, Same)).ShouldBe("name-taken");
        school.Workspace.Head(school.Lead, school.Rolling.Make(school.Lead, school.Class, new(null, null, "5"))).Period.ShouldBe("5");
    }

    [Fact]
    public void New_students_of_the_new_class_get_own_folders_from_the_same_plan()
    {
        var made = school.Rolling.Make(school.Lead, school.Class, Same);

        school.Roster.Enroll(school.Lead, made, [school.Outsider.Id], ClassRole.Student).Folders.ShouldBe(1);
    }

    [Fact]
    public void Rolling_over_what_was_rolled_over_gives_the_same_structure()
    {
        school.Premises.Db.Write(c => Store.Years.YearStore.Add(c, school.Years[1].Year with
        {
            Label = "2028–29",
            Terms = [.. school.Years[1].Year.Terms.Select(t => t with { First = t.First.PlusWeeks(52), Last = t.Last.PlusWeeks(52) })],
        }));
        var first = school.Rolling.Make(school.Lead, school.Class, Same);
        var second = school.Rolling.Make(school.Lead, first, Same);

        IEnumerable<string> Shape(ClassId id) => school.Workspace.See(school.Lead, id).Folders.Select(f => $"{f.Name} {f.Rule}").Order();
        Shape(second).ShouldBe(Shape(first));
        school.Workspace.See(school.Lead, second).Items.Select(i => i.Name).ShouldBe(school.Workspace.See(school.Lead, first).Items.Select(i => i.Name));
    }

    [Fact]
    public void Without_a_next_school_year_it_is_said_who_lays_it_down()
    {
        var first = school.Rolling.Make(school.Lead, school.Class, Same);

        Refused(() => school.Rolling.Preview(first, Same)).ShouldBe("year-none");
    }
}
