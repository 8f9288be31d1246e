using SpringLoft.Core.People;
using SpringLoft.Core.Workspaces;

namespace SpringLoft.Store.People;

/// <summary>What the directory is put in order by.</summary>
public enum DirectoryOrder
{
    /// <summary>Family name, then given name.</summary>
    Name,

    /// <summary>Role, then grade from the lowest.</summary>
    Role,

    /// <summary>Student number; who has none stands at the end.</summary>
    Number,

    /// <summary>User name.</summary>
    UserName,
}

/// <summary>What narrows the directory; null narrows nothing.</summary>
/// <param name="Words">Beginnings of names, numbers, e-mails or user names; each must be found.</param>
/// <param name="InNoClass">True for those who are on no roster of the year.</param>
public sealed record DirectoryFilter(IReadOnlyList<string> Words, string? School, string? Grade, SchoolRole? Role, ClassId? Class, bool InNoClass, bool Gone, YearId Year);

/// <summary>Reads the directory as a whole.</summary>
public static class DirectoryStore
{
    private const string Columns = "p.id, p.role, p.given, p.family, p.grade, p.student_number, p.email, p.user_name, p.active, p.record_id, p.school";

    private const string ByName = "p.family_key, p.given_key, p.id";

    /// <summary>People who pass the filter, in an order, a page of them; and how many there are.</summary>
    /// <param name="only">Ids that are let through; null for all.</param>
    public static (IReadOnlyList<PersonRow> People, int Total) Find(IDbConnection c, DirectoryFilter f, IReadOnlyCollection<PersonId>? only, DirectoryOrder order, bool down, int skip, int take)
    {
        var where = new List<string> { "p.active = @active", "p.joined_into IS NULL" };
        var values = new DynamicParameters(new { active = !f.Gone, f.School, f.Grade, role = f.Role?.ToString(), k = f.Class?.Value, year = f.Year.Value, skip, take });
        for (var i = 0; i < f.Words.Count; i++)
        {
            where.Add($"(p.family_key LIKE @w{i} OR p.given_key LIKE @w{i} OR p.family_key LIKE @m{i} OR p.given_key LIKE @m{i} OR p.student_number LIKE @r{i} OR p.email LIKE @r{i} OR p.user_name LIKE @r{i})");
            values.Add($"w{i}", PersonName.SearchKey(f.Words[i]) + "%");
            values.Add($"m{i}", "% " + PersonName.SearchKey(f.Words[i]) + "%");
            values.Add($"r{i}", f.Words[i].Replace("%", "", StringComparison.Ordinal).Replace("_", "", StringComparison.Ordinal) + "%");
        }
        if (f.School is not null) where.Add("ifnull(p.school, '') = @School");
        if (f.Grade is not null) where.Add("p.grade = @Grade");
        if (f.Role is not null) where.Add("p.role = @role");
        if (f.Class is not null) where.Add("EXISTS (SELECT 1 FROM member m WHERE m.class_id = @k AND m.person_id = p.id AND m.left_at IS NULL)");
        if (f.InNoClass) where.Add("NOT EXISTS (SELECT 1 FROM member m JOIN class k ON k.id = m.class_id WHERE m.person_id = p.id AND m.left_at IS NULL AND k.year_id = @year)");
        if (only is not null)
        {
            where.Add("p.id IN @only");
            values.Add("only", only.Select(p => p.Value).ToArray());
        }
        var from = $"FROM person p WHERE {string.Join(" AND ", where)}";
        return ([.. c.Query<PersonRow>($"SELECT {Columns} {from} ORDER BY {OrderBy(order, down ? " DESC" : "")} LIMIT @take OFFSET @skip", values)], c.ExecuteScalar<int>($"SELECT count(*) {from}", values));
    }

    // Numbers and grades by their worth where they are written with digits alone; equal ones by name.
    private static string OrderBy(DirectoryOrder order, string way) => order switch
    {
        DirectoryOrder.Role => $"p.role{way}, length(p.grade){way}, p.grade{way}, {ByName}",
        DirectoryOrder.Number => $"p.student_number IS NULL, length(p.student_number){way}, p.student_number{way}, {ByName}",
        DirectoryOrder.UserName => $"p.user_name COLLATE NOCASE{way}, {ByName}",
        _ => $"p.family_key{way}, p.given_key{way}, p.id{way}",
    };

    /// <summary>Grades and schools that there are, to choose from.</summary>
    public static (IReadOnlyList<string> Grades, IReadOnlyList<string> Schools) Choices(IDbConnection c) =>
        ([.. c.Query<string>("SELECT DISTINCT grade FROM person WHERE grade IS NOT NULL AND active = 1 ORDER BY length(grade), grade")], [.. c.Query<string>("SELECT DISTINCT school FROM person WHERE school IS NOT NULL AND active = 1 ORDER BY school")]);

    /// <summary>Everybody active, as far as knowing them again goes.</summary>
    public static IReadOnlyList<KnownPerson> Known(IDbConnection c) => [.. c.Query<PersonRow>($"SELECT {Columns} FROM person p WHERE p.active = 1 AND p.joined_into IS NULL")
        .Select(p => new KnownPerson(p.Id, p.RecordId, p.StudentNumber, p.Email, p.UserName, p.Name, p.Grade))];

    /// <summary>Writes what may be changed by hand; the user name stays.</summary>
    public static void Save(IDbConnection c, PersonRow p) => c.Execute(
        "UPDATE person SET given = @Given, family = @Family, given_key = @g, family_key = @f, grade = @Grade, student_number = @StudentNumber, email = @Email, school = @School, role = @role, active = @Active, record_id = @RecordId WHERE id = @Id",
        new { p.Id, p.Given, p.Family, g = PersonName.SearchKey(p.Given), f = PersonName.SearchKey(p.Family), p.Grade, p.StudentNumber, p.Email, p.School, role = p.Role.ToString(), p.Active, p.RecordId });

    /// <summary>Who has a student number; null if nobody has.</summary>
    public static PersonRow? HolderOf(IDbConnection c, string number) => c.QuerySingleOrDefault<PersonRow>($"SELECT {Columns} FROM person p WHERE p.student_number = @number", new { number });

    /// <summary>An account that was joined into another gives its number up for it; false if it was not.</summary>
    public static bool GiveUpNumber(IDbConnection c, PersonId gone, PersonId kept) => c.Execute("UPDATE person SET student_number = NULL WHERE id = @gone AND joined_into = @kept", new { gone, kept }) == 1;

    /// <summary>Pairs of which a person said that they are two, the lower id first.</summary>
    public static IReadOnlySet<(PersonId, PersonId)> Apart(IDbConnection c) => c.Query<(long, long)>("SELECT a, b FROM person_apart").Select(x => (new PersonId(x.Item1), new PersonId(x.Item2))).ToHashSet();

    /// <summary>Keeps that two people are two.</summary>
    public static void SetApart(IDbConnection c, PersonId a, PersonId b) =>
        c.Execute("INSERT INTO person_apart(a, b) VALUES(min(@a, @b), max(@a, @b)) ON CONFLICT DO NOTHING", new { a, b });
}
