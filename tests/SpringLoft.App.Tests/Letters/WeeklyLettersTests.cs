using SpringLoft.App.Assignments;
using SpringLoft.App.Letters;
using SpringLoft.App.People;
using SpringLoft.App.Rosters;
using SpringLoft.App.Workspaces;
using SpringLoft.Core.Letters;
using SpringLoft.Core.People;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Assignments;
using SpringLoft.Store.Letters;
using SpringLoft.Store.People;

namespace SpringLoft.App.Tests.Letters;

/// <summary>Contacts of families, and the letter that goes to them once a week.</summary>
public class WeeklyLettersTests : SchoolTest
{
    private readonly Families families;
    private readonly WeeklyLetters letters;
    private readonly StoppingLetters stopping;

    public WeeklyLettersTests()
    {
        school.OpenClass();
        families = new(school.Premises);
        letters = new(school.Premises, new(school.Premises), new(() => new Uri("https://loft.example/")));
        stopping = new(school.Premises, new(new GuessLimits(fromNetwork: 20, overAll: 100, again: TimeSpan.FromDays(1))));
    }

    private ContactId Add(string name, string language = "en", params Caller[] of) => families.Add(school.Coordinator, new(name, $"{name.ToLowerInvariant()}@home.example", language, [.. of.Select(x => x.Id)]));

    // Looked at, laid down, and on to the next Friday at four.
    private void Send(bool marks = false)
    {
        letters.Preview(school.Coordinator, families.See(school.Coordinator, null).Contacts[0].Id, marks);
        families.SetWeekly(school.Coordinator, true, IsoDayOfWeek.Friday, marks);
        Friday();
    }

    private void Friday()
    {
        var now = school.Premises.Clock.LocalNow;
        var next = new WeeklyLetter(now, IsoDayOfWeek.Friday, false).Next(now);
        school.Clock.AdvanceMinutes((int)Period.Between(now, next, PeriodUnits.Minutes).Minutes + 1);
        letters.Go();
        school.Clock.AdvanceMinutes(1);
    }

    private IReadOnlyList<LetterRow> All() => [.. school.Read(c => LetterStore.Newest(c, 100)).OrderBy(l => l.Id)];

    private string? To(string name) => All().LastOrDefault(l => l.ToName == name)?.Text;

    private async Task<AssignmentId> Returned(string title, Caller student, decimal score)
    {
        var id = school.Assign(title);
        await school.HandIn(student, id);
        var work = school.Read(c => WorkStore.OfStudent(c, school.Class, student.Id)).Single(w => w.AssignmentId == id);
        var marked = school.Returns.Mark(school.Lead, school.Class, work.Id, score, work.Version);
        school.Returns.Return(school.Lead, school.Class, work.Id, unmarkedToo: false, marked.Version);
        return id;
    }

    [Fact]
    public async Task It_says_what_is_due_what_came_back_notices_and_what_to_acknowledge_in_the_language_of_the_home()
    {
        Add("Mo", "de", school.Umi);
        Send();
        var friday = school.Premises.Clock.Today;
        await Returned("Pinch pot", school.Umi, 18.5m);
        school.Assigning.Make(school.Lead, school.Class, new("Coil pot", "", 20, friday.PlusDays(10), new LocalTime(9, 30), null, [school.FolderNamed("Papers")], null, Publish: true, PublishAt: null));
        school.Assigning.Make(school.Lead, school.Class, new("Old pot", "", 20, friday.PlusDays(1), null, null, [school.FolderNamed("Papers")], null, Publish: true, PublishAt: null));
        new Notices(school.Premises).Post(school.Lead, new("Bring **old** clothes.", [school.Class], null, false, null, null));
        new Notices(school.Premises).Post(school.Lead, new("Trip to the kiln.", [school.Class], null, false, null, null, new(AskedOf.Home, friday.PlusDays(9))));
        Friday();

        var text = To("Mo").ShouldNotBeNull();
        text.ShouldContain("Guten Tag, Mo.");
        text.ShouldContain($"Für die Familie von {school.Read(c => PersonStore.Find(c, school.Umi.Id))!.Name.Display}");
        text.ShouldContain("Zurückgekommen\n- Clay: Pinch pot\n", customMessage: "no mark where the school does not say so");
        text.ShouldContain($"Coil pot · fällig am {HomeWords.Of("de").Say(friday.PlusDays(10))}, 9:30 Uhr");
        text.ShouldContain($"Noch nicht abgegeben, wird aber noch angenommen\n- Clay: Old pot · war fällig am {HomeWords.Of("de").Say(friday.PlusDays(1))}");
        text.ShouldContain("Bring old clothes.");
        var code = text.Split("https://loft.example/home/")[1].Split('\n')[0];
        new AtHome(school.Premises, new(new GuessLimits(fromNetwork: 20, overAll: 100, again: TimeSpan.FromDays(1)))).See(code, "n").Text.ShouldBe("Trip to the kiln.");
        All().ShouldHaveSingleItem("the week before there was nothing to say").Subject.ShouldStartWith("Die Woche an der Schule ");
    }

