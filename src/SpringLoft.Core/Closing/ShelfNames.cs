using System.Globalization;
using System.Text;
using SpringLoft.Core.Naming;
using SpringLoft.Core.People;

namespace SpringLoft.Core.Closing;

/// <summary>A thing that may stand on an open shelf.</summary>
/// <param name="Student">Who made it, for work of a student; null for a thing of staff.</param>
/// <param name="Text">What is written in it, as far as it could be read; null for a link.</param>
/// <param name="IsLink">A link has a title, not the name of a file: it stands as it is.</param>
/// <param name="Unread">Why something in it, or all, could not be read; null where all was.</param>
public sealed record ShelfCandidate(string Name, PersonId? Student, string? Text, bool IsLink = false, Unread? Unread = null);

/// <summary>How a thing is shown on the shelf.</summary>
/// <param name="Shown">Its name on the shelf.</param>
/// <param name="Names">Which students its own name or its text names.</param>
/// <param name="Out">True if it stays off the shelf, because its text names somebody and no person ticked it.</param>
/// <param name="Inside">True if what is written in it names somebody, whatever it is called.</param>
/// <param name="Unread">Why something in it, or all, was not searched for names: a person is to look; null where all was.</param>
public sealed record ShelfName(string Shown, IReadOnlyList<string> Names, bool Out, bool Inside, Unread? Unread);

/// <summary>Keeps names of students off an open shelf, unless a person ticks each. What could not be read is said to be unread, never to be free of names.</summary>
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
            var (called, written) = (Words(t.Name), Words(t.Text ?? ""));
            var inside = students.Where(s => Says(written, s.Name)).Select(s => s.Id).ToHashSet();
            List<string> named = [.. students.Where(s => inside.Contains(s.Id) || Says(called, s.Name)).Select(s => s.Name.Display)];
            ShelfName Shown(string shown, bool stays) => new(shown, named, stays, inside.Count > 0, t.Unread);
            if (ticked.Contains(i) || (named.Count == 0 && t.Student is null)) return Shown(t.IsLink ? t.Name : Keep(t.Name), false);
            // What speaks of somebody can't be mended by another name.
            if (inside.Count > 0) return Shown(t.Name, true);
            var extension = System.IO.Path.GetExtension(t.Name);
            return Shown(Keep($"Example {++number}{(extension.Length is > 1 and < 8 ? extension : "")}"), false);
        })];

        string Keep(string name)
        {
            var safe = SafeName.Distinct(SafeName.Make(name, keepExtension: true)?.Name ?? "thing", taken, isFile: true);
            taken.Add(SafeName.Key(safe));
            return safe;
        }
    }

    // As a word of its own, in any case and without accents: “Umi” is in “umi's pot” but not in “aluminium”.
    private static bool Says(string words, PersonName name)
    {
        bool Has(string part) => PersonName.SearchKey(Parted(part)) is { Length: >= Shortest } key && words.Contains($" {key} ", StringComparison.Ordinal);
        return Has(name.Family) || Has(name.Given);
    }

    private static string Words(string text) => text.Length == 0 ? "" : $" {PersonName.SearchKey(Parted(text))} ";

    // With one space between words and nothing else: a name that is broken over two lines is one still, and so is one with a
    // soft hyphen or another sign in it that is not seen. What is cut in the middle of a sign can't be put in order: it is none.
    private static string Parted(string text)
    {
        var whole = string.Concat(text.EnumerateRunes().Where(r => Rune.GetUnicodeCategory(r) != UnicodeCategory.Format)).Normalize(NormalizationForm.FormC);
        return string.Join(' ', string.Concat(whole.Select(ch => char.IsLetterOrDigit(ch) ? ch : ' ')).Split(' ', StringSplitOptions.RemoveEmptyEntries));
    }
}
