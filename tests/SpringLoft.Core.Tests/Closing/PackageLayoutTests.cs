using CsCheck;
using SpringLoft.Core.Closing;
using SpringLoft.Core.Naming;

namespace SpringLoft.Core.Tests.Closing;

public class PackageLayoutTests
{
    private static LayFile File(string name) => new(name, new('a', 64), new('b', 128), 1, Instant.FromUtc(2027, 1, 1, 0, 0));

    private static LayFolder Folder(long id, string name, long? parent = null) => new(new(id), parent is { } p ? new FolderId(p) : null, name);

    private static LayItem Item(string name, params long[] folders) => new(File(name), [.. folders.Select(f => new FolderId(f))]);

    private static IEnumerable<string> Paths(IReadOnlyList<LaidFile> laid) => laid.Select(l => l.Path);

    [Fact]
    public void An_item_stands_where_it_is_filed_in_each_place() =>
        Paths(PackageLayout.Archive([Folder(1, "Week 01"), Folder(2, "Papers", 1)], [Item("a.pdf", 1, 2)], []))
            .ShouldBe(["folders/Week 01/a.pdf", "folders/Week 01/Papers/a.pdf"]);

    [Fact]
    public void What_is_in_no_folder_stands_apart() => Paths(PackageLayout.Archive([], [Item("scan.pdf")], [])).ShouldBe(["unfiled/scan.pdf"]);

    [Fact]
    public void Files_with_notices_stand_by_their_notice() =>
        Paths(PackageLayout.Archive([], [], [], [new("Pot", File("plan.pdf"))], [new("notice 7", File("plan.pdf")), new("notice 7", File("PLAN.pdf")), new("notice 9", File("plan.pdf"))]))
            .ShouldBe(["assignments/Pot/plan.pdf", "notices/notice 7/plan.pdf", "notices/notice 7/PLAN (2).pdf", "notices/notice 9/plan.pdf"]);

    [Fact]
    public void Work_stands_by_assignment_and_student_with_the_student_number() =>
        Paths(PackageLayout.Archive([], [], [new LayWork("Pinch pot", new(1), "Farquhar, Rúna", "1002", [File("pot.jpg")])])).ShouldBe(["work/Pinch pot/Farquhar, Rúna (1002)/pot.jpg"]);

    [Fact]
    public void Folders_with_nothing_in_them_are_known() =>
        PackageLayout.Lay([Folder(1, "Week 01"), Folder(2, "Papers", 1), Folder(3, "Later"), Folder(4, "Full")], [Item("a.pdf", 4)], [], [], []).EmptyFolders.ShouldBe(["folders/Week 01/Papers", "folders/Later"]);

    [Fact]
    public void Two_things_of_one_name_in_one_folder_are_told_apart() =>
        Paths(PackageLayout.Archive([Folder(1, "A")], [Item("a.txt", 1), Item("A.TXT", 1)], [])).ShouldBe(["folders/A/a.txt", "folders/A/A (2).TXT"]);

    [Fact]
    public void A_take_home_stands_by_class_and_assignment_and_keeps_the_own_folder() =>
        Paths(PackageLayout.TakeHome("Clay 6B", [Folder(1, "Farquhar, Rúna"), Folder(2, "Sketchbook", 1)], [Item("s.png", 2), Item("table.txt")],
            [new LayWork("Pinch pot", new(1), "x", null, [File("pot.jpg")])]))
            .ShouldBe(["Clay 6B/Pinch pot/pot.jpg", "Clay 6B/own folder/Farquhar, Rúna/Sketchbook/s.png", "Clay 6B/added by you/table.txt"]);

    [Fact]
    public void No_two_files_of_a_package_clash_and_none_gets_out_of_it() =>
        Gen.Select(Any.Of("a.txt", "A.txt", "../x", "..", "con", "a/b", "ok").List[0, 8], Any.Of("F", "f", "..", "x/y").List[1, 5]).Sample((names, folders) =>
        {
            var rows = folders.Select((f, i) => Folder(i + 1, f, i > 0 && i % 2 == 0 ? i : null)).ToList();
            var laid = PackageLayout.Archive(rows, names.Select((n, i) => Item(n, 1 + (i % rows.Count))), []);
            laid.Count.ShouldBe(names.Count);
            laid.Select(l => SafeName.Key(l.Path)).Distinct().Count().ShouldBe(names.Count);
            laid.SelectMany(l => l.Path.Split('/')).ShouldAllBe(p => p != ".." && p != "." && p.Length > 0);
        });
}
