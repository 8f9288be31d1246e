using SpringLoft.Core.Closing;

namespace SpringLoft.Core.Tests.Closing;

public class ClosingRoomTests
{
    private const long Mb = 1024 * 1024;

    [Fact]
    public void Every_file_is_packed_twice_at_most() => ClosingRoom.Needed(3, 100 * Mb).ShouldBe(203 * Mb);

    [Theory]
    [InlineData(1000, 1256, true)]
    [InlineData(1000, 1255, false)]
    [InlineData(0, 256, true)]
    public void What_keeps_the_database_alive_stays_free(long needed, long free, bool fits) => ClosingRoom.Fits(needed * Mb, free * Mb).ShouldBe(fits);

    [Fact]
    public void It_takes_as_long_as_runs_took_by_classes_or_by_bytes()
    {
        EndedRun[] before = [new(10, 100 * Mb, Duration.FromSeconds(20)), new(30, 300 * Mb, Duration.FromSeconds(60)), new(0, 0, Duration.FromSeconds(5))];
        ClosingRoom.Takes(20, 10 * Mb, before).ShouldBe(Duration.FromSeconds(40));
        ClosingRoom.Takes(1, 1000 * Mb, before).ShouldBe(Duration.FromSeconds(200));
        ClosingRoom.Takes(5, 10 * Mb, []).ShouldBeNull();
        ClosingRoom.Takes(5, 10 * Mb, [new(10, 0, Duration.FromSeconds(20))]).ShouldBe(Duration.FromSeconds(10));
    }
}
