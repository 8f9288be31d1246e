using System.Globalization;
using System.Text;
using System.Xml;
using System.Xml.Linq;
using NodaTime;
using SpringLoft.Core.Naming;
using SpringLoft.Formats.Print;
using SpringLoft.Formats.Zips;

namespace SpringLoft.Formats.Cartridges;

/// <summary>Writes a 1EdTech Common Cartridge 1.3.</summary>
public static class CartridgeWriter
{
    private static readonly XNamespace Cp = CartridgeNames.Packaging;
    private static readonly XNamespace Lom = CartridgeNames.LomManifest;
    private static readonly XNamespace Res = CartridgeNames.LomResource;

    /// <summary>Writes it as a zip. The same cartridge gives the same bytes.</summary>
    /// <param name="id">What tells it from every other; letters and digits.</param>
    public static void Write(Stream to, Cartridge cartridge, string id, Instant made, CancellationToken stop) => ZipWriter.Write(to, Files(cartridge, id, made), null, stop);

    private static IEnumerable<ZipFile> Files(Cartridge c, string id, Instant made)
    {
        var files = new List<ZipFile>();
        var resources = new List<XElement>();
        var items = new List<(XElement Item, IReadOnlyList<IReadOnlyList<string>> Folders)>();
        ZipFile Bytes(string path, byte[] bytes) => new(path, made, () => new MemoryStream(bytes));
        XElement Resource(string type, string? href, bool staff, params string[] paths) => new(Cp + "resource",
            new XAttribute("identifier", $"R{resources.Count + 1}"), new XAttribute("type", type), href is null ? null : new XAttribute("href", Href(href)),
            staff ? ForStaff() : null, paths.Select(p => new XElement(Cp + "file", new XAttribute("href", Href(p)))));
        void Put(string title, XElement resource, IReadOnlyList<IReadOnlyList<string>> folders)
        {
            resources.Add(resource);
            foreach (var folder in folders.Count == 0 ? [[]] : folders)
                items.Add((new(Cp + "item", new XAttribute("identifier", $"I{items.Count + 1}"), new XAttribute("identifierref", resource.Attribute("identifier")!.Value), new XElement(Cp + "title", Xml(title))), [folder]));
        }
        foreach (var t in c.Things)
        {
            var n = resources.Count + 1;
            if (t.Address is { } address)
            {
                var path = $"links/{n}.xml";
                XNamespace wl = CartridgeNames.WebLink;
                files.Add(Bytes(path, Document(new(wl + "webLink", new XElement(wl + "title", Xml(t.Title)), new XElement(wl + "url", new XAttribute("href", Xml(address)), new XAttribute("target", "_blank"))))));
                Put(t.Title, Resource(CartridgeNames.WebLinkType, null, t.ForStaff, path), t.Folders);
                continue;
            }
            var file = t.Text is { } text ? $"pages/{n}/{Safe(t.Title)}.html" : $"files/{n}/{Safe(t.File!.Name)}";
            files.Add(t.Text is { } words ? Bytes(file, Page(t.Title, words)) : new(file, made, t.File!.Open));
            Put(t.Title, Resource(CartridgeNames.WebContent, file, t.ForStaff, file), t.Folders);
        }
        foreach (var a in c.Assignments)
        {
            var at = $"assignments/{resources.Count + 1}";
            var attached = a.Attached.Select((f, i) => (File: f, Name: $"{i + 1} {Safe(f.Name)}")).ToList();
            files.Add(Bytes($"{at}/assignment.xml", Document(Assignment(a, $"A{resources.Count + 1}", [.. attached.Select(f => f.Name)]))));
            files.AddRange(attached.Select(f => new ZipFile($"{at}/{f.Name}", made, f.File.Open)));
            Put(a.Title, Resource(CartridgeNames.AssignmentType, $"{at}/assignment.xml", a.ForStaff, [$"{at}/assignment.xml", .. attached.Select(f => $"{at}/{f.Name}")]), a.Folders);
        }
        return files.Prepend(Bytes(CartridgeNames.Manifest, Document(Manifest(c, id, items, resources))));
    }

