using DiffPlex;
using DiffPlex.Chunkers;

namespace SpringLoft.Core.Workspaces;

/// <summary>What became of a stretch of a text.</summary>
public enum DifferenceKind { Same, Gone, New }

/// <summary>A stretch of two texts that are compared; it is text of both, of the earlier one, or of the later one.</summary>
public sealed record TextDifference(DifferenceKind Kind, string Text);

/// <summary>Compares two texts word by word: what is gone and what is new, in the order in which one reads.</summary>
public static class WordDifference
{
    private static readonly char[] Between = [' ', '\n', '\t', '.', ',', ';', ':', '!', '?', '(', ')', '*', '#', '-'];

    /// <summary>The stretches in their order. Those that are not new make the earlier text, those that are not gone the later one.</summary>
    public static IReadOnlyList<TextDifference> Of(string earlier, string later)
    {
        var diff = Differ.Instance.CreateDiffs(earlier, later, ignoreWhiteSpace: false, ignoreCase: false, new DelimiterChunker(Between));
        var (was, now) = (diff.PiecesOld, diff.PiecesNew);
        var parts = new List<TextDifference>();
        void Add(DifferenceKind kind, IEnumerable<string> pieces)
        {
            var text = string.Concat(pieces);
            if (text.Length == 0) return;
            if (parts.Count > 0 && parts[^1].Kind == kind) parts[^1] = parts[^1] with { Text = parts[^1].Text + text };
            else parts.Add(new(kind, text));
        }
        var at = 0;
        foreach (var b in diff.DiffBlocks)
        {
            Add(DifferenceKind.Same, was.Skip(at).Take(b.DeleteStartA - at));
            Add(DifferenceKind.Gone, was.Skip(b.DeleteStartA).Take(b.DeleteCountA));
            Add(DifferenceKind.New, now.Skip(b.InsertStartB).Take(b.InsertCountB));
            at = b.DeleteStartA + b.DeleteCountA;
        }
        Add(DifferenceKind.Same, was.Skip(at));
        return parts;
    }
}
