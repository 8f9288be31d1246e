using SpringLoft.Core.Workspaces;

namespace SpringLoft.Core.Closing;

/// <summary>How a finding bears on closing.</summary>
public enum FindingLevel { Ready, Attention, Blocks }

/// <summary>The way to mend a finding, which the screen turns into a link or a button.</summary>
public enum Mend { None, ReturnWork, MarkWork, FileThings, PublishOrBin, OpenClass, SeeRoster, RollOver, SeeRun, WithdrawInvitations, SeeDeliveries, RetireCalendar, SetShelf }

/// <summary>One line of the list that stands before closing.</summary>
public sealed record Finding(string Code, FindingLevel Level, string Text, int Count, Mend Mend);

/// <summary>What is known about a class before it is closed. Counts are of things not in the bin.</summary>
public sealed record ClosingFacts(
    ClassState State, int Students, int HeldMarked, int HeldUnmarked, int UnsentWork, int Unfiled, int DraftAssignments,
    bool NextYearMade, bool RunGoing)
{
    /// <summary>Draft marks on pieces that their students hold: done on paper, or marked anew.</summary>
    public int LooseDrafts { get; init; }

    /// <summary>Of the held work, pieces whose only copy the teacher holds.</summary>
    public int BlindCopies { get; init; }

    /// <summary>Invitations that were sent and not accepted yet.</summary>
    public int Invitations { get; init; }

    /// <summary>Changes of a delivery that wait for a person.</summary>
    public int OnHold { get; init; }

    /// <summary>Can calendar programs subscribe to it?</summary>
    public bool CalendarOn { get; init; }

    /// <summary>Is there an open shelf for the holidays?</summary>
    public bool ShelfSet { get; init; }
}

/// <summary>Is a class ready to be closed, and if not, why and what mends it?</summary>
public static class Readiness
{
    /// <summary>All findings, the gravest first.</summary>
    public static IReadOnlyList<Finding> Assess(ClosingFacts f)
    {
        var list = new List<Finding>();
        void Add(string code, FindingLevel level, string text, int count, Mend mend) => list.Add(new(code, level, text, count, mend));

        if (f.State == ClassState.Archived) Add("archived", FindingLevel.Blocks, "The class is archived already.", 0, Mend.None);
        if (f.State == ClassState.InPreparation) Add("not-open", FindingLevel.Blocks, "The class was never opened.", 0, Mend.OpenClass);
        if (f.RunGoing) Add("run-going", FindingLevel.Blocks, "A closing run is at work on this class.", 0, Mend.SeeRun);
        if (f.HeldUnmarked > 0)
            Add("held-unmarked", FindingLevel.Blocks, $"{Pieces(f.HeldUnmarked)} held by the teacher, not marked.", f.HeldUnmarked, Mend.MarkWork);
        if (f.HeldMarked + f.LooseDrafts is > 0 and var drafts)
            Add("held-marked", FindingLevel.Blocks, $"{Pieces(drafts)} marked but not returned: the mark is a draft until then.", drafts, Mend.ReturnWork);
        if (f.BlindCopies > 0)
            Add("blind-copies", FindingLevel.Blocks, f.BlindCopies == 1 ? "Of these, 1 is the only copy there is: its student has none." : $"Of these, {f.BlindCopies} are the only copies there are: their students have none.", f.BlindCopies, Mend.None);
        if (f.HeldMarked + f.HeldUnmarked == 0)
            Add("all-returned", FindingLevel.Ready, "Every piece of work is with its student.", 0, Mend.None);
        if (f.UnsentWork > 0)
            Add("unsent", FindingLevel.Attention, $"{Pieces(f.UnsentWork)} begun and never handed in. Closing keeps them for the take-home.", f.UnsentWork, Mend.None);
        if (f.Unfiled > 0)
            Add("unfiled", FindingLevel.Attention, $"{Count(f.Unfiled, "thing stands", "things stand")} in no folder.", f.Unfiled, Mend.FileThings);
        if (f.DraftAssignments > 0)
            Add("drafts", FindingLevel.Attention, $"{Count(f.DraftAssignments, "assignment was", "assignments were")} never published.", f.DraftAssignments, Mend.PublishOrBin);
        if (f.OnHold > 0)
            Add("on-hold", FindingLevel.Attention, $"{Count(f.OnHold, "change of a delivery waits", "changes of a delivery wait")} for a person.", f.OnHold, Mend.SeeDeliveries);
        if (f.Invitations > 0)
            Add("invitations", FindingLevel.Attention, $"{Count(f.Invitations, "invitation is", "invitations are")} not accepted yet. Closing withdraws what is open.", f.Invitations, Mend.WithdrawInvitations);
        if (f.Students == 0)
            Add("no-students", FindingLevel.Attention, "Nobody is on the roster.", 0, Mend.SeeRoster);
        if (!f.NextYearMade)
            Add("next-year", FindingLevel.Attention, "Next year's class is not made yet. It can be made later too.", 0, Mend.RollOver);
        else
            Add("next-year-made", FindingLevel.Ready, "Next year's class is made.", 0, Mend.None);
        if (f.CalendarOn) Add("calendar", FindingLevel.Ready, "Its calendar is on; closing retires it.", 0, Mend.RetireCalendar);
        Add(f.ShelfSet ? "shelf-set" : "shelf", FindingLevel.Ready, f.ShelfSet ? "An open shelf is set for the holidays." : "No open shelf is set: once archived, nobody without a sign-in reads any of it.", 0, Mend.SetShelf);
        return [.. list.OrderByDescending(x => x.Level)];
    }

    /// <summary>The gravest level of a list; ready for an empty one.</summary>
    public static FindingLevel Overall(IEnumerable<Finding> findings) =>
        findings.Select(f => f.Level).DefaultIfEmpty(FindingLevel.Ready).Max();

    /// <summary>Throws unless nothing blocks.</summary>
    /// <exception cref="RefusedException"><c>closing-blocked</c>, naming what blocks.</exception>
    public static void CheckMayClose(ClosingFacts facts)
    {
        var blocks = Assess(facts).Where(f => f.Level == FindingLevel.Blocks).ToList();
        if (blocks.Count > 0)
            throw new RefusedException("closing-blocked", "The class can't be closed yet: " + string.Join(" ", blocks.Select(b => b.Text)),
                "Mend what is listed on the closing desk, then close.");
    }

    private static string Pieces(int n) => Count(n, "piece of work is", "pieces of work are");

    private static string Count(int n, string one, string many) => n == 1 ? $"1 {one}" : $"{n} {many}";
}
