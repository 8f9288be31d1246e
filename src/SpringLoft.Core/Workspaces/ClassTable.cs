using SpringLoft.Core.Naming;
using SpringLoft.Core.People;

namespace SpringLoft.Core.Workspaces;

/// <summary>A row of a table of classes that are to be made; blank where the table says nothing.</summary>
/// <param name="Lead">The lead teacher: user name, e-mail, or name in either order.</param>
/// <param name="Plan">Name of a folder plan; blank for the one chosen for all.</param>
public sealed record TableRow(string? Course, string? Section, string? Period, string? Level, string? Room, string? Term, string? Lead, string? Plan);

/// <summary>A member of staff who might lead a class.</summary>
public sealed record StaffName(PersonId Id, PersonName Name, string UserName, string? Email);

/// <summary>What a table of classes is held against.</summary>
/// <param name="Taken">Names of all classes there are.</param>
/// <param name="Self">Who makes them; leads where the table names nobody.</param>
/// <param name="MayNameOthers">May they make classes for other lead teachers?</param>
public sealed record TableSetting(
    string Pattern, string Year, IReadOnlyList<string> Terms, IReadOnlyList<string> Plans, IReadOnlyList<StaffName> Staff,
    IReadOnlyList<string> Taken, StaffName Self, bool MayNameOthers);

/// <summary>What will become of a row.</summary>
/// <param name="Lead">Who will lead it; null while the row is refused for that.</param>
/// <param name="Term">Index into the terms; null for the whole year.</param>
/// <param name="Plan">Index into the plans; null for the one chosen for all.</param>
/// <param name="Refusal">Why it can't be made; null if it can.</param>
/// <param name="Note">Something to know that stops nobody.</param>
public sealed record TableDecision(string Name, PersonId? Lead, string? LeadName, int? Term, int? Plan, Refusal? Refusal, string? Note);

/// <summary>Decides a table of classes, row by row.</summary>
public static class ClassTable
{
    /// <summary>The order in which columns are taken when the table has no header.</summary>
    public static readonly IReadOnlyList<string> Columns = ["course", "section", "period", "level", "room", "term", "lead", "plan"];

    /// <summary>One decision a row, in their order. Two rows that would get one name are both refused.</summary>
    public static IReadOnlyList<TableDecision> Decide(IReadOnlyList<TableRow> rows, TableSetting at)
    {
        var previews = rows.Select(r => ClassName.Preview(at.Pattern, new(r.Course?.Trim() ?? "", r.Section?.Trim(), r.Period?.Trim(), TermOf(r, at) is { } t ? at.Terms[t] : null, at.Year), [])).ToList();
        var twice = previews.Where(p => p.Refusal is null).GroupBy(p => SafeName.Key(p.Name)).Where(g => g.Count() > 1).ToDictionary(g => g.Key, g => g.Count());
        var taken = at.Taken.GroupBy(SafeName.Key).ToDictionary(g => g.Key, g => g.First());
        var staff = at.Staff.SelectMany(s => Names(s).Select(PersonName.SearchKey).Distinct().Select(key => (key, s))).ToLookup(x => x.key, x => x.s, StringComparer.Ordinal);
        return [.. rows.Select((r, i) => One(r, previews[i], at, staff, twice, taken))];
    }

    // The name in either order, with and without a comma, and the last name alone.
    private static string[] Names(StaffName s) => [s.Name.Display, s.Name.Sort, $"{s.Name.Family} {s.Name.Given}", s.Name.Family];

    private static TableDecision One(TableRow r, ClassNamePreview p, TableSetting at, ILookup<string, StaffName> staff, Dictionary<string, int> twice, Dictionary<string, string> taken)
    {
        var (lead, leadRefusal) = Lead(r.Lead, at, staff);
        var term = TermOf(r, at);
        var plan = Index(at.Plans, r.Plan);
        var refusal = p.Refusal
            ?? (twice.TryGetValue(SafeName.Key(p.Name), out var n) ? new Refusal("name-twice", $"{n} rows would be called “{p.Name}”.", "Give each its section or period.", "section") : null)
            ?? (taken.TryGetValue(SafeName.Key(p.Name), out var there) ? new Refusal("name-taken", $"There is already a class “{there}”.", "Give this one another section or period.", "section") : null)
            ?? (!string.IsNullOrWhiteSpace(r.Term) && term is null ? new Refusal("term-unknown", $"School year {at.Year} has no term “{r.Term.Trim()}”.", $"Its terms are: {string.Join(", ", at.Terms)}.", "term") : null)
            ?? (!string.IsNullOrWhiteSpace(r.Plan) && plan is null ? new Refusal("plan-unknown", $"There is no folder plan “{r.Plan.Trim()}”.", $"The plans are: {string.Join(", ", at.Plans)}.", "plan") : null)
            ?? TooLong(r)
            ?? leadRefusal;
        var note = p.Changes.Count > 0 ? string.Join("; ", p.Changes.Select(c => $"“{c.Was}” is replaced: {c.Why}")) : string.IsNullOrWhiteSpace(r.Lead) && at.MayNameOthers ? "no lead teacher named: you lead it" : null;
        return new(p.Name, lead?.Id, lead?.Name.Display, term, plan, refusal, note);
    }

    private static Refusal? TooLong(TableRow r)
    {
        (string Field, string What, string? Value, int Most)[] parts = [("course", "The course", r.Course, 80), ("section", "The section", r.Section, 40), ("period", "The period", r.Period, 40), ("level", "The level", r.Level, 40), ("room", "The room", r.Room, 40)];
        return parts.Where(x => x.Value?.Trim().Length > x.Most).Select(x => new Refusal("too-long", $"{x.What} has {x.Value!.Trim().Length} characters.", $"Keep it to {x.Most}.", x.Field)).FirstOrDefault();
    }

    private static (StaffName? Who, Refusal? Refusal) Lead(string? said, TableSetting at, ILookup<string, StaffName> staff)
    {
        if (string.IsNullOrWhiteSpace(said)) return (at.Self, null);
        var text = said.Trim();
        var exact = at.Staff.Where(s => string.Equals(s.UserName, text, StringComparison.OrdinalIgnoreCase) || string.Equals(s.Email, text, StringComparison.OrdinalIgnoreCase)).ToList();
        var found = exact.Count > 0 ? exact : [.. staff[PersonName.SearchKey(text)]];
        return found switch
        {
            [] => (null, new("lead-unknown", $"The directory has no teacher “{text}”.", "Write the user name, or the name as the directory has it.", "lead")),
            [var one] when !at.MayNameOthers && one.Id != at.Self.Id => (null, new("lead-other", $"{one.Name.Display} is somebody else.", "Make classes for yourself; the coordinator makes those of others.", "lead")),
            [var one] => (one, null),
            _ => (null, new("lead-several", $"“{text}” is {found.Count} people: {string.Join(", ", found.Select(f => f.UserName))}.", "Write the user name.", "lead")),
        };
    }

    private static int? TermOf(TableRow r, TableSetting at) => Index(at.Terms, r.Term);

    private static int? Index(IReadOnlyList<string> list, string? said)
    {
        if (string.IsNullOrWhiteSpace(said)) return null;
        for (var i = 0; i < list.Count; i++)
            if (string.Equals(list[i], said.Trim(), StringComparison.OrdinalIgnoreCase)) return i;
        return null;
    }
}
