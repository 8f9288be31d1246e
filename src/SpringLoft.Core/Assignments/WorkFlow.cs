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
public sealed record WorkFact(WorkState State, int Files, decimal? Score, decimal? Counts = null);

/// <summary>What surrounds a piece of work.</summary>
/// <param name="Points">Full marks; null if the assignment has no score.</param>
/// <param name="Closed">Late work is not taken any more.</param>
public sealed record WorkSetting(ClassState Class, bool Published, bool MayPost, decimal? Points, bool Closed = false);

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
    public static bool IsDraft(WorkFact work) => work.Score is { } score && !(work.State == WorkState.Returned && score == work.Counts);

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
        return work with { State = WorkState.HandedIn, Score = IsDraft(work) ? work.Score : null };
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
            if (s < 0 || s > points)
                throw new RefusedException("score-range", $"The score {s} is not between 0 and {points}.", "Type a number in that range.", "score");
            if (decimal.Round(s, MarkPlaces) != s && s != work.Score)
                throw new RefusedException("score-decimals", $"The score {s} has more than {MarkPlaces} decimals.", $"Round it to {MarkPlaces}.", "score");
        }
        return work with { Score = score ?? (work.State == WorkState.Returned ? work.Counts : null) };
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
    public static WorkFact Returned(WorkFact work) => work with { State = WorkState.Returned, Counts = work.Score ?? work.Counts };

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
}
