namespace SpringLoft.Formats.Cartridges;

/// <summary>A file of a cartridge.</summary>
/// <param name="Size">In bytes; null where it is not known before it is written.</param>
/// <param name="Open">Opens its bytes.</param>
public sealed record CartridgeFile(string Name, long? Size, Func<Stream> Open);

/// <summary>A file, a link or a page: one of the three is set.</summary>
/// <param name="Address">Of a link.</param>
/// <param name="Text">Of a page, CommonMark.</param>
/// <param name="Folders">Each by its way from the top; empty for none.</param>
/// <param name="ForStaff">Only staff are meant to see it.</param>
public sealed record CartridgeThing(string Title, CartridgeFile? File, string? Address, string? Text, IReadOnlyList<IReadOnlyList<string>> Folders, bool ForStaff);

/// <summary>An assignment.</summary>
/// <param name="Attached">Files alone; what else is attached stands in the instructions.</param>
public sealed record CartridgeAssignment(string Title, string Instructions, decimal? Points, IReadOnlyList<CartridgeFile> Attached, IReadOnlyList<IReadOnlyList<string>> Folders, bool ForStaff);

/// <summary>What of a cartridge is not taken in.</summary>
public sealed record CartridgeLeft(string Name, string Why);

/// <summary>The set-up of a class as it travels between programs.</summary>
/// <param name="Folders">By their ways, those above first.</param>
public sealed record Cartridge(string Title, IReadOnlyList<IReadOnlyList<string>> Folders, IReadOnlyList<CartridgeThing> Things, IReadOnlyList<CartridgeAssignment> Assignments, IReadOnlyList<CartridgeLeft> Left);

/// <summary>
/// Names of 1EdTech Common Cartridge 1.3: of its profile of IMS Content Packaging 1.1, of its web links, and of the assignment
/// extension 1.0. From memory, as published at imsglobal.org/cc.
/// </summary>
internal static class CartridgeNames
{
    internal const string Manifest = "imsmanifest.xml";
    internal const string Schema = "IMS Common Cartridge";
    internal const string Version = "1.3.0";
    internal const string Packaging = "http://www.imsglobal.org/xsd/imsccv1p3/imscp_v1p1";
    internal const string LomManifest = "http://ltsc.ieee.org/xsd/imsccv1p3/LOM/manifest";
    internal const string LomResource = "http://ltsc.ieee.org/xsd/imsccv1p3/LOM/resource";
    internal const string WebLink = "http://www.imsglobal.org/xsd/imsccv1p3/imswl_v1p3";
    internal const string Assignment = "http://www.imsglobal.org/xsd/imscc_extensions/assignment";
    internal const string WebLinkType = "imswl_xmlv1p3";
    internal const string AssignmentType = "assignment_xmlv1p0";
    internal const string WebContent = "webcontent";
    internal const string Roles = "IMSGLC_CC_Rolesv1p2";
    internal const string Instructor = "Instructor";
    internal const string Rooted = "rooted-hierarchy";
}
