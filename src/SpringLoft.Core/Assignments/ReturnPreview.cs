namespace SpringLoft.Core.Assignments;

/// <summary>A piece of work that is a candidate for returning.</summary>
public sealed record ReturnCandidate(WorkId Work, PersonId Student, WorkFact Fact, bool HasPoints);

/// <summary>What returning all will do.</summary>
/// <param name="ToReturn">The work that will be returned.</param>
/// <param name="Students">How many students get something back.</param>
/// <param name="DraftMarks">Draft marks that become returned marks.</param>
/// <param name="Unmarked">Held work without a mark though the assignment has points: returned only on a yes.</param>
public sealed record ReturnPreview(IReadOnlyList<WorkId> ToReturn, int Students, int DraftMarks, int Unmarked)
{
    /// <summary>Decides over all candidates; what is not held, and has no draft mark, is left alone.</summary>
    public static ReturnPreview Of(IEnumerable<ReturnCandidate> candidates, bool unmarkedToo)
    {
        var held = candidates.Where(c => WorkFlow.Holder(c.Fact.State) == HeldBy.Teacher || WorkFlow.IsDraft(c.Fact)).ToList();
        var unmarked = held.Where(c => c.HasPoints && c.Fact.Score is null).ToList();
        var going = held.Except(unmarkedToo ? [] : unmarked).ToList();
        return new([.. going.Select(c => c.Work)], going.Select(c => c.Student).Distinct().Count(),
            going.Count(c => c.Fact.Score is not null), unmarked.Count);
    }
}
