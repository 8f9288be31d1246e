using SpringLoft.Core.Assignments;
using SpringLoft.Core.Plans;

namespace SpringLoft.Core.Tests.Assignments;

public class MatchingPlaceTests
{
    private static PlacedFolder Folder(long id, long? parent, string name, string? key = null, bool ofSome = false) =>
        new(new(id), parent is { } p ? new FolderId(p) : null, name, key is null ? null : FolderKey.Parse(key), ofSome);

    private static readonly PlacedFolder[] Here = [Folder(1, null, "Units", "units"), Folder(2, 1, "Week 7", "units/w7"), Folder(3, null, "Umi", "own", ofSome: true), Folder(4, 3, "Drafts"), Folder(5, null, "Extra")];

    private static long? Of(long folder, params PlacedFolder[] there) => MatchingPlace.Of(new(folder), Here, there)?.Value;

    [Fact]
    public void It_belongs_where_the_same_names_lead_whatever_their_case() =>
        Of(2, Folder(10, null, "UNITS"), Folder(11, 10, "week 7"), Folder(12, null, "Week 7")).ShouldBe(11);

    [Fact]
    public void Else_at_the_same_place_of_the_plan() => Of(2, Folder(10, null, "Themes", "units"), Folder(11, 10, "Seventh week", "units/w7")).ShouldBe(11);

    [Fact]
    public void Names_come_before_the_plan() => Of(5, Folder(10, null, "Other", "units"), Folder(11, null, "Extra")).ShouldBe(11);

    [Fact]
    public void What_is_somebodys_has_no_like_and_nothing_is_guessed()
    {
        Of(4, Folder(10, null, "Umi", "own"), Folder(11, 10, "Drafts")).ShouldBeNull();
        Of(5, Folder(10, null, "Extra", ofSome: true)).ShouldBeNull();
        Of(2, Folder(10, null, "Week 7")).ShouldBeNull();
        Of(99, Folder(10, null, "Extra")).ShouldBeNull();
    }
}
