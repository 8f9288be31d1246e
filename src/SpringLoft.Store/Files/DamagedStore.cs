namespace SpringLoft.Store.Files;

/// <summary>Owns damaged_file: when a file that was found damaged was last named.</summary>
public static class DamagedStore
{
    /// <summary>Is it time to name a damaged file? If so, it counts as named now.</summary>
    /// <param name="before">It is time if it was never named, or was before this moment.</param>
    public static bool ToTell(IDbConnection c, string sha256, Instant now, Instant before) => c.Execute(
        "INSERT INTO damaged_file(file, told_at) VALUES(@sha256, @now) ON CONFLICT(file) DO UPDATE SET told_at = @now WHERE told_at < @before", new { sha256, now, before }) == 1;
}
