namespace SpringLoft.Core.Assignments;

/// <summary>How the assignments of one title are marked, over the sections of a combined roster or in one class.</summary>
/// <param name="Points">Full marks; null where there are none, or the sections do not agree.</param>
/// <param name="Differ">The sections do not agree on full marks.</param>
/// <param name="Levels">Of the scale that it is marked on everywhere; empty where there is none, or they differ.</param>
public sealed record OneTitle(decimal? Points, bool Differ, IReadOnlyList<MarkLevel> Levels)
{
    /// <summary>What the sections have in common.</summary>
    /// <param name="sections">One for each section that has it; not empty.</param>
    public static OneTitle Of(IReadOnlyList<(decimal? Points, MarkScheme? Scheme)> sections)
    {
        var differ = sections.Select(s => s.Points).Distinct().Count() > 1;
        return new(differ ? null : sections[0].Points, differ,
            sections.Select(s => s.Scheme?.Write()).Distinct().Count() == 1 && sections[0].Scheme is { } scheme ? scheme.Levels : []);
    }

    /// <summary>Their marks as one population, the lowest first. Marks out of different totals are none.</summary>
    public IReadOnlyList<decimal> Population(IEnumerable<decimal> marks) => Points is null ? [] : [.. marks.Order()];

    /// <summary>The figures of that population.</summary>
    public ScoreNumbers Numbers(IEnumerable<decimal> marks) => ScoreNumbers.Of([.. Population(marks).Select(m => (double)m)]);
}
