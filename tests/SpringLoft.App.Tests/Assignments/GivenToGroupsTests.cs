using SpringLoft.App.Assignments;
using SpringLoft.App.Workspaces;
using SpringLoft.Core.Assignments;
using SpringLoft.Store.Assignments;
using SpringLoft.Store.Rosters;

namespace SpringLoft.App.Tests.Assignments;

/// <summary>Work for groups: whoever is in them when it is published has it, and nobody else; it is never everybody's by mistake.</summary>
public class GivenToGroupsTests : SchoolTest
{
    private readonly GroupId red, blue;

    public GivenToGroupsTests()
    {
        school.OpenClass();
        (red, blue) = school.Premises.Db.Write(c => (GroupStore.Add(c, school.Class, "Red"), GroupStore.Add(c, school.Class, "Blue")));
        Put(red, school.Umi);
    }

    private void Put(GroupId group, params Caller[] people) => school.Premises.Db.Write(c => GroupStore.SetMembers(c, group, people.Select(p => p.Id)));

    private NewAssignment To(bool publish, params GroupId[] groups) => new("Kiln log", "", 20, null, null, null, [school.FolderNamed("Papers")], [], publish, null, Groups: groups);

    private AssignmentId Give(bool publish, params GroupId[] groups) => school.Assigning.Make(school.Lead, school.Class, To(publish, groups)).Id;

    private AssignmentView? Seen(Caller who) => school.Workspace.See(who, school.Class).Assignments.SingleOrDefault(a => a.Title == "Kiln log");

    private int Version => Seen(school.Lead)!.Version;

    private ReturnsColumn Column => school.Returns.See(school.Lead, school.Class).Assignments.Single();

    [Fact]
    public void A_draft_follows_its_group_and_is_published_to_who_is_in_it_then()
    {
        var a = Give(false, red);
        Column.ShouldSatisfyAllConditions(x => x.Given.ShouldBe(1), x => x.Groups.ShouldBe(["Red"]));
        Put(red, school.Rúna);
        Column.Given.ShouldBe(1);

        school.Publishing.Publish(school.Lead, school.Class, a, Version);

        (Seen(school.Umi) is null, Seen(school.Rúna) is not null).ShouldBe((true, true));
        Seen(school.Rúna)!.ShouldSatisfyAllConditions(x => x.Groups.Select(g => g.Name).ShouldBe(["Red"]), x => x.GivenTo.ShouldBeEmpty(), x => x.JoinedSince.ShouldBeEmpty());
        Seen(school.Lead)!.GivenTo.ShouldBeEmpty("nobody has it by name");
    }

    [Fact]
    public void Who_joins_the_group_later_gets_it_only_if_the_teacher_says_so_and_who_leaves_keeps_it()
    {
        var a = Give(true, red);
        Put(red, school.Rúna);

        Seen(school.Rúna).ShouldBeNull();
        Seen(school.Umi).ShouldNotBeNull();
        Seen(school.Lead)!.JoinedSince.ShouldBe([school.Rúna.Id]);
        new Previewing(school.Premises).Preview(school.Lead, school.Class, To(false, red), a).Given.ShouldBe(1, "as it would be saved: for Umi, who had it");
        new Previewing(school.Premises).Preview(school.Lead, school.Class, To(false, red) with { Students = [school.Rúna.Id] }, a).Given.ShouldBe(2);

        // A change of its words gives it to nobody else.
        school.Assigning.Change(school.Lead, school.Class, a, To(false, red) with { Instructions = "Weekly." }, Version);
        Seen(school.Rúna).ShouldBeNull();

        school.Assigning.Change(school.Lead, school.Class, a, To(false, red) with { Students = [school.Rúna.Id] }, Version);
        (Seen(school.Rúna) is not null, Seen(school.Umi) is not null).ShouldBe((true, true));
        Seen(school.Lead)!.JoinedSince.ShouldBeEmpty();
    }

