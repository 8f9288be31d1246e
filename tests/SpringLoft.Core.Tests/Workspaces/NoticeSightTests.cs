using SpringLoft.Core.Workspaces;

namespace SpringLoft.Core.Tests.Workspaces;

public class NoticeSightTests
{
    private static readonly Instant At = Instant.FromUtc(2027, 3, 1, 8, 0);
    private static readonly HashSet<GroupId> Crew = [new(4)];

    [Theory]
    [InlineData(true, false, null, Standing.Student, true, true)]
    [InlineData(true, false, 4L, Standing.Student, true, true)]
    [InlineData(true, false, 5L, Standing.Student, true, false)]
    [InlineData(false, false, null, Standing.Student, true, false)]
    [InlineData(true, true, null, Standing.Student, true, false)]
    [InlineData(true, false, null, Standing.Student, false, false)]
    [InlineData(true, false, null, Standing.Left, true, false)]
    [InlineData(true, false, null, Standing.SignedIn, true, false)]
    [InlineData(false, false, 5L, Standing.CoTeacher, false, true)]
    [InlineData(true, true, null, Standing.Lead, true, false)]
    public void Students_see_what_is_posted_for_them_and_staff_what_is_meant_for_the_class(bool posted, bool withdrawn, long? group, Standing standing, bool open, bool sees) =>
        NoticeSight.Sees(new(posted ? At : null, withdrawn, null, group is { } g ? new GroupId(g) : null), standing, Crew, open).ShouldBe(sees);

    [Theory]
    [InlineData("2027-03-01", true)]
    [InlineData("2027-03-02", true)]
    [InlineData("2027-03-03", false)]
    public void It_is_pinned_to_the_end_of_its_day(string today, bool pinned) =>
        NoticeSight.IsPinned(new(At, false, new LocalDate(2027, 3, 2), null), NodaTime.Text.LocalDatePattern.Iso.Parse(today).Value).ShouldBe(pinned);
}
