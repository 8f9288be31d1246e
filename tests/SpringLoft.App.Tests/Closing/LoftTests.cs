using System.IO.Compression;
using SpringLoft.App.Closing;
using SpringLoft.App.Workspaces;
using SpringLoft.Store.Assignments;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Tests.Closing;

public class LoftTests : SchoolTest
{
    public LoftTests()
    {
        school.OpenClass();
        school.Put(school.Lead, "Papers", "glaze table.txt", "cobalt").Wait();
        school.Put(school.Umi, "Hallgrímsson, Umi", "sketch.txt", "a sketch").Wait();
        school.Items.AddLink(school.Lead, school.Class, school.FolderNamed("Papers"), "Kiln", "https://kiln.example/");
        var a = school.Assign("Pinch pot", 20, "Papers", "Start here");
        school.HandIn(school.Umi, a, "umi's pot").Wait();
        var row = school.Read(c => WorkStore.Of(c, a, school.Umi.Id))!;
        school.Returns.Mark(school.Lead, school.Class, row.Id, 17.5m, row.Version);
        school.Returns.ReturnAll(school.Lead, school.Class, null, true, "Fine rim.");
        new Notices(school.Premises).Post(school.Lead, new("Bring an apron.", [school.Class], null, false, null, null));
    }

    private LoftBin Bin => school.Bin;
    private void TakeHomes()
    {
        var run = school.TakeHomes.Begin(school.Coordinator, school.Years[0].Id, null);
        school.TakeHomes.Go(run, CancellationToken.None);
    }

    private string[] TakenHome()
    {
        using var content = school.TakeHomes.OpenMine(school.Umi, school.Years[0].Id).Content;
        using var zip = new ZipArchive(content);
        return [.. zip.Entries.Select(e => e.FullName)];
    }

    private PackageIntake Intake => new(school.Premises);

    private MemoryStream Package()
    {
        using var content = school.Loft.OpenPackage(school.Class).Content;
        var bytes = new MemoryStream();
        content.CopyTo(bytes);
        bytes.Position = 0;
        return bytes;
    }

    private static Dictionary<string, string> Texts(Stream zip)
    {
        using var archive = new ZipArchive(zip);
        return archive.Entries.Where(e => e.FullName.Contains("/data/", StringComparison.Ordinal)).ToDictionary(e => e.FullName[(e.FullName.IndexOf("/data/", StringComparison.Ordinal) + 6)..], e => new StreamReader(e.Open()).ReadToEnd());
    }

    [Fact]
    public void Things_are_found_over_all_years_by_those_who_taught_them()
    {
        school.Close();

        school.Loft.Search(school.Lead, "glaze").ShouldHaveSingleItem().ShouldSatisfyAllConditions(h => h.Folder.ShouldBe("Papers"), h => h.YearLabel.ShouldBe("2026–27"), h => h.Kind.ShouldBe("File"));
        school.Loft.Search(school.Coordinator, "pinch").ShouldHaveSingleItem().Kind.ShouldBe("Assignment");
        school.Loft.Search(school.OtherTeacher, "glaze").ShouldBeEmpty();
        school.Loft.Search(school.Lead, "sketch").ShouldBeEmpty("work of students is nobody's material");
        school.Loft.Search(school.Lead, "100%_").ShouldBeEmpty();
    }

    [Fact]
    public void Single_things_of_an_archived_class_are_used_in_a_class_of_this_year()
    {
        school.Close();
        var to = school.Making.Make(school.Lead, school.New("Clay", "7A"));
        var hit = school.Loft.Search(school.Lead, "glaze")[0];
        var draft = school.Loft.Search(school.Lead, "pinch")[0];

        new GivingOut(school.Premises).Give(school.Lead, hit.Class, new([new(hit.Id)], null, [new(draft.Id)], false, [to]));

        school.Read(c => ItemStore.OfClass(c, to)).ShouldHaveSingleItem().Name.ShouldBe("glaze table.txt");
        school.Read(c => AssignmentStore.OfClass(c, to)).ShouldHaveSingleItem().ShouldSatisfyAllConditions(a => a.DueOn.ShouldBeNull(), a => a.PublishedAt.ShouldBeNull());
    }

