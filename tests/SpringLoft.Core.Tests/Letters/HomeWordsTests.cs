using SpringLoft.Core.Letters;

namespace SpringLoft.Core.Tests.Letters;

/// <summary>What families read, in their language.</summary>
public class HomeWordsTests
{
    [Theory]
    [InlineData("de-CH, fr;q=0.8", "de")]
    [InlineData("tlh, fr;q=0.8, en;q=0.5", "fr")]
    [InlineData("ES", "es")]
    [InlineData("tlh", "en")]
    [InlineData("", "en")]
    [InlineData(null, "en")]
    public void The_first_language_asked_for_that_is_ours(string? asked, string code) => HomeWords.Of(asked).Code.ShouldBe(code);

    // Source: Unicode CLDR, the long form of dates in each locale.
    [Theory]
    [InlineData("en", "Monday, 7 June 2027")]
    [InlineData("de", "Montag, 7. Juni 2027")]
    [InlineData("fr", "lundi 7 juin 2027")]
    [InlineData("es", "lunes, 7 de junio de 2027")]
    public void A_day_is_said_as_in_that_language(string code, string said) => HomeWords.Of(code).Say(new LocalDate(2027, 6, 7)).ShouldBe(said);

    [Fact]
    public void No_language_is_left_in_english_anywhere()
    {
        var english = Said(HomeWords.Of("en"));
        foreach (var w in HomeWords.All.Skip(1)) Said(w).Where((s, i) => s == english[i]).ShouldBeEmpty(w.Name);
    }

    [Fact]
    public void Nor_what_is_said_of_somebody_or_of_a_day()
    {
        var day = new LocalDate(2027, 6, 7);
        Func<HomeWords, string>[] said =
        [
            w => w.AboutWhom("U"), w => w.AsksYou("T"), w => w.Until(day), w => w.OpenFile("f"), w => w.Said("M", day), w => w.Say(day), w => w.LetterTitle("S", day), w => w.Greeting("M"), w => w.DueOn(day, null),
            w => w.DueOn(day, new LocalTime(9, 30)), w => w.WasDueOn(day), w => w.Marked("18", "20"), w => w.MarkedAs("A"), w => w.WhyThisLetter("S"), w => w.StopAsk("U"), w => w.And(["U", "A", "L"]), w => w.OpenUntil(day), w => w.BackTo("S"), w => w.ListBelow(day, day.PlusDays(14)),
        ];
        foreach (var w in HomeWords.All.Skip(1)) said.Count(s => s(w) == s(HomeWords.All[0])).ShouldBe(0, w.Name);
        // All of them are looked at: but a time of day, which English and Spanish say alike.
        typeof(HomeWords).GetMethods().Where(m => m.ReturnType == typeof(string) && m.DeclaringType == typeof(HomeWords) && m.GetParameters().Length > 0).Select(m => m.Name).Distinct().Count().ShouldBe(18);
        HomeWords.Of("fr").And(["U"]).ShouldBe("U");
    }

    // Every text that takes nothing, by its name.
    private static List<string> Said(HomeWords w) =>
        [.. typeof(HomeWords).GetProperties().Where(p => p.PropertyType == typeof(string) && p.Name is not nameof(HomeWords.Code) and not nameof(HomeWords.Name) and not nameof(HomeWords.Day)).Select(p => (string)p.GetValue(w)!)];
}
