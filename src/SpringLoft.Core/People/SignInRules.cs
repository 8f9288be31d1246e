namespace SpringLoft.Core.People;

/// <summary>What a password must be, and how wrong ones slow a guesser down.</summary>
public static class SignInRules
{
    /// <summary>Fewest characters. NIST SP 800-63B-4 section 3.1.1.2 asks for 8 where a second factor exists; we ask for 8 of students too, and refuse the guessable ones.</summary>
    public const int MinLength = 8;

    /// <summary>Most characters, so that hashing can't be used to wear the server out.</summary>
    public const int MaxLength = 128;

    /// <summary>Fewest guesses that a password must stand, as zxcvbn estimates them, of students; sign-in itself lets through some hundred a day.</summary>
    public const double StudentGuesses = 1e6;

    /// <summary>Of staff: what they can read and change is everybody's. zxcvbn's paper (Wheeler, USENIX Security 2016) has 10^8 as the end of what a guesser tries online, and 10^6 as the end without a slowed-down sign-in (from memory).</summary>
    public const double StaffGuesses = 1e8;

    /// <summary>Rounds of PBKDF2 with HMAC-SHA512 for a password that is kept. Source: OWASP Password Storage Cheat Sheet, "PBKDF2" (from memory).</summary>
    public const int HashRounds = 210_000;

    /// <summary>How long wrong tries are remembered after the last of them.</summary>
    public static readonly Duration TriesKept = Duration.FromDays(1);

    /// <summary>A user name as tries are counted by it, whatever the case; cut, so that nobody fills the disk with one.</summary>
    public static string NameKey(string userName) => userName.Trim().ToUpperInvariant() is var key && key.Length > 100 ? key[..100] : key;

    /// <summary>Says what is wrong with a new password; null if nothing is.</summary>
    /// <param name="password">As typed.</param>
    /// <param name="userName">The person's; the password may not contain it.</param>
    /// <param name="isOldOne">True if it is the password in use now.</param>
    /// <param name="isStaff">Staff need a stronger one.</param>
    /// <param name="theirWords">Words that a guesser would try first for this person: their names, number, school.</param>
    public static Refusal? CheckNew(string password, string userName, bool isOldOne, bool isStaff, IEnumerable<string> theirWords)
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
        // Each name by itself too: nobody types "Skerry Point School" into a password, but "skerrypoint1".
        var words = theirWords.SelectMany(w => w.Split(' ', StringSplitOptions.RemoveEmptyEntries).Append(w.Replace(" ", "", StringComparison.Ordinal))).Where(w => w.Length > 2).Append(userName);
        var judged = global::Zxcvbn.Zxcvbn.MatchPassword(password, words.SelectMany(w => new[] { w.ToLowerInvariant(), PersonName.SearchKey(w) }).Distinct());
        var guesses = Math.Pow(2, judged.Entropy);
        return guesses >= (isStaff ? StaffGuesses : StudentGuesses) ? null
            : new("password-weak", $"The new password is guessed in about {guesses:N0} tries{Why(judged)}.", "Take more words that do not belong together, as in a line of a poem that nobody wrote.", "newPassword");
    }

    // What carries the most of it, in our words; the estimate's own are for adults who know the trade.
    private static string Why(global::Zxcvbn.Result judged) => judged.MatchSequence.MaxBy(m => m.Token.Length)?.Pattern switch
    {
        "dictionary" => ": much of it is a word or a name that guessers try early",
        "spatial" => ": its keys stand side by side",
        "repeat" => ": it says the same thing again",
        "sequence" => ": its letters or digits follow each other",
        "date" or "year" => ": it is a date",
        _ => "",
    };

    /// <summary>How long sign-in is shut after so many wrong passwords in a row: not at all for the first four, then 2 s doubling up to 15 min.</summary>
    public static Duration WaitAfter(int wrongInARow) =>
        wrongInARow < 5 ? Duration.Zero : Duration.FromSeconds(Math.Min(900, Math.Pow(2, Math.Min(20, wrongInARow - 4))));
}
