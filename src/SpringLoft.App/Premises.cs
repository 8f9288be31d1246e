using SpringLoft.Core.Workspaces;
using SpringLoft.Store;
using SpringLoft.Store.Audit;
using SpringLoft.Store.Files;

namespace SpringLoft.App;

/// <summary>Who asks.</summary>
public sealed record Caller(PersonId Id, SchoolRole Role, string Name)
{
    /// <summary>Where from; null for what is done on the machine itself.</summary>
    public Origin? From { get; init; }
}

/// <summary>Where somebody asks from.</summary>
/// <param name="Address">Of the network.</param>
/// <param name="Session">The sign-in in which they do.</param>
public sealed record Origin(string Address, SessionId Session);

/// <summary>What every use case works with: the database, the file store and the clock.</summary>
public sealed record Premises(Database Db, FileStore Files, SchoolClock Clock)
{
    /// <summary>Writes in one transaction, with the line in the audit trail that belongs to it.</summary>
    public T Write<T>(Caller by, Func<IDbConnection, Instant, AuditLine> note, Func<IDbConnection, Instant, T> write) => Db.Write(c =>
    {
        var now = Clock.Now;
        var result = write(c, now);
        Add(c, by, now, note(c, now));
        return result;
    });

    /// <summary>Adds a line to the audit trail inside a transaction that is under way.</summary>
    /// <param name="by">Null for what the program does by itself.</param>
    public static void Add(IDbConnection c, Caller? by, Instant now, AuditLine line) =>
        AuditStore.Add(c, new AuditRow
        {
            At = now,
            PersonId = by?.Id,
            Who = by?.Name,
            Act = line.Act,
            Thing = line.Thing,
            ThingId = line.ThingId,
            ClassId = line.ClassId,
            Detail = line.Detail,
            Address = by?.From?.Address ?? line.Address,
            SessionId = by?.From?.Session.Value,
        });
}

/// <summary>What goes into the audit trail besides who and when.</summary>
/// <param name="Address">Where from, for what nobody does who is signed in.</param>
public sealed record AuditLine(string Act, string Thing, long? ThingId, ClassId? ClassId, string Detail, string? Address = null);
