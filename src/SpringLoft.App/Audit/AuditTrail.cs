using SpringLoft.Store.Audit;

namespace SpringLoft.App.Audit;

/// <summary>A line of the audit trail.</summary>
/// <param name="Who">The name as it was.</param>
/// <param name="Address">The network address it was done from; null for what the program does by itself.</param>
/// <param name="Session">The sign-in in which it was done.</param>
public sealed record AuditView(long Id, Instant At, string Who, string Act, string Thing, long? ThingId, ClassId? Class, string? ClassName, string Detail, string? Address, long? Session);

/// <summary>What following the chain of hashes has shown.</summary>
/// <param name="WrongAt">When the first line that is wrong says it was written; null if none is.</param>
public sealed record AuditCheckView(long Lines, long LetGo, long Erased, long? Wrong, Instant? WrongAt, bool CutOff, bool Whole, string LastHash);

/// <summary>Shows the audit trail, and whether it is as it was written.</summary>
public sealed class AuditTrail(Premises premises)
{
    private const int Most = 200;

    /// <summary>Up to 200 lines, newest first.</summary>
    /// <param name="before">Only lines older than the one of this number.</param>
    /// <param name="text">Sought in name, act and words; null or blank for all.</param>
    /// <param name="day">Only lines of this day of the school's and older ones.</param>
    public IReadOnlyList<AuditView> See(long? before, ClassId? id, string? text, LocalDate? day) => premises.Db.Read(c => AuditStore.Find(c,
        new(before, id, Text: string.IsNullOrWhiteSpace(text) ? null : Refusals.NotLonger(text.Trim(), "text", "The text", 200), Until: day is { } d ? premises.Clock.StartOf(d.PlusDays(1)) : null), Most)
        .Select(a => new AuditView(a.Id, a.At, a.Who ?? "Spring Loft", a.Act, a.Thing, a.ThingId, a.ClassId, a.ClassName, a.Detail, a.Address, a.SessionId)).ToList());

    /// <summary>Follows the chain of hashes over all lines.</summary>
    public AuditCheckView Check() => premises.Db.Read(c =>
    {
        var found = AuditStore.Check(c);
        var at = found.Wrong is { } wrong ? AuditStore.Find(c, new(Before: wrong + 1), 1).FirstOrDefault()?.At : null;
        return new AuditCheckView(found.Lines, found.LetGo, found.Erased, found.Wrong, at, found.CutOff, found.Whole, found.LastHash);
    });
}
