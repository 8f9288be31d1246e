using System.Security.Cryptography;
using SpringLoft.Core.Naming;
using SpringLoft.Core.People;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Naming;
using SpringLoft.Store.People;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Years;

namespace SpringLoft.App.People;

/// <summary>What the directory is narrowed to.</summary>
public sealed record DirectoryAsk
{
    /// <summary>Beginnings of names, numbers, e-mails; each word must be found.</summary>
    public string? Text { get; init; }

    public string? School { get; init; }

    public string? Grade { get; init; }

    public SchoolRole? Role { get; init; }

    public long? ClassId { get; init; }

    public bool? InNoClass { get; init; }

    public bool? Duplicates { get; init; }

    /// <summary>True for those who have left, who are otherwise not shown.</summary>
    public bool? Gone { get; init; }

    public int? Skip { get; init; }

    /// <summary>What all of them, and not only a page, are put in order by; the name, if nothing is said.</summary>
    public DirectoryOrder? Order { get; init; }

    /// <summary>The other way round.</summary>
    public bool? Down { get; init; }
}

/// <summary>Somebody of the directory.</summary>
/// <param name="Classes">Names of the classes they are in now.</param>
/// <param name="ByRecords">True if the school's records know them.</param>
public sealed record DirectoryRow(
    PersonId Id, string SortName, string Given, string Family, SchoolRole Role, string? Grade, string? StudentNumber, string? Email, string UserName, string? School, bool Active, IReadOnlyList<string> Classes, bool ByRecords);

/// <summary>A page of the directory.</summary>
/// <param name="Total">How many pass the filter.</param>
/// <param name="Duplicates">Pairs in the whole directory that may be one person.</param>
public sealed record DirectoryPage(IReadOnlyList<DirectoryRow> People, int Total, int Duplicates, IReadOnlyList<string> Grades, IReadOnlyList<string> Schools);

/// <summary>Somebody who is to be added, or as they are to be changed.</summary>
public sealed record PersonDraft(string? Given, string? Family, SchoolRole Role, string? Grade, string? StudentNumber, string? Email, string? School);

/// <summary>Who somebody might already be, and how they would sign in.</summary>
/// <param name="People">The one who is known, or those who might be meant.</param>
public sealed record PersonLook(Knowledge Knowledge, string Why, IReadOnlyList<DirectoryRow> People, string UserName, string? Said);

/// <summary>Two people who may be one.</summary>
public sealed record DuplicatePair(DirectoryRow A, DirectoryRow B, string Why, int Near);

/// <summary>Two people who were joined.</summary>
public sealed record JoinView(long Id, string Kept, string Gone, Instant At, string By, bool Undone);

/// <summary>The rule for first passwords and what is said against it.</summary>
public sealed record FirstPasswordView(string Rule, IReadOnlyList<string> Placeholders, IReadOnlyList<string> Examples, double Guesses, string? Warning, int Version);

/// <summary>The school's directory: all its people, loaded once for everybody.</summary>
public sealed class SchoolDirectory(Premises premises)
{
    private const int PageSize = 100;
    private const int MostPairs = 200;
    private const int MostAtOnce = 500;

    /// <summary>A page of the directory.</summary>
    public DirectoryPage See(DirectoryAsk ask) => premises.Db.Read(c =>
    {
        var year = Years.YearLine.Current(YearStore.All(c), premises.Clock.Today).Id;
        var pairs = Pairs(c);
        var only = ask.Duplicates == true ? pairs.SelectMany(p => new[] { p.A, p.B }).ToHashSet() : null;
        var words = Refusals.NotLonger(ask.Text ?? "", "text", "What you typed", 100).Split(' ', StringSplitOptions.RemoveEmptyEntries);
        var (people, total) = DirectoryStore.Find(c, new(words, ask.School, ask.Grade, ask.Role, ask.ClassId is { } k ? new ClassId(k) : null, ask.InNoClass == true, ask.Gone == true, year), only, ask.Order ?? DirectoryOrder.Name, ask.Down == true, Math.Max(0, ask.Skip ?? 0), PageSize);
        var (grades, schools) = DirectoryStore.Choices(c);
        return new DirectoryPage(Rows(c, people), total, pairs.Count, grades, schools);
    });

    /// <summary>Before somebody is added by hand: who they might already be, and how they would sign in. Writes nothing.</summary>
    public PersonLook Look(PersonDraft draft) => premises.Db.Read(c =>
    {
        var d = Checked(draft);
        var all = DirectoryStore.Known(c);
        var known = new Knowing(all).Find(new(null, d.StudentNumber, d.Email, null, d.Name, true, d.Grade));
        var meant = known.Person is { } one ? [one] : known.Candidates;
        var made = Made(c, d);
        return new PersonLook(known.Knowledge, known.Why, Rows(c, [.. PersonStore.Find(c, meant).OrderBy(p => meant.ToList().IndexOf(p.Id))]), made.Name, made.Said);
    });

