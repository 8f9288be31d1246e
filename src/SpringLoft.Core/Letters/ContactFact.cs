namespace SpringLoft.Core.Letters;

/// <summary>Why no letter goes to somebody at home.</summary>
public enum NoLetter { NotLetYet, NoAddress, Stopped, Gone }

/// <summary>What decides whether a family contact is written to.</summary>
/// <param name="Let">The school lets them be written to.</param>
/// <param name="Stopped">They want no letter: nobody at the school takes that back for them.</param>
/// <param name="Gone">The school's records have them no more.</param>
public readonly record struct ContactFact(bool Let, bool HasAddress, bool Stopped, bool Gone)
{
    /// <summary>What stands in the way; null for nothing. What the family itself said comes first.</summary>
    public NoLetter? Why => Stopped ? NoLetter.Stopped : Gone ? NoLetter.Gone : !HasAddress ? NoLetter.NoAddress : !Let ? NoLetter.NotLetYet : null;
}
