namespace SpringLoft.App;

/// <summary>Refusals that several use cases share.</summary>
internal static class Refusals
{
    internal static RefusedException NotFound(string what) =>
        new("not-found", $"There is no such {what} here.", "It may have been moved or binned: reload the page.");

    internal static RefusedException ChangedMeanwhile(string what) =>
        new("changed-meanwhile", $"Somebody else changed this {what} while you were looking at it. Nothing of yours was written.", "Look at the new state, then do it again if it is still right.");

    /// <summary>Text that may not be blank, nor longer than it should.</summary>
    internal static string Needed(string? text, string field, string what, int most)
    {
        var trimmed = text?.Trim() ?? "";
        if (trimmed.Length == 0) throw new RefusedException("missing", $"{what} is missing.", "Type it in.", field);
        return NotLonger(trimmed, field, what, most);
    }

    internal static string NotLonger(string text, string field, string what, int most)
    {
        if (text.Length > most) throw new RefusedException("too-long", $"{what} has {text.Length} characters.", $"Keep it to {most}.", field);
        if (text.Any(char.IsSurrogate) && !System.Text.Encoding.UTF8.GetString(System.Text.Encoding.UTF8.GetBytes(text)).Equals(text, StringComparison.Ordinal))
            throw new RefusedException("not-unicode", $"{what} has characters that are not valid Unicode.", "Type it again.", field);
        return Core.Naming.PlainText.WithoutTurns(text);
    }

    /// <summary>Throws unless some classes are ticked, and not more than one act takes.</summary>
    /// <param name="n">How many; 0 for none.</param>
    /// <param name="field">Of the request.</param>
    internal static void CheckTicked(int n, int most, string field)
    {
        if (n == 0) throw new RefusedException("classes-none", "No class is ticked.", "Tick one at the least.", field);
        if (n > most) throw new RefusedException("too-many", $"{n} classes at once are too many.", $"Take up to {most} in one act.", field);
    }

    /// <summary>Refuses an act over nobody, or over more people than it takes.</summary>
    internal static void CheckPeople(int n, int most)
    {
        if (n == 0) throw new RefusedException("missing", "Nobody is ticked.", "Tick at least one person.", "people");
        if (n > most) throw new RefusedException("too-many", $"{n} people at once are too many.", $"Tick up to {most}.", "people");
    }
}