    [Fact]
    public async Task Marks_stand_in_it_only_where_the_school_says_so_and_as_the_language_writes_them()
    {
        Add("Mo", "de", school.Umi);
        Send(marks: true);
        await Returned("Pinch pot", school.Umi, 18.5m);
        Friday();
        To("Mo").ShouldNotBeNull().ShouldContain("Pinch pot · 18,5 von 20 Punkten");
    }

    [Fact]
    public void Nobody_has_it_sent_who_has_not_looked_at_one_as_it_would_be()
    {
        var id = Add("Mo", "en", school.Umi);
        Refused(() => families.SetWeekly(school.Coordinator, true, IsoDayOfWeek.Friday, false)).ShouldBe("letter-unseen");
        letters.Preview(school.Coordinator, id, false).Text.ShouldBeNull("there is nothing to write yet");
        Refused(() => families.SetWeekly(school.Coordinator, true, IsoDayOfWeek.Friday, true)).ShouldBe("letter-unseen");
        new Notices(school.Premises).Post(school.Lead, new("Trip.", [school.Class], null, false, null, null, new(AskedOf.Home, null)));
        letters.Preview(school.Coordinator, id, true).Text!.ShouldContain("https://loft.example/home/…", customMessage: "who only looks has no code of a home");
        families.SetWeekly(school.Coordinator, true, IsoDayOfWeek.Friday, true);
        Refused(() => families.SetWeekly(school.Coordinator, true, IsoDayOfWeek.None, true)).ShouldBe("letter-day");
        All().ShouldBeEmpty("to look sends nothing");
    }

    [Fact]
    public void One_letter_a_week_and_none_with_nothing_in_it()
    {
        Add("Mo", "en", school.Umi);
        Send();
        All().ShouldBeEmpty();
        new Notices(school.Premises).Post(school.Lead, new("First.", [school.Class], null, false, null, null));
        Friday();
        letters.Go();
        All().Count.ShouldBe(1);
        Friday();
        All().Count.ShouldBe(1, "what was told is told once");
    }

    [Fact]
    public void Siblings_come_in_one_letter_each_under_their_name_and_what_both_are_told_once()
    {
        Add("Mo", "en", school.Umi, school.Rúna);
        Send();
        new Notices(school.Premises).Post(school.Lead, new("Sign this.", [school.Class], null, false, null, null, new(AskedOf.Home, null)));
        Friday();
        var text = To("Mo").ShouldNotBeNull();
        text.Split("https://loft.example/home/").Length.ShouldBe(3, "each child's home says so by a code of its own");
        text.Split("- Clay: Sign this. (").Length.ShouldBe(2);
    }

    [Fact]
    public void Stopped_by_its_address_what_waits_is_taken_back_and_nobody_at_the_school_takes_that_back()
    {
        var id = Add("Mo", "fr", school.Umi);
        Send();
        new Notices(school.Premises).Post(school.Lead, new("First.", [school.Class], null, false, null, null));
        Friday();
        var code = To("Mo")!.Split("https://loft.example/letters/stop/")[1].Trim();
        stopping.See(code, "n").ShouldSatisfyAllConditions(v => v.Language.ShouldBe("fr"), v => v.Stopped.ShouldBeFalse(), v => v.Students.ShouldHaveSingleItem());
        stopping.Set(code, true, "n");
        All().Single().ShouldSatisfyAllConditions(l => l.Text.ShouldBeNull(), l => l.State.ShouldBe(LetterState.GivenUp));
        families.LetWrite(school.Coordinator, [id], false);
        families.LetWrite(school.Coordinator, [id], true);
        families.See(school.Coordinator, null).Contacts.Single().Why.ShouldBe(NoLetter.Stopped);
        new Notices(school.Premises).Post(school.Lead, new("Second.", [school.Class], null, false, null, null));
        Friday();
        All().Count.ShouldBe(1);
        stopping.Set(code, false, "n");
        new Notices(school.Premises).Post(school.Lead, new("Third.", [school.Class], null, false, null, null));
        Friday();
        All().Count.ShouldBe(2);
        Refused(() => stopping.See("FHKM-3479", "n")).ShouldBe("home-code");
        for (var i = 0; i < 20; i++) Refused(() => stopping.See("FHKM-3479-CDWX-FHKM-3479-CDWX", "m")).ShouldBe("home-code");
        Refused(() => stopping.Set(code, true, "m")).ShouldBe("home-slow");
    }

