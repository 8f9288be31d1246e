using SpringLoft.Core.Workspaces;

namespace SpringLoft.App.Workspaces;

/// <summary>What was decided so far where two wrote on one text.</summary>
/// <param name="Seen">Version of the text that it was decided about; for any other one it counts for nothing.</param>
public sealed record Decided(int? Seen, IReadOnlyList<MergeChoice>? Choices)
{
    /// <summary>Choices by their place; none if the text was changed once more since.</summary>
    internal IReadOnlyDictionary<int, MergeSide> About(int version) => Seen != version ? new Dictionary<int, MergeSide>() : (Choices ?? []).GroupBy(c => c.Place).ToDictionary(g => g.Key, g => g.Last().Side);
}

/// <summary>What came of two who wrote on one text.</summary>
/// <param name="Version">Of the text as it stands now: what is saved next is saved at this one.</param>
/// <param name="By">Who wrote it meanwhile.</param>
/// <param name="Stands">The text as it stands now.</param>
/// <param name="Open">How many places a person has to decide yet.</param>
/// <param name="Text">Both together; null while something is open.</param>
public sealed record TwoTexts(int Version, string Title, string By, Instant? At, string Stands, IReadOnlyList<MergeChunk> Chunks, int Open, string? Text)
{
    internal static TwoTexts Of(int version, string title, string by, Instant? at, string was, string mine, string stands, Decided? decided)
    {
        var chunks = TextMerge.Merge(was, mine, stands);
        var choices = (decided ?? new(null, null)).About(version);
        return new(version, title, by, at, stands, chunks, TextMerge.Open(chunks, choices), TextMerge.Text(chunks, choices));
    }
}
