using System.Buffers;
using System.Runtime.InteropServices;
using System.Security.Cryptography;

namespace SpringLoft.Store.Files;

/// <summary>A file in the store.</summary>
/// <param name="Sha256">Its name in the store, lower-case hex.</param>
/// <param name="Sha512">For the manifests of packages, lower-case hex; null of what stands in none.</param>
/// <param name="Size">In bytes.</param>
public sealed record StoredFile(string Sha256, string? Sha512, long Size);

/// <summary>What is wrong with a kept file.</summary>
public enum FileFault { Missing, Length, Bytes }

/// <summary>The disk had no room; nothing of the file was kept.</summary>
public sealed class DiskFullException(Exception inner) : IOException("The disk is full.", inner);

/// <summary>The file was longer than allowed; nothing of it was kept.</summary>
public sealed class FileTooLongException(long limit) : IOException($"The file is longer than {limit} bytes.")
{
    /// <summary>In bytes.</summary>
    public long Limit { get; } = limit;
}

/// <summary>
/// Files on the disk, each once, named by its SHA-256. A file is written aside, flushed and renamed, so that a
/// half-written one is never seen under its name.
/// </summary>
public sealed class FileStore
{
    private const int BufferSize = 256 * 1024;
    private const int SmallBuffer = 64 * 1024;
    private static readonly TimeSpan JustBrought = TimeSpan.FromHours(1);
    private readonly Lock placing = new();
    private readonly string root;
    private readonly string aside;
    private readonly DateTime opened = DateTime.UtcNow;

    private readonly Func<long> free;

    /// <param name="root">A folder of its own; made if missing. What an earlier process left half-written is removed.</param>
    /// <param name="free">Asks how many bytes are free; null to ask the disk.</param>
    public FileStore(string root, Func<long>? free = null)
    {
        this.root = root;
        this.free = free ?? (() => new DriveInfo(Path.GetFullPath(root)).AvailableFreeSpace);
        aside = Path.Combine(root, "incoming");
        Directory.CreateDirectory(aside);
        foreach (var left in Directory.EnumerateFiles(aside)) File.Delete(left);
    }

    /// <summary>Free on the disk that it is on, in bytes.</summary>
    public long Free => free();

    /// <summary>Streams in a file. Memory stays flat whatever its length.</summary>
    /// <param name="source">Read to its end.</param>
    /// <param name="limit">Most bytes allowed.</param>
    /// <exception cref="FileTooLongException">More than <paramref name="limit"/> bytes came.</exception>
    /// <exception cref="DiskFullException">No room.</exception>
    public async Task<StoredFile> TakeIn(Stream source, long limit, CancellationToken stop)
    {
        var path = AsidePath();
        try
        {
            return Place(path, await WriteAside(source, path, limit, flush: true, stop).ConfigureAwait(false));
        }
        catch (IOException e) when (IsDiskFull(e)) { throw new DiskFullException(e); }
        finally { File.Delete(path); }
    }

    /// <summary>Streams something aside that is only to be looked into.</summary>
    /// <param name="to">From <see cref="Scratch"/>; stands at its beginning afterwards.</param>
    /// <exception cref="DiskFullException">No room.</exception>
    public async Task Spool(Stream source, FileStream to, CancellationToken stop)
    {
        try
        {
            await source.CopyToAsync(to, BufferSize, stop).ConfigureAwait(false);
            await to.FlushAsync(stop).ConfigureAwait(false);
            to.Position = 0;
        }
        catch (IOException e) when (IsDiskFull(e)) { throw new DiskFullException(e); }
    }

    /// <summary>Begins to take in many files that are kept together or not at all.</summary>
    public FileBatch Batch() => new(this);

    /// <summary>Lets a writer fill a seekable stream, then keeps what it wrote.</summary>
    /// <exception cref="DiskFullException">No room; nothing is kept.</exception>
    public StoredFile Make(Action<Stream> write)
    {
        var path = AsidePath();
        try
        {
            return Place(path, Fill(path, write, flush: true));
        }
        catch (IOException e) when (IsDiskFull(e)) { throw new DiskFullException(e); }
        finally { File.Delete(path); }
    }

