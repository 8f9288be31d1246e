using System.Diagnostics;
using SpringLoft.App.Assignments;
using SpringLoft.App.Workspaces;
using SpringLoft.Formats.Print;
using SpringLoft.Store.Assignments;
using SpringLoft.Store.Letters;

namespace SpringLoft.App.Tests.Assignments;

/// <summary>Lists on paper, read back by <c>pdftotext</c> (Debian's poppler-utils).</summary>
public class PaperListsTests : SchoolTest
{
    private readonly LocalDate today;

    public PaperListsTests()
    {
        school.OpenClass();
        today = school.Premises.Clock.Today;
    }

    private PaperLists Lists => new(school.Premises, new(school.Premises));

    private static string Said(Download pdf)
    {
        var path = Path.GetTempFileName();
        using (pdf.Content)
        using (var to = File.Create(path)) pdf.Content.CopyTo(to);
        using var p = Process.Start(new ProcessStartInfo("pdftotext", ["-layout", path, "-"]) { RedirectStandardOutput = true })!;
        var text = p.StandardOutput.ReadToEnd();
        p.WaitForExit();
        File.Delete(path);
        return string.Join(' ', text.Replace("\f", " || ", StringComparison.Ordinal).Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries));
    }

    private AssignmentId Assign(string title, int days, PersonId? to = null) =>
        school.Assigning.Make(school.Lead, school.Class, new(title, "x", 20, today.PlusDays(days), null, null, [school.FolderNamed("Papers")], to is { } one ? [one] : null, Publish: true, PublishAt: null)).Id;

    [Fact]
    public void A_list_tells_what_is_due_until_a_day_what_is_late_and_nothing_of_what_comes_after()
    {
        Assign("Coil pot", 3);
        Assign("Show piece", 40);

        var one = Lists.See(school.Lead, school.Class, 2).Students.Single(s => s.Student == school.Umi.Id);
        (one.Due, one.Late, one.Back).ShouldBe((1, 0, 0));
        one.Languages.ShouldBe(["English"]);
        Lists.See(school.Lead, school.Class, 6).Students.Single(s => s.Student == school.Umi.Id).Due.ShouldBe(2);
        var text = Said(Lists.ForHomes(school.Lead, school.Class, school.Umi.Id, 2, true, false, Paper.A4));
        text.ShouldSatisfyAllConditions(t => t.ShouldContain("To hand in Coil pot · due"), t => t.ShouldNotContain("Show piece"));
    }

    [Fact]
    public void Each_family_reads_it_in_its_language_and_of_its_own_student_alone()
    {
        Assign("Coil pot", 3);
        Assign("Alone", 4, school.Umi.Id);
        school.Premises.Db.Write(c =>
        {
            foreach (var language in (string[])["de", "fr"])
            {
                var k = FamilyStore.Add(c, null, $"Home {language}", null, language, null);
                FamilyStore.SetChildren(c, k, [school.Umi.Id], byHand: true);
            }
        });

        Lists.See(school.Lead, school.Class, 2).Students.Single(s => s.Student == school.Umi.Id).Languages.ShouldBe(["Deutsch", "Français"]);
        var pages = Said(Lists.ForHomes(school.Lead, school.Class, null, 2, true, false, Paper.Letter)).Split("||", StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries);
        pages.Count(p => p.Contains("Alone")).ShouldBe(2);
        pages.ShouldContain(p => p.Contains("Für die Familie von") && p.Contains("Abzugeben") && p.Contains("Alone"));
        pages.ShouldContain(p => p.Contains("Pour la famille de") && p.Contains("À rendre"));
        pages.Count(p => p.Contains("For the family of")).ShouldBe(Lists.See(school.Lead, school.Class, 2).Students.Count - 1);
    }

    [Fact]
    public async Task What_came_back_is_told_with_its_mark_or_without()
    {
        var pot = Assign("Coil pot", 3);
        await school.HandIn(school.Umi, pot);
        var work = school.Read(c => WorkStore.OfStudent(c, school.Class, school.Umi.Id)).Single(w => w.AssignmentId == pot).Id;
        school.Returns.Mark(school.Lead, school.Class, work, 17, school.Returns.See(school.Class, work).Version);
        // A draft mark is nobody's but the teacher's.
        Said(Lists.ForHomes(school.Lead, school.Class, school.Umi.Id, 2, true, false, Paper.A4)).ShouldNotContain("17");
        school.Returns.Return(school.Lead, school.Class, work, false, school.Returns.See(school.Class, work).Version);

        Said(Lists.ForHomes(school.Lead, school.Class, school.Umi.Id, 2, true, false, Paper.A4)).ShouldContain("Came back Coil pot · 17 of 20 points");
        Said(Lists.ForHomes(school.Lead, school.Class, school.Umi.Id, 2, false, false, Paper.A4)).ShouldSatisfyAllConditions(t => t.ShouldContain("Came back Coil pot"), t => t.ShouldNotContain("17"));
    }

    [Fact]
    public void Where_there_is_nothing_to_say_no_paper_is_spent_unless_it_is_wished()
    {
        Refused(() => Lists.ForHomes(school.Lead, school.Class, null, 2, true, false, Paper.A4)).ShouldBe("lists-none");
        Assign("Alone", 4, school.Umi.Id);

        Said(Lists.ForHomes(school.Lead, school.Class, null, 2, true, false, Paper.A4)).Split("For the family of").Length.ShouldBe(2);
        Said(Lists.ForHomes(school.Lead, school.Class, null, 2, true, true, Paper.A4)).ShouldContain("Nothing is due until then.");
        Said(Lists.ForHomes(school.Lead, school.Class, school.Rúna.Id, 2, true, false, Paper.A4)).ShouldContain("Nothing is due until then.");
    }

    [Fact]
    public void On_the_wall_stands_what_all_see_and_no_students_name()
    {
        new Arranging(school.Premises).Make(school.Lead, school.Class, new("Answers", null, FolderRule.StaffOnly, null, 0));
        Assign("Coil pot", 3);
        Assign("Alone", 4, school.Umi.Id);
        Assign("Gone by", -3);

        var text = Said(Lists.ForWall(school.Lead, school.Class, "es", Paper.A4));

        text.ShouldSatisfyAllConditions(t => t.ShouldContain("Fechas"), t => t.ShouldContain("Coil pot"), t => t.ShouldContain("Carpetas"), t => t.ShouldContain("Papers"),
            t => t.ShouldNotContain("Answers"), t => t.ShouldNotContain("Alone"), t => t.ShouldNotContain("Gone by"), t => t.ShouldNotContain("Umi"));
    }

    [Fact]
    public void Weeks_that_there_are_not_and_students_of_other_classes_are_refused()
    {
        Refused(() => Lists.See(school.Lead, school.Class, 0)).ShouldBe("weeks-wrong");
        Refused(() => Lists.ForHomes(school.Lead, school.Class, school.Outsider.Id, 2, true, false, Paper.A4)).ShouldBe("not-found");
        Refused(() => Lists.See(school.OtherTeacher, school.Class, 2)).ShouldBe("not-found");
    }
}
