namespace SpringLoft.Core.Closing;

/// <summary>Compares what a package holds with what the workspace says it should.</summary>
public static class PackageComparison
{
    /// <summary>All differences in words; none when both sides are the same.</summary>
    /// <param name="expected">Path in the package to SHA-512 (lower-case hex), from the workspace.</param>
    /// <param name="found">The same, from reading the package back.</param>
    public static IReadOnlyList<string> Differences(IReadOnlyDictionary<string, string> expected, IReadOnlyDictionary<string, string> found)
    {
        var list = new List<string>();
        foreach (var (path, digest) in expected.OrderBy(x => x.Key, StringComparer.Ordinal))
        {
            if (!found.TryGetValue(path, out var other)) list.Add($"missing from the package: {path}");
            else if (other != digest) list.Add($"different from the workspace: {path}");
        }
        foreach (var path in found.Keys.Where(p => !expected.ContainsKey(p)).Order(StringComparer.Ordinal))
            list.Add($"in the package but not in the workspace: {path}");
        return list;
    }
}
