using System.Text.RegularExpressions;

namespace SpringLoft.Server.Tests.Api;

/// <summary>Every code that the program can answer with is explained in docs/errors.md, and nothing else is.</summary>
public partial class ErrorDocsTests
{
    private static readonly string Root = Path.GetFullPath(Path.Combine(AppContext.BaseDirectory, "../../../../.."));

    [Fact]
    public void The_table_of_errors_and_the_source_name_the_same_codes()
    {
        var inSource = Directory.GetFiles(Path.Combine(Root, "src"), "*.cs", SearchOption.AllDirectories)
            .Where(f => !f.Contains($"{Path.DirectorySeparatorChar}obj{Path.DirectorySeparatorChar}", StringComparison.Ordinal))
            .SelectMany(f => Raised().Matches(File.ReadAllText(f))).Select(m => m.Groups["code"].Value).ToHashSet();
        var inDocs = File.ReadLines(Path.Combine(Root, "docs/errors.md")).Where(l => l.StartsWith("| `", StringComparison.Ordinal))
            .SelectMany(l => Coded().Matches(l.Split('|')[1])).Select(m => m.Groups[1].Value).ToHashSet();

        inSource.Except(inDocs).ShouldBeEmpty();
        inDocs.Except(inSource).ShouldBeEmpty();
    }

    // A refusal is made of a code and then a sentence.
    [GeneratedRegex("(?:RefusedException|Refusal|new)\\(\\s*\"(?<code>[a-z]+(?:-[a-z]+)*)\",\\s*\\$?\"[A-Z“{]|\\bNo\\(\"(?<code>[a-z]+(?:-[a-z]+)*)\",")]
    private static partial Regex Raised();

    [GeneratedRegex("`([a-z-]+)`")]
    private static partial Regex Coded();
}
