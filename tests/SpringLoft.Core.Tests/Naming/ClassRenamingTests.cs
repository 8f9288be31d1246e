using SpringLoft.Core.Naming;

namespace SpringLoft.Core.Tests.Naming;

public class ClassRenamingTests
{
    private static NamedClass Class(long id, string section, string name = "Old") => new(new(id), $"{name} {id}", new("Clay", section, "3", null, "2026–27"));

    private static IReadOnlyList<Renaming> Decide(string pattern, params NamedClass[] classes) => ClassRenaming.Decide(pattern, classes, ["Clay 9Z · 2026–27"]);

    [Fact]
    public void Every_class_gets_the_name_that_the_pattern_gives_it() =>
        Decide("{course} {section} · {year}", Class(1, "6A"), Class(2, "6B")).Select(r => (r.Will, r.Refusal)).ShouldBe([("Clay 6A · 2026–27", null), ("Clay 6B · 2026–27", null)]);

    [Fact]
    public void A_name_that_two_would_get_is_refused_to_both() =>
        Decide("{course} · {year}", Class(1, "6A"), Class(2, "6B")).ShouldAllBe(r => r.Refusal!.Code == "name-twice");

    [Fact]
    public void A_name_of_another_year_or_of_the_loft_is_taken() => Decide("{course} {section} · {year}", Class(1, "9Z")).Single().Refusal!.Code.ShouldBe("name-taken");

    [Fact]
    public void A_class_that_is_called_so_already_does_not_differ() =>
        ClassRenaming.Decide("{course}", [new(new(1), "Clay", new("Clay", null, null, null, "2026–27"))], []).Single().Differs.ShouldBeFalse();

    [Theory]
    [InlineData("", "pattern-empty")]
    [InlineData("{course} {grade}", "pattern-unknown-placeholder")]
    public void A_pattern_that_names_nothing_is_refused(string pattern, string code) =>
        Should.Throw<RefusedException>(() => Decide(pattern, Class(1, "6A"))).Refusal.Code.ShouldBe(code);
}
