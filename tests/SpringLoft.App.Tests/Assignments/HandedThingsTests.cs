using SpringLoft.App.Assignments;
using SpringLoft.App.Workspaces;
using SpringLoft.Core.Workspaces;

namespace SpringLoft.App.Tests.Assignments;

/// <summary>Links and pages in a piece of work, and the receipt of each handing-in.</summary>
public class HandedThingsTests : SchoolTest
{
    private readonly AssignmentId pot;

    public HandedThingsTests()
    {
        school.OpenClass();
        pot = school.Assign();
    }

    private static CancellationToken Stop => CancellationToken.None;

    private OwnWorkView Own => school.Workspace.See(school.Umi, school.Class).Assignments.Single(a => a.Id == pot).Own!;

    private static string Read(Download d)
    {
        using var reader = new StreamReader(d.Content);
        return reader.ReadToEnd();
    }

    [Fact]
    public async Task A_link_alone_can_be_handed_in_and_leads_where_it_did()
    {
        var link = await school.Work.AddLink(school.Umi, school.Class, pot, "Our tide table", "https://tides.example/june", Stop);
        (link.Kind, link.Name, link.Url).ShouldBe((ItemKind.Link, "Our tide table", "https://tides.example/june"));
        school.Work.HandIn(school.Umi, school.Class, pot);
        Own.Turns.Single().Files.Single().Url.ShouldBe("https://tides.example/june");
        Read(school.Work.OpenTurn(school.Umi, school.Class, pot, Own.Turns[0].Id, 0)).ShouldContain("href=\"https://tides.example/june\"");
        var piece = new MarkingDesk(school.Premises).Piece(school.Lead, school.Class, school.Read(c => Store.Assignments.WorkStore.Of(c, pot, school.Umi.Id))!.Id);
        (piece.Files.Single().Kind, piece.Files.Single().Url).ShouldBe((ItemKind.Link, "https://tides.example/june"));
    }

    [Theory]
    [InlineData("javascript:alert(1)")]
    [InlineData("file:///etc/passwd")]
    [InlineData("tides.example")]
    [InlineData("")]
    public async Task What_is_no_web_address_is_no_link(string url) =>
        (await Should.ThrowAsync<RefusedException>(school.Work.AddLink(school.Umi, school.Class, pot, "x", url, Stop))).Refusal.Code.ShouldBe("url-wrong");

    [Fact]
    public async Task A_page_is_written_changed_and_handed_in_and_each_time_stays_as_it_was()
    {
        var page = await school.Work.AddPage(school.Umi, school.Class, pot, "My week", "# Monday", Stop);
        var read = school.Work.ReadPage(school.Umi, school.Class, pot, page.Id);
        (read.Title, read.Text).ShouldBe(("My week", "# Monday"));
        await school.Work.ChangePage(school.Umi, school.Class, pot, page.Id, "My whole week", "# Monday\n\nand Tuesday", read.Seen, Stop);
        Own.Files.Single().Name.ShouldBe("My whole week");
        school.Work.HandIn(school.Umi, school.Class, pot);
        Refused(() => school.Work.ChangePage(school.Umi, school.Class, pot, page.Id, "x", "y", read.Seen, Stop).GetAwaiter().GetResult()).ShouldBe("work-held");
        school.Work.TakeBack(school.Umi, school.Class, pot);
        var now = school.Work.ReadPage(school.Umi, school.Class, pot, page.Id);
        await school.Work.ChangePage(school.Umi, school.Class, pot, page.Id, "My whole week", "nothing", now.Seen, Stop);
        Read(school.Work.OpenTurn(school.Umi, school.Class, pot, Own.Turns[0].Id, 0)).ShouldBe("# Monday\n\nand Tuesday");
    }

    [Fact]
    public async Task Two_windows_on_one_page_do_not_write_over_each_other()
    {
        var page = await school.Work.AddPage(school.Umi, school.Class, pot, "My week", "one", Stop);
        var seen = school.Work.ReadPage(school.Umi, school.Class, pot, page.Id).Seen;
        await school.Work.ChangePage(school.Umi, school.Class, pot, page.Id, "My week", "two", seen, Stop);
        Refused(() => school.Work.ChangePage(school.Umi, school.Class, pot, page.Id, "My week", "three", seen, Stop).GetAwaiter().GetResult()).ShouldBe("changed-meanwhile");
        school.Work.ReadPage(school.Umi, school.Class, pot, page.Id).Text.ShouldBe("two");
    }

    [Fact]
    public async Task Names_in_one_piece_differ_and_only_pages_are_written_on()
    {
        var a = await school.Work.AddPage(school.Umi, school.Class, pot, "My week", "one", Stop);
        var b = await school.Work.AddPage(school.Umi, school.Class, pot, "my WEEK", "two", Stop);
        string.Equals(a.Name, b.Name, StringComparison.OrdinalIgnoreCase).ShouldBeFalse();
        var link = await school.Work.AddLink(school.Umi, school.Class, pot, "My week", "https://x.example/", Stop);
        Refused(() => school.Work.ReadPage(school.Umi, school.Class, pot, link.Id)).ShouldBe("not-found");
        Refused(() => school.Work.ReadPage(school.Rúna, school.Class, pot, a.Id)).ShouldBe("not-found");
        (await Should.ThrowAsync<RefusedException>(school.Work.AddPage(school.Umi, school.Class, pot, "x", new('x', Items.MostText + 1), Stop))).Refusal.Field.ShouldBe("text");
    }

    [Fact]
    public async Task Both_sides_have_one_receipt_and_nobody_else_has_it()
    {
        await school.HandIn(school.Umi, pot, "the first pot");
        var turn = Own.Turns.Single();
        var mine = Read(school.Work.Receipt(school.Umi, school.Class, pot, turn.Id));
        mine.ShouldContain($"Receipt {turn.Receipt}");
        mine.ShouldContain(school.Read(c => Store.People.PersonStore.Find(c, school.Umi.Id))!.Name.Display);
        mine.ShouldContain(Convert.ToHexStringLower(System.Security.Cryptography.SHA256.HashData("the first pot"u8)));
        var row = school.Read(c => Store.Assignments.WorkStore.Of(c, pot, school.Umi.Id))!;
        Read(school.Returns.Receipt(school.Class, row.Id, turn.Id)).ShouldBe(mine);
        school.Returns.See(school.Class, row.Id).Turns.Single().Receipt.ShouldBe(turn.Receipt);
        Refused(() => school.Work.Receipt(school.Rúna, school.Class, pot, turn.Id)).ShouldBe("not-found");
        school.Clock.AdvanceDays(30);
        Read(school.Work.Receipt(school.Umi, school.Class, pot, turn.Id)).ShouldBe(mine, "it is the same whenever it is asked for");
    }
}
