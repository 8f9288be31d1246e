using System.Globalization;
using System.Text;
using SpringLoft.Core;
using SpringLoft.Core.Rollover;
using SpringLoft.Store.Rollover;

namespace SpringLoft.Store.Tests.Rollover;

/// <summary>The index over the past, against a slow scan of the same texts.</summary>
public sealed class PastIndexTests : IDisposable
{
    private static readonly string[] Vocabulary = ["Glaze", "glazed", "glass", "kiln", "Kilns", "Hallgrímsson", "hallgrimur", "Übung", "ubungen", "naïve", "week", "07", "Öl", "水彩", "pot", "pots", "potter", "a", "the", "don't"];

    private readonly string folder = Directory.CreateTempSubdirectory().FullName;
    private readonly PastIndex index;

    public PastIndexTests() => index = new(Path.Combine(folder, "past.db"));

    public void Dispose()
    {
        index.Dispose();
        Directory.Delete(folder, recursive: true);
    }

    private static PastEntry Entry(long id, string title, string body = "", long inClass = 1, PastKind kind = PastKind.File) => new(new(kind, id), new(inClass), title, title, body);

    private IReadOnlyList<long> Find(string find, params long[] classes) => [.. index.Find(find, classes.Length == 0 ? [new(1)] : classes.Select(k => new ClassId(k)), 1000).Select(f => f.Key.Id)];

    // As the index folds: case and marks on letters do not count.
    private static List<string> Folded(string text) =>
        [.. PastIndex.WordsOf(string.Concat(text.Normalize(NormalizationForm.FormD).Where(c => CharUnicodeInfo.GetUnicodeCategory(c) != UnicodeCategory.NonSpacingMark)).ToLowerInvariant())];

    private static List<string> AllFolded(string text) => [.. text.Split(' ', StringSplitOptions.RemoveEmptyEntries).SelectMany(Folded)];

    [Fact]
    public void It_finds_what_a_slow_scan_finds_in_the_order_of_the_published_formula()
    {
        var random = new Random(5);
        string Text(int most) => string.Join(' ', Enumerable.Range(0, random.Next(1, most)).Select(_ => Vocabulary[random.Next(Vocabulary.Length)]));
        var all = Enumerable.Range(1, 250).Select(n => Entry(n, Text(4), Text(30))).ToList();
        index.Change(all, []);
        var docs = all.Select(e => (e.Key.Id, Title: AllFolded(e.Title), Body: AllFolded(e.Body))).ToList();
        var average = docs.Average(d => (double)(d.Title.Count + d.Body.Count));

        foreach (var find in (string[])["glaz", "GLAZE kiln", "hallgrims", "übung", "ubung", "水", "07 week", "pot the", "don't", "naive a", "zzz", "ol"])
        {
            var asked = Folded(find);
            // BM25 as the documentation of SQLite's FTS5 gives it, with k1 = 1.2 and b = 0.75 (from memory); a word of the title counts eight times.
            double Score((long Id, List<string> Title, List<string> Body) d) => asked.Sum(w =>
            {
                int Hits(List<string> words) => words.Count(x => x.StartsWith(w, StringComparison.Ordinal));
                var with = docs.Count(x => Hits(x.Title) + Hits(x.Body) > 0);
                var rare = Math.Max(Math.Log((docs.Count - with + 0.5) / (with + 0.5)), 1e-6);
                var often = (8.0 * Hits(d.Title)) + Hits(d.Body);
                return rare * (often * 2.2) / (often + (1.2 * (0.25 + (0.75 * (d.Title.Count + d.Body.Count) / average))));
            });
            var wanted = docs.Where(d => asked.All(w => d.Title.Concat(d.Body).Any(x => x.StartsWith(w, StringComparison.Ordinal)))).ToDictionary(d => d.Id, Score);

            var found = Find(find);

            found.ShouldBe(wanted.Keys, ignoreOrder: true, customMessage: find);
            // Two that differ by less than figures of that length can say may stand either way.
            foreach (var (one, next) in found.Zip(found.Skip(1))) wanted[one].ShouldBeGreaterThanOrEqualTo(wanted[next] - 1e-9, $"{find}: {one} before {next}");
        }
    }

