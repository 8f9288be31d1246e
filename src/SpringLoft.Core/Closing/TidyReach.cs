namespace SpringLoft.Core.Closing;

/// <summary>How many students would see a thing in a folder. Loose, none does but the one who put it in.</summary>
/// <param name="Students">Of the roster as it is now.</param>
/// <param name="Only">The one who would, where it is one alone.</param>
/// <param name="All">True where it is everybody on the roster.</param>
public sealed record TidyReach(int Students, PersonId? Only, bool All)
{
    /// <summary>From those who see the folder.</summary>
    public static TidyReach Of(IReadOnlyCollection<PersonId> seeing, int onRoster) => new(seeing.Count, seeing.Count == 1 ? seeing.Single() : null, seeing.Count > 0 && seeing.Count == onRoster);

    /// <summary>True if somebody would see it there who does not now: that is asked first.</summary>
    /// <param name="student">The student who put it in; null for staff's.</param>
    public bool IsWider(PersonId? student) => Students > 0 && !(student is { } s && Only == s);
}
