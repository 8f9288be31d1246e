using System.Text.Json;
using SpringLoft.Core.Workspaces;

namespace SpringLoft.Core.Plans;

/// <summary>A stretch of lines in an outline that two changed.</summary>
public sealed record OutlineChunk(MergeKind Kind, IReadOnlyList<OutlineLine> Mine, IReadOnlyList<OutlineLine> Theirs);

/// <summary>Merges what two people made of one outline, as <see cref="TextMerge"/> merges texts: a line is a line.</summary>
public static class OutlineMerge
{
    /// <summary>Both outlines in stretches; nothing that anybody wrote is left out.</summary>
    /// <param name="was">What both began with.</param>
    /// <param name="choices">What was decided so far, by the index of the stretch.</param>
    /// <returns>The stretches; how many are open; and the outline that comes of them, null while one is.</returns>
    public static (IReadOnlyList<OutlineChunk> Chunks, int Open, IReadOnlyList<OutlineLine>? Lines) Merge(
        IReadOnlyList<OutlineLine> was, IReadOnlyList<OutlineLine> mine, IReadOnlyList<OutlineLine> theirs, IReadOnlyDictionary<int, MergeSide> choices)
    {
        var chunks = TextMerge.Merge(Written(was), Written(mine), Written(theirs));
        var open = TextMerge.Open(chunks, choices);
        var lines = open > 0 ? null : OnceEach(TextMerge.Parts(chunks, choices).SelectMany(p => p.Mine.Concat(p.Theirs)).Select(Read));
        return ([.. chunks.Select(c => new OutlineChunk(c.Kind, [.. c.Mine.Select(Read)], [.. c.Theirs.Select(Read)]))], open, lines);
    }

    // A line that stands twice, since each made something else of it and both are kept: the second is a new one.
    private static List<OutlineLine> OnceEach(IEnumerable<OutlineLine> lines)
    {
        var keys = new HashSet<string>(StringComparer.Ordinal);
        return [.. lines.Select(l => l.Key is { Length: > 0 } key && !keys.Add(key) ? l with { Key = null } : l)];
    }

    // As one line of text each, in which every part of it counts.
    private static List<string> Written(IReadOnlyList<OutlineLine> lines) => [.. lines.Select(l => JsonSerializer.Serialize(l with { Key = l.Key ?? "", NamePattern = l.NamePattern ?? "", Entries = l.Entries ?? [] }))];

    private static OutlineLine Read(string line)
    {
        var read = JsonSerializer.Deserialize<OutlineLine>(line)!;
        return read.Key == "" ? read with { Key = null } : read;
    }
}
