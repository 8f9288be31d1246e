using Dapper;
using SpringLoft.App.Closing;
using SpringLoft.App.Workspaces;

namespace SpringLoft.App.Tests.Workspaces;

/// <summary>A file goes with its notice: whoever finds the one opens the other, nobody else, and both go into the package.</summary>
public class NoticeFilesTests : SchoolTest
{
    private readonly Notices notices;
    private readonly NoticeFiles files;

    public NoticeFilesTests()
    {
        school.OpenClass();
        (notices, files) = (new(school.Premises), new(school.Premises));
    }

    private async Task<ToTell> Sent(string name, string text = "x", Caller? by = null) => new(null, (await files.Upload(by ?? school.Lead, name, TinySchool.Bytes(text), CancellationToken.None)).Id);

    private NewNotice Of(params ToTell[] with) => new("See the plan.", [school.Class], null, false, null, null, null, with);

    private IReadOnlyList<NoticeFile> Seen(Caller who) => school.Workspace.See(who, school.Class).Notices.SingleOrDefault()?.Files ?? [];

    private async Task<string> Read(Caller who, long notice, long file)
    {
        using var reader = new StreamReader(files.Open(who, notice, file).Content);
        return await reader.ReadToEndAsync();
    }

    [Fact]
    public async Task Who_finds_the_notice_opens_its_files_in_the_class_and_in_their_day()
    {
        var id = notices.Post(school.Lead, Of(await Sent("plan.txt", "to the quay"), await Sent("list.txt")));

        Seen(school.Umi).Select(f => (f.Name, f.Size)).ShouldBe([("plan.txt", 11L), ("list.txt", 1L)]);
        (await Read(school.Umi, id, Seen(school.Umi)[0].Id)).ShouldBe("to the quay");
        new App.Assignments.Today(school.Premises).See(school.Umi).Notices.Single().Files.Count.ShouldBe(2);
        notices.Mine(school.Lead).Notices.Single().Files.Select(f => f.Name).ShouldBe(["plan.txt", "list.txt"]);
        Refused(() => files.Open(school.Outsider, id, Seen(school.Umi)[0].Id)).ShouldBe("not-found");
        Refused(() => files.Open(school.OtherTeacher, id, Seen(school.Umi)[0].Id)).ShouldBe("not-found");
        Refused(() => files.Open(school.Umi, id, 999)).ShouldBe("not-found");
    }

    [Fact]
    public async Task What_waits_or_was_withdrawn_or_is_for_a_group_opens_to_nobody_who_does_not_find_it()
    {
        var later = notices.Post(school.Lead, Of(await Sent("plan.txt")) with { PostAt = school.Premises.Clock.LocalOf(school.Premises.Clock.Now).PlusHours(2) });
        var file = notices.Mine(school.Lead).Notices.Single().Files.Single().Id;
        Refused(() => files.Open(school.Umi, later, file)).ShouldBe("not-found");
        (await Read(school.CoTeacher, later, file)).ShouldBe("x");

        school.Clock.AdvanceHours(3);
        notices.Go();
        (await Read(school.Umi, later, file)).ShouldBe("x");
        notices.Withdraw(school.Lead, later, notices.Mine(school.Lead).Notices.Single().Version);
        Refused(() => files.Open(school.Umi, later, file)).ShouldBe("not-found");

        var crew = school.Premises.Db.Write(c => Store.Rosters.GroupStore.Add(c, school.Class, "Crew"));
        school.Premises.Db.Write(c => Store.Rosters.GroupStore.AddMember(c, crew, school.Umi.Id));
        var one = notices.Post(school.Lead, Of(await Sent("crew.txt")) with { Group = crew });
        var theirs = Seen(school.Umi).Single().Id;
        (await Read(school.Umi, one, theirs)).ShouldBe("x");
        Refused(() => files.Open(school.Rúna, one, theirs)).ShouldBe("not-found");
    }

    [Fact]
    public async Task To_the_whole_school_everybody_opens_it_and_only_who_tells_the_school_sends_for_it()
    {
        var told = notices.Post(school.Coordinator, new("Open day.", [], null, true, null, null, null, [await Sent("map.txt", "here", school.Coordinator)]));
        var file = new App.Assignments.Today(school.Premises).See(school.Outsider).Notices.Single().Files.Single().Id;

        (await Read(school.Outsider, told, file)).ShouldBe("here");
        (await Refused(() => files.Upload(school.Umi, "x.txt", TinySchool.Bytes("x"), CancellationToken.None))).ShouldBe("not-allowed");
        Refused(() => notices.Post(school.Coordinator, Of(new ToTell(null, 9999)))).ShouldBe("upload-gone");
        var mine = await Sent("mine.txt");
        Refused(() => notices.Post(school.CoTeacher, Of(mine))).ShouldBe("upload-gone", "what somebody else sent");
    }

    [Fact]
    public async Task A_change_keeps_takes_off_and_adds_and_one_without_files_leaves_them()
    {
        var id = notices.Post(school.Lead, Of(await Sent("plan.txt"), await Sent("list.txt")));
        var (plan, list) = (Seen(school.Lead)[0].Id, Seen(school.Lead)[1].Id);
        NoticeLine Line() => notices.Mine(school.Lead).Notices.Single();

        notices.Change(school.Lead, id, Of(new ToTell(list, null), await Sent("map.txt")), Line().Version);
        Seen(school.Umi).Select(f => f.Name).ShouldBe(["list.txt", "map.txt"]);
        Seen(school.Umi)[0].Id.ShouldBe(list);
        Refused(() => files.Open(school.Umi, id, plan)).ShouldBe("not-found");

        notices.Change(school.Lead, id, Of() with { Files = null, Text = "See it." }, Line().Version);
        Seen(school.Umi).Count.ShouldBe(2);
        Refused(() => notices.Change(school.Lead, id, Of(new ToTell(plan, null)), Line().Version)).ShouldBe("not-found");
        Refused(() => notices.Change(school.Lead, id, Of(new ToTell(null, null)), Line().Version)).ShouldBe("not-found");
    }

    [Fact]
    public async Task It_stands_in_the_package_and_comes_out_of_it_and_goes_with_its_class()
    {
        notices.Post(school.Lead, Of(await Sent("plan.txt", "to the quay")));
        school.Close();
        using var package = school.Loft.OpenPackage(school.Class).Content;
        using var zip = new MemoryStream();
        await package.CopyToAsync(zip);
        zip.Position = 0;

        var back = (await new PackageIntake(school.Premises).Read(school.Coordinator, school.Years[0].Id, zip, true, CancellationToken.None)).Made!.Value;

        var notice = school.Workspace.See(school.Coordinator, back).Notices.Single();
        (await Read(school.Coordinator, notice.Id, notice.Files.Single().Id)).ShouldBe("to the quay");

        school.Premises.Db.Write(c => Store.Workspaces.ClassRemoval.Go(c, back));
        school.Read(c => c.ExecuteScalar<long>("SELECT count(*) FROM notice_file WHERE notice_id = @Id", new { notice.Id })).ShouldBe(0);
    }
}
