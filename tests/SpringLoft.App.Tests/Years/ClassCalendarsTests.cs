using SpringLoft.App.People;
using SpringLoft.App.Years;
using SpringLoft.Formats.Calendars;

namespace SpringLoft.App.Tests.Years;

public class ClassCalendarsTests : SchoolTest
{
    private ClassCalendars Calendars => new(school.Premises);

    private CalendarReading Read(string address) => CalendarFile.Read(Fetch(address), new(2026, 8, 1), new(2027, 8, 1));

    private string Fetch(string address) => Calendars.Feed(address.Split('/')[^1][..^4]).Text;

    [Fact]
    public void What_is_due_stands_in_it_beside_terms_and_days_off()
    {
        school.OpenClass();
        school.Assigning.Make(school.Lead, school.Class, new("Pinch pot", "", 20, new(2026, 10, 2), null, null, [school.FolderNamed("Papers")], null, true, null));
        school.Assigning.Make(school.Lead, school.Class, new("Draft", "", 20, new(2026, 10, 9), null, null, [school.FolderNamed("Papers")], null, false, null));

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

        Refused(() => Fetch(old)).ShouldBe("calendar-retired");
        now.ShouldMatch("^/api/calendars/[0-9]+-[0-9]+-[0-9a-f]{40}[.]ics$");
        Calendars.Retire(school.Lead, school.Class);
        Refused(() => Fetch(now)).ShouldBe("calendar-retired");
    }

    [Fact]
    public void Each_has_an_address_of_their_own_and_it_ends_with_their_place_in_the_class()
    {
        school.OpenClass();
        Calendars.Make(school.Lead, school.Class);
        string Address(Caller who) => school.Workspace.See(who, school.Class).Calendar!;
        var (umi, rúna, staff) = (Address(school.Umi), Address(school.Rúna), Address(school.CoTeacher));
        new[] { umi, rúna, staff }.Distinct().Count().ShouldBe(3);
        Fetch(umi).ShouldBe(Fetch(staff));

        school.Roster.Remove(school.Lead, school.Class, school.Umi.Id);
        new Leavers(school.Premises).Mark(school.Coordinator, [school.CoTeacher.Id], offRosters: false);

        Refused(() => Fetch(umi)).ShouldBe("calendar-retired");
        Refused(() => Fetch(staff)).ShouldBe("calendar-retired");
        Read(rúna).Days.ShouldNotBeEmpty();
        Refused(() => Fetch(rúna.Replace($"-{school.Rúna.Id.Value}-", $"-{school.Umi.Id.Value}-", StringComparison.Ordinal))).ShouldBe("calendar-retired");
        school.Workspace.SeeAs(school.Class, school.Rúna.Id).Calendar.ShouldBeNull("it is hers, and not for whoever looks at the class as her");
    }

    [Fact]
    public void A_class_that_is_restored_has_the_addresses_it_had()
    {
        school.OpenClass();
        var address = Calendars.Make(school.Lead, school.Class);
        school.Close();
        Refused(() => Fetch(address)).ShouldBe("calendar-retired");

        school.Loft.Restore(school.Lead, school.Class, school.Workspace.Head(school.Lead, school.Class).Version);

        Read(address).Days.ShouldNotBeEmpty();
    }

    [Fact]
    public void An_archived_class_has_no_calendar_any_more()
    {
        school.OpenClass();
        var token = Calendars.Make(school.Lead, school.Class);

        school.Close();

        Refused(() => Fetch(token)).ShouldBe("calendar-retired");
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
