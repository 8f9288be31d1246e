using System.Text;
using SpringLoft.Formats.Looks;

namespace SpringLoft.Formats.Tests.Looks;

/// <summary>Signatures as the WHATWG MIME Sniffing Standard gives them (sections 6.1, 6.2, 7.1; typed from memory).</summary>
public class FileLookTests
{
    [Theory]
    [InlineData("boat.png", "89504E470D0A1A0A0000000D", FileLook.Image, "image/png")]
    [InlineData("kiln.jpg", "FFD8FFE000104A464946", FileLook.Image, "image/jpeg")]
    [InlineData("tide.gif", "474946383961", FileLook.Image, "image/gif")]
    [InlineData("tide.webp", "524946460000000057454250", FileLook.Image, "image/webp")]
    [InlineData("notes.pdf", "255044462D312E370A", FileLook.Pdf, "application/pdf")]
    [InlineData("song.wav", "524946460000000057415645", FileLook.Sound, "audio/wav")]
    [InlineData("song.mp3", "494433030000", FileLook.Sound, "audio/mpeg")]
    [InlineData("song.mp3", "FFFB9064", FileLook.Sound, "audio/mpeg")]
    [InlineData("song.ogg", "4F67675300020000", FileLook.Sound, "audio/ogg")]
    [InlineData("song.m4a", "00000020667479704D344120", FileLook.Sound, "audio/mp4")]
    [InlineData("film.mp4", "000000206674797069736F6D", FileLook.Video, "video/mp4")]
    [InlineData("film.webm", "1A45DFA3", FileLook.Video, "video/webm")]
    // A photo in a box of which the page knows nothing.
    [InlineData("kiln.heic", "00000018667479706865696300", FileLook.Download, "application/octet-stream")]
    // Called a picture and is one of another kind: what is in it counts.
    [InlineData("kiln.png", "FFD8FFE000104A464946", FileLook.Image, "image/jpeg")]
    [InlineData("empty.png", "", FileLook.Download, "application/octet-stream")]
    public void What_is_in_a_file_decides(string name, string head, FileLook look, string type) =>
        FileLooks.Of(name, Convert.FromHexString(head)).ShouldBe((look, type));

    [Theory]
    [InlineData("log.txt", "High water at 7.\r\n\tLow at 13.", FileLook.Text)]
    [InlineData("log.md", "# Þórðardóttir’s log", FileLook.Text)]
    [InlineData("boat.py", "print('ahoy')", FileLook.Text)]
    // What a browser would run is never shown as a page, whatever it is called.
    [InlineData("boat.png", "<!doctype html><script>alert(1)</script>", FileLook.Download)]
    [InlineData("boat.html", "<script>alert(1)</script>", FileLook.Download)]
    [InlineData("boat.svg", "<svg xmlns=\"http://www.w3.org/2000/svg\"><script>alert(1)</script></svg>", FileLook.Download)]
    [InlineData("noname", "plain", FileLook.Download)]
    public void Text_is_shown_as_text_and_a_page_never(string name, string text, FileLook look) => FileLooks.Of(name, Encoding.UTF8.GetBytes(text)).Look.ShouldBe(look);

    [Fact]
    public void Text_of_another_encoding_is_not_guessed_at() => FileLooks.Of("log.txt", [0x50, 0xF3, 0x72, 0x0A]).Look.ShouldBe(FileLook.Download);

    [Fact]
    public void A_letter_that_is_cut_where_the_beginning_ends_is_none_that_is_wrong()
    {
        var bytes = Encoding.UTF8.GetBytes(new string('a', FileLooks.Head - 1) + "é");
        FileLooks.Of("log.txt", bytes.AsSpan(0, FileLooks.Head)).Look.ShouldBe(FileLook.Text);
    }
}
