using System.Collections.Concurrent;

namespace SpringLoft.Store.Files;

/// <summary>
/// Many files taken in together: written aside one after another, put on the disk in one go, and only then renamed. What is
/// not kept by the end is removed. Several threads may add to one batch.
/// </summary>
public sealed class FileBatch : IDisposable
{
    private readonly FileStore store;
    private readonly ConcurrentQueue<(string Path, StoredFile File)> aside = [];

    internal FileBatch(FileStore store) => this.store = store;

    /// <summary>Streams in one file. It is not kept yet.</summary>
    /// <param name="limit">Most bytes allowed.</param>
    /// <exception cref="FileTooLongException">More than <paramref name="limit"/> bytes came.</exception>
    /// <exception cref="DiskFullException">No room.</exception>
    public async Task<StoredFile> TakeIn(Stream source, long limit, CancellationToken stop)
    {
        var path = store.AsidePath();
        try
        {
            var file = await FileStore.WriteAside(source, path, limit, flush: false, stop).ConfigureAwait(false);
            aside.Enqueue((path, file));
            return file;
        }
        catch (IOException e) when (FileStore.IsDiskFull(e))
        {
            File.Delete(path);
            throw new DiskFullException(e);
        }
        catch
        {
            File.Delete(path);
            throw;
        }
    }

    /// <summary>Lets a writer fill a seekable stream. It is not kept yet.</summary>
    /// <param name="inManifests">False if it will stand in no manifest of a package: then it has no SHA-512.</param>
    /// <param name="beside">Reads back what was written, from its beginning, while the digests are made.</param>
    /// <exception cref="DiskFullException">No room.</exception>
    public StoredFile Make(Action<Stream> write, bool inManifests = true, Action<Stream>? beside = null)
    {
        var path = store.AsidePath();
        try
        {
            var file = FileStore.Fill(path, write, flush: false, inManifests, beside);
            aside.Enqueue((path, file));
            return file;
        }
        catch (IOException e) when (FileStore.IsDiskFull(e))
        {
            File.Delete(path);
            throw new DiskFullException(e);
        }
        catch
        {
            File.Delete(path);
            throw;
        }
    }

    /// <summary>Keeps all that was taken in.</summary>
    /// <exception cref="DiskFullException">No room; files that were kept already stay, and nothing refers to them.</exception>
    public void Keep()
    {
        // First the bytes, then the names: a name never stands for bytes that a power cut could lose.
        if (aside.IsEmpty) return;
        store.FlushAll();
        foreach (var (path, file) in aside) store.Move(path, file);
        store.FlushAll();
        aside.Clear();
    }

    /// <summary>Removes what was not kept.</summary>
    public void Dispose()
    {
        foreach (var (path, _) in aside) File.Delete(path);
    }
}
