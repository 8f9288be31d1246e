using SpringLoft.Core;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.People;
using SpringLoft.Store.Rosters;

namespace SpringLoft.Store.Tests.People;

public sealed class DirectoryStoreTests : StoreTest
{
    private readonly PersonId umi, runa, left;

    public DirectoryStoreTests() => (umi, runa, left) = Db.Write(c =>
    {
        var people = (PersonStore.Add(c, new PersonRow { Role = SchoolRole.Student, Given = "Umi Mae", Family = "Hallgrímsson", UserName = "umi", StudentNumber = "1001", Grade = "6", School = "Harbour", Email = "umi@x.invalid" }),
            PersonStore.Add(c, new PersonRow { Role = SchoolRole.Student, Given = "Rúna", Family = "Ó Flaithearta", UserName = "runa", StudentNumber = "1002", Grade = "10", School = "Hill" }),
            PersonStore.Add(c, new PersonRow { Role = SchoolRole.Student, Given = "Gone", Family = "Hale", UserName = "gone", Grade = "6", Active = false }));
        DirectoryStore.Save(c, PersonStore.Find(c, people.Item3)! with { Active = false });
        RosterStore.Put(c, Class, people.Item1, ClassRole.Student, At);
        return people;
    });

    private static readonly DirectoryFilter All = new([], null, null, null, null, false, false, default);

    private IReadOnlyList<PersonId> Find(DirectoryFilter f) => [.. Db.Read(c => DirectoryStore.Find(c, f with { Year = Year }, null, DirectoryOrder.Name, false, 0, 50)).People.Select(p => p.Id)];

    [Theory]
    [InlineData("hall", true)] // of the family name, whatever the accents
    [InlineData("mae", true)] // of a second given name
    [InlineData("1001", true)]
    [InlineData("umi@", true)]
    [InlineData("grímsson", false)] // not in the middle of a word
    [InlineData("%", true)] // no wildcard: what is left of it narrows nothing by number, and no name begins with it
    public void Each_word_is_the_beginning_of_a_name_a_number_or_an_address(string word, bool found) => Find(All with { Words = [word], Role = SchoolRole.Student, Grade = "6" }).Contains(umi).ShouldBe(found);

    [Fact]
    public void Every_word_must_be_found() => (Find(All with { Words = ["umi", "hall"] }).Count, Find(All with { Words = ["umi", "flaith"] }).Count).ShouldBe((1, 0));

    [Fact]
    public void Filters_narrow_together()
    {
        Find(All with { School = "Hill" }).ShouldBe([runa]);
        Find(All with { Role = SchoolRole.Teacher }).ShouldBe([Teacher]);
        Find(All with { Class = Class }).ShouldBe([umi]);
        Find(All with { InNoClass = true, Role = SchoolRole.Student }).ShouldBe([runa]);
        Find(All with { Gone = true }).ShouldBe([left]);
        Find(All with { Grade = "6", School = "Hill" }).ShouldBeEmpty();
    }

    [Fact]
    public void A_page_is_cut_and_all_are_counted()
    {
        var (page, total) = Db.Read(c => DirectoryStore.Find(c, All with { Year = Year }, null, DirectoryOrder.Name, false, 1, 1));

        (page.Count, total).ShouldBe((1, 3));
        Db.Read(c => DirectoryStore.Find(c, All with { Year = Year }, [runa], DirectoryOrder.Name, false, 0, 50)).Total.ShouldBe(1);
    }

    [Theory]
    [InlineData(DirectoryOrder.Name, false, "umi runa")]
    [InlineData(DirectoryOrder.Name, true, "runa umi")]
    [InlineData(DirectoryOrder.Role, false, "umi runa")] // grade 6 before grade 10
    [InlineData(DirectoryOrder.Role, true, "runa umi")]
    [InlineData(DirectoryOrder.Number, false, "umi runa nine")] // 1001, 1002, none
    [InlineData(DirectoryOrder.Number, true, "runa umi nine")] // who has none stands at the end both ways
    [InlineData(DirectoryOrder.UserName, false, "nine runa umi")]
    public void All_that_are_found_are_put_in_order_and_not_a_page(DirectoryOrder order, bool down, string expected)
    {
        var names = new Dictionary<PersonId, string> { [umi] = "umi", [runa] = "runa" };
        if (expected.Contains("nine", StringComparison.Ordinal))
            names[Db.Write(c => PersonStore.Add(c, new PersonRow { Role = SchoolRole.Student, Given = "Nine", Family = "Adeyemi", UserName = "Nine", Grade = "9" }))] = "nine";

        var found = new[] { 0, 1, 2 }.SelectMany(skip => Db.Read(c => DirectoryStore.Find(c, All with { Year = Year, Role = SchoolRole.Student }, null, order, down, skip, 1)).People);

        string.Join(' ', found.Select(p => names[p.Id])).ShouldBe(expected);
    }

    [Fact]
    public void Grades_are_offered_in_the_order_of_their_numbers() => Db.Read(DirectoryStore.Choices).ShouldSatisfyAllConditions(c => c.Grades.ShouldBe(["6", "10"]), c => c.Schools.ShouldBe(["Harbour", "Hill"]));

    [Fact]
    public void That_two_are_two_is_kept_once_whichever_is_named_first()
    {
        Db.Write(c => { DirectoryStore.SetApart(c, runa, umi); DirectoryStore.SetApart(c, umi, runa); });

        Db.Read(DirectoryStore.Apart).ShouldHaveSingleItem().ShouldBe((umi, runa));
    }

    [Fact]
    public void A_number_has_one_holder_and_leavers_keep_theirs_out_of_what_is_known()
    {
        Db.Read(c => DirectoryStore.HolderOf(c, "1002"))!.Id.ShouldBe(runa);
        Db.Read(c => DirectoryStore.HolderOf(c, "9")).ShouldBeNull();
        Db.Read(DirectoryStore.Known).Select(k => k.Id).ShouldBe([Teacher, umi, runa], ignoreOrder: true);
    }
}
