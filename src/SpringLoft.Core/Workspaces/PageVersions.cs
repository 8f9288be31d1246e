namespace SpringLoft.Core.Workspaces;

/// <summary>Where one version of a page that several write at once ends and the next begins.</summary>
public static class PageVersions
{
    /// <summary>What was written is in the page's text after so long: no reader has an older one than ten seconds.</summary>
    public static readonly Duration SettlesAfter = Duration.FromSeconds(4);

    // After such a pause it is another sitting; a sitting has a version of each half hour.
    private static readonly Duration Pause = Duration.FromMinutes(10);
    private static readonly Duration Longest = Duration.FromMinutes(30);

    /// <summary>Is the version that was begun then still being written? What stood before a sitting is a version that can be brought back.</summary>
    /// <param name="begunAt">Null for none that is being written together.</param>
    /// <param name="lastAt">When it was written to last.</param>
    public static bool GoesOn(Instant? begunAt, Instant? lastAt, Instant now) => begunAt is { } begun && lastAt is { } last && now - last < Pause && now - begun < Longest;
}
