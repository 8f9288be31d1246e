using CsCheck;
using SpringLoft.Core.Assignments;
using SpringLoft.Core.Workspaces;

namespace SpringLoft.Core.Tests.Assignments;

public class WorkFlowTests
{
    private static readonly WorkSetting At = new(ClassState.Open, true, true, 20);
    private static readonly WorkFact Begun = new(WorkState.Working, 1, null);
    private static readonly WorkFact Held = new(WorkState.HandedIn, 1, null);

    private static string Refused(Action act) => Should.Throw<RefusedException>(act).Refusal.Code;

    [Fact]
    public void While_handed_in_the_teacher_holds_the_work()
    {
        WorkFlow.Holder(WorkState.Working).ShouldBe(HeldBy.Student);
        WorkFlow.Holder(WorkState.HandedIn).ShouldBe(HeldBy.Teacher);
        WorkFlow.Holder(WorkState.Returned).ShouldBe(HeldBy.Student);
    }

    [Fact]
    public void A_student_changes_no_file_of_work_that_is_held() => Refused(() => WorkFlow.CheckChangeFiles(Held, At)).ShouldBe("work-held");

    [Fact]
    public void Empty_work_is_not_handed_in() => Refused(() => WorkFlow.HandIn(Begun with { Files = 0 }, At)).ShouldBe("work-empty");

    [Fact]
    public void Work_is_handed_in_once() => Refused(() => WorkFlow.HandIn(Held, At)).ShouldBe("work-handed-in-already");

    [Fact]
    public void Returned_work_may_be_handed_in_again_and_its_mark_is_open_once_more() =>
        WorkFlow.HandIn(new(WorkState.Returned, 1, 15, 15), At).ShouldBe(Held with { Counts = 15 });

    [Fact]
    public void Work_is_taken_back_until_marking_has_begun()
    {
        WorkFlow.TakeBack(Held, At).ShouldBe(Begun);
        Refused(() => WorkFlow.TakeBack(Held with { Score = 12 }, At)).ShouldBe("work-marked");
    }

    [Theory]
    [InlineData(-0.5)]
    [InlineData(20.5)]
    public void A_mark_lies_between_nothing_and_full_marks(double score) => Refused(() => WorkFlow.Mark(Held, (decimal)score, At)).ShouldBe("score-range");

    [Theory]
    [InlineData(0)]
    [InlineData(20)]
    public void Nothing_and_full_marks_are_marks(int score) => WorkFlow.Mark(Held, score, At).Score.ShouldBe(score);

    [Fact]
    public void A_mark_is_a_draft_until_the_work_is_returned()
    {
        var marked = WorkFlow.Mark(Held, 17.5m, At);

        marked.ShouldBe(Held with { Score = 17.5m });
        WorkFlow.Return(marked, false, At).State.ShouldBe(WorkState.Returned);
        WorkFlow.Mark(marked, null, At).Score.ShouldBeNull();
    }

    [Fact]
    public void Work_without_a_mark_is_returned_only_on_a_yes()
    {
        Refused(() => WorkFlow.Return(Held, false, At)).ShouldBe("work-unmarked");
        WorkFlow.Return(Held, true, At).State.ShouldBe(WorkState.Returned);
        WorkFlow.Return(Held, false, At with { Points = null }).State.ShouldBe(WorkState.Returned);
    }

    [Fact]
    public void What_is_with_the_student_and_has_no_draft_mark_is_not_returned()
    {
        Refused(() => WorkFlow.Return(Begun, true, At)).ShouldBe("work-not-held");
        Refused(() => WorkFlow.Return(new(WorkState.Returned, 1, 12, 12), true, At)).ShouldBe("work-not-held");
    }

    [Fact]
    public void Work_done_on_paper_is_marked_and_its_mark_returned_without_a_file()
    {
        var marked = WorkFlow.Mark(Begun with { Files = 0 }, 10, At);

        (WorkFlow.IsDraft(marked), WorkFlow.Holder(marked.State), marked.Counts).ShouldBe((true, HeldBy.Student, null));
        WorkFlow.Return(marked, false, At).ShouldBe(new(WorkState.Returned, 0, 10, 10));
    }

