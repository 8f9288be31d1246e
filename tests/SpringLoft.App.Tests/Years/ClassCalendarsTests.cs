using SpringLoft.App.Years;
using SpringLoft.Formats.Calendars;

namespace SpringLoft.App.Tests.Years;

public class ClassCalendarsTests : SchoolTest
{
    private ClassCalendars Calendars => new(school.Premises);

    private CalendarReading Read(string token) => CalendarFile.Read(Calendars.Feed(token).Text, new(2026, 8, 1), new(2027, 8, 1));

    [Fact]
    public void What_is_due_stands_in_it_beside_terms_and_days_off()
    {
        school.OpenClass();
        school.Assigning.Make(school.Lead, school.Class, new("Pinch pot", "", 20, new(2026, 10, 2), [school.FolderNamed("Papers")], null, true));
        school.Assigning.Make(school.Lead, school.Class, new("Draft", "", 20, new(2026, 10, 9), [school.FolderNamed("Papers")], null, false));

        var days = Read(Calendars.Make(school.Lead, school.Class)).Days;

        days.ShouldContain(d => d.Name == "Due: Pinch pot" && d.First == new LocalDate(2026, 10, 2));
        days.ShouldNotContain(d => d.Name.Contains("Draft", StringComparison.Ordinal));
        days.Count(d => d.Kind == CalendarFile.Term).ShouldBe(school.Years[0].Terms.Count);
    }

    [Fact]
    public void A_new_address_kills_the_old_one_and_retiring_kills_both()
    {
        var old = Calendars.Make(school.Lead, school.Class);
        var now = Calendars.Make(school.Lead, school.Class);

        Refused(() => Calendars.Feed(old)).ShouldBe("calendar-retired");
        now.Length.ShouldBe(40);
        Calendars.Retire(school.Lead, school.Class);
        Refused(() => Calendars.Feed(now)).ShouldBe("calendar-retired");
    }

    [Fact]
    public void An_archived_class_has_no_calendar_any_more()
    {
        school.OpenClass();
        var token = Calendars.Make(school.Lead, school.Class);

        school.Close();

        Refused(() => Calendars.Feed(token)).ShouldBe("calendar-retired");
        school.Workspace.See(school.Lead, school.Class).Calendar.ShouldBeNull();
    }

    [Fact]
    public void A_change_of_the_year_says_how_many_calendars_it_changes()
    {
        Calendars.Make(school.Lead, school.Class);
        var desk = new YearDesk(school.Premises);
        var sheet = desk.See()[0];

        desk.Preview(sheet.Id, sheet.Calendar).Feeds.ShouldBe(0);
        var first = sheet.Calendar.Terms![0];
        desk.Preview(sheet.Id, sheet.Calendar with { DaysOff = [.. sheet.Calendar.DaysOff!, new("Storm day", first.First.PlusDays(8), first.First.PlusDays(8))] }).Feeds.ShouldBe(1);
    }
}
