using CsCheck;
using SpringLoft.Core.Letters;

namespace SpringLoft.Core.Tests.Letters;

/// <summary>When the weekly letter to homes goes out, and to whom.</summary>
public class WeeklyLetterTests
{
    // 2027-06-04 is a Friday.
    private static readonly LocalDate Friday = new(2027, 6, 4);
    private static readonly LocalDateTime LongAgo = new(2026, 9, 1, 8, 0);
    private static readonly WeeklyLetter OnFridays = new(LongAgo, IsoDayOfWeek.Friday, false);

    [Theory]
    [InlineData("2027-06-04T15:59", null)]
    [InlineData("2027-06-04T16:00", "2027-06-04")]
    [InlineData("2027-06-06T23:59", "2027-06-04")]
    [InlineData("2027-06-07T00:00", null)]
    public void On_its_day_from_four_on_and_two_days_late_at_the_most(string now, string? day) => OnFridays.DueOn(null, LongAgo, At(now)).ShouldBe(day is null ? null : NodaTime.Text.LocalDatePattern.Iso.Parse(day).Value);

    [Fact]
    public void Never_two_of_one_day_none_of_a_day_before_it_was_laid_down_and_none_where_it_is_not()
    {
        OnFridays.DueOn(Friday, LongAgo, At("2027-06-05T08:00")).ShouldBeNull();
        OnFridays.DueOn(Friday.PlusWeeks(-1), LongAgo, At("2027-06-05T08:00")).ShouldBe(Friday);
        OnFridays.DueOn(null, At("2027-06-04T16:01"), At("2027-06-05T08:00")).ShouldBeNull("who may be written to since Friday evening has the next one");
        (OnFridays with { From = At("2027-06-05T07:00") }).DueOn(null, LongAgo, At("2027-06-05T08:00")).ShouldBeNull();
        (OnFridays with { From = null }).DueOn(null, LongAgo, At("2027-06-04T17:00")).ShouldBeNull();
    }

    [Fact]
    public void However_often_somebody_looks_and_whenever_the_program_was_away_it_is_one_letter_a_week_and_the_next_is_where_it_says() =>
        Gen.Select(Gen.Int[1, 7], Gen.Int[0, 60 * 24 * 60].Array[1, 60]).Sample((day, looks) =>
        {
            var rule = new WeeklyLetter(LongAgo, (IsoDayOfWeek)day, false);
            LocalDate? last = null;
            var written = new List<LocalDate>();
            foreach (var at in looks.Order().Select(m => Friday.AtMidnight().PlusMinutes(m)))
            {
                var next = rule.Next(at);
                (next > at && next.DayOfWeek == rule.Day && next.TimeOfDay == WeeklyLetter.Hour && next.Date <= at.Date.PlusDays(7)).ShouldBeTrue();
                if (rule.DueOn(last, LongAgo, at) is not { } due) continue;
                written.Add(due);
                last = due;
            }
            return written.Distinct().Count() == written.Count && written.Zip(written.Skip(1)).All(w => Period.DaysBetween(w.First, w.Second) % 7 == 0) && written.All(w => w.DayOfWeek == rule.Day);
        });

    [Theory]
    [InlineData(true, true, false, false, null)]
    [InlineData(false, true, false, false, NoLetter.NotLetYet)]
    [InlineData(true, false, false, false, NoLetter.NoAddress)]
    [InlineData(true, true, true, false, NoLetter.Stopped)]
    [InlineData(true, true, true, true, NoLetter.Stopped)]
    [InlineData(false, false, false, true, NoLetter.Gone)]
    public void Who_has_stopped_gets_none_whatever_the_school_says(bool let, bool address, bool stopped, bool gone, NoLetter? why) => new ContactFact(let, address, stopped, gone).Why.ShouldBe(why);

    private static LocalDateTime At(string text) => NodaTime.Text.LocalDateTimePattern.GeneralIso.Parse(text + ":00").Value;
}
