using SpringLoft.Core.Workspaces;

namespace SpringLoft.Core.Tests.Workspaces;

/// <summary>Who is told what, and when a letter is due.</summary>
public class NewsKindTests
{
    [Fact]
    public void Everybody_can_be_told_of_notices_and_nobody_of_what_is_not_theirs()
    {
        foreach (var role in Enum.GetValues<SchoolRole>()) NewsKinds.Of(role).ShouldContain(NewsKind.Notice);
        NewsKinds.Of(SchoolRole.Student).ShouldNotContain(NewsKind.Hold);
        NewsKinds.Of(SchoolRole.Teacher).ShouldNotContain(NewsKind.Hold);
        Enum.GetValues<SchoolRole>().SelectMany(NewsKinds.Of).Distinct().ShouldBe(Enum.GetValues<NewsKind>(), ignoreOrder: true, "each kind is told to somebody");
    }

    [Theory]
    [InlineData(null, 6, true)]
    [InlineData(null, 5, false)]
    [InlineData(-1, 6, true)]
    [InlineData(0, 23, false)]
    // A clock that was set back writes no second one.
    [InlineData(1, 12, false)]
    public void One_letter_a_day_from_six_on(int? lastDaysFromNow, int hour, bool due)
    {
        var today = new LocalDate(2026, 9, 7);
        NewsKinds.LetterIsDue(lastDaysFromNow is { } d ? today.PlusDays(d) : null, today.At(new LocalTime(hour, 0))).ShouldBe(due);
    }
}
