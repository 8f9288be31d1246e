namespace SpringLoft.Core.Workspaces;

/// <summary>What students put into something that is in the bin, as far as the rules go.</summary>
/// <param name="PutIn">What students put in and did not bin themselves, each of them.</param>
/// <param name="TakenHome">Of that, how much is in a take-home of its student.</param>
public sealed record BinnedFact(int PutIn, int TakenHome);

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
    public static bool MayGo(BinnedFact thing) => thing.TakenHome >= thing.PutIn;
}
