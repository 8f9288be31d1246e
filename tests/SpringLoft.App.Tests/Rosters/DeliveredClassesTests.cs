using SpringLoft.App.Rosters;
using SpringLoft.Core.Rosters;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Tests.Rosters;

/// <summary>What deliveries do to classes: changed, gone, and bundles that hold changes only.</summary>
public class DeliveredClassesTests : DeliveryTest
{
    private const string Users = "sourcedId,status,role,givenName,familyName,identifier,grades\nt0,active,teacher,Tea,Cher,,\ns0,active,student,Ada,Ash,2000,6\ns1,active,student,Bo,Birch,2001,6\ns2,active,student,Cy,Cedar,2002,6\n";
    private const string Enrollments = "sourcedId,status,classSourcedId,userSourcedId,role,primary\ne0,active,k0,t0,teacher,true\ne1,active,k0,s0,student,false\ne2,active,k0,s1,student,false\ne3,active,k1,t0,teacher,true\ne4,active,k1,s2,student,false\ne5,active,k1,s1,student,false\n";
    private const string Courses = "sourcedId,title\nc0,Weaving\n";

    private static string Classes(string k0 = "k0,active,Weaving,c0,6A,1,Room 4", string k1 = "k1,active,Weaving,c0,6B,2,Room 5") => $"sourcedId,status,title,courseSourcedId,classCode,periods,location\n{k0}\n{k1}\n";

    private async Task<long> Send(string name, params (string Name, string Text)[] files) => await deliveries.Receive(school.Coordinator, school.Years[0].Id, name, Zip.Of(files), CancellationToken.None);

    private Task<long> Whole(string classes, string enrollments = Enrollments) => Send("whole.zip", ("users.csv", Users), ("courses.csv", Courses), ("classes.csv", classes), ("enrollments.csv", enrollments));

    private ClassRow Class(string record) => school.Read(c => ClassStore.OfYear(c, school.Years[0].Id)).Single(k => k.RecordId == record);

    private string[] Students(ClassId k) => [.. school.Read(c => RosterStore.Members(c, k)).Where(m => m.Role == ClassRole.Student && m.LeftAt is null).Select(m => m.Given).Order(StringComparer.Ordinal)];

    [Fact]
    public async Task Section_period_and_room_follow_the_records_and_the_name_its_pattern_and_all_is_taken_back()
    {
        Apply(await Whole(Classes()));
        var before = State();
        var (was, version) = (Class("k0").Name, Class("k0").Version);
        var id = await Whole(Classes(k0: "k0,active,Weaving,c0,6D,4,Boat shed"));

        var change = deliveries.Changes(id, ChangeKind.ChangedClass, null, null, null, 0).Changes.ShouldHaveSingleItem();
        change.ClassName.ShouldBe(was);
        new[] { "6D", "4", "Boat shed" }.ShouldAllBe(said => change.Why.Contains(said, StringComparison.Ordinal));
        Apply(id).Changes.ShouldBe(1);

        Class("k0").ShouldSatisfyAllConditions(k => k.Section.ShouldBe("6D"), k => k.Period.ShouldBe("4"), k => k.Room.ShouldBe("Boat shed"), k => k.Version.ShouldBeGreaterThan(version));
        applying.TakeBack(school.Coordinator, id).Left.ShouldBeEmpty();
        State().ShouldBe(before);
    }

