using System.Text;
using SpringLoft.Formats.Csv;

namespace SpringLoft.Formats.Tests.Csv;

/// <summary>Byte order marks as in The Unicode Standard, section 23.8; UTF-8 as in RFC 3629; Windows-1252 as the runtime's own table has it.</summary>
public class TextEncodingTests
{
    private const string Text = "id,name\r\n1,Zoë Łukasik\r\n2,潮 美海\r\n";

    static TextEncodingTests() => Encoding.RegisterProvider(CodePagesEncodingProvider.Instance);

    private static (string Text, string? Said) Open(byte[] bytes)
    {
        var file = TextEncoding.Open(new MemoryStream(bytes));
        using var reader = new StreamReader(file.Utf8, new UTF8Encoding(false, true), detectEncodingFromByteOrderMarks: true);
        return (reader.ReadToEnd().TrimStart('\uFEFF'), file.Said);
    }

    private static byte[] With(Encoding encoding, bool mark) => mark ? [.. encoding.GetPreamble(), .. encoding.GetBytes(Text)] : encoding.GetBytes(Text);

    [Fact]
    public void UTF_8_is_read_with_and_without_its_mark_and_nothing_is_said()
    {
        Open(With(new UTF8Encoding(true), true)).ShouldBe((Text, null));
        Open(With(new UTF8Encoding(false), false)).ShouldBe((Text, null));
    }

    [Fact]
    public void UTF_16_is_known_by_its_mark_whichever_way_round()
    {
        Open(With(new UnicodeEncoding(false, true), true)).ShouldBe((Text, "UTF-16"));
        Open(With(new UnicodeEncoding(true, true), true)).ShouldBe((Text, "UTF-16"));
    }

    [Theory]
    [InlineData("Zoë Müller-Ó Briain", "Windows-1252")]
    [InlineData("“quoted” – €5", "Windows-1252")]
    [InlineData("plain", null)] // the same in both
    public void What_is_no_valid_UTF_8_is_what_old_office_programs_write(string text, string? said) => Open(Encoding.GetEncoding(1252).GetBytes(text)).ShouldBe((text, said));

    [Fact]
    public void An_empty_file_and_one_of_a_letter_are_files()
    {
        Open([]).ShouldBe(("", null));
        Open([0x41]).ShouldBe(("A", null));
    }

    // A letter of three bytes across every place where a buffer can end, and one cut off at the end of the file.
    [Fact]
    public void A_letter_that_stands_across_two_buffers_is_whole_and_one_that_is_cut_off_is_no_UTF_8()
    {
        for (var before = (64 * 1024) - 3; before <= 64 * 1024; before++)
            Open([.. Enumerable.Repeat((byte)'a', before), .. "潮"u8]).ShouldBe((new string('a', before) + "潮", null));
        Open([.. "abc"u8, 0xE6, 0xBD]).Said.ShouldBe("Windows-1252");
    }
}
