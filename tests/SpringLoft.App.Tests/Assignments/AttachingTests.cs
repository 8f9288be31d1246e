using SpringLoft.App.Assignments;
using SpringLoft.App.Workspaces;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Assignments;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Tests.Assignments;

/// <summary>What is attached to an assignment: whoever finds it opens it, nobody else, and it goes where the assignment goes.</summary>
public class AttachingTests : SchoolTest
{
    private readonly Attaching attaching;

    public AttachingTests()
    {
        school.OpenClass();
        attaching = new(school.Premises);
    }

    private static Stream Bytes(string text) => new MemoryStream(System.Text.Encoding.UTF8.GetBytes(text));

    private FolderId Folder => school.Read(c => FolderStore.OfClass(c, school.Class)).First(f => f.Rule == FolderRule.ClassViews).Id;

    private NewAssignment New(IReadOnlyList<ToAttach>? things, bool publish = true, string title = "Bowl", IReadOnlyList<ClassId>? also = null) =>
        new(title, "", 20, null, null, null, [Folder], null, publish, null, also, things);

    private async Task<ToAttach> File(string name, string text) => new(null, (await attaching.Upload(school.Lead, school.Class, name, Bytes(text), CancellationToken.None)).Id, null, null, null);

    private IReadOnlyList<AttachedView> Seen(Caller who, AssignmentId a) => school.Workspace.See(who, school.Class).Assignments.SingleOrDefault(x => x.Id == a)?.Things ?? [];

    private string Read(Caller who, AssignmentId a, long thing)
    {
        using var reader = new StreamReader(attaching.Open(who, school.Class, a, thing).Content);
        return reader.ReadToEnd();
    }

    [Fact]
    public async Task Files_links_and_things_of_the_class_are_opened_by_who_finds_the_assignment()
    {
        var page = await new Items(school.Premises).AddPage(school.Lead, school.Class, Folder, "Glazes", "# Blue", CancellationToken.None);
        var a = new Assigning(school.Premises).Make(school.Lead, school.Class, New([await File("drawing.txt", "a bowl"), new(null, null, null, "Tides", "https://tides.example/"), new(null, null, page.Value, null, null)])).Id;
        var seen = Seen(school.Umi, a);
        seen.Select(t => (t.Kind, t.Name, t.Url)).ShouldBe([(ItemKind.File, "drawing.txt", null), (ItemKind.Link, "Tides", "https://tides.example/"), (ItemKind.Page, "Glazes", null)]);
        seen.ShouldAllBe(t => t.Item == null, "that it stands elsewhere is for staff");
        Read(school.Umi, a, seen[0].Id).ShouldBe("a bowl");
        Read(school.Umi, a, seen[2].Id).ShouldBe("# Blue");
        Refused(() => attaching.Open(school.Umi, school.Class, a, seen[1].Id)).ShouldBe("not-found", "a link has no bytes");

        // It follows the page, and is hidden while that is in the bin.
        var items = new Items(school.Premises);
        await items.ChangePage(school.Lead, school.Class, page, "Glazes", "# Green", 1, CancellationToken.None);
        Read(school.Umi, a, seen[2].Id).ShouldBe("# Green");
        school.Premises.Db.Write(c => ItemStore.SetBinned(c, page, school.Clock.GetCurrentInstant(), school.Lead.Id));
        Seen(school.Umi, a).Count.ShouldBe(2);
        Refused(() => attaching.Open(school.Lead, school.Class, a, seen[2].Id)).ShouldBe("not-found");
    }

    [Fact]
    public async Task Of_a_draft_students_open_nothing_and_a_wrong_one_is_taken_off_before_it_is_published()
    {
        var assigning = new Assigning(school.Premises);
        var a = assigning.Make(school.Lead, school.Class, New([await File("answers.txt", "42"), await File("questions.txt", "6 x 7")], publish: false)).Id;
        var things = Seen(school.Lead, a);
        Refused(() => attaching.Open(school.Umi, school.Class, a, things[0].Id)).ShouldBe("not-found");
        assigning.Change(school.Lead, school.Class, a, New([new(things[1].Id, null, null, null, null)], publish: false), 1);
        new Publishing(school.Premises).Publish(school.Lead, school.Class, a, 2, false);
        Seen(school.Umi, a).Select(t => t.Name).ShouldBe(["questions.txt"]);
        Refused(() => attaching.Open(school.Umi, school.Class, a, things[0].Id)).ShouldBe("not-found");
        // A change that says nothing of them leaves them.
        assigning.Change(school.Lead, school.Class, a, New(null, publish: false), 3);
        Seen(school.Umi, a).Count.ShouldBe(1);
    }

