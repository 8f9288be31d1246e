namespace SpringLoft.Core.Naming;

/// <summary>A part of a text.</summary>
public static class Cut
{
    /// <summary>So many characters at most from a place on. A sign of two characters is never halved: half a sign can't be sent.</summary>
    public static string Whole(string text, int start, int most)
    {
        if (start > 0 && start < text.Length && char.IsLowSurrogate(text[start])) start++;
        var end = Math.Min(text.Length, start + most);
        if (end > start && end < text.Length && char.IsHighSurrogate(text[end - 1])) end--;
        return text[start..end];
    }
}
