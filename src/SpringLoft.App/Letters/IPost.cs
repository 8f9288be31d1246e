namespace SpringLoft.App.Letters;

/// <summary>Hands letters to a mail server. A stand-in that keeps them in a folder ships with the program.</summary>
public interface IPost
{
    /// <summary>True if letters stay on this machine, because no mail server of the school's is connected.</summary>
    bool KeepsThem { get; }

    /// <summary>Hands a plain letter over.</summary>
    /// <param name="id">The same at each try, so that a mail program knows a letter that came twice.</param>
    /// <param name="to">E-mail address.</param>
    /// <exception cref="NotTakenException">The mail server did not take it, whatever the reason.</exception>
    void Send(long id, string to, string name, string subject, string text, Instant at);

    /// <summary>Where letters are kept and not sent: lets go of those from before a moment of the real clock.</summary>
    void LetGo(Instant moment);
}

/// <summary>What was the matter with a letter that was not taken.</summary>
public enum NotTaken
{
    /// <summary>The mail server can't be reached or does not let us in; no other letter will go either.</summary>
    ServerAway,

    /// <summary>Not now.</summary>
    Later,

    /// <summary>Never: there is no such address, or no such letter is taken.</summary>
    Never,
}

/// <summary>A mail server did not take a letter.</summary>
public sealed class NotTakenException(NotTaken why, string message, Exception? inner = null) : IOException(message, inner)
{
    /// <summary>What was the matter.</summary>
    public NotTaken Why { get; } = why;
}
