namespace SpringLoft.Core.Naming;

/// <summary>A class that may be named by a pattern.</summary>
public sealed record NamedClass(ClassId Id, string Name, ClassNameParts Parts);

/// <summary>How one class would be called.</summary>
/// <param name="Will">The new name.</param>
/// <param name="Changes">What was replaced to make it safe.</param>
/// <param name="Refusal">Why it can't be called so; null if it can.</param>
public sealed record Renaming(ClassId Id, string Name, string Will, IReadOnlyList<NameChange> Changes, Refusal? Refusal)
{
    /// <summary>Is there anything to change?</summary>
    public bool Differs => !string.Equals(Name, Will, StringComparison.Ordinal);
}

/// <summary>Names many classes by one pattern.</summary>
public static class ClassRenaming
{
    /// <summary>One decision a class, in the order given. A name that two of them would get is refused to both.</summary>
    /// <param name="others">Names of classes that keep theirs: of other years, and the loft.</param>
    /// <exception cref="RefusedException"><c>pattern-unknown-placeholder</c>, <c>pattern-empty</c>.</exception>
    public static IReadOnlyList<Renaming> Decide(string pattern, IReadOnlyList<NamedClass> classes, IEnumerable<string> others)
    {
        if (string.IsNullOrWhiteSpace(pattern)) throw new RefusedException("pattern-empty", "The pattern is empty.", "Put in at least the course and the school year.", "pattern");
        var taken = others.GroupBy(SafeName.Key).ToDictionary(g => g.Key, g => g.First());
        var previews = classes.Select(k => (k, p: ClassName.Preview(pattern, k.Parts, []))).ToList();
        var twice = previews.Where(x => x.p.Refusal is null).GroupBy(x => SafeName.Key(x.p.Name)).Where(g => g.Count() > 1).ToDictionary(g => g.Key, g => g.Count());
        return [.. previews.Select(x => new Renaming(x.k.Id, x.k.Name, x.p.Name, x.p.Changes, x.p.Refusal ?? Clash(x.p.Name, twice, taken)))];
    }

    private static Refusal? Clash(string name, Dictionary<string, int> twice, Dictionary<string, string> taken)
    {
        var key = SafeName.Key(name);
        if (twice.TryGetValue(key, out var n)) return new("name-twice", $"{n} classes would be called “{name}”.", "Add section or period to the pattern.", "pattern");
        return taken.TryGetValue(key, out var other) ? new("name-taken", $"There is already a class “{other}”.", "Add the school year to the pattern.", "pattern") : null;
    }
}
