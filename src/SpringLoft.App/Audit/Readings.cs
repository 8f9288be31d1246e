using System.Collections.Concurrent;
using SpringLoft.Core.Audit;
using SpringLoft.Store.People;
using SpringLoft.Store.Rosters;

namespace SpringLoft.App.Audit;

/// <summary>Notes in the audit trail what somebody has read, where that is somebody else's: before it is handed out.</summary>
public sealed class Readings(Premises premises)
{
    // Who goes from page to page of one class has looked into it once.
    private static readonly Duration Once = Duration.FromHours(1);
    private readonly ConcurrentDictionary<(PersonId, ClassId?, Reading), Instant> noted = new();

    /// <summary>Notes that somebody reads.</summary>
    /// <param name="id">The class it is read in; null for what is of the school.</param>
    /// <param name="about">The one person whose it is; null for what is of several.</param>
    /// <param name="of">What exactly, in words.</param>
    public void Note(Caller by, Reading what, ClassId? id, PersonId? about, string of)
    {
        var now = premises.Clock.Real;
        if (what.IsLook())
        {
            // Those who are in a class see its work and its roster every day; that is no news.
            if (id is { } k && premises.Db.Read(c => RosterStore.Member(c, k, by.Id)) is { LeftAt: null }) return;
            if (noted.TryGetValue((by.Id, id, what), out var before) && now - before < Once) return;
            if (noted.Count > 10_000) noted.Clear();
            noted[(by.Id, id, what)] = now;
        }
        premises.Db.Write(c =>
        {
            var whose = about is { } p ? PersonStore.Find(c, p)?.Name.Display : null;
            Premises.Add(c, by, premises.Clock.Now, new(what.Act(), about is not null ? "person" : id is not null ? "class" : "school", about?.Value ?? id?.Value, id, whose is null ? of : $"{whose}: {of}"));
        });
    }
}
