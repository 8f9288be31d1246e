using SpringLoft.App.People;
using SpringLoft.Core.Assignments;
using SpringLoft.Core.People;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.People;

namespace SpringLoft.App.Tests.People;

public class SchoolDirectoryTests : SchoolTest
{
    private SchoolDirectory Directory => new(school.Premises);

    private Leavers Leavers => new(school.Premises);

    private static PersonDraft Draft(string given, string family, string? number = null, string? grade = "6", SchoolRole role = SchoolRole.Student, string? email = null) => new(given, family, role, grade, number, email, null);

    private IReadOnlyList<string> Found(DirectoryAsk ask) => [.. Directory.See(ask).People.Select(p => p.SortName)];

    private static DirectoryAsk Ask(string? text = null) => new() { Text = text };

    [Theory]
    [InlineData("hall", "Hallgrímsson, Umi")]
    [InlineData("um hal", "Hallgrímsson, Umi")]
    [InlineData("1003", "Yılmaz, Tāne")]
    [InlineData("tane", "Yılmaz, Tāne")]
    [InlineData("other@", "Castellan, Ngozi")]
    public void People_are_found_by_the_first_letters_of_what_one_remembers(string text, string who) => Found(Ask(text)).ShouldBe([who]);

    [Fact]
    public async Task Two_accounts_that_share_a_closed_class_and_a_take_home_of_it_are_joined_and_taken_apart()
    {
        var twin = school.Add("twin", SchoolRole.Student, "Umi", "Hallgrimsson", "2001");
        school.Roster.Enroll(school.Lead, school.Class, [twin.Id], ClassRole.Student);
        school.OpenClass();
        var a = school.Assign();
        await school.HandIn(school.Umi, a, "umi's");
        await school.HandIn(twin, a, "twin's");
        school.Returns.ReturnAll(school.Lead, school.Class, null, true, null);
        school.Close().State.ShouldBe(Core.Closing.StepState.Done);
        string Packages() => school.Read(c => Dapper.SqlMapper.ExecuteScalar<string>(c, "SELECT group_concat(student_id || ' ' || sha256 ORDER BY id) FROM package WHERE student_id IS NOT NULL"))!;
        var before = Packages();

        Directory.Join(school.Coordinator, school.Umi.Id, twin.Id);
        Packages().ShouldBe(before, "each keeps the one that was made for them");
        Directory.UndoJoin(school.Coordinator, Directory.Joins().Single().Id);

        Packages().ShouldBe(before);
    }

    [Fact]
    public void Filters_narrow_by_grade_role_class_and_by_being_in_none()
    {
        school.OpenClass();

        Found(Ask() with { Role = SchoolRole.Student }).Count.ShouldBe(3);
        Found(Ask() with { ClassId = school.Class.Value, Role = SchoolRole.Student }).ShouldBe(["Hallgrímsson, Umi", "Ravndal, Rúna"]);
        Found(Ask() with { InNoClass = true, Role = SchoolRole.Student }).ShouldBe(["Yılmaz, Tāne"]);
        Found(Ask() with { Grade = "7" }).ShouldBeEmpty();
        Directory.See(Ask("umi")).People.Single().Classes.Count.ShouldBe(1);
    }

    [Fact]
    public void Before_somebody_is_added_it_is_looked_who_they_might_be()
    {
        Directory.Look(Draft("Umi", "Hallgrimsson")).Knowledge.ShouldBe(Knowledge.Known);
        Directory.Look(Draft("Umi", "Halgrímsson")).ShouldSatisfyAllConditions(l => l.Knowledge.ShouldBe(Knowledge.Possible), l => l.People.Single().Id.ShouldBe(school.Umi.Id));
        Directory.Look(Draft("Nobody", "Known", "4711")).ShouldSatisfyAllConditions(l => l.Knowledge.ShouldBe(Knowledge.Unknown), l => l.UserName.ShouldBe("nknown4711"));
    }

