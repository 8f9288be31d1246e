using System.Text;
using SpringLoft.Core;
using SpringLoft.Formats.Bags;
using SpringLoft.Formats.Calendars;
using SpringLoft.Formats.Csv;
using SpringLoft.Formats.OneRoster;
using SpringLoft.Formats.Rosters;
using SpringLoft.Formats.Tests.Bags;
using SpringLoft.Formats.Zips;

namespace SpringLoft.Formats.Tests;

/// <summary>A thousand damaged files of each format: read as far as they can be, or refused with a reason. Nothing else.</summary>
public class MutatedFilesTests
{
    private static byte[] Zipped(params (string, string)[] files) => Zip.Of(files).ToArray();

    private static readonly (string, string)[] Rosters =
    [
        ("manifest.csv", "propertyName,value\r\nfile.users,bulk\r\n"),
        ("users.csv", "sourcedId,role,givenName,familyName,identifier,grades\r\nt1,teacher,Ingrid,Quiroga,,\r\ns1,student,Noor,Tamihana,3001,6\r\n"),
        ("courses.csv", "sourcedId,title\r\nc1,Weather\r\n"),
        ("classes.csv", "sourcedId,title,courseSourcedId,classCode,periods\r\nk1,Weather 6A,c1,6A,1\r\n"),
        ("enrollments.csv", "sourcedId,classSourcedId,userSourcedId,role,primary\r\ne1,k1,t1,teacher,true\r\ne2,k1,s1,student,false\r\n"),
    ];

    private static readonly Dictionary<string, (byte[] Sample, Action<byte[]> Read)> Formats = new()
    {
        ["zip tree"] = (Zipped(("Week 1/lines.txt", "lines"), ("Week 1/Room/plan.txt", "plan"), ("Žemaitis.txt", "z")), bytes =>
        {
            using var zip = ZipTree.Open(new MemoryStream(bytes), new(1000, 10_000_000));
            foreach (var f in zip.Files)
                try
                {
                    using var open = f.Open();
                    open.CopyTo(Stream.Null);
                }
                catch (InvalidDataException) { /* whoever takes it in refuses the whole zip */ }
        }
        ),
        ["take-home"] = (Zipped(("index.html", "<p>"), ("Clay/pot.txt", "pot")), bytes => ZipContents.Read(new MemoryStream(bytes))),
        ["OneRoster bundle"] = (Zipped(Rosters), bytes => OneRosterBundle.Read(new MemoryStream(bytes))),
        ["OneRoster resources"] = (Zipped(("resources.csv", "sourcedId,status,dateLastModified,vendorResourceId,title,roles,importance,vendorId,applicationId\r\nr1,,,v1,Tides,,primary,,\r\n")), bytes => OneRosterResources.Read(new MemoryStream(bytes))),
        ["bag"] = (SampleBag.Zip(), bytes => BagReader.Read(new MemoryStream(bytes), null, CancellationToken.None)),
        ["CSV"] = (Encoding.UTF8.GetBytes("name,grade\r\n\"Žemaitis, Rúna\",6\r\n\"a \"\"b\"\"\",7\r\n"), bytes => CsvRows.Read(new MemoryStream(bytes), "t.csv", ["name"])),
        ["plain roster"] = (Encoding.UTF8.GetBytes("Number\tName\tClass\r\n3001\tTamihana, Noor\tClay 6B\r\n"), bytes =>
        {
            PlainRoster.Columns(new MemoryStream(bytes), "t.csv");
            PlainRoster.Read(new MemoryStream(bytes), "t.csv", [RosterColumn.StudentNumber, RosterColumn.Name, RosterColumn.Class], true);
        }
        ),
        ["iCalendar"] = (Encoding.UTF8.GetBytes("BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//x//y//EN\r\nBEGIN:VEVENT\r\nUID:1@x\r\nDTSTAMP:20270101T000000Z\r\nDTSTART;VALUE=DATE:20271108\r\nDTEND;VALUE=DATE:20271113\r\nRRULE:FREQ=WEEKLY;COUNT=3\r\nSUMMARY:Ferry week\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n"),
            bytes => CalendarFile.Read(Encoding.UTF8.GetString(bytes), new(2027, 8, 1), new(2028, 7, 1))),
    };

    public static TheoryData<string> Names => [.. Formats.Keys];

    [Theory]
    [MemberData(nameof(Names))]
    public void A_damaged_file_is_read_or_refused_with_a_reason(string format)
    {
        var (sample, read) = Formats[format];
        Should.NotThrow(() => read(sample));
        var chance = new Random(20_271_108);
        var refused = 0;
        for (var n = 0; n < 1000; n++)
        {
            var bytes = Bent(sample, chance);
            try { read(bytes); }
            catch (Exception e) when (e is RefusedException or CalendarFileException or InvalidDataException) { refused++; }
            catch (Exception e) { Assert.Fail($"Number {n} of {format}: {e}\n{Convert.ToBase64String(bytes[..Math.Min(bytes.Length, 4000)])}"); }
        }
        if (format is not ("CSV" or "plain roster" or "bag")) refused.ShouldBeGreaterThan(50);
    }

    // What disks, lines and other programs do to files: bits, holes, ends, repeats.
    private static byte[] Bent(byte[] sample, Random chance)
    {
        var bytes = sample.ToList();
        for (var times = chance.Next(1, 4); times > 0 && bytes.Count > 0; times--)
        {
            var at = chance.Next(bytes.Count);
            switch (chance.Next(6))
            {
                case 0: bytes[at] ^= (byte)(1 << chance.Next(8)); break;
                case 1: bytes[at] = (byte)chance.Next(256); break;
                // The records at the end of a zip say how many files there are, and where.
                case 2: bytes[Math.Max(0, bytes.Count - 1 - chance.Next(90))] ^= (byte)(1 << chance.Next(8)); break;
                case 3: bytes.RemoveRange(at, Math.Min(chance.Next(1, 40), bytes.Count - at)); break;
                case 4: bytes.InsertRange(at, bytes.Skip(chance.Next(bytes.Count)).Take(chance.Next(1, 60)).ToList()); break;
                default: bytes.RemoveRange(at, bytes.Count - at); break;
            }
        }
        return [.. bytes];
    }
}
