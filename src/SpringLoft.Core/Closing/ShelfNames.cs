using SpringLoft.Core.Naming;
using SpringLoft.Core.People;

namespace SpringLoft.Core.Closing;

/// <summary>A thing that may stand on an open shelf.</summary>
/// <param name="Student">Who made it, for work of a student; null for a thing of staff.</param>
/// <param name="Text">What it says, for a page; null for others.</param>
/// <param name="IsLink">A link has a title, not the name of a file: it stands as it is.</param>
public sealed record ShelfCandidate(string Name, PersonId? Student, string? Text, bool IsLink = false);

/// <summary>How a thing is shown on the shelf.</summary>
/// <param name="Shown">Its name on the shelf.</param>
/// <param name="Names">Which students its own name or its text names.</param>
/// <param name="Out">True if it stays off the shelf, because its text names somebody and no person ticked it.</param>
public sealed record ShelfName(string Shown, IReadOnlyList<string> Names, bool Out);

/// <summary>Keeps names of students off an open shelf, unless a person ticks each.</summary>
public static class ShelfNames
{
    private const int Shortest = 3;

    /// <summary>Decides for each thing.</summary>
    /// <param name="students">Everybody who is or was on the roster.</param>
    /// <param name="ticked">Positions of things that a person lets keep their names.</param>
    public static IReadOnlyList<ShelfName> Decide(IReadOnlyList<ShelfCandidate> things, IReadOnlyList<(PersonId Id, PersonName Name)> students, IReadOnlySet<int> ticked)
    {
        var number = 0;
        var taken = new HashSet<string>();
        return [.. things.Select((t, i) =>
        {
            var named = students.Where(s => Says(t.Name, s.Name) || (t.Text is { } text && Says(text, s.Name))).Select(s => s.Name.Display).ToList();
            if (t.Student is { } maker && students.FirstOrDefault(s => s.Id == maker) is { Name: { } by } && !named.Contains(by.Display) && Says(t.Name, by)) named.Add(by.Display);
            if (ticked.Contains(i) || (named.Count == 0 && t.Student is null)) return new ShelfName(t.IsLink ? t.Name : Keep(t.Name), named, false);
            // A page that speaks of somebody can't be mended by another name.
            if (t.Text is { } words && students.Any(s => Says(words, s.Name))) return new ShelfName(t.Name, named, true);
            var extension = System.IO.Path.GetExtension(t.Name);
            return new ShelfName(Keep($"Example {++number}{(extension.Length is > 1 and < 8 ? extension : "")}"), named, false);
        })];

        string Keep(string name)
        {
            var safe = SafeName.Distinct(SafeName.Make(name, keepExtension: true)?.Name ?? "thing", taken, isFile: true);
            taken.Add(SafeName.Key(safe));
            return safe;
        }
    }

    // As a word of its own, in any case and without accents: “Umi” is in “umi's pot” but not in “aluminium”.
    private static bool Says(string text, PersonName name)
    {
        var words = $" {PersonName.SearchKey(string.Concat(text.Select(ch => char.IsLetterOrDigit(ch) ? ch : ' ')))} ";
        bool Has(string part) => PersonName.SearchKey(part) is { Length: >= Shortest } key && words.Contains($" {key} ", StringComparison.Ordinal);
        return Has(name.Family) || Has(name.Given);
    }
}
