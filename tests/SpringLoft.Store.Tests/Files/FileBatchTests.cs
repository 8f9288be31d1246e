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

    [Fact]
    public void What_is_made_is_read_back_from_its_beginning_while_its_digests_are_made()
    {
        using var batch = Store.Batch();
        byte[] bytes = [.. Enumerable.Range(0, 900_000).Select(i => (byte)(i * 7))];
        using var seen = new MemoryStream();

        var made = batch.Make(to => to.Write(bytes), inManifests: false, beside: written => written.CopyTo(seen));

        seen.ToArray().ShouldBe(bytes);
        made.Sha256.ShouldBe(Convert.ToHexStringLower(SHA256.HashData(bytes)));
        made.Sha512.ShouldBeNull();
    }

    [Fact]
    public void What_was_read_back_takes_the_place_of_the_same_file_that_has_gone_bad_since()
    {
        var store = Store;
        byte[] bytes = [.. Enumerable.Range(0, 100_000).Select(i => (byte)(i * 3))];
        string Keep()
        {
            using var batch = store.Batch();
            var made = batch.Make(to => to.Write(bytes), beside: written => written.CopyTo(Stream.Null));
            batch.Keep();
            return store.PathOf(made.Sha256);
        }
        var path = Keep();
        var bad = (byte[])bytes.Clone();
        bad[500] ^= 1;
        File.WriteAllBytes(path, bad);

        Keep().ShouldBe(path);

        File.ReadAllBytes(path).ShouldBe(bytes);
        Left.ShouldBeEmpty();
    }

    [Fact]
    public void A_reader_beside_that_fails_leaves_nothing()
    {
        using (var batch = Store.Batch())
        {
            Should.Throw<InvalidDataException>(() => batch.Make(to => to.Write(new byte[300_000]), beside: _ => throw new InvalidDataException("not a zip")));
            batch.Keep();
        }

        Directory.EnumerateFiles(scratch.Under("files"), "*", SearchOption.AllDirectories).ShouldBeEmpty();
    }

    [Fact]
    public void Several_threads_add_to_one_batch()
    {
        var store = Store;
        using var batch = store.Batch();

        var made = ParallelEnumerable.Range(0, 200).WithDegreeOfParallelism(8).Select(i => batch.Make(to => to.Write(BitConverter.GetBytes(i)))).ToList();
        batch.Keep();

        made.Select(m => m.Sha256).Distinct().Count().ShouldBe(200);
        made.ShouldAllBe(m => File.Exists(store.PathOf(m.Sha256)));
    }

    public void Dispose() => scratch.Dispose();
}
