using CsCheck;
using SpringLoft.Core.Workspaces;

namespace SpringLoft.Core.Tests.Workspaces;

public class WordDifferenceTests
{
    private static string Told(string earlier, string later) =>
        string.Concat(WordDifference.Of(earlier, later).Select(d => d.Kind switch { DifferenceKind.Gone => $"[-{d.Text}-]", DifferenceKind.New => $"[+{d.Text}+]", _ => d.Text }));

    [Theory]
    [InlineData("We begin at nine.", "We begin at ten.", "We begin at [-nine-][+ten+].")]
    [InlineData("Bring an apron.", "Bring an apron.", "Bring an apron.")]
    [InlineData("No shoes in the room.", "Shoes are fine.", "[-No shoes in the room-][+Shoes are fine+].")]
    [InlineData("", "New words", "[+New words+]")]
    [InlineData("Old words", "", "[-Old words-]")]
    [InlineData("a\n\nb", "a\n\nc\n\nb", "a\n\n[+c\n\n+]b")]
    public void It_is_told_word_by_word(string earlier, string later, string told) => Told(earlier, later).ShouldBe(told);

    [Fact]
    public void Of_texts_that_differ_in_more_than_a_person_reads_the_whole_is_told()
    {
        string Text(int by) => string.Join('\n', Enumerable.Range(0, 50_000).Select(i => (char)('a' + (i * by % 26))));
        var (earlier, later) = ("begin\n" + Text(3) + "\nend", "begin\n" + Text(7) + "\nend");

        var parts = WordDifference.Of(earlier, later);

        string.Concat(parts.Where(p => p.Kind != DifferenceKind.New).Select(p => p.Text)).ShouldBe(earlier);
        string.Concat(parts.Where(p => p.Kind != DifferenceKind.Gone).Select(p => p.Text)).ShouldBe(later);
        parts.Count.ShouldBeLessThan(10);
        TextMerge.Merge(earlier, later, earlier).Count(c => c.Kind == MergeKind.Mine).ShouldBe(1);
    }

    [Fact]
    public void Both_texts_can_be_read_off_it()
    {
        var text = Any.Of("a", "b", " ", "\n", "word", ".", "é").List[0, 14].Select(string.Concat);
        Gen.Select(text, text).Sample((earlier, later) =>
        {
            var parts = WordDifference.Of(earlier, later);
            string.Concat(parts.Where(p => p.Kind != DifferenceKind.New).Select(p => p.Text)).ShouldBe(earlier);
            string.Concat(parts.Where(p => p.Kind != DifferenceKind.Gone).Select(p => p.Text)).ShouldBe(later);
        }, iter: 5000);
    }
}
