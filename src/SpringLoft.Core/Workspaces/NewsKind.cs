namespace SpringLoft.Core.Workspaces;

/// <summary>What news can be about.</summary>
public enum NewsKind
{
    /// <summary>A piece of one's work came back.</summary>
    Returned,

    /// <summary>An assignment was published for one.</summary>
    Published,

    /// <summary>A notice was posted.</summary>
    Notice,

    /// <summary>Something asks one to acknowledge it, or was asked for again.</summary>
    Asked,

    /// <summary>Somebody wrote about a piece of work: staff to its student, its student to staff.</summary>
    Comment,

    /// <summary>Somebody answered what one wrote in a place to talk.</summary>
    Answer,

    /// <summary>A student wrote in a place to talk of a class of one's own.</summary>
    Question,

    /// <summary>A delivery waits for a yes.</summary>
    Hold,

    /// <summary>A run that one started is at its end.</summary>
    RunEnded,
}

/// <summary>Who is told what.</summary>
public static class NewsKinds
{
    /// <summary>The kinds that somebody of this role in the school can be told, in the order in which they are offered.</summary>
    public static IReadOnlyList<NewsKind> Of(SchoolRole role) => role switch
    {
        SchoolRole.Student => [NewsKind.Returned, NewsKind.Published, NewsKind.Notice, NewsKind.Asked, NewsKind.Comment, NewsKind.Answer],
        SchoolRole.Coordinator => [NewsKind.Notice, NewsKind.Comment, NewsKind.Answer, NewsKind.Question, NewsKind.Hold, NewsKind.RunEnded],
        _ => [NewsKind.Notice, NewsKind.Comment, NewsKind.Answer, NewsKind.Question, NewsKind.RunEnded],
    };

    /// <summary>Is a letter due? One a day at the most, from six in the morning by the school's clock on.</summary>
    /// <param name="lastOn">The day of the last one; null for none yet.</param>
    public static bool LetterIsDue(LocalDate? lastOn, LocalDateTime now) => now.Hour >= 6 && !(lastOn >= now.Date);
}
