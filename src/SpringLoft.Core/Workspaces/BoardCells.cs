using System.Globalization;
using SpringLoft.Core.Closing;

namespace SpringLoft.Core.Workspaces;

/// <summary>How a cell of the year board stands; each has its own shape on the screen.</summary>
public enum CellState { None, NotYet, Underway, Done, Attention, Blocked }

/// <summary>A cell of the year board: few words, and a gauge where something is counted.</summary>
/// <param name="Done">With <paramref name="Of"/>, how full the gauge is; both null for no gauge.</param>
public sealed record BoardCell(CellState State, string Text, int? Done = null, int? Of = null);

/// <summary>What the board knows of a class.</summary>
/// <param name="FoldersWanted">Folders that the plan asks for; 0 without a plan.</param>
/// <param name="FoldersThere">Of those, how many stand.</param>
/// <param name="BlindSpots">What students should see and cannot.</param>
/// <param name="Work">Pieces that were handed in at least once.</param>
public sealed record BoardFacts(
    ClassState State, LocalDate? OpenedOn, LocalDate? ArchivedOn, int FoldersWanted, int FoldersThere, int Students, int WithoutOwnFolder,
    int Assignments, int Work, int Returned, ClosingFacts Closing, ClassState? NextYear, int BlindSpots = 0, int OnHold = 0);

/// <summary>The cells of one row, one a season.</summary>
public sealed record BoardCells(BoardCell Folders, BoardCell Roster, BoardCell Open, BoardCell Work, BoardCell Close, BoardCell NextYear)
{
    /// <summary>Computes the row; nothing in it is typed in by anybody.</summary>
    public static BoardCells Of(BoardFacts f) => new(FolderCell(f), RosterCell(f), Opened(f), WorkCell(f), CloseCell(f), Next(f));

    private static BoardCell FolderCell(BoardFacts f) =>
        f.BlindSpots > 0 ? new(CellState.Attention, f.FoldersThere < f.FoldersWanted ? $"{f.FoldersThere} of {f.FoldersWanted}, {Spots(f.BlindSpots)}" : Spots(f.BlindSpots),
            f.FoldersWanted == 0 ? null : Math.Min(f.FoldersThere, f.FoldersWanted), f.FoldersWanted == 0 ? null : f.FoldersWanted)
        : f.FoldersWanted == 0 ? new(CellState.NotYet, f.FoldersThere == 0 ? "no plan" : $"{f.FoldersThere}, no plan")
        : new(f.FoldersThere >= f.FoldersWanted ? CellState.Done : CellState.Attention,
            $"{f.FoldersThere} of {f.FoldersWanted}", Math.Min(f.FoldersThere, f.FoldersWanted), f.FoldersWanted);

    private static string Spots(int n) => n == 1 ? "1 blind spot" : $"{n} blind spots";

    private static BoardCell RosterCell(BoardFacts f) => f switch
    {
        { OnHold: > 0 } => new(CellState.Attention, $"{f.Students}, {f.OnHold} on hold"),
        // Closing may end all enrollments: then nobody is wanting.
        { Students: 0, State: ClassState.Archived } => new(CellState.Done, "enrollment ended"),
        { Students: 0 } => new(CellState.NotYet, "nobody yet"),
        { WithoutOwnFolder: > 0 } => new(CellState.Attention, $"{f.Students}, {f.WithoutOwnFolder} without folder"),
        _ => new(CellState.Done, f.Students.ToString(CultureInfo.InvariantCulture)),
    };

    private static BoardCell Opened(BoardFacts f) => f.State switch
    {
        ClassState.InPreparation when f.Students == 0 => new(CellState.NotYet, "in preparation"),
        ClassState.InPreparation => new(CellState.Underway, "ready to open"),
        _ => new(CellState.Done, f.OpenedOn is { } d ? $"since {d.ToString("d MMM", CultureInfo.InvariantCulture)}" : "open"),
    };

    private static BoardCell WorkCell(BoardFacts f)
    {
        if (f.Work == 0) return new(CellState.NotYet, f.Assignments == 0 ? "no assignment" : "none handed in");
        var held = f.Work - f.Returned;
        return held == 0
            ? new(CellState.Done, $"{f.Returned} back", f.Returned, f.Work)
            : new(CellState.Attention, $"{f.Returned} back, {held} held", f.Returned, f.Work);
    }

    private static BoardCell CloseCell(BoardFacts f)
    {
        if (f.State == ClassState.Archived)
            return new(CellState.Done, f.ArchivedOn is { } d ? $"archived {d.ToString("d MMM", CultureInfo.InvariantCulture)}" : "archived");
        if (f.State == ClassState.InPreparation) return new(CellState.NotYet, "not open yet");
        if (f.Closing.RunGoing) return new(CellState.Underway, "closing now");
        var held = f.Closing.HeldMarked + f.Closing.HeldUnmarked;
        if (held > 0) return new(CellState.Blocked, $"{held} held");
        if (f.Closing.Unfiled > 0) return new(CellState.Attention, $"{f.Closing.Unfiled} unfiled");
        if (f.Closing.DraftAssignments > 0) return new(CellState.Attention, f.Closing.DraftAssignments == 1 ? "1 draft left" : $"{f.Closing.DraftAssignments} drafts left");
        if (f.Closing.UnsentWork > 0) return new(CellState.Attention, $"{f.Closing.UnsentWork} never sent");
        return new(CellState.Done, "ready");
    }

    private static BoardCell Next(BoardFacts f) => f.NextYear switch
    {
        null => new(CellState.NotYet, "not yet"),
        ClassState.InPreparation => new(CellState.Underway, "in preparation"),
        _ => new(CellState.Done, "open"),
    };
}
