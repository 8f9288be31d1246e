namespace SpringLoft.Core.People;

/// <summary>What counts as an e-mail address, alike wherever one is typed.</summary>
public static class EmailAddress
{
    /// <summary>RFC 5321, 4.5.3.1 (from memory): 64 octets before the sign, 254 in all. A bare address, without a name around it.</summary>
    public static bool IsOne(string text) =>
        text.Length <= 254 && text.IndexOf('@', StringComparison.Ordinal) is > 0 and <= 64 && System.Net.Mail.MailAddress.TryCreate(text, out var read) && read.Address == text;
}
