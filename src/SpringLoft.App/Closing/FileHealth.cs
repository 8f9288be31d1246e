using SpringLoft.Store.Files;

namespace SpringLoft.App.Closing;

/// <summary>Names damaged files to coordinators: what they are called, and in which classes.</summary>
public sealed class FileHealth(Premises premises)
{
    /// <summary>The act of the audit trail that tells of a damaged file.</summary>
    public const string Act = "found damaged file";

    /// <summary>Notes that a kept file was found damaged; once a day for each.</summary>
    public void Found(string sha256) => premises.Db.Write(c =>
    {
        var now = premises.Clock.Now;
        if (!DamagedStore.ToTell(c, sha256, now, now - Duration.FromDays(1))) return;
        var places = FilePlaces.Of(c, sha256);
        Premises.Add(c, null, now, new(Act, "file", null, places.Select(p => p.Class).FirstOrDefault(k => k is not null), $"{sha256}: {string.Join("; ", places.Take(10).Select(p => $"“{p.Name}” in {p.Where}"))}{(places.Count > 10 ? $" and {places.Count - 10} more" : "")}"));
    });
}