    [Fact]
    public void Deleting_wants_the_loft_take_homes_nothing_held_and_the_name()
    {
        var name = school.Workspace.Head(school.Coordinator, school.Class).Name;
        Refused(() => Bin.Bin(school.Coordinator, school.Class, name)).ShouldBe("delete-barred");
        school.Close();
        Refused(() => Bin.Bin(school.Coordinator, school.Class, name)).ShouldBe("delete-barred", "the take-homes of the class itself would go with it");
        TakeHomes();
        Refused(() => Bin.Bin(school.Coordinator, school.Class, "Clay")).ShouldBe("delete-name");
        Bin.Check(school.Class).Against.ShouldBeEmpty();

        Bin.Bin(school.Coordinator, school.Class, name);

        school.Loft.See(school.Coordinator).ShouldBeEmpty();
        Refused(() => school.Workspace.Head(school.Coordinator, school.Class)).ShouldBe("not-found");
        school.Workspace.Mine(school.Umi).ShouldBeEmpty();
        Bin.See().ShouldHaveSingleItem().GoneAt.ShouldBe(school.Premises.Clock.Now + Duration.FromDays(30));
    }

    [Fact]
    public void From_the_bin_it_comes_back_whole_for_30_days_and_then_it_is_gone()
    {
        school.Close();
        TakeHomes();
        var package = Texts(Package());
        Bin.Bin(school.Coordinator, school.Class, school.Workspace.Head(school.Coordinator, school.Class).Name);
        school.Clock.AdvanceDays(29);
        Bin.LetGo().ShouldBe(0);
        Bin.BringBack(school.Coordinator, school.Class);
        Texts(Package()).ShouldBe(package);

        Bin.Bin(school.Coordinator, school.Class, school.Workspace.Head(school.Coordinator, school.Class).Name);
        school.Clock.AdvanceDays(-400);
        Bin.LetGo().ShouldBe(0, "a clock set back lets go of nothing");
        school.Clock.AdvanceDays(431);
        Bin.LetGo().ShouldBe(1);
        Bin.See().ShouldBeEmpty();
        school.Read(c => Dapper.SqlMapper.Query<string>(c, "PRAGMA foreign_key_check").ToList()).ShouldBeEmpty();
        school.Read(c => WorkStore.OfClass(c, school.Class)).ShouldBeEmpty();
    }

    [Fact]
    public void What_a_student_took_home_outlives_the_class_and_is_not_made_anew_without_it()
    {
        var other = school.Making.Make(school.Lead, school.New("Tides", "7A"));
        school.Roster.Enroll(school.Lead, other, [school.Umi.Id], ClassRole.Student);
        school.Making.Open(school.Lead, other, school.Workspace.Head(school.Lead, other).Version);
        school.Close();
        TakeHomes();
        var taken = TakenHome();
        taken.ShouldContain(f => f.EndsWith("pot.txt", StringComparison.Ordinal));
        Bin.Bin(school.Coordinator, school.Class, school.Workspace.Head(school.Coordinator, school.Class).Name);
        TakeHomes();
        TakenHome().ShouldBe(taken, "in the bin");
        school.Clock.AdvanceDays(31);
        Bin.LetGo().ShouldBe(1);

        TakeHomes();

        TakenHome().ShouldBe(taken, "gone for good");
    }

    [Fact]
    public void Brought_back_from_the_bin_a_take_home_is_made_anew_again()
    {
        school.Close();
        TakeHomes();
        Bin.Bin(school.Coordinator, school.Class, school.Workspace.Head(school.Coordinator, school.Class).Name);
        Bin.BringBack(school.Coordinator, school.Class);
        school.Clock.AdvanceHours(1);

        TakeHomes();

        school.TakeHomes.See(school.Coordinator, school.Years[0].Id).Students.Single(s => s.Student == school.Umi.Id).MadeAt.ShouldBe(school.Premises.Clock.Now);
    }

    [Fact]
    public void A_class_with_an_open_shelf_is_not_deleted()
    {
        new OpenShelf(school.Premises, new(school.Premises)).Set(school.Lead, school.Class, new("To read", "", school.Premises.Clock.Today.PlusDays(30), [school.FolderNamed("Papers")], [], []));
        school.Close();
        TakeHomes();

        Bin.Check(school.Class).Against.ShouldHaveSingleItem().ShouldContain("open shelf");
    }

