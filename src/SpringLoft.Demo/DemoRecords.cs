using SpringLoft.App;
using SpringLoft.App.Rosters;
using SpringLoft.Core.Workspaces;
using SpringLoft.Formats.OneRoster;
using SpringLoft.Store.Years;

namespace SpringLoft.Demo;

/// <summary>
/// What the school's records have of this year: the rosters as they are, but for a new student, a move between sets,
/// people who went up a grade, a class that would lose many, and a row about nobody.
/// </summary>
public static class DemoRecords
{
    /// <summary>Writes the bundle that the stand-in for the records serves.</summary>
    public static void WriteOnce(Premises premises, string path)
    {
        if (File.Exists(path)) return;
        Directory.CreateDirectory(Path.GetDirectoryName(path)!);
        var years = premises.Db.Read(YearStore.All);
        var year = years.Count > 1 ? years[1] : years[0];
        var all = new RostersOut(premises).Of(year.Id);
        using var file = File.Create(path);
        // A school that was made to be large has no such year behind it.
        OneRosterRosters.Write(file, all.Classes.Count == 24 ? Changed(all) : all, DemoYears.At(year.Year.First));
    }

    private static OutBundle Changed(OutBundle b)
    {
        var (from, to) = (b.Classes[3], b.Classes.Skip(4).First(k => k.CourseId == b.Classes[3].CourseId));
        var loses = b.Classes[0].SourcedId;
        var enrollments = b.Enrollments.ToList();
        var mover = enrollments.First(e => e.ClassId == from.SourcedId && e.Role == ClassRole.Student && enrollments.All(x => x.UserId != e.UserId || x.ClassId != to.SourcedId));
        enrollments.Remove(mover);
        enrollments.Add(mover with { SourcedId = "ske-move", ClassId = to.SourcedId });
        foreach (var e in enrollments.Where(e => e.ClassId == loses && e.Role == ClassRole.Student).Take(7).ToList()) enrollments.Remove(e);
        var nerys = new OutUser("skp-1999", "Nerys", "Quiroga-Ó Flaithearta", SchoolRole.Student, "1999", null, "nq1999", "6", true);
        enrollments.Add(new("ske-new", b.Classes[1].SourcedId, nerys.SourcedId, ClassRole.Student, null));
        enrollments.Add(new("ske-nobody", b.Classes[1].SourcedId, "skp-9999", ClassRole.Student, null));
        var older = b.Users.Where(u => u.Role == SchoolRole.Student).Skip(40).Take(3).Select(u => u.SourcedId).ToHashSet();
        return b with { Users = [.. b.Users.Where(u => u.SourcedId.StartsWith("sk", StringComparison.Ordinal)).Select(u => older.Contains(u.SourcedId) ? u with { Grade = "10" } : u), nerys], Enrollments = [.. enrollments.Where(e => e.UserId.StartsWith("sk", StringComparison.Ordinal))] };
    }
}
