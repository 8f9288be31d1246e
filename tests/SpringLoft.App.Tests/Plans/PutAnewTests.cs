using Dapper;
using SpringLoft.App.Closing;
using SpringLoft.App.Plans;
using SpringLoft.Core.Naming;
using SpringLoft.Core.Plans;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Tests.Plans;

/// <summary>A plan put anew, again and again, while its teacher bends the class: what is said before is what is done, by the real applier.</summary>
public class PutAnewTests : SchoolTest
{
    private PlanDesk Desk => new(school.Premises);

    private PuttingPlans Putting => new(school.Premises, school.Queue.Writer, new NoMilestones());

    private PlanRunView Put(PlanId plan)
    {
        var run = Putting.Begin(school.Coordinator, plan, [school.Class]);
        Putting.Go(run, CancellationToken.None);
        return Putting.See(school.Coordinator, run);
    }

    private List<FolderRow> Folders() => [.. school.Read(c => FolderStore.WithBin(c, school.Class))];

    private void Sql(string sql, object with) => school.Premises.Db.Write(c => c.Execute(sql, with));

    [Fact]
    public void A_folder_that_the_teacher_renamed_takes_the_plans_new_rule_as_the_report_says()
    {
        var plan = Desk.Make(school.Coordinator, "Mine", "", [new(null, 0, "Papers two", Stands.Once, FolderRule.ClassViews, [])]);
        Put(plan);
        var papers = Folders().First(f => f.Name == "Papers two");
        Sql("UPDATE folder SET name = 'Our papers', name_key = 'OUR PAPERS', version = version + 1 WHERE id = @Id", new { papers.Id });
        var line = Desk.Plans().First(p => p.Id == plan).Outline[0];
        Desk.Save(school.Coordinator, plan, 1, "Mine", "", [line with { NamePattern = "Term papers", Rule = FolderRule.StaffOnly }]);

        Putting.Preview(school.Coordinator, plan, [school.Class]).Single().Lines.ShouldContain(l => l.Kind == PutKind.Change && l.Why.Contains("staff only now"));
        Put(plan);

        var now = Folders().First(f => f.Id == papers.Id);
        (now.Name, now.Rule).ShouldBe(("Our papers", FolderRule.StaffOnly));
        Putting.Preview(school.Coordinator, plan, [school.Class]).Single().Lines.ShouldBeEmpty();
    }

    [Theory]
    [InlineData(1)]
    [InlineData(2)]
    [InlineData(3)]
    [InlineData(4)]
    [InlineData(5)]
    [InlineData(6)]
    public void Whatever_plan_and_teacher_do_each_attribute_goes_its_own_way(int seed)
    {
        var chance = new Random(seed);
        FolderRule Rule() => (FolderRule[])[FolderRule.StaffOnly, FolderRule.ClassViews, FolderRule.ClassAdds, FolderRule.AsAbove] is var rules ? rules[chance.Next(4)] : default;
        OutlineLine Line(string? key) => new(key, 0, $"N{chance.Next(6)}", Stands.Once, Rule(), []);
        var plan = Desk.Make(school.Coordinator, "Mine", "", [.. Enumerable.Range(0, 5).Select(_ => Line(null))]);
        Put(plan);
        for (var round = 0; round < 12; round++)
        {
            foreach (var f in Folders().Where(f => f.PlanKey is not null && f.BinnedAt is null))
                switch (chance.Next(8))
                {
                    case 0: Sql("UPDATE folder SET name = @name, name_key = @key, version = version + 1 WHERE id = @Id", new { f.Id, name = $"T{round}-{f.Id.Value}", key = SafeName.Key($"T{round}-{f.Id.Value}") }); break;
                    case 1: Sql("UPDATE folder SET rule = @rule, version = version + 1 WHERE id = @Id", new { f.Id, rule = Rule().ToString() }); break;
                    case 2: Sql("UPDATE folder SET position = @at, version = version + 1 WHERE id = @Id", new { f.Id, at = chance.Next(9) }); break;
                    case 3 when chance.Next(4) == 0: school.Items.AddLink(school.Lead, school.Class, f.Id, "a link", "https://a.invalid/"); break;
                }
            var old = Desk.Plans().First(p => p.Id == plan);
            var keys = old.Outline.Select(l => l.Key).Where(_ => chance.Next(5) > 0).Concat(chance.Next(3) == 0 ? [null] : []).OrderBy(_ => chance.Next()).ToList();
            Desk.Save(school.Coordinator, plan, old.Version, "Mine", "", keys.Count == 0 ? [Line(null)] : [.. keys.Select(Line)]);
            var before = Folders();
            var full = school.Read(c => ItemStore.Filings(c, school.Class)).Select(f => f.Folder).ToHashSet();
            var said = Putting.Preview(school.Coordinator, plan, [school.Class]).Single();

            var run = Put(plan);

            var told = run.Classes.Single();
            (told.Adds, told.Changes, told.Removes, told.Keeps).ShouldBe((said.Adds, said.Changes, said.Removes, said.Keeps));
            var after = Folders().ToDictionary(f => f.Id);
            foreach (var f in before.Where(f => f.Given is not null && f.BinnedAt is null))
            {
                var now = after[f.Id];
                if (now.BinnedAt is not null)
                {
                    full.ShouldNotContain(f.Id);
                    continue;
                }
                if (now.Given is not { } given) continue;
                // The rule itself, said once more: three-way for each attribute alone.
                now.Rule.ShouldBe(f.Given!.Rule != given.Rule && f.Rule == f.Given.Rule ? given.Rule : f.Rule);
                now.Position.ShouldBe(f.Given.Position != given.Position && f.Position == f.Given.Position ? given.Position : f.Position);
                if (f.Name != f.Given.Name || f.Given.Name == given.Name) now.Name.ShouldBe(f.Name);
                else now.Name.ShouldStartWith(given.Name);
            }
            Putting.Preview(school.Coordinator, plan, [school.Class]).Single().ShouldSatisfyAllConditions(p => p.Adds.ShouldBe(0), p => p.Changes.ShouldBe(0), p => p.Removes.ShouldBe(0));
            if (chance.Next(2) == 0) continue;
            Putting.TakeBack(school.Coordinator, run.Id, school.Class).ShouldBeEmpty();
            Shapes(Folders()).ShouldBe(Shapes(before));
            Put(plan);
        }
    }

    private static IEnumerable<string> Shapes(IEnumerable<FolderRow> folders) =>
        folders.Where(f => f.BinnedAt is null || f.PlanKey is not null).OrderBy(f => f.Id.Value).Select(f => $"{f.Id.Value} {f.ParentId} {f.Name} {f.Rule} {f.Position} {f.PlanKey?.Text} {f.Given}");
}