    [Theory]
    [InlineData("\"")]
    [InlineData("* OR NOT")]
    [InlineData("title:glaze")]
    [InlineData("NEAR(glaze kiln)")]
    [InlineData("(")]
    [InlineData("'; DROP TABLE words; --")]
    [InlineData("🏺")]
    public void What_is_typed_is_never_the_index_s_own_language(string find)
    {
        index.Change([Entry(1, "Glaze")], []);

        Should.NotThrow(() => Find(find));
        Should.NotThrow(() => Find($"{find}{(char)0xD83D}{(char)0}"));
        Find($"{(char)0xDC00}glaze{(char)0xD83D}").ShouldBe([1]);
    }

    [Fact]
    public void It_looks_only_where_it_is_told_to_and_forgets_what_is_let_go_or_taken_in_anew()
    {
        index.Change([Entry(1, "Glaze"), Entry(2, "Glaze", inClass: 2), Entry(1, "Glaze", kind: PastKind.Folder)], []);
        Find("glaze").ShouldBe([1, 1]);
        Find("glaze", 1, 2).Count.ShouldBe(3);
        Find("glaze", 3).ShouldBeEmpty();

        index.Change([Entry(2, "Kiln", inClass: 2)], [new(PastKind.File, 1)]);

        Find("glaze", 1, 2).ShouldBe([1]);
        Find("kiln", 2).ShouldBe([2]);
        index.Stamps().ShouldBe(new Dictionary<PastKey, string> { [new(PastKind.Folder, 1)] = "Glaze", [new(PastKind.File, 2)] = "Kiln" }, ignoreOrder: true);
    }

    [Fact]
    public void It_stays_and_is_made_anew_where_its_file_is_no_index_any_more()
    {
        var path = Path.Combine(folder, "kept.db");
        using (var first = new PastIndex(path)) first.Change([Entry(1, "Glaze")], []);
        using (var again = new PastIndex(path)) again.Stamps().Count.ShouldBe(1);
        File.WriteAllText(path, new string('x', 9000));

        using var anew = new PastIndex(path);

        anew.Stamps().ShouldBeEmpty();
        anew.Change([Entry(1, "Glaze")], []);
        anew.Find("glaze", [new(1)], 5).Count.ShouldBe(1);
    }

    [Fact]
    public void Damaged_while_it_is_used_it_begins_anew_and_nobody_is_refused()
    {
        var path = Path.Combine(folder, "hurt.db");
        using (var first = new PastIndex(path)) first.Change([.. Enumerable.Range(1, 2000).Select(n => Entry(n, $"Glaze {n}", string.Join(' ', Vocabulary)))], []);
        using (var hurt = new FileStream(path, FileMode.Open, FileAccess.Write))
        {
            hurt.Position = 4096;
            hurt.Write(new byte[hurt.Length - 4096].Select((_, n) => (byte)(n * 7)).ToArray());
        }

        using var again = new PastIndex(path);

        Should.NotThrow(() => again.Find("glaze", [new(1)], 5));
        again.Stamps().ShouldBeEmpty();
        again.Change([Entry(1, "Glaze")], []);
        again.Find("glaze", [new(1)], 5).Count.ShouldBe(1);
    }

    [Fact]
    public void The_file_holds_no_text_only_which_word_stands_where()
    {
        index.Change([Entry(1, "Papers", "the kiln of Hallgrímsson is broken")], []);

        var bytes = string.Concat(Directory.GetFiles(folder).Select(f => { using var open = new FileStream(f, FileMode.Open, FileAccess.Read, FileShare.ReadWrite | FileShare.Delete); using var all = new MemoryStream(); open.CopyTo(all); return Encoding.UTF8.GetString(all.ToArray()); }));
        bytes.ShouldNotContain("is broken");
    }
}
