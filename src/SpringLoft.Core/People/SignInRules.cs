namespace SpringLoft.Core.People;

/// <summary>What a password must be, and how wrong ones slow a guesser down.</summary>
public static class SignInRules
{
    /// <summary>Fewest characters. NIST SP 800-63B-4 section 3.1.1.2 asks for 8 where a second factor exists; we ask for 8 of students too, and refuse the guessable ones.</summary>
    public const int MinLength = 8;

    /// <summary>Most characters, so that hashing can't be used to wear the server out.</summary>
    public const int MaxLength = 128;

    /// <summary>Says what is wrong with a new password; null if nothing is.</summary>
    /// <param name="password">As typed.</param>
    /// <param name="userName">The person's; the password may not contain it.</param>
    /// <param name="isOldOne">True if it is the password in use now.</param>
    public static Refusal? CheckNew(string password, string userName, bool isOldOne)
    {
        if (password.Length < MinLength)
            return new("password-short", $"The new password has {password.Length} characters.", $"Use {MinLength} or more; three plain words are good.", "newPassword");
        if (password.Length > MaxLength)
            return new("password-long", $"The new password has {password.Length} characters.", $"Use {MaxLength} at the most.", "newPassword");
        if (isOldOne)
            return new("password-same", "That is the password you have now.", "Choose another one.", "newPassword");
        if (password.Contains(userName, StringComparison.OrdinalIgnoreCase))
            return new("password-has-name", "The new password contains the user name.", "Leave the user name out.", "newPassword");
        if (password.Distinct().Count() < 4)
            return new("password-plain", "The new password repeats the same few characters.", "Use at least four different ones.", "newPassword");
        return null;
    }

    /// <summary>How long sign-in is shut after so many wrong passwords in a row: not at all for the first four, then 2 s doubling up to 15 min.</summary>
    public static Duration WaitAfter(int wrongInARow) =>
        wrongInARow < 5 ? Duration.Zero : Duration.FromSeconds(Math.Min(900, Math.Pow(2, Math.Min(20, wrongInARow - 4))));
}
