using SpringLoft.App.Years;
using SpringLoft.Core.Years;

namespace SpringLoft.App.Tests.Years;

public class YearDeskTests : SchoolTest
{
    private YearDesk Desk => new(school.Premises);

    private YearSheet Sheet => Desk.See()[0];

    [Fact]
    public void The_next_year_is_drafted_on_the_same_weekdays_and_laid_down()
    {
        var draft = Desk.NextDraft();
        draft.Label.ShouldBe("2028–29");

        Desk.Add(school.Coordinator, draft);

        Desk.See().Select(y => y.Calendar.Label).ShouldBe(["2026–27", "2027–28", "2028–29"]);
        Refused(() => Desk.Add(school.Coordinator, draft)).ShouldBe("name-taken");
    }

    [Fact]
    public void A_change_is_shown_with_what_it_does_and_then_does_it()
    {
        var week = school.Making.Make(school.Lead, school.New("Signals", plan: "By week"));
        school.Assigning.Make(school.Lead, school.Class, new("Pot", "", null, new LocalDate(2026, 10, 14), null, null, [school.FolderNamed("Papers")], null, Publish: true, PublishAt: null));
        var draft = Sheet.Calendar with { DaysOff = [new("Storm week", new(2026, 10, 12), new(2026, 10, 16))] };

        var preview = Desk.Preview(Sheet.Id, draft);

        preview.Effects!.WeeksAfter.ShouldBe(preview.Effects.WeeksBefore - 1);
        preview.Effects.Stranded.ShouldHaveSingleItem().ShouldSatisfyAllConditions(s => s.What.ShouldBe("Clay 6B · period 3 · 2026–27: Pot"), s => s.Why.ShouldBe("Storm week"));
        preview.Folders.ShouldHaveSingleItem().ShouldBe(new FolderEffect("By week", 1, 0, 1, preview.Effects.WeeksAfter - 7));
        Desk.Change(school.Coordinator, Sheet.Id, Sheet.Version, draft);
        new YearLine(school.Premises, new SchoolAddress(() => new("https://tiny.example"))).See().Years[0].Weeks.Count(w => w.Number is not null).ShouldBe(preview.Effects.WeeksAfter);
        // No folder is made or renamed by a calendar.
        school.Workspace.See(school.Lead, week).Folders.Count(f => f.Name.StartsWith("Week ")).ShouldBe(preview.Effects.WeeksBefore);
    }

    [Fact]
    public async Task A_week_folder_stays_with_its_dates_when_a_week_before_it_goes()
    {
        var week = school.Making.Make(school.Lead, school.New("Signals", plan: "By week"));
        FolderId Named(string name) => school.Workspace.See(school.Lead, week).Folders.First(f => f.Name == name).Id;
        var (eighth, ninth) = (Named("Week 08"), Named("Week 09"));
        await school.Items.AddFile(school.Lead, week, ninth, "of week nine.txt", TinySchool.Bytes("x"), default);
        await school.Items.AddFile(school.Lead, week, eighth, "of the storm week.txt", TinySchool.Bytes("x"), default);
        // The eighth school week of this calendar begins on 12 October.
        Desk.Change(school.Coordinator, Sheet.Id, Sheet.Version, Sheet.Calendar with { DaysOff = [new("Storm week", new(2026, 10, 12), new(2026, 10, 16))] });

        var putting = new App.Plans.PuttingPlans(school.Premises, school.Queue.Writer, new App.Closing.NoMilestones());
        var run = putting.Begin(school.Lead, school.Plan("By week"), [week]);
        putting.Go(run, default);

        // What was in week 9 is in the same folder, which is week 8 now; what was in the week that is gone stays too.
        var after = school.Workspace.See(school.Lead, week);
        after.Folders.First(f => f.Id == ninth).Name.ShouldBe("Week 08 (2)");
        after.Items.Count.ShouldBe(2);
        putting.See(school.Lead, run).Classes.Single().Kept.ShouldContain(k => k.Folder == "Week 08");
    }