    [Fact]
    public void One_who_may_be_known_is_added_only_on_a_yes_and_one_with_a_known_number_never()
    {
        Refused(() => Directory.Add(school.Lead, Draft("Umi", "Halgrímsson"), false)).ShouldBe("person-maybe-known");
        Directory.Add(school.Lead, Draft("Umi", "Halgrímsson", "1999"), true);
        Refused(() => Directory.Add(school.Lead, Draft("Someone", "Else", "1001"), true)).ShouldBe("person-known");
        Refused(() => Directory.Add(school.Lead, Draft("New", "Boss", role: SchoolRole.Coordinator), false)).ShouldBe("role-coordinator");
    }

    [Fact]
    public void Somebody_added_signs_in_by_the_schools_rules_and_the_slip_has_the_first_password()
    {
        var id = Directory.Add(school.Lead, Draft("Öykü", "Žem\u202Eaitis", "2001"), false);
        school.Roster.Enroll(school.Lead, school.Class, [id], ClassRole.Student);
        var slip = new Slips(school.Premises).Show(school.Lead, school.Class, [id]).Single();

        slip.UserName.ShouldBe("ozemaitis2001");
        school.SignIn(slip.UserName, slip.Phrase).Me.MustChangePassword.ShouldBeTrue();
    }

    [Fact]
    public void Leavers_can_not_sign_in_and_never_vanish_and_moving_school_keeps_the_account()
    {
        Leavers.Mark(school.Coordinator, [school.Umi.Id], false);
        Refused(() => school.SignIn("umi", TinySchool.Password)).ShouldBe("sign-in-wrong");
        Found(Ask("umi")).ShouldBeEmpty();
        Found(Ask("umi") with { Gone = true }).Count.ShouldBe(1);
        Leavers.BringBack(school.Coordinator, [school.Umi.Id]);
        Directory.Change(school.Coordinator, school.Umi.Id, Draft("Umi", "Hallgrímsson", "1001") with { School = "North Point" });

        school.SignIn("umi", TinySchool.Password).Me.Id.ShouldBe(school.Umi.Id);
        Directory.See(Ask("umi")).People.Single().School.ShouldBe("North Point");
    }

    [Fact]
    public async Task Who_leaves_the_school_comes_off_their_rosters_but_for_where_a_teacher_holds_their_work()
    {
        school.OpenClass();
        var other = school.Making.Make(school.OtherTeacher, school.New("Tides"));
        school.Roster.Enroll(school.OtherTeacher, other, [school.Umi.Id, school.Rúna.Id], ClassRole.Student);
        await school.HandIn(school.Umi, school.Assign("Pot"));
        Leavers.Preview([school.Umi.Id, school.Rúna.Id]).Select(p => (p.SortName, p.Class, p.WhyNot)).ShouldBe([
            ("Hallgrímsson, Umi", school.Class, "1 piece of Umi Hallgrímsson's work is held by the teacher."), ("Hallgrímsson, Umi", other, null), ("Ravndal, Rúna", school.Class, null), ("Ravndal, Rúna", other, null)]);

        var report = Leavers.Mark(school.Coordinator, [school.Umi.Id, school.Rúna.Id], true);

        (report.People, report.Off).ShouldBe((2, 3));
        report.Stays.ShouldHaveSingleItem().Class.ShouldBe(school.Class);
        Leavers.Preview([school.Umi.Id, school.Rúna.Id]).ShouldHaveSingleItem().Class.ShouldBe(school.Class);
        school.Roster.See(other).Where(r => r.Left is null).ShouldNotContain(r => r.Role == ClassRole.Student);
        school.Returns.See(school.Coordinator, school.Class).Held.ShouldBe(1);
        // Back again, they are put on rosters by hand.
        Leavers.BringBack(school.Coordinator, [school.Rúna.Id]).People.ShouldBe(1);
        school.Roster.Enroll(school.OtherTeacher, other, [school.Rúna.Id], ClassRole.Student).Joined.ShouldBe(1);
    }

    [Fact]
    public void Only_marked_they_stay_on_their_rosters_and_a_class_keeps_its_lead()
    {
        school.OpenClass();

        Leavers.Mark(school.Coordinator, [school.Umi.Id], false).Off.ShouldBe(0);
        Leavers.Mark(school.Coordinator, [school.Lead.Id], true).Stays.ShouldHaveSingleItem().WhyNot.ShouldBe("Oisín Farquhar leads this class.");

        school.Roster.See(school.Class).Where(r => r.Left is null).Select(r => r.Id).ShouldBe([school.Lead.Id, school.CoTeacher.Id, school.Umi.Id, school.Rúna.Id], ignoreOrder: true);
        Refused(() => Leavers.Mark(school.Coordinator, [.. Enumerable.Range(1, 501).Select(i => new Core.PersonId(i))], true)).ShouldBe("too-many");
    }

