namespace SpringLoft.Core.Naming;

/// <summary>Codes that are read off a board or a paper and typed: letters that are not taken for one another, in groups of four.</summary>
public static class TypedCode
{
    /// <summary>Without vowels, so that no word comes out, and without what looks alike: 0 O, 1 I L, 2 Z, 5 S, 8 B.</summary>
    public const string Letters = "CDFGHJKMNPQRTVWXY34679";

    private const int Group = 4;

    /// <summary>Makes one, as "FHKM-3479".</summary>
    /// <param name="chance">Gives a number from 0 up to, but not including, the one it is given; from a source nobody can foresee.</param>
    /// <param name="groups">Of four letters each: two are some 55 thousand million codes, three 10^16.</param>
    public static string Make(Func<int, int> chance, int groups) =>
        string.Join('-', Enumerable.Range(0, groups).Select(_ => new string([.. Enumerable.Range(0, Group).Select(_ => Letters[chance(Letters.Length)])])));

    /// <summary>What was typed, in the form in which codes are kept; null if it can be none.</summary>
    public static string? Read(string? typed, int groups)
    {
        var letters = new string([.. (typed ?? "").ToUpperInvariant().Where(char.IsAsciiLetterOrDigit)]);
        return letters.Length == groups * Group && letters.All(c => Letters.Contains(c, StringComparison.Ordinal)) ? string.Join('-', letters.Chunk(Group).Select(g => new string(g))) : null;
    }
}
