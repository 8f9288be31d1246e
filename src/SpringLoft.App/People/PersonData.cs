using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Unicode;
using SpringLoft.App.Workspaces;
using SpringLoft.Core.Naming;
using SpringLoft.Formats.Print;
using SpringLoft.Formats.Zips;
using SpringLoft.Store.Files;
using SpringLoft.Store.Naming;
using SpringLoft.Store.People;

namespace SpringLoft.App.People;

/// <summary>Everything that there is about one person as one download: a page to read, the same as JSON, and their files.</summary>
public sealed class PersonData(Premises premises)
{
    private static readonly JsonSerializerOptions Json = new() { WriteIndented = true, NewLine = "\n", Encoder = JavaScriptEncoder.Create(UnicodeRanges.All) };

    // How a table is called on the page; one that is not named here is called as the database calls it.
    private static readonly Dictionary<string, string> Titles = new()
    {
        ["person"] = "In the directory",
        ["sign_in"] = "Sign-in",
        ["session"] = "Where signed in",
        ["second_step"] = "Second step",
        ["passkey"] = "Passkeys",
        ["provider_account"] = "Accounts at providers",
        ["member"] = "Rosters",
        ["group_member"] = "Groups",
        ["item"] = "Things put into folders",
        ["work_file"] = "Files of work",
        ["work_comment"] = "Written about work",
        ["notice"] = "Notices written",
        ["talk_message"] = "Written in places to talk",
        ["talk_reader"] = "Reads only in talk",
        ["activity"] = "Activity, by day",
        ["notice_seen"] = "Notices seen",
        ["phrase"] = "Phrases kept",
        ["news_quiet"] = "News not wanted",
        ["news_reader"] = "News seen",
        ["acknowledged"] = "Acknowledged, and at home",
        ["family_of"] = "Contacts at home",
        ["page_writer"] = "Pages written together",
        ["score_import"] = "Scores taken in",
        ["audit"] = "Done, by the audit trail",
        ["take_home"] = "Take-homes",
    };

    /// <summary>Makes it; a file that is missing or damaged is named, and the rest comes.</summary>
    public Download Of(PersonId id, CancellationToken stop)
    {
        var (person, school, rows, about, classes, (works, comments), files) = premises.Db.Read(c =>
        {
            var p = PersonStore.Find(c, id) ?? throw Refusals.NotFound("person");
            return (p, SchoolStore.Get(c)!.Name, PersonDataStore.Rows(c, id), PersonDataStore.About(c, id), PersonDataStore.Classes(c, id), PersonDataStore.Work(c, id), PersonDataStore.Files(c, id));
        });
        var tables = new List<PersonTable>
        {
            Table("In the directory", rows[0]), Table("Classes", classes), Table("Work and marks", works), Table("Said about the work", comments), Table("Done by others, by the audit trail", about),
        };
        tables.AddRange(rows.Skip(1).Select(r => Table(Titles.GetValueOrDefault(r.Table, r.Table.Replace('_', ' ')) + (r.As is "person_id" or "student_id" or "added_by" or "author_id" ? "" : $" ({r.As.Replace('_', ' ')})"), r)));
        var at = premises.Clock.Now;
        var page = PersonPage.Write(person.Name.Display, school, premises.Clock.Today, tables);
        var json = JsonSerializer.SerializeToUtf8Bytes(new
        {
            person = Objects(rows[0]).FirstOrDefault(),
            classes = Objects(classes),
            work = Objects(works),
            saidAboutTheWork = Objects(comments),
            byOthers = Objects(about),
            tables = rows.Skip(1).Select(r => new { table = r.Table, inColumn = r.As, rows = Objects(r) }),
        }, Json);
        var taken = new HashSet<string>();
        var lost = new List<string>();
        var zipped = new List<ZipFile> { new("index.html", at, () => new MemoryStream(page)), new("data.json", at, () => new MemoryStream(json)) };
        foreach (var f in files)
        {
            var name = SafeName.Distinct(SafeName.Make(f.Name, keepExtension: true)?.Name ?? "File", taken, isFile: true);
            var folder = SafeName.Make(f.Class)?.Name ?? "Class";
            taken.Add(SafeName.Key(name));
            if (IsWhole(f.Sha256)) zipped.Add(new($"files/{folder}/{name}", f.At, () => premises.Files.Open(f.Sha256)));
            else lost.Add($"{f.Class}: {f.Name}");
        }
        if (lost.Count > 0) zipped.Add(new("files that are damaged.txt", at, () => new MemoryStream(System.Text.Encoding.UTF8.GetBytes(string.Join('\n', lost) + "\n"))));
        var scratch = premises.Files.Scratch();
        ZipWriter.Write(scratch, zipped, null, stop);
        scratch.Position = 0;
        return new Download($"{SafeName.Make(person.Name.Display)?.Name ?? "person"}, all data.zip", scratch, scratch.Length);
    }

    private bool IsWhole(string sha256)
    {
        try
        {
            using var file = premises.Files.Open(sha256);
            file.CopyTo(Stream.Null);
            return true;
        }
        catch (Exception e) when (e is FileNotFoundException or DamagedFileException) { return false; }
    }

    private static PersonTable Table(string title, RowsOfPerson r) => new(title, r.Columns, r.Rows);

    private static IEnumerable<Dictionary<string, string?>> Objects(RowsOfPerson r) => r.Rows.Select(row => r.Columns.Zip(row).ToDictionary(x => x.First, x => x.Second));
}
