using System.Text;
using AnyAscii;

namespace SpringLoft.Core.People;

/// <summary>A person's name and the forms in which it is shown, sorted and searched.</summary>
public sealed record PersonName(string Given, string Family)
{
    /// <summary>"Umi Hallgrímsson".</summary>
    public string Display => $"{Given} {Family}".Trim();

    /// <summary>"Hallgrímsson, Umi".</summary>
    public string Sort => Given.Length == 0 ? Family : Family.Length == 0 ? Given : $"{Family}, {Given}";

    /// <summary>
    /// The form in which names are compared: transliterated to ASCII, lower case, letters and digits only,
    /// words parted by one space.
    /// </summary>
    public static string SearchKey(string text)
    {
        var key = new StringBuilder(text.Length);
        foreach (var c in text.Normalize(NormalizationForm.FormC).Transliterate().ToLowerInvariant())
        {
            if (char.IsAsciiLetterOrDigit(c)) key.Append(c);
            else if (c is ' ' or '-' && key.Length > 0 && key[^1] != ' ') key.Append(' ');
        }
        return key.ToString().TrimEnd();
    }
}
