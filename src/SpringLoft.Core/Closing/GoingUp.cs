using System.Globalization;

namespace SpringLoft.Core.Closing;

/// <summary>What becomes of a grade when the new school year begins.</summary>
/// <param name="Grade">The new one; the old where it says no number.</param>
/// <param name="Leaves">True for the highest grade of the school.</param>
public sealed record GoingUp(string? Grade, bool Leaves)
{
    /// <summary>Numbered grades go up by one; the highest leaves; what is no number stays as it is.</summary>
    /// <param name="all">Grades that there are in the school.</param>
    public static GoingUp Next(string? grade, IReadOnlyList<string> all)
    {
        if (!int.TryParse(grade, NumberStyles.None, CultureInfo.InvariantCulture, out var n)) return new(grade, false);
        var top = all.Select(g => int.TryParse(g, NumberStyles.None, CultureInfo.InvariantCulture, out var x) ? x : 0).DefaultIfEmpty(0).Max();
        return n >= top ? new(grade, true) : new((n + 1).ToString(CultureInfo.InvariantCulture), false);
    }
}
