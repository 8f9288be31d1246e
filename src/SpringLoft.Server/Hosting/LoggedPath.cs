using System.Text.RegularExpressions;
using Serilog.Events;

namespace SpringLoft.Server.Hosting;

/// <summary>An address as the log has it: what opens something by itself (a shelf, a calendar, what is to be acknowledged at home, the end of letters) is not written down.</summary>
internal static partial class LoggedPath
{
    /// <summary>The address with every long run of hex digits, and whatever code stands after "/home/" or "/letters/stop/", left out; all our tokens are such.</summary>
    internal static string Of(string path) => HomeCode().Replace(Token().Replace(path, "…"), "$1…");

    /// <summary>For the line that is logged of each request.</summary>
    internal static IEnumerable<LogEventProperty> Properties(HttpContext context, string path, double elapsed, int status) =>
    [
        new("RequestMethod", new ScalarValue(context.Request.Method)), new("RequestPath", new ScalarValue(Of(path))),
        new("StatusCode", new ScalarValue(status)), new("Elapsed", new ScalarValue(elapsed)),
    ];

    [GeneratedRegex("[0-9a-fA-F]{20,}")]
    private static partial Regex Token();

    [GeneratedRegex("^(/home/|/letters/stop/)[^/]+", RegexOptions.IgnoreCase)]
    private static partial Regex HomeCode();
}
