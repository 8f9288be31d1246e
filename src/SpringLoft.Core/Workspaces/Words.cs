namespace SpringLoft.Core.Workspaces;

/// <summary>The states of a class.</summary>
public enum ClassState { InPreparation, Open, Archived }

/// <summary>What students may still do in an archived class, chosen at closing.</summary>
public enum AfterArchive { View, Nothing }

/// <summary>Who may do what in a folder.</summary>
public enum FolderRule { StaffOnly, ClassViews, ClassAdds, ClassEdits, OneEach, AsAbove }

/// <summary>Rights, weakest first.</summary>
public enum Right { None, View, Add, Edit, Manage }

/// <summary>What a person is in the school as a whole.</summary>
public enum SchoolRole { Student, Staff, Teacher, Coordinator }

/// <summary>What a person is in one class.</summary>
public enum ClassRole { Student, CoTeacher, Lead }

/// <summary>A person's place relative to one class, from which every permission follows.</summary>
public enum Standing { Nobody, SignedIn, Left, Student, CoTeacher, Lead, Coordinator }
