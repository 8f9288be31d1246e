namespace SpringLoft.Core.School;

/// <summary>How much room one limit leaves.</summary>
/// <param name="Of">Whose limit it is.</param>
/// <param name="Used">Bytes.</param>
/// <param name="Most">Bytes.</param>
public sealed record RoomOf(RoomFor Of, long Used, long Most)
{
    /// <summary>Bytes that are left; none if more than that stands there since the limit was set.</summary>
    public long Left => Math.Max(0, Most - Used);
}

/// <summary>What a limit on room is for.</summary>
public enum RoomFor { Student, Class, School }

/// <summary>How much a file may have that is to be taken in.</summary>
public static class Room
{
    /// <summary>The limit that is reached first; null if there is none but that on one file.</summary>
    public static RoomOf? Tightest(IEnumerable<RoomOf> limits) => limits.MinBy(l => l.Left);

    /// <summary>Says that there is no room.</summary>
    public static Refusal Full(RoomOf at, string name)
    {
        var (whose, mend) = at.Of switch
        {
            RoomFor.Student => ("of what one student may put in", "Take out what is not needed any more, or ask your teacher."),
            RoomFor.Class => ("of this class", "Take out large files that are not needed any more and empty the bin, or ask a coordinator for more room."),
            _ => ("of the school", "Ask a coordinator: they see what takes the room."),
        };
        return new("quota-full", $"“{name}” does not fit: {Megabytes(at.Used)} of the {Megabytes(at.Most)} MB {whose} are used.", mend, "file");
    }

    private static string Megabytes(long bytes) => (bytes / (1024 * 1024)).ToString(System.Globalization.CultureInfo.InvariantCulture);
}
