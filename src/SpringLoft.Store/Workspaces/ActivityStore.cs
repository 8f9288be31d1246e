using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Rows;

namespace SpringLoft.Store.Workspaces;

/// <summary>Owns activity.</summary>
public static class ActivityStore
{
    /// <summary>Notes that somebody did something on a day, beside what they did on it before.</summary>
    public static void Note(IDbConnection c, ClassId id, PersonId person, LocalDate day, Did did) => c.Execute(
        "INSERT INTO activity(class_id, person_id, day, did) VALUES(@id, @person, @day, @bits) ON CONFLICT DO UPDATE SET did = did | excluded.did", new { id, person, day, bits = (int)did });

    /// <summary>The same of many days.</summary>
    public static void NoteAll(IDbConnection c, ClassId id, IEnumerable<(PersonId Person, LocalDate Day, Did Did)> rows) => Bulk.Run(c,
        "INSERT INTO activity(class_id, person_id, day, did) VALUES(@p0, @p1, @p2, @p3) ON CONFLICT DO NOTHING", 4, rows.Select(r => new object?[] { id.Value, r.Person.Value, NodaTime.Text.LocalDatePattern.Iso.Format(r.Day), (int)r.Did }));

    /// <summary>What was done in a class from one day to another.</summary>
    public static ILookup<PersonId, (LocalDate Day, Did Did)> OfClass(IDbConnection c, ClassId id, LocalDate from, LocalDate to) => c.Query<Row>(
        "SELECT person_id, day, did FROM activity WHERE class_id = @id AND day BETWEEN @from AND @to ORDER BY person_id, day", new { id, from, to }).ToLookup(r => r.PersonId, r => (r.Day, (Did)r.Did));

    /// <summary>The last day on which each did something in a class.</summary>
    public static IReadOnlyDictionary<PersonId, LocalDate> LastDays(IDbConnection c, ClassId id) => c.Query<Row>(
        "SELECT person_id, max(day) AS day, 0 AS did FROM activity WHERE class_id = @id GROUP BY person_id", new { id }).ToDictionary(r => r.PersonId, r => r.Day);

    /// <summary>Lets go of what is from before a day.</summary>
    /// <returns>How many days of people.</returns>
    public static int LetGoBefore(IDbConnection c, LocalDate day) => c.Execute("DELETE FROM activity WHERE day < @day", new { day });

    private sealed record Row
    {
        public PersonId PersonId { get; init; }
        public LocalDate Day { get; init; }
        public int Did { get; init; }
    }
}
