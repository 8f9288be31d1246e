using System.Security.Cryptography;
using SpringLoft.Store.Files;

namespace SpringLoft.Store.Tests.Files;

public sealed class FileBatchTests : IDisposable
{
    private readonly Scratch scratch = new();

    private FileStore Store => new(scratch.Under("files"));

    private IEnumerable<string> Left => Directory.EnumerateFiles(scratch.Under("files", "incoming"));

    [Fact]
    public async Task Files_are_seen_under_their_names_only_after_all_are_kept()
    {
        var store = Store;
        using var batch = store.Batch();
        byte[] bytes = [.. Enumerable.Range(0, 700_000).Select(i => (byte)i)];
        var one = await batch.TakeIn(new MemoryStream(bytes), long.MaxValue, CancellationToken.None);
        await batch.TakeIn(new MemoryStream([1, 2, 3]), long.MaxValue, CancellationToken.None);
        File.Exists(store.PathOf(one.Sha256)).ShouldBeFalse();

        batch.Keep();

        (await File.ReadAllBytesAsync(store.PathOf(one.Sha256))).ShouldBe(bytes);
        one.Sha256.ShouldBe(Convert.ToHexStringLower(SHA256.HashData(bytes)));
        one.Sha512.ShouldBe(Convert.ToHexStringLower(SHA512.HashData(bytes)));
        Left.ShouldBeEmpty();
    }

    [Fact]
    public async Task What_is_not_kept_is_gone()
    {
        var store = Store;
        using (var batch = store.Batch())
        {
            await batch.TakeIn(new MemoryStream([1]), long.MaxValue, CancellationToken.None);
            await Should.ThrowAsync<FileTooLongException>(() => batch.TakeIn(new MemoryStream([1, 2, 3]), 2, CancellationToken.None));
        }

        Left.ShouldBeEmpty();
        Directory.EnumerateFiles(scratch.Under("files"), "*", SearchOption.AllDirectories).ShouldBeEmpty();
    }

    [Fact]
    public async Task The_same_bytes_are_kept_once()
    {
        var store = Store;
        using var batch = store.Batch();
        var first = await batch.TakeIn(new MemoryStream([7]), long.MaxValue, CancellationToken.None);
        var second = await batch.TakeIn(new MemoryStream([7]), long.MaxValue, CancellationToken.None);

        batch.Keep();

        second.ShouldBe(first);
        Directory.EnumerateFiles(scratch.Under("files"), "*", SearchOption.AllDirectories).ShouldHaveSingleItem();
    }

    public void Dispose() => scratch.Dispose();
}
