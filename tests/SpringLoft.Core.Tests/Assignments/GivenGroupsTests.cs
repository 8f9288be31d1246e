using SpringLoft.Core.Assignments;

namespace SpringLoft.Core.Tests.Assignments;

public class GivenGroupsTests
{
    private static readonly GroupId Red = new(1), Blue = new(2);
    private static readonly PersonId Ada = new(11), Bo = new(12), Cy = new(13);

    private static ILookup<GroupId, PersonId> In(params (GroupId Group, PersonId Person)[] members) => members.ToLookup(m => m.Group, m => m.Person);

    [Fact]
    public void Who_comes_into_a_group_later_does_not_get_what_was_published_before() =>
        GivenGroups.Changed([Red], [Red], [Ada], In((Red, Ada), (Red, Bo))).ShouldBe([Ada]);

    [Fact]
    public void Who_left_the_group_keeps_what_they_had() => GivenGroups.Changed([Red], [Red], [Ada, Bo], In((Red, Bo))).ShouldBe([Ada, Bo], ignoreOrder: true);

    [Fact]
    public void A_group_that_comes_new_brings_all_who_are_in_it() => GivenGroups.Changed([Red], [Red, Blue], [Ada], In((Red, Ada), (Blue, Bo), (Blue, Cy))).ShouldBe([Ada, Bo, Cy], ignoreOrder: true);

    [Fact]
    public void With_a_group_that_goes_those_go_who_are_in_none_that_stays() =>
        GivenGroups.Changed([Red, Blue], [Blue], [Ada, Bo, Cy], In((Red, Ada), (Red, Bo), (Blue, Bo), (Blue, Cy))).ShouldBe([Bo, Cy], ignoreOrder: true);

    [Fact]
    public void Who_joined_since_is_named_once() => GivenGroups.JoinedSince([Red, Blue], [Ada], In((Red, Ada), (Red, Bo), (Blue, Bo))).ShouldBe([Bo]);
}
