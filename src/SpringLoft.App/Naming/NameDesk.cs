using SpringLoft.App.Workspaces;
using SpringLoft.Core.Naming;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Naming;
using SpringLoft.Store.People;
using SpringLoft.Store.Workspaces;
using SpringLoft.Store.Years;

namespace SpringLoft.App.Naming;

/// <summary>How classes are named at this school.</summary>
/// <param name="ByPattern">True if names come from the pattern alone: teachers do not change them.</param>
/// <param name="Placeholders">What a pattern may name.</param>
public sealed record NamingView(string Pattern, bool ByPattern, int Version, IReadOnlyList<string> Placeholders);

/// <summary>How the classes of a year would be called.</summary>
/// <param name="Advice">What will go wrong next year; null if nothing.</param>
public sealed record NamingPreview(IReadOnlyList<Renaming> Classes, int Differ, int Clashes, string? Advice);

/// <summary>How new user names are made at this school.</summary>
public sealed record UserNamingView(string Pattern, int Version, IReadOnlyList<string> Placeholders);

/// <summary>How one person would sign in, had the account been made by the pattern.</summary>
/// <param name="Has">The user name they have; it stays.</param>
public sealed record UserNameRow(string Person, string Has, string Would, string? Said, bool ToldApart);

/// <summary>What a pattern gives on real people of the directory.</summary>
/// <param name="ToldApart">How many would need a number to be told apart.</param>
public sealed record UserNamePreview(IReadOnlyList<UserNameRow> Rows, int People, int ToldApart, int Replaced, string? Advice);

/// <summary>Names classes by the school's pattern.</summary>
public sealed class NameDesk(Premises premises)
{
    private const int MostPreviewed = 50_000;

    private static readonly string[] Known = ["course", "section", "period", "term", "year"];

    /// <summary>The pattern in force.</summary>
    public NamingView See() => premises.Db.Read(c => SchoolStore.Get(c) is { } s ? new NamingView(s.ClassNamePattern, s.NamesByPattern, s.Version, Known) : throw Refusals.NotFound("school"));

    /// <summary>How the classes of a year that are not archived would be called. Writes nothing.</summary>
    public NamingPreview Preview(YearId year, string? pattern) => premises.Db.Read(c =>
    {
        var all = Decide(c, year, Refusals.NotLonger(pattern ?? "", "pattern", "The pattern", 200));
        var advice = NamePattern.Placeholders(pattern ?? "").Contains("year") ? null
            : "The names do not say the school year: next year's classes of the same courses will collide with these.";
        return new NamingPreview(all, all.Count(r => r.Differs), all.Count(r => r.Refusal is not null), advice);
    });

    /// <summary>Sets the pattern for classes made from now on.</summary>
    public void Set(Caller by, string? pattern, bool byPattern, int version)
    {
        var text = Refusals.Needed(pattern, "pattern", "The pattern", 200);
        // An unknown placeholder is refused here, not when the next class is made.
        NamePattern.Fill(text, Known.ToDictionary(k => k, _ => (string?)"x"));
        premises.Db.Write(c =>
        {
            if (!SchoolStore.SetNaming(c, text, byPattern, version)) throw Refusals.ChangedMeanwhile("pattern");
            Premises.Add(c, by, premises.Clock.Now, new("set class names", "school", null, null, $"{text}{(byPattern ? ", for all" : "")}"));
        });
    }

    /// <summary>Renames classes by the pattern, all of them or none.</summary>
    /// <returns>How many were renamed.</returns>
    public int Rename(Caller by, YearId year, string? pattern, IReadOnlyList<ClassId> classes) => premises.Db.Write(c =>
    {
        var chosen = classes.ToHashSet();
        var all = Decide(c, year, Refusals.Needed(pattern, "pattern", "The pattern", 200)).Where(r => chosen.Contains(r.Id) && r.Differs).ToList();
        if (all.FirstOrDefault(r => r.Refusal is not null)?.Refusal is { } refusal) throw new RefusedException(refusal);
        var keeping = ClassStore.AllNames(c).Where(n => all.All(r => r.Id != n.Id)).Select(n => SafeName.Key(n.Name)).ToHashSet();
        if (all.FirstOrDefault(r => keeping.Contains(SafeName.Key(r.Will))) is { } clash)
            throw new RefusedException("name-taken", $"“{clash.Will}” is the name of a class that keeps it.", "Rename that one too, or leave this one out.", "classes");
        var now = premises.Clock.Now;
        ClassStore.Rename(c, [.. all.Select(r => (r.Id, r.Will))]);
        foreach (var r in all) Premises.Add(c, by, now, new("renamed class", "class", r.Id.Value, r.Id, $"“{r.Name}” to “{r.Will}”"));
        return all.Count;
    });

