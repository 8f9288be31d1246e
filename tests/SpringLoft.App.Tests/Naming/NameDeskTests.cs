using SpringLoft.App.Naming;
using SpringLoft.Core.Workspaces;

namespace SpringLoft.App.Tests.Naming;

public class NameDeskTests : SchoolTest
{
    private NameDesk Desk => new(school.Premises);

    private string Name(ClassId id) => school.Workspace.Head(school.Lead, id).Name;

    [Fact]
    public void Many_classes_are_renamed_as_the_preview_said()
    {
        var second = school.Making.Make(school.Lead, school.New("Clay", "7A"));
        var preview = Desk.Preview(school.Years[0].Id, "{year}: {course} {section}");

        Desk.Rename(school.Coordinator, school.Years[0].Id, "{year}: {course} {section}", [school.Class, second]).ShouldBe(preview.Differ);

        // The colon is none that every computer can store.
        new[] { Name(school.Class), Name(second) }.ShouldBe(["2026–27- Clay 6B", "2026–27- Clay 7A"]);
        preview.Classes.Select(c => c.Will).ShouldBe(["2026–27- Clay 6B", "2026–27- Clay 7A"], ignoreOrder: true);
    }

    [Fact]
    public void Two_classes_may_swap_their_names()
    {
        var second = school.Making.Make(school.Lead, school.New("Clay", "7A"));
        var (a, b) = (Name(school.Class), Name(second));
        school.Premises.Db.Write(c => Dapper.SqlMapper.Execute(c, "UPDATE class SET section = CASE id WHEN @a THEN '7A' ELSE '6B' END", new { a = school.Class.Value }));

        Desk.Rename(school.Coordinator, school.Years[0].Id, Desk.See().Pattern, [school.Class, second]).ShouldBe(2);

        (Name(school.Class), Name(second)).ShouldBe((b, a));
    }

    [Fact]
    public void A_pattern_without_the_year_is_warned_of_and_clashes_are_counted()
    {
        school.Making.Make(school.Lead, school.New("Clay", "7A"));

        Desk.Preview(school.Years[0].Id, "{course}").ShouldSatisfyAllConditions(p => p.Clashes.ShouldBe(2), p => p.Advice!.ShouldContain("next year"));
        Refused(() => Desk.Rename(school.Coordinator, school.Years[0].Id, "{course}", [school.Class])).ShouldBe("name-twice");
    }

    private void Called(Caller by, string name)
    {
        var was = school.About(by);
        new App.Workspaces.ClassDetails(school.Premises).Change(by, school.Class, was, was with { Name = name });
    }

    [Fact]
    public void Where_the_school_names_classes_a_teacher_does_not()
    {
        Called(school.Lead, "My own name");
        Name(school.Class).ShouldBe("My own name");

        Desk.Set(school.Coordinator, "{course} {section} · {year}", byPattern: true, Desk.See().Version);

        Refused(() => Called(school.Lead, "Another")).ShouldBe("names-by-pattern");
        Called(school.Coordinator, "By the coordinator");
        Name(school.Class).ShouldBe("By the coordinator");
        Name(school.Making.Make(school.Lead, school.New("Rope"))).ShouldBe("Rope 6B · 2026–27");
    }

    [Fact]
    public void A_pattern_of_user_names_is_tried_on_the_directory_and_changes_nobody()
    {
        school.Add("twin", SchoolRole.Student, "Umi", "Hallgrimsson", "1009");
        var seen = Desk.PreviewUserNames("{first letter}{family}");

        seen.People.ShouldBe(4);
        seen.Rows[0].ShouldSatisfyAllConditions(r => r.ToldApart.ShouldBeTrue(), r => r.Would.ShouldBe("uhallgrimsson2"));
        seen.Advice!.ShouldContain("does not say the student number");
        Desk.PreviewUserNames("s{student number}").ShouldSatisfyAllConditions(p => p.ToldApart.ShouldBe(0), p => p.Advice.ShouldBeNull(), p => p.Rows.ShouldContain(r => r.Would == "s1009"));
        school.Read(Store.People.PersonStore.UserNames).Select(u => u.UserName).ShouldContain("umi");
    }

    [Fact]
    public void The_pattern_that_is_set_counts_for_accounts_made_from_then_on()
    {
        var version = Desk.SeeUserNames().Version;
        Desk.SetUserNames(school.Coordinator, "k{student number}", version);

        Desk.SeeUserNames().Pattern.ShouldBe("k{student number}");
        new App.People.SchoolDirectory(school.Premises).Look(new("New", "Comer", SchoolRole.Student, "6", "1234", null, null)).UserName.ShouldBe("k1234");
        Refused(() => Desk.SetUserNames(school.Coordinator, "s{student number}", version)).ShouldBe("changed-meanwhile");
        Refused(() => Desk.SetUserNames(school.Coordinator, "everybody", version + 1)).ShouldBe("pattern-empty");
        Refused(() => Desk.SetUserNames(school.Coordinator, " ", version + 1)).ShouldBe("missing");
        Refused(() => Desk.PreviewUserNames("{shoe size}")).ShouldBe("pattern-unknown-placeholder");
    }
}
