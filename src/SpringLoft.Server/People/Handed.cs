using System.Collections.Concurrent;
using System.Security.Cryptography;
using NodaTime;

namespace SpringLoft.Server.People;

/// <summary>Something that is handed to a browser's next request, and to no other: it is good once, and for some minutes.</summary>
/// <typeparam name="T">What it is.</typeparam>
internal sealed class Handed<T>
{
    private const int Most = 10_000;
    private static readonly Duration Good = Duration.FromMinutes(5);
    private readonly ConcurrentDictionary<string, (T What, Instant Until)> waiting = new();

    /// <summary>Lays it down; the ticket goes into an address.</summary>
    internal string Lay(T what, Instant now)
    {
        foreach (var old in waiting.Where(w => w.Value.Until <= now).Select(w => w.Key).ToList()) waiting.TryRemove(old, out _);
        // Nobody fills the memory with what is never fetched.
        if (waiting.Count >= Most) waiting.Clear();
        var ticket = Convert.ToHexStringLower(RandomNumberGenerator.GetBytes(16));
        waiting[ticket] = (what, now + Good);
        return ticket;
    }

    /// <summary>Takes it up; false for one that is not there, or not any more.</summary>
    internal bool Take(string ticket, Instant now, [System.Diagnostics.CodeAnalysis.MaybeNullWhen(false)] out T what)
    {
        var there = waiting.TryRemove(ticket, out var found) && now < found.Until;
        what = there ? found.What : default;
        return there;
    }
}
