using System.Globalization;
using SpringLoft.Core.Assignments;
using SpringLoft.Store.Assignments;

namespace SpringLoft.App.Assignments;

/// <summary>Marks and what they are given in, as pages on paper and on a disk say them.</summary>
internal static class MarkWords
{
    /// <summary>The mark that was returned: "14 of 20", its level on a scale, and by criteria which level of each was reached; null without one.</summary>
    internal static string? Returned(WorkRow w, AssignmentRow a)
    {
        if (w.ReturnedScore is not { } s) return null;
        var mark = a.Points is not { } p ? Number(s) : a.Scheme?.NameOf(s) is { } level ? $"{level} ({Number(s)} of {Number(p)})" : $"{Number(s)} of {Number(p)}";
        return a.Scheme is { ByCriteria: true } by && MarkScheme.ReadChosen(w.ReturnedChosen) is { } chosen && by.ScoreOf(chosen) is not null
            ? $"{mark}: {string.Join(", ", chosen.Zip(by.Criteria).Select(x => $"{x.Second.Name} “{x.Second.Levels[x.First].Name}”"))}" : mark;
    }

    /// <summary>How it is marked.</summary>
    internal static string How(AssignmentRow a) => a switch
    {
        { Scheme: { ByCriteria: true } s } => $"by criteria: {string.Join(", ", s.Criteria.Select(c => c.Name))}; {Number(a.Points ?? 0)} points",
        { Scheme: { } s } => $"on a scale: {string.Join(", ", s.Levels.Select(l => l.Name))}",
        { Points: { } p } => $"{Number(p)} points",
        _ => "not marked in points",
    };

    /// <summary>When it is due; empty for never.</summary>
    internal static string Due(AssignmentRow a) => a.DueOn is not { } day ? "" : $"due {day.ToString("d MMMM uuuu", CultureInfo.InvariantCulture)}{(a.DueTime is { } t ? $", {t.ToString("HH:mm", CultureInfo.InvariantCulture)}" : "")}";

    private static string Number(decimal d) => d.ToString("0.##", CultureInfo.InvariantCulture);
}
