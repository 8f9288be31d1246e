namespace SpringLoft.Core.Workspaces;

/// <summary>How a stretch of a text came to differ.</summary>
public enum MergeKind
{
    /// <summary>Nobody changed it.</summary>
    Same,

    /// <summary>I changed it and they did not.</summary>
    Mine,

    /// <summary>They changed it and I did not.</summary>
    Theirs,

    /// <summary>Both made the same of it.</summary>
    Both,

    /// <summary>Each made something else of it: a person decides.</summary>
    Conflict,
}

/// <summary>What is to stand where two changed the same place; both: mine first.</summary>
public enum MergeSide { Mine, Theirs, Both }

/// <summary>What a person chose.</summary>
/// <param name="Place">Index of the stretch.</param>
public sealed record MergeChoice(int Place, MergeSide Side);

/// <summary>A stretch of lines in the text that both began with, in mine and in theirs.</summary>
public sealed record MergeChunk(MergeKind Kind, IReadOnlyList<string> Was, IReadOnlyList<string> Mine, IReadOnlyList<string> Theirs);

/// <summary>
/// Merges what two people made of one text, line by line; in our pages a paragraph is a line. Source: S. Khanna, K. Kunal and
/// B. C. Pierce, “A Formal Investigation of Diff3”, FSTTCS 2007: stable chunks are lines that all three share, what stands
/// between two of them is taken from whoever changed it, and is a conflict where both did.
/// </summary>
public static class TextMerge
{
    /// <summary>All of the text in stretches, in its order. Nothing that anybody wrote is left out of them.</summary>
    /// <param name="was">What both began with.</param>
    public static IReadOnlyList<MergeChunk> Merge(string was, string mine, string theirs) => Merge(Lines(was), Lines(mine), Lines(theirs));

    /// <summary>The same of lines; there is no line break in any.</summary>
    public static IReadOnlyList<MergeChunk> Merge(IReadOnlyList<string> was, IReadOnlyList<string> mine, IReadOnlyList<string> theirs)
    {
        var (o, a, b) = (was.ToList(), mine.ToList(), theirs.ToList());
        var (inA, inB) = (Matches(o, a), Matches(o, b));
        var chunks = new List<MergeChunk>();
        var (io, ia, ib) = (0, 0, 0);
        while (io < o.Count || ia < a.Count || ib < b.Count)
        {
            var next = io;
            while (next < o.Count && (inA[next] < 0 || inB[next] < 0)) next++;
            var (toA, toB) = next < o.Count ? (inA[next], inB[next]) : (a.Count, b.Count);
            if (next > io || toA > ia || toB > ib) chunks.Add(Chunk(o[io..next], a[ia..toA], b[ib..toB]));
            (io, ia, ib) = (next, toA, toB);
            while (io < o.Count && inA[io] == ia && inB[io] == ib) (io, ia, ib) = (io + 1, ia + 1, ib + 1);
            if (io > next) chunks.Add(new(MergeKind.Same, o[next..io], o[next..io], o[next..io]));
        }
        return chunks;
    }

    /// <summary>The merged text; null if a person has to decide something.</summary>
    public static string? Whole(IReadOnlyList<MergeChunk> chunks) => Text(chunks, new Dictionary<int, MergeSide>());

    /// <summary>How many places a person has to decide yet.</summary>
    public static int Open(IReadOnlyList<MergeChunk> chunks, IReadOnlyDictionary<int, MergeSide> choices) => chunks.Index().Count(c => c.Item.Kind == MergeKind.Conflict && !choices.ContainsKey(c.Index));

    /// <summary>The text that comes of what was chosen; null while something is open.</summary>
    public static string? Text(IReadOnlyList<MergeChunk> chunks, IReadOnlyDictionary<int, MergeSide> choices)
    {
        if (Open(chunks, choices) > 0) return null;
        var lines = new List<string>();
        foreach (var (mine, theirs) in Parts(chunks, choices))
        {
            lines.AddRange(mine);
            // A paragraph each: without an empty line between them they would read as one.
            if (mine.Count > 0 && theirs.Count > 0 && !string.IsNullOrWhiteSpace(mine[^1]) && !string.IsNullOrWhiteSpace(theirs[0])) lines.Add("");
            lines.AddRange(theirs);
        }
        return string.Join('\n', lines);
    }

    /// <summary>Of each stretch, what stands of mine and after it of theirs, by what was chosen; of what is open, nothing.</summary>
    public static IEnumerable<(IReadOnlyList<string> Mine, IReadOnlyList<string> Theirs)> Parts(IReadOnlyList<MergeChunk> chunks, IReadOnlyDictionary<int, MergeSide> choices) => chunks.Select((c, i) => c.Kind switch
    {
        MergeKind.Theirs => ([], c.Theirs),
        MergeKind.Conflict when !choices.TryGetValue(i, out _) => ([], []),
        MergeKind.Conflict => (choices[i] == MergeSide.Theirs ? [] : c.Mine, choices[i] == MergeSide.Mine ? [] : c.Theirs),
        _ => ((IReadOnlyList<string>)c.Mine, (IReadOnlyList<string>)[]),
    });

    private static MergeChunk Chunk(List<string> was, List<string> mine, List<string> theirs) => new(
        mine.SequenceEqual(was) ? MergeKind.Theirs : theirs.SequenceEqual(was) ? MergeKind.Mine : mine.SequenceEqual(theirs) ? MergeKind.Both : MergeKind.Conflict, was, mine, theirs);

    private static List<string> Lines(string text) => [.. text.ReplaceLineEndings("\n").Split('\n')];

    // For each line of the old text the line of the new one that it still is; -1 where it is gone.
    private static int[] Matches(List<string> was, List<string> now)
    {
        var matches = new int[was.Count];
        var (at, to) = (0, 0);
        foreach (var d in Compared.Of(was, now))
        {
            while (at < d.FromWas) matches[at++] = to++;
            for (var i = 0; i < d.CountWas; i++) matches[at++] = -1;
            to += d.CountNow;
        }
        while (at < was.Count) matches[at++] = to++;
        return matches;
    }
}
