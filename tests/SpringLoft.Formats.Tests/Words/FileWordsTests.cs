using System.IO.Compression;
using System.Text;
using SpringLoft.Core.Closing;
using SpringLoft.Formats.Print;
using SpringLoft.Formats.Words;
using SpringLoft.Tests.Shared;

namespace SpringLoft.Formats.Tests.Words;

public class FileWordsTests
{
    private static FileWords Read(string name, byte[] bytes) => FileWords.Read(new MemoryStream(bytes));

    private static FileWords Read(string name, string text) => Read(name, Encoding.UTF8.GetBytes(text));

    private static byte[] Zip(params (string Path, string Text)[] parts)
    {
        using var bytes = new MemoryStream();
        using (var zip = new ZipArchive(bytes, ZipArchiveMode.Create, leaveOpen: true))
            foreach (var (path, text) in parts)
            {
                using var part = new StreamWriter(zip.CreateEntry(path).Open());
                part.Write(text);
            }
        return bytes.ToArray();
    }

    private static byte[] Office(params (string Path, string Text)[] parts) => Zip([("[Content_Types].xml", "<Types xmlns='http://schemas.openxmlformats.org/package/2006/content-types'/>"), .. parts]);

    private const string W = "xmlns:w='http://schemas.openxmlformats.org/wordprocessingml/2006/main'";

    [Theory]
    [InlineData("a.txt", "Umi built it.", "Umi built it.")]
    [InlineData("a.csv", "name;points\nRúna;7", "Rúna;7")]
    [InlineData("notes", "No ending, and text still: Umi.", "Umi")]
    public void Plain_text_is_read_whatever_it_is_called(string name, string text, string has)
    {
        Read(name, text).ShouldSatisfyAllConditions(w => w.Text.ShouldContain(has), w => w.Not.ShouldBeNull());
    }

    [Fact]
    public void Text_is_read_in_what_it_was_written_in()
    {
        Read("a.txt", [.. Encoding.Unicode.GetPreamble(), .. Encoding.Unicode.GetBytes("Rúna")]).Text.ShouldBe("Rúna");
        Read("a.txt", Encoding.Latin1.GetBytes("Rúna")).Text.ShouldBe("Rúna");
    }

    [Theory]
    [InlineData("<p>By <b>U</b>m<i>i</i></p>", "Umi")]
    [InlineData("<p>Rú<!-- -->na</p>", "Rúna")]
    [InlineData("<p>R&uacute;na &amp; friends", "Rúna & friends")]
    [InlineData("<img src=x alt='Umi at the wheel'>", "Umi at the wheel")]
    [InlineData("<title>Umi</title>", "Umi")]
    public void A_name_that_is_split_over_tags_is_one_word(string html, string has) => Read("page.html", html).Text.ShouldContain(has);

