using SpringLoft.App.Naming;

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

    [Fact]
    public void Where_the_school_names_classes_a_teacher_does_not()
    {
        Desk.RenameOne(school.Lead, school.Class, "My own name", 1);
        Name(school.Class).ShouldBe("My own name");

        Desk.Set(school.Coordinator, "{course} {section} · {year}", byPattern: true, Desk.See().Version);

        Refused(() => Desk.RenameOne(school.Lead, school.Class, "Another", 2)).ShouldBe("names-by-pattern");
        Desk.RenameOne(school.Coordinator, school.Class, "By the coordinator", 2);
        Refused(() => Desk.RenameOne(school.Coordinator, school.Class, "Late", 2)).ShouldBe("changed-meanwhile");
        Name(school.Making.Make(school.Lead, school.New("Rope"))).ShouldBe("Rope 6B · 2026–27");
    }
}
