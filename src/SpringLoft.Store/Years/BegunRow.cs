namespace SpringLoft.Store.Years;

/// <summary>A grade when a year began: what it was, what it became, and of how many students.</summary>
public sealed record GradeBegun
{
    public string From { get; init; } = "";

    /// <summary>Null for those who left the school.</summary>
    public string? To { get; init; }
    public int Students { get; init; }
}

/// <summary>What was done when a year began, as it was then.</summary>
public sealed record BegunRow
{
    /// <summary>Who began it; looked up by name when read.</summary>
    public string By { get; init; } = "";

    /// <summary>Classes of the year before that were verified.</summary>
    public int Verified { get; init; }

    /// <summary>Classes of the year before that were signed off.</summary>
    public int SignedOff { get; init; }
    public IReadOnlyList<GradeBegun> Grades { get; init; } = [];
}
