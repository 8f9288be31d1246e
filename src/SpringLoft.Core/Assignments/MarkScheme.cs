using System.Globalization;
using System.Text.Json;
using SpringLoft.Core.Naming;

namespace SpringLoft.Core.Assignments;

/// <summary>A level of a scale or of a criterion.</summary>
/// <param name="Points">What it counts in figures; at most two decimals.</param>
/// <param name="Says">What it takes to reach it; null for nothing.</param>
public sealed record MarkLevel(string Name, decimal Points, string? Says = null);

/// <summary>Something that work is judged by, with its levels.</summary>
public sealed record MarkCriterion(string Name, IReadOnlyList<MarkLevel> Levels);

/// <summary>
/// How an assignment is marked where that is not in plain points: on a scale of named levels, such as letters or complete / not yet, or
/// by criteria with levels. A mark is a figure all the same, so that it is counted, sorted and sent like any other: the points of the
/// level, or the sum over the criteria.
/// </summary>
/// <param name="Scale">What the scale is called; null for criteria.</param>
/// <param name="Levels">Of the scale; empty for criteria.</param>
/// <param name="Criteria">Empty for a scale.</param>
public sealed record MarkScheme(string? Scale, IReadOnlyList<MarkLevel> Levels, IReadOnlyList<MarkCriterion> Criteria)
{
    /// <summary>Most levels of a scale or of a criterion.</summary>
    public const int MostLevels = 20;

    /// <summary>Most characters of what a scale or a criterion is called.</summary>
    public const int MostName = 120;

    /// <summary>Most criteria.</summary>
    public const int MostCriteria = 20;

    /// <summary>Full marks: the highest level, or the sum of the highest of each criterion.</summary>
    public decimal FullMarks => Criteria.Count > 0 ? Criteria.Sum(c => c.Levels.Max(l => l.Points)) : Levels.Max(l => l.Points);

    /// <summary>Is a mark put together from criteria?</summary>
    public bool ByCriteria => Criteria.Count > 0;

    /// <summary>The name of the level that a mark is; null for criteria, or where no level has that many points.</summary>
    public string? NameOf(decimal score) => Levels.FirstOrDefault(l => l.Points == score)?.Name;

    /// <summary>The points of the level of that name, capitals aside; null where there is none.</summary>
    public decimal? PointsOf(string name) => Levels.FirstOrDefault(l => SafeName.Clash(l.Name, name.Trim()))?.Points;

    /// <summary>The mark that levels come to, one for each criterion; null where one is missing or is none of its levels.</summary>
    /// <param name="chosen">The place of each level, 0 and up.</param>
    public decimal? ScoreOf(IReadOnlyList<int> chosen) =>
        ByCriteria && chosen.Count == Criteria.Count && chosen.Zip(Criteria).All(x => x.First >= 0 && x.First < x.Second.Levels.Count) ? chosen.Zip(Criteria).Sum(x => x.Second.Levels[x.First].Points) : null;

    /// <summary>Do marks that were given by one stand as they are by the other? Words may differ; what is counted may not.</summary>
    public bool CountsAs(MarkScheme other) =>
        Levels.Select(l => l.Points).SequenceEqual(other.Levels.Select(l => l.Points))
        && Criteria.Count == other.Criteria.Count && Criteria.Zip(other.Criteria).All(x => x.First.Levels.Select(l => l.Points).SequenceEqual(x.Second.Levels.Select(l => l.Points)));

