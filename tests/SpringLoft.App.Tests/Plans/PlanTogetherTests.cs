using SpringLoft.App.Plans;
using SpringLoft.Core.Plans;

namespace SpringLoft.App.Tests.Plans;

public class PlanTogetherTests : SchoolTest
{
    private PlanDesk Desk => new(school.Premises);

    private PlanView Plan => Desk.Plans().First(p => p.Name.StartsWith("Small", StringComparison.Ordinal));

    private static List<OutlineLine> Renamed(PlanView plan, int line, string name) => [.. plan.Outline.Select((l, i) => i == line ? l with { NamePattern = name } : l)];

    [Fact]
    public void Of_two_who_write_on_one_plan_the_second_has_both_and_saves_at_the_newest_version()
    {
        var seen = Plan;
        var last = seen.Outline.Count - 1;
        Desk.Save(school.Coordinator, seen.Id, seen.Version, "Small, renamed", seen.About, Renamed(seen, last, "Their line"));
        var mine = Renamed(seen, 0, "My line");
        Refused(() => Desk.Save(school.Coordinator, seen.Id, seen.Version, seen.Name, "What I say it is for", mine)).ShouldBe("changed-meanwhile");

        var met = Desk.Together(seen.Id, seen.Version, new(seen.Name, seen.About), new(seen.Name, "What I say it is for"), mine, null);

        (met.Version, met.By, met.Open, met.TheirTitle).ShouldBe((seen.Version + 1, school.Coordinator.Name, 0, null));
        met.Title.ShouldBe(new("Small, renamed", "What I say it is for"));
        Desk.Save(school.Coordinator, seen.Id, met.Version, met.Title.Name, met.Title.About, met.Lines!);
        Plan.Outline.Select(l => l.NamePattern).ShouldSatisfyAllConditions(n => n.ShouldContain("My line"), n => n.ShouldContain("Their line"));
        Plan.Outline.Select(l => l.Key).ShouldBe(seen.Outline.Select(l => l.Key), "lines keep their keys, so that putting it anew moves no folder");
    }

    [Fact]
    public void What_both_called_it_is_shown()
    {
        var seen = Plan;
        Desk.Save(school.Coordinator, seen.Id, seen.Version, "Small A", seen.About, seen.Outline);

        var met = Desk.Together(seen.Id, seen.Version, new(seen.Name, seen.About), new("Small B", seen.About), seen.Outline, null);

        (met.Title.Name, met.TheirTitle?.Name).ShouldBe(("Small B", "Small A"));
        Refused(() => Desk.Together(seen.Id, 99, null, null, [], null)).ShouldBe("not-found");
    }
}
