using System.Globalization;
using System.Text;
using System.Xml;
using System.Xml.Linq;
using SpringLoft.Core;
using SpringLoft.Core.Naming;
using SpringLoft.Formats.Words;
using SpringLoft.Formats.Zips;

namespace SpringLoft.Formats.Cartridges;

/// <summary>
/// Reads a 1EdTech Common Cartridge, 1.0 to 1.3. Its zip is held to what every zip from outside is; no entity of its XML is
/// followed; a page comes as text, so that nothing in it can run. What can't be taken in is named with its reason.
/// </summary>
public sealed class CartridgeReader
{
    private const long MostXml = 20L * 1024 * 1024;
    private const long MostPage = 2L * 1024 * 1024;
    private const int Deepest = 20;
    private const string Beside = "Other files";

    private readonly Dictionary<string, ZipTreeFile> files;
    private readonly Dictionary<string, XElement> resources = new(StringComparer.Ordinal);
    private readonly List<IReadOnlyList<string>> folders = [];
    private readonly HashSet<string> listed = new(StringComparer.Ordinal);
    private readonly Dictionary<string, CartridgeThing> things = new(StringComparer.Ordinal);
    private readonly Dictionary<string, CartridgeAssignment> assignments = new(StringComparer.Ordinal);
    private readonly List<CartridgeLeft> left = [];
    private readonly HashSet<string> taken = new(StringComparer.Ordinal);
    private readonly HashSet<string> refused = new(StringComparer.Ordinal);
    private string title = "";

    private CartridgeReader(ZipTree zip) => files = zip.Files.GroupBy(f => Path(f.Path, f.Name)).ToDictionary(g => g.Key, g => g.First(), StringComparer.Ordinal);

    /// <summary>Reads it. Files are opened from <paramref name="zip"/> later.</summary>
    /// <exception cref="RefusedException"><c>cartridge-none</c>, <c>cartridge-broken</c>, <c>cartridge-other</c>, <c>cartridge-locked</c>.</exception>
    public static Cartridge Read(ZipTree zip)
    {
        var reader = new CartridgeReader(zip);
        reader.Manifest();
        return new(reader.title, reader.folders, [.. reader.things.Values], [.. reader.assignments.Values], [.. reader.left, .. zip.LeftOut.Select(l => new CartridgeLeft(l, "left out"))]);
    }

    private void Manifest()
    {
        if (!files.TryGetValue(CartridgeNames.Manifest, out var file))
            throw new RefusedException("cartridge-none", $"There is no “{CartridgeNames.Manifest}” at the top of the zip: it is no Common Cartridge.", "Choose a file that was saved as a Common Cartridge (.imscc). A plain zip is added to a folder instead.", "file");
        var root = Xml(file);
        var schema = (Text(Child(Child(root, "metadata"), "schema")) ?? "").Trim();
        var version = (Text(Child(Child(root, "metadata"), "schemaversion")) ?? "").Trim();
        if (root.Name.LocalName != "manifest" || !schema.Contains("Common Cartridge", StringComparison.OrdinalIgnoreCase) || !version.StartsWith("1.", StringComparison.Ordinal))
            throw new RefusedException("cartridge-other", $"The zip says that it is “{(schema.Length == 0 ? "nothing" : $"{schema} {version}".Trim())}” and not a Common Cartridge 1.0 to 1.3.", "Save it as a Common Cartridge from where it was made.", "file");
        if (root.DescendantsAndSelf().Any(e => e.Name.LocalName == "authorizations"))
            throw new RefusedException("cartridge-locked", "The cartridge asks for its publisher's permission before it is used.", "Ask the publisher for one without it.", "file");
        title = (root.Descendants().FirstOrDefault(e => e.Name.LocalName == "general") is { } g ? Text(g.Elements().FirstOrDefault(e => e.Name.LocalName == "title")) : null)?.Trim() ?? "";
        foreach (var r in Child(root, "resources")?.Elements().Where(e => e.Name.LocalName == "resource") ?? [])
            if (r.Attribute("identifier")?.Value is { Length: > 0 } id) resources.TryAdd(id, r);
        foreach (var top in Child(Child(root, "organizations"), "organization")?.Elements().Where(IsItem) ?? [])
            // The root of a rooted hierarchy has no title of its own: what is in it stands at the top.
            if (top.Attribute("identifierref") is null && top.Elements().All(e => e.Name.LocalName != "title")) foreach (var item in top.Elements().Where(IsItem)) Item(item, []);
            else Item(top, []);
        Unplaced();
    }

