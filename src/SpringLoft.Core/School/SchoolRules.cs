using SpringLoft.Core.People;

namespace SpringLoft.Core.School;

/// <summary>What is let go of by the school's rules.</summary>
public enum LetGoKind
{
    /// <summary>Take-homes of people who left.</summary>
    TakeHomes,

    /// <summary>Letters that were sent or given up.</summary>
    Letters,

    /// <summary>Lines of the audit trail.</summary>
    AuditLines,

    /// <summary>The data of people who left.</summary>
    People,

    /// <summary>Days on which students did something in a class.</summary>
    Activity,
}

/// <summary>What a school lays down for everybody: on signing in, on room for files, on how long things are kept. Null is no limit, or for ever.</summary>
/// <param name="FileMegabytes">Most of one file.</param>
/// <param name="PersonMegabytes">Most of what one student has put in, over all classes.</param>
/// <param name="ClassMegabytes">Most of all that stands in one class.</param>
/// <param name="SchoolGigabytes">Most of all files of the school.</param>
/// <param name="AuditYears">How long lines of the audit trail stay.</param>
/// <param name="LetterDays">How long a letter that was sent is listed.</param>
/// <param name="LeaverDays">How long a leaver's take-home is kept for them, from the day they left.</param>
/// <param name="IdleHours">After how many hours without use a sign-in ends.</param>
/// <param name="MostDays">After how many days it ends however often it is used.</param>
/// <param name="KeepsActivity">Is it kept who opened, wrote and handed in, by school day, for the staff of a class?</param>
/// <param name="PeopleYears">How long after they left a person's name and data stay; null for until somebody erases them.</param>
public sealed record SchoolRules(SecondStepFor SecondStep, int FileMegabytes, int? PersonMegabytes, int? ClassMegabytes, int? SchoolGigabytes, int? AuditYears, int LetterDays, int LeaverDays, int? PeopleYears, int IdleHours, int MostDays, bool KeepsActivity)
{
    private const long Mega = 1024 * 1024;

    /// <summary>Most bytes of what one student has put in; null for no limit.</summary>
    public long? PersonBytes() => PersonMegabytes * Mega;

    /// <summary>Most bytes in one class; null for no limit.</summary>
    public long? ClassBytes() => ClassMegabytes * Mega;

    /// <summary>Most bytes of all files; null for no limit.</summary>
    public long? SchoolBytes() => SchoolGigabytes * Mega * 1024;

    /// <summary>What holds until a school says otherwise.</summary>
    public static readonly SchoolRules Default = new(SecondStepFor.Nobody, 2048, null, null, null, null, 30, 400, null, SessionLimits.Default.IdleHours, SessionLimits.Default.MostDays, true);

    /// <summary>Throws for a rule that could not be kept, or would keep nothing.</summary>
    /// <exception cref="RefusedException"><c>rule-range</c>, with the field.</exception>
    public void Check()
    {
        In(FileMegabytes, 1, 2048, "MB of one file", "fileMegabytes");
        In(PersonMegabytes, 10, 1_000_000, "MB of one student", "personMegabytes");
        In(ClassMegabytes, 50, 10_000_000, "MB of one class", "classMegabytes");
        In(SchoolGigabytes, 1, 1_000_000, "GB of the school", "schoolGigabytes");
        In(AuditYears, 1, 50, "years for the audit trail", "auditYears");
        In(LetterDays, 7, 365, "days for letters", "letterDays");
        // Long enough that somebody who left in June and comes back to it in the next summer still finds it.
        In(LeaverDays, 90, 3650, "days for take-homes of leavers", "leaverDays");
        In(PeopleYears, 1, 50, "years for people who left", "peopleYears");
        In(IdleHours, 1, 72, "hours without use", "idleHours");
        In(MostDays, 1, SessionRules.LongestDays, "days of a sign-in", "mostDays");
        if (IdleHours > MostDays * 24)
            throw new RefusedException("rule-range", $"{IdleHours} hours without use are more than the {MostDays} days after which a sign-in ends anyway.", "Choose fewer hours, or more days.", "idleHours");
        // A name may go only when what it is on has been fetched or let go of.
        if (PeopleYears is { } years && years * 365 <= LeaverDays)
            throw new RefusedException("rule-range", $"{years} years for people who left is sooner than the {LeaverDays} days for which their take-homes are kept for them.", "Keep people longer than their take-homes.", "peopleYears");
    }

    private static void In(int? value, int least, int most, string what, string field)
    {
        if (value is { } v && (v < least || v > most)) throw new RefusedException("rule-range", $"{v} {what} is not from {least} to {most}.", $"Choose a number from {least} to {most}.", field);
    }
}
