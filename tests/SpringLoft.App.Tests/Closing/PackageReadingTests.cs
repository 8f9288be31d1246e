using System.IO.Compression;
using System.Text;
using Dapper;
using SpringLoft.App.Closing;
using SpringLoft.Core.Closing;
using SpringLoft.Formats.Signatures;
using SpringLoft.Store.Runs;
using SpringLoft.Store.Sealing;

namespace SpringLoft.App.Tests.Closing;

public class PackageReadingTests : SchoolTest
{
    private PackageReading Reading { get; }

    public PackageReadingTests()
    {
        Reading = new(school.Premises, new FileHealth(school.Premises));
        school.OpenClass();
        school.Put(school.Lead, "Papers", "glaze.txt", "cobalt").Wait();
    }

    private LoftClass InLoft(Caller who) => school.Loft.See(who)[0].Classes[0];

    private string PackagePath => school.Premises.Files.PathOf(InLoft(school.Coordinator).Sha256!);

    [Fact]
    public void A_package_that_is_whole_is_said_to_be_and_when_it_was_read()
    {
        school.Close();
        InLoft(school.Lead).LastRead.ShouldBe(school.Premises.Clock.Today);
        school.Clock.AdvanceDays(40);
        InLoft(school.Lead).LastRead.ShouldBe(school.Premises.Clock.Today.PlusDays(-40));

        Reading.Read(school.Lead, school.Class, CancellationToken.None).ShouldSatisfyAllConditions(r => r.Fault.ShouldBeNull(), r => r.Files.ShouldBeGreaterThan(1));

        InLoft(school.Lead).ShouldSatisfyAllConditions(k => k.LastRead.ShouldBe(school.Premises.Clock.Today), k => k.Fault.ShouldBeNull());
    }

    [Fact]
    public void One_flipped_bit_is_found_by_the_round_and_told()
    {
        school.Close();
        var bytes = File.ReadAllBytes(PackagePath);
        bytes[bytes.AsSpan().IndexOf("cobalt"u8)] ^= 1;
        File.SetAttributes(PackagePath, FileAttributes.Normal);
        File.WriteAllBytes(PackagePath, bytes);
        school.Clock.AdvanceDays(1);

        Reading.Go(CancellationToken.None).ShouldBe(school.Class);
        Reading.Go(CancellationToken.None).ShouldBeNull("each is read once a day at most");

        InLoft(school.Coordinator).ShouldSatisfyAllConditions(k => k.Fault.ShouldBe(PackageFault.Damaged), k => k.FaultDetail.ShouldNotBeNull());
        school.Premises.Db.Read(c => c.ExecuteScalar<long>("SELECT count(*) FROM audit WHERE act = @act", new { act = FileHealth.Act })).ShouldBe(1);
    }

    [Fact]
    public void A_package_that_is_not_there_any_more_is_missing_and_once_it_is_back_it_is_whole()
    {
        school.Close();
        File.Move(PackagePath, PackagePath + ".aside");
        Reading.Read(school.Coordinator, school.Class, CancellationToken.None).Fault.ShouldBe(PackageFault.Missing);
        File.Move(PackagePath + ".aside", PackagePath);
        Reading.Read(school.Coordinator, school.Class, CancellationToken.None).Fault.ShouldBeNull();
        InLoft(school.Coordinator).Fault.ShouldBeNull();
    }

    [Fact]
    public void The_round_reads_each_once_a_month_and_no_more()
    {
        school.Close();
        var read = 0;
        for (var day = 0; day < 60; day++)
        {
            school.Clock.AdvanceDays(1);
            while (Reading.Go(CancellationToken.None) is not null) read++;
        }
        // One package alone is read every day: a round of a month is the least.
        read.ShouldBe(60);
    }

    [Fact]
    public void Who_may_not_close_the_class_does_not_read_its_package()
    {
        school.Close();
        Refused(() => Reading.Read(school.OtherTeacher, school.Class, CancellationToken.None)).ShouldBe("not-found");
        Refused(() => Reading.Read(school.CoTeacher, school.Class, CancellationToken.None)).ShouldBe("not-allowed");
        Refused(() => Reading.Keys(school.Lead)).ShouldBe("not-allowed");
    }

    // Of the newest run of the class.
    private static (byte[] Report, byte[] Signature, byte[] Key) Signed(TinySchool of)
    {
        var run = of.Premises.Db.Read(c => RunStore.Newest(c, of.Class))!.Value;
        using var zip = new ZipArchive(new ClosingRuns(of.Premises, new(), of.Queue.Writer).SignedReport(of.Coordinator, run, CancellationToken.None).Content);
        byte[] Of(string name)
        {
            using var to = new MemoryStream();
            zip.GetEntry(name)!.Open().CopyTo(to);
            return to.ToArray();
        }
        return (Of("report.csv"), Of("report.csv.sig"), SchoolSignature.ReadPem(Of(SchoolSignature.KeyFile))!);
    }

    [Fact]
    public void The_report_is_the_one_that_was_made_whatever_becomes_of_the_class_since()
    {
        school.Close();
        var before = Signed(school);
        SchoolSignature.IsBy(before.Key, before.Report, before.Signature).ShouldBeTrue();
        Encoding.UTF8.GetString(before.Report).ShouldContain("Clay");
        Encoding.UTF8.GetString(before.Report).ShouldContain("verified");

        school.Premises.Db.Write(c => c.Execute("UPDATE class SET name = 'Other', name_key = 'other'; UPDATE person SET family = 'Else'"));

        Signed(school).Report.ShouldBe(before.Report);
    }

    // A key ring that can be lost: another takes its place, which opens nothing of before.
    private sealed class Ring : IDataSeal
    {
        internal int Number { get; set; } = 1;

        public string Seal(string clear) => $"{Number}{clear}";

        public string? Open(string kept) => kept[0] - '0' == Number ? kept[1..] : null;
    }

    [Fact]
    public void A_key_that_can_not_be_opened_is_followed_by_another_and_what_it_signed_still_holds()
    {
        var ring = new Ring();
        using var other = new TinySchool(_ => ring);
        other.OpenClass();
        other.Close();
        var before = Signed(other);
        ring.Number = 2;
        other.Loft.Restore(other.Lead, other.Class, other.Workspace.Head(other.Lead, other.Class).Version);
        other.Close();

        var now = Signed(other);
        now.Key.ShouldNotBe(before.Key);
        SchoolSignature.IsBy(now.Key, now.Report, now.Signature).ShouldBeTrue();
        SchoolSignature.IsBy(before.Key, before.Report, before.Signature).ShouldBeTrue();
        new PackageReading(other.Premises, new FileHealth(other.Premises)).Keys(other.Coordinator).Select(k => k.Signs).ShouldBe([true, false]);
    }

    [Fact]
    public void A_secret_that_is_no_key_any_more_stops_nothing()
    {
        school.Close();
        var before = Signed(school);
        school.Premises.Db.Write(c => c.Execute("UPDATE school_key SET secret = 'no key'"));
        school.Loft.Restore(school.Lead, school.Class, school.Workspace.Head(school.Lead, school.Class).Version);
        school.Close();
        Signed(school).Key.ShouldNotBe(before.Key);
    }

    [Fact]
    public void A_run_that_ended_before_reports_were_signed_says_so()
    {
        school.Close();
        school.Premises.Db.Write(c => c.Execute("DELETE FROM run_report"));
        Refused(() => Signed(school)).ShouldBe("not-signed");
    }
}
