namespace SpringLoft.Core.Workspaces;

/// <summary>The marks that courses can wear; the client draws them.</summary>
public static class CourseMarks
{
    /// <summary>In the order in which they are offered. The last is for a course that has chosen none.</summary>
    public static readonly IReadOnlyList<string> All = ["hull", "pot", "wave", "flag", "leaf", "book", "compass", "note", "sprig"];
}
