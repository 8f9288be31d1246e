namespace SpringLoft.Core.People;

/// <summary>Codes to be kept on paper, each good for one sign-in without the phone.</summary>
public static class RecoveryCode
{
    // 32 signs, none of them easily taken for another: 5 bits each.
    private const string Signs = "abcdefghijkmnpqrstuvwxyz23456789";
    private const int Length = 16;

    /// <summary>Makes one of 80 bits, so that its digest alone can be kept.</summary>
    /// <param name="random">Gives a number below the one it is given.</param>
    public static string Make(Func<int, int> random)
    {
        var signs = new string([.. Enumerable.Range(0, Length).Select(_ => Signs[random(Signs.Length)])]);
        return string.Join('-', signs.Chunk(4).Select(c => new string(c)));
    }

    /// <summary>What was typed as it is compared: capitals, dashes and blanks do not count. Null if it is no such code.</summary>
    public static string? Key(string typed)
    {
        var key = new string([.. typed.ToLowerInvariant().Where(char.IsLetterOrDigit)]);
        return key.Length == Length && key.All(c => Signs.Contains(c, StringComparison.Ordinal)) ? key : null;
    }
}