    /// <summary>Adds somebody whom the directory lacks, with a user name by the school's rule and a first password for the slip.</summary>
    /// <param name="evenSo">The yes that somebody who might be known needs: they are another person.</param>
    /// <exception cref="RefusedException"><c>person-known</c>, <c>person-maybe-known</c>.</exception>
    public PersonId Add(Caller by, PersonDraft draft, bool evenSo)
    {
        var d = Checked(draft);
        if (d.Role == SchoolRole.Coordinator && by.Role != SchoolRole.Coordinator) throw new RefusedException("role-coordinator", "Only a coordinator makes another one.", "Ask the coordinator.", "role");
        var rule = premises.Db.Read(c => SchoolStore.Get(c)!.FirstPasswordRule);
        // Hashing is slow on purpose; it is done before the one writer is held up.
        var phrase = FirstPassword.Make(rule, new(d.Given, d.Family, d.StudentNumber, d.Grade), RandomNumberGenerator.GetInt32);
        var hash = SigningIn.Hash(phrase);
        return premises.Db.Write(c =>
        {
            var known = new Knowing(DirectoryStore.Known(c)).Find(new(null, d.StudentNumber, d.Email, null, d.Name, true, d.Grade));
            if (known.Knowledge is Knowledge.Conflict || (known.Knowledge is Knowledge.Known && !known.ByName))
                throw new RefusedException("person-known", $"{d.Name.Display} is in the directory already: {known.Why}.", "Enroll the one who is there.", d.StudentNumber is not null ? "studentNumber" : "email");
            if (known.Knowledge is not Knowledge.Unknown && !evenSo)
                throw new RefusedException("person-maybe-known", $"{d.Name.Display} may be in the directory already: {known.Why}.", "Look at who is there; if this is another person, say so and add them.", "given");
            FreeNumber(c, d, null);
            var id = PersonStore.Add(c, d with { UserName = Made(c, d).Name });
            PersonStore.SetPassword(c, id, hash, mustChange: true, by.Id, premises.Clock.Now, phrase);
            Premises.Add(c, by, premises.Clock.Now, new("added person", "person", id.Value, null, $"{d.Name.Display}{(evenSo ? ", though close to somebody" : "")}"));
            return id;
        });
    }

    /// <summary>Changes what the directory says of somebody; the account, the user name and all work stay, also when they move school.</summary>
    public void Change(Caller by, PersonId id, PersonDraft draft) => premises.Db.Write(c =>
    {
        var p = PersonStore.Find(c, id) ?? throw Refusals.NotFound("person");
        var d = Checked(draft);
        if (p.Role == SchoolRole.Student != (d.Role == SchoolRole.Student)) throw new RefusedException("role-crosses", $"{p.Name.Display} is {(p.Role == SchoolRole.Student ? "a student" : "staff")}; that is not changed into the other.", "Add another account for the other role.", "role");
        FreeNumber(c, d, id);
        DirectoryStore.Save(c, p with { Given = d.Given, Family = d.Family, Grade = d.Grade, StudentNumber = d.StudentNumber, Email = d.Email, School = d.School, Role = d.Role });
        Premises.Add(c, by, premises.Clock.Now, new("changed person", "person", id.Value, null, p.School != d.School ? $"{d.Name.Display}, now at {d.School ?? "no school"}" : d.Name.Display));
    });

    internal static int SetActive(IDbConnection c, Caller by, IReadOnlyList<PersonId> people, bool active, Instant now)
    {
        var found = Several(c, people);
        if (!active && found.Any(p => p.Id == by.Id)) throw new RefusedException("role-coordinator", "You can't mark yourself as having left.", "Let another coordinator do it.", "people");
        if (active && found.FirstOrDefault(p => ErasingStore.IsErased(c, p.Id)) is { } erased)
            throw new RefusedException("person-erased", $"{erased.Name.Display} was erased: nothing says any more who it was.", "Add them anew; it is another account.", "people");
        if (active) CheckThemselves(c, found, "people");
        foreach (var p in found.Where(p => p.Active != active))
        {
            DirectoryStore.Save(c, p with { Active = active });
            Premises.Add(c, by, now, new(active ? "brought back" : "marked as left", "person", p.Id.Value, null, p.Name.Display));
        }
        return found.Count(p => p.Active != active);
    }

