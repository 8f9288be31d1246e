using System.IO.Compression;
using System.Text;
using SpringLoft.App.Closing;
using SpringLoft.Formats.Signatures;
using SpringLoft.Server.Hosting;
using SpringLoft.Store.Runs;
using SpringLoft.Tests.Shared;

namespace SpringLoft.Server.Tests.Hosting;

/// <summary>Packages and signed reports checked by whoever has the file and no school.</summary>
public sealed class VerifyPackageTests : IDisposable
{
    private readonly TinySchool school = new();

    public VerifyPackageTests()
    {
        school.OpenClass();
        school.Put(school.Lead, "Papers", "glaze 100%.txt", "cobalt").Wait();
        school.Close();
    }

    public void Dispose() => school.Dispose();

    private string Kept(string name, Stream content)
    {
        var path = Path.Combine(school.Folder, name);
        using (content)
        using (var to = File.Create(path)) content.CopyTo(to);
        return path;
    }

    private string Package => Kept("package.zip", school.Loft.OpenPackage(school.Class).Content);

    private string Report => Kept("report.zip", new ClosingRuns(school.Premises, new(), school.Queue.Writer).SignedReport(school.Coordinator, school.Premises.Db.Read(c => RunStore.Newest(c, school.Class))!.Value, CancellationToken.None).Content);

    private static (int Code, string Said) Verify(string path, string? key = null)
    {
        using var says = new StringWriter();
        return (VerifyPackage.Run(path, key, says), says.ToString());
    }

    private string Key(byte[] key)
    {
        var path = Path.Combine(school.Folder, "key.pem");
        File.WriteAllText(path, SchoolSignature.Pem(key));
        return path;
    }

    private static void Change(string zip, string name, Func<byte[], byte[]?> change)
    {
        using var archive = ZipFile.Open(zip, ZipArchiveMode.Update);
        var entry = archive.Entries.Single(e => e.FullName.EndsWith(name, StringComparison.Ordinal));
        using var bytes = new MemoryStream();
        using (var from = entry.Open()) from.CopyTo(bytes);
        var (full, made) = (entry.FullName, change(bytes.ToArray()));
        entry.Delete();
        if (made is null) return;
        using var to = archive.CreateEntry(full).Open();
        to.Write(made);
    }

    [Fact]
    public void A_package_and_a_report_as_they_were_made_are_whole_and_signed()
    {
        Verify(Package).ShouldSatisfyAllConditions(v => v.Code.ShouldBe(0, v.Said), v => v.Said.ShouldContain("all whole"), v => v.Said.ShouldContain("Signed with the key"));
        Verify(Report).ShouldSatisfyAllConditions(v => v.Code.ShouldBe(0, v.Said), v => v.Said.ShouldContain("Signed with the key"));
        var key = school.Premises.Db.Read(Store.Closing.SchoolKeyStore.All)[0].Public;
        Verify(Package, Key(key)).Code.ShouldBe(0);
        Verify(Report, Key(key)).Code.ShouldBe(0);
    }

    [Fact]
    public void One_changed_byte_is_found_and_named()
    {
        var package = Package;
        Change(package, "glaze 100%.txt", _ => Encoding.UTF8.GetBytes("copper"));
        Verify(package).ShouldSatisfyAllConditions(v => v.Code.ShouldBe(1), v => v.Said.ShouldContain("changed since it was written: data/folders/Papers/glaze 100%.txt"));
        var report = Report;
        Change(report, "report.csv", b => [.. b, (byte)'x']);
        Verify(report).ShouldSatisfyAllConditions(v => v.Code.ShouldBe(1), v => v.Said.ShouldContain("NOT signed"));
    }

    // Whoever makes up a package can put a key of their own into it: it is told apart by the school's.
    [Fact]
    public void Of_another_key_it_is_not_signed()
    {
        var other = Key(SchoolSignature.PublicOf(SchoolSignature.NewSecret()));
        Verify(Package, other).ShouldSatisfyAllConditions(v => v.Code.ShouldBe(1), v => v.Said.ShouldContain("NOT signed"));
        Verify(Report, other).Code.ShouldBe(1);
    }

    [Fact]
    public void A_signature_that_was_taken_out_is_said_so()
    {
        var report = Report;
        Change(report, ".sig", _ => null);
        Verify(report).ShouldSatisfyAllConditions(v => v.Code.ShouldBe(1), v => v.Said.ShouldContain("not signed"));
    }

    [Fact]
    public void What_is_no_package_and_what_is_not_there_are_told()
    {
        var none = Path.Combine(school.Folder, "none.zip");
        File.WriteAllText(none, "not a zip");
        Verify(none).ShouldSatisfyAllConditions(v => v.Code.ShouldBe(1), v => v.Said.ShouldContain("can't be read"));
        Verify(none + "x").Code.ShouldBe(2);
        Verify(Package, none).Code.ShouldBe(2);
        var cut = Path.Combine(school.Folder, "cut.zip");
        File.WriteAllBytes(cut, File.ReadAllBytes(Package)[..500]);
        Verify(cut).Code.ShouldBe(1);
    }
}
