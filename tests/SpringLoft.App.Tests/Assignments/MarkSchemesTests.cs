using SpringLoft.App.Assignments;
using SpringLoft.App.Closing;
using SpringLoft.App.School;
using SpringLoft.Core.Assignments;
using SpringLoft.Store.Assignments;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Tests.Assignments;

/// <summary>Work that is marked on a scale or by criteria, from giving it to the package.</summary>
public class MarkSchemesTests : SchoolTest
{
    private static readonly MarkScheme Letters = new("Letters", [new("A", 4), new("B", 3), new("C", 2)], []);
    private static readonly MarkScheme Rim = new(null, [], [new("Rim", [new("wild", 0), new("fine", 4)]), new("Glaze", [new("runs", 1), new("sits", 3)])]);

    public MarkSchemesTests() => school.OpenClass();

    private NewAssignment New(MarkScheme? scheme, string title = "Bowl", decimal? points = null) => new(title, "", points, null, null, null, [school.FolderNamed("Papers")], null, true, null, Scheme: scheme);

    private AssignmentId Give(MarkScheme scheme) => school.Assigning.Make(school.Lead, school.Class, New(scheme)).Id;

    private WorkRow Row(AssignmentId a) => school.Read(c => WorkStore.Of(c, a, school.Umi.Id))!;

    private WorkView Judge(AssignmentId a, decimal? score, IReadOnlyList<int>? chosen, bool back) =>
        new MarkingDesk(school.Premises).Judge(school.Lead, school.Class, Row(a).Id, new(score, null, back, false, Row(a).Version, chosen));

    private App.Workspaces.AssignmentView Seen(Caller who, AssignmentId a) => school.Workspace.See(who, school.Class).Assignments.Single(x => x.Id == a);

    [Fact]
    public async Task On_a_scale_the_mark_is_a_level_and_full_marks_are_its_highest()
    {
        var a = Give(Letters);
        Seen(school.Umi, a).ShouldSatisfyAllConditions(x => x.Points.ShouldBe(4), x => x.Scheme!.Levels.Select(l => l.Name).ShouldBe(["A", "B", "C"]));
        await school.HandIn(school.Umi, a);
        Refused(() => Judge(a, 2.5m, null, false)).ShouldBe("mark-off-scale");
        Judge(a, 3, null, true);
        Seen(school.Umi, a).Own!.Score.ShouldBe(3);
        new ScoreTables(school.Premises).OfClass(school.Lead, school.Class).Columns.Single().Levels.Select(l => l.Name).ShouldBe(["A", "B", "C"]);
    }

    [Fact]
    public async Task By_criteria_the_student_sees_the_levels_once_it_is_returned()
    {
        var a = Give(Rim);
        await school.HandIn(school.Umi, a);
        Judge(a, null, [1, 0], false).ShouldSatisfyAllConditions(w => w.Score.ShouldBe(5), w => w.Chosen.ShouldBe([1, 0]));
        Seen(school.Umi, a).Own!.ShouldSatisfyAllConditions(w => w.Score.ShouldBeNull(), w => w.Chosen.ShouldBeNull("a draft is no mark"));
        school.Returns.ReturnAll(school.Lead, school.Class, null, false, null);
        Seen(school.Umi, a).Own!.ShouldSatisfyAllConditions(w => w.Score.ShouldBe(5), w => w.Chosen.ShouldBe([1, 0]));
        // Handed in again, what was returned counts with its levels until another is returned.
        await school.HandIn(school.Umi, a, "again");
        Judge(a, null, [0, 1], false).CountsChosen.ShouldBe([1, 0]);
        Seen(school.Umi, a).Own!.Chosen.ShouldBe([1, 0]);
        school.Returns.Return(school.Lead, school.Class, Row(a).Id, false, Row(a).Version);
        Seen(school.Umi, a).Own!.ShouldSatisfyAllConditions(w => w.Score.ShouldBe(3), w => w.Chosen.ShouldBe([0, 1]));
    }

