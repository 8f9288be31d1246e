using SpringLoft.Core.Closing;
using SpringLoft.Core.People;

namespace SpringLoft.Core.Tests.Closing;

public class ShelfNamesTests
{
    private static readonly PersonId Umi = new(1), Rúna = new(2);
    private static readonly (PersonId, PersonName)[] Students = [(Umi, new("Umi", "Hallgrímsson")), (Rúna, new("Rúna", "Ravndal")), (new(3), new("Al", "Ng"))];

    private static IReadOnlyList<ShelfName> Decide(IReadOnlyList<ShelfCandidate> things, params int[] ticked) => ShelfNames.Decide(things, Students, ticked.ToHashSet());

    [Fact]
    public void Things_of_staff_that_name_nobody_keep_their_names() => Decide([new("Glaze table.pdf", null, null)]).Single().ShouldSatisfyAllConditions(n => n.Shown.ShouldBe("Glaze table.pdf"), n => n.Names.ShouldBeEmpty(), n => n.Out.ShouldBeFalse());

    [Fact]
    public void Work_of_students_gets_a_number_and_keeps_its_kind() =>
        Decide([new("pot.jpg", Umi, null), new("my sketch.png", Rúna, null)]).Select(n => n.Shown).ShouldBe(["Example 1.jpg", "Example 2.png"]);

    [Theory]
    [InlineData("umi's pot.jpg", true)]
    [InlineData("UMI_pot.jpg", true)]
    [InlineData("pot-hallgrimsson.jpg", true)]
    [InlineData("Hallgrímsson.jpg", true)]
    [InlineData("aluminium.jpg", false)]
    [InlineData("algebra.pdf", false)]
    public void A_name_is_found_as_a_word_of_its_own_in_any_case_and_without_accents(string file, bool named)
    {
        var n = Decide([new(file, null, null)]).Single();

        n.Names.Count.ShouldBe(named ? 1 : 0);
        n.Shown.ShouldBe(named ? "Example 1.jpg" : file);
    }

    [Fact]
    public void A_page_that_speaks_of_somebody_stays_off_until_it_is_ticked()
    {
        ShelfCandidate page = new("What we did", null, "In March Rúna built the kiln.");

        Decide([page]).Single().ShouldSatisfyAllConditions(n => n.Out.ShouldBeTrue(), n => n.Names.ShouldBe(["Rúna Ravndal"]));
        Decide([page], 0).Single().ShouldSatisfyAllConditions(n => n.Out.ShouldBeFalse(), n => n.Shown.ShouldBe("What we did"));
    }

    [Theory]
    [InlineData("by Umi\nHallgrímsson", true)]
    [InlineData("UMI  HALLGRÍMSSON", true)]
    [InlineData("by U\u0301mi", true)]
    [InlineData("by Hall\u00ADgríms\u200Bson", true)]
    [InlineData("Umi \uD83C", true)]
    [InlineData("\uDFFA of aluminium", false)]
    [InlineData("made of aluminium", false)]
    [InlineData("", false)]
    public void A_file_that_names_somebody_inside_stays_off_whoever_made_it(string text, bool named)
    {
        foreach (var maker in (PersonId?[])[null, Umi])
            Decide([new("essay.docx", maker, text)]).Single().ShouldSatisfyAllConditions(n => n.Out.ShouldBe(named), n => n.Inside.ShouldBe(named));
        Decide([new("essay.docx", null, text)], 0).Single().ShouldSatisfyAllConditions(n => n.Out.ShouldBeFalse(), n => n.Shown.ShouldBe("essay.docx"));
    }

    [Fact]
    public void A_name_of_two_words_is_found_over_the_end_of_a_line() =>
        ShelfNames.Decide([new("a.txt", null, "with da\n Silva")], [(Umi, new("Ana", "da Silva"))], new HashSet<int>()).Single().Inside.ShouldBeTrue();

    [Fact]
    public void What_could_not_be_read_is_said_to_be_unread_and_what_was_read_of_it_counts()
    {
        Decide([new("photo.jpg", Umi, "", Unread: Unread.Kind)]).Single().ShouldSatisfyAllConditions(n => n.Unread.ShouldBe(Unread.Kind), n => n.Out.ShouldBeFalse(), n => n.Shown.ShouldBe("Example 1.jpg"));
        Decide([new("report.pdf", null, "Rúna", Unread: Unread.Pictures)]).Single().ShouldSatisfyAllConditions(n => n.Unread.ShouldBe(Unread.Pictures), n => n.Out.ShouldBeTrue());
    }

    [Fact]
    public void What_a_person_ticks_keeps_its_name_and_no_two_are_called_alike() =>
        Decide([new("pot.jpg", Umi, null), new("POT.jpg", Rúna, null)], 0, 1).Select(n => n.Shown.ToUpperInvariant()).Distinct().Count().ShouldBe(2);
}