    [Fact]
    public async Task A_package_read_back_in_has_every_file_and_row_as_they_were()
    {
        school.Close();
        var before = Texts(Package());

        var preview = await Intake.Read(school.Coordinator, school.Years[0].Id, Package(), false, CancellationToken.None);
        var read = await Intake.Read(school.Coordinator, school.Years[0].Id, Package(), true, CancellationToken.None);

        preview.ShouldBe(read with { Made = null });
        (read.Work, read.People, read.Known).ShouldBe((1, 4, 4));
        var made = read.Made!.Value;
        school.Workspace.Head(school.Coordinator, made).ShouldSatisfyAllConditions(h => h.State.ShouldBe(ClassState.Archived), h => h.Name.ShouldEndWith("(read in)"));
        // Packed anew every file is the same at the same place, and so is the roster.
        school.Loft.Restore(school.Coordinator, made, school.Workspace.Head(school.Coordinator, made).Version);
        new ClosingRunner(school.Premises, new RunNews(), new NoMilestones(), Microsoft.Extensions.Logging.Abstractions.NullLogger<ClosingRunner>.Instance, new(school.Premises)).Go(school.Closing.Close(school.Coordinator, made, AfterArchive.View), CancellationToken.None);
        using (var again = school.Loft.OpenPackage(made).Content)
        {
            var after = Texts(again);
            foreach (var (path, text) in before.Where(p => !p.Key.StartsWith("metadata/", StringComparison.Ordinal) || p.Key == "metadata/roster.csv")) after[path].ShouldBe(text, path);
            after.Count.ShouldBe(before.Count);
        }
        var w = school.Returns.See(school.Coordinator, made).Students.SelectMany(s => s.Cells).ShouldHaveSingleItem();
        w.Score.ShouldBe(17.5m);
        school.Returns.See(made, w.Id).Comments.ShouldHaveSingleItem().ShouldSatisfyAllConditions(m => m.Text.ShouldBe("Fine rim."), m => m.Author.ShouldBe("Oisín Farquhar"));
        school.Workspace.See(school.Umi, made).Folders.Select(f => f.Name).ShouldContain("Hallgrímsson, Umi");
    }

    [Fact]
    public async Task On_another_installation_unknown_people_come_in_inactive_and_nobody_is_mistaken()
    {
        school.Close();
        using var other = new TinySchool();
        // There the number 1001 is somebody else's.
        other.Premises.Db.Write(c => Dapper.SqlMapper.Execute(c, "UPDATE person SET given = 'Somebody', family = 'Else' WHERE student_number = '1001'"));

        var read = await new PackageIntake(other.Premises).Read(other.Coordinator, other.Years[0].Id, Package(), true, CancellationToken.None);

        (read.People, read.Known).ShouldBe((4, 3));
        other.Roster.See(read.Made!.Value).Select(m => m.SortName).ShouldContain("Hallgrímsson, Umi");
        other.Read(c => Dapper.SqlMapper.ExecuteScalar<long>(c, "SELECT count(*) FROM person WHERE family = 'Hallgrímsson' AND active = 0")).ShouldBe(1);
    }

    [Theory]
    [InlineData(0)]
    [InlineData(0.2)]
    [InlineData(0.5)]
    [InlineData(0.75)]
    [InlineData(0.99)]
    public async Task A_package_with_one_bit_changed_is_refused_and_nothing_is_taken_in(double where)
    {
        school.Close();
        var bytes = Package().ToArray();
        bytes[InData(bytes, where)] ^= 1;
        var classes = school.Read(c => ClassStore.AllNames(c).Count);

        (await Refused(() => Intake.Read(school.Coordinator, school.Years[0].Id, new MemoryStream(bytes), true, CancellationToken.None))).ShouldBe("package-wrong");

        school.Read(c => ClassStore.AllNames(c).Count).ShouldBe(classes);
    }

    // The middle of what a file of the zip holds, that file's place among all as a part of them; by APPNOTE.TXT 4.3 (from memory).
    private static int InData(byte[] zip, double where)
    {
        var end = zip.AsSpan().LastIndexOf("PK\u0005\u0006"u8);
        var files = new List<(int Offset, int Length)>();
        for (var at = BitConverter.ToInt32(zip, end + 16); at < end; at += 46 + BitConverter.ToUInt16(zip, at + 28) + BitConverter.ToUInt16(zip, at + 30) + BitConverter.ToUInt16(zip, at + 32))
            if (BitConverter.ToInt32(zip, at + 20) is > 0 and var length) files.Add((BitConverter.ToInt32(zip, at + 42), length));
        var (offset, size) = files[(int)(files.Count * where)];
        return offset + 30 + BitConverter.ToUInt16(zip, offset + 26) + BitConverter.ToUInt16(zip, offset + 28) + (size / 2);
    }

    [Fact]
    public async Task What_is_no_package_is_said_to_be_none() =>
        (await Refused(() => Intake.Read(school.Coordinator, school.Years[0].Id, TinySchool.Bytes("not a zip"), false, CancellationToken.None))).ShouldBe("package-wrong");
}
