using SpringLoft.App.Rosters;
using SpringLoft.Core.Workspaces;

namespace SpringLoft.App.Tests.Rosters;

public class PostingTests : SchoolTest
{
    private Posting Posting => new(school.Premises);

    public PostingTests() => school.OpenClass();

    private int ViewOnly(params PersonId[] people) => Posting.Set(school.Lead, school.Class, people, posts: false);

    [Fact]
    public async Task Who_may_not_post_sees_what_they_saw_and_adds_and_hands_in_nothing()
    {
        var pot = school.Assign();
        await school.Work.AddFile(school.Umi, school.Class, pot, "pot.txt", TinySchool.Bytes("begun"), CancellationToken.None);
        var before = school.Workspace.See(school.Umi, school.Class);

        ViewOnly(school.Umi.Id).ShouldBe(1);

        var after = school.Workspace.See(school.Umi, school.Class);
        (before.Head.Posts, after.Head.Posts).ShouldBe((true, false));
        after.Folders.Select(f => f.Name).ShouldBe(before.Folders.Select(f => f.Name));
        (await Refused(() => (Task)school.Put(school.Umi, "Shared table", "a.txt", "a"))).ShouldBe("folder-no-add");
        Refused(() => school.Work.HandIn(school.Umi, school.Class, pot)).ShouldBe("may-not-post");
        (await Refused(() => (Task)school.Work.AddFile(school.Umi, school.Class, pot, "more.txt", TinySchool.Bytes("m"), CancellationToken.None))).ShouldBe("may-not-post");
        // A classmate is not touched by it.
        await school.Put(school.Rúna, "Shared table", "b.txt", "b");
    }

    [Fact]
    public async Task Let_post_again_they_go_on_where_they_were()
    {
        var pot = school.Assign();
        await school.Work.AddFile(school.Umi, school.Class, pot, "pot.txt", TinySchool.Bytes("begun"), CancellationToken.None);
        ViewOnly(school.Umi.Id, school.Rúna.Id).ShouldBe(2);

        Posting.Set(school.Lead, school.Class, [school.Umi.Id, school.Rúna.Id], posts: true).ShouldBe(2);

        school.Work.HandIn(school.Umi, school.Class, pot);
        await school.Put(school.Rúna, "Shared table", "b.txt", "b");
        school.Roster.See(school.Class).ShouldAllBe(r => r.Posts);
    }

    [Fact]
    public async Task It_says_first_what_it_takes_from_each_and_writes_nothing()
    {
        var pot = school.Assign();
        await school.Work.AddFile(school.Umi, school.Class, pot, "pot.txt", TinySchool.Bytes("begun"), CancellationToken.None);
        await school.HandIn(school.Rúna, pot);
        var own = school.Workspace.See(school.Umi, school.Class).Folders.Single(f => f.Mine).Name;

        var said = Posting.Preview(school.Class, [school.Umi.Id, school.Rúna.Id]);

        said.Select(s => (s.Name, s.Posts, s.Begun)).ShouldBe([("Hallgrímsson, Umi", true, 1), ("Ravndal, Rúna", true, 0)]);
        said[0].Folders.ShouldBe([own, "Shared table"], ignoreOrder: true);
        school.Roster.See(school.Class).ShouldAllBe(r => r.Posts);
        // The same is said when it is taken back: what they would have again.
        ViewOnly(school.Umi.Id);
        Posting.Preview(school.Class, [school.Umi.Id]).Single().ShouldSatisfyAllConditions(s => s.Posts.ShouldBeFalse(), s => s.Folders.Count.ShouldBe(2));
    }

    [Fact]
    public void It_stands_on_the_roster_and_set_again_nothing_is_noted_twice()
    {
        ViewOnly(school.Umi.Id).ShouldBe(1);
        ViewOnly(school.Umi.Id, school.Umi.Id).ShouldBe(0);

        school.Roster.See(school.Class).Where(r => !r.Posts).Select(r => r.Id).ShouldBe([school.Umi.Id]);
        school.Read(c => Dapper.SqlMapper.ExecuteScalar<int>(c, "SELECT count(*) FROM audit WHERE act = 'set to view only'")).ShouldBe(1);
    }

    [Fact]
    public void Staff_people_off_the_roster_and_classes_in_the_loft_are_refused_and_nobody_is_set()
    {
        Refused(() => ViewOnly()).ShouldBe("missing");
        Refused(() => ViewOnly(school.Umi.Id, school.CoTeacher.Id)).ShouldBe("posting-staff");
        Refused(() => ViewOnly(school.Umi.Id, school.Outsider.Id)).ShouldBe("not-found");
        school.Roster.See(school.Class).ShouldAllBe(r => r.Posts);

        school.Close();
        Refused(() => ViewOnly(school.Umi.Id)).ShouldBe("class-archived");
    }

    [Fact]
    public void It_goes_along_to_another_class_of_the_course_and_is_said_before()
    {
        var other = school.Making.Make(school.OtherTeacher, school.New("Clay", "6C"));
        school.Making.Open(school.OtherTeacher, other, school.Workspace.Head(school.OtherTeacher, other).Version);
        var moving = new MovingSets(school.Premises);
        ViewOnly(school.Umi.Id);

        moving.Preview(school.Coordinator, school.Class, school.Umi.Id, other, false).ViewsOnly.ShouldBeTrue();
        moving.Preview(school.Coordinator, school.Class, school.Rúna.Id, other, false).ViewsOnly.ShouldBeFalse();
        foreach (var who in (Caller[])[school.Umi, school.Rúna]) moving.Move(school.Coordinator, school.Class, who.Id, other, false);

        school.Roster.See(other).Where(r => r.Role == ClassRole.Student).ToDictionary(r => r.Id, r => r.Posts).ShouldBe(new Dictionary<PersonId, bool> { [school.Umi.Id] = false, [school.Rúna.Id] = true }, ignoreOrder: true);
    }

    [Fact]
    public void Who_comes_back_to_the_roster_comes_back_as_they_were()
    {
        ViewOnly(school.Umi.Id);
        school.Roster.Remove(school.Lead, school.Class, school.Umi.Id);

        school.Roster.Enroll(school.Lead, school.Class, [school.Umi.Id], ClassRole.Student);

        school.Roster.See(school.Class).Single(r => r.Id == school.Umi.Id).Posts.ShouldBeFalse();
    }
}
