using SpringLoft.Core.People;
using SpringLoft.Store.Audit;

namespace SpringLoft.Store.People;

/// <summary>How much of what there is of somebody.</summary>
/// <param name="Classes">Classes on whose rosters they stood.</param>
/// <param name="Works">Pieces of work, with their marks.</param>
/// <param name="Lines">Lines of the audit trail by them or about them.</param>
public sealed record ErasureCounts(int Classes, int Works, int Files, int TakeHomes, int Lines);

/// <summary>Takes a person's data out: what says who they are goes, what others need stays under another name.</summary>
public static class ErasingStore
{
    /// <summary>People who left on a day or before and are not erased.</summary>
    public static IReadOnlyList<PersonId> Left(IDbConnection c, LocalDate leftBy) =>
        [.. c.Query<PersonId>("SELECT id FROM person WHERE active = 0 AND erased_at IS NULL AND joined_into IS NULL AND left_on <= @leftBy ORDER BY id", new { leftBy })];

    /// <summary>What the rule on erasing asks; null if there is no such person.</summary>
    /// <param name="alone">How many files of a take-home stand nowhere else.</param>
    public static ErasureFacts? Facts(IDbConnection c, PersonId id, Func<YearId, int> alone)
    {
        if (c.QuerySingleOrDefault<Row>(
            """
            SELECT active, erased_at IS NOT NULL AS erased, joined_into IS NOT NULL AS joined, left_on,
              (SELECT count(*) FROM member m JOIN class k ON k.id = m.class_id WHERE m.person_id = p.id AND m.left_at IS NULL AND k.state <> 'Archived' AND k.binned_at IS NULL) AS on_rosters,
              (SELECT count(*) FROM work w WHERE w.student_id = p.id AND w.state = 'HandedIn') AS held
            FROM person p WHERE id = @id
            """, new { id }) is not { } r) return null;
        var homes = c.Query<Home>("SELECT t.year_id, y.label, t.fetched_at IS NOT NULL AS fetched FROM take_home t JOIN school_year y ON y.id = t.year_id WHERE t.person_id = @id ORDER BY t.year_id", new { id });
        return new(r.Active, r.Erased, r.Joined, r.LeftOn, r.OnRosters, r.Held, [.. homes.Select(h => new KeptHome(h.Label, alone(h.YearId), h.Fetched))]);
    }

    /// <summary>How much there is.</summary>
    public static ErasureCounts Counts(IDbConnection c, PersonId id) => c.QuerySingle<Numbers>(
        """
        SELECT (SELECT count(*) FROM member WHERE person_id = @id) AS classes, (SELECT count(*) FROM work WHERE student_id = @id) AS works,
          (SELECT count(*) FROM work_file WHERE added_by = @id) + (SELECT count(*) FROM item WHERE added_by = @id) AS files, (SELECT count(*) FROM take_home WHERE person_id = @id) AS take_homes,
          (SELECT count(*) FROM audit WHERE person_id = @id OR (thing = 'person' AND thing_id = @id)) AS lines
        """, new { id }) is var n ? new(n.Classes, n.Works, n.Files, n.TakeHomes, n.Lines) : null!;

    /// <summary>Has somebody been erased?</summary>
    public static bool IsErased(IDbConnection c, PersonId id) => c.ExecuteScalar<bool>("SELECT erased_at IS NOT NULL FROM person WHERE id = @id", new { id });

    /// <summary>Takes it out, of accounts too that were found to be the same person.</summary>
    /// <param name="pseudonym">Stands where the name stood.</param>
    public static void Erase(IDbConnection c, PersonId id, string pseudonym, Instant now)
    {
        foreach (var same in c.Query<PersonId>("SELECT id FROM person WHERE joined_into = @id AND erased_at IS NULL", new { id }).ToList()) One(c, same, pseudonym, now);
        // What was joined can't be taken apart again: what it would take says who they were.
        c.Execute("DELETE FROM person_join WHERE kept = @id OR gone = @id", new { id });
        One(c, id, pseudonym, now);
    }

