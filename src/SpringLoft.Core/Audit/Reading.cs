namespace SpringLoft.Core.Audit;

/// <summary>What is read of others and noted.</summary>
public enum Reading
{
    /// <summary>The roster of a class.</summary>
    Roster,

    /// <summary>Students' work in a class.</summary>
    Work,

    /// <summary>A table or a file for other programs, with names in it.</summary>
    Export,

    /// <summary>An archive package.</summary>
    Package,

    /// <summary>All that is known of one person.</summary>
    Person,
}

/// <summary>How readings are noted.</summary>
public static class ReadingActs
{
    /// <summary>Is it a look at a screen, of which one line an hour is enough, rather than something carried away?</summary>
    public static bool IsLook(this Reading what) => what is Reading.Roster or Reading.Work;

    /// <summary>As the audit trail calls it.</summary>
    public static string Act(this Reading what) => what switch
    {
        Reading.Roster => "looked at roster",
        Reading.Work => "looked at work",
        Reading.Export => "exported",
        Reading.Package => "fetched package",
        Reading.Person => "fetched a person's data",
        _ => throw new ArgumentOutOfRangeException(nameof(what), what, null),
    };
}
