using SpringLoft.Core.People;
using SpringLoft.Store.People;

namespace SpringLoft.App.People;

/// <summary>Somebody whom a provider has sent.</summary>
/// <param name="Subject">How it calls the account, for ever.</param>
/// <param name="Session">How it calls its own session; null if it does not say.</param>
/// <param name="IdToken">What signing out there asks for.</param>
public sealed record SentByProvider(string Subject, ProviderWord Word, string? Session, string? IdToken);

/// <summary>Signing in with a provider of single sign-on.</summary>
public sealed class SigningOn(Premises premises, SignOnProviders providers)
{
    /// <summary>Begins a sign-in of whoever the account is of; the first time it is known as theirs from then on.</summary>
    /// <exception cref="RefusedException">As <see cref="SingleSignOn.Decide"/>; noted in the audit trail.</exception>
    public SignedIn SignIn(string key, SentByProvider sent, CameFrom from)
    {
        var provider = providers.Get(key);
        var (token, browser) = (SigningIn.Token(), BrowserName.Of(from.Browser));
        try
        {
            return premises.Db.Write(c =>
            {
                var account = ProviderAccountStore.Find(c, provider.Issuer, sent.Subject);
                var owner = account is null ? null : ProviderAccountStore.Meant(c, account.PersonId, provider.Issuer);
                var admitted = SingleSignOn.Decide(provider.Rules, sent.Word, owner, owner is null ? ProviderAccountStore.Meant(c, sent.Word.Claim, provider.Issuer) : []);
                var person = PersonStore.Find(c, admitted.Person)!;
                var (now, by) = (premises.Clock.Real, new Caller(person.Id, person.Role, person.Name.Display));
                if (admitted.First)
                {
                    ProviderAccountStore.Add(c, provider.Issuer, sent.Subject, person.Id, premises.Clock.Now);
                    Premises.Add(c, by, premises.Clock.Now, new("known at a provider", "person", person.Id.Value, null, provider.Rules.Name, from.Address));
                }
                else
                {
                    ProviderAccountStore.Used(c, provider.Issuer, sent.Subject, premises.Clock.Now);
                }
                SessionStore.EndOld(c, now);
                SessionStore.Begin(c, person.Id, token, browser, from.Address, now, new(provider.Issuer, sent.Session, sent.IdToken, admitted.ShowedStep));
                Premises.Add(c, by, premises.Clock.Now, new("signed in", "person", person.Id.Value, null, $"{browser}, with {provider.Rules.Name}", from.Address));
                var steps = SecondStepStore.Of(c, person.Id);
                return new SignedIn(new Me(person.Id, person.Name.Display, person.Role, false, SecondStepRules.Of(steps.Rule, person.Role, steps.Has, null, admitted.ShowedStep)), token,
                    from.Known.GetValueOrDefault(person.Id) ?? SigningIn.NewMark());
            });
        }
        catch (RefusedException e)
        {
            premises.Db.Write(c => Premises.Add(c, null, premises.Clock.Now, new("turned away", "school", null, null, e.Refusal.What, from.Address)));
            throw;
        }
    }

    /// <summary>Ends the sign-ins of an account that was signed out at its provider.</summary>
    /// <param name="subject">Null for whoever has the session.</param>
    /// <param name="session">Null for all of the account's.</param>
    public void SignedOutThere(string key, string? subject, string? session)
    {
        var provider = providers.Get(key);
        premises.Db.Write(c =>
        {
            foreach (var who in SessionStore.EndOfProvider(c, provider.Issuer, subject, session).Distinct())
                if (PersonStore.Find(c, who) is { } p) Premises.Add(c, new Caller(p.Id, p.Role, p.Name.Display), premises.Clock.Now, new("signed out", "person", who.Value, null, $"at {provider.Rules.Name}"));
        });
    }

    /// <summary>The accounts that are known as somebody's.</summary>
    public IReadOnlyList<KnownAccount> AccountsOf(PersonId who) => premises.Db.Read(c => providers.AccountsOf(c, who));

    /// <summary>Forgets the accounts of somebody who has lost them: whoever the directory knows them by is known anew the next time, and a password is good again. They are signed out.</summary>
    /// <exception cref="RefusedException"><c>not-found</c> if there is none.</exception>
    public void Forget(Caller by, PersonId who) => premises.Db.Write(c =>
    {
        var person = PersonStore.Find(c, who) ?? throw Refusals.NotFound("person");
        var names = providers.AccountsOf(c, who).Select(a => a.Provider).ToList();
        if (ProviderAccountStore.ForgetAll(c, who) == 0) throw Refusals.NotFound("account at a provider");
        SessionStore.EndAll(c, who);
        Premises.Add(c, by, premises.Clock.Now, new("forgot account", "person", who.Value, null, $"{person.Name.Display}, {string.Join(", ", names)}"));
    });
}
