using CsCheck;
using SpringLoft.Core.Naming;
using SpringLoft.Core.Plans;
using SpringLoft.Core.Workspaces;
using SpringLoft.Core.Years;

namespace SpringLoft.Core.Tests.Plans;

public class PlanUnfoldingTests
{
    private static readonly PlanStudent Umi = new(new(1), "Hallgrímsson, Umi", "1001");
    private static readonly PlanStudent Rúna = new(new(2), "Farquhar, Rúna", "1002");
    private static readonly PlanSetting Setting = new(SchoolWeeks.Of(Calendars.Short), [Rúna, Umi]);

    private static PlanLine Line(string key, string name, Stands stands = Stands.Once, FolderRule rule = FolderRule.ClassViews, IReadOnlyList<string>? entries = null, params PlanLine[] within) =>
        new(key, name, stands, rule, entries ?? [], within);

    private static IReadOnlyList<UnfoldedFolder> Unfold(params PlanLine[] lines) => PlanUnfolding.Unfold(new("p", "", lines), Setting);

    [Fact]
    public void A_line_that_stands_once_gives_one_folder() => Unfold(Line("a", "Start here")).ShouldHaveSingleItem().Name.ShouldBe("Start here");

    [Fact]
    public void A_line_for_each_school_week_gives_as_many_as_there_are_with_padded_numbers() =>
        Unfold(Line("w", "Week {week}", Stands.EachSchoolWeek)).Select(f => f.Name).ShouldBe(["Week 01", "Week 02", "Week 03", "Week 04", "Week 05"]);

    [Fact]
    public void Days_inside_a_week_are_those_of_that_week()
    {
        var folders = Unfold(Line("w", "Week {week}", Stands.EachSchoolWeek, within: Line("d", "{date} {weekday}", Stands.EachSchoolDay)));

        folders.Where(f => f.ParentKey?.Text == "w:w2").Select(f => f.Name).ShouldBe(["2026-09-14 Mon", "2026-09-15 Tue", "2026-09-17 Thu", "2026-09-18 Fri"]);
    }

    [Fact]
    public void Weeks_inside_a_term_are_those_of_that_term() =>
        Unfold(Line("t", "{term}", Stands.EachTerm, within: Line("w", "Week {week}", Stands.EachSchoolWeek)))
            .Where(f => f.ParentKey?.Text == "t:tWinter").Select(f => f.Key.Text).ShouldBe(["t:tWinter/w:w4", "t:tWinter/w:w5"]);

    [Fact]
    public void Each_entry_of_a_list_stands_with_its_number() =>
        Unfold(Line("u", "{number} {entry}", Stands.EachEntry, entries: ["Lines", "Planks"])).Select(f => f.Name).ShouldBe(["01 Lines", "02 Planks"]);

    [Fact]
    public void An_own_folder_belongs_to_its_student_and_what_is_in_it_does_not_repeat_that()
    {
        var folders = Unfold(Line("o", "{student}", Stands.EachStudent, FolderRule.OneEach, within: Line("s", "Sketchbook", rule: FolderRule.AsAbove)));

        folders.Where(f => f.Student is not null).Select(f => (f.Name, f.Student)).ShouldBe([("Farquhar, Rúna", new PersonId(2)), ("Hallgrímsson, Umi", new PersonId(1))]);
        folders.Count.ShouldBe(4);
    }

    [Fact]
    public void Two_students_of_one_name_are_told_apart_by_their_numbers()
    {
        var twins = Setting with { Students = [Umi, Umi with { Id = new(9), Number = "1009" }] };

        var folders = PlanUnfolding.Unfold(new("p", "", [Line("o", "{student}", Stands.EachStudent, FolderRule.OneEach)]), twins);

        folders.Select(f => f.Name).ShouldBe(["Hallgrímsson, Umi", "Hallgrímsson, Umi (1009)"]);
        folders[1].Clashed.ShouldBeTrue();
    }

    [Fact]
    public void The_order_is_that_of_the_plan() => Unfold(Line("z", "Zeta"), Line("a", "Alpha")).Select(f => (f.Name, f.Position)).ShouldBe([("Zeta", 0), ("Alpha", 1)]);

    [Fact]
    public void A_plan_that_would_be_too_large_is_refused_with_its_count()
    {
        var days = Line("d", "{date}", Stands.EachSchoolDay, within: Line("x", "{entry}", Stands.EachEntry, entries: [.. Enumerable.Range(0, 2000).Select(i => $"{i}")]));

        var refusal = Should.Throw<RefusedException>(() => Unfold(days)).Refusal;

        refusal.Code.ShouldBe("plan-too-large");
        refusal.What.ShouldContain("48024");
    }

    [Fact]
    public void What_stands_or_was_binned_is_not_asked_for_again()
    {
        var folders = Unfold(Line("a", "A"), Line("b", "B"));

        PlanUnfolding.Missing(folders, new HashSet<FolderKey> { FolderKey.Top("a") }).ShouldHaveSingleItem().Key.ShouldBe(FolderKey.Top("b"));
        PlanUnfolding.Missing(folders, folders.Select(f => f.Key).ToHashSet()).ShouldBeEmpty();
    }

