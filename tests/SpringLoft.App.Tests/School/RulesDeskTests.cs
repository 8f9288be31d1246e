using SpringLoft.App.Audit;
using SpringLoft.App.School;
using SpringLoft.Core.People;
using SpringLoft.Core.School;
using SpringLoft.Store.Files;

namespace SpringLoft.App.Tests.School;

public class RulesDeskTests : SchoolTest
{
    private readonly RulesDesk desk;

    public RulesDeskTests() => desk = new(school.Premises);

    private static byte[] Megabytes(int n) => [.. Enumerable.Range(0, n * 1024 * 1024).Select(i => (byte)(i * 31 + n))];

    private Task<App.Workspaces.TakenIn> Put(Caller by, string folder, string name, byte[] bytes) =>
        school.Items.AddFile(by, school.Class, school.Workspace.See(by, school.Class).Folders.First(f => f.Name == folder).Id, name, new MemoryStream(bytes), CancellationToken.None);

    [Fact]
    public async Task A_class_that_is_full_takes_no_more_and_keeps_what_it_has()
    {
        school.OpenClass();
        school.SetRules(r => r with { ClassMegabytes = 50, FileMegabytes = 60 });
        await Put(school.Lead, "Papers", "a.bin", Megabytes(30));

        (await Refused(() => Put(school.Lead, "Papers", "b.bin", Megabytes(21)))).ShouldBe("quota-full");
        await Put(school.Lead, "Papers", "c.bin", Megabytes(20));
        (await Refused(() => Put(school.Lead, "Papers", "d.bin", [1]))).ShouldBe("quota-full");
        (await Refused(() => school.Items.AddPage(school.Lead, school.Class, school.FolderNamed("Papers"), "A page", "words", CancellationToken.None))).ShouldBe("quota-full");
        desk.Preview(desk.See().Rules with { ClassMegabytes = null }).FullClasses.ShouldBeEmpty();

        school.Workspace.See(school.Lead, school.Class).Items.Select(i => i.Name).ShouldBe(["a.bin", "c.bin"], ignoreOrder: true);
        school.Read(c => UsageStore.OfClass(c, school.Class)).ShouldBe(50 * 1024 * 1024);
        school.Workspace.See(school.Lead, school.Class).Room.ShouldBe(new(50 * 1024 * 1024, 50 * 1024 * 1024));
        school.Workspace.See(school.Umi, school.Class).Room.ShouldBeNull();
        school.Premises.Files.All().Count().ShouldBe(2, "of what was refused no byte is kept");
    }

    [Fact]
    public async Task A_student_has_room_of_their_own_that_staff_do_not_take()
    {
        school.OpenClass();
        school.SetRules(r => r with { PersonMegabytes = 10 });
        var assignment = school.Assign();
        await school.Work.AddFile(school.Umi, school.Class, assignment, "pot.bin", new MemoryStream(Megabytes(6)), CancellationToken.None);

        (await Refused(() => Put(school.Umi, "Shared table", "more.bin", Megabytes(5)))).ShouldBe("quota-full");
        (await Refused(() => school.Work.AddFile(school.Umi, school.Class, assignment, "more.bin", new MemoryStream(Megabytes(5)), CancellationToken.None))).ShouldBe("quota-full");
        await Put(school.Lead, "Papers", "handout.bin", Megabytes(12));
        await Put(school.Rúna, "Shared table", "hers.bin", Megabytes(9));
        desk.See().LargestPeople.Select(p => (p.Id, p.Bytes / 1024 / 1024)).ShouldBe([(school.Lead.Id.Value, 12L), (school.Rúna.Id.Value, 9), (school.Umi.Id.Value, 6)]);
    }

    [Fact]
    public void Rules_say_before_what_they_would_do()
    {
        var now = desk.See().Rules;
        desk.Preview(now).ShouldSatisfyAllConditions(p => p.AskedToSetUp.ShouldBe(0), p => p.Lines.ShouldBe(0));
        desk.Preview(now with { SecondStep = SecondStepFor.Coordinators }).AskedToSetUp.ShouldBe(1);
        desk.Preview(now with { SecondStep = SecondStepFor.Staff }).AskedToSetUp.ShouldBe(4);

        school.Clock.AdvanceDays(800);
        desk.Preview(now with { AuditYears = 2 }).Lines.ShouldBe(school.Read(c => Store.Audit.AuditStore.CountBefore(c, school.Clock.GetCurrentInstant())));
        Refused(() => desk.Preview(now with { LetterDays = 1 })).ShouldBe("rule-range");
    }