    [Fact]
    public void Staff_are_given_another_role_in_one_act_and_who_has_it_already_is_not_noted()
    {
        Directory.SetRole(school.Coordinator, [school.Lead.Id, school.OtherTeacher.Id, school.Coordinator.Id], SchoolRole.Coordinator).ShouldBe(2);

        Found(Ask() with { Role = SchoolRole.Coordinator }).Count.ShouldBe(3);
        school.Read(c => Dapper.SqlMapper.ExecuteScalar<int>(c, "SELECT count(*) FROM audit WHERE act = 'changed role'")).ShouldBe(2);
        Directory.SetRole(school.Coordinator, [school.Lead.Id], SchoolRole.Staff).ShouldBe(1);
        school.OpenClass();
        school.Workspace.Head(school.Lead, school.Class).Name.ShouldNotBeEmpty("in a class they keep the place they have");
    }

    [Fact]
    public void What_would_hurt_is_refused()
    {
        Refused(() => Leavers.Mark(school.Coordinator, [school.Coordinator.Id], false)).ShouldBe("role-coordinator");
        Refused(() => Directory.SetRole(school.Coordinator, [school.Umi.Id], SchoolRole.Teacher)).ShouldBe("role-crosses");
        Refused(() => Directory.SetRole(school.Coordinator, [school.Coordinator.Id], SchoolRole.Teacher)).ShouldBe("role-coordinator");
        Refused(() => Directory.Change(school.Coordinator, school.Umi.Id, Draft("Umi", "Hall", "1002"))).ShouldBe("number-taken");
        Refused(() => Directory.Join(school.Coordinator, school.Umi.Id, school.Lead.Id)).ShouldBe("role-crosses");
        Refused(() => Directory.Join(school.Coordinator, school.Umi.Id, school.Umi.Id)).ShouldBe("join-same");
    }

    [Fact]
    public async Task Joined_into_one_everything_of_both_is_the_ones_and_taken_apart_each_has_their_own_again()
    {
        school.OpenClass();
        var twin = school.Add("umi2", SchoolRole.Student, "Umi", "Halgrímsson");
        var both = school.Assign("Both");
        school.Roster.Enroll(school.Lead, school.Class, [twin.Id], ClassRole.Student, includeOpen: true);
        await school.HandIn(school.Umi, both, "umi's");
        await school.HandIn(twin, both, "the twin's");
        var onlyTwin = school.Assign("Only the twin");
        await school.HandIn(twin, onlyTwin);
        var other = school.Making.Make(school.OtherTeacher, school.New("Tides"));
        school.Roster.Enroll(school.OtherTeacher, other, [twin.Id], ClassRole.Student);
        var before = All();
        Directory.Duplicates().Select(d => (d.A.Id, d.B.Id)).ShouldBe([(school.Umi.Id, twin.Id)]);

        Directory.Join(school.Coordinator, school.Umi.Id, twin.Id);

        Directory.Duplicates().ShouldBeEmpty();
        var row = school.Returns.See(school.Coordinator, school.Class).Students.Single(s => s.Student == school.Umi.Id);
        row.Cells.Select(x => (x.Assignment, x.State, x.Files)).ShouldBe([(both, WorkState.HandedIn, 2), (onlyTwin, WorkState.HandedIn, 1)], ignoreOrder: true);
        school.Roster.See(other).ShouldContain(r => r.Id == school.Umi.Id && r.HasFolder);
        school.Returns.See(school.Coordinator, school.Class).Held.ShouldBe(2);
        Refused(() => school.SignIn("umi2", TinySchool.Password)).ShouldBe("sign-in-wrong");

        Directory.UndoJoin(school.Coordinator, Directory.Joins().Single().Id);
        All().ShouldBe(before);
        school.SignIn("umi2", TinySchool.Password);
    }