    private static void One(IDbConnection c, PersonId id, string pseudonym, Instant now)
    {
        var before = c.QuerySingle<Before>("SELECT given, family, email FROM person WHERE id = @id", new { id });
        SecondStepStore.End(c, id);
        Letters.FamilyStore.Forget(c, id);
        SessionStore.EndAll(c, id);
        ProviderAccountStore.ForgetAll(c, id);
        c.Execute(
            """
            UPDATE person SET given = '', family = @pseudonym, given_key = '', family_key = @key, grade = NULL, student_number = NULL, email = NULL, school = NULL, record_id = NULL, user_name = @userName, erased_at = @now WHERE id = @id;
            UPDATE sign_in SET set_by = NULL WHERE set_by = @id;
            DELETE FROM sign_in WHERE person_id = @id;
            DELETE FROM group_member WHERE person_id = @id;
            DELETE FROM activity WHERE person_id = @id;
            DELETE FROM notice_seen WHERE person_id = @id;
            DELETE FROM talk_reader WHERE person_id = @id;
            DELETE FROM acknowledged WHERE person_id = @id;
            DELETE FROM phrase WHERE person_id = @id;
            DELETE FROM lead_offer WHERE to_id = @id OR by_id = @id;
            DELETE FROM news_quiet WHERE person_id = @id;
            DELETE FROM news_reader WHERE person_id = @id;
            DELETE FROM join_wait WHERE person_id = @id;
            DELETE FROM join_try WHERE person_id = @id;
            DELETE FROM person_apart WHERE a = @id OR b = @id;
            DELETE FROM once WHERE person_id = @id;
            DELETE FROM take_home WHERE person_id = @id;
            DELETE FROM package WHERE student_id = @id;
            UPDATE folder SET name = @pseudonym, name_key = @key, given_name = CASE WHEN given_name IS NULL THEN NULL ELSE @pseudonym END WHERE student_id = @id;
            UPDATE invitation SET letter_id = NULL WHERE letter_id IN (SELECT id FROM letter WHERE to_address = @email);
            UPDATE invitation SET email = @pseudonym WHERE accepted_by = @id OR email = @email COLLATE NOCASE;
            DELETE FROM letter WHERE to_address = @email COLLATE NOCASE;
            DELETE FROM delivery_came WHERE person_id = @id;
            """, new { id, pseudonym, key = PersonName.SearchKey(pseudonym), userName = $"erased-{id.Value}", now, email = before.Email ?? "" });
        AuditStore.Erase(c, id, pseudonym);
        // In the words of other lines too, where nobody else has the same name.
        var name = new PersonName(before.Given, before.Family);
        if (name.Display.Length <= 3 || c.ExecuteScalar<bool>("SELECT EXISTS (SELECT 1 FROM person WHERE given = @Given COLLATE NOCASE AND family = @Family COLLATE NOCASE)", before)) return;
        foreach (var written in new[] { name.Display, name.Sort }.Distinct())
        {
            AuditStore.EraseWords(c, written, pseudonym);
            c.Execute("UPDATE delivery_hold SET text = replace(text, @written, @pseudonym), person_ref = replace(person_ref, @written, @pseudonym) WHERE instr(text, @written) > 0", new { written, pseudonym });
        }
    }

    private sealed record Before
    {
        public string Given { get; init; } = "";
        public string Family { get; init; } = "";
        public string? Email { get; init; }
    }

    private sealed record Row
    {
        public bool Active { get; init; }
        public bool Erased { get; init; }
        public bool Joined { get; init; }
        public LocalDate? LeftOn { get; init; }
        public int OnRosters { get; init; }
        public int Held { get; init; }
    }

    private sealed record Home
    {
        public YearId YearId { get; init; }
        public string Label { get; init; } = "";
        public bool Fetched { get; init; }
    }

    private sealed record Numbers
    {
        public int Classes { get; init; }
        public int Works { get; init; }
        public int Files { get; init; }
        public int TakeHomes { get; init; }
        public int Lines { get; init; }
    }
}
