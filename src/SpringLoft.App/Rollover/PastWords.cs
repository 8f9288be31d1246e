using SpringLoft.App.Closing;
using SpringLoft.Core.Naming;
using SpringLoft.Core.Rollover;
using SpringLoft.Store.Files;
using SpringLoft.Store.Rollover;

namespace SpringLoft.App.Rollover;

/// <summary>How far the words of all years are read.</summary>
/// <param name="Ready">True once all that there was has been read since the program started.</param>
public sealed record PastProgress(bool Ready, int Read, int Of);

/// <summary>Keeps the index over what teachers set up in all years: read when somebody first looks for something, and what changed since at each look.</summary>
public sealed class PastWords(Premises premises, WordsInFiles words) : IDisposable
{
    // So much is taken in at once; a search that comes meanwhile waits no longer.
    private const int Helping = 100;

    // The beginning of a book is enough to find it again.
    private const int MostText = 200_000;
    private readonly Lock opening = new();
    private PastIndex? index;
    private readonly SemaphoreSlim asked = new(0);
    private volatile PastProgress progress = new(false, 0, 0);

    private readonly string path = Path.Combine(Path.GetDirectoryName(premises.Db.Path)!, "past.db");

    // Opened when it is first needed; where that failed, for want of room say, it is tried again.
    private PastIndex Index
    {
        get { lock (opening) return index ??= new PastIndex(path); }
    }

    /// <summary>How far it is.</summary>
    public PastProgress Progress => progress;

    /// <summary>What has the words that are asked for, and asks for the newest to be read.</summary>
    internal IReadOnlyList<(PastKey Key, ClassId Class)> Find(string find, IEnumerable<ClassId> classes, int most)
    {
        if (asked.CurrentCount == 0) asked.Release();
        return Index.Find(find, classes, most);
    }

    /// <summary>Has anybody ever looked for something?</summary>
    public bool Exists => File.Exists(path);

    /// <summary>Waits until somebody looks for something, or so long.</summary>
    /// <returns>Did somebody?</returns>
    public Task<bool> Asked(TimeSpan atMost, CancellationToken stop) => asked.WaitAsync(atMost, stop);

    /// <summary>Takes in what is new or changed since, and lets go of what is there no more.</summary>
    /// <returns>How many things were taken in or let go.</returns>
    public int Refresh(CancellationToken stop)
    {
        var known = Index.Stamps();
        var now = premises.Db.Read(PastStore.All);
        var there = now.Select(r => new PastKey(r.Kind, r.Id)).ToHashSet();
        var gone = known.Keys.Where(k => !there.Contains(k)).ToList();
        var fresh = now.Where(r => known.GetValueOrDefault(new(r.Kind, r.Id)) != r.Stamp).ToList();
        if (gone.Count > 0) Index.Change([], gone);
        var read = 0;
        foreach (var helping in fresh.Chunk(Helping))
        {
            stop.ThrowIfCancellationRequested();
            Index.Change([.. helping.Select(r => new PastEntry(new(r.Kind, r.Id), r.ClassId, r.Stamp, r.Name, Body(r)))], []);
            read += helping.Length;
            progress = progress with { Read = now.Count - fresh.Count + read, Of = now.Count };
        }
        progress = new(true, now.Count, now.Count);
        return fresh.Count + gone.Count;
    }

    /// <summary>What is written in a thing; empty where it can't be read.</summary>
    internal string Body(PastRow r)
    {
        if (r.Kind == PastKind.Assignment) return r.Instructions ?? "";
        if (r.Sha256 is not { } sha) return r.Url ?? "";
        try
        {
            var text = words.Of(sha).Text;
            return Cut.Whole(text, 0, MostText);
        }
        catch (Exception e) when (e is FileNotFoundException or DamagedFileException) { return ""; }
    }

    public void Dispose()
    {
        index?.Dispose();
        asked.Dispose();
    }
}