    [Fact]
    public void The_number_of_a_joined_account_is_the_one_s_who_was_kept_and_nobody_else_s()
    {
        var twin = school.Add("umi2", SchoolRole.Student, "Umi", "Halgrímsson", "1999");
        Directory.Join(school.Coordinator, school.Umi.Id, twin.Id);

        Refused(() => Directory.Change(school.Coordinator, school.Rúna.Id, Draft("Rúna", "Ravndal", "1999"))).ShouldBe("number-taken");
        Directory.Change(school.Coordinator, school.Umi.Id, Draft("Umi", "Hallgrímsson", "1999"));
        Directory.See(Ask("umi")).People.Single().StudentNumber.ShouldBe("1999");

        Directory.UndoJoin(school.Coordinator, Directory.Joins().Single().Id);
        Directory.See(Ask("umi")).People.Select(p => p.StudentNumber).ShouldBe(["1999", "1001"], ignoreOrder: true);
    }

    [Fact]
    public void Who_was_joined_into_another_is_joined_with_nobody_and_a_chain_of_joins_leads_to_the_last()
    {
        var (second, third) = (school.Add("umi2", SchoolRole.Student, "Umi", "Halgrímsson"), school.Add("umi3", SchoolRole.Student, "Umi", "Hallgrimson"));
        PersonId? Into(Caller who) => school.Read(c => Store.People.PersonJoinStore.Into(c, who.Id));
        Directory.Join(school.Coordinator, second.Id, third.Id);

        var refusal = Should.Throw<RefusedException>(() => Directory.Join(school.Coordinator, third.Id, second.Id)).Refusal;
        (refusal.Code, refusal.Field).ShouldBe(("join-gone", "kept"));
        Refused(() => Directory.Join(school.Coordinator, school.Umi.Id, third.Id)).ShouldBe("join-gone");

        Directory.Join(school.Coordinator, school.Umi.Id, second.Id);
        (Into(second), Into(third)).ShouldBe((school.Umi.Id, school.Umi.Id));
        Refused(() => new Leavers(school.Premises).BringBack(school.Coordinator, [third.Id])).ShouldBe("join-gone");
        Directory.UndoJoin(school.Coordinator, Directory.Joins()[0].Id);
        (Into(second), Into(third)).ShouldBe((null, second.Id));
    }

    [Fact]
    public void Of_two_who_are_two_nothing_more_is_said()
    {
        var twin = school.Add("umi2", SchoolRole.Student, "Umi", "Hallgrimsson");
        Directory.SetApart(school.Coordinator, twin.Id, school.Umi.Id);

        Directory.Duplicates().ShouldBeEmpty();
    }

    [Fact]
    public void The_rule_for_first_passwords_is_the_schools_and_slips_follow_it()
    {
        var seen = Directory.SeeFirstPasswords(null);
        seen.Warning.ShouldBeNull();
        Directory.SeeFirstPasswords("{family}-{student number}").Warning.ShouldNotBeNull();
        Directory.SetFirstPasswords(school.Coordinator, "{word}+{word}+{digit}{digit}{digit}", seen.Version);
        Refused(() => Directory.SetFirstPasswords(school.Coordinator, "{word}{word}", seen.Version)).ShouldBe("changed-meanwhile");
        school.OpenClass();
        new Slips(school.Premises).Renew(school.Coordinator, school.Class, [school.Umi.Id]);

        new Slips(school.Premises).Show(school.Coordinator, school.Class, [school.Umi.Id]).Single().Phrase.ShouldMatch(@"^[a-z]+\+[a-z]+\+\d{3}$");
    }

    // Everything that may belong to a person, as text; versions aside.
    private string All() => school.Read(c => string.Join("\n", new[] { "person", "member", "folder", "work", "work_file", "work_comment", "item", "group_member", "assignment_given" }.SelectMany(t =>
        Dapper.SqlMapper.Query(c, $"SELECT * FROM {t}").Select(r => string.Join("|", ((IDictionary<string, object?>)r).Where(x => x.Key != "version").Select(x => $"{t}.{x.Key}={x.Value}"))).Order(StringComparer.Ordinal))));
}
