using SpringLoft.Core.People;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.People;

namespace SpringLoft.App.People;

/// <summary>Somebody who asks, and the sign-in in which they do.</summary>
/// <param name="HasStep">True if they have a second step.</param>
/// <param name="StepAt">When they last showed it in this sign-in.</param>
public sealed record Present(Me Me, SessionId Session, bool HasStep, Instant? StepAt);

/// <summary>A place where one is signed in.</summary>
/// <param name="Here">True for the one that asks.</param>
/// <param name="With">The provider with which it was begun; null for a password.</param>
public sealed record SessionView(SessionId Id, string Browser, string Address, Instant Begun, Instant Seen, bool Here, string? With);

/// <summary>One's own sign-ins: where one is signed in, and who set the password.</summary>
/// <param name="SetBy">Null if it was set before that was kept, or by the program at its first start.</param>
/// <param name="SetBySelf">True if it is of one's own choosing.</param>
/// <param name="IdleHours">A sign-in ends so long after it was used last.</param>
/// <param name="MostDays">And so long after it was begun.</param>
/// <param name="Accounts">At providers of single sign-on.</param>
public sealed record SessionsView(IReadOnlyList<SessionView> Sessions, string? SetBy, bool SetBySelf, Instant? SetAt, int IdleHours, int MostDays, IReadOnlyList<KnownAccount> Accounts);

/// <summary>An account at a provider that is known as a person's.</summary>
public sealed record KnownAccount(string Provider, Instant Since);

/// <summary>The sign-ins that go on.</summary>
public sealed class Sessions(Premises premises, SignOnProviders providers)
{
    /// <summary>Who has a token; null if that sign-in has ended since. It goes on from now.</summary>
    /// <param name="byItself">A screen asks by the clock, and nobody may be before it: the sign-in does not go on for that.</param>
    public Present? Who(string token, bool byItself = false)
    {
        var now = premises.Clock.Real;
        var found = premises.Db.Read(c => SessionStore.Find(c, token) is { } s && SessionRules.GoesOn(s.BegunAt, s.SeenAt, now, SessionStore.Limits(c)) && PersonStore.Find(c, s.PersonId) is { Active: true } p
            && PersonStore.SignIn(c, p.Id) is var kept && (kept is not null || s.Issuer is not null) && SecondStepStore.Of(c, p.Id) is var steps
            // Who came with a provider has no need of a password, and is not asked to change a first one.
            ? (s, steps.Has, me: new Me(p.Id, p.Name.Display, p.Role, s.Issuer is null && kept!.MustChange, SecondStepRules.Of(steps.Rule, p.Role, steps.Has, s.StepAt, s.StepElsewhere))) : default);
        if (found.s is null) return null;
        // Nobody waits for that behind a long act of somebody else; the next request notes it.
        if (!byItself && SessionRules.IsToBeNoted(found.s.SeenAt, now)) premises.Db.WriteIfFree(c => SessionStore.Seen(c, found.s.Id, now));
        return new(found.me, found.s.Id, found.Has, found.s.StepAt);
    }

    /// <summary>One's own.</summary>
    public SessionsView Of(Caller who, SessionId here) => premises.Db.Read(c =>
    {
        var now = premises.Clock.Real;
        var (kept, limits) = (PersonStore.SignIn(c, who.Id), SessionStore.Limits(c));
        var sessions = SessionStore.Of(c, who.Id).Where(s => SessionRules.GoesOn(s.BegunAt, s.SeenAt, now, limits));
        return new SessionsView(
            [.. sessions.Select(s => new SessionView(s.Id, s.Browser, s.Address, Shown(s.BegunAt), Shown(s.SeenAt), s.Id == here, providers.NameOf(s.Issuer)))],
            kept?.SetBy is { } by ? PersonStore.Find(c, by)?.Name.Display : null, kept?.SetBy == who.Id, kept?.SetAt, limits.IdleHours, limits.MostDays,
            providers.AccountsOf(c, who.Id));

        // As long ago as it is, also by a date that was moved.
        Instant Shown(Instant real) => real + (premises.Clock.Now - now);
    });

    /// <summary>Ends one of one's own.</summary>
    /// <exception cref="RefusedException"><c>not-found</c> for one of somebody else's, or one that has ended.</exception>
    public void End(Caller by, SessionId id) => premises.Write(by, (_, _) => new("signed out elsewhere", "person", by.Id.Value, null, "one place"), (c, _) =>
        SessionStore.End(c, by.Id, id) ? true : throw Refusals.NotFound("sign-in"));

    /// <summary>Ends all of one's own but the one that asks; says how many.</summary>
    public int EndOthers(Caller by, SessionId here) => premises.Db.Write(c =>
    {
        var ended = SessionStore.EndAll(c, by.Id, here);
        Premises.Add(c, by, premises.Clock.Now, new("signed out elsewhere", "person", by.Id.Value, null, $"{ended} places"));
        return ended;
    });

    /// <summary>Signs out where the token is: whoever copied it has nothing.</summary>
    /// <returns>Where signing out goes on, for a sign-in that a provider began; else null.</returns>
    public ProviderSignOut? SignOut(string token) => premises.Db.Write(c =>
    {
        if (SessionStore.Find(c, token) is not { } s || PersonStore.Find(c, s.PersonId) is not { } p) return null;
        var on = providers.At(s.Issuer) is { } provider ? new ProviderSignOut(provider.Key, SessionStore.IdToken(c, s.Id)) : null;
        SessionStore.End(c, s.PersonId, s.Id);
        Premises.Add(c, new Caller(p.Id, p.Role, p.Name.Display), premises.Clock.Now, new("signed out", "person", p.Id.Value, null, s.Browser, s.Address));
        return on;
    });
}
