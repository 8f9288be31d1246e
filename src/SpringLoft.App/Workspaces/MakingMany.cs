using System.Text;
using SpringLoft.Core.Naming;
using SpringLoft.Core.Workspaces;
using SpringLoft.Formats.Csv;
using SpringLoft.Store.Naming;
using SpringLoft.Store.People;
using SpringLoft.Store.Plans;
using SpringLoft.Store.Workspaces;
using SpringLoft.Store.Years;

namespace SpringLoft.App.Workspaces;

/// <summary>Classes that are to be made, a row each.</summary>
/// <param name="Plan">The plan for rows that name none; null for no folders.</param>
public sealed record ClassTableDraft(YearId Year, PlanId? Plan, IReadOnlyList<TableRow>? Rows);

/// <summary>How the classes of a table would be.</summary>
public sealed record ClassTablePreview(IReadOnlyList<TableDecision> Rows, int Good, int Refused);

/// <summary>Makes many classes from a table or a pasted list.</summary>
public sealed class MakingMany(Premises premises, MakingClass making)
{
    /// <summary>Most rows of a table.</summary>
    public const int MostRows = 1000;

    /// <summary>Reads what was pasted: a table from a spreadsheet with or without a header, or a list of courses, one a line.</summary>
    public IReadOnlyList<TableRow> Read(string? text)
    {
        var pasted = Refusals.NotLonger(text ?? "", "text", "The table", 500_000).TrimStart('\uFEFF');
        if (string.IsNullOrWhiteSpace(pasted)) throw new RefusedException("table-empty", "There is nothing in what was pasted.", "Paste a table, one class a row.", "text");
        var first = pasted.TrimStart().Split('\n')[0].Split('\t', ',', ';').Select(h => h.Trim().Trim('"').ToLowerInvariant()).ToList();
        // A header is one if it names the course; without one the columns stand in our order.
        var whole = first.Contains("course") ? pasted : string.Join(first.Count > 1 && pasted.Contains('\t', StringComparison.Ordinal) ? '\t' : ',', ClassTable.Columns) + "\n" + pasted;
        using var bytes = new MemoryStream(Encoding.UTF8.GetBytes(whole));
        var rows = CsvRows.Read(bytes, "the table", ["course"]);
        return Limited([.. rows.Select(r => new TableRow(r["course"], r["section"], r["period"], r["level"], r["room"], r["term"], r["lead"] ?? r["teacher"] ?? r["lead teacher"], r["plan"]))]);
    }

    /// <summary>Says row by row how the classes would be. Writes nothing.</summary>
    public ClassTablePreview Preview(Caller who, ClassTableDraft draft) => premises.Db.Read(c =>
    {
        var decided = Decide(c, who, draft).Decisions;
        return new ClassTablePreview(decided, decided.Count(d => d.Refusal is null), decided.Count(d => d.Refusal is not null));
    });

    /// <summary>Makes them all, or none: a row that is refused stops the whole and is named.</summary>
    /// <returns>The classes in the order of the rows.</returns>
    public IReadOnlyList<ClassId> Make(Caller by, ClassTableDraft draft)
    {
        var rows = Limited(draft.Rows ?? []);
        if (rows.Count == 0) throw new RefusedException("missing", "There is no row.", "Write or paste one class a row.", "rows");
        return premises.Db.Write(c =>
        {
            var (decided, terms, plans) = Decide(c, by, draft);
            for (var i = 0; i < rows.Count; i++)
                if (decided[i].Refusal is { } no) throw new RefusedException(no.Code, $"Row {i + 1}: {no.What}", no.Mend, no.Field);
            return rows.Select((r, i) => making.Make(c, by, new NewClass(draft.Year, r.Course, r.Section, r.Period, decided[i].Term is { } t ? terms[t] : null,
                decided[i].Plan is { } p ? plans[p] : draft.Plan, null)
            { Level = r.Level, Room = r.Room }, decided[i].Lead!.Value, decided[i].LeadName!)).ToList();
        });
    }

    private static (IReadOnlyList<TableDecision> Decisions, IReadOnlyList<TermId> Terms, IReadOnlyList<PlanId> Plans) Decide(IDbConnection c, Caller who, ClassTableDraft draft)
    {
        var year = YearStore.All(c).FirstOrDefault(y => y.Id == draft.Year) ?? throw Refusals.NotFound("school year");
        var plans = PlanStore.All(c);
        if (draft.Plan is { } plan && plans.All(p => p.Id != plan)) throw Refusals.NotFound("folder plan");
        var staff = PersonStore.Staff(c).Select(p => new StaffName(p.Id, p.Name, p.UserName, p.Email)).ToList();
        var decided = ClassTable.Decide(Limited(draft.Rows ?? []), new(SchoolStore.Get(c)!.ClassNamePattern, year.Year.Label, [.. year.Terms.Select(t => t.Name)], [.. plans.Select(p => p.Plan.Name)],
            staff, [.. ClassStore.AllNames(c).Select(n => n.Name)], staff.FirstOrDefault(s => s.Id == who.Id) ?? new(who.Id, new("", who.Name), "", null), who.Role == SchoolRole.Coordinator));
        return (decided, [.. year.Terms.Select(t => t.Id)], [.. plans.Select(p => p.Id)]);
    }

    private static IReadOnlyList<TableRow> Limited(IReadOnlyList<TableRow> rows) =>
        rows.Count <= MostRows ? rows : throw new RefusedException("too-many", $"{rows.Count} classes at once are too many.", $"Make up to {MostRows} in one act.", "rows");
}
