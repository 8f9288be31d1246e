using System.Globalization;
using System.Text.RegularExpressions;
using SpringLoft.Core.Years;

namespace SpringLoft.Core.Plans;

/// <summary>
/// Keeps folders of weeks and days with their week when a calendar changes. Their keys go by the number of the school
/// week, so that next year's folder for the same week is found by the same key; within a year it is the dates that count.
/// </summary>
public sealed partial class WeekKeys
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
    public string Move(string key) => Mark().Replace(key, m =>
    {
        var number = m.Groups["week"].Success;
        var start = number ? before.GetValueOrDefault(int.Parse(m.Groups["week"].ValueSpan, CultureInfo.InvariantCulture)) : Date(m.Groups["gone"].Value);
        if (number && start == default) return m.Value;
        return after.TryGetValue(start, out var ordinal) ? string.Create(CultureInfo.InvariantCulture, $":w{ordinal}") : $":gone{start.ToString("uuuuMMdd", CultureInfo.InvariantCulture)}";
    });

    private static LocalDate Date(string digits) => NodaTime.Text.LocalDatePattern.CreateWithInvariantCulture("uuuuMMdd").Parse(digits).Value;

    // The mark of a week, alone or before the weekday of a day; names of terms and entries that look like one stand last in their part.
    [GeneratedRegex(@":(?:w(?<week>\d+)|gone(?<gone>\d{8}))(?=-[1-7](?:/|$)|/|$)")]
    private static partial Regex Mark();
}