    private void Item(XElement item, IReadOnlyList<string> above)
    {
        var name = SafeName.Make((Text(item.Elements().FirstOrDefault(e => e.Name.LocalName == "title")) ?? "").Trim())?.Name;
        var inside = item.Elements().Where(IsItem).ToList();
        if (item.Attribute("identifierref")?.Value is { Length: > 0 } id) Place(id, name, above);
        else if (inside.Count > 0 || name is not null) above = Folder(above, name ?? "Folder");
        foreach (var i in inside) Item(i, above);
    }

    private IReadOnlyList<string> Folder(IReadOnlyList<string> above, string name)
    {
        // Deeper than folders go, all stands in the deepest.
        if (above.Count >= Deepest) return above;
        string[] way = [.. above, name];
        if (listed.Add(string.Join('\n', way))) folders.Add(way);
        return way;
    }

    private void Place(string id, string? name, IReadOnlyList<string> folder)
    {
        IReadOnlyList<IReadOnlyList<string>> In(IReadOnlyList<IReadOnlyList<string>> there) => folder.Count == 0 || there.Any(f => f.SequenceEqual(folder, StringComparer.Ordinal)) ? there : [.. there, folder];
        if (things.TryGetValue(id, out var thing)) things[id] = thing with { Folders = In(thing.Folders) };
        else if (assignments.TryGetValue(id, out var assignment)) assignments[id] = assignment with { Folders = In(assignment.Folders) };
        else if (refused.Contains(id)) return;
        else if (!resources.TryGetValue(id, out var resource)) Leave(id, name ?? id, "is listed, but is not in the cartridge");
        else Take(id, resource, name, In([]));
    }

    private void Take(string id, XElement r, string? name, IReadOnlyList<IReadOnlyList<string>> folder)
    {
        var type = r.Attribute("type")?.Value ?? "";
        var staff = r.Descendants().Where(e => e.Name.LocalName == "intendedEndUserRole").Select(e => Text(e.Elements().FirstOrDefault(v => v.Name.LocalName == "value"))?.Trim()).ToList() is { Count: > 0 } roles && roles.All(v => v == CartridgeNames.Instructor);
        var href = Hrefs(r).FirstOrDefault();
        var called = name ?? href?[(href.LastIndexOf('/') + 1)..] ?? id;
        if (type.StartsWith("imsdt", StringComparison.OrdinalIgnoreCase)) Leave(id, called, "is a discussion: open a place to talk by hand");
        else if (type.StartsWith("imsqti", StringComparison.OrdinalIgnoreCase)) Leave(id, called, "is a test or a bank of questions");
        else if (type.StartsWith("imsbasiclti", StringComparison.OrdinalIgnoreCase)) Leave(id, called, "is a door to another program");
        else if (href is null || !files.TryGetValue(href, out var file)) Leave(id, called, href is null ? "has no file" : $"its file “{href}” is not in the cartridge");
        else if (type.StartsWith("imswl", StringComparison.OrdinalIgnoreCase)) Link(id, name, called, file, folder, staff);
        else if (type.StartsWith("assignment", StringComparison.OrdinalIgnoreCase)) Assignment(id, name, called, href, file, folder, staff);
        else if (type == CartridgeNames.WebContent || type.StartsWith("associatedcontent", StringComparison.OrdinalIgnoreCase))
        {
            taken.Add(href);
            things[id] = IsPage(href) && file.Size <= MostPage ? Page(name, called, file, folder, staff) : new(SafeName.Make(file.Name, keepExtension: true)?.Name ?? "File", Of(file), null, null, folder, staff);
        }
        else Leave(id, called, $"is of the kind “{type}”, which is not known here");
    }

