using SpringLoft.Core.Workspaces;

namespace SpringLoft.Core.Assignments;

/// <summary>Where a piece of work is on its way.</summary>
public enum WorkState { Working, HandedIn, Returned }

/// <summary>Who has a piece of work.</summary>
public enum HeldBy { Student, Teacher }

/// <summary>A piece of work as far as its way goes.</summary>
/// <param name="Files">Things the student put in it: files, links, pages.</param>
/// <param name="Score">The mark; a draft until the work is returned. Null when not marked.</param>
/// <param name="Counts">The mark that was returned last: handing in again does not take it away, it counts until another one is returned.</param>
/// <param name="Chosen">The levels that the mark is made of, where it is by criteria.</param>
/// <param name="CountsChosen">Those of the mark that counts.</param>
public sealed record WorkFact(WorkState State, int Files, decimal? Score, decimal? Counts = null, string? Chosen = null, string? CountsChosen = null);

/// <summary>What surrounds a piece of work.</summary>
/// <param name="Points">Full marks; null if the assignment has no score.</param>
/// <param name="Scheme">How it is marked, where that is not in plain points.</param>
/// <param name="Closed">Late work is not taken any more.</param>
public sealed record WorkSetting(ClassState Class, bool Published, bool MayPost, decimal? Points, bool Closed = false, MarkScheme? Scheme = null);

/// <summary>
/// The way of a piece of work: worked on, handed in, returned; and who holds it at each step.
/// Every method throws <see cref="RefusedException"/> when the step is not open and gives the new fact otherwise.
/// </summary>
public static class WorkFlow
{
    /// <summary>Decimal places that a mark has at most.</summary>
    public const int MarkPlaces = 2;

    /// <summary>
    /// Is the mark a draft? It is until it is returned; also where the student holds the piece: for what was done on paper, or to be
    /// marked anew, while the mark that was returned counts on.
    /// </summary>
    public static bool IsDraft(WorkFact work) => work.Score is { } score && !(work.State == WorkState.Returned && score == work.Counts && work.Chosen == work.CountsChosen);

    /// <summary>While handed in it is held by the teacher; before and after, by the student.</summary>
    public static HeldBy Holder(WorkState state) => state == WorkState.HandedIn ? HeldBy.Teacher : HeldBy.Student;

    /// <summary>The student puts in or takes out a file.</summary>
    public static void CheckChangeFiles(WorkFact work, WorkSetting at)
    {
        CheckOpen(at);
        if (Holder(work.State) == HeldBy.Teacher)
            throw new RefusedException("work-held", "The work is handed in, so the teacher holds it.", "Take it back first, or wait until it is returned.");
    }

    /// <summary>The student hands in.</summary>
    public static WorkFact HandIn(WorkFact work, WorkSetting at)
    {
        CheckOpen(at);
        if (work.State == WorkState.HandedIn)
            throw new RefusedException("work-handed-in-already", "This work is handed in already.", "Nothing to do: your teacher has it.");
        if (at.Closed)
            throw new RefusedException("work-too-late", "Work for this assignment is not taken any more.", "Ask your teacher: they can take it for longer.");
        if (work.Files == 0)
            throw new RefusedException("work-empty", "There is nothing in this work yet.", "Add a file, a link or a page, then hand in.");
        return work with { State = WorkState.HandedIn, Score = IsDraft(work) ? work.Score : null, Chosen = IsDraft(work) ? work.Chosen : null };
    }

    /// <summary>The student takes back what is not marked yet.</summary>
    public static WorkFact TakeBack(WorkFact work, WorkSetting at)
    {
        CheckOpen(at);
        if (work.State != WorkState.HandedIn)
            throw new RefusedException("work-not-held", "The work is with you already.", "Change it and hand it in when it is ready.");
        if (work.Score is not null)
            throw new RefusedException("work-marked", "Your teacher has begun to mark this work.", "Ask for it to be returned.");
        if (at.Closed)
            throw new RefusedException("work-too-late", "Taken back now it could not be handed in again: work for this assignment is not taken any more.", "Leave it with your teacher.");
        return work with { State = WorkState.Working };
    }

