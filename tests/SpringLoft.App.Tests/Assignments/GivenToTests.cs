using SpringLoft.App.Assignments;
using SpringLoft.Store.Assignments;

namespace SpringLoft.App.Tests.Assignments;

/// <summary>Whom an assignment is given to, changed after it was given.</summary>
public class GivenToTests : SchoolTest
{
    private readonly AssignmentId pot;

    public GivenToTests()
    {
        school.OpenClass();
        pot = school.Assign();
    }

    private void Give(params PersonId[]? to)
    {
        var a = school.Workspace.See(school.Lead, school.Class).Assignments.Single(x => x.Id == pot);
        school.Assigning.Change(school.Lead, school.Class, pot, new(a.Title, a.Instructions, a.Points, null, null, null, a.Folders, to, false, null), a.Version);
    }

    private bool Finds(Caller who) => school.Workspace.See(who, school.Class).Assignments.Any(a => a.Id == pot);

    [Fact]
    public void To_some_then_to_others_then_to_everybody()
    {
        Give(school.Umi.Id);
        (Finds(school.Umi), Finds(school.Rúna)).ShouldBe((true, false));
        Give(null);
        Finds(school.Rúna).ShouldBeFalse("a change that says nothing of it leaves it");
        Give(school.Rúna.Id);
        (Finds(school.Umi), Finds(school.Rúna)).ShouldBe((false, true));
        Give();
        (Finds(school.Umi), Finds(school.Rúna)).ShouldBe((true, true));
        Refused(() => Give(school.Outsider.Id)).ShouldBe("not-found");
        Refused(() => Give(school.CoTeacher.Id)).ShouldBe("not-found", "staff get no work");
    }

    [Fact]
    public async Task Nobody_loses_what_there_is_work_of_theirs_for()
    {
        await school.Work.AddFile(school.Umi, school.Class, pot, "pot.txt", TinySchool.Bytes("begun"), CancellationToken.None);
        var refusal = Should.Throw<RefusedException>(() => Give(school.Rúna.Id)).Refusal;
        refusal.Code.ShouldBe("assignment-has-work");
        refusal.What.ShouldContain("Umi Hallgrímsson");
        Finds(school.Umi).ShouldBeTrue();
        Give(school.Umi.Id);
        Finds(school.Rúna).ShouldBeFalse();
    }

    [Fact]
    public async Task Full_marks_do_not_go_below_a_mark_that_counts_while_the_piece_is_handed_in_again()
    {
        await school.HandIn(school.Umi, pot);
        var row = school.Read(c => WorkStore.Of(c, pot, school.Umi.Id))!;
        school.Returns.Mark(school.Lead, school.Class, row.Id, 18, row.Version);
        school.Returns.ReturnAll(school.Lead, school.Class, null, false, null);
        school.Work.HandIn(school.Umi, school.Class, pot);
        var a = school.Workspace.See(school.Lead, school.Class).Assignments.Single();
        Refused(() => school.Assigning.Change(school.Lead, school.Class, pot, new(a.Title, "", 10, null, null, null, a.Folders, null, false, null), a.Version)).ShouldBe("points-below-mark");
    }
}
