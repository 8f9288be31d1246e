namespace SpringLoft.Core.Closing;

/// <summary>How long what somebody leaves behind is kept for them.</summary>
public static class Leaving
{
    /// <summary>Whoever left on this day or before has had all the time that the school gives.</summary>
    /// <param name="days">For which a leaver's take-home is kept, from the day they left.</param>
    public static LocalDate LeftBy(LocalDate today, int days) => today.PlusDays(-days - 1);
}
