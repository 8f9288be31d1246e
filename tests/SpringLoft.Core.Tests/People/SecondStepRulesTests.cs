using SpringLoft.Core.People;
using SpringLoft.Core.Workspaces;

namespace SpringLoft.Core.Tests.People;

public class SecondStepRulesTests
{
    private static readonly Instant Now = Instant.FromUtc(2027, 6, 7, 8, 0);

    [Theory]
    [InlineData(SecondStepFor.Nobody, SchoolRole.Coordinator, false, false, Door.Open)]
    [InlineData(SecondStepFor.Coordinators, SchoolRole.Coordinator, false, false, Door.StepToSetUp)]
    [InlineData(SecondStepFor.Coordinators, SchoolRole.Teacher, false, false, Door.Open)]
    [InlineData(SecondStepFor.Staff, SchoolRole.Teacher, false, false, Door.StepToSetUp)]
    [InlineData(SecondStepFor.Staff, SchoolRole.Staff, false, false, Door.StepToSetUp)]
    [InlineData(SecondStepFor.Staff, SchoolRole.Student, false, false, Door.Open)]
    [InlineData(SecondStepFor.Nobody, SchoolRole.Teacher, true, false, Door.StepNeeded)]
    [InlineData(SecondStepFor.Staff, SchoolRole.Coordinator, true, false, Door.StepNeeded)]
    [InlineData(SecondStepFor.Staff, SchoolRole.Coordinator, true, true, Door.Open)]
    public void How_far_in_somebody_is(SecondStepFor rule, SchoolRole role, bool has, bool shown, Door door) => SecondStepRules.Of(rule, role, has, shown ? Now : null).ShouldBe(door);

    [Fact]
    public void It_is_asked_again_after_ten_minutes_and_only_of_whoever_has_one()
    {
        SecondStepRules.IsAskedAgain(has: true, Now, Now + Duration.FromMinutes(9)).ShouldBeFalse();
        SecondStepRules.IsAskedAgain(has: true, Now, Now + Duration.FromMinutes(10)).ShouldBeTrue();
        SecondStepRules.IsAskedAgain(has: true, null, Now).ShouldBeTrue();
        SecondStepRules.IsAskedAgain(has: false, null, Now).ShouldBeFalse();
    }

    [Fact]
    public void Before_it_is_shown_nothing_is_open_but_the_door_itself() =>
        Enum.GetValues<Act>().Where(a => Permissions.IsOpenTo(a, Door.StepNeeded)).ShouldBe([Act.PassDoor]);

    [Fact]
    public void Who_is_still_to_set_one_up_can_do_that_and_no_more() =>
        Enum.GetValues<Act>().Where(a => Permissions.IsOpenTo(a, Door.StepToSetUp)).ShouldBe([Act.PassDoor, Act.OwnSignIn, Act.SetUpSecondStep]);

    [Fact]
    public void A_recovery_code_is_made_of_signs_that_are_not_taken_for_each_other_and_read_whatever_its_dashes()
    {
        var n = 0;
        var code = RecoveryCode.Make(_ => n++ % 32);
        code.ShouldBe("abcd-efgh-ijkm-npqr");
        RecoveryCode.Key("ABCD efgh-ijkmnpqr").ShouldBe("abcdefghijkmnpqr");
        RecoveryCode.Key("abcd-efgh-ijkm-npq").ShouldBeNull();
        RecoveryCode.Key("abcd-efgh-ijkm-npql").ShouldBeNull("there is no l in any");
        Enumerable.Range(0, 1000).Select(i => RecoveryCode.Make(new Random(i).Next)).Distinct().Count().ShouldBe(1000);
    }
}
