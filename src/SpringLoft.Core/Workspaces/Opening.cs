namespace SpringLoft.Core.Workspaces;

/// <summary>What is to be said of a class before it is opened.</summary>
public enum OpeningNote
{
    /// <summary>Nobody is on its roster.</summary>
    NoStudents,

    /// <summary>Nobody of the school leads it.</summary>
    NobodyLeads,

    /// <summary>Students would see no folder.</summary>
    SeesNothing,

    /// <summary>Something a student should see and could not.</summary>
    BlindSpots,

    /// <summary>Some of its students are in another class of the course as well: this may be the wrong roster.</summary>
    AlsoElsewhere,

    /// <summary>Some of its students have no way to sign in yet.</summary>
    NoSignIn,

    /// <summary>There is no welcome note.</summary>
    NoWelcome,

    /// <summary>Nothing is published in it.</summary>
    NothingPublished,
}

/// <summary>A class as it would be opened.</summary>
/// <param name="AlsoElsewhere">Students who are in another class of the course.</param>
/// <param name="NoSignIn">Students with no way to sign in.</param>
public sealed record OpeningFacts(int Students, bool Led, int FoldersSeen, int BlindSpots, int AlsoElsewhere, int NoSignIn, bool HasWelcome, int Published);

/// <summary>Decides what is to be looked at before a class is opened.</summary>
public static class Opening
{
    /// <summary>Everything there is to say, what weighs most first.</summary>
    public static IReadOnlyList<OpeningNote> Notes(OpeningFacts f)
    {
        (OpeningNote, bool)[] all =
        [
            (OpeningNote.NoStudents, f.Students == 0), (OpeningNote.NobodyLeads, !f.Led), (OpeningNote.SeesNothing, f.FoldersSeen == 0), (OpeningNote.BlindSpots, f.BlindSpots > 0),
            (OpeningNote.AlsoElsewhere, f.AlsoElsewhere > 0), (OpeningNote.NoSignIn, f.NoSignIn > 0), (OpeningNote.NoWelcome, !f.HasWelcome), (OpeningNote.NothingPublished, f.Published == 0),
        ];
        return [.. all.Where(x => x.Item2).Select(x => x.Item1)];
    }

    /// <summary>Does it want a look before it is opened together with others? What can still come when the class is open does not.</summary>
    public static bool WantsALook(IEnumerable<OpeningNote> notes) => notes.Any(n => n < OpeningNote.NoSignIn);
}