    [Fact]
    public async Task What_is_marked_keeps_what_it_was_counted_by()
    {
        var a = Give(Rim);
        var words = Rim with { Criteria = [Rim.Criteria[0] with { Name = "The rim" }, Rim.Criteria[1]] };
        void Change(MarkScheme? to, decimal? points = null) => school.Assigning.Change(school.Lead, school.Class, a, New(to, points: points), Seen(school.Lead, a).Version);
        Change(Letters);
        Change(Rim);
        await school.HandIn(school.Umi, a);
        Judge(a, null, [1, 0], false);
        Refused(() => Change(Letters)).ShouldBe("scheme-in-use");
        Refused(() => Change(null, 20)).ShouldBe("scheme-in-use");
        Refused(() => Change(Rim with { Criteria = [Rim.Criteria[0]] })).ShouldBe("scheme-in-use");
        Change(words);
        Seen(school.Lead, a).Scheme!.Criteria[0].Name.ShouldBe("The rim");
        Refused(() => school.Assigning.Make(school.Lead, school.Class, New(Letters with { Levels = [] }, "Other"))).ShouldBe("scheme-wrong");
    }

    [Fact]
    public async Task It_goes_to_next_year_into_the_package_and_comes_out_of_it_as_it_was()
    {
        var (a, b) = (Give(Rim), school.Assigning.Make(school.Lead, school.Class, New(Letters, "Plate")).Id);
        foreach (var x in new[] { a, b }) await school.HandIn(school.Umi, x);
        Judge(a, null, [1, 1], true);
        Judge(b, 2, null, true);
        var next = school.Rolling.Make(school.Lead, school.Class, new(null, null, null));
        school.Read(c => AssignmentStore.OfClass(c, next)).Select(x => (x.Title, x.Points, x.Scheme!.ByCriteria)).ShouldBe([("Bowl", 7, true), ("Plate", 4, false)], ignoreOrder: true);

        school.Close();
        using var package = school.Loft.OpenPackage(school.Class).Content;
        using var zip = new MemoryStream();
        await package.CopyToAsync(zip);
        zip.Position = 0;
        var back = (await new PackageIntake(school.Premises).Read(school.Coordinator, school.Years[0].Id, zip, true, CancellationToken.None)).Made!.Value;
        var read = school.Read(c => AssignmentStore.OfClass(c, back)).ToDictionary(x => x.Title);
        read["Bowl"].Scheme!.Criteria[1].Levels.Select(l => l.Name).ShouldBe(["runs", "sits"]);
        school.Read(c => WorkStore.OfClass(c, back)).Select(w => (w.ReturnedScore, w.ReturnedChosen)).ShouldBe([(7, "1 1"), (2, null)], ignoreOrder: true);
    }

    [Fact]
    public void A_school_lays_down_its_scales_and_what_was_given_with_one_stays()
    {
        var scales = new SchoolScales(school.Premises);
        scales.Add(school.Coordinator, new("Letters", Letters.Levels));
        Refused(() => scales.Add(school.Coordinator, new("LETTERS", Letters.Levels))).ShouldBe("name-taken");
        Refused(() => scales.Add(school.Coordinator, new("Few", [new("A", 1)]))).ShouldBe("scheme-wrong");
        Refused(() => scales.Add(school.Coordinator, new(" ", Letters.Levels))).ShouldBe("missing");
        var s = scales.See().Single();
        var a = Give(new MarkScheme(s.Name, s.Levels, []));
        scales.Change(school.Coordinator, s.Id, new("Letters", [new("A", 10), new("B", 5)]), s.Version);
        Refused(() => scales.Change(school.Coordinator, s.Id, new("Letters", Letters.Levels), s.Version)).ShouldBe("changed-meanwhile");
        Seen(school.Lead, a).Scheme!.Levels.Select(l => l.Points).ShouldBe([4, 3, 2]);
        scales.Remove(school.Coordinator, s.Id);
        Refused(() => scales.Remove(school.Coordinator, s.Id)).ShouldBe("not-found");
        Seen(school.Lead, a).Scheme.ShouldNotBeNull();
    }
}
