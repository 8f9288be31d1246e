namespace SpringLoft.Core.Assignments;

/// <summary>Scores as one population.</summary>
/// <param name="Count">How many are marked.</param>
/// <param name="Deviation">Sample standard deviation (n − 1); null for fewer than two.</param>
public sealed record ScoreNumbers(int Count, double? Mean, double? Median, double? Deviation)
{
    /// <summary>Over marked work only, nothing rounded. Source: docs/rules.md, "Numbers".</summary>
    public static ScoreNumbers Of(IReadOnlyCollection<double> scores)
    {
        if (scores.Count == 0) return new(0, null, null, null);
        var sorted = scores.Order().ToArray();
        var mean = sorted.Average();
        var median = sorted.Length % 2 == 1 ? sorted[sorted.Length / 2] : (sorted[(sorted.Length / 2) - 1] + sorted[sorted.Length / 2]) / 2;
        return new(sorted.Length, mean, median, sorted.Length < 2 ? null : Math.Sqrt(sorted.Sum(s => (s - mean) * (s - mean)) / (sorted.Length - 1)));
    }
}