    /// <summary>Changes what staff are in the school.</summary>
    public int SetRole(Caller by, IReadOnlyList<PersonId> people, SchoolRole role) => premises.Db.Write(c =>
    {
        if (role == SchoolRole.Student) throw new RefusedException("role-crosses", "Nobody is made a student that way.", "Add another account.", "role");
        var found = Several(c, people);
        if (found.FirstOrDefault(p => p.Role == SchoolRole.Student) is { } student) throw new RefusedException("role-crosses", $"{student.Name.Display} is a student.", "Leave students out.", "people");
        if (role != SchoolRole.Coordinator && found.Any(p => p.Id == by.Id)) throw new RefusedException("role-coordinator", "You can't take the coordinator's role from yourself.", "Let another coordinator do it.", "people");
        foreach (var p in found.Where(p => p.Role != role))
        {
            DirectoryStore.Save(c, p with { Role = role });
            Premises.Add(c, by, premises.Clock.Now, new("changed role", "person", p.Id.Value, null, $"{p.Name.Display}, {role}"));
        }
        return found.Count(p => p.Role != role);
    });

    /// <summary>Pairs that may be one person, side by side.</summary>
    public IReadOnlyList<DuplicatePair> Duplicates() => premises.Db.Read(c =>
    {
        var pairs = Pairs(c);
        var rows = Rows(c, PersonStore.Find(c, pairs.SelectMany(p => new[] { p.A, p.B }).Distinct())).ToDictionary(r => r.Id);
        return pairs.Select(p => new DuplicatePair(rows[p.A], rows[p.B], p.Why, (int)(p.Near * 100))).ToList();
    });

    /// <summary>Keeps that two people are two.</summary>
    public void SetApart(Caller by, PersonId a, PersonId b) => premises.Db.Write(c =>
    {
        var both = Several(c, [a, b]);
        DirectoryStore.SetApart(c, a, b);
        Premises.Add(c, by, premises.Clock.Now, new("said they are two people", "person", a.Value, null, string.Join(" and ", both.Select(p => p.Name.Display))));
    });

    /// <summary>Joins two people into one: every enrollment, folder and piece of work of both is the one's who is kept.</summary>
    public void Join(Caller by, PersonId kept, PersonId gone) => premises.Db.Write(c =>
    {
        var both = Several(c, [kept, gone]).ToDictionary(p => p.Id);
        if (kept == gone || both.Count != 2) throw new RefusedException("join-same", "These are not two people.", "Choose two.", "gone");
        if (both[kept].Role == SchoolRole.Student != (both[gone].Role == SchoolRole.Student)) throw new RefusedException("role-crosses", "One is a student and the other is staff.", "They can't be one account.", "gone");
        if (gone == by.Id) throw new RefusedException("role-coordinator", "You can't join your own account into another.", "Keep yours, or let another coordinator do it.", "gone");
        CheckThemselves(c, [both[kept]], "kept");
        CheckThemselves(c, [both[gone]], "gone");
        PersonJoinStore.Join(c, kept, gone, by.Id, premises.Clock.Now);
        Premises.Add(c, by, premises.Clock.Now, new("joined two people", "person", kept.Value, null, $"{both[gone].Name.Display} ({both[gone].UserName}) into {both[kept].Name.Display} ({both[kept].UserName})"));
    });

    /// <summary>Joins made, newest first.</summary>
    public IReadOnlyList<JoinView> Joins() => premises.Db.Read(c =>
    {
        var all = PersonJoinStore.All(c, 100);
        var people = PersonStore.Find(c, all.SelectMany(j => new[] { j.Kept, j.Gone }).Distinct()).ToDictionary(p => p.Id);
        return all.Select(j => new JoinView(j.Id, $"{people[j.Kept].Name.Display}, {people[j.Kept].UserName}", $"{people[j.Gone].Name.Display}, {people[j.Gone].UserName}", j.At, j.By, j.UndoneAt is not null)).ToList();
    });

    /// <summary>Takes a join apart again.</summary>
    public void UndoJoin(Caller by, long join) => premises.Db.Write(c =>
    {
        var all = PersonJoinStore.All(c, int.MaxValue);
        var j = all.FirstOrDefault(x => x.Id == join && x.UndoneAt is null) ?? throw Refusals.NotFound("join");
        if (all.Any(x => x.Id > join && x.UndoneAt is null && (x.Kept == j.Kept || x.Gone == j.Kept || x.Kept == j.Gone || x.Gone == j.Gone)))
            throw new RefusedException("join-later", "One of the two has been joined again since.", "Take the later one apart first.");
        PersonJoinStore.Undo(c, j, premises.Clock.Now);
        Premises.Add(c, by, premises.Clock.Now, new("took a join apart", "person", j.Kept.Value, null, ""));
    });

