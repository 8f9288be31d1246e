namespace SpringLoft.Core.Workspaces;

/// <summary>Whom a site or shared material of the school's list is for.</summary>
public enum ForWhom { Everybody, StaffOnly, SomeGrades, SomeCourses }

/// <summary>Whether a class may use a thing of the school's list, and why not where it may not.</summary>
/// <param name="Why">Null if it fits.</param>
public sealed record ResourceFit(bool Fits, string? Why)
{
    /// <summary>Decides from what the class teaches and who is on its roster.</summary>
    /// <param name="grades">Grades that the thing is for, for <see cref="ForWhom.SomeGrades"/>.</param>
    /// <param name="courses">Courses that it is for, for <see cref="ForWhom.SomeCourses"/>.</param>
    /// <param name="course">Of the class.</param>
    /// <param name="onRoster">Grades of its students; none yet fits every grade.</param>
    public static ResourceFit Of(ForWhom whom, IReadOnlyList<string> grades, IReadOnlyList<string> courses, string course, IReadOnlyCollection<string> onRoster) => whom switch
    {
        ForWhom.SomeGrades when onRoster.Count > 0 && !onRoster.Any(g => grades.Contains(g, StringComparer.OrdinalIgnoreCase)) => new(false, $"for grade {string.Join(", ", grades)}"),
        ForWhom.SomeCourses when !courses.Contains(course, StringComparer.OrdinalIgnoreCase) => new(false, $"for {string.Join(", ", courses)}"),
        _ => new(true, null),
    };

    /// <summary>May students see it? What is for staff only stands in the class for its staff.</summary>
    public static bool StudentsSee(ForWhom whom) => whom != ForWhom.StaffOnly;
}
