using SpringLoft.Core.People;

namespace SpringLoft.Core.Tests.People;

public class KnowingTests
{
    private static readonly KnownPerson Umi = new(new(1), "rec-1", "1001", "umi@tiny.invalid", "s1001", new("Umi", "Hallgrímsson"), "6");
    private static readonly KnownPerson Rúna = new(new(2), "rec-2", "1002", "runa@tiny.invalid", "s1002", new("Rúna", "Ravndal"), "6");
    private static readonly KnownPerson OtherRúna = new(new(3), null, "1003", null, "s1003", new("Rúna", "Ravndal"), "8");
    private static readonly Knowing Directory = new([Umi, Rúna, OtherRúna]);

    private static Recognised Find(string? record = null, string? number = null, string? email = null, string? user = null, PersonName? name = null, bool ordered = true, string? grade = null) =>
        Directory.Find(new(record, number, email, user, name, ordered, grade));

    public static TheoryData<string, string, double> Winkler
    {
        get
        {
            var data = new TheoryData<string, string, double>();
            foreach (var (a, b, value) in WinklersTable.Pairs) data.Add(a, b, value);
            return data;
        }
    }

    [Theory]
    [MemberData(nameof(Winkler))]
    public void Names_are_as_close_as_Winkler_published(string a, string b, double value)
    {
        Knowing.Similarity(a, b).ShouldBe(value, 0.0006);
        Knowing.Similarity(b, a).ShouldBe(value, 0.0006);
    }

    [Fact]
    public void The_first_of_record_number_e_mail_and_user_name_that_decides_decides()
    {
        Find(record: "rec-1").ShouldSatisfyAllConditions(r => r.Person.ShouldBe(Umi.Id), r => r.Why.ShouldBe("by record id"));
        Find(record: "unheard of", number: " 1002 ").Person.ShouldBe(Rúna.Id);
        Find(email: "UMI@tiny.invalid").Person.ShouldBe(Umi.Id);
        Find(user: "S1003").Person.ShouldBe(OtherRúna.Id);
    }

    [Theory]
    [InlineData(null, "6", Knowledge.Possible)] // no number tells them apart
    [InlineData("1099", "6", Knowledge.Unknown)] // each has a number of their own
    [InlineData(null, "7", Knowledge.Unknown)] // another child of the name, in another grade
    public void A_name_under_another_record_is_shown_where_nothing_tells_the_two_apart(string? number, string grade, Knowledge known)
    {
        var found = Directory.Find(new("rec-99", number, null, null, new("UMI", "Hallgrimsson"), true, grade), closeNames: false);

        found.Knowledge.ShouldBe(known);
        found.Candidates.ShouldBe(known == Knowledge.Possible ? [Umi.Id] : []);
    }

    [Fact]
    public void Known_by_a_name_is_told_from_known_by_what_only_they_have()
    {
        Find(user: "S1003").ByName.ShouldBeFalse();
        Find(number: "1001").ByName.ShouldBeFalse();
        Directory.Find(new(null, null, null, null, Umi.Name, true, Umi.Grade)).ShouldSatisfyAllConditions(r => r.Knowledge.ShouldBe(Knowledge.Known), r => r.ByName.ShouldBeTrue());
    }

    [Fact]
    public void Two_of_them_naming_two_people_is_for_a_person_to_settle()
    {
        var conflict = Find(number: "1001", email: "runa@tiny.invalid");

        conflict.Knowledge.ShouldBe(Knowledge.Conflict);
        conflict.Candidates.ShouldBe([Umi.Id, Rúna.Id]);
    }

    [Fact]
    public void One_thing_that_names_two_people_is_for_a_person_to_settle_even_where_another_names_one_of_them()
    {
        var twice = new Knowing([Umi, OtherRúna with { StudentNumber = "1001" }]);

        var conflict = twice.Find(new("rec-1", "1001", null, null, null, true, null));

        conflict.Knowledge.ShouldBe(Knowledge.Conflict);
        conflict.Candidates.ShouldBe([Umi.Id, OtherRúna.Id]);
        conflict.Why.ShouldBe("record id and student number name different people");
        twice.Find(new("rec-1", "1003", null, "s1003", null, true, null)).Why.ShouldBe("record id and user name name different people");
        Find(record: "rec-1", number: "1002", user: "s1003").Why.ShouldBe("record id, student number and user name name different people");
    }

