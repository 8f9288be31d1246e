using SpringLoft.Core.Naming;

namespace SpringLoft.Core.Tests.Naming;

/// <summary>Names against the published rules for file names that every system can store.</summary>
public class PublishedNameRules
{
    // IEEE Std 1003.1-2017 (POSIX), Base Definitions, section 3.282 "Portable Filename Character Set":
    // A-Z a-z 0-9 . _ -   Names of these alone pass unchanged.
    [Fact]
    public void Names_of_the_portable_filename_character_set_pass_unchanged()
    {
        const string portable = "ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789._-";

        SafeName.Make(portable)!.ShouldSatisfyAllConditions(r => r.Name.ShouldBe(portable), r => r.Changes.ShouldBeEmpty());
    }

    // Microsoft, "Naming Files, Paths, and Namespaces", section "Naming Conventions": the reserved characters.
    // IEEE Std 1003.1-2017 section 3.170 "Filename": the slash and the null character may not occur.
    [Theory]
    [InlineData('<')]
    [InlineData('>')]
    [InlineData(':')]
    [InlineData('"')]
    [InlineData('/')]
    [InlineData('\\')]
    [InlineData('|')]
    [InlineData('?')]
    [InlineData('*')]
    [InlineData('\0')]
    [InlineData('\u001F')]
    public void Reserved_characters_do_not_survive(char c) => SafeName.Make($"a{c}b")!.Name.ShouldNotContain(c);

    // The same page: "Do not use the following reserved names … CON, PRN, AUX, NUL, COM0 … LPT9 … also avoid these names
    // followed immediately by an extension".
    [Theory]
    [InlineData("CON")]
    [InlineData("prn")]
    [InlineData("Aux.txt")]
    [InlineData("NUL.tar.gz")]
    [InlineData("COM1")]
    [InlineData("COM¹")]
    [InlineData("lpt9.doc")]
    public void Reserved_device_names_are_changed_and_told(string name)
    {
        var made = SafeName.Make(name)!;

        made.Name.Split('.')[0].ToUpperInvariant().ShouldNotBe(name.Split('.')[0].ToUpperInvariant());
        made.Changes.ShouldContain(c => c.Why == "reserved device name");
    }

    [Theory]
    [InlineData("CONTENTS")]
    [InlineData("COM10")]
    [InlineData("auxiliary.txt")]
    public void Names_that_only_begin_like_a_device_stay(string name) => SafeName.Make(name)!.Name.ShouldBe(name);

    // The same page: "Do not end a file or directory name with a space or a period."
    [Theory]
    [InlineData("a.")]
    [InlineData("a ")]
    [InlineData("a. .")]
    public void No_name_ends_in_a_space_or_a_period(string name) => SafeName.Make(name)!.Name.ShouldBe("a");

    // IEEE Std 1003.1-2017, limits.h: NAME_MAX; 255 bytes on the file systems in common use (common practice).
    [Fact]
    public void No_name_is_longer_than_255_bytes() =>
        System.Text.Encoding.UTF8.GetByteCount(SafeName.Make(new string('漢', 200))!.Name).ShouldBe(255);
}
