using SpringLoft.Core.Naming;
using SpringLoft.Core.Workspaces;

namespace SpringLoft.Core.Rollover;

/// <summary>Where a folder comes to stand.</summary>
/// <param name="At">Its number in the joined class.</param>
/// <param name="Anew">False where another class has brought it already.</param>
public readonly record struct JoinedFolder(int At, string Name, bool Anew);

/// <summary>An assignment of the joined class.</summary>
/// <param name="At">Its number there.</param>
/// <param name="Anew">False where another class has brought it already.</param>
public readonly record struct JoinedAssignment(int At, string Title, bool Anew);

/// <summary>
/// One class that becomes of several, one after the other: what is the same in two of them stands once. What has only the
/// name in common stands twice: nothing of a class comes to stand where more people see it than did, and nothing is lost
/// for its name.
/// </summary>
public sealed class Joining
{
    private sealed record Place(string Name, FolderRule Rule, int Brought);

    private readonly List<Place> folders = [];
    private readonly Dictionary<(int Above, string Wanted), List<int>> wanted = [];
    private readonly Dictionary<int, HashSet<string>> names = [];
    private readonly Dictionary<string, List<(string Says, int At)>> asks = [];
    private readonly List<(string Title, int Brought)> assignments = [];
    private readonly HashSet<string> titles = [];
    private readonly Dictionary<(string Name, string? Content), int> things = [];
    private string from = "";
    private int source;

    /// <summary>From now on things come from the next class.</summary>
    /// <param name="called">What tells its things from those of the others: its section, or its name.</param>
    public void Next(string called) => (from, source) = (called, source + 1);

    /// <summary>A folder comes. One of that name in that place that another class brought is the same only if the same people may do the same in it.</summary>
    /// <param name="above">Number of the folder that it stands in; null at the top.</param>
    public JoinedFolder Folder(int? above, string name, FolderRule rule)
    {
        var parent = above ?? -1;
        var holds = FolderHolds.Of(rule, above is { } a ? folders[a].Rule : null);
        if (!wanted.TryGetValue((parent, SafeName.Key(name)), out var same)) wanted[(parent, SafeName.Key(name))] = same = [];
        var another = same.Any(at => folders[at].Brought != source);
        foreach (var at in same)
        {
            // Each class brings a folder once: two of its own stay two.
            if (folders[at].Brought == source || folders[at].Rule != holds) continue;
            folders[at] = folders[at] with { Brought = source };
            return new(at, folders[at].Name, false);
        }
        if (!names.TryGetValue(parent, out var taken)) names[parent] = taken = [];
        var called = Beside(name, taken, another);
        taken.Add(SafeName.Key(called));
        folders.Add(new(called, holds, source));
        same.Add(folders.Count - 1);
        return new(folders.Count - 1, called, true);
    }

    /// <summary>A file, a page or a link comes: the same content under the same name is one thing.</summary>
    /// <returns>False where another class has brought it already.</returns>
    public bool Thing(string name, string? content)
    {
        if (things.TryAdd((SafeName.Key(name), content), source)) return true;
        return things[(SafeName.Key(name), content)] == source;
    }

    /// <summary>An assignment comes: the same title is the same assignment only if it asks the same.</summary>
    /// <param name="says">Its instructions, how it is marked, and what is attached.</param>
    public JoinedAssignment Assignment(string title, string says)
    {
        if (!asks.TryGetValue(SafeName.Key(title), out var same)) asks[SafeName.Key(title)] = same = [];
        foreach (var (said, at) in same)
            if (said == says && assignments[at].Brought != source) return new(at, assignments[at].Title, false);
        var called = Beside(title, titles, same.Any(x => assignments[x.At].Brought != source));
        titles.Add(SafeName.Key(called));
        assignments.Add((called, source));
        same.Add((says, assignments.Count - 1));
        return new(assignments.Count - 1, called, true);
    }

    private string Beside(string name, IReadOnlySet<string> taken, bool another) =>
        SafeName.Distinct(another && from.Length > 0 && SafeName.Make($"{name} ({from})") is { } told ? told.Name : name, taken, isFile: false);
}
