namespace SpringLoft.Core.Workspaces;

/// <summary>What people have done in a class, so that an act which made it can't simply take it away again.</summary>
public enum ClassUse
{
    /// <summary>It is open, or has been closed.</summary>
    Opened,

    /// <summary>Students are on its roster, or have work there.</summary>
    Students,

    /// <summary>Somebody was added whom the act did not bring.</summary>
    People,

    /// <summary>Files, links or pages were put in or changed.</summary>
    Things,

    /// <summary>Assignments were added or changed.</summary>
    Assignments,

    /// <summary>A notice was posted.</summary>
    Notices,

    /// <summary>Groups were made, or have members.</summary>
    Groups,

    /// <summary>An open shelf was set in it.</summary>
    Shelf,

    /// <summary>Another class was made from it.</summary>
    MadeInto,
}
