using SpringLoft.Core.Workspaces;

namespace SpringLoft.Core.People;

/// <summary>For whom a provider takes the place of passwords, once they have signed in with it.</summary>
public enum PasswordsOffFor
{
    /// <summary>For nobody: both ways are open.</summary>
    Nobody,

    /// <summary>For students.</summary>
    Students,

    /// <summary>For staff.</summary>
    Staff,

    /// <summary>For everybody.</summary>
    Everybody,
}

/// <summary>How far the word of a provider goes, as the operator lays down.</summary>
/// <param name="Name">As people read it.</param>
/// <param name="TrustsEmail">True if an e-mail is believed of which the provider does not say that it was checked.</param>
/// <param name="StaffGroups">Groups whose people may come in as staff; empty if groups do not matter for them.</param>
/// <param name="StudentGroups">The same of students.</param>
/// <param name="StepMethods">Methods of authentication (RFC 8176) that count as a second step; empty if none does.</param>
public sealed record ProviderRules(string Name, PasswordsOffFor PasswordsOff, bool TrustsEmail, IReadOnlySet<string> StaffGroups, IReadOnlySet<string> StudentGroups, IReadOnlySet<string> StepMethods);

/// <summary>What a provider says of somebody who signed in there.</summary>
/// <param name="Claim">By which they are known here the first time.</param>
/// <param name="EmailChecked">True if it says that the e-mail was checked.</param>
/// <param name="Groups">In which they are.</param>
/// <param name="Methods">How they showed who they are.</param>
public sealed record ProviderWord(PersonClaim Claim, bool EmailChecked, IReadOnlySet<string> Groups, IReadOnlySet<string> Methods);

/// <summary>Somebody of the directory whom a provider might mean.</summary>
/// <param name="HasOtherAccount">True if another account of this provider is known as theirs.</param>
public sealed record MeantPerson(KnownPerson Known, SchoolRole Role, bool Active, bool HasOtherAccount);

/// <summary>Who comes in.</summary>
/// <param name="First">True if the account is to be known as theirs from now on.</param>
/// <param name="ShowedStep">True if what they did there counts as their second step.</param>
public sealed record Admitted(PersonId Person, bool First, bool ShowedStep);

/// <summary>
/// Whom the word of a provider lets in. Nobody is ever made: the directory says who is of the school, a provider only who is
/// there. The account (issuer and subject) decides once it is known; the first time the rules of <see cref="Knowing"/> do.
/// </summary>
public static class SingleSignOn
{
    /// <summary>Decides.</summary>
    /// <param name="account">Whose account it is known to be; null the first time.</param>
    /// <param name="candidates">All people of the directory whom the claim could name, leavers too.</param>
    /// <exception cref="RefusedException"><c>sign-on-nobody</c>, <c>sign-on-two</c>, <c>sign-on-email</c>, <c>sign-on-other-account</c>, <c>sign-on-left</c>, <c>sign-on-group</c>.</exception>
    public static Admitted Decide(ProviderRules rules, ProviderWord word, MeantPerson? account, IReadOnlyList<MeantPerson> candidates)
    {
        var person = account ?? Known(rules, word, candidates);
        if (!person.Active)
            throw new RefusedException("sign-on-left", $"{rules.Name} says who you are, but you are no longer of this school.", "If that is wrong, ask a coordinator to take you up again.");
        if (account is null && person.HasOtherAccount)
            throw new RefusedException("sign-on-other-account", $"You have signed in with another account of {rules.Name} before.", "Sign in with that one; if you have lost it, a coordinator can have it forgotten in the directory.");
        var groups = person.Role == SchoolRole.Student ? rules.StudentGroups : rules.StaffGroups;
        if (groups.Count > 0 && !groups.Overlaps(word.Groups))
            throw new RefusedException("sign-on-group", $"{rules.Name} does not say that you are {(person.Role == SchoolRole.Student ? "a student" : "of the staff")}, and here you are.", $"Tell those who run {rules.Name}: you are in none of the groups that come in that way.");
        return new(person.Known.Id, account is null, rules.StepMethods.Overlaps(word.Methods));
    }

    /// <summary>Is a password shut for somebody who has an account at a provider?</summary>
    public static bool IsPasswordOff(PasswordsOffFor rule, SchoolRole role) => rule switch
    {
        PasswordsOffFor.Everybody => true,
        PasswordsOffFor.Students => role == SchoolRole.Student,
        PasswordsOffFor.Staff => role != SchoolRole.Student,
        _ => false,
    };

    private static MeantPerson Known(ProviderRules rules, ProviderWord word, IReadOnlyList<MeantPerson> candidates)
    {
        var knowing = new Knowing([.. candidates.Select(p => p.Known)]);
        var believed = word.EmailChecked || rules.TrustsEmail ? word.Claim : word.Claim with { Email = null };
        // A name is what people type of themselves; it lets nobody in.
        var found = knowing.Find(believed with { Name = null });
        if (found.Knowledge == Knowledge.Known) return candidates.First(p => p.Known.Id == found.Person);
        if (found.Knowledge == Knowledge.Conflict)
            throw new RefusedException("sign-on-two", $"What {rules.Name} says of you names two different people of this school.", "Ask a coordinator to look at your number, e-mail and user name in the directory.");
        if (believed.Email is null && knowing.Find(word.Claim with { Name = null }).Knowledge == Knowledge.Known)
            throw new RefusedException("sign-on-email", $"{rules.Name} does not say that your e-mail was checked, and nothing else says who you are here.", $"Have your e-mail confirmed at {rules.Name}, or tell those who run it.");
        throw new RefusedException("sign-on-nobody", $"{rules.Name} says who you are, but nobody of this school is known by that.", "Ask a coordinator: your number, e-mail or user name may be missing in the directory, or be another one.");
    }
}
