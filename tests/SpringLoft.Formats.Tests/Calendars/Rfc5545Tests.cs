using SpringLoft.Formats.Calendars;

namespace SpringLoft.Formats.Tests.Calendars;

/// <summary>Calendar files against the examples of RFC 5545, against broken ones, and against a second library.</summary>
public class Rfc5545Tests
{
    private static readonly LocalDate From = new(2026, 8, 1);
    private static readonly LocalDate To = new(2027, 7, 31);

    private static CalendarReading Read(string events, LocalDate? from = null, LocalDate? to = null) =>
        CalendarFile.Read($"BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//x//y//EN\r\n{events.ReplaceLineEndings("\r\n")}\r\nEND:VCALENDAR\r\n", from ?? From, to ?? To);

    private static string Event(string lines) => $"BEGIN:VEVENT\nUID:1@x\nDTSTAMP:20260101T000000Z\n{lines}\nEND:VEVENT";

    // RFC 5545 section 3.6.1, "The following is an example of the VEVENT calendar component used to represent an anniversary
    // that will occur annually": DTSTART without DTEND is one day.
    [Fact]
    public void The_anniversary_of_section_3_6_1_falls_once_a_year() =>
        Read(Event("UID:19970901T130000Z-123403@example.com\nDTSTART;VALUE=DATE:19971102\nSUMMARY:Our Blissful Anniversary\nTRANSP:TRANSPARENT\nCLASS:CONFIDENTIAL\nCATEGORIES:ANNIVERSARY,PERSONAL,SPECIAL OCCASION\nRRULE:FREQ=YEARLY"))
            .Days.ShouldBe([new NamedDays("Our Blissful Anniversary", new(2026, 11, 2), new(2026, 11, 2), "ANNIVERSARY")]);

    // The same section, "a multi-day event scheduled from June 28th, 2007 to July 8th, 2007 inclusively. Note that … DTEND …
    // is set to July 9th".
    [Fact]
    public void The_festival_of_section_3_6_1_ends_the_day_before_its_DTEND() =>
        Read(Event("DTSTART;VALUE=DATE:20070628\nDTEND;VALUE=DATE:20070709\nSUMMARY:Festival International de Jazz de Montreal"), new(2007, 1, 1), new(2007, 12, 31))
            .Days.ShouldBe([new NamedDays("Festival International de Jazz de Montreal", new(2007, 6, 28), new(2007, 7, 8), null)]);

    // Section 3.8.5.3, "Every Thanksgiving": the fourth Thursday of November; bounded there by the years asked for.
    [Fact]
    public void A_rule_by_weekday_and_month_is_worked_out() =>
        Read(Event("DTSTART;VALUE=DATE:20201126\nSUMMARY:Thanks\nRRULE:FREQ=YEARLY;BYMONTH=11;BYDAY=4TH")).Days.Single().First.ShouldBe(new LocalDate(2026, 11, 26));

    [Fact]
    public void A_repeating_stretch_with_an_exception_is_expanded_without_it() =>
        Read(Event("DTSTART;VALUE=DATE:20260904\nDURATION:P2D\nSUMMARY:Boat days\nRRULE:FREQ=WEEKLY;COUNT=3\nEXDATE;VALUE=DATE:20260911")).Days
            .Select(d => (d.First, d.Last)).ShouldBe([(new(2026, 9, 4), new(2026, 9, 5)), (new(2026, 9, 18), new(2026, 9, 19))]);

    [Fact]
    public void Events_with_a_time_and_unknown_parts_are_left_out_with_a_word()
    {
        var reading = Read($"{Event("DTSTART;TZID=Europe/Oslo:20260904T090000\nDTEND;TZID=Europe/Oslo:20260904T100000\nSUMMARY:Staff meeting")}\nBEGIN:VTODO\nUID:2@x\nDTSTAMP:20260101T000000Z\nSUMMARY:Order clay\nEND:VTODO\nX-UNKNOWN:yes");

        reading.Days.ShouldBeEmpty();
        reading.LeftOut.ShouldContain(l => l.Contains("Staff meeting") && l.Contains("time of day"));
        reading.LeftOut.ShouldContain(l => l.Contains("VTODO"));
    }

