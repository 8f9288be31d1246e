using System.Security.Cryptography;

namespace SpringLoft.Store.Files;

/// <summary>A kept file is not what it was when it was kept.</summary>
public sealed class DamagedFileException(string sha256) : IOException($"The kept file {sha256} is damaged.")
{
    /// <summary>By which the file is kept.</summary>
    public string Sha256 { get; } = sha256;
}

/// <summary>
/// A kept file as it is read: held against the digest that names it before its last bytes are handed on, so that a damaged
/// one is never taken for whole. Read from elsewhere than the beginning, it is read through first.
/// </summary>
internal sealed class CheckedFile : Stream
{
    private const int BufferSize = 128 * 1024;
    private readonly FileStream file;
    private readonly string sha256;
    private readonly long length;
    // Of what has passed so far; null once it is known to be whole.
    private IncrementalHash? digest = IncrementalHash.CreateHash(HashAlgorithmName.SHA256);
    private long digested;

    internal CheckedFile(string path, string sha256)
    {
        this.sha256 = sha256;
        file = new FileStream(path, FileMode.Open, FileAccess.Read, FileShare.Read | FileShare.Delete, 1, FileOptions.SequentialScan);
        length = file.Length;
        if (length == 0) Settle();
    }

    public override bool CanRead => true;

    public override bool CanSeek => true;

    public override bool CanWrite => false;

    public override long Length => length;

    public override long Position { get => file.Position; set => Seek(value, SeekOrigin.Begin); }

    public override int Read(byte[] buffer, int offset, int count) => Read(buffer.AsSpan(offset, count));

    public override int Read(Span<byte> buffer)
    {
        Follow();
        var n = file.Read(buffer);
        Pass(buffer[..n]);
        return n;
    }

    public override Task<int> ReadAsync(byte[] buffer, int offset, int count, CancellationToken cancellationToken) => ReadAsync(buffer.AsMemory(offset, count), cancellationToken).AsTask();

    public override async ValueTask<int> ReadAsync(Memory<byte> buffer, CancellationToken cancellationToken = default)
    {
        Follow();
        var n = await file.ReadAsync(buffer, cancellationToken).ConfigureAwait(false);
        Pass(buffer.Span[..n]);
        return n;
    }

    public override long Seek(long offset, SeekOrigin origin) => file.Seek(offset, origin);

    public override void Flush() { }

    public override void SetLength(long value) => throw new NotSupportedException();

    public override void Write(byte[] buffer, int offset, int count) => throw new NotSupportedException();

    protected override void Dispose(bool disposing)
    {
        if (disposing)
        {
            file.Dispose();
            digest?.Dispose();
        }
        base.Dispose(disposing);
    }

    // Whoever reads on from where they stopped is followed; for anybody else the whole file is read first.
    private void Follow()
    {
        if (digest is null || file.Position == digested) return;
        var back = file.Position;
        file.Position = digested;
        var buffer = new byte[BufferSize];
        int n;
        while ((n = file.Read(buffer)) > 0 && digest is not null) Pass(buffer.AsSpan(0, n));
        if (digest is not null) Settle();
        file.Position = back;
    }

    private void Pass(ReadOnlySpan<byte> bytes)
    {
        if (digest is null) return;
        digest.AppendData(bytes);
        digested += bytes.Length;
        if (digested >= length) Settle();
    }

    private void Settle()
    {
        if (Convert.ToHexStringLower(digest!.GetHashAndReset()) != sha256) throw new DamagedFileException(sha256);
        digest.Dispose();
        digest = null;
    }
}
