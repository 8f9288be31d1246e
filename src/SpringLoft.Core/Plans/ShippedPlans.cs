using SpringLoft.Core.Workspaces;

namespace SpringLoft.Core.Plans;

/// <summary>The plans that every school begins with.</summary>
public static class ShippedPlans
{
    private static PlanLine Line(string key, string name, FolderRule rule, params PlanLine[] within) =>
        new(key, name, Stands.Once, rule, [], within);

    private static readonly PlanLine StartHere = Line("start", "Start here", FolderRule.ClassViews);
    private static readonly PlanLine HandOuts = Line("papers", "Papers", FolderRule.ClassViews);
    private static readonly PlanLine StaffRoom = Line("staff", "Staff room", FolderRule.StaffOnly,
        Line("staff-plans", "Lesson plans", FolderRule.AsAbove), Line("staff-notes", "Notes", FolderRule.AsAbove));
    private static readonly PlanLine Shared = Line("table", "Shared table", FolderRule.ClassAdds);
    private static readonly PlanLine OwnFolders = Line("own", "Own folders", FolderRule.ClassViews,
        new PlanLine("own-each", "{student}", Stands.EachStudent, FolderRule.OneEach, [], []));

    /// <summary>A folder for each school week: for classes that live from week to week.</summary>
    public static readonly FolderPlan ByWeek = new("By week", "One folder for each school week, own folders, a staff room.",
        [StartHere, Line("weeks", "Weeks", FolderRule.ClassViews,
            new PlanLine("week", "Week {week}", Stands.EachSchoolWeek, FolderRule.ClassViews, [], [])),
         Shared, OwnFolders, StaffRoom]);

    /// <summary>A folder for each school day inside its week: younger students manage best one day at a time.</summary>
    public static readonly FolderPlan ByDay = new("By day", "One folder for each school day inside its week: for younger students.",
        [StartHere, new PlanLine("week", "Week {week}", Stands.EachSchoolWeek, FolderRule.ClassViews, [],
            [new PlanLine("day", "{date} {weekday}", Stands.EachSchoolDay, FolderRule.ClassAdds, [], [])]),
         OwnFolders, StaffRoom]);

    /// <summary>A folder for each unit, with papers and models below.</summary>
    public static readonly FolderPlan ByUnit = new("By unit", "Six units with papers and models, own folders with sketchbook and logbook.",
        [StartHere, Line("units", "Units", FolderRule.ClassViews,
            new PlanLine("unit", "{number} {entry}", Stands.EachEntry, FolderRule.ClassViews,
                ["First look", "Materials", "Technique", "Project", "Finishing", "Show"],
                [Line("unit-papers", "Papers", FolderRule.AsAbove), Line("unit-models", "Models", FolderRule.StaffOnly)])),
         Shared,
         Line("own", "Own folders", FolderRule.ClassViews,
            new PlanLine("own-each", "{student}", Stands.EachStudent, FolderRule.OneEach, [],
                [Line("own-sketch", "Sketchbook", FolderRule.AsAbove), Line("own-log", "Logbook", FolderRule.AsAbove)])),
         StaffRoom]);

    /// <summary>A folder for each subject of a class that one teacher has all day, with a folder for each term in it.</summary>
    public static readonly FolderPlan BySubject = new("By subject", "A folder for each subject, with papers by term: for a class that has one teacher all day.",
        [StartHere,
         new PlanLine("subject", "{entry}", Stands.EachEntry, FolderRule.ClassViews, ["Language", "Numbers", "Science", "History", "Art", "Music"],
            [new PlanLine("subject-term", "{term}", Stands.EachTerm, FolderRule.AsAbove, [], []), Line("subject-table", "Shared table", FolderRule.ClassAdds)]),
         OwnFolders, StaffRoom]);

    /// <summary>Weeks for papers, an own folder for each student, and a folder for each group.</summary>
    public static readonly FolderPlan Combined = new("Weeks, own folders and groups", "A folder each week, one each and one per group: for classes that work in groups.",
        [StartHere, Line("weeks", "Weeks", FolderRule.ClassViews,
            new PlanLine("week", "Week {week}", Stands.EachSchoolWeek, FolderRule.ClassViews, [], [])),
         Line("groups", "Groups", FolderRule.ClassViews,
            new PlanLine("group", "{group}", Stands.EachGroup, FolderRule.OnePerGroup, [], [])),
         OwnFolders, StaffRoom]);

    /// <summary>The least that a class needs.</summary>
    public static readonly FolderPlan Small = new("Small start", "Papers, a shared table, own folders, a staff room. More can be added later.",
        [StartHere, HandOuts, Shared, OwnFolders, StaffRoom]);

    /// <summary>All of them, in the order in which they are offered.</summary>
    public static readonly IReadOnlyList<FolderPlan> All = [Small, ByUnit, ByWeek, ByDay, BySubject, Combined];
}
