using SpringLoft.Core.Workspaces;

namespace SpringLoft.Core.Tests.Workspaces;

public class PutInAgainTests
{
    [Theory]
    [InlineData(true, true, true, true)]
    [InlineData(true, false, false, true)]
    [InlineData(false, false, false, true)]
    [InlineData(false, true, false, false)]
    [InlineData(false, true, true, false)]
    [InlineData(false, false, true, false)]
    public void It_is_a_new_version_of_ones_own_or_among_staff(bool own, bool byStudent, bool student, bool version) => PutInAgain.IsNewVersion(own, byStudent, student).ShouldBe(version);
}
