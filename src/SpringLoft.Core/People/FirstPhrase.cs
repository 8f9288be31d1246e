namespace SpringLoft.Core.People;

/// <summary>
/// First passwords that a child can read off a slip and type: three plain words and two digits. Each is made up by chance,
/// so that the slip of a classmate tells nothing about one's own: 128 × 128 × 128 × 90, some 189 million.
/// </summary>
public static class FirstPhrase
{
    /// <summary>Short, of letters a to z, told apart when read aloud.</summary>
    public static readonly IReadOnlyList<string> Words =
    [
        "acorn", "anchor", "apple", "arrow", "badge", "baker", "basket", "beacon", "berry", "birch", "blanket", "boat", "bottle", "branch", "bread", "bridge",
        "brush", "bucket", "button", "cabin", "candle", "canoe", "carrot", "castle", "cedar", "chalk", "cherry", "circle", "clay", "cloud", "clover", "comet",
        "copper", "coral", "cotton", "cradle", "crane", "cricket", "crown", "daisy", "dolphin", "drum", "eagle", "ember", "falcon", "feather", "fiddle", "field",
        "finch", "flame", "flute", "forest", "fossil", "fox", "garden", "ginger", "glacier", "goose", "granite", "grape", "harbour", "hazel", "heron", "honey",
        "island", "ivory", "jacket", "juniper", "kettle", "kite", "ladder", "lantern", "laurel", "lemon", "lily", "linen", "magnet", "maple", "marble", "meadow",
        "melon", "mirror", "moss", "mountain", "needle", "nutmeg", "oak", "ocean", "olive", "orchard", "otter", "owl", "paddle", "paper", "pebble", "pencil",
        "pepper", "pigeon", "pillow", "planet", "plum", "pocket", "pony", "quilt", "rabbit", "raven", "ribbon", "river", "robin", "rocket", "saddle", "salmon",
        "seal", "shell", "silver", "spoon", "squirrel", "starling", "sugar", "summer", "table", "thistle", "tiger", "timber", "tulip", "velvet", "walnut", "willow",
    ];

    /// <summary>Makes one.</summary>
    /// <param name="chance">Gives a number from 0 up to, but not including, the one it is given; from a source nobody can foresee.</param>
    public static string Make(Func<int, int> chance) =>
        $"{Words[chance(Words.Count)]}-{Words[chance(Words.Count)]}-{Words[chance(Words.Count)]}-{10 + chance(90)}";
}
