using SpringLoft.Core.Naming;
using SpringLoft.Core.Workspaces;

namespace SpringLoft.Core.Closing;

/// <summary>What a person asked of a run that is at work.</summary>
public enum RunWish { GoOn, Pause, StopAfterClass }

/// <summary>How classes are to be closed.</summary>
/// <param name="After">What students may do with the class afterwards.</param>
/// <param name="MarkNames">Puts the school year into the name of a class that does not say it.</param>
/// <param name="RetireCalendar">Shuts the address of the class calendar.</param>
/// <param name="EndEnrollments">Takes students off the roster; undone when the class is restored.</param>
/// <param name="KeepCopy">Sets the set-up aside as a kept copy of the lead teacher's.</param>
public sealed record ClosingOptions(AfterArchive After, bool MarkNames = false, bool RetireCalendar = true, bool EndEnrollments = false, bool KeepCopy = false);

/// <summary>A class that somebody wants closed.</summary>
/// <param name="NameTaken">Is the name with the year another class's?</param>
public sealed record ClosingSubject(ClosingFacts Facts, string Name, string YearLabel, bool NameTaken);

/// <summary>What closing will do to a class, or why it is passed over.</summary>
/// <param name="Skipped">Null if it will be closed.</param>
/// <param name="Will">Besides take-homes, package, check and archive, which every class gets.</param>
/// <param name="NewName">The name afterwards; null if it stays.</param>
public sealed record ClosingPlan(string? Skipped, IReadOnlyList<string> Will, string? NewName)
{
    /// <summary>Decides; what blocks a class is the reason for which it is passed over.</summary>
    public static ClosingPlan Of(ClosingOptions options, ClosingSubject subject)
    {
        var blocks = Readiness.Assess(subject.Facts).Where(f => f.Level == FindingLevel.Blocks).Select(f => f.Text).ToList();
        if (blocks.Count > 0) return new(string.Join(" ", blocks), [], null);
        var will = new List<string>();
        string? name = null;
        if (options.MarkNames && NameWithYear(subject.Name, subject.YearLabel) is { } marked)
        {
            if (subject.NameTaken) will.Add($"keeps its name: “{marked}” is another class's");
            else will.Add($"called “{name = marked}”");
        }
        if (options.RetireCalendar && subject.Facts.CalendarOn) will.Add("calendar retired");
        if (options.EndEnrollments && subject.Facts.Students > 0)
        {
            var ended = subject.Facts.Students == 1 ? "1 enrollment ended" : $"{subject.Facts.Students} enrollments ended";
            // To look at the class is for who is on its roster.
            will.Add(options.After == AfterArchive.View ? $"{ended}: no student sees the class any more, only what is returned to them" : ended);
        }
        if (options.KeepCopy) will.Add("set-up kept as a copy");
        if (subject.Facts.Invitations > 0) will.Add(subject.Facts.Invitations == 1 ? "1 open invitation withdrawn" : $"{subject.Facts.Invitations} open invitations withdrawn");
        return new(null, will, name);
    }

    /// <summary>The name with the school year at its end; null if it says the year already.</summary>
    public static string? NameWithYear(string name, string yearLabel)
    {
        if (name.Contains(yearLabel, StringComparison.OrdinalIgnoreCase)) return null;
        // The year must stand whole at the end: if there is no room for both, the name gives way.
        var room = SafeName.Make(name)?.Name ?? name;
        string With(string n) => SafeName.Make($"{n} · {yearLabel}")?.Name ?? yearLabel;
        while (room.Length > 0 && !With(room).EndsWith(yearLabel, StringComparison.Ordinal)) room = room[..^1].TrimEnd();
        return With(room);
    }
}