    /// <param name="inManifests">False to leave out the digest that only manifests need.</param>
    /// <param name="beside">Reads what was written, from its beginning, while its digests are made.</param>
    internal static StoredFile Fill(string path, Action<Stream> write, bool flush, bool inManifests = true, Action<Stream>? beside = null)
    {
        using var sha256 = IncrementalHash.CreateHash(HashAlgorithmName.SHA256);
        using var sha512 = inManifests ? IncrementalHash.CreateHash(HashAlgorithmName.SHA512) : null;
        // A buffer of its own for each file, so a small one: large ones are dear to the collector.
        using var file = new FileStream(path, FileMode.CreateNew, FileAccess.ReadWrite, FileShare.Read, SmallBuffer);
        write(file);
        file.Flush(flush);
        var reading = beside is null ? Task.CompletedTask : Task.Run(() =>
        {
            using var again = new FileStream(path, FileMode.Open, FileAccess.Read, FileShare.ReadWrite, 1, FileOptions.SequentialScan);
            beside(again);
        });
        try { Digest(file, sha256, sha512); }
        finally { Task.WaitAny(reading); }
        reading.GetAwaiter().GetResult();
        return new StoredFile(Hex(sha256), sha512 is null ? null : Hex(sha512), file.Length);
    }

    private static void Digest(FileStream file, IncrementalHash sha256, IncrementalHash? sha512)
    {
        file.Position = 0;
        var buffer = ArrayPool<byte>.Shared.Rent(BufferSize);
        try
        {
            int n;
            while ((n = file.ReadAtLeast(buffer, buffer.Length, throwOnEndOfStream: false)) > 0)
            {
                // The longer digest is made on another core while this one makes the other.
                var read = n;
                var other = read < SmallBuffer || sha512 is null ? Task.CompletedTask : Task.Run(() => sha512.AppendData(buffer, 0, read));
                if (read < SmallBuffer) sha512?.AppendData(buffer, 0, read);
                sha256.AppendData(buffer, 0, read);
                other.GetAwaiter().GetResult();
            }
        }
        finally { ArrayPool<byte>.Shared.Return(buffer); }
    }

    /// <summary>Opens a kept file for reading.</summary>
    /// <exception cref="FileNotFoundException">It is not in the store; with its SHA-256 as the name.</exception>
    /// <exception cref="DamagedFileException">Thrown while it is read, before its last bytes are handed on: it is not what it was.</exception>
    public Stream Open(string sha256)
    {
        try { return new CheckedFile(PathOf(sha256), sha256); }
        catch (Exception e) when (e is DirectoryNotFoundException or FileNotFoundException) { throw new FileNotFoundException(e.Message, sha256, e); }
    }

    /// <summary>A file to write and read once; it is gone when closed.</summary>
    public FileStream Scratch() =>
        new(AsidePath(), FileMode.CreateNew, FileAccess.ReadWrite, FileShare.None, BufferSize, FileOptions.DeleteOnClose);

    /// <summary>Where a kept file is on the disk.</summary>
    /// <param name="sha256">64 lower-case hex digits; anything else is refused, so that no path can be smuggled in.</param>
    public string PathOf(string sha256)
    {
        if (!IsSha256(sha256))
            throw new ArgumentException("Not a SHA-256 in lower-case hex.", nameof(sha256));
        return Path.Combine(root, sha256[..2], sha256[2..]);
    }

    internal static async Task<StoredFile> WriteAside(Stream source, string path, long limit, bool flush, CancellationToken stop)
    {
        using var sha256 = IncrementalHash.CreateHash(HashAlgorithmName.SHA256);
        using var sha512 = IncrementalHash.CreateHash(HashAlgorithmName.SHA512);
        long size = 0;
        await using (var file = new FileStream(path, FileMode.CreateNew, FileAccess.Write, FileShare.None, 1, FileOptions.Asynchronous))
        {
            var buffer = ArrayPool<byte>.Shared.Rent(BufferSize);
            try
            {
                int n;
                while ((n = await source.ReadAtLeastAsync(buffer, buffer.Length, throwOnEndOfStream: false, stop).ConfigureAwait(false)) > 0)
                {
                    size += n;
                    if (size > limit) throw new FileTooLongException(limit);
                    // The longer digest is made on another core while this one makes the other and writes.
                    var other = n < SmallBuffer ? Task.CompletedTask : Task.Run(() => sha512.AppendData(buffer, 0, n), CancellationToken.None);
                    try
                    {
                        if (n < SmallBuffer) sha512.AppendData(buffer, 0, n);
                        sha256.AppendData(buffer, 0, n);
                        await file.WriteAsync(buffer.AsMemory(0, n), stop).ConfigureAwait(false);
                    }
                    // A write that fails must not take the buffer away from the digest that still reads it.
                    finally { await other.ConfigureAwait(false); }
                }
            }
            finally { ArrayPool<byte>.Shared.Return(buffer); }
            if (flush) file.Flush(flushToDisk: true);
        }
        return new StoredFile(Hex(sha256), Hex(sha512), size);
    }