    [Fact]
    public void A_rule_that_is_another_one_now_is_in_the_audit_trail_and_two_do_not_write_over_each_other()
    {
        var (rules, version) = (desk.See().Rules, desk.See().Version);
        desk.Set(school.Coordinator, rules with { AuditYears = 7, LetterDays = 60 }, version);

        desk.See().Rules.ShouldBe(rules with { AuditYears = 7, LetterDays = 60 });
        Refused(() => desk.Set(school.Coordinator, rules, version)).ShouldBe("changed-meanwhile");
        new AuditTrail(school.Premises).See(null, null, "laid down rules", null).Single().Detail.ShouldBe("years of the audit trail: no limit to 7; days of letters: 30 to 60");
    }

    [Fact]
    public void Every_rule_that_is_another_one_is_named_in_the_audit_trail()
    {
        var (rules, version) = school.Read(Store.School.RulesStore.Get);
        var others = new SchoolRules(SecondStepFor.Staff, rules.FileMegabytes - 1, 500, 5000, 100, 7, rules.LetterDays + 1, rules.LeaverDays + 1, 9, rules.IdleHours + 1, rules.MostDays + 1, !rules.KeepsActivity);
        desk.Set(school.Coordinator, others, version);

        new AuditTrail(school.Premises).See(null, null, "laid down rules", null).Single().Detail.Split("; ").Length.ShouldBe(typeof(SchoolRules).GetProperties().Length);
    }

    [Fact]
    public void Activity_goes_after_400_days_and_all_of_it_where_the_school_keeps_none()
    {
        school.OpenClass();
        var keeping = new Keeping(school.Premises, school.Copies, new(school.Premises, new NoPost()), new(school.Premises));
        var today = school.Premises.Clock.Today;
        int Kept() => school.Read(c => Store.Workspaces.ActivityStore.OfClass(c, school.Class, today.PlusDays(-1000), today)[school.Umi.Id].Count());
        school.Premises.Db.Write(c => Store.Workspaces.ActivityStore.NoteAll(c, school.Class, new[] { 0, 400, 401 }.Select(n => (school.Umi.Id, today.PlusDays(-n), Did.OpenedClass))));

        keeping.Go();
        Kept().ShouldBe(2);

        school.SetRules(r => r with { KeepsActivity = false });
        keeping.Go();
        Kept().ShouldBe(0);
    }

    [Fact]
    public void What_the_rules_keep_no_longer_goes_once_a_day_and_is_counted()
    {
        school.SetRules(r => r with { AuditYears = 1 });
        var before = new AuditTrail(school.Premises).Check().Lines;
        school.Premises.Db.Write(c => { Store.Letters.LetterStore.Sent(c, Store.Letters.LetterStore.Add(c, "a@tiny.invalid", "A", "S", "T", school.Clock.GetCurrentInstant()), school.Clock.GetCurrentInstant()); });
        var keeping = new Keeping(school.Premises, school.Copies, new(school.Premises, new NoPost()), new(school.Premises));
        keeping.Go();
        desk.See().LetGo.ShouldBeEmpty("nothing is old yet");

        school.Clock.AdvanceDays(400);
        keeping.Go();

        desk.See().LetGo.Select(l => (l.Kind, l.Many)).ShouldBe([(LetGoKind.AuditLines, before), (LetGoKind.Letters, 1L)], ignoreOrder: true);
        new AuditTrail(school.Premises).Check().ShouldSatisfyAllConditions(a => a.Whole.ShouldBeTrue(), a => a.LetGo.ShouldBe(before));
    }

    private sealed class NoPost : App.Letters.IPost
    {
        public bool KeepsThem => false;

        public void LetGo(Instant moment) { }

        public void Send(long id, string to, string name, string subject, string text, Instant at) { }
    }
}
