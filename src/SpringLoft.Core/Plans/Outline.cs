using System.Text;
using SpringLoft.Core.Naming;
using SpringLoft.Core.Workspaces;

namespace SpringLoft.Core.Plans;

/// <summary>A line of an outline as it is written: flat, with how deep it stands.</summary>
/// <param name="Key">The key of the line it was; blank for a new one.</param>
/// <param name="Entries">The list it stands for each entry of.</param>
public sealed record OutlineLine(string? Key, int Depth, string? NamePattern, Stands Stands, FolderRule Rule, IReadOnlyList<string>? Entries);

/// <summary>Makes plans of outlines and outlines of plans, and of other things that have a shape.</summary>
public static class Outline
{
    /// <summary>Deepest level, the top being 1: folders any deeper make paths that some computers can't store.</summary>
    public const int MaxDepth = 12;

    /// <summary>Most lines of a plan.</summary>
    public const int MaxLines = 500;

    /// <summary>Most entries of a line's list.</summary>
    public const int MaxEntries = 200;

    private static readonly string[] Known = ["term", "week", "letter", "weekday", "day", "date", "number", "entry", "group", "student", "student number"];

    /// <summary>The lines of a plan in the order in which they stand.</summary>
    public static IReadOnlyList<OutlineLine> Of(FolderPlan plan)
    {
        var lines = new List<OutlineLine>();
        void Add(IReadOnlyList<PlanLine> level, int depth)
        {
            foreach (var l in level)
            {
                lines.Add(new(l.Key, depth, l.NamePattern, l.Stands, l.Rule, l.Entries));
                Add(l.Within, depth + 1);
            }
        }
        Add(plan.Lines, 0);
        return lines;
    }

    /// <summary>The plan that an outline makes. Lines keep their keys; new ones get the next that were never used.</summary>
    /// <param name="nextKey">First number for new keys.</param>
    /// <exception cref="RefusedException"><c>plan-…</c>, naming the line by its number, 1 and up.</exception>
    public static (FolderPlan Plan, int NextKey) Make(string name, string about, IReadOnlyList<OutlineLine> lines, int nextKey)
    {
        if (lines.Count == 0) throw new RefusedException("plan-empty", "The plan has no folder.", "Write at least one line.", "lines");
        if (lines.Count > MaxLines) throw new RefusedException("plan-too-large", $"The plan has {lines.Count} lines.", $"Keep it to {MaxLines}: a line can stand for each week, entry or student.", "lines");
        var keys = new HashSet<string>(StringComparer.Ordinal);
        var depth = -1;
        for (var i = 0; i < lines.Count; i++)
        {
            Check(lines[i], i + 1, depth);
            depth = lines[i].Depth;
            if (lines[i].Key is { Length: > 0 } key && !keys.Add(key)) throw new RefusedException("plan-key-twice", $"Line {i + 1} has the key of another line.", "Reload the page and write the line anew.", "lines");
        }
        var at = 0;
        IReadOnlyList<PlanLine> Level(int level)
        {
            var here = new List<PlanLine>();
            while (at < lines.Count && lines[at].Depth == level)
            {
                var line = lines[at++];
                var key = line.Key is { Length: > 0 } known ? known : NewKey();
                var within = Level(level + 1);
                here.Add(new(key, line.NamePattern!.Trim(), line.Stands, line.Rule, [.. (line.Entries ?? []).Select(e => e.Trim())], within));
            }
            return here;
        }
        string NewKey()
        {
            string key;
            do key = $"l{nextKey++}"; while (!keys.Add(key));
            return key;
        }
        return (new(name, about, Level(0)), nextKey);
    }