    private static XElement Manifest(Cartridge c, string id, List<(XElement Item, IReadOnlyList<IReadOnlyList<string>> Folders)> items, List<XElement> resources)
    {
        var root = new XElement(Cp + "item", new XAttribute("identifier", "root"));
        var at = new Dictionary<string, XElement> { [""] = root };
        XElement Folder(IReadOnlyList<string> way)
        {
            var key = string.Join('\n', way.Select(SafeName.Key));
            if (at.TryGetValue(key, out var there)) return there;
            var made = new XElement(Cp + "item", new XAttribute("identifier", $"F{at.Count}"), new XElement(Cp + "title", Xml(way[^1])));
            Folder([.. way.SkipLast(1)]).Add(made);
            return at[key] = made;
        }
        foreach (var way in c.Folders) Folder(way);
        foreach (var (item, folders) in items) Folder(folders[0]).Add(item);
        return new(Cp + "manifest", new XAttribute("identifier", id), new XAttribute(XNamespace.Xmlns + "lomimscc", Lom.NamespaceName), new XAttribute(XNamespace.Xmlns + "lom", Res.NamespaceName),
            new XElement(Cp + "metadata", new XElement(Cp + "schema", CartridgeNames.Schema), new XElement(Cp + "schemaversion", CartridgeNames.Version),
                new XElement(Lom + "lom", new XElement(Lom + "general", new XElement(Lom + "title", new XElement(Lom + "string", Xml(c.Title)))))),
            new XElement(Cp + "organizations", new XElement(Cp + "organization", new XAttribute("identifier", "organization"), new XAttribute("structure", CartridgeNames.Rooted), root)),
            new XElement(Cp + "resources", resources));
    }

    private static XElement Assignment(CartridgeAssignment a, string id, IReadOnlyList<string> attached)
    {
        XNamespace ns = CartridgeNames.Assignment;
        return new(ns + "assignment", new XAttribute("identifier", id), new XElement(ns + "title", Xml(a.Title)),
            new XElement(ns + "text", new XAttribute("texttype", "text/plain"), Xml(a.Instructions)),
            new XElement(ns + "gradable", a.Points is { } p ? new XAttribute("points_possible", p.ToString(CultureInfo.InvariantCulture)) : null, a.Points is null ? "false" : "true"),
            attached.Count == 0 ? null : new XElement(ns + "attachments", attached.Select(f => new XElement(ns + "attachment", new XAttribute("href", Href(f)), new XAttribute("role", "All")))),
            new XElement(ns + "submission_formats", new XElement(ns + "format", new XAttribute("type", "file"))));
    }

    private static XElement ForStaff() => new(Cp + "metadata", new XElement(Res + "lom", new XElement(Res + "educational", new XElement(Res + "intendedEndUserRole", new XElement(Res + "source", CartridgeNames.Roles), new XElement(Res + "value", CartridgeNames.Instructor)))));

    private static byte[] Page(string title, string text) => Encoding.UTF8.GetBytes(
        $"<!DOCTYPE html>\n<html><head><meta charset=\"utf-8\"><title>{System.Net.WebUtility.HtmlEncode(title)}</title></head>\n<body>\n{HomePage.Html(text, lines: false)}</body></html>\n");

    private static string Href(string path) => string.Join('/', path.Split('/').Select(Uri.EscapeDataString));

    private static string Safe(string name) => SafeName.Make(name, keepExtension: true)?.Name ?? "file";

    // What XML 1.0 can't hold is left out.
    private static string Xml(string text) => string.Concat(text.EnumerateRunes().Where(r => r.Value is 9 or 10 or 13 or (>= 0x20 and <= 0xD7FF) or (>= 0xE000 and <= 0xFFFD) or >= 0x10000));

    private static byte[] Document(XElement root)
    {
        using var to = new MemoryStream();
        using (var xml = XmlWriter.Create(to, new() { Encoding = new UTF8Encoding(false), Indent = true, NewLineChars = "\n", NewLineHandling = NewLineHandling.Entitize })) new XDocument(root).Save(xml);
        return to.ToArray();
    }
}
