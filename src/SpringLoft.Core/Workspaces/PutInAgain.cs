namespace SpringLoft.Core.Workspaces;

/// <summary>A file that is put into a folder in which one of its name stands already.</summary>
public static class PutInAgain
{
    /// <summary>Does it take the place of that one, as a new version of it? Of a student's only by that student; of staff's by any of staff.</summary>
    /// <param name="own">The one that stands there was put in by the same person.</param>
    /// <param name="byStudent">It was put in by a student.</param>
    /// <param name="student">Who puts in now is a student of the class.</param>
    public static bool IsNewVersion(bool own, bool byStudent, bool student) => own || (!byStudent && !student);
}
