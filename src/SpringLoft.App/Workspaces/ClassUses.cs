using SpringLoft.Core.Workspaces;

namespace SpringLoft.App.Workspaces;

/// <summary>Says what people did in a class.</summary>
internal static class ClassUses
{
    /// <summary>All of it in one clause: "it has been opened; students are on its roster".</summary>
    internal static string Said(IEnumerable<ClassUse> uses) => string.Join("; ", uses.Select(Said));

    private static string Said(ClassUse use) => use switch
    {
        ClassUse.Opened => "it has been opened",
        ClassUse.Students => "students are on its roster or have work there",
        ClassUse.People => "somebody was added to it",
        ClassUse.Things => "things were added or changed in it",
        ClassUse.Assignments => "assignments were added or changed in it",
        ClassUse.Notices => "a notice was posted in it",
        ClassUse.Groups => "it has groups",
        ClassUse.Shelf => "an open shelf was set in it",
        ClassUse.MadeInto => "another class was made from it",
        _ => throw new ArgumentOutOfRangeException(nameof(use)),
    };
}