    internal StoredFile Place(string path, StoredFile file)
    {
        FlushFolder(Move(path, file));
        return file;
    }

    /// <summary>Moves a file to where it is kept; gives the folder, whose change is on the disk only once it is flushed.</summary>
    internal string Move(string path, StoredFile file)
    {
        var to = PathOf(file.Sha256);
        var folder = Path.GetDirectoryName(to)!;
        lock (placing)
        {
            // What is there may have gone bad since: what was brought again takes its place, and is new to whoever takes away what is unused.
            Directory.CreateDirectory(folder);
            File.Move(path, to, overwrite: true);
        }
        return folder;
    }

    /// <summary>Is there any kept file in a folder?</summary>
    public static bool HasAny(string root) => Directory.Exists(root) && All(root).Any();

    /// <summary>What is wrong with a kept file; null if it is whole. Reads all of it.</summary>
    /// <param name="size">Its length in bytes as it was kept.</param>
    public static FileFault? FaultOf(string root, string sha256, long size)
    {
        var file = new FileInfo(Path.Combine(root, sha256[..2], sha256[2..]));
        if (!file.Exists) return FileFault.Missing;
        if (file.Length != size) return FileFault.Length;
        using var bytes = file.OpenRead();
        return Convert.ToHexStringLower(SHA256.HashData(bytes)) == sha256 ? null : FileFault.Bytes;
    }

    /// <summary>Did a kept file stand there before this store was opened?</summary>
    public bool StoodBefore(string sha256) => File.GetLastWriteTimeUtc(PathOf(sha256)) < opened;

    /// <summary>Every kept file, by its SHA-256.</summary>
    public IEnumerable<string> All() => All(root);

    private static IEnumerable<string> All(string root) => Directory.EnumerateDirectories(root)
        .Where(folder => Path.GetFileName(folder).Length == 2)
        .SelectMany(folder => Directory.EnumerateFiles(folder).Select(f => Path.GetFileName(folder) + Path.GetFileName(f)))
        .Where(IsSha256);

    /// <summary>Takes a file off the disk that nothing refers to.</summary>
    /// <returns>Its bytes, 0 if it was gone already; null if somebody brought it within the last hour: then it stays.</returns>
    public long? Remove(string sha256)
    {
        var file = new FileInfo(PathOf(sha256));
        lock (placing)
        {
            if (!file.Exists) return 0;
            if (file.LastWriteTimeUtc > DateTime.UtcNow - JustBrought) return null;
            var size = file.Length;
            file.Delete();
            return size;
        }
    }

    /// <summary>Puts on the disk whatever was written to the file system of the store, and the renames in it.</summary>
    internal void FlushAll()
    {
        var descriptor = OpenFolder(root, 0);
        if (descriptor < 0) throw new IOException("The file store can't be flushed.");
        var outcome = SyncFileSystem(descriptor);
        var fault = Marshal.GetLastPInvokeError();
        _ = Close(descriptor);
        if (outcome == 0) return;
        var e = new IOException($"The file store can't be flushed: error {fault}.", fault);
        throw IsDiskFull(e) ? new DiskFullException(e) : e;
    }

    private static bool IsSha256(string name) => name.Length == 64 && name.All(char.IsAsciiHexDigitLower);

    internal string AsidePath() => Path.Combine(aside, Path.GetRandomFileName());

    private static string Hex(IncrementalHash hash) => Convert.ToHexStringLower(hash.GetHashAndReset());

    /// <summary>Is there no room on a disk?</summary>
    // ENOSPC and EDQUOT of Linux; .NET gives the bare errno as HResult for the former.
    public static bool IsDiskFull(IOException e) =>
        e is not DiskFullException && (e.HResult is 28 or 122 or unchecked((int)0x80070070) || e.Message.Contains("No space left", StringComparison.Ordinal));

    // The rename itself is on the disk only once its folder is flushed.
    private static void FlushFolder(string folder)
    {
        var descriptor = OpenFolder(folder, 0);
        if (descriptor < 0) return;
        _ = Flush(descriptor);
        _ = Close(descriptor);
    }

    [DllImport("libc", EntryPoint = "open", SetLastError = true)]
    private static extern int OpenFolder([MarshalAs(UnmanagedType.LPUTF8Str)] string path, int flags);

    [DllImport("libc", EntryPoint = "fsync", SetLastError = true)]
    private static extern int Flush(int descriptor);

    [DllImport("libc", EntryPoint = "syncfs", SetLastError = true)]
    private static extern int SyncFileSystem(int descriptor);

    [DllImport("libc", EntryPoint = "close", SetLastError = true)]
    private static extern int Close(int descriptor);
}