    [Fact]
    public void An_endless_rule_and_one_from_1970_end_at_the_year()
    {
        Read(Event("DTSTART;VALUE=DATE:19700101\nSUMMARY:Daily\nRRULE:FREQ=DAILY")).ShouldSatisfyAllConditions(
            r => r.Days.ShouldAllBe(d => d.First >= From && d.Last <= To), r => r.Days.Count.ShouldBe(365));
        Read(Event("DTSTART;VALUE=DATE:19700101\nSUMMARY:Once")).LeftOut.ShouldHaveSingleItem().ShouldContain("outside");
        Read(Event("DTSTART;VALUE=DATE:20260904\nSUMMARY:Fast\nRRULE:FREQ=SECONDLY")).LeftOut.ShouldHaveSingleItem().ShouldContain("repeats within the day");
    }

    [Theory]
    [InlineData("")]
    [InlineData("not a calendar")]
    [InlineData("BEGIN:VCALENDAR\r\nBEGIN:VEVENT\r\nDTSTART;VALUE=DATE:2026")]
    [InlineData("BEGIN:VCALENDAR\r\nEND:VEVENT\r\nEND:VCALENDAR")]
    public void A_broken_file_is_refused_with_a_reason(string text) => Should.Throw<CalendarFileException>(() => CalendarFile.Read(text, From, To)).Message.ShouldNotBeEmpty();

    private static readonly NamedDays[] Sample =
    [
        new("Autumn", new(2026, 8, 24), new(2026, 12, 18), CalendarFile.Term),
        new("Lantern days; with, signs\\", new(2026, 11, 12), new(2026, 11, 13), CalendarFile.DayOff),
        new("Jóladagur 日", new(2026, 12, 25), new(2026, 12, 25), CalendarFile.DayOff),
    ];

    [Fact]
    public void What_is_written_is_read_back_as_it_was() =>
        CalendarFile.Read(CalendarFile.Write("Skerry Point", Sample, Instant.FromUtc(2026, 8, 1, 0, 0)), From, To).ShouldSatisfyAllConditions(r => r.Days.ShouldBe(Sample), r => r.LeftOut.ShouldBeEmpty());

    // Debian's python3-icalendar knows nothing of us: it must find the same names and days.
    [Fact]
    public void A_second_library_reads_the_same_days()
    {
        using var scratch = new Scratch();
        File.WriteAllText(scratch.Under("c.ics"), CalendarFile.Write("Skerry Point", Sample, Instant.FromUtc(2026, 8, 1, 0, 0)));
        File.WriteAllText(scratch.Under("read.py"),
            "import icalendar\ncal = icalendar.Calendar.from_ical(open('c.ics', 'rb').read())\nfor e in cal.walk('VEVENT'):\n    print(e['SUMMARY'], e['DTSTART'].dt.isoformat(), e['DTEND'].dt.isoformat(), sep='|')\n");

        var (code, said) = Shell.Run(scratch.Path, "/usr/bin/python3", "read.py");

        code.ShouldBe(0, said);
        said.Trim().Split('\n').ShouldBe(["Autumn|2026-08-24|2026-12-19", "Lantern days; with, signs\\|2026-11-12|2026-11-14", "Jóladagur 日|2026-12-25|2026-12-26"]);
    }

    [Fact]
    public void No_line_is_longer_than_75_octets() =>
        // Section 3.1: "Lines of text SHOULD NOT be longer than 75 octets, excluding the line break."
        CalendarFile.Write("Skerry Point", [Sample[0] with { Name = new string('日', 90) }], Instant.FromUtc(2026, 8, 1, 0, 0)).Split("\r\n")
            .ShouldAllBe(l => System.Text.Encoding.UTF8.GetByteCount(l) <= 75);
}
