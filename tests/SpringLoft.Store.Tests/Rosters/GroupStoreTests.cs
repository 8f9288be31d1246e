using SpringLoft.Core;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Rosters;

namespace SpringLoft.Store.Tests.Rosters;

public class GroupStoreTests : StoreTest
{
    private PersonId Student(string given, string number) => Db.Write(c =>
    {
        var id = Person(c, SchoolRole.Student, given, "Ravndal", $"s{number}", number);
        RosterStore.Put(c, Class, id, ClassRole.Student, At);
        return id;
    });

    private GroupId Add(string name) => Db.Write(c => GroupStore.Add(c, Class, name));

    [Fact]
    public void Groups_stand_in_the_order_in_which_they_were_made_and_no_two_are_called_alike()
    {
        Add("Zeta");
        var gone = Add("Alpha");

        Should.Throw<Microsoft.Data.Sqlite.SqliteException>(() => Add("ALPHA"));
        Db.Read(c => GroupStore.OfClass(c, Class)).Select(g => g.Name).ShouldBe(["Zeta", "Alpha"]);
        Db.Write(c => GroupStore.Bin(c, gone, At));
        Add("Alpha");
        Db.Read(c => GroupStore.OfClass(c, Class)).Count.ShouldBe(2);
    }

    [Fact]
    public void Who_left_the_class_is_in_no_group_of_it_until_they_come_back()
    {
        var (umi, runa) = (Student("Umi", "1001"), Student("Rúna", "1002"));
        var crew = Add("Crew");
        Db.Write(c => GroupStore.SetMembers(c, crew, [umi, runa, umi]));

        Db.Write(c => RosterStore.Leave(c, Class, umi, At));
        Db.Read(c => GroupStore.Members(c, Class))[crew].ShouldBe([runa]);

        Db.Write(c => RosterStore.Put(c, Class, umi, ClassRole.Student, At));
        Db.Read(c => GroupStore.Members(c, Class))[crew].ShouldBe([umi, runa], ignoreOrder: true);
        Db.Read(c => GroupStore.Of(c, Class, umi)).ShouldBe([crew]);
    }

    [Fact]
    public void A_group_is_renamed_only_at_the_version_that_was_seen()
    {
        var crew = Add("Crew");

        Db.Write(c => GroupStore.Rename(c, crew, "Port crew", 1)).ShouldBeTrue();
        Db.Write(c => GroupStore.Rename(c, crew, "Other", 1)).ShouldBeFalse();
        Db.Read(c => GroupStore.OfClass(c, Class)).Single().ShouldSatisfyAllConditions(g => g.Name.ShouldBe("Port crew"), g => g.Version.ShouldBe(2));
    }

    [Fact]
    public void In_a_binned_group_is_nobody()
    {
        var umi = Student("Umi", "1001");
        var crew = Add("Crew");
        Db.Write(c => GroupStore.AddMember(c, crew, umi));

        Db.Write(c => GroupStore.Bin(c, crew, At));

        Db.Read(c => GroupStore.Of(c, Class, umi)).ShouldBeEmpty();
        Db.Read(c => GroupStore.Members(c, Class)).ShouldBeEmpty();
    }
}
