using SpringLoft.Core.Assignments;

namespace SpringLoft.Core.Tests.Assignments;

public class DueTests
{
    private static readonly DateTimeZone paris = DateTimeZoneProviders.Tzdb["Europe/Paris"];
    private static readonly LocalDate day = new(2027, 6, 4);

    private static Instant At(DateTimeZone zone, int y, int m, int d, int h, int min, int s = 0) => new LocalDateTime(y, m, d, h, min, s).InZoneLeniently(zone).ToInstant();

    [Fact]
    public void Without_a_date_nothing_is_ever_late_or_closed()
    {
        var due = new Due(null, null, 0);
        due.Moment(paris).ShouldBeNull();
        due.Closes(paris).ShouldBeNull();
        due.LateBy(Instant.MaxValue, paris).ShouldBeNull();
    }

    [Fact]
    public void All_of_the_day_counts_where_no_time_is_set()
    {
        var due = new Due(day, null, null);
        due.LateBy(At(paris, 2027, 6, 4, 23, 59, 59), paris).ShouldBeNull();
        due.LateBy(At(paris, 2027, 6, 5, 0, 0), paris).ShouldBe(Duration.Zero);
        due.LateBy(At(paris, 2027, 6, 6, 1, 30), paris).ShouldBe(Duration.FromMinutes((24 * 60) + 90));
        due.LateBy(null, paris).ShouldBeNull();
    }

    [Fact]
    public void The_minute_that_is_named_still_counts_and_lateness_is_told_from_that_minute()
    {
        var due = new Due(day, new LocalTime(15, 30), null);
        due.LateBy(At(paris, 2027, 6, 4, 15, 30, 59), paris).ShouldBeNull();
        due.LateBy(At(paris, 2027, 6, 4, 15, 31), paris).ShouldBe(Duration.FromMinutes(1));
        due.LateBy(At(paris, 2027, 6, 4, 16, 0), paris).ShouldBe(Duration.FromMinutes(30));
    }

    // tz database, Europe/Paris: on 28 March 2027 the clocks go from 02:00 CET to 03:00 CEST, on 31 October 2027 from 03:00 CEST back to 02:00 CET.
    [Fact]
    public void In_the_hour_that_the_clock_skips_it_is_as_long_after() =>
        new Due(new(2027, 3, 28), new LocalTime(2, 30), null).Moment(paris).ShouldBe(Instant.FromUtc(2027, 3, 28, 1, 31));

    [Fact]
    public void In_the_hour_that_the_clock_repeats_it_is_the_later_one() =>
        new Due(new(2027, 10, 31), new LocalTime(2, 30), null).Moment(paris).ShouldBe(Instant.FromUtc(2027, 10, 31, 1, 31));

    // tz database, America/Sao_Paulo: on 4 November 2018 the clocks went from 00:00 to 01:00, so that the day had no midnight.
    [Fact]
    public void A_day_whose_midnight_is_skipped_ends_when_the_next_begins() =>
        new Due(new(2018, 11, 3), null, null).Moment(DateTimeZoneProviders.Tzdb["America/Sao_Paulo"]).ShouldBe(Instant.FromUtc(2018, 11, 4, 3, 0));

    [Theory]
    [InlineData(0, "2027-06-04T13:31:00Z")]
    [InlineData(1, "2027-06-05T22:00:00Z")]
    [InlineData(7, "2027-06-11T22:00:00Z")]
    public void Late_work_is_taken_to_the_end_of_its_last_day(int days, string closes) =>
        NodaTime.Text.InstantPattern.General.Format(new Due(day, new LocalTime(15, 30), days).Closes(paris)!.Value).ShouldBe(closes);

    [Fact]
    public void Without_an_end_late_work_is_always_taken() => new Due(day, null, null).Closes(paris).ShouldBeNull();

    [Theory]
    [InlineData("2027-06-04T12:00", When.Today)]
    [InlineData("2027-06-04T15:30", When.Today)]
    [InlineData("2027-06-04T15:31", When.Late)]
    [InlineData("2027-06-01T08:00", When.ThisWeek)]
    [InlineData("2027-05-28T08:00", When.Later)]
    [InlineData("2027-06-11T23:59", When.Late)]
    public void It_stands_in_the_day_where_it_belongs(string now, When when)
    {
        var local = NodaTime.Text.LocalDateTimePattern.CreateWithInvariantCulture("uuuu-MM-dd'T'HH:mm").Parse(now).Value;
        var ends = local.Date.DayOfWeek == IsoDayOfWeek.Sunday ? local.Date : local.Date.Next(IsoDayOfWeek.Sunday);
        DayList.Of(new(day, new LocalTime(15, 30), 7), local.InZoneStrictly(paris).ToInstant(), paris, ends).ShouldBe(when);
    }

    [Fact]
    public void What_is_not_taken_any_more_stands_nowhere_and_what_has_no_date_stands_last()
    {
        DayList.Of(new(day, null, 0), At(paris, 2027, 6, 5, 0, 0), paris, day.PlusDays(2)).ShouldBeNull();
        DayList.Of(new(null, null, null), At(paris, 2027, 6, 5, 0, 0), paris, day.PlusDays(2)).ShouldBe(When.NoDate);
    }

    [Fact]
    public void Looks_close_together_are_one_visit_and_what_is_new_stays_new_in_it()
    {
        var noon = Instant.FromUtc(2027, 6, 4, 12, 0);
        DayList.Before(null, null, noon).ShouldBeNull();
        DayList.Before(noon, null, noon + Duration.FromMinutes(30)).ShouldBeNull();
        DayList.Before(noon, null, noon + Duration.FromMinutes(31)).ShouldBe(noon);
        DayList.Before(noon, noon - Duration.FromDays(1), noon + Duration.FromMinutes(5)).ShouldBe(noon - Duration.FromDays(1));
    }

    [Fact]
    public void What_is_closed_can_be_neither_handed_in_nor_taken_back()
    {
        var closed = new WorkSetting(SpringLoft.Core.Workspaces.ClassState.Open, true, true, 20, Closed: true);
        Should.Throw<RefusedException>(() => WorkFlow.HandIn(new(WorkState.Working, 1, null), closed)).Refusal.Code.ShouldBe("work-too-late");
        Should.Throw<RefusedException>(() => WorkFlow.TakeBack(new(WorkState.HandedIn, 1, null), closed)).Refusal.Code.ShouldBe("work-too-late");
        WorkFlow.Return(new(WorkState.HandedIn, 1, 3), false, closed).State.ShouldBe(WorkState.Returned);
    }
}