    [Fact]
    public void Of_two_who_change_a_calendar_the_second_is_told()
    {
        var seen = Sheet;
        Desk.Change(school.Coordinator, seen.Id, seen.Version, seen.Calendar with { Label = "26/27" });

        Refused(() => Desk.Change(school.Coordinator, seen.Id, seen.Version, seen.Calendar with { Label = "Other" })).ShouldBe("changed-meanwhile");
    }

    [Fact]
    public void Terms_keep_their_classes_when_they_swap_names_and_one_with_classes_does_not_go()
    {
        var year = Sheet;
        Desk.Change(school.Coordinator, year.Id, year.Version, year.Calendar with
        {
            Terms = [year.Calendar.Terms![0] with { Name = "Autumn", Last = new(2026, 12, 18) }, new(null, "Spring", new(2027, 1, 4), new(2027, 6, 18))],
        });
        var terms = Sheet.Calendar.Terms!;
        var id = school.Making.Make(school.Lead, school.New("Rope") with { Term = terms[1].Id });

        Desk.Change(school.Coordinator, year.Id, Sheet.Version, Sheet.Calendar with { Terms = [terms[0] with { Name = "Spring" }, terms[1] with { Name = "Autumn" }] });
        Sheet.Calendar.Terms!.Select(t => (t.Id, t.Name)).ShouldBe([(terms[0].Id, "Spring"), (terms[1].Id, "Autumn")]);
        Refused(() => Desk.Change(school.Coordinator, year.Id, Sheet.Version, Sheet.Calendar with { Terms = [Sheet.Calendar.Terms![0]] })).ShouldBe("term-has-classes");
        id.Value.ShouldBeGreaterThan(0);
    }

    [Fact]
    public void A_bad_calendar_is_refused_in_the_preview_and_on_saving_alike()
    {
        var bad = Sheet.Calendar with { SchoolWeekdays = [] };

        Desk.Preview(Sheet.Id, bad).Refusals.ShouldContain(r => r.Code == "year-no-weekdays");
        Refused(() => Desk.Change(school.Coordinator, Sheet.Id, Sheet.Version, bad)).ShouldBe("year-no-weekdays");
        Refused(() => Desk.Add(school.Coordinator, Sheet.Calendar with { Label = "Twin" })).ShouldBe("years-overlap");
    }

    [Fact]
    public void A_calendar_goes_out_as_a_file_and_comes_back_as_it_was()
    {
        Desk.Change(school.Coordinator, Sheet.Id, Sheet.Version, Sheet.Calendar with { DaysOff = [new("Lantern days", new(2026, 11, 12), new(2026, 11, 13))] });

        var (name, text) = Desk.WriteFile(Sheet.Id);
        var offer = Desk.ReadFile(Sheet.Id, text);

        name.ShouldBe("2026–27.ics");
        offer.LeftOut.ShouldBeEmpty();
        offer.Days.Select(d => (d.Kind, d.Name, d.First, d.Last)).ShouldBe([
            ("TERM", "Year", new(2026, 8, 24), new(2027, 6, 18)), ("DAY OFF", "Lantern days", new(2026, 11, 12), new(2026, 11, 13))]);
        Refused(() => Desk.ReadFile(Sheet.Id, "not a calendar")).ShouldBe("calendar-unreadable");
    }

    [Fact]
    public void Weeks_that_are_new_unfold_by_themselves_in_classes_that_follow_a_plan()
    {
        var id = school.Making.Make(school.Lead, school.New("Rope", plan: "By week"));
        int Weeks() => school.Workspace.See(school.Lead, id).Folders.Count(f => f.Name.StartsWith("Week ", StringComparison.Ordinal));
        var before = Weeks();
        var longer = Sheet.Calendar with { Terms = [Sheet.Calendar.Terms![0] with { Last = Sheet.Calendar.Terms[0].Last.PlusWeeks(2) }] };

        var preview = Desk.Preview(Sheet.Id, longer).Folders.Single();
        Desk.Change(school.Coordinator, Sheet.Id, Sheet.Version, longer);

        preview.Adds.ShouldBe(2);
        Weeks().ShouldBe(before + 2);
    }
}
