namespace SpringLoft.Core.Workspaces;

/// <summary>The states of a class.</summary>
public enum ClassState { InPreparation, Open, Archived }

/// <summary>What students may still do in an archived class, chosen at closing.</summary>
public enum AfterArchive { View, Nothing }

/// <summary>Who may do what in a folder.</summary>
public enum FolderRule { StaffOnly, ClassViews, ClassAdds, ClassEdits, OneEach, OnePerGroup, AsAbove }

/// <summary>Rights, weakest first.</summary>
public enum Right { None, View, Add, Edit, Manage }

/// <summary>What a person is in the school as a whole.</summary>
public enum SchoolRole { Student, Staff, Teacher, Coordinator }

/// <summary>What a person is in one class.</summary>
public enum ClassRole { Student, CoTeacher, Lead }

/// <summary>A person's place relative to one class, from which every permission follows.</summary>
public enum Standing { Nobody, SignedIn, Left, Student, CoTeacher, Lead, Coordinator }

/// <summary>Is a workspace a class's or a department's?</summary>
public enum WorkspaceKind { Class, Department, Kept }

/// <summary>What members of a group may do in their folder, besides looking.</summary>
/// <param name="Add">Put things in, and change and remove their own.</param>
/// <param name="Rename">Rename what others put in.</param>
/// <param name="Remove">Bin what others put in.</param>
public sealed record GroupMay(bool Add, bool Rename, bool Remove)
{
    /// <summary>Everything: how a group's folder begins.</summary>
    public static readonly GroupMay Everything = new(true, true, true);

    /// <summary>As bits: 1 add, 2 rename, 4 remove.</summary>
    public int Bits => (Add ? 1 : 0) | (Rename ? 2 : 0) | (Remove ? 4 : 0);

    /// <summary>From bits.</summary>
    public static GroupMay Of(int bits) => new((bits & 1) != 0, (bits & 2) != 0, (bits & 4) != 0);
}

/// <summary>What an item is.</summary>
public enum ItemKind { File, Link, Page }

/// <summary>What is said of a folder's rule and of a place in a class.</summary>
public static class InWords
{
    /// <summary>A folder's rule in words.</summary>
    public static string Of(FolderRule rule) => rule switch
    {
        FolderRule.StaffOnly => "staff only",
        FolderRule.ClassViews => "class views",
        FolderRule.ClassAdds => "class adds",
        FolderRule.ClassEdits => "class edits",
        FolderRule.OneEach => "one each",
        FolderRule.OnePerGroup => "one per group",
        _ => "as above",
    };

    /// <summary>A place in a class in words.</summary>
    public static string Of(ClassRole role) => role switch { ClassRole.Lead => "lead teacher", ClassRole.CoTeacher => "co-teacher", _ => "student" };
}