    /// <summary>Renames one class by hand, in the transaction of whoever asks.</summary>
    /// <returns>The name it has now.</returns>
    /// <exception cref="RefusedException"><c>names-by-pattern</c> for a teacher where the school names classes; <c>name-empty</c>, <c>name-taken</c>.</exception>
    internal static string Rename(IDbConnection c, Caller by, ClassRow k, string? name, Instant now)
    {
        var raw = Refusals.Needed(name, "name", "The name", 200);
        var safe = SafeName.Make(raw) ?? throw new RefusedException("name-empty", $"“{raw}” leaves nothing to call the class by.", "Give it a name with a letter or a number.", "name");
        if (SchoolStore.Get(c)!.NamesByPattern && by.Role != SchoolRole.Coordinator)
            throw new RefusedException("names-by-pattern", "At this school the names of classes come from one pattern.", "Ask the coordinator.", "name");
        if (ClassStore.Names(c, SafeName.Key(safe.Name)).Any(n => n != k.Name))
            throw new RefusedException("name-taken", $"There is already a class “{safe.Name}”.", "Give this one another name.", "name");
        ClassStore.Rename(c, [(k.Id, safe.Name)]);
        Premises.Add(c, by, now, new("renamed class", "class", k.Id.Value, k.Id, $"“{k.Name}” to “{safe.Name}”"));
        return safe.Name;
    }

    /// <summary>The pattern of user names in force.</summary>
    public UserNamingView SeeUserNames() => premises.Db.Read(c => SchoolStore.Get(c) is { } s ? new UserNamingView(s.UserNamePattern, s.Version, UserName.Placeholders) : throw Refusals.NotFound("school"));

    /// <summary>What a pattern would have given the students of the directory. Writes nothing: a user name that was given stays.</summary>
    public UserNamePreview PreviewUserNames(string? pattern) => premises.Db.Read(c =>
    {
        var text = Refusals.Needed(pattern, "pattern", "The pattern", 100);
        var people = PersonStore.Students(c, MostPreviewed);
        var taken = new HashSet<string>(StringComparer.Ordinal);
        var rows = people.Select(p =>
        {
            var made = UserName.Make(text, new(p.Given, p.Family, p.StudentNumber, p.Grade), taken);
            taken.Add(made.Name);
            return new UserNameRow(p.Name.Sort, p.UserName, made.Name, made.Said, made.ToldApart);
        }).ToList();
        var advice = NamePattern.Placeholders(text).Contains("student number") ? null
            : "The pattern does not say the student number: two people of one name will be told apart by a number that nobody can guess.";
        return new UserNamePreview([.. rows.OrderByDescending(r => r.ToldApart).ThenByDescending(r => r.Said is not null).Take(200)], rows.Count, rows.Count(r => r.ToldApart), rows.Count(r => r.Said is not null), advice);
    });

    /// <summary>Sets the pattern for accounts made from now on.</summary>
    public void SetUserNames(Caller by, string? pattern, int version)
    {
        var text = Refusals.Needed(pattern, "pattern", "The pattern", 100);
        UserName.Make(text, new("Given", "Family", "1234", "6"), new HashSet<string>());
        if (!NamePattern.Placeholders(text).Any()) throw new RefusedException("pattern-empty", "The pattern has no placeholder: everybody would have the same user name.", "Put in the student number.", "pattern");
        premises.Db.Write(c =>
        {
            if (!SchoolStore.SetUserNames(c, text, version)) throw Refusals.ChangedMeanwhile("pattern");
            Premises.Add(c, by, premises.Clock.Now, new("set user names", "school", null, null, text));
        });
    }

    private static IReadOnlyList<Renaming> Decide(IDbConnection c, YearId id, string pattern)
    {
        var year = YearStore.All(c).FirstOrDefault(y => y.Id == id) ?? throw Refusals.NotFound("school year");
        var classes = ClassStore.OfYear(c, id).Where(k => k.State != ClassState.Archived).ToList();
        var own = classes.Select(k => k.Id).ToHashSet();
        return ClassRenaming.Decide(pattern,
            [.. classes.Select(k => new NamedClass(k.Id, k.Name, new(k.Course, k.Section, k.Period, year.Terms.FirstOrDefault(t => t.Id == k.TermId)?.Name, year.Year.Label)))],
            ClassStore.AllNames(c).Where(n => !own.Contains(n.Id)).Select(n => n.Name));
    }
}
