using System.Security.Cryptography;
using SpringLoft.Core.People;
using SpringLoft.Store.Letters;
using SpringLoft.Store.Naming;
using SpringLoft.Store.People;

namespace SpringLoft.App.People;

/// <summary>A passkey as its owner sees it.</summary>
public sealed record PasskeyView(long Id, string Name, Instant Made, Instant? Used);

/// <summary>One's second step.</summary>
/// <param name="AppSince">Since when codes of an app are one; null if they are not.</param>
/// <param name="RecoveryCodes">How many are left.</param>
/// <param name="Required">True if the school asks one of the person.</param>
/// <param name="MayHave">False for students.</param>
/// <param name="PasskeysOffered">False where the program has no name that a passkey could be for.</param>
public sealed record SecondStepView(Instant? AppSince, int RecoveryCodes, IReadOnlyList<PasskeyView> Passkeys, bool Required, bool MayHave, bool PasskeysOffered);

/// <summary>The secret of an app that is to be set up; shown this once.</summary>
/// <param name="Secret">In base32, to be typed in.</param>
/// <param name="Address">To be read from a QR code.</param>
public sealed record AppToSetUp(string Secret, string Address);

/// <summary>Recovery codes; shown this once.</summary>
public sealed record NewRecoveryCodes(IReadOnlyList<string> Codes);

/// <summary>The second step at sign-in: codes of an app (TOTP), recovery codes; passkeys are <see cref="Passkeys"/>.</summary>
public sealed class SecondSteps(Premises premises, Passkeys passkeys)
{
    private readonly Lock oneAtATime = new();

    /// <summary>One's own.</summary>
    public SecondStepView See(Caller who) => premises.Db.Read(c =>
    {
        var facts = SecondStepStore.Of(c, who.Id);
        return new SecondStepView(facts.AppSince, SecondStepStore.CodesLeft(c, who.Id), [.. SecondStepStore.Passkeys(c, who.Id).Select(p => new PasskeyView(p.Id, p.Name, p.MadeAt, p.UsedAt))],
            SecondStepRules.IsRequired(facts.Rule, who.Role), SecondStepRules.MayHave(who.Role), passkeys.Offered);
    });

    /// <summary>Shows it with a code of the app, or with a recovery code.</summary>
    /// <exception cref="RefusedException"><c>code-not-right</c>; <c>sign-in-shut</c> while slowed down.</exception>
    public void Pass(Caller by, SessionId here, string? code)
    {
        var typed = Refusals.Needed(code, "code", "The code", 40);
        Counted(by, () => premises.Db.Write(c =>
        {
            var now = premises.Clock.Real;
            if (IsRight(c, by.Id, typed, now)) return Passed(c, by, here, now, "code of the app");
            if (RecoveryCode.Key(typed) is not { } key || !SecondStepStore.UseCode(c, by.Id, key)) return false;
            return Passed(c, by, here, now, $"recovery code; {SecondStepStore.CodesLeft(c, by.Id)} left");
        }));
    }

    /// <summary>Begins to set up an app: it becomes a second step with its first right code.</summary>
    public AppToSetUp BeginApp(Caller by) => premises.Db.Write(c =>
    {
        if (SecondStepStore.Of(c, by.Id).AppSince is not null) throw new RefusedException("app-there", "An app is set up already.", "Take it away first, if you have another one.");
        var secret = RandomNumberGenerator.GetBytes(OneTimeCode.SecretBytes);
        SecondStepStore.BeginApp(c, by.Id, Convert.ToBase64String(secret));
        var person = PersonStore.Find(c, by.Id)!;
        return new AppToSetUp(OneTimeCode.Text(secret), OneTimeCode.Address(SchoolStore.Get(c)!.Name, person.UserName, secret));
    });

    /// <summary>Finishes it with a code that the app shows.</summary>
    /// <returns>Recovery codes, the only time that they are shown.</returns>
    /// <exception cref="RefusedException"><c>code-not-right</c>; <c>app-none</c> if none was begun.</exception>
    public NewRecoveryCodes ConfirmApp(Caller by, SessionId here, string? code)
    {
        var typed = Refusals.Needed(code, "code", "The code", 40);
        IReadOnlyList<string> codes = [];
        Counted(by, () => premises.Db.Write(c =>
        {
            if (SecondStepStore.App(c, by.Id) is not { Since: null }) throw new RefusedException("app-none", "No app is being set up.", "Begin with the square picture.");
            var now = premises.Clock.Real;
            if (!IsRight(c, by.Id, typed, now, confirms: true)) return false;
            codes = Codes(c, by.Id);
            Premises.Add(c, by, premises.Clock.Now, new("set up second step", "person", by.Id.Value, null, "codes of an app"));
            SessionStore.Stepped(c, here, now);
            return true;
        }));
        return new(codes);
    }

    /// <summary>Makes new recovery codes; the old ones are dead.</summary>
    public NewRecoveryCodes RenewCodes(Caller by) => premises.Db.Write(c =>
    {
        if (!SecondStepStore.Of(c, by.Id).Has) throw new RefusedException("app-none", "You have no second step that they could stand in for.", "Set one up first.");
        Premises.Add(c, by, premises.Clock.Now, new("made recovery codes", "person", by.Id.Value, null, $"{SecondStepRules.RecoveryCodes}"));
        return new NewRecoveryCodes(Codes(c, by.Id));
    });

