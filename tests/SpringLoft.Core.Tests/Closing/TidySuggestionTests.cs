using SpringLoft.Core.Closing;

namespace SpringLoft.Core.Tests.Closing;

public class TidySuggestionTests
{
    private static readonly PersonId Umi = new(7);
    private static readonly PersonId Rúna = new(8);

    private static readonly TidyFolder[] Folders =
    [
        new(new(1), "Weeks/Week 06", []), new(new(2), "Weeks/Week 07", []), new(new(3), "Glazes", ["Glaze table.pdf", "recipes of 2019.pdf"]), new(new(4), "Start here", []),
        new(new(5), "Hallgrímsson, Umi", ["week 7 of mine.txt"], Umi),
    ];

    private static Suggested? Of(TidyThing thing) => TidySuggestion.Of(thing, Folders);

    [Theory]
    [InlineData("week7 glaze.pdf", "Weeks/Week 07", "“week 7” is in both names")]
    [InlineData("glaze recipes.pdf", "Glazes", "")]
    [InlineData("holiday photo.png", null, null)]
    public void A_loose_thing_is_suggested_where_its_name_belongs(string name, string? path, string? why)
    {
        var found = Of(new(name));

        (found?.Path).ShouldBe(path);
        if (path is null) found.ShouldBeNull();
        if (why is { Length: > 0 }) found!.Why.ShouldBe(why);
    }

    [Fact]
    public void Where_the_same_thing_stands_in_another_class_speaks_loudest() =>
        Of(new("week 7.pdf") { Elsewhere = ["start here"], Attached = [(new(3), "Pinch pot")], Beside = [new(3), new(3), new(3)] })!
            .ShouldSatisfyAllConditions(s => s.Folder.ShouldBe(new FolderId(4)), s => s.Why.ShouldContain("another class"));

    [Fact]
    public void What_is_written_in_it_speaks_where_its_name_says_nothing()
    {
        Of(new("scan 0012.pdf", "Cobalt and iron: recipes for a table of every glaze."))!.ShouldSatisfyAllConditions(s => s.Path.ShouldBe("Glazes"), s => s.Why.ShouldBe("“glaze” and “recipes” are written in it"));
        Of(new("scan 0012.pdf", "A glaze.")).ShouldBeNull("one word that happens to be written is no reason");
        Of(new("week 6.pdf", "Cobalt and iron: recipes for a table of every glaze."))!.Path.ShouldBe("Weeks/Week 06", "what it is called says more");
    }

    [Fact]
    public void An_assignment_that_it_is_attached_to_says_where() =>
        Of(new("week 7.pdf") { Attached = [(new(3), "Pinch pot")] })!.ShouldBe(new(new(3), "Glazes", "“Pinch pot”, which it is attached to, stands there"));

    [Fact]
    public void What_came_together_belongs_together_unless_its_name_says_more()
    {
        Of(new("IMG_2231.jpg") { Beside = [new(4), new(4), new(3)] })!.ShouldBe(new(new(4), "Start here", "2 things that were put in with it stand there"));
        Of(new("IMG_2231.jpg") { Beside = [new(4)] })!.Why.ShouldBe("a thing that was put in with it stands there");
        Of(new("week 7.jpg") { Beside = [new(4), new(4)] })!.Path.ShouldBe("Weeks/Week 07");
        Of(new("IMG_2231.jpg") { Beside = [new(99)] }).ShouldBeNull("a folder that is not there");
    }

    [Fact]
    public void What_a_student_put_in_is_suggested_for_their_own_folder_and_for_nobody_else_s()
    {
        Of(new("week 7.pdf") { Student = Umi, Elsewhere = ["Start here"] })!.ShouldSatisfyAllConditions(s => s.Folder.ShouldBe(new FolderId(5)), s => s.Why.ShouldContain("their own folder"));
        Of(new("of mine, week 7.pdf") { Student = Rúna })!.Path.ShouldBe("Weeks/Week 07");
        Of(new("of mine, week 7.pdf"))!.Path.ShouldBe("Weeks/Week 07", "a student's own folder is no place for staff's things");
    }

    [Theory]
    [InlineData(0, false, false)] // staff alone
    [InlineData(1, true, false)]
    [InlineData(2, true, true)]
    public void It_is_asked_first_where_somebody_would_see_it_who_does_not_now(int seeing, bool ofStaff, bool ofUmi)
    {
        var reach = TidyReach.Of([.. new[] { Umi, Rúna }.Take(seeing)], 2);

        (reach.IsWider(null), reach.IsWider(Umi), reach.All).ShouldBe((ofStaff, ofUmi, seeing == 2));
        reach.IsWider(new(99)).ShouldBe(seeing > 0);
    }
}