    private static CartridgeThing Page(string? name, string called, ZipTreeFile file, IReadOnlyList<IReadOnlyList<string>> folder, bool staff)
    {
        var (title, text) = HtmlAsText.Of(Encoding.UTF8.GetString(Bytes(file)));
        return new(name ?? SafeName.Make(title ?? "")?.Name ?? called, null, null, text, folder, staff);
    }

    private void Link(string id, string? name, string called, ZipTreeFile file, IReadOnlyList<IReadOnlyList<string>> folder, bool staff)
    {
        var root = Xml(file);
        var address = root.Elements().FirstOrDefault(e => e.Name.LocalName == "url")?.Attribute("href")?.Value.Trim() ?? "";
        if (!Uri.TryCreate(address, UriKind.Absolute, out var u) || u.Scheme is not ("http" or "https")) Leave(id, called, $"leads to “{Cut.Whole(address, 0, 80)}”, which is no address of the web");
        else things[id] = new(name ?? SafeName.Make(Text(Child(root, "title")) ?? "")?.Name ?? called, null, address, null, folder, staff);
    }

    private void Assignment(string id, string? name, string called, string href, ZipTreeFile file, IReadOnlyList<IReadOnlyList<string>> folder, bool staff)
    {
        var root = Xml(file);
        var text = Child(root, "text");
        var words = Text(text) ?? "";
        if (text?.Attribute("texttype")?.Value is null or "text/html") words = HtmlAsText.Of(words).Text;
        var gradable = Child(root, "gradable");
        var points = Text(gradable)?.Trim() == "true" && decimal.TryParse(gradable!.Attribute("points_possible")?.Value, NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var p) && p > 0 ? p : (decimal?)null;
        var attached = new List<CartridgeFile>();
        foreach (var a in Child(root, "attachments")?.Elements().Where(e => e.Name.LocalName == "attachment") ?? [])
        {
            var at = Resolve(href, a.Attribute("href")?.Value ?? "");
            if (at is null || !files.TryGetValue(at, out var f)) left.Add(new(a.Attribute("href")?.Value ?? "an attachment", $"is attached to “{called}”, but is not in the cartridge"));
            // What is for staff alone is not attached to what students see.
            else if (a.Attribute("role")?.Value is CartridgeNames.Instructor) things[$"{id} {at}"] = new(SafeName.Make(f.Name, keepExtension: true)?.Name ?? "File", Of(f), null, null, folder, true);
            else attached.Add(Of(f));
            if (at is not null) taken.Add(at);
        }
        taken.Add(href);
        assignments[id] = new(name ?? SafeName.Make(Text(Child(root, "title")) ?? "")?.Name ?? called, words, points, attached, folder, staff);
    }

    // Files that pages draw on, and whatever no folder lists: where they came from, students did not see them by themselves.
    private void Unplaced()
    {
        foreach (var (id, r) in resources.Where(r => r.Value.Attribute("type")?.Value is { } type && (type == CartridgeNames.WebContent || type.StartsWith("associatedcontent", StringComparison.OrdinalIgnoreCase))))
            foreach (var at in Hrefs(r))
                if (files.TryGetValue(at, out var file) && taken.Add(at))
                    things[$"{id} {at}"] = new(SafeName.Make(file.Name, keepExtension: true)?.Name ?? "File", Of(file), null, null, [Folder([], Beside)], true);
        foreach (var (id, r) in resources.Where(r => r.Value.Attribute("type")?.Value is { } t && (t.StartsWith("imswl", StringComparison.OrdinalIgnoreCase) || t.StartsWith("assignment", StringComparison.OrdinalIgnoreCase))))
            if (!things.ContainsKey(id) && !assignments.ContainsKey(id) && !refused.Contains(id)) Take(id, r, null, [Folder([], Beside)]);
        foreach (var id in things.Where(t => t.Value.Folders.Any(f => f.Count == 1 && f[0] == Beside)).Select(t => t.Key).ToList()) things[id] = things[id] with { ForStaff = true };
    }

