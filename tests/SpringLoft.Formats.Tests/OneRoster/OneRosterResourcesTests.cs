using System.IO.Compression;
using System.Text;
using SpringLoft.Core;
using SpringLoft.Formats.OneRoster;

namespace SpringLoft.Formats.Tests.OneRoster;

/// <summary>resources.csv of OneRoster 1.2, whose names of files and columns are from memory of that document.</summary>
public class OneRosterResourcesTests
{
    private static Stream Csv(string text) => new MemoryStream(Encoding.UTF8.GetBytes(text));

    private static MemoryStream Bundle(string name, string text)
    {
        var to = new MemoryStream();
        using (var zip = new ZipArchive(to, ZipArchiveMode.Create, leaveOpen: true))
        {
            using var entry = zip.CreateEntry(name).Open();
            entry.Write(Encoding.UTF8.GetBytes(text));
        }
        to.Position = 0;
        return to;
    }

    [Theory]
    [InlineData("sourcedId,title,vendorResourceId\nr1,Maps,m\n")]
    [InlineData("\uFEFFVENDORRESOURCEID,SOURCEDID,extra,TITLE\r\nm,r1,?,Maps\r\n")]
    [InlineData("sourcedId,status,title,vendorResourceId\nr1,active,\"Maps\",m")]
    public void Columns_are_found_by_name_whatever_their_case_order_and_company(string text) =>
        OneRosterResources.Read(Csv(text)).Resources.Single().ShouldSatisfyAllConditions(r => r.SourcedId.ShouldBe("r1"), r => r.Title.ShouldBe("Maps"), r => r.VendorResourceId.ShouldBe("m"), r => r.Deleted.ShouldBeFalse());

    [Fact]
    public void A_bundle_is_read_by_the_name_of_its_file_wherever_it_stands() =>
        OneRosterResources.Read(Bundle("export/RESOURCES.csv", "sourcedId,title,vendorResourceId\nr1,Maps,m\n")).Resources.ShouldHaveSingleItem();

    [Fact]
    public void A_bundle_without_the_file_is_refused() =>
        Should.Throw<RefusedException>(() => OneRosterResources.Read(Bundle("users.csv", "sourcedId\n"))).Refusal.Code.ShouldBe("oneroster-no-resources");

    [Theory]
    [InlineData(",Maps,m", "sourcedId")]
    [InlineData("r1,,m", "title")]
    [InlineData("r1,Maps,", "vendorResourceId")]
    public void A_row_that_lacks_something_is_left_out_with_its_line_and_column_and_the_rest_comes(string row, string column)
    {
        var (resources, findings) = OneRosterResources.Read(Csv($"sourcedId,title,vendorResourceId\nr0,Tides,t\n{row}\n"));

        resources.Select(r => r.SourcedId).ShouldBe(["r0"]);
        findings.Select(f => (f.File, f.Line, f.Column)).ShouldBe([("resources.csv", 3, column)]);
    }

    [Fact]
    public void What_is_to_be_deleted_says_so() =>
        OneRosterResources.Read(Csv("sourcedId,status,title,vendorResourceId\nr1,toBeDeleted,Maps,m")).Resources.Single().Deleted.ShouldBeTrue();

    [Fact]
    public void What_is_written_is_read_again_with_quotes_commas_and_any_script()
    {
        OneRosterResource[] written = [new("r1", "Maps, \"old\" and new", "https://maps.invalid/?a=1,2", "student,teacher", "v1", false, 2), new("r2", "潮汐 – Gezeiten", "isbn:1", "teacher", null, false, 3)];
        using var to = new MemoryStream();

        OneRosterResources.Write(to, written, [new("u1", "class-17", "r1")], Instant.FromUtc(2027, 6, 7, 8, 0));
        to.Position = 0;

        OneRosterResources.Read(to).Resources.ShouldBe(written);
    }
}