    [Fact]
    public void The_shipped_plans_all_unfold_without_a_clash()
    {
        foreach (var plan in ShippedPlans.All) PlanUnfolding.Unfold(plan, Setting).ShouldAllBe(f => !f.Clashed);
    }

    private static readonly Gen<PlanLine> AnyLine = Gen.Recursive<PlanLine>((depth, inner) =>
        Gen.Select(Gen.Enum<Stands>(), Gen.Enum<FolderRule>(), Any.Of("A", "a", "Week {week}", "{number} {entry}", "{student}", "{date}", "{term}"),
            depth > 2 ? Gen.Const(new List<PlanLine>()) : inner.List[0, 2],
            (stands, rule, name, within) => new PlanLine("", name, stands, rule, ["x", "y"], within)));

    // Keys are given by place, so that they are unique in the plan.
    private static PlanLine Keyed(PlanLine line, string key) => line with { Key = key, Within = [.. line.Within.Select((l, i) => Keyed(l, $"{key}.{i}"))] };

    private static readonly Gen<FolderPlan> AnyPlan = AnyLine.List[1, 3].Select(lines => new FolderPlan("p", "", [.. lines.Select((l, i) => Keyed(l, $"k{i}"))]));

    [Fact]
    public void Any_plan_unfolds_to_as_many_folders_as_it_counts_with_unique_keys_and_no_clashing_siblings() => AnyPlan.Sample(plan =>
    {
        var folders = PlanUnfolding.Unfold(plan, Setting);
        folders.Count.ShouldBe((int)PlanUnfolding.Count(plan, Setting));
        folders.Select(f => f.Key).Distinct().Count().ShouldBe(folders.Count);
        foreach (var siblings in folders.GroupBy(f => f.ParentKey))
            siblings.Select(f => SafeName.Key(f.Name)).Distinct().Count().ShouldBe(siblings.Count());
        var seen = new HashSet<FolderKey>();
        foreach (var f in folders)
        {
            if (f.ParentKey is { } p) seen.ShouldContain(p);
            seen.Add(f.Key);
        }
    }, iter: 200);

    [Fact]
    public void Any_plan_put_twice_adds_nothing_the_second_time() => AnyPlan.Sample(plan =>
        PlanUnfolding.Missing(PlanUnfolding.Unfold(plan, Setting), PlanUnfolding.Unfold(plan, Setting).Select(f => f.Key).ToHashSet()).ShouldBeEmpty(), iter: 100);

    [Fact]
    public void Padded_week_names_sort_in_the_order_of_the_plan_on_any_computer()
    {
        var year = Calendars.Short with { Terms = [new("All", Calendars.Day(2026, 8, 24), Calendars.Day(2029, 6, 18))], DaysOff = [] };
        var names = PlanUnfolding.Unfold(new("p", "", [Line("w", "Week {week}", Stands.EachSchoolWeek)]), new(SchoolWeeks.Of(year), [])).Select(f => f.Name).ToList();

        names.Count.ShouldBeGreaterThan(100);
        names.Order(StringComparer.Ordinal).ShouldBe(names);
    }

    private static readonly PlanGroup Crew = new(new(7), "Port crew", [new(1)]);
    private static readonly PlanGroup Empty = new(new(8), "Spare crew", []);

    [Fact]
    public void A_line_for_each_group_stands_for_each_and_students_inside_it_are_its_members()
    {
        var plan = new FolderPlan("p", "", [Line("g", "{group}", Stands.EachGroup, FolderRule.OnePerGroup, within: Line("s", "{student}", Stands.EachStudent, FolderRule.OneEach))]);

        var folders = PlanUnfolding.Unfold(plan, Setting with { Groups = [Crew, Empty] });

        folders.Select(f => (f.Name, f.Group, f.Student)).ShouldBe([("Port crew", new GroupId(7), null), ("Hallgrímsson, Umi", null, new PersonId(1)), ("Spare crew", new GroupId(8), null)]);
        folders.Select(f => f.Key.Text).ShouldBe(["g:g7", "g:g7/s:s1", "g:g8"]);
    }

    [Fact]
    public void The_count_is_what_unfolding_gives_for_any_nesting_of_weeks_groups_and_students()
    {
        var stands = Any.Of(Stands.Once, Stands.EachTerm, Stands.EachSchoolWeek, Stands.EachEntry, Stands.EachGroup, Stands.EachStudent);
        PlanLine Of(IReadOnlyList<Stands> way, int at) => new($"k{at}", "{number}", way[at], FolderRule.AsAbove, ["a", "b"], at + 1 < way.Count ? [Of(way, at + 1)] : []);
        stands.List[1, 4].Sample(way =>
        {
            var plan = new FolderPlan("p", "", [Of(way, 0)]);
            var setting = Setting with { Groups = [Crew, Empty] };
            PlanUnfolding.Unfold(plan, setting).Count.ShouldBe((int)PlanUnfolding.Count(plan, setting));
        }, iter: 300);
    }
}
