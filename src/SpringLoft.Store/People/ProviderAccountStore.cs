using SpringLoft.Core.People;
using SpringLoft.Core.Workspaces;

namespace SpringLoft.Store.People;

/// <summary>An account at a provider, and whose it is.</summary>
public sealed record ProviderAccountRow
{
    public string Issuer { get; init; } = "";
    public string Subject { get; init; } = "";
    public PersonId PersonId { get; init; }
    public Instant Since { get; init; }
    public Instant UsedAt { get; init; }
}

/// <summary>Owns provider_account.</summary>
public static class ProviderAccountStore
{
    private const string Columns = "issuer, subject, person_id, since, used_at";

    /// <summary>One; null if it is not known.</summary>
    public static ProviderAccountRow? Find(IDbConnection c, string issuer, string subject) =>
        c.QuerySingleOrDefault<ProviderAccountRow>($"SELECT {Columns} FROM provider_account WHERE issuer = @issuer AND subject = @subject", new { issuer, subject });

    /// <summary>A person's, the oldest first.</summary>
    public static IReadOnlyList<ProviderAccountRow> Of(IDbConnection c, PersonId who) =>
        [.. c.Query<ProviderAccountRow>($"SELECT {Columns} FROM provider_account WHERE person_id = @who ORDER BY since, issuer", new { who })];

    /// <summary>Knows one as somebody's.</summary>
    public static void Add(IDbConnection c, string issuer, string subject, PersonId who, Instant now) =>
        c.Execute("INSERT INTO provider_account(issuer, subject, person_id, since, used_at) VALUES(@issuer, @subject, @who, @now, @now)", new { issuer, subject, who, now });

    /// <summary>Notes that somebody came in with one.</summary>
    public static void Used(IDbConnection c, string issuer, string subject, Instant now) =>
        c.Execute("UPDATE provider_account SET used_at = @now WHERE issuer = @issuer AND subject = @subject", new { issuer, subject, now });

    /// <summary>Forgets all of a person's; says how many there were.</summary>
    public static int ForgetAll(IDbConnection c, PersonId who) => c.Execute("DELETE FROM provider_account WHERE person_id = @who", new { who });

    /// <summary>
    /// Everybody whom a claim could name by record id, student number, e-mail or user name, leavers too; an account that was joined
    /// into another stands for that one.
    /// </summary>
    /// <param name="issuer">Whose accounts are looked at.</param>
    public static IReadOnlyList<MeantPerson> Meant(IDbConnection c, PersonClaim said, string issuer) => [.. c.Query<MeantRow>(
        $"""
        {Meaning} WHERE p.erased_at IS NULL AND (p.record_id = @RecordId COLLATE NOCASE OR p.student_number = @StudentNumber COLLATE NOCASE OR p.email = @Email COLLATE NOCASE OR p.user_name = @UserName COLLATE NOCASE)
        """, new { said.RecordId, said.StudentNumber, said.Email, said.UserName, issuer }).Select(Row)];

    /// <summary>One person as they might be meant; null for one who is erased.</summary>
    public static MeantPerson? Meant(IDbConnection c, PersonId who, string issuer) =>
        c.QuerySingleOrDefault<MeantRow>($"{Meaning} WHERE p.id = @who AND p.erased_at IS NULL", new { who, issuer }) is { } row ? Row(row) : null;

    private const string Meaning =
        """
        SELECT k.id, p.record_id, p.student_number, p.email, p.user_name, k.given, k.family, k.grade, k.role, k.active,
          EXISTS(SELECT 1 FROM provider_account a WHERE a.person_id = k.id AND a.issuer = @issuer) AS has_other_account
        FROM person p JOIN person k ON k.id = ifnull(p.joined_into, p.id)
        """;

    private static MeantPerson Row(MeantRow r) => new(new(r.Id, r.RecordId, r.StudentNumber, r.Email, r.UserName, new PersonName(r.Given, r.Family), r.Grade), r.Role, r.Active, r.HasOtherAccount);

    private sealed record MeantRow
    {
        public PersonId Id { get; init; }
        public string? RecordId { get; init; }
        public string? StudentNumber { get; init; }
        public string? Email { get; init; }
        public string UserName { get; init; } = "";
        public string Given { get; init; } = "";
        public string Family { get; init; } = "";
        public string? Grade { get; init; }
        public SchoolRole Role { get; init; }
        public bool Active { get; init; }
        public bool HasOtherAccount { get; init; }
    }
}
