using SpringLoft.Core.Closing;
using SpringLoft.Core.Workspaces;

namespace SpringLoft.Core.Tests.Workspaces;

public class BoardCellsTests
{
    private static readonly ClosingFacts Tidy = new(ClassState.Open, 27, 0, 0, 0, 0, 0, false, false);
    private static readonly BoardFacts Good = new(ClassState.Open, Calendars.Day(2026, 9, 2), null, 41, 41, 27, 0, 8, 204, 204, Tidy, null);

    [Fact]
    public void A_tidy_class_is_ready() => BoardCells.Of(Good).ShouldSatisfyAllConditions(
        c => c.Folders.ShouldBe(new(CellState.Done, "41 of 41", 41, 41)),
        c => c.Roster.ShouldBe(new(CellState.Done, "27")),
        c => c.Open.ShouldBe(new(CellState.Done, "since 2 Sep")),
        c => c.Work.ShouldBe(new(CellState.Done, "204 back", 204, 204)),
        c => c.Close.ShouldBe(new(CellState.Done, "ready")),
        c => c.NextYear.ShouldBe(new(CellState.NotYet, "not yet")));

    [Fact]
    public void Work_that_is_held_blocks_closing_before_all_else()
    {
        var cells = BoardCells.Of(Good with { Work = 207, Closing = Tidy with { HeldMarked = 2, HeldUnmarked = 1, Unfiled = 6 } });

        cells.Work.ShouldBe(new(CellState.Attention, "204 back, 3 held", 204, 207));
        cells.Close.ShouldBe(new(CellState.Blocked, "3 held"));
    }

    [Theory]
    [InlineData(ClassState.Archived, CellState.Done, "enrollment ended")]
    [InlineData(ClassState.Open, CellState.NotYet, "nobody yet")]
    [InlineData(ClassState.InPreparation, CellState.NotYet, "nobody yet")]
    public void Nobody_is_wanting_where_closing_ended_the_enrollment(ClassState state, CellState cell, string text) =>
        BoardCells.Of(Good with { State = state, Students = 0 }).Roster.ShouldBe(new(cell, text));

    [Fact]
    public void Missing_folders_want_attention() => BoardCells.Of(Good with { FoldersThere = 38 }).Folders.ShouldBe(new(CellState.Attention, "38 of 41", 38, 41));

    [Fact]
    public void A_student_without_an_own_folder_wants_attention() => BoardCells.Of(Good with { WithoutOwnFolder = 1 }).Roster.State.ShouldBe(CellState.Attention);

    [Theory]
    [InlineData(6, 0, 0, "6 unfiled")]
    [InlineData(0, 1, 0, "1 draft left")]
    [InlineData(0, 2, 0, "2 drafts left")]
    [InlineData(0, 0, 3, "3 never sent")]
    public void What_is_untidy_wants_attention(int unfiled, int drafts, int unsent, string text) =>
        BoardCells.Of(Good with { Closing = Tidy with { Unfiled = unfiled, DraftAssignments = drafts, UnsentWork = unsent } }).Close.ShouldBe(new(CellState.Attention, text));

    [Fact]
    public void A_class_in_preparation_is_ready_to_open_once_somebody_is_on_its_roster()
    {
        BoardCells.Of(Good with { State = ClassState.InPreparation, Students = 0 }).Open.Text.ShouldBe("in preparation");
        BoardCells.Of(Good with { State = ClassState.InPreparation }).Open.Text.ShouldBe("ready to open");
    }

    [Fact]
    public void An_archived_class_says_since_when() =>
        BoardCells.Of(Good with { State = ClassState.Archived, ArchivedOn = Calendars.Day(2027, 6, 22) }).Close.ShouldBe(new(CellState.Done, "archived 22 Jun"));

    [Fact]
    public void A_run_at_work_is_told() => BoardCells.Of(Good with { Closing = Tidy with { RunGoing = true } }).Close.ShouldBe(new(CellState.Underway, "closing now"));

    [Fact]
    public void A_class_without_a_plan_counts_its_folders() => BoardCells.Of(Good with { FoldersWanted = 0, FoldersThere = 5 }).Folders.ShouldBe(new(CellState.NotYet, "5, no plan"));
}
