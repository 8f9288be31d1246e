using System.Text;
using SpringLoft.Formats.Zips;

namespace SpringLoft.Formats.Tests.Zips;

public class ZipWriterTests
{
    private static byte[] Zip(params (string Path, string Text)[] files)
    {
        using var to = new MemoryStream();
        ZipWriter.Write(to, files.Select(f => new ZipFile(f.Path, Instant.FromUtc(2027, 6, 22, 9, 30), () => new MemoryStream(Encoding.UTF8.GetBytes(f.Text)))), null, CancellationToken.None);
        return to.ToArray();
    }

    [Fact]
    public void Info_ZIP_unpacks_names_in_any_script_and_every_byte()
    {
        using var scratch = new Scratch();
        File.WriteAllBytes(scratch.Under("z.zip"), Zip(("Clay/Øykü 日記.txt", "text"), ("Clay/b.txt", "")));

        Shell.Run(scratch.Path, "unzip", "-q", "z.zip").Code.ShouldBe(0);

        File.ReadAllText(scratch.Under("Clay", "Øykü 日記.txt")).ShouldBe("text");
        File.ReadAllText(scratch.Under("Clay", "b.txt")).ShouldBe("");
    }

    [Theory]
    [InlineData("/etc/passwd")]
    [InlineData("../up")]
    [InlineData("a/../b")]
    [InlineData("a\\b")]
    [InlineData("a//b")]
    [InlineData("")]
    public void A_path_that_leads_out_is_never_written(string path) => Should.Throw<ArgumentException>(() => Zip((path, "x")));

    [Fact]
    public void A_time_before_zip_began_is_moved_to_its_beginning() =>
        Should.NotThrow(() => ZipWriter.Write(new MemoryStream(), [new("a", Instant.FromUtc(1970, 1, 1, 0, 0), () => new MemoryStream())], null, CancellationToken.None));

    [Fact]
    public void A_stop_between_two_files_is_heard()
    {
        using var stop = new CancellationTokenSource();
        var files = Enumerable.Range(0, 10).Select(i => new ZipFile($"{i}", SystemClock.Instance.GetCurrentInstant(), () => new MemoryStream()));

        Should.Throw<OperationCanceledException>(() => ZipWriter.Write(new MemoryStream(), files, n => { if (n == 3) stop.Cancel(); }, stop.Token));
    }
}
