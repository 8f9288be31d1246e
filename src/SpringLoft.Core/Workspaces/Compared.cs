using DiffPlex;
using DiffPlex.Chunkers;

namespace SpringLoft.Core.Workspaces;

/// <summary>A stretch in which two rows of pieces differ: so many of the earlier one from a place on are so many of the later one.</summary>
internal readonly record struct Difference(int FromWas, int CountWas, int FromNow, int CountNow);

/// <summary>
/// Finds where two rows of pieces (lines, words) differ. The time of an exact comparison grows with the square of what differs: of
/// texts that differ in more than a person reads, all between their common beginning and end is one difference.
/// </summary>
internal static class Compared
{
    /// <summary>Most pieces of both that are compared one with another.</summary>
    internal const int Most = 8000;

    internal static IReadOnlyList<Difference> Of(IReadOnlyList<string> was, IReadOnlyList<string> now)
    {
        var begin = 0;
        while (begin < was.Count && begin < now.Count && was[begin] == now[begin]) begin++;
        var end = 0;
        while (end < was.Count - begin && end < now.Count - begin && was[^(end + 1)] == now[^(end + 1)]) end++;
        var (w, n) = (was.Count - begin - end, now.Count - begin - end);
        if (w == 0 && n == 0) return [];
        if (w == 0 || n == 0 || w + n > Most) return [new(begin, w, begin, n)];
        // Numbers stand for pieces, a line each: nothing in a piece can be taken for the end of one.
        var known = new Dictionary<string, int>(StringComparer.Ordinal);
        string Numbers(IReadOnlyList<string> of, int count)
        {
            var numbers = new string[count];
            for (var i = 0; i < count; i++)
            {
                var piece = of[begin + i];
                if (!known.TryGetValue(piece, out var number)) known[piece] = number = known.Count;
                numbers[i] = number.ToString(System.Globalization.CultureInfo.InvariantCulture);
            }
            return string.Join('\n', numbers);
        }
        return [.. Differ.Instance.CreateDiffs(Numbers(was, w), Numbers(now, n), ignoreWhiteSpace: false, ignoreCase: false, new LineChunker()).DiffBlocks
            .Select(d => new Difference(begin + d.DeleteStartA, d.DeleteCountA, begin + d.InsertStartB, d.InsertCountB))];
    }
}
