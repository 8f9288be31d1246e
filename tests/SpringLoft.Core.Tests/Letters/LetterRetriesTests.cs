using SpringLoft.Core.Letters;

namespace SpringLoft.Core.Tests.Letters;

public class LetterRetriesTests
{
    private static readonly Instant Written = Instant.FromUtc(2027, 6, 7, 8, 0);

    [Theory]
    [InlineData(1, 1)]
    [InlineData(2, 5)]
    [InlineData(3, 15)]
    [InlineData(4, 60)]
    [InlineData(50, 60)]
    public void It_is_tried_soon_at_first_and_then_every_hour(int tries, int minutes) =>
        LetterRetries.Next(tries, Written, Written, false).ShouldBe(Written + Duration.FromMinutes(minutes));

    // RFC 5321, 4.5.4.1 (from memory): four to five days at the least.
    [Fact]
    public void It_is_given_up_after_five_days_and_not_before()
    {
        var (at, tries) = (Written, 1);
        while (LetterRetries.Next(tries, Written, at, false) is { } next) (at, tries) = (next, tries + 1);

        (at - Written).ShouldBeInRange(Duration.FromDays(4), Duration.FromDays(5));
        (Duration.FromDays(5) - (at - Written)).ShouldBeLessThan(Duration.FromHours(1));
    }

    [Fact]
    public void The_last_try_is_on_the_last_moment_of_its_days()
    {
        var end = Written + LetterRetries.Patience;

        LetterRetries.Next(9, Written, end - Duration.FromHours(1), false).ShouldBe(end);
        LetterRetries.Next(9, Written, end - Duration.FromMinutes(59), false).ShouldBeNull();
    }

    [Fact]
    public void What_will_never_be_taken_is_not_tried_again() => LetterRetries.Next(1, Written, Written, true).ShouldBeNull();
}
