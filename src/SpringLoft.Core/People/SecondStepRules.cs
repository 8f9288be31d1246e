using SpringLoft.Core.Workspaces;

namespace SpringLoft.Core.People;

/// <summary>Of whom the school requires a second step; whoever likes one can have it anyway.</summary>
public enum SecondStepFor
{
    /// <summary>Of nobody.</summary>
    Nobody,

    /// <summary>Of coordinators.</summary>
    Coordinators,

    /// <summary>Of all staff.</summary>
    Staff,
}

/// <summary>How far through the door somebody is whose password was right.</summary>
public enum Door
{
    /// <summary>In.</summary>
    Open,

    /// <summary>They have a second step and have not shown it in this sign-in.</summary>
    StepNeeded,

    /// <summary>The school requires one of them and they have none yet.</summary>
    StepToSetUp,
}

/// <summary>When a second step is asked.</summary>
public static class SecondStepRules
{
    /// <summary>How long it is not asked again, before acts that would hurt most in the wrong hands.</summary>
    public static readonly Duration Fresh = Duration.FromMinutes(10);

    /// <summary>How long an answer to a passkey's challenge is waited for.</summary>
    public static readonly Duration Challenge = Duration.FromMinutes(5);

    /// <summary>How many recovery codes there are at a time.</summary>
    public const int RecoveryCodes = 10;

    /// <summary>Most passkeys of one person.</summary>
    public const int MostPasskeys = 10;

    /// <summary>May a person of this role have one? Students sign in on shared tablets; their second factor is their teacher.</summary>
    public static bool MayHave(SchoolRole role) => role != SchoolRole.Student;

    /// <summary>Does the school require one of a person of this role?</summary>
    public static bool IsRequired(SecondStepFor rule, SchoolRole role) => rule switch
    {
        SecondStepFor.Coordinators => role == SchoolRole.Coordinator,
        SecondStepFor.Staff => MayHave(role),
        _ => false,
    };

    /// <summary>How far somebody is.</summary>
    /// <param name="has">True if they have set one up.</param>
    /// <param name="shown">When it was last shown in this sign-in; null if it was not.</param>
    /// <param name="elsewhere">True if a provider of single sign-on asked one that counts here.</param>
    public static Door Of(SecondStepFor rule, SchoolRole role, bool has, Instant? shown, bool elsewhere = false) =>
        elsewhere ? Door.Open
        : has ? shown is null ? Door.StepNeeded : Door.Open
        : IsRequired(rule, role) ? Door.StepToSetUp : Door.Open;

    /// <summary>Is it asked once more before an act that asks again?</summary>
    public static bool IsAskedAgain(bool has, Instant? shown, Instant now) => has && (shown is not { } at || now - at >= Fresh);
}
