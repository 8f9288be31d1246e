namespace SpringLoft.App;

/// <summary>Where people reach Spring Loft: every link that leaves it, in a letter, on a slip, in a calendar, begins with this and with nothing that a request says.</summary>
public sealed class SchoolAddress(Func<Uri> find)
{
    /// <summary>Its parts.</summary>
    public Uri Get() => find();

    /// <summary>As "https://loft.example", without a stroke at its end.</summary>
    public string Text => find().GetLeftPart(UriPartial.Authority);

    /// <summary>The address of a place in it.</summary>
    /// <param name="path">Without a stroke before it.</param>
    public Uri To(string path) => new(new Uri(Text + "/"), path);

    /// <summary>Reads the operator's setting.</summary>
    /// <exception cref="ArgumentException">It is no address of a web site by itself.</exception>
    public static Uri Read(string setting) =>
        Uri.TryCreate(setting, UriKind.Absolute, out var u) && u.Scheme is ("http" or "https") && u.PathAndQuery == "/" && u.Fragment.Length == 0 && u.UserInfo.Length == 0 ? u
        : throw new ArgumentException($"SPRING_LOFT_ADDRESS “{setting}” is not an address like https://loft.example, without a path.");
}