    [Fact]
    public async Task A_class_that_is_gone_waits_for_a_yes_then_stays_with_everybody_and_follows_the_records_no_longer()
    {
        Apply(await Whole(Classes()));
        var before = State();
        var k1 = Class("k1").Id;
        var id = await Whole("sourcedId,title,courseSourcedId,classCode,periods,location\nk0,Weaving,c0,6A,1,Room 4\n", Enrollments[..Enrollments.IndexOf("e3", StringComparison.Ordinal)]);

        var gone = deliveries.See(id).Holds.Single(h => h.Kind == HoldKind.ClassGone);
        gone.Text.ShouldContain("would stay with everything and everybody in it");
        Refused(() => Apply(id)).ShouldBe("delivery-nothing");
        foreach (var h in deliveries.See(id).Holds) deliveries.Decide(school.Coordinator, id, h.Key, HoldDecision.Yes, null);
        Apply(id);

        school.Read(c => ClassStore.Find(c, k1))!.RecordId.ShouldBeNull();
        Students(k1).ShouldBe(["Bo", "Cy"]);
        // Sent once more, it touches nothing of it: its roster is its teachers' own.
        deliveries.See(await Whole("sourcedId,title,courseSourcedId,classCode,periods,location\nk0,Weaving,c0,6A,1,Room 4\n", Enrollments[..Enrollments.IndexOf("e3", StringComparison.Ordinal)])).Summary.Changes.ShouldBeEmpty();
        applying.TakeBack(school.Coordinator, id);
        State().ShouldBe(before);
    }

    [Fact]
    public async Task A_bundle_of_changes_only_touches_what_it_names()
    {
        Apply(await Whole(Classes()));
        const string manifest = "propertyName,value\nmanifest.version,1.0\noneroster.version,1.1\nfile.users,delta\nfile.classes,delta\nfile.enrollments,delta\n";

        var id = await Send("delta.zip", ("manifest.csv", manifest),
            ("users.csv", "sourcedId,status,role,givenName,familyName,identifier,grades\ns3,active,student,Di,Dogwood,2003,6\n"),
            ("classes.csv", "sourcedId,status,title,courseSourcedId,classCode,periods\n"),
            ("enrollments.csv", "sourcedId,status,classSourcedId,userSourcedId,role,primary\ne6,active,k1,s3,student,false\ne2,tobedeleted,k0,s1,student,false\n"));

        deliveries.See(id).Summary.Changes.ShouldBe(new Dictionary<ChangeKind, int> { [ChangeKind.NewPerson] = 1, [ChangeKind.Joins] = 1, [ChangeKind.Leaves] = 1 }, ignoreOrder: true);
        deliveries.See(id).Holds.ShouldBeEmpty();
        Apply(id);
        Students(Class("k0").Id).ShouldBe(["Ada"]);
        Students(Class("k1").Id).ShouldBe(["Bo", "Cy", "Di"]);
    }

    [Fact]
    public async Task Who_is_on_another_roster_by_the_time_it_is_taken_back_is_inactive_and_not_gone()
    {
        var id = await Whole(Classes());
        Apply(id);
        var ada = school.Read(DeliveredStore.People).Single(p => p.RecordId == "s0").Id;
        school.Roster.Enroll(school.Lead, school.Class, [ada], ClassRole.Student);

        applying.TakeBack(school.Coordinator, id).Left.ShouldHaveSingleItem().ShouldStartWith("Ash, Ada is known elsewhere by now");

        school.Read(DeliveredStore.People).Single(p => p.Id == ada).Active.ShouldBeFalse();
        school.Roster.See(school.Class).ShouldContain(r => r.Id == ada);
        school.Read(DeliveredStore.People).ShouldNotContain(p => p.StudentNumber == "2001");
    }

    [Fact]
    public async Task Set_aside_nothing_comes_of_it_and_its_file_can_be_fetched_as_it_came()
    {
        var before = State();
        var bytes = Zip.Of(("users.csv", Users)).ToArray();
        var id = await deliveries.Receive(school.Coordinator, school.Years[0].Id, "people.zip", new MemoryStream(bytes), CancellationToken.None);

        deliveries.SetAside(school.Coordinator, id);

        deliveries.See(id).Summary.State.ShouldBe(DeliveryState.SetAside);
        Refused(() => Apply(id)).ShouldBe("delivery-settled");
        State().ShouldBe(before);
        var source = deliveries.Source(id);
        source.Name.ShouldBe("people.zip");
        using var content = source.Content;
        var came = new MemoryStream();
        await content.CopyToAsync(came);
        came.ToArray().ShouldBe(bytes);
    }
}
