using SpringLoft.Core.Years;

namespace SpringLoft.Core.Plans;

/// <summary>
/// Keeps folders of weeks and days with their week when a calendar changes. Their keys go by the number of the school
/// week, so that next year's folder for the same week is found by the same key; within a year it is the dates that count.
/// </summary>
public sealed class WeekKeys
{
    private readonly Dictionary<int, LocalDate> before;
    private readonly Dictionary<LocalDate, int> after;

    /// <summary>From one calendar of a year to the next.</summary>
    public WeekKeys(SchoolYear from, SchoolYear to)
    {
        before = SchoolWeeks.Of(from).ToDictionary(w => w.Ordinal, w => w.Starts);
        after = SchoolWeeks.Of(to).ToDictionary(w => w.Starts, w => w.Ordinal);
    }

    /// <summary>
    /// The key under the new calendar. A week that is gone keeps its date in the key, and gets its number again if it comes
    /// back; a key without a week stays as it is.
    /// </summary>
    public FolderKey Move(FolderKey key) => key.With(mark => mark switch
    {
        FolderMark.Week w when before.TryGetValue(w.Ordinal, out var began) => After(began, w.Day),
        FolderMark.GoneWeek g => After(g.Began, g.Day),
        _ => mark,
    });

    private FolderMark After(LocalDate began, IsoDayOfWeek? day) =>
        after.TryGetValue(began, out var ordinal) ? new FolderMark.Week(ordinal, day) : new FolderMark.GoneWeek(began, day);
}
