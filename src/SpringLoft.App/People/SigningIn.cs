using System.Security.Cryptography;
using Microsoft.AspNetCore.Identity;
using Microsoft.Extensions.Options;
using SpringLoft.Core.People;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Naming;
using SpringLoft.Store.People;

namespace SpringLoft.App.People;

/// <summary>The person who is signed in, as the screens need it.</summary>
/// <param name="Door">How far in they are.</param>
public sealed record Me(PersonId Id, string Name, SchoolRole Role, bool MustChangePassword, Door Door);

/// <summary>Where somebody signs in from.</summary>
/// <param name="Browser">What the browser calls itself.</param>
/// <param name="Address">Its network address.</param>
/// <param name="Known">Who signed in on this browser before, each with the mark that it was given then.</param>
public sealed record CameFrom(string? Browser, string Address, IReadOnlyDictionary<PersonId, string> Known)
{
    /// <summary>A browser that was never here.</summary>
    public static CameFrom New(string? browser, string address) => new(browser, address, new Dictionary<PersonId, string>());
}

/// <summary>Somebody who has just signed in.</summary>
/// <param name="Token">Goes into the cookie, and is kept nowhere in clear.</param>
/// <param name="Mark">By which this browser is known from now on as one of theirs.</param>
public sealed record SignedIn(Me Me, string Token, string Mark);

/// <summary>Signing in and changing passwords. Hashes are those of ASP.NET Core's password hasher (PBKDF2).</summary>
public sealed class SigningIn(Premises premises, GuessLimits limits, SignOnProviders providers)
{
    private static readonly PasswordHasher<object> Hasher = new(Options.Create(new PasswordHasherOptions { IterationCount = SignInRules.HashRounds }));
    private static readonly object Nobody = new();
    private static readonly string NobodysHash = Hasher.HashPassword(Nobody, Guid.NewGuid().ToString());

    private readonly object[] turns = [.. Enumerable.Range(0, 64).Select(_ => new object())];

    /// <summary>Makes a hash to be kept.</summary>
    public static string Hash(string password) => Hasher.HashPassword(Nobody, password);

    /// <summary>Tests user name and password, and begins a sign-in.</summary>
    /// <exception cref="RefusedException"><c>sign-in-wrong</c>, the same whether the name or the password is; <c>sign-in-shut</c> while slowed down; <c>password-off</c> for a right one of somebody who comes with a provider.</exception>
    public SignedIn SignIn(string? userName, string? password, CameFrom from)
    {
        if (string.IsNullOrWhiteSpace(userName)) throw new RefusedException("missing", "The user name is missing.", "Type it in.", "userName");
        if (string.IsNullOrEmpty(password)) throw new RefusedException("missing", "The password is missing.", "Type it in.", "password");
        if (password.Length > SignInRules.MaxLength) throw Wrong();
        var person = premises.Db.Read(c => PersonStore.ByUserName(c, userName.Trim()));
        var mark = person is null ? null : from.Known.GetValueOrDefault(person.Id);
        // Who signed in on this browser before is counted there, and not shut out by what others do elsewhere.
        var network = Network.Of(from.Address);
        if (mark is null && !limits.MayTry(network))
            throw new RefusedException("sign-in-shut", "Too many wrong passwords came from this network.", "Wait some minutes, or sign in on a device that you have used before.");
        var place = mark is null ? $"network {network}" : $"browser {mark}";
        var kept = Try(userName, place, from.Address, person, password, () =>
        {
            limits.Wrong(network);
            return Wrong();
        });
        // Said to nobody but whoever has the right password, and no try that counts as a wrong one.
        if (premises.Db.Read(c => providers.InsteadOfPassword(c, person!)) is { } instead)
        {
            premises.Db.Write(c => SignInTryStore.Forget(c, userName, place));
            throw new RefusedException("password-off", $"Your password is switched off: you sign in with {instead.Rules.Name}.", $"Choose “Sign in with {instead.Rules.Name}”. If you have lost that account, a coordinator can have it forgotten.");
        }
        var stronger = kept.Stronger ? Hash(password) : null;
        var (token, named) = (Token(), mark ?? NewMark());
        premises.Write(new Caller(person!.Id, person.Role, person.Name.Display), (_, _) => new("signed in", "person", person.Id.Value, null, BrowserName.Of(from.Browser), from.Address), (c, _) =>
        {
            // Between the try and now it may have been ended, or they may have left.
            if (PersonStore.Find(c, person.Id) is not { Active: true } || PersonStore.SignIn(c, person.Id)?.PasswordHash != kept.Row.PasswordHash) throw Wrong();
            SignInTryStore.Forget(c, userName, place);
            if (stronger is not null) PersonStore.Rehash(c, person.Id, stronger);
            // Used once, a first password is on no slip any more.
            PersonStore.ForgetPhrase(c, person.Id);
            var now = premises.Clock.Real;
            SessionStore.EndOld(c, now);
            return SessionStore.Begin(c, person.Id, token, BrowserName.Of(from.Browser), from.Address, now);
        });
        var steps = premises.Db.Read(c => SecondStepStore.Of(c, person.Id));
        return new(new Me(person.Id, person.Name.Display, person.Role, kept.Row.MustChange, SecondStepRules.Of(steps.Rule, person.Role, steps.Has, null)), token, named);
    }

