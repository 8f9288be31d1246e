namespace SpringLoft.Core.Workspaces;

/// <summary>What was binned, by whom, as far as the rules go.</summary>
/// <param name="ByStudent">Did a student put it in?</param>
/// <param name="BySelf">Did whoever put it in bin it too?</param>
/// <param name="TakenHome">Is all of it in a take-home of its student?</param>
public sealed record BinnedFact(bool ByStudent, bool BySelf, bool TakenHome);

/// <summary>The bin of a class. Source: docs/rules.md, “Who holds what, and the last copy”.</summary>
public static class Binning
{
    /// <summary>Days that a thing stands in the bin.</summary>
    public const int Days = 30;

    /// <summary>When a thing's days in the bin are over.</summary>
    public static Instant GoneAt(Instant binnedAt) => binnedAt + Duration.FromDays(Days);

    /// <summary>Whoever could have binned a thing may bring it back: staff of the class, and who put it in.</summary>
    public static bool MayBringBack(Standing standing, bool own) => standing >= Standing.CoTeacher || (standing == Standing.Student && own);

    /// <summary>May a thing go for good once its days are over? What a student made and somebody else binned stays until it is in the student's take-home.</summary>
    public static bool MayGo(BinnedFact thing) => !thing.ByStudent || thing.BySelf || thing.TakenHome;
}