    [Fact]
    public async Task What_is_not_there_or_not_one_s_own_is_not_attached()
    {
        var assigning = new Assigning(school.Premises);
        string Try(ToAttach t) => Refused(() => assigning.Make(school.Lead, school.Class, New([t])));
        var upload = await File("mine.txt", "x");
        Try(new(null, 999, null, null, null)).ShouldBe("upload-gone");
        Try(new(null, null, 999, null, null)).ShouldBe("not-found");
        Try(new(17, null, null, null, null)).ShouldBe("not-found");
        Try(new(null, null, null, "Evil", "javascript:alert(1)")).ShouldBe("url-wrong");
        Refused(() => assigning.Make(school.Coordinator, school.Class, New([upload]))).ShouldBe("upload-gone", "it was sent by somebody else");
        var theirs = await school.Put(school.Umi, "Shared table", "umi.txt", "secret");
        Try(new(null, null, theirs.Value, null, null)).ShouldBe("not-found", "a student's thing is no material");
        Try(new(null, null, null, null, "https://x.example/")).ShouldBe("missing");
        Refused(() => assigning.Make(school.Lead, school.Class, New([.. Enumerable.Range(0, Attaching.Most + 1).Select(_ => new ToAttach(null, null, null, "a", "https://x.example/"))]))).ShouldBe("too-many");
        Refused(() => attaching.Upload(school.Umi, school.Class, "x.txt", Bytes("x"), CancellationToken.None).GetAwaiter().GetResult()).ShouldBe("not-allowed");
    }

    [Fact]
    public async Task A_file_whose_assignment_is_never_saved_is_let_go_of_after_some_days()
    {
        var upload = await File("left.txt", "x");
        school.Clock.AdvanceDays(AttachedStore.UploadDays + 1);
        await File("other.txt", "y");
        Refused(() => new Assigning(school.Premises).Make(school.Lead, school.Class, New([upload]))).ShouldBe("upload-gone");
    }

    [Fact]
    public async Task It_goes_where_the_assignment_goes()
    {
        var other = school.Making.Make(school.Lead, school.New("Boatbuilding", "6C"));
        var made = new Assigning(school.Premises).Make(school.Lead, school.Class, New([await File("drawing.txt", "a bowl"), new(null, null, null, "Tides", "https://tides.example/")], also: [other]));
        string[] Names(ClassId k) => [.. school.Workspace.See(school.Coordinator, k).Assignments.SelectMany(a => a.Things).Select(t => t.Name)];
        Names(other).ShouldBe(["drawing.txt", "Tides"]);
        // In step: what is attached here is attached there.
        var here = Seen(school.Lead, made.Id);
        new Assigning(school.Premises).Change(school.Lead, school.Class, made.Id, New([new(here[1].Id, null, null, null, null)], publish: false), school.Workspace.See(school.Lead, school.Class).Assignments.Single(a => a.Id == made.Id).Version);
        Names(other).ShouldBe(["Tides"]);
        new Assigning(school.Premises).Change(school.Lead, school.Class, made.Id, New([new(here[1].Id, null, null, null, null), await File("again.txt", "a bowl")], publish: false), school.Workspace.See(school.Lead, school.Class).Assignments.Single(a => a.Id == made.Id).Version);

        var next = school.Rolling.Make(school.Lead, school.Class, new(null, null, null));
        Names(next).ShouldBe(["Tides", "again.txt"]);

        // Into the package and out of it again.
        school.Close();
        using var package = school.Loft.OpenPackage(school.Class).Content;
        using var zip = new MemoryStream();
        await package.CopyToAsync(zip);
        zip.Position = 0;
        var back = (await new App.Closing.PackageIntake(school.Premises).Read(school.Coordinator, school.Years[0].Id, zip, true, CancellationToken.None)).Made!.Value;
        Names(back).ShouldBe(["Tides", "again.txt"]);
        var thing = school.Workspace.See(school.Coordinator, back).Assignments.Single().Things[1];
        using var reader = new StreamReader(attaching.Open(school.Coordinator, back, school.Workspace.See(school.Coordinator, back).Assignments.Single().Id, thing.Id).Content);
        (await reader.ReadToEndAsync()).ShouldBe("a bowl");
    }
}