    [Fact]
    public void Returned_work_is_marked_anew_and_the_mark_that_was_returned_counts_until_then()
    {
        var returned = new WorkFact(WorkState.Returned, 1, 12, 12);
        var anew = WorkFlow.Mark(returned, 14, At);

        (WorkFlow.IsDraft(returned), WorkFlow.IsDraft(anew), anew.Counts).ShouldBe((false, true, 12));
        WorkFlow.Mark(anew, null, At).ShouldBe(returned);
        WorkFlow.Return(anew, false, At).Counts.ShouldBe(14);
        WorkFlow.HandIn(anew, At).ShouldBe(new(WorkState.HandedIn, 1, 14, 12));
    }

    [Theory]
    [InlineData(18.125, "score-decimals")]
    [InlineData(18.12, null)]
    public void A_mark_has_two_decimals_at_most(double score, string? code) => (code is null ? null : Refused(() => WorkFlow.Mark(Held, (decimal)score, At))).ShouldBe(code);

    [Fact]
    public void An_assignment_without_points_takes_no_mark() => Refused(() => WorkFlow.Mark(Held, 1, At with { Points = null })).ShouldBe("assignment-no-points");

    [Fact]
    public void Drafts_archived_classes_and_those_who_may_not_post_are_refused()
    {
        Refused(() => WorkFlow.HandIn(Begun, At with { Published = false })).ShouldBe("assignment-draft");
        Refused(() => WorkFlow.HandIn(Begun, At with { Class = ClassState.Archived })).ShouldBe("class-archived");
        Refused(() => WorkFlow.HandIn(Begun, At with { MayPost = false })).ShouldBe("may-not-post");
        Refused(() => WorkFlow.Return(Held, true, At with { Class = ClassState.Archived })).ShouldBe("class-archived");
    }

    // Whatever is tried in whatever order, the work is with exactly one of the two, its files never vanish while the
    // teacher holds it, a draft mark goes only by being returned, and what counts changes only then.
    [Fact]
    public void No_sequence_of_acts_loses_a_piece_of_work() => Gen.Int[0, 5].List[0, 40].Sample(acts =>
    {
        var work = new WorkFact(WorkState.Working, 0, null);
        foreach (var act in acts)
        {
            var before = work;
            try
            {
                work = act switch
                {
                    0 => AddFile(work),
                    1 => RemoveFile(work),
                    2 => WorkFlow.HandIn(work, At),
                    3 => WorkFlow.TakeBack(work, At),
                    4 => WorkFlow.Mark(work, 10, At),
                    _ => WorkFlow.Return(work, true, At),
                };
            }
            catch (RefusedException) { work.ShouldBe(before); }
            if (before.State == WorkState.HandedIn) work.Files.ShouldBe(before.Files);
            if (work.State == WorkState.HandedIn) work.Files.ShouldBePositive();
            if (WorkFlow.IsDraft(before) && act != 5) work.Score.ShouldBe(before.Score);
            if (act != 5) work.Counts.ShouldBe(before.Counts);
            if (work.State == WorkState.Returned && act == 5) WorkFlow.IsDraft(work).ShouldBeFalse();
        }
    }, iter: 5000);

    private static WorkFact AddFile(WorkFact w)
    {
        WorkFlow.CheckChangeFiles(w, At);
        return w with { Files = w.Files + 1 };
    }

    private static WorkFact RemoveFile(WorkFact w)
    {
        WorkFlow.CheckChangeFiles(w, At);
        return w with { Files = Math.Max(0, w.Files - 1) };
    }

    [Theory]
    // Written by staff, minutes before (-) or after (+) the last return.
    [InlineData(WorkState.HandedIn, null, false)]
    [InlineData(WorkState.HandedIn, -1, true)]
    [InlineData(WorkState.HandedIn, 1, false)]
    [InlineData(WorkState.Working, 1, false)]
    [InlineData(WorkState.Returned, -1, true)]
    [InlineData(WorkState.Returned, 1, true)]
    public void What_staff_write_is_read_once_the_work_is_returned(WorkState state, int? sinceReturn, bool reads)
    {
        var written = Instant.FromUtc(2026, 9, 7, 8, 0);
        Instant? returned = sinceReturn is { } m ? written - Duration.FromMinutes(m) : null;
        WorkFlow.ReadsComment(state, returned, byStudent: false, written).ShouldBe(reads);
        WorkFlow.ReadsComment(state, returned, byStudent: true, written).ShouldBeTrue("their own words they always read");
    }
}
