using System.Globalization;
using Microsoft.AspNetCore.DataProtection;
using SpringLoft.App.People;
using SpringLoft.Core;

namespace SpringLoft.Server.People;

/// <summary>
/// By which a browser is known again to the people who signed in on it: a cookie that only this program can read, and that lets
/// nobody in. Source: OWASP, "Slow Down Online Guessing Attacks with Device Cookies".
/// </summary>
/// <param name="secure">On which lines the cookie goes: as that of the sign-in.</param>
internal sealed class KnownBrowser(IDataProtectionProvider keys, CookieSecurePolicy secure)
{
    private const string Name = "spring-loft-known";

    /// <summary>On a computer of the school's a class follows another; the earliest are forgotten.</summary>
    private const int Most = 40;

    private readonly IDataProtector protector = keys.CreateProtector("known browser");

    /// <summary>Where a request comes from.</summary>
    internal CameFrom From(HttpContext context) =>
        new(context.Request.Headers.UserAgent.ToString(), context.Connection.RemoteIpAddress?.ToString() ?? "", Marks(context).ToDictionary(m => m.Who, m => m.Mark));

    /// <summary>Remembers that somebody signed in here.</summary>
    internal void Remember(HttpContext context, PersonId who, string mark)
    {
        var marks = Marks(context).Where(m => m.Who != who).Append((who, mark)).TakeLast(Most);
        var text = string.Join(' ', marks.Select(m => string.Create(CultureInfo.InvariantCulture, $"{m.Item1.Value}:{m.Item2}")));
        var cookie = new CookieBuilder { HttpOnly = true, SameSite = SameSiteMode.Strict, SecurePolicy = secure, MaxAge = TimeSpan.FromDays(400), Path = "/api" };
        context.Response.Cookies.Append(Name, protector.Protect(text), cookie.Build(context));
    }

    // Whatever can't be read is no mark: of another school, of keys that are gone, or made up.
    private List<(PersonId Who, string Mark)> Marks(HttpContext context)
    {
        if (context.Request.Cookies[Name] is not { Length: > 0 } kept) return [];
        try
        {
            return [.. protector.Unprotect(kept).Split(' ', StringSplitOptions.RemoveEmptyEntries).Select(m => m.Split(':')).Select(m => (new PersonId(long.Parse(m[0], CultureInfo.InvariantCulture)), m[1]))];
        }
        catch (System.Security.Cryptography.CryptographicException) { return []; }
    }
}