    /// <summary>Takes the app away.</summary>
    /// <exception cref="RefusedException"><c>step-required</c> if it is the last one and the school asks one.</exception>
    public void RemoveApp(Caller by) => premises.Db.Write(c =>
    {
        CheckNotLast(c, by, left: f => f.Passkeys > 0);
        if (!SecondStepStore.RemoveApp(c, by.Id)) throw Refusals.NotFound("app");
        EndIfLast(c, by.Id);
        Premises.Add(c, by, premises.Clock.Now, new("took away second step", "person", by.Id.Value, null, "codes of an app"));
    });

    /// <summary>Takes a passkey away.</summary>
    /// <exception cref="RefusedException">As <see cref="RemoveApp"/>.</exception>
    public void RemovePasskey(Caller by, long id) => premises.Db.Write(c =>
    {
        CheckNotLast(c, by, left: f => f.AppSince is not null || f.Passkeys > 1);
        var name = SecondStepStore.Passkeys(c, by.Id).FirstOrDefault(p => p.Id == id)?.Name ?? throw Refusals.NotFound("passkey");
        SecondStepStore.RemovePasskey(c, by.Id, id);
        EndIfLast(c, by.Id);
        Premises.Add(c, by, premises.Clock.Now, new("took away second step", "person", by.Id.Value, null, $"passkey “{name}”"));
    });

    /// <summary>Takes away the second step of somebody who has lost it; wherever they are signed in they are signed out.</summary>
    /// <exception cref="RefusedException"><c>step-own</c> for one's own; <c>not-found</c> for who has none.</exception>
    public void EndOf(Caller by, PersonId who) => premises.Db.Write(c =>
    {
        var person = PersonStore.Find(c, who) ?? throw Refusals.NotFound("person");
        if (who == by.Id) throw new RefusedException("step-own", "Your own second step is changed where you see your sign-ins.", "If you have lost it, another coordinator ends it.");
        if (!SecondStepStore.End(c, who)) throw Refusals.NotFound("second step");
        SessionStore.EndAll(c, who);
        Premises.Add(c, by, premises.Clock.Now, new("ended second step", "person", who.Value, null, person.Name.Display));
        // Whose it was is told by another way than the one that may be in the wrong hands.
        if (person.Email is { } email)
            LetterStore.Add(c, email, person.Name.Display, "Your second step was ended",
                $"{by.Name} has ended your second step for signing in to Spring Loft of {SchoolStore.Get(c)!.Name}, as whoever has lost it asks for. You sign in with your password alone until you set one up anew.\n\nIf you did not ask for that, tell {by.Name} or another coordinator at once.\n", premises.Clock.Now);
    });

    internal static bool Passed(IDbConnection c, Premises premises, Caller by, SessionId here, Instant now, string how)
    {
        SessionStore.Stepped(c, here, now);
        Premises.Add(c, by, premises.Clock.Now, new("passed second step", "person", by.Id.Value, null, how));
        return true;
    }

    private bool Passed(IDbConnection c, Caller by, SessionId here, Instant now, string how) => Passed(c, premises, by, here, now, how);

    // Used up in the transaction in which it is looked at: the same code sent twice at once is right once.
    private static bool IsRight(IDbConnection c, PersonId who, string typed, Instant now, bool confirms = false) =>
        SecondStepStore.App(c, who) is { } app && app.Since is null == confirms
        && OneTimeCode.StepOf(Convert.FromBase64String(app.Secret), typed, now, app.LastStep) is { } step && SecondStepStore.Used(c, who, step, now);

    // A million codes and three of them right: whoever has the password is slowed down as they would be without it, and each
    // guess is counted before it is looked at.
    private void Counted(Caller by, Func<bool> isRight)
    {
        lock (oneAtATime)
        {
            var place = "second step";
            var name = premises.Db.Write(c =>
            {
                var person = PersonStore.Find(c, by.Id)!;
                var now = premises.Clock.Now;
                var (before, shut) = SignInTryStore.Of(c, person.UserName, place);
                if (shut is { } until && now < until)
                    throw new RefusedException("sign-in-shut", $"Too many wrong codes: the second step is shut for {Math.Ceiling((until - now).TotalSeconds)} s.", "Wait, then type the code that your app shows then.", "code");
                var wait = SignInRules.WaitAfter(before + 1);
                SignInTryStore.Count(c, person.UserName, place, before + 1, wait > Duration.Zero ? now + wait : null, now);
                return person.UserName;
            });
            if (isRight())
            {
                premises.Db.Write(c => SignInTryStore.Forget(c, name, place));
                return;
            }
            premises.Db.Write(c => Premises.Add(c, by, premises.Clock.Now, new("wrong second step", "person", by.Id.Value, null, "a code")));
            throw new RefusedException("code-not-right", "That code is not right, or was used already.", "Type the one that the app shows now; if its clock is wrong, set it by the network. A recovery code works once.", "code");
        }
    }

    private static IReadOnlyList<string> Codes(IDbConnection c, PersonId who)
    {
        var codes = Enumerable.Range(0, SecondStepRules.RecoveryCodes).Select(_ => RecoveryCode.Make(RandomNumberGenerator.GetInt32)).ToList();
        SecondStepStore.SetCodes(c, who, codes.Select(k => RecoveryCode.Key(k)!));
        return codes;
    }

    private static void CheckNotLast(IDbConnection c, Caller by, Func<StepFacts, bool> left)
    {
        var facts = SecondStepStore.Of(c, by.Id);
        if (SecondStepRules.IsRequired(facts.Rule, by.Role) && !left(facts))
            throw new RefusedException("step-required", "Your school asks a second step of you, and this is the only one you have.", "Set up another one first.");
    }

    // Recovery codes stand in for a second step; without one they are nothing.
    private static void EndIfLast(IDbConnection c, PersonId who)
    {
        if (!SecondStepStore.Of(c, who).Has) SecondStepStore.SetCodes(c, who, []);
    }
}
