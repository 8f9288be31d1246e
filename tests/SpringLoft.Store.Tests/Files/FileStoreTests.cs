using System.Security.Cryptography;
using System.Text;
using SpringLoft.Store.Files;

namespace SpringLoft.Store.Tests.Files;

public sealed class FileStoreTests : IDisposable
{
    private readonly Scratch scratch = new();

    private FileStore Open() => new(scratch.Under("files"));

    private string[] AllFiles() => Directory.GetFiles(scratch.Under("files"), "*", SearchOption.AllDirectories);

    [Fact]
    public async Task A_file_is_named_by_its_SHA_256_as_coreutils_compute_it()
    {
        var store = Open();
        var kept = await store.TakeIn(new MemoryStream(Encoding.UTF8.GetBytes("a year of work")), 100, default);

        Shell.Run(scratch.Path, "sha256sum", store.PathOf(kept.Sha256)).Said.ShouldStartWith(kept.Sha256);
        Shell.Run(scratch.Path, "sha512sum", store.PathOf(kept.Sha256)).Said.ShouldStartWith(kept.Sha512.ShouldNotBeNull());
        kept.Size.ShouldBe(14);
    }

    [Fact]
    public async Task The_same_bytes_taken_in_many_times_at_once_are_kept_once()
    {
        var store = Open();
        var bytes = RandomNumberGenerator.GetBytes(1_000_000);

        await Task.WhenAll(Enumerable.Range(0, 8).Select(_ => store.TakeIn(new MemoryStream(bytes), 2_000_000, default)));

        AllFiles().ShouldHaveSingleItem();
    }

    [Fact]
    public async Task A_file_is_taken_off_the_disk_but_not_within_the_hour_in_which_it_was_brought_or_brought_again()
    {
        var store = Open();
        async Task<StoredFile> Bring() => await store.TakeIn(new MemoryStream(Encoding.UTF8.GetBytes("a year of work")), 100, default);
        var kept = await Bring();
        void Age() => File.SetLastWriteTimeUtc(store.PathOf(kept.Sha256), DateTime.UtcNow.AddHours(-2));
        store.All().ShouldBe([kept.Sha256]);

        store.Remove(kept.Sha256).ShouldBeNull();
        Age();
        await Bring();
        store.Remove(kept.Sha256).ShouldBeNull("it was brought again");
        Age();
        store.Remove(kept.Sha256).ShouldBe(14);

        AllFiles().ShouldBeEmpty();
        store.All().ShouldBeEmpty();
        store.Remove(kept.Sha256).ShouldBe(0, "it was gone already");
    }

    [Fact]
    public async Task A_file_that_is_too_long_leaves_nothing()
    {
        var store = Open();

        (await Should.ThrowAsync<FileTooLongException>(() => store.TakeIn(new MemoryStream(new byte[101]), 100, default))).Limit.ShouldBe(100);

        AllFiles().ShouldBeEmpty();
    }

    [Fact]
    public async Task A_line_that_breaks_half_way_leaves_nothing()
    {
        var store = Open();

        await Should.ThrowAsync<IOException>(() => store.TakeIn(new Broken(), long.MaxValue, default));

        AllFiles().ShouldBeEmpty();
    }

    [Fact]
    public void What_a_killed_process_left_half_written_is_removed_at_the_next_start()
    {
        Open();
        File.WriteAllText(scratch.Under("files", "incoming", "left"), "half");

        Open();

        AllFiles().ShouldBeEmpty();
    }

    [Theory]
    [InlineData("../../etc/passwd")]
    [InlineData("")]
    [InlineData("ABCDEF")]
    public void No_path_is_smuggled_in_as_a_name(string name) => Should.Throw<ArgumentException>(() => Open().Open(name));

    [Fact]
    public async Task A_half_file_of_the_same_name_is_put_right()
    {
        var store = Open();
        var kept = await store.TakeIn(new MemoryStream(Encoding.UTF8.GetBytes("whole")), 100, default);
        File.WriteAllText(store.PathOf(kept.Sha256), "wh");

        await store.TakeIn(new MemoryStream(Encoding.UTF8.GetBytes("whole")), 100, default);

        File.ReadAllText(store.PathOf(kept.Sha256)).ShouldBe("whole");
    }

    [Fact]
    public void A_made_file_is_kept_like_one_taken_in()
    {
        var store = Open();

        var kept = store.Make(to => to.Write("packed"u8));

        using var back = new StreamReader(store.Open(kept.Sha256));
        back.ReadToEnd().ShouldBe("packed");
    }

    [Fact]
    public void A_maker_that_fails_leaves_nothing()
    {
        Should.Throw<InvalidOperationException>(() => Open().Make(to => { to.Write(new byte[1000]); throw new InvalidOperationException(); }));

        AllFiles().ShouldBeEmpty();
    }

    public void Dispose() => scratch.Dispose();

    private sealed class Broken : MemoryStream
    {
        private int reads;

        public override ValueTask<int> ReadAsync(Memory<byte> buffer, CancellationToken cancellationToken = default) =>
            ++reads > 3 ? throw new IOException("The line is cut.") : new(buffer.Length);
    }
}
