namespace SpringLoft.Core.Closing;

/// <summary>Why the words of a file, or a part of them, could not be read.</summary>
public enum Unread
{
    /// <summary>It is of a kind that no words are read from: a picture, sound, an old office file.</summary>
    Kind,

    /// <summary>It opens with a password only.</summary>
    Shut,

    /// <summary>It is not what it says it is, or is cut short.</summary>
    Damaged,

    /// <summary>It holds more than is read.</summary>
    Long,

    /// <summary>Its words were read, but there are pictures or other files in it.</summary>
    Pictures,
}