    /// <summary>The rule for first passwords, tried out.</summary>
    /// <param name="rule">Null for the one in force.</param>
    public FirstPasswordView SeeFirstPasswords(string? rule) => premises.Db.Read(c =>
    {
        var school = SchoolStore.Get(c)!;
        var text = string.IsNullOrWhiteSpace(rule) ? school.FirstPasswordRule : Refusals.NotLonger(rule, "rule", "The rule", 120);
        var judged = FirstPassword.Judge(text);
        return new FirstPasswordView(text, FirstPassword.Placeholders, [.. PersonStore.Students(c, 3).Select(p => FirstPassword.Make(text, new(p.Given, p.Family, p.StudentNumber, p.Grade), RandomNumberGenerator.GetInt32))], judged.Guesses, judged.Warning, school.Version);
    });

    /// <summary>Sets the rule for first passwords made from now on.</summary>
    public void SetFirstPasswords(Caller by, string? rule, int version)
    {
        var text = Refusals.Needed(rule, "rule", "The rule", 120);
        FirstPassword.Make(text, new("Given", "Family", "1234", "6"), RandomNumberGenerator.GetInt32);
        premises.Db.Write(c =>
        {
            if (!SchoolStore.SetFirstPasswords(c, text, version)) throw Refusals.ChangedMeanwhile("rule");
            Premises.Add(c, by, premises.Clock.Now, new("set first passwords", "school", null, null, text));
        });
    }

    private static IReadOnlyList<PossibleDuplicate> Pairs(IDbConnection c) => Core.People.Duplicates.Find(DirectoryStore.Known(c), DirectoryStore.Apart(c), MostPairs);

    // An account that was joined into another is nobody's until it is taken apart.
    private static void CheckThemselves(IDbConnection c, IEnumerable<PersonRow> people, string field)
    {
        foreach (var one in people)
            if (PersonJoinStore.Into(c, one.Id) is { } into)
                throw new RefusedException("join-gone", $"{one.Name.Display} ({one.UserName}) was joined into {PersonStore.Find(c, into)!.UserName}.", "Take that account, or take the join apart first.", field);
    }

    private static IReadOnlyList<PersonRow> Several(IDbConnection c, IReadOnlyList<PersonId> people)
    {
        Refusals.CheckPeople(people.Count, MostAtOnce);
        var found = PersonStore.Find(c, people);
        return found.Count == people.Distinct().Count() ? found : throw Refusals.NotFound("person");
    }

    private static void FreeNumber(IDbConnection c, PersonRow d, PersonId? but)
    {
        if (d.StudentNumber is not { } number || DirectoryStore.HolderOf(c, number) is not { } holder || holder.Id == but) return;
        // A number of an account that was joined into this one is theirs.
        if (but is { } one && DirectoryStore.GiveUpNumber(c, holder.Id, one)) return;
        throw new RefusedException("number-taken", $"The student number {number} is {holder.Name.Display}'s{(holder.Active ? "" : ", who has left")}.", "Look whether this is the same person; if not, check the number.", "studentNumber");
    }

    private static MadeUserName Made(IDbConnection c, PersonRow d) =>
        UserName.Make(SchoolStore.Get(c)!.UserNamePattern, new(d.Given, d.Family, d.StudentNumber, d.Grade), PersonStore.UserNames(c).Select(u => u.UserName.ToLowerInvariant()).ToHashSet(StringComparer.Ordinal));

    private static PersonRow Checked(PersonDraft d)
    {
        string? Optional(string? text, string field, string what) => string.IsNullOrWhiteSpace(text) ? null : Refusals.NotLonger(PlainText.Name(text), field, what, 120);
        var email = Optional(d.Email, "email", "The e-mail");
        if (email is not null && !EmailAddress.IsOne(email)) throw new RefusedException("email-wrong", $"“{email}” is no e-mail address.", "Write it like name@school.example.", "email");
        return new PersonRow
        {
            Given = Refusals.Needed(PlainText.Name(d.Given ?? ""), "given", "The given name", 80),
            Family = Refusals.NotLonger(PlainText.Name(d.Family ?? ""), "family", "The family name", 80),
            Role = d.Role,
            Grade = Optional(d.Grade, "grade", "The grade"),
            StudentNumber = Optional(d.StudentNumber, "studentNumber", "The student number"),
            Email = email,
            School = Optional(d.School, "school", "The school"),
        };
    }

    private static IReadOnlyList<DirectoryRow> Rows(IDbConnection c, IReadOnlyList<PersonRow> people)
    {
        var now = RosterStore.Now(c, people.Select(p => p.Id));
        return [.. people.Select(p => new DirectoryRow(p.Id, p.Name.Sort, p.Given, p.Family, p.Role, p.Grade, p.StudentNumber, p.Email, p.UserName, p.School, p.Active, now[p.Id].Names, p.RecordId is not null))];
    }
}
