using SpringLoft.App.Assignments;

namespace SpringLoft.App.Tests.Assignments;

/// <summary>Phrases of one's own for comments on work.</summary>
public class PhrasesTests : SchoolTest
{
    private Phrases Phrases => new(school.Premises);

    [Fact]
    public void Each_has_theirs_in_the_order_of_the_alphabet()
    {
        foreach (var text in new[] { " Well seen, {name}. ", "look again", "Begin with the dark.", "look again" }) Phrases.Keep(school.Lead, text);
        Phrases.See(school.Lead).Select(p => p.Text).ShouldBe(["Begin with the dark.", "look again", "Well seen, {name}."]);
        Phrases.See(school.CoTeacher).ShouldBeEmpty();
        Refused(() => Phrases.Remove(school.CoTeacher, Phrases.See(school.Lead)[0].Id)).ShouldBe("not-found", "it is another's");
        Phrases.Remove(school.Lead, Phrases.See(school.Lead)[0].Id);
        Phrases.See(school.Lead).Count.ShouldBe(2);
    }

    [Fact]
    public void What_cannot_be_kept_is_said()
    {
        Refused(() => Phrases.Keep(school.Lead, " ")).ShouldBe("missing");
        Refused(() => Phrases.Keep(school.Lead, new string('a', 1001))).ShouldBe("too-long");
        Refused(() => Phrases.Keep(school.Umi, "mine")).ShouldBe("not-allowed");
        Refused(() => Phrases.See(school.Umi)).ShouldBe("not-allowed");
        Refused(() => Phrases.Remove(school.Umi, 1)).ShouldBe("not-allowed");
        for (var i = 0; i < Phrases.Most; i++) Phrases.Keep(school.Lead, $"phrase {i}");
        Refused(() => Phrases.Keep(school.Lead, "one more")).ShouldBe("too-many");
    }
}