    private void Leave(string id, string name, string why)
    {
        refused.Add(id);
        left.Add(new(name, why));
    }

    private static CartridgeFile Of(ZipTreeFile f) => new(f.Name, f.Size, f.Open);

    private static bool IsItem(XElement e) => e.Name.LocalName == "item";

    private static bool IsPage(string path) => path.EndsWith(".html", StringComparison.OrdinalIgnoreCase) || path.EndsWith(".htm", StringComparison.OrdinalIgnoreCase) || path.EndsWith(".xhtml", StringComparison.OrdinalIgnoreCase);

    private static XElement? Child(XElement? e, string name) => e?.Elements().FirstOrDefault(x => x.Name.LocalName == name);

    private static string? Text(XElement? e) => e?.Value;

    private static string Path(string folder, string name) => folder.Length == 0 ? name : $"{folder}/{name}";

    // What a resource is made of, its own address first.
    private static IEnumerable<string> Hrefs(XElement r)
    {
        var at = string.Concat(r.AncestorsAndSelf().Reverse().Select(e => e.Attribute(XNamespace.Xml + "base")?.Value));
        return r.Elements().Where(e => e.Name.LocalName == "file").Prepend(r).Select(e => e.Attribute("href")?.Value).OfType<string>().Select(h => Resolve(at, h)).OfType<string>().Distinct();
    }

    // Beside a path, within the cartridge; null for what leads out of it.
    private static string? Resolve(string from, string href)
    {
        var way = new List<string>(from.Contains('/', StringComparison.Ordinal) ? from[..from.LastIndexOf('/')].Split('/') : []);
        foreach (var part in Uri.UnescapeDataString(href.Split('?', '#')[0]).Replace('\\', '/').Split('/'))
        {
            if (part is "" or ".") continue;
            if (part != "..") way.Add(part);
            else if (way.Count == 0) return null;
            else way.RemoveAt(way.Count - 1);
        }
        return string.Join('/', way.Where(p => p.Length > 0));
    }

    private static byte[] Bytes(ZipTreeFile file)
    {
        using var from = file.Open();
        using var to = new MemoryStream();
        from.CopyTo(to);
        return to.ToArray();
    }

    private static XElement Xml(ZipTreeFile file)
    {
        var said = Path(file.Path, file.Name);
        RefusedException Broken(string what) => new("cartridge-broken", $"“{said}” in the cartridge can't be read: {what}", "Make the cartridge again where it came from.", "file");
        if (file.Size > MostXml) throw Broken($"it is longer than {MostXml / (1024 * 1024)} MB.");
        try
        {
            var bytes = Bytes(file);
            // No entities, nothing from elsewhere; and so deep that no reader of it runs out of room.
            XmlReaderSettings Settings(DtdProcessing types) => new() { DtdProcessing = types, XmlResolver = null, MaxCharactersInDocument = MostXml, MaxCharactersFromEntities = 1024 };
            using (var look = XmlReader.Create(new MemoryStream(bytes), Settings(DtdProcessing.Parse)))
                while (look.Read())
                {
                    if (look.NodeType == XmlNodeType.DocumentType) throw Broken("it declares a document type or entities, which are not followed.");
                    if (look.Depth > 200) throw Broken("it nests deeper than 200.");
                }
            using var xml = XmlReader.Create(new MemoryStream(bytes), Settings(DtdProcessing.Prohibit));
            return XDocument.Load(xml).Root!;
        }
        catch (XmlException e) { throw Broken($"line {e.LineNumber}: {e.Message}"); }
        catch (InvalidDataException) { throw Broken("it is damaged."); }
    }
}
