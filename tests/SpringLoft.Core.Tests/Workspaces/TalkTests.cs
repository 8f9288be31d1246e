using CsCheck;
using SpringLoft.Core.Workspaces;

namespace SpringLoft.Core.Tests.Workspaces;

public class TalkTests
{
    private static readonly GroupId Blue = new(1), Red = new(2);
    private static readonly Talker Student = new(false, false, false, new HashSet<GroupId> { Blue });
    private static readonly Talker Teacher = Student with { Staff = true, Groups = new HashSet<GroupId>() };
    private static readonly TalkFact Place = new(TalkWriters.Readers, null, false);

    private static CantTalk? Of(TalkFact place, Talker who, ClassState state = ClassState.Open) => Talk.WhyNot(place, who, state);

    [Fact]
    public void Everybody_who_reads_writes_unless_it_is_for_staff_or_a_group()
    {
        Of(Place, Student).ShouldBeNull();
        Of(Place with { Writers = TalkWriters.Staff }, Student).ShouldBe(CantTalk.StaffOnly);
        Of(Place with { Writers = TalkWriters.Group, Group = Blue }, Student).ShouldBeNull();
        Of(Place with { Writers = TalkWriters.Group, Group = Red }, Student).ShouldBe(CantTalk.OtherGroup);
        Of(Place with { Writers = TalkWriters.Group, Group = Red }, Teacher).ShouldBeNull();
    }

    [Fact]
    public void Who_reads_only_writes_nowhere_and_staff_are_not_meant()
    {
        Of(Place, Student with { ReadsOnly = true }).ShouldBe(CantTalk.ReadsOnly);
        Of(Place, Student with { ClassReadsOnly = true }).ShouldBe(CantTalk.ClassReadsOnly);
        Of(Place, Teacher with { ReadsOnly = true, ClassReadsOnly = true }).ShouldBeNull();
    }

    [Fact]
    public void In_a_closed_place_and_an_archived_class_nobody_writes() =>
        (from closed in Gen.Bool
         from staff in Gen.Bool
         from reads in Gen.Bool
         from quiet in Gen.Bool
         from writers in Gen.Enum<TalkWriters>()
         from state in Gen.Enum<ClassState>()
         select (closed, who: new Talker(staff, reads, quiet, new HashSet<GroupId>()), writers, state)).Sample(x =>
        {
            var why = Talk.WhyNot(new(x.writers, null, x.closed), x.who, x.state);
            return x.state == ClassState.Archived ? why == CantTalk.Archived : x.closed ? why == CantTalk.Closed : !x.who.Staff || why is null;
        });
}
