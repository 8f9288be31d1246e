namespace SpringLoft.Core.Rollover;

/// <summary>So many there, so many here, and what explains the difference.</summary>
/// <param name="Explained">In words; empty where both are the same.</param>
/// <param name="Even">False if a difference is left that nothing explains.</param>
public sealed record ParityLine(string What, int There, int Here, IReadOnlyList<string> Explained, bool Even);

/// <summary>Compares a class that was rolled over with what it was made from.</summary>
public static class Parity
{
    /// <summary>One line of the report.</summary>
    /// <param name="stays">What stays behind, each with its count and reason.</param>
    /// <param name="adds">What is here beyond that, each with its count and reason.</param>
    public static ParityLine Line(string what, int there, int here, IEnumerable<(int Count, string Why)> stays, IEnumerable<(int Count, string Why)> adds)
    {
        var less = stays.Where(s => s.Count > 0).ToList();
        var more = adds.Where(s => s.Count > 0).ToList();
        return new(what, there, here, [.. less.Select(s => $"{s.Count} fewer: {s.Why}"), .. more.Select(s => $"{s.Count} more: {s.Why}")],
            there - less.Sum(s => s.Count) + more.Sum(s => s.Count) == here);
    }
}