    [Fact]
    public void To_a_group_without_anybody_it_is_given_to_nobody_and_never_to_all()
    {
        Refused(() => Give(true, blue)).ShouldBe("given-to-nobody");
        school.Read(c => AssignmentStore.OfClass(c, school.Class)).ShouldBeEmpty();

        var a = Give(false, blue);
        Column.Given.ShouldBe(0);
        Refused(() => school.Publishing.Publish(school.Lead, school.Class, a, Version)).ShouldBe("given-to-nobody");
        school.Publishing.PublishMany(school.Lead, school.Class, [a]).Unseen.ShouldBe(["Kiln log"]);
        school.Assigning.Change(school.Lead, school.Class, a, To(false, blue) with { PublishAt = school.Premises.Clock.LocalOf(school.Premises.Clock.Now).PlusHours(1) }, Version);
        school.Clock.AdvanceHours(2);
        school.Publishing.Go().ShouldBe(0);
        (Seen(school.Umi), Seen(school.Rúna)).ShouldBe((null, null));

        Put(blue, school.Rúna);
        school.Publishing.Go().ShouldBe(1);
        (Seen(school.Umi) is null, Seen(school.Rúna) is not null).ShouldBe((true, true));
    }

    [Fact]
    public void When_its_only_group_is_taken_away_a_draft_says_so_and_is_given_to_everybody_only_by_hand()
    {
        var a = Give(false, red);
        school.Premises.Db.Write(c => GroupStore.Bin(c, red, school.Premises.Clock.Now));

        Column.ShouldSatisfyAllConditions(x => x.Given.ShouldBe(0), x => x.Groups.ShouldBe(["Red"]));
        Refused(() => school.Publishing.Publish(school.Lead, school.Class, a, Version)).ShouldBe("given-to-nobody");
        school.Assigning.Change(school.Lead, school.Class, a, To(false), Version);
        school.Publishing.Publish(school.Lead, school.Class, a, Version);
        (Seen(school.Umi) is not null, Seen(school.Rúna) is not null).ShouldBe((true, true));
    }

    [Fact]
    public async Task Taken_off_a_group_nobody_loses_their_work_and_back_to_a_draft_it_follows_again()
    {
        var a = Give(true, red);
        school.Publishing.Withdraw(school.Lead, school.Class, a, Version);
        Put(red, school.Umi, school.Rúna);
        school.Publishing.Publish(school.Lead, school.Class, a, Version);
        Seen(school.Rúna).ShouldNotBeNull();

        await school.HandIn(school.Umi, a);
        Refused(() => school.Assigning.Change(school.Lead, school.Class, a, To(false) with { Students = [school.Rúna.Id] }, Version)).ShouldBe("assignment-has-work");
        Refused(() => school.Assigning.Change(school.Lead, school.Class, a, To(false, blue), Version)).ShouldBe("given-to-nobody");
        Put(blue, school.Rúna);
        Refused(() => school.Assigning.Change(school.Lead, school.Class, a, To(false, blue), Version)).ShouldBe("assignment-has-work");
        Seen(school.Umi).ShouldNotBeNull();
    }

    [Fact]
    public async Task What_was_begun_for_a_draft_stays_its_students_whatever_group_they_have_it_by()
    {
        var a = Give(true, red);
        await school.Work.AddFile(school.Umi, school.Class, a, "log.txt", TinySchool.Bytes("x"), CancellationToken.None);
        school.Publishing.Withdraw(school.Lead, school.Class, a, Version);
        Put(blue, school.Umi, school.Rúna);

        school.Assigning.Change(school.Lead, school.Class, a, To(false, blue), Version);
        Refused(() => school.Assigning.Change(school.Lead, school.Class, a, To(false) with { Students = [school.Rúna.Id] }, Version)).ShouldBe("assignment-has-work");

        school.Publishing.Publish(school.Lead, school.Class, a, Version);
        Seen(school.Umi)!.Own!.Files.Count.ShouldBe(1);
    }

    [Fact]
    public void It_is_shown_before_it_goes_to_groups_of_the_class_and_to_one_class_only()
    {
        new Previewing(school.Premises).Preview(school.Lead, school.Class, To(true, red)).Given.ShouldBe(1);
        new Previewing(school.Premises).Preview(school.Lead, school.Class, To(true, blue)).Given.ShouldBe(0);
        Refused(() => Give(true, new GroupId(999))).ShouldBe("not-found");
        var other = school.Making.Make(school.Lead, school.New("Clay", "6C"));
        Refused(() => school.Assigning.Make(school.Lead, school.Class, To(true, red) with { AlsoIn = [other] })).ShouldBe("given-by-name");
    }
}
