using System.Security.Cryptography;
using SpringLoft.Store.Files;

namespace SpringLoft.Store.Tests.Files;

/// <summary>A damaged file is never handed on as if it were whole, and the same bytes brought again heal it.</summary>
public sealed class CheckedFileTests : IDisposable
{
    private readonly Scratch scratch = new();
    private readonly FileStore store;

    public CheckedFileTests() => store = new(scratch.Under("files"));

    private static byte[] Bytes(int n) => [.. Enumerable.Range(0, n).Select(i => (byte)(i * 31 % 251))];

    private string Keep(byte[] bytes) => store.TakeIn(new MemoryStream(bytes), long.MaxValue, default).GetAwaiter().GetResult().Sha256;

    private void Flip(string sha, long at)
    {
        using var file = new FileStream(store.PathOf(sha), FileMode.Open, FileAccess.ReadWrite);
        file.Position = at;
        var was = file.ReadByte();
        file.Position = at;
        file.WriteByte((byte)(was ^ 0x04));
    }

    [Theory]
    [InlineData(1)]
    [InlineData(1000)]
    [InlineData(1_000_000)]
    public async Task A_whole_file_is_read_as_it_is_from_the_beginning_and_from_anywhere(int length)
    {
        var bytes = Bytes(length);
        var sha = Keep(bytes);

        using (var all = store.Open(sha))
        {
            var to = new MemoryStream();
            await all.CopyToAsync(to);
            to.ToArray().ShouldBe(bytes);
        }
        using var part = store.Open(sha);
        part.Length.ShouldBe(length);
        part.Seek(length / 2, SeekOrigin.Begin);
        var rest = new MemoryStream();
        part.CopyTo(rest);
        rest.ToArray().ShouldBe(bytes[(length / 2)..]);
        part.Position = 0;
        part.ReadByte().ShouldBe(bytes[0]);
    }

    [Theory]
    [InlineData(1000, 0)]
    [InlineData(1000, 999)]
    [InlineData(1_000_000, 3)]
    [InlineData(1_000_000, 999_999)]
    public void The_last_bytes_of_a_damaged_file_are_never_handed_on(int length, int at)
    {
        var sha = Keep(Bytes(length));
        Flip(sha, at);

        using var file = store.Open(sha);
        var to = new MemoryStream();
        Should.Throw<DamagedFileException>(() => file.CopyTo(to)).Sha256.ShouldBe(sha);
        to.Length.ShouldBeLessThan(length);

        using var part = store.Open(sha);
        part.Seek(length / 2, SeekOrigin.Begin);
        Should.Throw<DamagedFileException>(() => part.ReadByte());
    }

    [Fact]
    public void A_file_cut_short_is_damaged_and_one_that_is_gone_is_missing()
    {
        var sha = Keep(Bytes(500));
        File.WriteAllBytes(store.PathOf(sha), Bytes(499));
        using (var file = store.Open(sha)) Should.Throw<DamagedFileException>(() => file.CopyTo(Stream.Null));
        File.WriteAllBytes(store.PathOf(sha), []);
        Should.Throw<DamagedFileException>(() => store.Open(sha));
        File.Delete(store.PathOf(sha));
        Should.Throw<FileNotFoundException>(() => store.Open(sha));
        Directory.Delete(Path.GetDirectoryName(store.PathOf(sha))!);
        Should.Throw<FileNotFoundException>(() => store.Open(sha));
    }

    [Fact]
    public void The_same_bytes_brought_again_heal_it_alone_and_among_many()
    {
        var bytes = Bytes(3000);
        var sha = Keep(bytes);
        Flip(sha, 17);
        Keep(bytes).ShouldBe(sha);
        Whole(sha);

        Flip(sha, 17);
        using (var batch = store.Batch())
        {
            batch.Make(to => to.Write(bytes));
            batch.Keep();
        }
        Whole(sha);
    }

    private void Whole(string sha)
    {
        using var file = store.Open(sha);
        Convert.ToHexStringLower(SHA256.HashData(file)).ShouldBe(sha);
    }

    [Fact]
    public void What_is_wrong_with_a_kept_file_is_said()
    {
        var sha = Keep(Bytes(500));
        var root = scratch.Under("files");

        FileStore.FaultOf(root, sha, 500).ShouldBeNull();
        FileStore.FaultOf(root, sha, 501).ShouldBe(FileFault.Length);
        Flip(sha, 4);
        FileStore.FaultOf(root, sha, 500).ShouldBe(FileFault.Bytes);
        File.Delete(store.PathOf(sha));
        FileStore.FaultOf(root, sha, 500).ShouldBe(FileFault.Missing);
    }

    public void Dispose() => scratch.Dispose();
}
