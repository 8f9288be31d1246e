using SpringLoft.App.Workspaces;
using SpringLoft.Core.Assignments;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Assignments;

namespace SpringLoft.App.Assignments;

/// <summary>What is to be returned of several classes.</summary>
/// <param name="Student">Of one student alone; null for all.</param>
/// <param name="UnmarkedToo">The yes that work without a mark needs.</param>
/// <param name="Assignments">Of these alone; null for all.</param>
public sealed record ReturnScope(IReadOnlyList<ClassId> Classes, PersonId? Student, bool UnmarkedToo, IReadOnlyList<AssignmentId>? Assignments);

/// <summary>What returning does in one class.</summary>
public sealed record ClassReturn(ClassId Id, string Name, int Pieces, int Students, int DraftMarks, int Unmarked);

/// <summary>What returning does in all of them.</summary>
/// <param name="Students">Each counted once, in however many classes.</param>
public sealed record ManyReturns(int Pieces, int Students, int DraftMarks, int Unmarked, IReadOnlyList<ClassReturn> Classes);

/// <summary>Returns what is held in several classes at once: a teacher's, a combined roster's, a school's.</summary>
public sealed class ReturningMany(Premises premises)
{
    /// <summary>Says what would be returned. Writes nothing.</summary>
    public ManyReturns Preview(Caller who, ReturnScope scope) => premises.Db.Read(c => Sum(Prepare(c, who, scope)));

    /// <summary>Returns it, in all classes or in none.</summary>
    /// <param name="comment">A private comment to each; none if blank.</param>
    public ManyReturns Do(Caller by, ReturnScope scope, string? comment)
    {
        var text = Refusals.NotLonger(comment?.Trim() ?? "", "comment", "The comment", 4000);
        return premises.Db.Write(c =>
        {
            var now = premises.Clock.Now;
            var prepared = Prepare(c, by, scope);
            foreach (var p in prepared) Returns.Give(c, by, p.Id, p.Preview, p.Rows, text, now);
            return Sum(prepared);
        });
    }

    private static ManyReturns Sum(List<Prepared> all) => new(all.Sum(p => p.Preview.ToReturn.Count), all.SelectMany(p => p.Preview.ToReturn.Select(w => p.Rows[w].StudentId)).Distinct().Count(),
        all.Sum(p => p.Preview.DraftMarks), all.Sum(p => p.Preview.Unmarked), [.. all.Select(p => new ClassReturn(p.Id, p.Name, p.Preview.ToReturn.Count, p.Preview.Students, p.Preview.DraftMarks, p.Preview.Unmarked))]);

    private static List<Prepared> Prepare(IDbConnection c, Caller who, ReturnScope scope)
    {
        Refusals.CheckTicked(scope?.Classes?.Count ?? 0, Closing.ClosingRuns.MostClasses, "classes");
        return [.. scope!.Classes.Distinct().Select(id =>
        {
            var at = ClassGate.Find(c, who, id);
            if (!Permissions.InClass(at.Standing, Act.Mark)) throw new RefusedException("not-found", "One of the classes is not among those whose work you may return.", "Choose among your own classes.", "classes");
            at.NotArchived();
            var (preview, rows) = Returns.Preview(c, id, scope.Assignments, scope.Student, scope.UnmarkedToo);
            return new Prepared(id, at.Class.Name, preview, rows);
        })];
    }

    private sealed record Prepared(ClassId Id, string Name, ReturnPreview Preview, Dictionary<WorkId, WorkRow> Rows);
}
