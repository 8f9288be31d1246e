using CsCheck;
using SpringLoft.App.Assignments;
using SpringLoft.App.Letters;
using SpringLoft.App.Workspaces;
using SpringLoft.App.Years;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Rosters;

namespace SpringLoft.App.Tests.Assignments;

/// <summary>Whoever may not see an assignment finds it in no list, no news, no letter, no calendar and through no door; whoever may, finds it in all.</summary>
public class InSightEverywhereTests
{
    private enum To { All, Umi, Rúna, Red, Nobody }

    private enum Stands { Published, Draft, Waits, Binned }

    private enum In { Papers, StaffRoom, RedRoom }

    private sealed record Given(To To, Stands Stands, In In)
    {
        // As the rules say it, by hand. Umi is in Red, and nobody is in Blue.
        internal bool Sees(bool umi) => Stands == Stands.Published && To != To.Nobody && (To == To.All || (umi ? To is To.Umi or To.Red : To == To.Rúna)) && (In == In.Papers || (In == In.RedRoom && umi));
    }

    [Fact]
    public void What_somebody_may_not_see_is_found_nowhere_and_what_they_may_everywhere() =>
        Gen.Select(Gen.Enum<To>(), Gen.Enum<Stands>(), Gen.Enum<In>(), (to, stands, where) => new Given(to, stands, where)).Array[12, 24].Sample(Check, iter: 6, threads: 1);

    private static void Check(Given[] all)
    {
        using var school = new TinySchool();
        school.OpenClass();
        var (red, blue) = school.Premises.Db.Write(c => (GroupStore.Add(c, school.Class, "Red"), GroupStore.Add(c, school.Class, "Blue")));
        school.Premises.Db.Write(c => GroupStore.AddMember(c, red, school.Umi.Id));
        var arranging = new Arranging(school.Premises);
        var rooms = new Dictionary<In, FolderId>
        {
            [In.Papers] = school.FolderNamed("Papers"),
            [In.StaffRoom] = arranging.Make(school.Lead, school.Class, new("Behind the scenes", null, FolderRule.StaffOnly, null, 0)),
            [In.RedRoom] = arranging.Make(school.Lead, school.Class, new("Red room", null, FolderRule.OnePerGroup, null, 0) { Group = red }),
        };
        var clock = school.Premises.Clock;
        var made = all.Select((g, n) =>
        {
            var id = school.Assigning.Make(school.Lead, school.Class, new($"Zq{n}x", "", 20, clock.Today.PlusDays(3), null, null, [rooms[g.In]], g.To switch { To.Umi => [school.Umi.Id], To.Rúna => [school.Rúna.Id], _ => [] },
                g.Stands is Stands.Published or Stands.Binned && g.To != To.Nobody, g.Stands == Stands.Waits ? clock.LocalNow.PlusHours(5) : null, Groups: g.To switch { To.Red => [red], To.Nobody => [blue], _ => [] })).Id;
            if (g.Stands == Stands.Binned) school.Assigning.Bin(school.Lead, school.Class, id);
            return (Given: g, Title: $"Zq{n}x", Id: id);
        }).ToList();
        new ClassCalendars(school.Premises).Make(school.Lead, school.Class);
        school.Clock.AdvanceMinutes(1);

        foreach (var (student, umi) in new[] { (school.Umi, true), (school.Rúna, false) })
        {
            var home = new Families(school.Premises).Add(school.Coordinator, new("Home", $"{student.Id.Value}@home.example", "en", [student.Id]));
            var workspace = school.Workspace.See(student, school.Class);
            var places = new Dictionary<string, string>
            {
                ["class"] = string.Join(' ', workspace.Assignments.Select(a => a.Title)),
                ["day"] = string.Join(' ', new Today(school.Premises).See(student).Pieces.Select(p => p.Title)),
                ["news"] = string.Join(' ', new News(school.Premises).See(student).Lines.Select(l => l.Title)),
                ["calendar"] = new ClassCalendars(school.Premises).Feed(workspace.Calendar!.Split('/')[^1].Replace(".ics", "", StringComparison.Ordinal)).Text,
                ["letter"] = new WeeklyLetters(school.Premises, new(school.Premises), new(() => new Uri("https://loft.example/"))).Preview(school.Coordinator, home, true).Text ?? "",
            };
            foreach (var m in made)
            {
                var sees = m.Given.Sees(umi);
                foreach (var (place, text) in places) text.Contains(m.Title, StringComparison.Ordinal).ShouldBe(sees, $"{m.Given} in the {place} of {student.Name}");
                var door = Should.Throw<RefusedException>(() => school.Work.HandIn(student, school.Class, m.Id)).Refusal.Code;
                (door != "not-found").ShouldBe(sees, $"{m.Given} at the door, {student.Name}: {door}");
            }
        }
    }
}
