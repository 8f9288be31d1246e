using SpringLoft.Core.Rosters;
using SpringLoft.Core.Workspaces;

namespace SpringLoft.Core.Tests.Rosters;

public class EnrollingTests
{
    private static readonly Candidate Student = new(new(1), "Umi", SchoolRole.Student, true, null, false);
    private static readonly Candidate Teacher = new(new(2), "Oisín", SchoolRole.Teacher, true, null, false);

    private static EnrollDecision One(Candidate c, ClassRole role = ClassRole.Student) => Enrolling.Decide([c], role, ClassState.Open).ShouldHaveSingleItem();

    [Fact]
    public void A_student_joins() => One(Student).Outcome.ShouldBe(EnrollOutcome.Joins);

    [Fact]
    public void One_who_left_comes_back() => One(Student with { HasRole = ClassRole.Student, Left = true }).Outcome.ShouldBe(EnrollOutcome.ComesBack);

    [Fact]
    public void One_who_is_here_stays_as_they_are() => One(Student with { HasRole = ClassRole.Student }).Outcome.ShouldBe(EnrollOutcome.AlreadyHere);

    [Theory]
    [InlineData(ClassRole.Student, 0, null)]
    [InlineData(ClassRole.Student, 1, "1 piece of Umi's work is held by the teacher.")]
    [InlineData(ClassRole.Student, 2, "2 pieces of Umi's work are held by the teacher.")]
    [InlineData(ClassRole.CoTeacher, 0, null)]
    [InlineData(ClassRole.Lead, 0, "Umi leads this class.")]
    public void Nobody_comes_off_whose_work_is_held_and_no_lead_teacher(ClassRole role, int held, string? why) => Enrolling.WhyNotOff("Umi", role, held).ShouldBe(why);

    [Fact]
    public void Somebody_named_twice_is_decided_once() => Enrolling.Decide([Student, Student], ClassRole.Student, ClassState.Open).Count.ShouldBe(1);

    [Fact]
    public void Staff_are_not_enrolled_as_students_nor_students_as_co_teachers()
    {
        One(Teacher).ShouldSatisfyAllConditions(d => d.Outcome.ShouldBe(EnrollOutcome.Refused), d => d.Why!.ShouldContain("co-teacher"));
        One(Student, ClassRole.CoTeacher).Outcome.ShouldBe(EnrollOutcome.Refused);
        One(Teacher, ClassRole.CoTeacher).Outcome.ShouldBe(EnrollOutcome.Joins);
    }

    [Fact]
    public void The_lead_teacher_does_not_become_a_co_teacher() =>
        One(Teacher with { HasRole = ClassRole.Lead }, ClassRole.CoTeacher).Why!.ShouldContain("lead teacher");

    [Fact]
    public void Who_left_the_school_is_refused() => One(Student with { Active = false }).Why!.ShouldContain("left the school");

    [Fact]
    public void The_roster_of_an_archived_class_stays_as_it_was() =>
        Should.Throw<RefusedException>(() => Enrolling.Decide([Student], ClassRole.Student, ClassState.Archived)).Refusal.Code.ShouldBe("class-archived");
}
