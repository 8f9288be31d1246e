namespace SpringLoft.Core.Naming;

/// <summary>What a class name is made from.</summary>
public sealed record ClassNameParts(string Course, string? Section, string? Period, string? Term, string Year);

/// <summary>How a class will be called, and what stands against it.</summary>
/// <param name="Name">As it will read.</param>
/// <param name="Changes">What was replaced to make it safe.</param>
/// <param name="Refusal">Why it can't be used as it is; null if it can.</param>
/// <param name="Advice">A warning that does not stop anybody.</param>
public sealed record ClassNamePreview(string Name, IReadOnlyList<NameChange> Changes, Refusal? Refusal, string? Advice);

/// <summary>Names classes by the school's pattern. A name says course, section or period, and school year.</summary>
public static class ClassName
{
    /// <summary>The pattern a school begins with.</summary>
    public const string DefaultPattern = "{course} {section} · period {period} · {year}";

    /// <summary>Fills the pattern and tests the outcome against the names that are taken.</summary>
    /// <param name="pattern">See <see cref="NamePattern"/>; placeholders course, section, period, term, year.</param>
    /// <param name="parts">What to fill in; course and year may not be blank.</param>
    /// <param name="taken">Names of all classes of that year that are not archived or binned, and of the loft.</param>
    public static ClassNamePreview Preview(string pattern, ClassNameParts parts, IEnumerable<string> taken)
    {
        var filled = NamePattern.Fill(pattern, new Dictionary<string, string?>
        {
            ["course"] = parts.Course,
            ["section"] = parts.Section,
            ["period"] = parts.Period,
            ["term"] = parts.Term,
            ["year"] = parts.Year,
        });
        if (string.IsNullOrWhiteSpace(parts.Course))
            return new(filled, [], new("course-missing", "The class has no course yet.", "Choose or type the course it belongs to.", "course"), null);
        if (SafeName.Make(filled) is not { } safe)
            return new(filled, [], new("name-empty", "The pattern leaves nothing to call the class by.", "Use letters or numbers in course or section.", "course"), null);

        var same = taken.FirstOrDefault(t => SafeName.Clash(t, safe.Name));
        var refusal = same is null ? null : new Refusal("name-taken",
            $"There is already a class “{same}”.", "Give this one another section or period, so that the two can be told apart.", "section");
        var advice = NamePattern.Placeholders(pattern).Contains("year")
            ? null
            : "The name does not say the school year: next year's class of the same course will collide with it.";
        return new(safe.Name, safe.Changes, refusal, advice);
    }
}
