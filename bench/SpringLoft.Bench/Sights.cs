using System.Diagnostics;
using SpringLoft.Core;
using SpringLoft.Core.Workspaces;

internal static class Sights
{
    /// <summary>Decides the right of 40 people in each of 600 folders, and prints the microseconds a pair, the median of 50.</summary>
    internal static void Run()
    {
        var rules = new[] { FolderRule.ClassViews, FolderRule.AsAbove, FolderRule.ClassAdds, FolderRule.AsAbove, FolderRule.StaffOnly, FolderRule.AsAbove };
        var facts = Enumerable.Range(1, 600).Select(i => i switch
        {
            > 560 => new FolderFact(new(i), new FolderId(1), $"Own {i}", FolderRule.OneEach, new PersonId(i - 560)),
            > 540 => new FolderFact(new(i), new FolderId(2), $"Group {i}", FolderRule.OnePerGroup, null, new GroupId(i % 4)),
            > 20 => new FolderFact(new(i), new FolderId((i % 20) + 1), $"Folder {i}", rules[i % rules.Length], null),
            _ => new FolderFact(new(i), null, $"Top {i}", FolderRule.ClassViews, null),
        }).ToDictionary(f => f.Id);
        long seen = 0;
        double Once()
        {
            var watch = Stopwatch.StartNew();
            for (var p = 1; p <= 40; p++)
            {
                var access = new Access(new Viewer(new(p), Standing.Student, true, ClassState.Open, AfterArchive.View, new HashSet<GroupId> { new(p % 4) }), facts);
                foreach (var f in facts.Keys)
                    if (access.Of(f).Right > Right.None) seen++;
            }
            return watch.Elapsed.TotalMicroseconds / (40 * 600);
        }
        for (var i = 0; i < 20; i++) Once();
        var median = Enumerable.Range(0, 50).Select(_ => Once()).Order().ElementAt(25);
        Console.WriteLine($"{median:0.00} {seen / 70}");
    }
}