    [Fact]
    public void Whoever_is_not_let_has_no_address_left_the_class_or_is_erased_is_not_written_about()
    {
        var ida = families.Add(school.Coordinator, new("Ida", null, "en", [school.Umi.Id]));
        var mo = Add("Mo", "en", school.Umi);
        var pa = Add("Pa", "en", school.Rúna);
        families.LetWrite(school.Coordinator, [mo], false);
        Send();
        new Notices(school.Premises).Post(school.Lead, new("First.", [school.Class], null, false, null, null));
        school.Roster.Remove(school.Lead, school.Class, school.Rúna.Id);
        Friday();
        All().ShouldBeEmpty();
        families.See(school.Coordinator, null).Contacts.Select(k => (k.Id, k.Why)).ShouldBe([(ida, NoLetter.NoAddress), (mo, NoLetter.NotLetYet), (pa, null)]);
        school.Premises.Db.Write(c => ErasingStore.Erase(c, school.Umi.Id, "erased", school.Premises.Clock.Now));
        families.See(school.Coordinator, null).Contacts.Select(k => k.Id).ShouldBe([pa], "contacts of nobody go with who was theirs");
    }

    [Fact]
    public void A_change_of_address_or_child_takes_back_the_letter_that_waits()
    {
        var id = Add("Mo", "en", school.Umi);
        Send();
        new Notices(school.Premises).Post(school.Lead, new("First.", [school.Class], null, false, null, null));
        Friday();
        var k = families.See(school.Coordinator, null).Contacts.Single();
        families.Change(school.Coordinator, id, new("Mo", "other@home.example", "en", [school.Rúna.Id]), k.Version);
        All().Single().Text.ShouldBeNull();
        Refused(() => families.Change(school.Coordinator, id, new("Mo", null, "en", [school.Rúna.Id]), k.Version)).ShouldBe("changed-meanwhile");
        Refused(() => families.Add(school.Coordinator, new("X", null, "en", [school.Lead.Id]))).ShouldBe("contact-no-student");
        Refused(() => families.Add(school.Coordinator, new("X", null, "en", []))).ShouldBe("contact-no-student");
        Refused(() => families.Add(school.Coordinator, new("X", null, "tlh", [school.Umi.Id]))).ShouldBe("contact-language");
        Refused(() => families.Add(school.Coordinator, new("X", "a@b@c", "en", [school.Umi.Id]))).ShouldBe("email-wrong");
        Refused(() => families.See(school.Lead, null)).ShouldBe("not-allowed");
        families.Remove(school.Coordinator, id);
        All().ShouldBeEmpty();
    }

    /// <summary>Whatever happens in the classes, a letter names no student but the contact's own, and no work but theirs.</summary>
    [Fact]
    public async Task No_child_of_another_family_is_in_it_ever()
    {
        var names = new Dictionary<PersonId, string>();
        foreach (var s in new[] { school.Umi, school.Rúna }) names[s.Id] = school.Read(c => PersonStore.Find(c, s.Id))!.Name.Given;
        Add("Mo", "en", school.Umi);
        Add("Pa", "es", school.Rúna);
        Send(marks: true);
        var chance = new Random(4711);
        for (var week = 0; week < 8; week++)
        {
            foreach (var s in new[] { school.Umi, school.Rúna })
            {
                if (chance.Next(2) == 0) await Returned($"Piece of {names[s.Id]} {week}", s, chance.Next(20));
                if (chance.Next(2) == 0)
                    school.Assigning.Make(school.Lead, school.Class, new($"Given to {names[s.Id]} {week}", "", 20, school.Premises.Clock.Today.PlusDays(chance.Next(14)), null, null, [school.FolderNamed("Papers")], [s.Id], Publish: true, PublishAt: null));
            }
            Friday();
        }
        var written = All();
        written.Count.ShouldBeGreaterThan(6);
        foreach (var l in written)
        {
            var other = names[(l.ToName == "Mo" ? school.Rúna : school.Umi).Id];
            // A piece that all were given is in both letters as long as it is to be done; what came back, and its mark, is its student's.
            l.Text!.ShouldNotContain($"Given to {other}");
            foreach (var part in new[] { "Came back", "Devuelto" }) if (l.Text!.Contains(part, StringComparison.Ordinal)) l.Text.Split(part)[1].Split("\n\n")[0].ShouldNotContain(other);
            l.Text!.ShouldNotContain(school.Read(c => PersonStore.Find(c, (l.ToName == "Mo" ? school.Rúna : school.Umi).Id))!.Name.Display);
        }
    }
}
