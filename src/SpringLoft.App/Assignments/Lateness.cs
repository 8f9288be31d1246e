using SpringLoft.App.Workspaces;
using SpringLoft.Core.Assignments;
using SpringLoft.Store.Assignments;

namespace SpringLoft.App.Assignments;

/// <summary>What was late, and what still can be handed in, as the school's clock has it.</summary>
internal static class Lateness
{
    /// <summary>Where an assignment is against its day now.</summary>
    internal static DueState StateOf(Due due, SchoolClock clock) =>
        due.Closes(clock.Zone) <= clock.Now ? DueState.Closed : due.Moment(clock.Zone) <= clock.Now ? DueState.Late : DueState.InTime;

    /// <summary>By how many whole minutes a piece came late; null where it is in time or not handed in.</summary>
    /// <param name="firstIn">When it first came in to stay: what was in time once is not late for being handed in again.</param>
    internal static int? Of(Due due, WorkRow w, IReadOnlyDictionary<WorkId, Instant> firstIn, DateTimeZone zone) =>
        w.State == WorkState.Working ? null : due.LateBy(firstIn.TryGetValue(w.Id, out var first) ? first : w.HandedInAt, zone) is { } by ? (int)by.TotalMinutes : null;
}
