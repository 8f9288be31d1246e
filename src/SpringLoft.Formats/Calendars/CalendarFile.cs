using System.Runtime.Serialization;
using System.Security.Cryptography;
using System.Text;
using Ical.Net;
using Ical.Net.CalendarComponents;
using Ical.Net.DataTypes;
using Ical.Net.Evaluation;
using Ical.Net.Serialization;
using NodaTime;

namespace SpringLoft.Formats.Calendars;

/// <summary>A stretch of whole days with a name, both ends included.</summary>
/// <param name="Kind">The event's category, upper case, as <see cref="CalendarFile.Term"/>; null if it has none.</param>
public sealed record NamedDays(string Name, LocalDate First, LocalDate Last, string? Kind);

/// <summary>What reading a calendar file gave.</summary>
/// <param name="Days">In order of time.</param>
/// <param name="LeftOut">What could not be used, and why, in words.</param>
public sealed record CalendarReading(IReadOnlyList<NamedDays> Days, IReadOnlyList<string> LeftOut);

/// <summary>The file is no iCalendar file, or one beyond all measure.</summary>
public sealed class CalendarFileException(string message, Exception? inner = null) : Exception(message, inner);

/// <summary>Whole days with names, as iCalendar files (RFC 5545) carry them: VEVENT with DTSTART and DTEND of type DATE.</summary>
public static class CalendarFile
{
    /// <summary>The category that marks a term in files of ours.</summary>
    public const string Term = "TERM";

    /// <summary>The category that marks days off in files of ours.</summary>
    public const string DayOff = "DAY OFF";

    /// <summary>Longest file that is read, in characters.</summary>
    public const int MaxLength = 5_000_000;

    private const int MostRepeats = 400;

    /// <summary>Reads the whole-day events that touch a stretch of time; repeating ones as often as they fall in it.</summary>
    /// <param name="text">The file.</param>
    /// <exception cref="CalendarFileException">It can't be read as iCalendar.</exception>
    public static CalendarReading Read(string text, LocalDate from, LocalDate to)
    {
        if (text.Length > MaxLength) throw new CalendarFileException($"The file has {text.Length} characters; {MaxLength} are the most.");
        if (!text.Contains("BEGIN:VCALENDAR", StringComparison.OrdinalIgnoreCase)) throw new CalendarFileException("There is no BEGIN:VCALENDAR in it.");
        Calendar calendar;
        try { calendar = Calendar.Load(text) ?? throw new CalendarFileException("There is no calendar in it."); }
        catch (Exception e) when (e is SerializationException or ArgumentException or FormatException or InvalidOperationException or IndexOutOfRangeException or NullReferenceException)
        {
            // The library tells a broken line in any of these.
            throw new CalendarFileException(e.Message, e);
        }
        var days = new List<NamedDays>();
        var left = new List<string>();
        foreach (var e in calendar.Events)
        {
            var name = string.IsNullOrWhiteSpace(e.Summary) ? "unnamed event" : e.Summary.Trim();
            if (e.Start is null) left.Add($"“{name}” has no beginning.");
            else if (e.Start.HasTime) left.Add($"“{name}” has a time of day; only whole days make a calendar of terms and days off.");
            else Expand(e, name, from, to, days, left);
        }
        foreach (var other in calendar.Children.Where(c => c is not CalendarEvent and not VTimeZone).GroupBy(c => c.Name))
            left.Add($"{other.Count()} of {other.Key}: not an event.");
        return new([.. days.OrderBy(d => d.First).ThenBy(d => d.Last).ThenBy(d => d.Name, StringComparer.Ordinal)], left);
    }

    /// <summary>Writes whole days as an iCalendar file. The same days give the same file.</summary>
    /// <param name="name">Of the calendar.</param>
    /// <param name="stamp">When it was made.</param>
    public static string Write(string name, IEnumerable<NamedDays> days, Instant stamp)
    {
        var calendar = new Calendar { ProductId = "-//Spring Loft//School calendar//EN" };
        calendar.AddProperty("X-WR-CALNAME", name);
        foreach (var d in days)
        {
            var uid = Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes($"{name}|{d.Kind}|{d.Name}|{d.First}|{d.Last}")))[..32];
            var e = new CalendarEvent
            {
                Uid = $"{uid}@spring-loft",
                Summary = d.Name,
                // The end of a whole-day event is the day after: RFC 5545 section 3.6.1.
                Start = Date(d.First),
                End = Date(d.Last.PlusDays(1)),
                DtStamp = new CalDateTime(stamp.ToDateTimeUtc()),
                Transparency = "TRANSPARENT",
            };
            if (d.Kind is { } kind) e.Categories = [kind];
            calendar.Events.Add(e);
        }
        return new CalendarSerializer().SerializeToString(calendar) ?? "";
    }

    private static void Expand(CalendarEvent e, string name, LocalDate from, LocalDate to, List<NamedDays> days, List<string> left)
    {
        var kind = e.Categories?.FirstOrDefault()?.Trim().ToUpperInvariant();
        var length = Length(e);
        if (e.RecurrenceRule is null && e.RecurrenceDates.GetAllDates().FirstOrDefault() is null)
        {
            var first = LocalDate.FromDateOnly(e.Start!.Date);
            var last = first.PlusDays(length - 1);
            if (last >= from && first <= to) days.Add(new(name, first, last, kind));
            else left.Add($"“{name}” on {first:uuuu-MM-dd} lies outside {from:uuuu-MM-dd} to {to:uuuu-MM-dd}.");
            return;
        }
        if (e.RecurrenceRule is { Frequency: < FrequencyType.Daily })
        {
            left.Add($"“{name}” repeats within the day; whole days do not.");
            return;
        }
        try
        {
            var found = e.GetOccurrences(Date(from.PlusDays(1 - length)), new EvaluationOptions { MaxUnmatchedIncrementsLimit = 10_000 })
                .TakeWhile(o => LocalDate.FromDateOnly(o.Period.StartTime.Date) <= to).Take(MostRepeats + 1).ToList();
            if (found.Count > MostRepeats) left.Add($"“{name}” repeats more than {MostRepeats} times; the rest is left out.");
            if (found.Count == 0) left.Add($"“{name}” never falls between {from:uuuu-MM-dd} and {to:uuuu-MM-dd}.");
            days.AddRange(found.Take(MostRepeats).Select(o => LocalDate.FromDateOnly(o.Period.StartTime.Date)).Select(d => new NamedDays(name, d, d.PlusDays(length - 1), kind)));
        }
        catch (Exception x) when (x is EvaluationException or ArgumentException or OverflowException)
        {
            left.Add($"“{name}” repeats by a rule that can't be worked out: {x.Message}");
        }
    }

    // Days, 1 and up: from DTEND (exclusive), from DURATION, or one day where neither is given.
    private static int Length(CalendarEvent e)
    {
        var start = LocalDate.FromDateOnly(e.Start!.Date);
        if (e.End is { } end) return Math.Max(1, NodaTime.Period.DaysBetween(start, LocalDate.FromDateOnly(end.Date)));
        return e.Duration is { } d ? Math.Max(1, (d.Weeks ?? 0) * 7 + (d.Days ?? 0)) : 1;
    }

    private static CalDateTime Date(LocalDate d) => new(d.Year, d.Month, d.Day);
}
