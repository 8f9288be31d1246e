using System.Globalization;
using System.Text.RegularExpressions;
using SpringLoft.Core.People;

namespace SpringLoft.Core.Closing;

/// <summary>A folder that something may be filed in.</summary>
/// <param name="Path">From the top, parted by "/".</param>
/// <param name="Holds">Names of what stands in it.</param>
/// <param name="Own">Whose own folder it is; null for the others.</param>
public sealed record TidyFolder(FolderId Id, string Path, IReadOnlyList<string> Holds, PersonId? Own = null);

/// <summary>A loose thing, with what is known of how it was used.</summary>
/// <param name="Text">What is written in it; empty where it can't be read.</param>
public sealed record TidyThing(string Name, string Text = "")
{
    /// <summary>The student who put it in; null for staff's.</summary>
    public PersonId? Student { get; init; }

    /// <summary>Paths of folders in which the same bytes or address stand in other classes.</summary>
    public IReadOnlyCollection<string> Elsewhere { get; init; } = [];

    /// <summary>Folders of assignments that it is attached to, with their titles.</summary>
    public IReadOnlyCollection<(FolderId Folder, string Title)> Attached { get; init; } = [];

    /// <summary>Folders that what was put in together with it stands in: one for each such thing.</summary>
    public IReadOnlyCollection<FolderId> Beside { get; init; } = [];
}

/// <summary>A folder that is suggested, and why.</summary>
public sealed record Suggested(FolderId Folder, string Path, string Why);

/// <summary>
/// Guesses where a loose thing belongs: first by whose it is and how it was used, then by what is written in it and what it is
/// called. A guess only: a person files.
/// </summary>
public static partial class TidySuggestion
{
    /// <summary>What the same person puts in within so long of one another came together.</summary>
    public static readonly Duration Together = Duration.FromMinutes(5);

    // Words that say nothing of where a thing belongs.
    private static readonly HashSet<string> Empty = ["the", "and", "of", "to", "in", "for", "a", "an", "new", "copy", "final", "draft", "img", "scan", "file", "document", "folder", "week", "unit", "with", "your", "this", "that", "from", "are", "you", "class"];

    // The beginning of a text says what it is about; a book is not gone through.
    private const int MostText = 20_000;
    private const int MostContent = 3;

    /// <summary>The best folder; null if nothing speaks for any.</summary>
    public static Suggested? Of(TidyThing thing, IReadOnlyList<TidyFolder> folders)
    {
        // What a student put in is theirs: their own folder, and nobody else's.
        if (thing.Student is { } owner && folders.FirstOrDefault(f => f.Own == owner) is { } own) return new(own.Id, own.Path, "a student put it in, and this is their own folder");
        var open = folders.Where(f => f.Own is null).ToList();
        foreach (var path in thing.Elsewhere)
            if (open.FirstOrDefault(f => string.Equals(f.Path, path, StringComparison.OrdinalIgnoreCase)) is { } same) return new(same.Id, same.Path, "the same thing stands there in another class");
        foreach (var (folder, title) in thing.Attached)
            if (open.FirstOrDefault(f => f.Id == folder) is { } given) return new(given.Id, given.Path, $"“{title}”, which it is attached to, stands there");
        var near = Beside(thing, open);
        if (ByWords(thing, open) is { } said && said.Score >= near.Score) return new(said.Folder.Id, said.Folder.Path, said.Why);
        return near is { Folder: { } beside, Count: var n } ? new(beside.Id, beside.Path, n == 1 ? "a thing that was put in with it stands there" : $"{n} things that were put in with it stand there") : null;
    }

    // One that came along says little; several say as much as a word of the name.
    private static (TidyFolder? Folder, int Score, int Count) Beside(TidyThing thing, IReadOnlyList<TidyFolder> folders)
    {
        var most = thing.Beside.GroupBy(f => f).Select(g => (Folder: folders.FirstOrDefault(f => f.Id == g.Key), Count: g.Count())).Where(x => x.Folder is not null)
            .OrderByDescending(x => x.Count).ThenBy(x => x.Folder!.Path, StringComparer.Ordinal).FirstOrDefault();
        return (most.Folder, Math.Min(2 * most.Count, 6), most.Count);
    }

    private static (TidyFolder Folder, int Score, string Why)? ByWords(TidyThing thing, IReadOnlyList<TidyFolder> folders)
    {
        var words = Words(Path.GetFileNameWithoutExtension(thing.Name));
        var numbers = Numbers(thing.Name);
        var text = Words(thing.Text.Length > MostText ? thing.Text[..MostText] : thing.Text);
        return folders.Select(f =>
        {
            var last = f.Path.Split('/')[^1];
            var path = Words(f.Path);
            var held = f.Holds.Select(h => Words(Path.GetFileNameWithoutExtension(h))).ToList();
            var inName = path.Intersect(words).ToList();
            var numbered = numbers.FirstOrDefault(n => Numbers(last).Any(x => x == n));
            var alike = held.Select(h => h.Intersect(words).Count()).DefaultIfEmpty(0).Max();
            var written = path.Concat(held.SelectMany(h => h)).Distinct().Where(text.Contains).Order(StringComparer.Ordinal).ToList();
            // A number with its word ("week 7", "unit 3") says more than a word alone; deeper folders are more exact.
            var score = (inName.Count * 3) + (numbered is null ? 0 : 5) + (alike * 2) + Math.Min(written.Count, MostContent);
            var why = numbered is not null ? $"“{numbered}” is in both names" : inName.Count > 0 ? $"“{inName[0]}” is in both names" : written.Count > 1 ? $"“{written[0]}” and “{written[1]}” are written in it" : "something of a like name stands there";
            return (Folder: f, Score: score, Why: why);
        }).Where(x => x.Score > 1).OrderByDescending(x => x.Score).ThenByDescending(x => x.Folder.Path.Count(c => c == '/')).ThenBy(x => x.Folder.Path, StringComparer.Ordinal).Select(x => ((TidyFolder, int, string)?)x).FirstOrDefault();
    }

    private static HashSet<string> Words(string text) => [.. PersonName.SearchKey(string.Concat(text.Select(c => char.IsLetter(c) ? c : ' '))).Split(' ', StringSplitOptions.RemoveEmptyEntries).Where(w => w.Length > 2 && !Empty.Contains(w))];

    // "week 7", "Week 07" and "wk7" are the same.
    private static List<string> Numbers(string text) => [.. Numbered().Matches(text).Select(m => $"{(m.Groups[1].Value.StartsWith('u') || m.Groups[1].Value.StartsWith('U') ? "unit" : "week")} {int.Parse(m.Groups[2].Value, CultureInfo.InvariantCulture)}")];

    [GeneratedRegex(@"(?<![a-z])(week|wk|w|unit|u)[ _.-]?0*(\d{1,3})(?!\d)", RegexOptions.IgnoreCase | RegexOptions.CultureInvariant)]
    private static partial Regex Numbered();
}
