using System.Globalization;
using System.Text.RegularExpressions;
using SpringLoft.Core.People;

namespace SpringLoft.Core.Closing;

/// <summary>A folder that something may be filed in.</summary>
/// <param name="Path">From the top, parted by "/".</param>
/// <param name="Holds">Names of what stands in it.</param>
public sealed record TidyFolder(FolderId Id, string Path, IReadOnlyList<string> Holds);

/// <summary>A folder that is suggested, and why.</summary>
public sealed record Suggested(FolderId Folder, string Path, string Why);

/// <summary>Guesses where a loose thing belongs. A guess only: a person files.</summary>
public static partial class TidySuggestion
{
    private static readonly HashSet<string> Empty = ["the", "and", "of", "to", "in", "for", "a", "an", "new", "copy", "final", "draft", "img", "scan", "file", "document", "folder", "week", "unit"];

    /// <summary>The best folder; null if nothing speaks for any.</summary>
    /// <param name="elsewhere">Paths of folders in which the same bytes or address stand in other classes.</param>
    public static Suggested? Of(string name, IReadOnlyList<TidyFolder> folders, IReadOnlyCollection<string> elsewhere)
    {
        foreach (var path in elsewhere)
            if (folders.FirstOrDefault(f => string.Equals(f.Path, path, StringComparison.OrdinalIgnoreCase)) is { } same) return new(same.Id, same.Path, "the same thing stands there in another class");
        var words = Words(name);
        var numbers = Numbers(name);
        var best = folders.Select(f =>
        {
            var last = f.Path.Split('/')[^1];
            var inName = Words(f.Path).Intersect(words).ToList();
            var numbered = numbers.FirstOrDefault(n => Numbers(last).Any(x => x == n));
            var alike = f.Holds.Select(h => Words(h).Intersect(words).Count()).DefaultIfEmpty(0).Max();
            // A number with its word ("week 7", "unit 3") says more than a word alone; deeper folders are more exact.
            var score = (inName.Count * 3) + (numbered is null ? 0 : 5) + (alike * 2);
            var why = numbered is not null ? $"“{numbered}” is in both names" : inName.Count > 0 ? $"“{inName[0]}” is in both names" : "something of a like name stands there";
            return (Folder: f, Score: score, Why: why);
        }).Where(x => x.Score > 1).OrderByDescending(x => x.Score).ThenByDescending(x => x.Folder.Path.Count(c => c == '/')).ThenBy(x => x.Folder.Path, StringComparer.Ordinal).FirstOrDefault();
        return best.Folder is { } found ? new(found.Id, found.Path, best.Why) : null;
    }

    private static HashSet<string> Words(string text) => [.. PersonName.SearchKey(string.Concat(Path.GetFileNameWithoutExtension(text).Select(c => char.IsLetter(c) ? c : ' '))).Split(' ', StringSplitOptions.RemoveEmptyEntries).Where(w => w.Length > 2 && !Empty.Contains(w))];

    // "week 7", "Week 07" and "wk7" are the same.
    private static List<string> Numbers(string text) => [.. Numbered().Matches(text).Select(m => $"{(m.Groups[1].Value.StartsWith('u') || m.Groups[1].Value.StartsWith('U') ? "unit" : "week")} {int.Parse(m.Groups[2].Value, CultureInfo.InvariantCulture)}")];

    [GeneratedRegex(@"(?<![a-z])(week|wk|w|unit|u)[ _.-]?0*(\d{1,3})(?!\d)", RegexOptions.IgnoreCase | RegexOptions.CultureInvariant)]
    private static partial Regex Numbered();
}