    /// <summary>Changes one's own password; other places where one is signed in are signed out.</summary>
    /// <param name="here">The sign-in that goes on.</param>
    public void ChangePassword(Caller by, SessionId here, string? oldPassword, string? newPassword)
    {
        var (person, school) = premises.Db.Read(c => (PersonStore.Find(c, by.Id)!, SchoolStore.Get(c)!.Name));
        var place = $"sign-in {here.Value}";
        Try(person.UserName, place, by.From?.Address, person, oldPassword ?? "", () => new RefusedException("password-wrong", "That is not your password now.", "Type the one you signed in with.", "oldPassword"));
        premises.Db.Write(c => SignInTryStore.Forget(c, person.UserName, place));
        var words = new[] { person.Given, person.Family, person.StudentNumber, person.Email?.Split('@')[0], person.School, school }.OfType<string>();
        if (SignInRules.CheckNew(newPassword ?? "", person.UserName, newPassword == oldPassword, person.Role != SchoolRole.Student, words) is { } refusal) throw new RefusedException(refusal);
        var hash = Hash(newPassword!);
        premises.Write(by, (_, _) => new("changed password", "person", by.Id.Value, null, "own password"), (c, now) =>
        {
            PersonStore.SetPassword(c, by.Id, hash, mustChange: false, by.Id, now, but: here);
            return true;
        });
    }

    // One try at a time for a name, and counted before it is made: sent at once, forty guesses are as many as one after the
    // other, and a process that is killed has counted them. A name of nobody is counted alike and takes as long.
    private (SignInRow Row, bool Stronger) Try(string userName, string place, string? address, PersonRow? person, string password, Func<RefusedException> wrong)
    {
        lock (turns[(uint)string.GetHashCode(SignInRules.NameKey(userName), StringComparison.Ordinal) % turns.Length])
        {
            var slowed = false;
            var kept = premises.Db.Write(c =>
            {
                var now = premises.Clock.Now;
                var (before, shut) = SignInTryStore.Of(c, userName, place);
                if (shut is { } until && now < until)
                    throw new RefusedException("sign-in-shut", $"Too many wrong passwords: sign-in for this name is shut here for {Math.Ceiling((until - now).TotalSeconds)} s.", "Wait, then try again; your teacher can give you new details.");
                var wait = SignInRules.WaitAfter(before + 1);
                slowed = wait > Duration.Zero;
                SignInTryStore.Count(c, userName, place, before + 1, wait > Duration.Zero ? now + wait : null, now);
                if (before == 0) SignInTryStore.ForgetOld(c, now - SignInRules.TriesKept);
                return person is { Active: true } ? PersonStore.SignIn(c, person.Id) : null;
            });
            var result = Hasher.VerifyHashedPassword(Nobody, kept?.PasswordHash ?? NobodysHash, password);
            if (kept is not null && result != PasswordVerificationResult.Failed) return (kept, result == PasswordVerificationResult.SuccessRehashNeeded);
            if (person is not null)
                premises.Db.Write(c => Premises.Add(c, null, premises.Clock.Now, new(slowed ? "slowed down sign-in" : "wrong password", "person", person.Id.Value, null, $"{person.Name.Display}, from {place}", address)));
            throw wrong();
        }
    }

    /// <summary>A new token of a sign-in.</summary>
    internal static string Token() => Convert.ToHexStringLower(RandomNumberGenerator.GetBytes(32));

    /// <summary>A new mark of a browser.</summary>
    internal static string NewMark() => Token()[..16];

    private static RefusedException Wrong() =>
        new("sign-in-wrong", "User name or password is not right.", "Check both; capital letters count in the password.");
}