    [Fact]
    public void Words_of_two_paragraphs_do_not_run_into_one_and_a_script_is_no_word_of_the_page()
    {
        var words = HtmlWords.Of("<p>al</p><p>umi</p><script>var runa = 1</script><style>p{}</style>");

        words.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries).ShouldBe(["al", "umi"]);
    }

    [Theory]
    [InlineData("essay.txt", "<p>By <b>U</b>mi</p>", "Umi")]
    [InlineData("page.html", "<p>Kiln</p><!-- by Rúna -->", "Rúna")]
    public void It_is_looked_under_tags_whatever_it_is_called_and_in_what_a_page_does_not_show(string name, string text, string has) => Read(name, text).Text.ShouldContain(has);

    [Fact]
    public void A_page_that_nests_without_end_is_read() =>
        Read("deep.html", $"{string.Concat(Enumerable.Repeat("<div>", 700_000))}Umi").Text.ShouldContain("Umi");

    [Fact]
    public void A_document_is_read_with_its_notes_and_with_who_wrote_it()
    {
        var words = Read("essay.docx", Office(
            ("word/document.xml", $"<w:document {W}><w:body><w:p><w:r><w:t>By U</w:t></w:r><w:r><w:t>mi</w:t></w:r></w:p><w:p><w:r><w:t>next</w:t></w:r></w:p></w:body></w:document>"),
            ("word/comments.xml", $"<w:comments {W}><w:comment w:author='Oisín Farquhar'><w:p><w:r><w:t>well done Rúna</w:t></w:r></w:p></w:comment></w:comments>"),
            ("docProps/core.xml", "<cp xmlns:dc='http://purl.org/dc/elements/1.1/'><dc:creator>Tāne Yılmaz</dc:creator><lastModifiedBy>Léa</lastModifiedBy></cp>")));

        words.Not.ShouldBeNull();
        words.Text.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries).ShouldBe(["By", "Umi", "next", "Oisín", "Farquhar", "well", "done", "Rúna", "Tāne", "Yılmaz", "Léa"]);
    }

    [Fact]
    public void Sheets_and_slides_are_read()
    {
        Read("marks.xlsx", Office(("xl/workbook.xml", "<workbook><sheets><sheet name='Rúna Ravndal'/></sheets></workbook>"), ("xl/sharedStrings.xml", "<sst><si><r><t>U</t></r><r><t>mi</t></r></si><si><t>Tāne</t></si></sst>")))
            .Text.Split('\n', StringSplitOptions.RemoveEmptyEntries).ShouldBe(["Rúna Ravndal", "Umi", "Tāne"]);
        Read("talk.pptx", Office(("ppt/slides/slide1.xml", "<p:sld xmlns:p='p' xmlns:a='a'><p:cNvPr descr='Umi laughs'/><a:p><a:r><a:t>Rú</a:t></a:r><a:r><a:t>na</a:t></a:r></a:p></p:sld>")))
            .Text.ShouldSatisfyAllConditions(t => t.ShouldContain("Umi laughs"), t => t.ShouldContain("Rúna"));
    }

    [Fact]
    public void A_document_of_the_open_format_is_read()
    {
        var words = Read("essay.odt", Zip(("mimetype", "application/vnd.oasis.opendocument.text"),
            ("content.xml", "<office:text xmlns:office='o' xmlns:text='t'><text:h>Kiln</text:h><text:p>U<text:span>mi</text:span><text:s/>built</text:p></office:text>"),
            ("meta.xml", "<m xmlns:dc='d'><dc:creator>Rúna Ravndal</dc:creator></m>")));

        words.Text.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries).ShouldBe(["Kiln", "Umi", "built", "Rúna", "Ravndal"]);
        Read("shut.odt", Zip(("content.xml", "x"), ("META-INF/manifest.xml", "<m:manifest xmlns:m='m'><m:file-entry><m:encryption-data/></m:file-entry></m:manifest>"))).Not.ShouldBe(Unread.Shut);
    }

    [Theory]
    [InlineData("word/media/image1.png")]
    [InlineData("word/embeddings/sheet.xlsx")]
    [InlineData("word/afchunk.mht")]
    public void Pictures_and_files_in_a_document_are_said_not_to_be_read(string part)
    {
        var words = Read("essay.docx", Office(("word/document.xml", $"<w:document {W}><w:p><w:t>Umi</w:t></w:p></w:document>"), ("word/_rels/document.xml.rels", "<r/>"), (part, "bytes")));

        words.ShouldSatisfyAllConditions(w => w.Text.ShouldContain("Umi"), w => w.Not.ShouldBe(Unread.Pictures));
    }

    [Theory]
    [InlineData("photo.jpg", new byte[] { 0xFF, 0xD8, 0xFF, 0xE0, 0, 16 })]
    [InlineData("photo.txt", new byte[] { 0x89, 0x50, 0x4E, 0x47, 0, 0, 0 })]
    [InlineData("old.doc", new byte[] { 0xD0, 0xCF, 0x11, 0xE0, 0xA1, 0xB1, 0x1A, 0xE1, 0, 0 })]
    public void What_has_no_words_to_read_is_not_said_to_be_free_of_them(string name, byte[] bytes) => Read(name, bytes).ShouldBe(new("", Unread.Kind));

    [Fact]
    public void A_zip_of_anything_and_rich_text_are_not_read()
    {
        Read("all.zip", Zip(("a.txt", "Umi"))).Not.ShouldBe(Unread.Kind);
        Read("old.rtf", "{\\rtf1 Umi}").Not.ShouldBe(Unread.Kind);
    }

    [Fact]
    public void Broken_and_hostile_files_are_said_to_be_unread_and_break_nothing()
    {
        var whole = Office(("word/document.xml", $"<w:document {W}><w:p><w:t>Umi</w:t></w:p></w:document>"));
        Read("cut.docx", whole[..^30]).Not.ShouldBe(Unread.Damaged);
        Read("entities.docx", Office(("word/document.xml", "<!DOCTYPE x [<!ENTITY a SYSTEM 'file:///etc/passwd'>]><x>&a;</x>"))).ShouldBe(new("", Unread.Damaged));
        Read("bomb.docx", Office(("word/document.xml", $"<x>{new string(' ', 20_000_000)}Umi</x>"))).Not.ShouldBe(Unread.Long);
        Read("many.docx", Office([.. Enumerable.Range(0, 40).Select(n => ($"word/part{n}.xml", $"<x>{string.Concat(Enumerable.Repeat("<y/>", 500_000))}</x>"))])).Not.ShouldBe(Unread.Long);
        Read("long.txt", new string('x', FileWords.Longest + 1)).Not.ShouldBe(Unread.Long);
        Read("no.pdf", "%PDF-1.7 and nothing else").Not.ShouldBe(Unread.Damaged);
    }

    [Fact]
    public void A_page_of_a_pdf_that_swells_without_end_is_not_let_out()
    {
        using var packed = new MemoryStream();
        using (var zlib = new ZLibStream(packed, CompressionLevel.SmallestSize, leaveOpen: true))
            for (var i = 0; i < 80; i++) zlib.Write(new byte[1024 * 1024]);

        Read("small.pdf", OnePage(Deflated("BT ET"u8.ToArray()))).Not.ShouldBe(Unread.Pictures);
        Read("bomb.pdf", OnePage(packed.ToArray())).Not.ShouldBe(Unread.Long);
    }

    private static byte[] Deflated(byte[] bytes)
    {
        using var packed = new MemoryStream();
        using (var zlib = new ZLibStream(packed, CompressionLevel.Fastest, leaveOpen: true)) zlib.Write(bytes);
        return packed.ToArray();
    }

    // A PDF of one page whose content is this stream, deflated.
    private static byte[] OnePage(byte[] stream)
    {
        using var pdf = new MemoryStream();
        var at = new List<long>();
        void Add(string text) => pdf.Write(Encoding.Latin1.GetBytes(text));
        void Begin(string text) { at.Add(pdf.Position); Add($"{at.Count} 0 obj\n{text}"); }
        Add("%PDF-1.4\n");
        Begin("<</Type/Catalog/Pages 2 0 R>>\nendobj\n");
        Begin("<</Type/Pages/Kids[3 0 R]/Count 1>>\nendobj\n");
        Begin("<</Type/Page/Parent 2 0 R/MediaBox[0 0 9 9]/Resources<<>>/Contents 4 0 R>>\nendobj\n");
        Begin($"<</Length {stream.Length}/Filter/FlateDecode>>\nstream\n");
        pdf.Write(stream);
        Add("\nendstream\nendobj\n");
        var xref = pdf.Position;
        Add($"xref\n0 5\n0000000000 65535 f \n{string.Concat(at.Select(a => $"{a:D10} 00000 n \n"))}trailer<</Root 1 0 R/Size 5>>\nstartxref\n{xref}\n%%EOF");
        return pdf.ToArray();
    }

    /// <summary>Reference tool: poppler's <c>pdftotext</c> reads the same words out of the same file.</summary>
    [Fact]
    public void The_words_of_a_pdf_are_those_that_a_stock_tool_reads()
    {
        using var scratch = new Scratch();
        var file = scratch.Under("due.pdf");
        using (var to = File.Create(file)) SlipSheet.Write(to, [new("Umi Hallgrímsson", "7", "umih", "tide-pool-lantern"), new("Rúna Ravndal", null, "runar", "ash-glaze-kiln")], "Skerry Point School", "https://loft.school.example", Paper.A4, letters: true);
        var stock = Shell.Run(scratch.Path, "pdftotext", file, "-").Said;

        var words = Read("due.pdf", File.ReadAllBytes(file));

        static IEnumerable<string> Of(string text) => text.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries).Where(w => w.All(char.IsLetter)).Order();
        Of(words.Text).Except(Of(stock)).ShouldBeEmpty();
        Of(stock).Except(Of(words.Text)).ShouldBeEmpty();
        words.Text.ShouldContain("Hallgrímsson");
    }

    [Fact]
    public void A_pdf_says_who_wrote_it()
    {
        using var made = new PdfSharp.Pdf.PdfDocument();
        made.AddPage();
        made.Info.Author = "Umi Hallgrímsson";
        using var bytes = new MemoryStream();
        made.Save(bytes);

        Read("a.pdf", bytes.ToArray()).ShouldSatisfyAllConditions(w => w.Text.ShouldContain("Umi Hallgrímsson"), w => w.Not.ShouldBe(Unread.Pictures));
    }
}
