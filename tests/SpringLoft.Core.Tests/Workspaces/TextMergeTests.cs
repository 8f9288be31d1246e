using System.Diagnostics;
using CsCheck;
using SpringLoft.Core.Workspaces;

namespace SpringLoft.Core.Tests.Workspaces;

public class TextMergeTests
{
    private static IEnumerable<(MergeKind, string, string, string)> Chunks(string was, string mine, string theirs) =>
        TextMerge.Merge(was, mine, theirs).Select(c => (c.Kind, string.Join(' ', c.Was), string.Join(' ', c.Mine), string.Join(' ', c.Theirs)));

    private static string L(string words) => words.Replace(' ', '\n');

    /// <summary>The example of section 2 of Khanna, Kunal and Pierce, “A Formal Investigation of Diff3” (FSTTCS 2007), from memory: O = 1 2 3 4 5 6, A = 1 4 5 2 3 6, B = 1 2 4 5 3 6.</summary>
    [Fact]
    public void The_published_example_has_its_chunks_and_its_conflict()
    {
        var chunks = Chunks(L("1 2 3 4 5 6"), L("1 4 5 2 3 6"), L("1 2 4 5 3 6")).ToList();

        chunks[0].ShouldBe((MergeKind.Same, "1", "1", "1"));
        chunks[^1].ShouldBe((MergeKind.Same, "6", "6", "6"));
        chunks.ShouldContain(c => c.Item1 == MergeKind.Conflict);
        chunks.SelectMany(c => c.Item3.Split(' ', StringSplitOptions.RemoveEmptyEntries)).ShouldBe(["1", "4", "5", "2", "3", "6"]);
        chunks.SelectMany(c => c.Item4.Split(' ', StringSplitOptions.RemoveEmptyEntries)).ShouldBe(["1", "2", "4", "5", "3", "6"]);
    }

    [Theory]
    [InlineData("a b c d", "x b c d", "a b c y", "x b c y")]
    [InlineData("a b c d", "a b c d e", "n a b c d", "n a b c d e")]
    [InlineData("a b c d", "a c d", "a b c", "a c")]
    [InlineData("a b c", "a x c", "a x c", "a x c")]
    [InlineData("a b c", "a b c", "a b c", "a b c")]
    public void What_two_changed_in_different_places_is_merged(string was, string mine, string theirs, string merged) =>
        TextMerge.Whole(TextMerge.Merge(L(was), L(mine), L(theirs))).ShouldBe(L(merged));

    [Theory]
    [InlineData("a b c", "a x c", "a y c")]
    [InlineData("a b c", "a c", "a y c")]
    [InlineData("", "x", "y")]
    public void What_both_changed_in_one_place_is_for_a_person(string was, string mine, string theirs) => TextMerge.Whole(TextMerge.Merge(L(was), L(mine), L(theirs))).ShouldBeNull();

    private static readonly Gen<string> AnyText = Any.Of("a", "b", "c", "", "dd").List[0, 9].Select(l => string.Join('\n', l));

    [Fact]
    public void Nothing_that_anybody_wrote_is_left_out() => Gen.Select(AnyText, AnyText, AnyText).Sample((was, mine, theirs) =>
    {
        var chunks = TextMerge.Merge(was, mine, theirs);
        string.Join('\n', chunks.SelectMany(c => c.Was)).ShouldBe(was);
        string.Join('\n', chunks.SelectMany(c => c.Mine)).ShouldBe(mine);
        string.Join('\n', chunks.SelectMany(c => c.Theirs)).ShouldBe(theirs);
        foreach (var c in chunks.Where(c => c.Kind == MergeKind.Theirs)) c.Mine.ShouldBe(c.Was);
        foreach (var c in chunks.Where(c => c.Kind == MergeKind.Mine)) c.Theirs.ShouldBe(c.Was);
    }, iter: 5000);

    [Fact]
    public void Who_changed_nothing_takes_all_of_the_other() => Gen.Select(AnyText, AnyText).Sample((was, theirs) =>
    {
        TextMerge.Whole(TextMerge.Merge(was, was, theirs)).ShouldBe(theirs);
        TextMerge.Whole(TextMerge.Merge(was, theirs, was)).ShouldBe(theirs);
        TextMerge.Whole(TextMerge.Merge(was, theirs, theirs)).ShouldBe(theirs);
    }, iter: 3000);

    /// <summary>Where GNU diff3 merges without a conflict and changes stand apart, so do we, and to the same text.</summary>
    [Fact]
    public void Changes_that_stand_apart_merge_as_GNU_diff3_merges_them()
    {
        var chance = new Random(7);
        var same = 0;
        for (var n = 0; n < 60; n++)
        {
            var was = Enumerable.Range(0, 12).Select(i => $"line {i}").ToList();
            var (mine, theirs) = (was.ToList(), was.ToList());
            mine[chance.Next(0, 5)] = $"mine {n}";
            theirs[chance.Next(7, 12)] = $"theirs {n}";
            if (chance.Next(2) == 0) mine.Insert(0, "a beginning");
            if (chance.Next(2) == 0) theirs.Add("an end");
            var (code, said) = Diff3(mine, was, theirs);
            if (code != 0) continue;
            TextMerge.Whole(TextMerge.Merge(string.Join('\n', was), string.Join('\n', mine), string.Join('\n', theirs))).ShouldBe(said.TrimEnd('\n'));
            same++;
        }
        same.ShouldBeGreaterThan(50);
    }

    private static (int Code, string Said) Diff3(params List<string>[] texts)
    {
        var folder = Directory.CreateTempSubdirectory("spring-loft-diff3-").FullName;
        try
        {
            for (var i = 0; i < 3; i++) File.WriteAllText(Path.Combine(folder, $"{i}"), string.Join('\n', texts[i]) + "\n");
            using var process = Process.Start(new ProcessStartInfo("diff3", ["-m", "0", "1", "2"]) { WorkingDirectory = folder, RedirectStandardOutput = true })!;
            var said = process.StandardOutput.ReadToEnd();
            process.WaitForExit();
            return (process.ExitCode, said);
        }
        finally { Directory.Delete(folder, recursive: true); }
    }
}
