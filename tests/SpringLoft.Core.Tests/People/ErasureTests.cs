using SpringLoft.Core.People;

namespace SpringLoft.Core.Tests.People;

public class ErasureTests
{
    private static readonly LocalDate Left = new(2027, 6, 30);
    private static readonly ErasureFacts Gone = new(Active: false, Erased: false, Joined: false, Left, 0, 0, []);
    private static readonly KeptHome Alone = new("2026–27", 3, Fetched: false);

    private static ErasureBar Bar(ErasureFacts f, int daysOn = 1) => Erasure.BarOf(f, Left.PlusDays(daysOn), 400);

    [Fact]
    public void Who_left_and_has_nothing_waiting_can_be_erased() => Bar(Gone).ShouldBe(ErasureBar.None);

    [Fact]
    public void What_is_in_the_way_is_said_the_first_of_all_first()
    {
        Bar(Gone with { Active = true, LeftOn = null }).ShouldBe(ErasureBar.StillHere);
        Bar(Gone with { Erased = true, Held = 1 }).ShouldBe(ErasureBar.Erased);
        Bar(Gone with { Joined = true }).ShouldBe(ErasureBar.Joined);
        Bar(Gone with { Held = 1, OnRosters = 1 }).ShouldBe(ErasureBar.WorkHeld);
        Bar(Gone with { OnRosters = 1 }).ShouldBe(ErasureBar.OnRoster);
    }

    [Fact]
    public void The_only_copy_of_their_work_waits_for_them_until_its_day_or_until_it_was_fetched()
    {
        Bar(Gone with { Homes = [Alone] }).ShouldBe(ErasureBar.NotFetched);
        Bar(Gone with { Homes = [Alone] }, daysOn: 399).ShouldBe(ErasureBar.NotFetched);
        Bar(Gone with { Homes = [Alone] }, daysOn: 400).ShouldBe(ErasureBar.None);
        Bar(Gone with { Homes = [Alone with { Fetched = true }] }).ShouldBe(ErasureBar.None);
        Bar(Gone with { Homes = [Alone with { Alone = 0 }] }).ShouldBe(ErasureBar.None);
        Bar(Gone with { Homes = [Alone with { Fetched = true }, Alone] }).ShouldBe(ErasureBar.NotFetched);
    }

    [Fact]
    public void The_name_that_stands_there_instead_is_nobody_else_s() =>
        (Erasure.Pseudonym(new(7), true), Erasure.Pseudonym(new(8), true), Erasure.Pseudonym(new(9), false)).ShouldBe(("Former student 7", "Former student 8", "Former staff 9"));
}