    /// <summary>Staff give a draft mark, whoever holds the piece; null takes it away, and what was returned counts on.</summary>
    public static WorkFact Mark(WorkFact work, decimal? score, WorkSetting at)
    {
        CheckClassOpen(at);
        if (score is { } s)
        {
            if (at.Points is not { } points)
                throw new RefusedException("assignment-no-points", "This assignment has no score.", "Comment instead, or give the assignment points.", "score");
            if (at.Scheme is { ByCriteria: true })
                throw new RefusedException("mark-by-criteria", "This assignment is marked by its criteria.", "Choose a level for each on the marking desk.", "score");
            if (at.Scheme is { } scale && scale.NameOf(s) is null)
                throw new RefusedException("mark-off-scale", $"{s} is none of the levels of this assignment.", $"Choose one of {string.Join(", ", scale.Levels.Select(l => $"{l.Name} ({l.Points})"))}.", "score");
            if (s < 0 || s > points)
                throw new RefusedException("score-range", $"The score {s} is not between 0 and {points}.", "Type a number in that range.", "score");
            if (decimal.Round(s, MarkPlaces) != s && s != work.Score)
                throw new RefusedException("score-decimals", $"The score {s} has more than {MarkPlaces} decimals.", $"Round it to {MarkPlaces}.", "score");
        }
        var back = score is null && work.State == WorkState.Returned;
        return work with { Score = score ?? (back ? work.Counts : null), Chosen = back ? work.CountsChosen : null };
    }

    /// <summary>Staff give a draft mark by criteria: a level for each; the mark is their sum.</summary>
    /// <exception cref="RefusedException"><c>criteria-missing</c>: not each of them has one of its levels.</exception>
    public static WorkFact MarkBy(WorkFact work, IReadOnlyList<int> chosen, WorkSetting at)
    {
        CheckClassOpen(at);
        if (at.Scheme is not { ByCriteria: true } scheme)
            throw new RefusedException("assignment-no-criteria", "This assignment has no criteria.", "Give it a mark instead.", "chosen");
        if (scheme.ScoreOf(chosen) is not { } score)
            throw new RefusedException("criteria-missing", "A level is missing, or is none of its criterion.", "Choose a level for each.", "chosen");
        return work with { Score = score, Chosen = MarkScheme.WriteChosen(chosen) };
    }

    /// <summary>Staff return the work; a draft mark becomes a returned mark.</summary>
    /// <param name="unmarkedToo">The yes that returning without a mark needs, where the assignment has points.</param>
    public static WorkFact Return(WorkFact work, bool unmarkedToo, WorkSetting at)
    {
        CheckClassOpen(at);
        if (work.State != WorkState.HandedIn && !IsDraft(work))
            throw new RefusedException("work-not-held", "The student has this work already.", "Nothing to return.");
        if (work.Score is null && at.Points is not null && !unmarkedToo)
            throw new RefusedException("work-unmarked", "This work has no mark yet.", "Mark it, or say that unmarked work is to be returned too.", "unmarkedToo");
        return Returned(work);
    }

    /// <summary>Work as it is once returned, where that it may be was decided before.</summary>
    public static WorkFact Returned(WorkFact work) => work with { State = WorkState.Returned, Counts = work.Score ?? work.Counts, CountsChosen = work.Score is null ? work.CountsChosen : work.Chosen };

    private static void CheckOpen(WorkSetting at)
    {
        CheckClassOpen(at);
        if (!at.Published)
            throw new RefusedException("assignment-draft", "The assignment is not published.", "Wait until your teacher publishes it.");
        if (!at.MayPost)
            throw new RefusedException("may-not-post", "You may look in this class but not post.", "Ask your teacher.");
    }

    private static void CheckClassOpen(WorkSetting at)
    {
        if (at.Class == ClassState.Archived)
            throw new RefusedException("class-archived", "The class is archived: nobody changes anything in it.", "The coordinator or lead teacher can restore it from the loft.");
    }

    /// <summary>
    /// Does a student read what was written about their work? What they wrote themselves always; what staff wrote once the work is
    /// returned, and while it is handed in again what was written up to the return before.
    /// </summary>
    /// <param name="byStudent">Did the student write it?</param>
    /// <param name="returnedAt">When it was returned last; null if never.</param>
    public static bool ReadsComment(WorkState state, Instant? returnedAt, bool byStudent, Instant writtenAt) =>
        state == WorkState.Returned || byStudent || writtenAt <= returnedAt;
}
