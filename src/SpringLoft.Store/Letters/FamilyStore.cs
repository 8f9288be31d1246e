using SpringLoft.Core.Letters;
using SpringLoft.Core.People;
using SpringLoft.Core.Rosters;
using SpringLoft.Store.Sealing;

namespace SpringLoft.Store.Letters;

/// <summary>Somebody at home to whom the school may write.</summary>
public sealed record ContactRow
{
    public ContactId Id { get; init; }

    /// <summary>The lasting id of the school's records; null for one who was added by hand.</summary>
    public string? RecordId { get; init; }
    public string Name { get; init; } = "";
    public string? Email { get; init; }
    public string Language { get; init; } = "";

    /// <summary>Since when the school lets them be written to; null for not.</summary>
    public Instant? WriteFrom { get; init; }

    /// <summary>Since when they want no letter.</summary>
    public Instant? StoppedAt { get; init; }

    /// <summary>Since when the school's records have them no more.</summary>
    public Instant? GoneAt { get; init; }
    public LocalDate? LetterOn { get; init; }
    public Instant? LetterAt { get; init; }
    public int Version { get; init; }

    /// <summary>How they are to be written to.</summary>
    public ContactFact Fact => new(WriteFrom is not null, Email is not null, StoppedAt is not null, GoneAt is not null);
}

/// <summary>A student of a contact.</summary>
/// <param name="ByHand">A person said so, not the records.</param>
public sealed record ChildRow(ContactId ContactId, PersonId PersonId, PersonName Name, string? Grade, bool Active, bool ByHand);

/// <summary>A contact as it was, so that it can be put back.</summary>
/// <param name="Existed">False if there was none.</param>
/// <param name="Children">Of whom the records said that they are theirs.</param>
public sealed record ContactBefore(ContactId Id, bool Existed, string Name, string? Email, Instant? GoneAt, IReadOnlyList<PersonId> Children);

/// <summary>What is laid down about the weekly letter.</summary>
/// <param name="From">Since when it goes out; null for not.</param>
/// <param name="SeenMarks">With marks or without, as somebody looked at one before; null for nobody yet.</param>
public sealed record WeeklyRow(Instant? From, IsoDayOfWeek Day, bool Marks, bool? SeenMarks);

/// <summary>Owns contact and family_of, and of school what it lays down about letters to homes.</summary>
public static class FamilyStore
{
    private const string Columns = "id, record_id, name, email, language, write_from, stopped_at, gone_at, letter_on, letter_at, version";
    private const string Children = "SELECT f.contact_id, f.person_id, p.given, p.family, p.grade, p.active, f.by_hand FROM family_of f JOIN person p ON p.id = f.person_id";

    /// <summary>What is laid down.</summary>
    public static WeeklyRow Weekly(IDbConnection c) => c.QuerySingleOrDefault<Laid>("SELECT weekly_from, weekly_day, weekly_marks, weekly_seen FROM school") is { } w
        ? new(w.WeeklyFrom, (IsoDayOfWeek)w.WeeklyDay, w.WeeklyMarks, w.WeeklySeen) : new(null, IsoDayOfWeek.Friday, false, null);

    /// <summary>Lays it down.</summary>
    public static void SetWeekly(IDbConnection c, Instant? from, IsoDayOfWeek day, bool marks) => c.Execute("UPDATE school SET weekly_from = @from, weekly_day = @day, weekly_marks = @marks", new { from, day = (int)day, marks });

    /// <summary>Notes that somebody of the staff looked at a letter before it goes out.</summary>
    public static void SeeWeekly(IDbConnection c, bool marks) => c.Execute("UPDATE school SET weekly_seen = @marks", new { marks });

    /// <summary>All contacts, by name.</summary>
    public static IReadOnlyList<ContactRow> All(IDbConnection c) => [.. c.Query<ContactRow>($"SELECT {Columns} FROM contact ORDER BY name COLLATE NOCASE, id")];

    /// <summary>Those of one student.</summary>
    public static IReadOnlyList<ContactRow> Of(IDbConnection c, PersonId student) =>
        [.. c.Query<ContactRow>($"SELECT {Columns} FROM contact WHERE id IN (SELECT contact_id FROM family_of WHERE person_id = @student) ORDER BY id", new { student })];

    /// <summary>One; null if there is none.</summary>
    public static ContactRow? Find(IDbConnection c, ContactId id) => c.QuerySingleOrDefault<ContactRow>($"SELECT {Columns} FROM contact WHERE id = @id", new { id });

    /// <summary>Whose letters a code stops; null for a code that is none.</summary>
    public static ContactRow? ByStopCode(IDbConnection c, string code) => c.QuerySingleOrDefault<ContactRow>($"SELECT {Columns} FROM contact WHERE stop_digest = @digest", new { digest = SealedColumns.Digest(code) });

    /// <summary>Whose contacts they are.</summary>
    public static ILookup<ContactId, ChildRow> ChildrenOf(IDbConnection c, IEnumerable<ContactId>? contacts = null) =>
        c.Query<Child>($"{Children} {(contacts is null ? "" : "WHERE f.contact_id IN @contacts")} ORDER BY p.family_key, p.given_key, p.id", new { contacts = contacts?.Select(k => k.Value) }).Select(x => new ChildRow(x.ContactId, x.PersonId, new(x.Given, x.Family), x.Grade, x.Active, x.ByHand)).ToLookup(x => x.ContactId);

