using SpringLoft.Core.Workspaces;

namespace SpringLoft.Core.Tests.Workspaces;

public class PermissionsTests
{
    [Theory]
    [InlineData(SchoolRole.Coordinator, null, false, Standing.Coordinator)]
    [InlineData(SchoolRole.Teacher, ClassRole.Lead, false, Standing.Lead)]
    [InlineData(SchoolRole.Teacher, ClassRole.CoTeacher, false, Standing.CoTeacher)]
    [InlineData(SchoolRole.Teacher, null, false, Standing.SignedIn)]
    [InlineData(SchoolRole.Teacher, ClassRole.Lead, true, Standing.SignedIn)]
    [InlineData(SchoolRole.Student, ClassRole.Student, false, Standing.Student)]
    [InlineData(SchoolRole.Student, ClassRole.Student, true, Standing.Left)]
    [InlineData(SchoolRole.Student, null, false, Standing.SignedIn)]
    // Crossed in the school since: the place of before gives nothing but what was theirs.
    [InlineData(SchoolRole.Teacher, ClassRole.Student, false, Standing.Left)]
    [InlineData(SchoolRole.Student, ClassRole.Lead, false, Standing.SignedIn)]
    [InlineData(SchoolRole.Student, ClassRole.CoTeacher, false, Standing.SignedIn)]
    public void The_place_in_a_class_follows_from_role_and_roster(SchoolRole role, ClassRole? inClass, bool left, Standing standing) =>
        Permissions.StandingOf(role, inClass, left).ShouldBe(standing);

    [Fact]
    public void A_co_teacher_does_all_in_a_class_but_put_plans_open_close_and_roll_over()
    {
        var lead = Enum.GetValues<Act>().Where(a => Permissions.InClass(Standing.Lead, a));
        var co = Enum.GetValues<Act>().Where(a => Permissions.InClass(Standing.CoTeacher, a));

        lead.Except(co).ShouldBe([Act.PutPlan, Act.OfferLead, Act.OpenClass, Act.CloseClass, Act.RollOver]);
    }

    [Fact]
    public void Who_left_only_takes_home() => Enum.GetValues<Act>().Where(a => Permissions.InClass(Standing.Left, a)).ShouldBe([Act.TakeHome]);

    [Fact]
    public void A_student_never_marks_arranges_or_sees_the_board()
    {
        Permissions.InClass(Standing.Student, Act.Mark).ShouldBeFalse();
        Permissions.InClass(Standing.Student, Act.Arrange).ShouldBeFalse();
        Permissions.InSchool(SchoolRole.Student, Act.SeeBoard).ShouldBeFalse();
        Permissions.InSchool(SchoolRole.Student, Act.SearchDirectory).ShouldBeFalse();
    }

    [Fact]
    public void Only_a_coordinator_reads_the_audit_trail() =>
        Enum.GetValues<SchoolRole>().Where(r => Permissions.InSchool(r, Act.SeeAudit)).ShouldBe([SchoolRole.Coordinator]);

    [Fact]
    public void No_act_in_a_class_is_open_to_who_is_not_in_it()
    {
        foreach (var act in Enum.GetValues<Act>().Where(Permissions.IsAboutClass)) Permissions.InClass(Standing.SignedIn, act).ShouldBeFalse();
    }

    [Fact]
    public void Every_act_stands_in_the_table_once() => Permissions.All.Select(p => p.Act).Order().ShouldBe(Enum.GetValues<Act>().Order());

    [Fact]
    public void The_page_for_people_says_what_the_table_says()
    {
        var page = File.ReadAllLines(Path.Combine(AppContext.BaseDirectory, "../../../../../docs/permissions.md")).Where(l => l.StartsWith("| `", StringComparison.Ordinal)).Select(l => string.Join('|', l.Split('|')[..5])).ToList();

        page.ShouldBe(Permissions.All.Select(p => $"| `{p.Act}` | {p.Scope.ToString().ToLowerInvariant()} | {Who(p)} | {(p.AsksAgain ? "yes" : "")} "));
    }

    private static string Who(Permission p) => p switch
    {
        { Most: Standing.Student } => "its students",
        { Scope: ActScope.Class, Least: Standing.Student } => "whoever is in the class",
        { Scope: ActScope.Class, Least: Standing.Left } => "whoever is or was a student of the class",
        { Scope: ActScope.Class, Least: Standing.CoTeacher } => "its staff, coordinators",
        { Scope: ActScope.Class, Least: Standing.Coordinator } => "coordinators",
        { Scope: ActScope.Class } => "its lead teachers, coordinators",
        { Roles.Count: 1 } => "coordinators",
        { Roles.Count: 2 } => "teachers, coordinators",
        { Roles.Count: 3 } => "staff",
        _ => "everybody who signs in",
    };
}