    /// <summary>Reads an indented list, as it is pasted from a text or a spreadsheet: tabs, or any number of spaces, make a level.</summary>
    /// <exception cref="RefusedException"><c>plan-empty</c>, <c>plan-too-large</c>.</exception>
    public static IReadOnlyList<OutlineLine> Read(string text)
    {
        var lines = new List<OutlineLine>();
        var levels = new Stack<int>();
        foreach (var raw in text.ReplaceLineEndings("\n").Split('\n'))
        {
            var name = raw.Trim().TrimStart('-', '*', '•', '·').Trim();
            if (name.Length == 0) continue;
            if (lines.Count == MaxLines) throw new RefusedException("plan-too-large", $"The list has more than {MaxLines} lines.", "Paste a part of it.", "text");
            var indent = Indent(raw);
            while (levels.Count > 0 && levels.Peek() >= indent) levels.Pop();
            lines.Add(new(null, levels.Count, SafeName.Make(name)?.Name ?? "Folder", Stands.Once, levels.Count == 0 ? FolderRule.ClassViews : FolderRule.AsAbove, []));
            levels.Push(indent);
        }
        return lines.Count > 0 ? lines : throw new RefusedException("plan-empty", "There is no folder name in what was pasted.", "Paste a list, one folder a line, indented where it stands inside another.", "text");
    }

    /// <summary>An outline of paths with forward slashes, as a dropped folder or a zip has them; files are left out.</summary>
    /// <param name="folders">Paths of folders; those above them need not be named.</param>
    public static IReadOnlyList<OutlineLine> OfPaths(IEnumerable<string> folders)
    {
        var text = new StringBuilder();
        var seen = new HashSet<string>(StringComparer.OrdinalIgnoreCase);
        foreach (var path in folders.Select(f => f.Trim('/')).Where(f => f.Length > 0).Order(StringComparer.OrdinalIgnoreCase))
        {
            var parts = path.Split('/');
            for (var n = 1; n <= parts.Length; n++)
                if (seen.Add(string.Join('/', parts[..n]))) text.Append('\t', n - 1).AppendLine(parts[n - 1]);
        }
        return Read(text.ToString());
    }

    private static int Indent(string raw) => raw.TakeWhile(char.IsWhiteSpace).Sum(c => c == '\t' ? 4 : 1);

    private static void Check(OutlineLine line, int number, int above)
    {
        void No(string code, string what, string mend) => throw new RefusedException(code, $"Line {number}{(string.IsNullOrWhiteSpace(line.NamePattern) ? "" : $", “{line.NamePattern.Trim()}”,")} {what}", mend, "lines");

        if (string.IsNullOrWhiteSpace(line.NamePattern)) No("plan-line-no-name", "has no name.", "Name the folder, or take the line out.");
        if (line.NamePattern!.Length > 200) No("too-long", $"has a name of {line.NamePattern.Length} characters.", "Keep it to 200.");
        if (line.Depth < 0 || line.Depth > above + 1) No("plan-line-depth", "stands deeper than the line above allows.", "Indent it one step at the most below the line above.");
        if (line.Depth >= MaxDepth) No("plan-too-deep", $"stands {line.Depth + 1} folders deep.", $"Keep it to {MaxDepth}.");
        if (NamePattern.Placeholders(line.NamePattern).FirstOrDefault(p => !Known.Contains(p)) is { } unknown)
            No("pattern-unknown-placeholder", $"has a placeholder “{unknown}” that is not known here.", $"Use one of: {string.Join(", ", Known)}.");
        var entries = (line.Entries ?? []).Count(e => !string.IsNullOrWhiteSpace(e));
        if (line.Stands == Stands.EachEntry && entries == 0) No("plan-line-no-entries", "stands for each entry of a list that is empty.", "Write the entries, one a line, or let it stand once.");
        if ((line.Entries ?? []).Count > MaxEntries) No("too-many", $"has {line.Entries!.Count} entries.", $"Keep it to {MaxEntries}.");
        if ((line.Entries ?? []).GroupBy(e => e.Trim(), StringComparer.OrdinalIgnoreCase).Any(g => g.Count() > 1)) No("plan-entry-twice", "has an entry twice.", "Each entry stands once.");
        if (line.Stands == Stands.EachStudent && line.Rule != FolderRule.OneEach && !NamePattern.Placeholders(line.NamePattern).Any()) No("plan-line-no-name", "stands for each student under one name.", "Put the student into the name.");
        if (line.Rule == FolderRule.OnePerGroup && line.Stands != Stands.EachGroup) No("plan-line-rule", "is one per group but does not stand for each group.", "Let it stand for each group, or choose another rule.");
        if (line.Rule == FolderRule.OneEach && line.Stands != Stands.EachStudent) No("plan-line-rule", "is one each but does not stand for each student.", "Let it stand for each student, or choose another rule.");
    }
}
