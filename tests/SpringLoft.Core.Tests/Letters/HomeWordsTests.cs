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

    // Every text that takes nothing, by its name.
    private static List<string> Said(HomeWords w) =>
        [.. typeof(HomeWords).GetProperties().Where(p => p.PropertyType == typeof(string) && p.Name is not nameof(HomeWords.Code) and not nameof(HomeWords.Name) and not nameof(HomeWords.Day)).Select(p => (string)p.GetValue(w)!)];
}
