using SpringLoft.Core.People;
using SpringLoft.Store.People;

namespace SpringLoft.App.People;

/// <summary>A provider of single sign-on.</summary>
/// <param name="Key">In addresses.</param>
/// <param name="Issuer">As it calls itself in its tokens.</param>
public sealed record Provider(string Key, string Issuer, ProviderRules Rules);

/// <summary>What signing out at a provider needs.</summary>
/// <param name="Key">Of the provider.</param>
/// <param name="IdToken">By which it knows who signs out; null if that is not kept any more.</param>
public sealed record ProviderSignOut(string Key, string? IdToken);

/// <summary>The providers that the operator has named.</summary>
/// <param name="all">Asked only once somebody wants to know: a stand-in's address is known when the program listens.</param>
public sealed class SignOnProviders(Func<IReadOnlyList<Provider>> all)
{
    /// <summary>All, in the operator's order.</summary>
    public IReadOnlyList<Provider> All => all();

    /// <summary>By key.</summary>
    /// <exception cref="RefusedException"><c>not-found</c>.</exception>
    public Provider Get(string key) => All.FirstOrDefault(p => p.Key == key) ?? throw Refusals.NotFound("provider");

    /// <summary>By issuer; null if the operator does not name it, or not any more.</summary>
    public Provider? At(string? issuer) => issuer is null ? null : All.FirstOrDefault(p => p.Issuer == issuer);

    /// <summary>How people know an issuer; null for no issuer.</summary>
    public string? NameOf(string? issuer) => At(issuer)?.Rules.Name ?? issuer;

    /// <summary>The accounts that are known as somebody's.</summary>
    internal IReadOnlyList<KnownAccount> AccountsOf(IDbConnection c, PersonId who) => [.. ProviderAccountStore.Of(c, who).Select(a => new KnownAccount(NameOf(a.Issuer)!, a.Since))];

    /// <summary>The provider with which somebody has to sign in; null if their password is good.</summary>
    internal Provider? InsteadOfPassword(IDbConnection c, PersonRow who) => All.Any(p => SingleSignOn.IsPasswordOff(p.Rules.PasswordsOff, who.Role))
        ? ProviderAccountStore.Of(c, who.Id).Select(a => At(a.Issuer)).FirstOrDefault(p => p is not null && SingleSignOn.IsPasswordOff(p.Rules.PasswordsOff, who.Role)) : null;
}
