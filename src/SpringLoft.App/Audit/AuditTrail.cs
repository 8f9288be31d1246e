using SpringLoft.Store.Audit;

namespace SpringLoft.App.Audit;

/// <summary>A line of the audit trail.</summary>
public sealed record AuditView(long Id, Instant At, string Who, string Act, string Thing, long? ThingId, ClassId? Class, string? ClassName, string Detail);

/// <summary>Shows the audit trail.</summary>
public sealed class AuditTrail(Premises premises)
{
    /// <summary>Up to 200 lines, newest first, older than <paramref name="before"/> if given.</summary>
    public IReadOnlyList<AuditView> See(long? before, ClassId? id) => premises.Db.Read(c => AuditStore.Before(c, before, id, 200)
        .Select(a => new AuditView(a.Id, a.At, a.Who ?? "Spring Loft", a.Act, a.Thing, a.ThingId, a.ClassId, a.ClassName, a.Detail)).ToList());
}
