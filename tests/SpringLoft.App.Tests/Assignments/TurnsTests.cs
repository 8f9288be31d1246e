using SpringLoft.Core.Assignments;
using SpringLoft.Store.Assignments;

namespace SpringLoft.App.Tests.Assignments;

/// <summary>What was handed in each time stays, and a mark that was returned counts until another one is.</summary>
public class TurnsTests : SchoolTest
{
    private readonly AssignmentId pot;

    public TurnsTests()
    {
        school.OpenClass();
        pot = school.Assign();
    }

    private WorkRow Row => school.Read(c => WorkStore.Of(c, pot, school.Umi.Id))!;

    private void MarkAndReturn(decimal? score)
    {
        if (score is not null) school.Returns.Mark(school.Lead, school.Class, Row.Id, score, Row.Version);
        school.Returns.Return(school.Lead, school.Class, Row.Id, true, Row.Version);
    }

    private static string Read(App.Workspaces.Download d)
    {
        using var reader = new StreamReader(d.Content);
        return reader.ReadToEnd();
    }

    [Fact]
    public async Task Each_time_stays_as_it_was_with_its_moment_and_its_mark()
    {
        await school.HandIn(school.Umi, pot, "the first pot");
        MarkAndReturn(12);
        school.Clock.AdvanceHours(1);
        school.Work.RemoveFile(school.Umi, school.Class, pot, school.Read(c => WorkStore.Files(c, Row.Id)).Single().Id);
        await school.HandIn(school.Umi, pot, "the second pot");

        var seen = school.Returns.See(school.Class, Row.Id);
        seen.Turns.Select(t => (t.Score, t.Files.Count, t.ReturnedAt is null)).ShouldBe([(null, 1, true), (12, 1, false)]);
        Read(school.Returns.OpenTurn(school.Class, Row.Id, seen.Turns[1].Id, 0)).ShouldBe("the first pot");
        Read(school.Work.OpenTurn(school.Umi, school.Class, pot, seen.Turns[1].Id, 0)).ShouldBe("the first pot");
        Refused(() => school.Work.OpenTurn(school.Rúna, school.Class, pot, seen.Turns[1].Id, 0)).ShouldBe("not-found");
    }

    [Fact]
    public async Task Handing_in_again_does_not_take_the_returned_mark_away()
    {
        await school.HandIn(school.Umi, pot, "one");
        MarkAndReturn(12);
        decimal? Own() => school.Workspace.See(school.Umi, school.Class).Assignments.Single(a => a.Id == pot).Own!.Score;
        Own().ShouldBe(12);

        await school.HandIn(school.Umi, pot, "two");
        (Own(), school.Returns.See(school.Class, Row.Id).Score, school.Returns.See(school.Class, Row.Id).Counts).ShouldBe((12, null, 12));
        school.Returns.Mark(school.Lead, school.Class, Row.Id, 17, Row.Version);
        Own().ShouldBe(12, "a draft mark is not a mark");
        school.Returns.Return(school.Lead, school.Class, Row.Id, false, Row.Version);
        Own().ShouldBe(17);

        await school.HandIn(school.Umi, pot, "three");
        MarkAndReturn(null);
        Own().ShouldBe(17, "returned without a mark, the one of before counts");
        Row.State.ShouldBe(WorkState.Returned);
    }

    [Fact]
    public async Task Taken_back_a_turn_says_so()
    {
        await school.HandIn(school.Umi, pot, "one");
        school.Work.TakeBack(school.Umi, school.Class, pot);

        school.Read(c => WorkStore.Turns(c, Row.Id)).ShouldHaveSingleItem().TakenBackAt.ShouldNotBeNull();
    }
}
