using System.Security.Cryptography;
using Microsoft.AspNetCore.Identity;
using SpringLoft.Core.People;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.People;

namespace SpringLoft.App.People;

/// <summary>The person who is signed in, as the screens need it.</summary>
public sealed record Me(PersonId Id, string Name, SchoolRole Role, bool MustChangePassword);

/// <summary>Signing in and changing passwords. Hashes are those of ASP.NET Core's password hasher (PBKDF2).</summary>
public sealed class SigningIn(Premises premises)
{
    private static readonly PasswordHasher<object> Hasher = new();
    private static readonly object Nobody = new();
    private static readonly string NobodysHash = Hasher.HashPassword(Nobody, Guid.NewGuid().ToString());

    /// <summary>Makes a hash to be kept.</summary>
    public static string Hash(string password) => Hasher.HashPassword(Nobody, password);

    /// <summary>A new stamp; a sign-in made under an older one ends.</summary>
    public static string NewStamp() => Convert.ToHexStringLower(RandomNumberGenerator.GetBytes(16));

    /// <summary>Tests user name and password; gives the person and the stamp to be put into the cookie.</summary>
    /// <exception cref="RefusedException"><c>sign-in-wrong</c>, the same whether the name or the password is; <c>sign-in-shut</c> while slowed down.</exception>
    public (Me Me, string Stamp) SignIn(string? userName, string? password)
    {
        if (string.IsNullOrWhiteSpace(userName)) throw new RefusedException("missing", "The user name is missing.", "Type it in.", "userName");
        if (string.IsNullOrEmpty(password)) throw new RefusedException("missing", "The password is missing.", "Type it in.", "password");
        if (password.Length > SignInRules.MaxLength) throw Wrong();
        var person = premises.Db.Read(c => PersonStore.ByUserName(c, userName.Trim()));
        if (person is not { Active: true } || Try(person, password, Wrong) is not { } kept)
        {
            // As slow as a real one, so that the time does not tell whether the name exists.
            Hasher.VerifyHashedPassword(Nobody, NobodysHash, password);
            throw Wrong();
        }
        // Used once, a first password is on no slip any more.
        if (kept.WrongInRow > 0 || kept.MustChange)
            premises.Db.Write(c =>
            {
                PersonStore.SetWrong(c, person.Id, 0, null);
                PersonStore.ForgetPhrase(c, person.Id);
            });
        return (new Me(person.Id, person.Name.Display, person.Role, kept.MustChange), kept.Stamp);
    }

    /// <summary>The person behind a cookie; null if the sign-in has ended since.</summary>
    public Me? Who(PersonId id, string stamp) => premises.Db.Read(c =>
        PersonStore.Find(c, id) is { Active: true } p && PersonStore.SignIn(c, id) is { } s && s.Stamp == stamp
            ? new Me(p.Id, p.Name.Display, p.Role, s.MustChange) : null);

    /// <summary>Changes one's own password; other places where one is signed in are signed out.</summary>
    /// <returns>The new stamp.</returns>
    public string ChangePassword(Caller by, string? oldPassword, string? newPassword)
    {
        var person = premises.Db.Read(c => PersonStore.Find(c, by.Id)!);
        Try(person, oldPassword ?? "", () => new RefusedException("password-wrong", "That is not your password now.", "Type the one you signed in with.", "oldPassword"));
        if (SignInRules.CheckNew(newPassword ?? "", person.UserName, newPassword == oldPassword) is { } refusal) throw new RefusedException(refusal);
        var stamp = NewStamp();
        premises.Write(by, (_, _) => new("changed password", "person", by.Id.Value, null, "own password"), (c, _) =>
        {
            PersonStore.SetPassword(c, by.Id, Hash(newPassword!), mustChange: false, stamp);
            return true;
        });
        return stamp;
    }

    // One try at a time for a person: sent at once, forty guesses are as many as one after the other, and shut after the fifth.
    private SignInRow? Try(PersonRow person, string password, Func<RefusedException> wrong)
    {
        lock (turns[(int)(person.Id.Value % turns.Length)])
        {
            if (premises.Db.Read(c => PersonStore.SignIn(c, person.Id)) is not { } kept) return null;
            var now = premises.Clock.Now;
            if (kept.ShutUntil is { } until && now < until)
                throw new RefusedException("sign-in-shut", $"Too many wrong passwords: sign-in for this name is shut for {Math.Ceiling((until - now).TotalSeconds)} s.", "Wait, then try again; your teacher can give you new details.");
            if (Hasher.VerifyHashedPassword(Nobody, kept.PasswordHash, password) != PasswordVerificationResult.Failed) return kept;
            var inRow = kept.WrongInRow + 1;
            var wait = SignInRules.WaitAfter(inRow);
            premises.Db.Write(c =>
            {
                PersonStore.SetWrong(c, person.Id, inRow, wait > Duration.Zero ? now + wait : null);
                if (wait > Duration.Zero)
                    Premises.Add(c, new Caller(person.Id, person.Role, person.Name.Display), now, new("slowed down sign-in", "person", person.Id.Value, null, $"{inRow} wrong passwords in a row"));
            });
            throw wrong();
        }
    }

    private readonly object[] turns = [.. Enumerable.Range(0, 64).Select(_ => new object())];

    private static RefusedException Wrong() =>
        new("sign-in-wrong", "User name or password is not right.", "Check both; capital letters count in the password.");
}