    [Fact]
    public void Over_any_directory_the_four_ways_agree_with_asking_each_person_in_turn()
    {
        var random = new Random(11);
        string? Any(string kind) => random.Next(3) == 0 ? null : $"{kind}{random.Next(4)}";
        for (var round = 0; round < 3000; round++)
        {
            KnownPerson[] people = [.. Enumerable.Range(1, random.Next(1, 6)).Select(i => new KnownPerson(new(i), Any("r"), Any("n"), Any("e"), $"u{i}", new($"G{i}", "F"), null))];
            var claim = new PersonClaim(Any("R"), Any("n"), Any(" e"), Any("u"), null, true, null);

            bool Same(string? said, string? has) => said is not null && has is not null && said.Trim().Equals(has, StringComparison.OrdinalIgnoreCase);
            (string What, PersonId[] Who)[] ways =
            [
                ("record id", [.. people.Where(p => Same(claim.RecordId, p.RecordId)).Select(p => p.Id)]), ("student number", [.. people.Where(p => Same(claim.StudentNumber, p.StudentNumber)).Select(p => p.Id)]),
                ("e-mail", [.. people.Where(p => Same(claim.Email, p.Email)).Select(p => p.Id)]), ("user name", [.. people.Where(p => Same(claim.UserName, p.UserName)).Select(p => p.Id)]),
            ];
            var meant = ways.SelectMany(w => w.Who).Distinct().ToArray();
            var found = new Knowing(people).Find(claim);

            found.Knowledge.ShouldBe(meant.Length switch { 0 => Knowledge.Unknown, 1 => Knowledge.Known, _ => Knowledge.Conflict }, $"round {round}");
            found.Person.ShouldBe(meant.Length == 1 ? meant[0] : null);
            if (meant.Length > 1) found.Candidates.ShouldBe(meant);
            if (meant.Length == 1) found.Why.ShouldBe($"by {ways.First(w => w.Who.Length > 0).What}");
        }
    }

    [Theory]
    [InlineData("umi", "HALLGRIMSSON")]
    [InlineData("Umi", "Hallgrimsson ")]
    public void Names_are_compared_without_case_accents_and_spaces(string given, string family) => Find(name: new(given, family)).Person.ShouldBe(Umi.Id);

    [Fact]
    public void A_name_in_unknown_order_is_tried_both_ways_and_one_in_known_order_is_not()
    {
        Find(name: new("Hallgrímsson", "Umi"), ordered: false).Person.ShouldBe(Umi.Id);
        Find(name: new("Hallgrímsson", "Umi")).Knowledge.ShouldBe(Knowledge.Possible);
    }

    [Fact]
    public void Of_two_with_one_name_the_grade_decides_and_without_it_nobody_does()
    {
        Find(name: new("Rúna", "Ravndal"), grade: "8").Person.ShouldBe(OtherRúna.Id);
        Find(name: new("Rúna", "Ravndal")).ShouldSatisfyAllConditions(r => r.Knowledge.ShouldBe(Knowledge.Possible), r => r.Candidates.Count.ShouldBe(2));
        Find(name: new("Rúna", "Ravndal"), grade: "9").Knowledge.ShouldBe(Knowledge.Possible);
    }

    [Fact]
    public void A_close_name_is_shown_and_never_joined()
    {
        var close = Find(name: new("Umi", "Hallgrimson"));

        (close.Knowledge, close.Person).ShouldBe((Knowledge.Possible, null));
        close.Candidates.ShouldBe([Umi.Id]);
        Find(name: new("Zdeněk", "Quiroga")).Knowledge.ShouldBe(Knowledge.Unknown);
    }

    [Fact]
    public void A_number_of_nobody_says_so() => Find(number: "9999").Why.ShouldBe("the directory has nobody with the student number 9999");
}
