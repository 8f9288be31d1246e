namespace SpringLoft.Core.Closing;

/// <summary>How long what somebody leaves behind is kept for them.</summary>
public static class Leaving
{
    /// <summary>Days for which a leaver's take-home is kept, from the day they left.</summary>
    public const int DaysKept = 400;

    /// <summary>Whoever left on this day or before has had all that time.</summary>
    public static LocalDate LeftBy(LocalDate today) => today.PlusDays(-DaysKept - 1);
}