    /// <summary>Throws for one by which nobody could mark.</summary>
    /// <exception cref="RefusedException"><c>scheme-wrong</c>, with what and the field.</exception>
    public MarkScheme Checked(string field)
    {
        if (Levels is null || Criteria is null || Levels.Any(l => l is null) || Criteria.Any(c => c?.Levels is null || c.Levels.Any(l => l is null))) throw Wrong("Something of the scale or of the criteria is missing.", "Send all of its levels.");
        if (Levels.Count > 0 == Criteria.Count > 0) throw Wrong("Work is marked on a scale or by criteria, one of the two.", "Give levels, or criteria.");
        if (Scale?.Length > MostName || Criteria.Any(c => c.Name?.Length > MostName)) throw Wrong("A name has too many characters.", $"Keep the scale and each criterion to {MostName}.");
        if (Criteria.Count > MostCriteria) throw Wrong($"{Criteria.Count} criteria are too many.", $"Keep to {MostCriteria}.");
        if (Twice(Criteria.Select(c => c.Name)) is { } same) throw Wrong($"Two criteria are called “{same}”.", "Give each a name of its own.");
        foreach (var c in Criteria)
        {
            if (string.IsNullOrWhiteSpace(c.Name)) throw Wrong("A criterion has no name.", "Say what work is judged by.");
            CheckLevels(c.Levels, $"“{c.Name}”");
        }
        if (Levels.Count > 0) CheckLevels(Levels, "the scale");
        // On a scale the figure alone says which level it is.
        if (Levels.Select(l => l.Points).Distinct().Count() != Levels.Count) throw Wrong("Two levels of the scale have the same points.", "Give each its own, so that a mark says which it is.");
        if (FullMarks is <= 0 or > 10_000) throw Wrong($"Full marks would be {FullMarks}.", "Let the highest level have more than 0 points, and all of them 10,000 at most.");
        return this;

        void CheckLevels(IReadOnlyList<MarkLevel> levels, string of)
        {
            if (levels.Count is < 2 or > MostLevels) throw Wrong($"{(levels.Count < 2 ? "There are too few" : "There are too many")} levels of {of}: {levels.Count}.", $"Give 2 to {MostLevels}.");
            if (Twice(levels.Select(l => l.Name)) is { } twice) throw Wrong($"Two levels of {of} are called “{twice}”.", "Give each a name of its own.");
            foreach (var l in levels)
            {
                if (string.IsNullOrWhiteSpace(l.Name)) throw Wrong($"A level of {of} has no name.", "Give it one.");
                if (l.Name.Length > 60 || l.Says?.Length > 1000) throw Wrong($"A level of {of} has too many words.", "Keep its name to 60 characters and what it takes to 1,000.");
                if (l.Points is < 0 or > 10_000 || decimal.Round(l.Points, WorkFlow.MarkPlaces) != l.Points) throw Wrong(string.Create(CultureInfo.InvariantCulture, $"{l.Points} points of “{l.Name}” are not between 0 and 10,000 with two decimals."), "Type other points.");
            }
        }

        RefusedException Wrong(string what, string mend) => new("scheme-wrong", $"{what}", mend, field);
        static string? Twice(IEnumerable<string> names) => names.GroupBy(n => SafeName.Key((n ?? "").Trim()), StringComparer.Ordinal).FirstOrDefault(g => g.Count() > 1)?.First();
    }

    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web);

    /// <summary>As it is kept.</summary>
    public string Write() => JsonSerializer.Serialize(new Kept(Scale, Levels, Criteria), Json);

    /// <summary>As it was kept; null for none.</summary>
    public static MarkScheme? Read(string? kept) => kept is null ? null : JsonSerializer.Deserialize<Kept>(kept, Json) is { } k ? new(k.Scale, k.Levels ?? [], k.Criteria ?? []) : null;

    /// <summary>Levels of criteria as they are kept; null for none.</summary>
    public static string? WriteChosen(IReadOnlyList<int>? chosen) => chosen is null ? null : string.Join(' ', chosen.Select(n => n.ToString(CultureInfo.InvariantCulture)));

    /// <summary>Levels of criteria as they were kept.</summary>
    public static IReadOnlyList<int>? ReadChosen(string? kept) => kept is null ? null : [.. kept.Split(' ', StringSplitOptions.RemoveEmptyEntries).Select(n => int.Parse(n, CultureInfo.InvariantCulture))];

    private sealed record Kept(string? Scale, IReadOnlyList<MarkLevel>? Levels, IReadOnlyList<MarkCriterion>? Criteria);
}
