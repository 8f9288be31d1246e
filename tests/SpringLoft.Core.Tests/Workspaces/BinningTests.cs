using NodaTime;
using SpringLoft.Core.Workspaces;

namespace SpringLoft.Core.Tests.Workspaces;

public class BinningTests
{
    [Theory]
    [InlineData(0, 0, true)]
    [InlineData(1, 0, false)]
    [InlineData(2, 1, false)]
    [InlineData(2, 2, true)]
    public void What_students_put_in_goes_only_once_each_has_taken_it_home(int putIn, int takenHome, bool may) => Binning.MayGo(new(putIn, takenHome)).ShouldBe(may);

    [Theory]
    [InlineData(Standing.Lead, false, true)]
    [InlineData(Standing.CoTeacher, false, true)]
    [InlineData(Standing.Student, true, true)]
    [InlineData(Standing.Student, false, false)]
    [InlineData(Standing.Left, true, false)]
    [InlineData(Standing.Nobody, true, false)]
    public void Staff_bring_back_all_and_students_their_own(Standing standing, bool own, bool may) => Binning.MayBringBack(standing, own).ShouldBe(may);

    [Fact]
    public void It_stands_in_the_bin_for_thirty_days() => (Binning.GoneAt(Instant.FromUtc(2027, 5, 1, 8, 0)) - Instant.FromUtc(2027, 5, 1, 8, 0)).ShouldBe(Duration.FromDays(30));
}
