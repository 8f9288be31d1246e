namespace SpringLoft.App.Closing;

/// <summary>Sends mail to staff. A stand-in that keeps letters in a folder ships with the program.</summary>
public interface IPost
{
    /// <summary>Sends a plain letter.</summary>
    /// <param name="to">E-mail address.</param>
    void Send(string to, string name, string subject, string text, Instant at);
}
