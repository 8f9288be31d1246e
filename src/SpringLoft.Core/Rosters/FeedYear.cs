namespace SpringLoft.Core.Rosters;

/// <summary>A school year that the roster feed may be set to.</summary>
/// <param name="Begun">True once somebody began it at the gate.</param>
public sealed record FeedYear(YearId Id, LocalDate First, LocalDate Last, bool Begun)
{
    /// <summary>
    /// The year that a feed's form offers: the newest that was begun and is not over; else the one that is now; else the next;
    /// null without any.
    /// </summary>
    /// <param name="years">In order of time.</param>
    public static YearId? Offered(IReadOnlyList<FeedYear> years, LocalDate today)
    {
        var left = years.Where(y => y.Last >= today).ToList();
        return (left.LastOrDefault(y => y.Begun) ?? left.FirstOrDefault() ?? years.LastOrDefault())?.Id;
    }

    /// <summary>True if a delivery speaks of time before a year alone: records that have not turned yet go on sending the last one.</summary>
    public static bool IsPast(RosterDelivery delivery, LocalDate yearFirst) => delivery.Last < yearFirst;
}
