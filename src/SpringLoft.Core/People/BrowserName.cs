namespace SpringLoft.Core.People;

/// <summary>
/// What a browser calls itself (RFC 9110 section 10.1.5), in words that its owner knows again: "Firefox on Windows". Browsers
/// name each other in it for old pages' sake, so that the order of looking is the whole rule.
/// </summary>
public static class BrowserName
{
    private const int Longest = 60;

    private static readonly (string Mark, string Name)[] Browsers =
        [("Edg", "Edge"), ("OPR/", "Opera"), ("SamsungBrowser", "Samsung Internet"), ("Firefox/", "Firefox"), ("FxiOS", "Firefox"), ("CriOS", "Chrome"), ("Chrome/", "Chrome"), ("Safari/", "Safari")];

    private static readonly (string Mark, string Name)[] Devices =
        [("iPad", "an iPad"), ("iPhone", "an iPhone"), ("Android", "Android"), ("CrOS", "a Chromebook"), ("Windows", "Windows"), ("Mac OS X", "a Mac"), ("Linux", "Linux")];

    /// <summary>In words; what it says of itself, cut short, if it is none that we know.</summary>
    public static string Of(string? userAgent)
    {
        var text = new string([.. (userAgent ?? "").Trim().Where(c => !char.IsControl(c))]);
        if (text.Length == 0) return "a program that does not say its name";
        var device = Devices.FirstOrDefault(d => text.Contains(d.Mark, StringComparison.Ordinal)).Name;
        var browser = Browsers.FirstOrDefault(b => text.Contains(b.Mark, StringComparison.Ordinal)).Name;
        if (browser is null) return text.Length > Longest ? text[..Longest] + "…" : text;
        return device is null ? browser : $"{browser} on {device}";
    }
}