    /// <summary>Adds one.</summary>
    public static ContactId Add(IDbConnection c, string? recordId, string name, string? email, string language, Instant? writeFrom) => new(c.ExecuteScalar<long>(
        "INSERT INTO contact(record_id, name, email, language, write_from) VALUES(@recordId, @name, @email, @language, @writeFrom) RETURNING id", new { recordId, name, email, language, writeFrom }));

    /// <summary>Changes one, at the version that was seen; false if changed meanwhile.</summary>
    public static bool Save(IDbConnection c, ContactId id, string name, string? email, string language, int version) =>
        c.Execute("UPDATE contact SET name = @name, email = @email, language = @language, version = version + 1 WHERE id = @id AND version = @version", new { id, name, email, language, version }) == 1;

    /// <summary>Sets whether the school lets them be written to; whoever may be already stays so since when they were.</summary>
    /// <returns>Whether that changed anything.</returns>
    public static bool SetMayWrite(IDbConnection c, ContactId id, Instant? from) =>
        c.Execute($"UPDATE contact SET write_from = @from, version = version + 1 WHERE id = @id AND write_from IS {(from is null ? "NOT " : "")}NULL", new { id, from }) == 1;

    /// <summary>Sets whether they want letters: null for yes.</summary>
    public static void SetStopped(IDbConnection c, ContactId id, Instant? at) => c.Execute("UPDATE contact SET stopped_at = @at, version = version + 1 WHERE id = @id", new { id, at });

    /// <summary>Notes the letter of a day; false if it was written meanwhile.</summary>
    public static bool Wrote(IDbConnection c, ContactId id, LocalDate day, Instant at) =>
        c.Execute("UPDATE contact SET letter_on = @day, letter_at = @at WHERE id = @id AND (letter_on IS NULL OR letter_on < @day)", new { id, day, at }) == 1;

    /// <summary>The code by which one stops letters; null where there is none that can be opened.</summary>
    public static string? StopCode(IDbConnection c, ContactId id) => c.ExecuteScalar<string?>("SELECT unseal(stop_code) FROM contact WHERE id = @id", new { id });

    /// <summary>Gives one a code.</summary>
    public static void SetStopCode(IDbConnection c, ContactId id, string code) => c.Execute("UPDATE contact SET stop_code = seal(@code), stop_digest = @digest WHERE id = @id", new { id, code, digest = SealedColumns.Digest(code) });

    /// <summary>Sets whose contact one is, of what a person said or of what the records did; the other stays.</summary>
    public static void SetChildren(IDbConnection c, ContactId id, IEnumerable<PersonId> children, bool byHand)
    {
        c.Execute("DELETE FROM family_of WHERE contact_id = @id AND by_hand = @byHand", new { id, byHand });
        // What a person said stands, whatever the records say too.
        foreach (var person in children) c.Execute($"INSERT INTO family_of(contact_id, person_id, by_hand) VALUES(@id, @person, @byHand) ON CONFLICT DO {(byHand ? "UPDATE SET by_hand = 1" : "NOTHING")}", new { id, person, byHand });
    }

    /// <summary>Removes one, with the letters to them that wait.</summary>
    public static void Remove(IDbConnection c, ContactId id) => c.Execute("DELETE FROM contact WHERE id = @id", new { id });

    /// <summary>Contacts that deliveries brought.</summary>
    public static IReadOnlyList<TodayContact> Delivered(IDbConnection c)
    {
        var rows = c.Query<ContactRow>($"SELECT {Columns} FROM contact WHERE record_id IS NOT NULL ORDER BY id").ToList();
        if (rows.Count == 0) return [];
        var children = ChildrenOf(c);
        return [.. rows.Select(k => new TodayContact(k.Id, k.RecordId!, k.Name, k.Email, k.GoneAt is not null, [.. children[k.Id].Where(x => !x.ByHand).Select(x => x.PersonId)], [.. children[k.Id].Where(x => x.ByHand).Select(x => x.PersonId)]))];
    }

    /// <summary>Writes over what the records say of one.</summary>
    public static void SaveDelivered(IDbConnection c, ContactBefore k) => c.Execute("UPDATE contact SET name = @Name, email = @Email, gone_at = @GoneAt, version = version + 1 WHERE id = @Id", new { k.Id, k.Name, k.Email, k.GoneAt });

    /// <summary>A student is erased: contacts who have no other student go, with the letters to them; in letters to the others nothing of them waits.</summary>
    public static void Forget(IDbConnection c, PersonId student)
    {
        var contacts = c.Query<long>("SELECT contact_id FROM family_of WHERE person_id = @student", new { student }).ToList();
        c.Execute("DELETE FROM letter WHERE contact_id IN @contacts", new { contacts });
        c.Execute("DELETE FROM family_of WHERE person_id = @student", new { student });
        c.Execute("DELETE FROM contact WHERE id IN @contacts AND id NOT IN (SELECT contact_id FROM family_of)", new { contacts });
    }

    private sealed record Laid
    {
        public Instant? WeeklyFrom { get; init; }
        public int WeeklyDay { get; init; }
        public bool WeeklyMarks { get; init; }
        public bool? WeeklySeen { get; init; }
    }

    private sealed record Child
    {
        public ContactId ContactId { get; init; }
        public PersonId PersonId { get; init; }
        public string Given { get; init; } = "";
        public string Family { get; init; } = "";
        public string? Grade { get; init; }
        public bool Active { get; init; }
        public bool ByHand { get; init; }
    }
}
