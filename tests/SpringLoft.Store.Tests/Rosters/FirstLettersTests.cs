using Dapper;
using SpringLoft.Core;
using SpringLoft.Core.People;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.People;
using SpringLoft.Store.Rosters;

namespace SpringLoft.Store.Tests.Rosters;

/// <summary>People found by the first letters of a name or a number.</summary>
public class FirstLettersTests : StoreTest
{
    public FirstLettersTests() => Db.Write(c =>
    {
        Person(c, SchoolRole.Student, "Umi", "Hallgrímsson", "s1001", "1001");
        Person(c, SchoolRole.Student, "Halla", "Zulu", "s1002", "1002");
        Person(c, SchoolRole.Student, "Łukasz", "Łukasik", "s1010", "1010");
    });

    private IEnumerable<string> Found(string typed, int most = 10) => Db.Read(c => PersonStore.StartingWith(c, PersonName.SearchKey(typed), students: true, most)).Select(p => p.Name.Sort);

    [Fact]
    public void Family_names_come_before_given_names() => Found("hal").ShouldBe(["Hallgrímsson, Umi", "Zulu, Halla"]);

    [Theory]
    [InlineData("luk", "Łukasik, Łukasz")]
    [InlineData("1010", "Łukasik, Łukasz")]
    public void Accents_and_numbers_find_too(string typed, string name) => Found(typed).ShouldBe([name]);

    [Fact]
    public void Signs_that_mean_something_to_a_database_mean_nothing_here()
    {
        Found("%").Count().ShouldBe(3);
        Found("x' OR '1'='1").ShouldBeEmpty();
    }

    [Fact]
    public void The_classes_they_are_in_now_are_told_and_their_place_in_the_one_at_hand()
    {
        var umi = Db.Read(c => PersonStore.ByNumber(c, "1001"))!.Id;
        var (shut, left) = Db.Write(c => (NewClass(c, "Shut"), NewClass(c, "Left")));
        var tides = Db.Write(c => NewClass(c, "A \"quoted\" class, with a comma"));
        Db.Write(c =>
        {
            foreach (var k in (ClassId[])[Class, tides, shut, left]) RosterStore.Put(c, k, umi, ClassRole.Student, At);
            c.Execute("UPDATE class SET state = 'Archived' WHERE id = @shut", new { shut });
            RosterStore.Leave(c, left, umi, At);
        });

        ClassesNow Umi(ClassId? here) => Db.Read(c => RosterStore.Now(c, [umi, umi], here)).ShouldHaveSingleItem().Value;

        Umi(null).Names.ShouldBe(["A \"quoted\" class, with a comma", "Clay"]);
        (Umi(Class).Here, Umi(left).Here, Umi(null).Here).ShouldBe((ClassRole.Student, null, null));
        Db.Read(c => RosterStore.Now(c, [Teacher, umi])).ToDictionary(n => n.Key, n => n.Value.Names.Count).ShouldBe(new Dictionary<PersonId, int> { [Teacher] = 0, [umi] = 2 }, ignoreOrder: true);
        Db.Read(c => RosterStore.Now(c, [])).ShouldBeEmpty();
    }

    [Fact]
    public void Who_is_found_in_several_ways_stands_where_the_first_of_them_puts_them()
    {
        var dice = new Random(7);
        string Name() => new([.. Enumerable.Range(0, 3).Select(_ => "abå"[dice.Next(3)])]);
        var all = Db.Write(c => Enumerable.Range(0, 200).Select(i =>
        {
            var (given, family, number) = (Name(), Name(), dice.Next(4) == 0 ? null : $"{"ab23"[dice.Next(4)]}{i}");
            return (Id: Person(c, SchoolRole.Student, given, family, $"r{i}", number), Given: PersonName.SearchKey(given), Family: PersonName.SearchKey(family), Number: number);
        }).ToList());
        foreach (var typed in (string[])["a", "ab", "aba", "a1", "b1", "2", "31", "å", "c"])
            foreach (var most in (int[])[3, 10, 500])
            {
                var key = PersonName.SearchKey(typed);
                bool Begins(string? text) => text?.StartsWith(key, StringComparison.Ordinal) == true;
                var byFamily = all.Where(p => Begins(p.Family)).OrderBy(p => p.Family, StringComparer.Ordinal).ThenBy(p => p.Given, StringComparer.Ordinal).ThenBy(p => p.Id.Value);
                var byGiven = all.Where(p => Begins(p.Given)).OrderBy(p => p.Given, StringComparer.Ordinal).ThenBy(p => p.Family, StringComparer.Ordinal).ThenBy(p => p.Id.Value);
                var byNumber = all.Where(p => Begins(p.Number)).OrderBy(p => p.Number, StringComparer.Ordinal);
                // Whoever types a digit first means a number.
                var ways = char.IsAsciiDigit(key[0]) ? [byNumber, byFamily, byGiven] : (IEnumerable<(PersonId Id, string Given, string Family, string? Number)>[])[byFamily, byGiven, byNumber];
                // Each way gives at the most so many; of those who are found twice the first counts.
                var expected = ways.SelectMany(w => w.Take(most)).Select(p => p.Id).Distinct().Take(most);

                Db.Read(c => PersonStore.StartingWith(c, key, true, most)).Select(p => p.Id).ShouldBe(expected, $"{typed}, {most}");
            }
    }

    [Fact]
    public void No_more_are_found_than_asked_for() => Found("", 2).Count().ShouldBe(2);
}
