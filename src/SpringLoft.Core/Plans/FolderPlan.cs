using SpringLoft.Core.Workspaces;

namespace SpringLoft.Core.Plans;

/// <summary>How often a line of a plan stands in a workspace.</summary>
public enum Stands { Once, EachTerm, EachSchoolWeek, EachSchoolDay, EachEntry, EachGroup, EachStudent }

/// <summary>One folder of a plan's outline.</summary>
/// <param name="Key">Unique in the plan and never reused: with it a folder is found again when the plan is put once more.</param>
/// <param name="NamePattern">Placeholders: term, week, letter, weekday, day, date, number, entry, group, student; which of them are filled depends on what it stands in.</param>
/// <param name="Stands">How often it stands.</param>
/// <param name="Rule">Who may do what in it.</param>
/// <param name="Entries">The list it stands for each entry of; empty otherwise.</param>
/// <param name="Within">The lines below it.</param>
public sealed record PlanLine(
    string Key, string NamePattern, Stands Stands, FolderRule Rule,
    IReadOnlyList<string> Entries, IReadOnlyList<PlanLine> Within);

/// <summary>An outline from which workspaces get their folders.</summary>
public sealed record FolderPlan(string Name, string About, IReadOnlyList<PlanLine> Lines);
