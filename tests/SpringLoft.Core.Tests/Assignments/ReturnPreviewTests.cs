using SpringLoft.Core.Assignments;
using SpringLoft.Core.Workspaces;

namespace SpringLoft.Core.Tests.Assignments;

public class ReturnPreviewTests
{
    private static readonly ReturnCandidate[] All =
    [
        new(new(1), new(1), new(WorkState.HandedIn, 1, 12), true),
        new(new(2), new(1), new(WorkState.HandedIn, 1, null), true),
        new(new(3), new(2), new(WorkState.HandedIn, 1, null), false),
        new(new(4), new(3), new(WorkState.Returned, 1, 9, 9), true),
        new(new(5), new(3), new(WorkState.Working, 1, null), true),
    ];

    [Fact]
    public void Only_what_is_held_goes_and_unmarked_work_stays_without_a_yes()
    {
        var preview = ReturnPreview.Of(All, unmarkedToo: false);

        preview.ToReturn.Select(w => w.Value).ShouldBe([1, 3]);
        (preview.Students, preview.DraftMarks, preview.Unmarked).ShouldBe((2, 1, 1));
    }

    [Fact]
    public void On_a_yes_unmarked_work_goes_too() => ReturnPreview.Of(All, unmarkedToo: true).ToReturn.Select(w => w.Value).ShouldBe([1, 2, 3]);

    [Fact]
    public void A_draft_mark_goes_with_the_others_wherever_its_piece_is()
    {
        var preview = ReturnPreview.Of([.. All, new(new(6), new(4), new(WorkState.Working, 0, 7), true), new(new(7), new(4), new(WorkState.Returned, 1, 8, 9), true)], unmarkedToo: false);

        preview.ToReturn.Select(w => w.Value).ShouldBe([1, 3, 6, 7]);
        (preview.Students, preview.DraftMarks).ShouldBe((3, 3));
    }

    [Fact]
    public void Nothing_held_returns_nothing() => ReturnPreview.Of(All[3..], true).ToReturn.ShouldBeEmpty();

    [Theory]
    [InlineData(true, Right.View, 1, true)]
    [InlineData(true, Right.None, 1, false)]
    [InlineData(false, Right.View, 1, false)]
    [InlineData(true, Right.View, 2, false)]
    public void An_assignment_is_seen_if_published_given_and_in_a_folder_that_is_seen(bool published, Right right, long student, bool sees) =>
        AssignmentSight.Sees(published, [new PersonId(1)], new(student), right).ShouldBe(sees);

    [Fact]
    public void An_assignment_given_to_nobody_by_name_is_everybodys() => AssignmentSight.Sees(true, [], new(7), Right.View).ShouldBeTrue();
}
