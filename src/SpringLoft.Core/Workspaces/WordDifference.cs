namespace SpringLoft.Core.Workspaces;

/// <summary>What became of a stretch of a text.</summary>
public enum DifferenceKind { Same, Gone, New }

/// <summary>A stretch of two texts that are compared; it is text of both, of the earlier one, or of the later one.</summary>
public sealed record TextDifference(DifferenceKind Kind, string Text);

/// <summary>Compares two texts word by word, within the lines that differ: what is gone and what is new, in the order in which one reads.</summary>
public static class WordDifference
{
    /// <summary>The stretches in their order. Those that are not new make the earlier text, those that are not gone the later one.</summary>
    public static IReadOnlyList<TextDifference> Of(string earlier, string later)
    {
        var parts = new List<TextDifference>();
        void Add(DifferenceKind kind, IEnumerable<string> pieces)
        {
            var text = string.Concat(pieces);
            if (text.Length == 0) return;
            if (parts.Count > 0 && parts[^1].Kind == kind) parts[^1] = parts[^1] with { Text = parts[^1].Text + text };
            else parts.Add(new(kind, text));
        }
        void Walk(IReadOnlyList<string> was, IReadOnlyList<string> now, Action<IEnumerable<string>, IEnumerable<string>> differs)
        {
            var at = 0;
            foreach (var d in Compared.Of(was, now))
            {
                Add(DifferenceKind.Same, was.Skip(at).Take(d.FromWas - at));
                differs(was.Skip(d.FromWas).Take(d.CountWas), now.Skip(d.FromNow).Take(d.CountNow));
                at = d.FromWas + d.CountWas;
            }
            Add(DifferenceKind.Same, was.Skip(at));
        }
        Walk(Lines(earlier), Lines(later), (gone, fresh) => Walk(Words(string.Concat(gone)), Words(string.Concat(fresh)), (was, now) =>
        {
            Add(DifferenceKind.Gone, was);
            Add(DifferenceKind.New, now);
        }));
        return Together(parts);
    }

    // What differs word after word is read as one: first all that is gone, then all that is new.
    private static List<TextDifference> Together(List<TextDifference> parts)
    {
        var read = new List<TextDifference>();
        for (var at = 0; at < parts.Count;)
        {
            if (parts[at].Kind == DifferenceKind.Same) { read.Add(parts[at++]); continue; }
            var (gone, fresh) = (new System.Text.StringBuilder(), new System.Text.StringBuilder());
            for (; at < parts.Count && (parts[at].Kind != DifferenceKind.Same || (at + 1 < parts.Count && IsGap(parts[at].Text))); at++)
            {
                if (parts[at].Kind != DifferenceKind.New) gone.Append(parts[at].Text);
                if (parts[at].Kind != DifferenceKind.Gone) fresh.Append(parts[at].Text);
            }
            if (gone.Length > 0) read.Add(new(DifferenceKind.Gone, gone.ToString()));
            if (fresh.Length > 0) read.Add(new(DifferenceKind.New, fresh.ToString()));
        }
        return read;

        static bool IsGap(string text) => text.All(c => c is ' ' or '\t');
    }

    // Each with the break that ends it.
    private static List<string> Lines(string text)
    {
        var lines = new List<string>();
        for (var at = 0; at < text.Length;)
        {
            var end = text.IndexOf('\n', at) is var i and >= 0 ? i + 1 : text.Length;
            lines.Add(text[at..end]);
            at = end;
        }
        return lines;
    }

    // Letters and figures together; whatever stands between words by itself.
    private static List<string> Words(string text)
    {
        var words = new List<string>();
        for (var at = 0; at < text.Length;)
        {
            var end = at + 1;
            if (IsWord(text[at])) while (end < text.Length && IsWord(text[end])) end++;
            words.Add(text[at..end]);
            at = end;
        }
        return words;

        static bool IsWord(char c) => char.IsLetterOrDigit(c) || char.IsSurrogate(c) || char.GetUnicodeCategory(c) == System.Globalization.UnicodeCategory.NonSpacingMark;
    }
}
