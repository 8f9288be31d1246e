using System.IO.Compression;
using System.IO.Hashing;

namespace SpringLoft.Formats.Zips;

/// <summary>Reads a file of a zip and holds what comes against the length and the checksum that the zip gives it.</summary>
internal sealed class CheckedEntry(ZipArchiveEntry entry) : Stream
{
    private readonly Stream from = Opened(entry);
    private readonly Crc32 sum = new();
    private long read;

    public override bool CanRead => true;
    public override bool CanSeek => false;
    public override bool CanWrite => false;
    public override long Length => entry.Length;
    public override long Position { get => read; set => throw new NotSupportedException(); }

    public override int Read(Span<byte> buffer) => Checked(buffer, from.Read(buffer));

    public override int Read(byte[] buffer, int offset, int count) => Read(buffer.AsSpan(offset, count));

    public override async ValueTask<int> ReadAsync(Memory<byte> buffer, CancellationToken cancellationToken = default)
    {
        var n = await from.ReadAsync(buffer, cancellationToken).ConfigureAwait(false);
        return Checked(buffer.Span, n);
    }

    public override Task<int> ReadAsync(byte[] buffer, int offset, int count, CancellationToken cancellationToken) =>
        ReadAsync(buffer.AsMemory(offset, count), cancellationToken).AsTask();

    public override void Flush() { }

    public override long Seek(long offset, SeekOrigin origin) => throw new NotSupportedException();

    public override void SetLength(long value) => throw new NotSupportedException();

    public override void Write(byte[] buffer, int offset, int count) => throw new NotSupportedException();

    protected override void Dispose(bool disposing)
    {
        if (disposing) from.Dispose();
        base.Dispose(disposing);
    }

    private static Stream Opened(ZipArchiveEntry entry)
    {
        try { return entry.Open(); }
        catch (Exception e) when (ReadZip.IsBroken(e)) { throw new InvalidDataException(e.Message, e); }
    }

    // At the end everything must be there, and nothing else.
    private int Checked(ReadOnlySpan<byte> buffer, int n)
    {
        if (n > 0)
        {
            sum.Append(buffer[..n]);
            read += n;
        }
        else if (buffer.Length > 0 && (read != entry.Length || sum.GetCurrentHashAsUInt32() != entry.Crc32))
        {
            throw new InvalidDataException($"“{entry.FullName}” is not what the zip says it is.");
        }
        return n;
    }
}
