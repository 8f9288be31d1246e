namespace SpringLoft.App;

/// <summary>What the operator allows when other programs are asked.</summary>
/// <param name="InsideToo">True if they may stand in the school's own network, and be asked without TLS.</param>
public sealed record OutsideRules(bool InsideToo)
{
    /// <summary>Reads an address that a secret goes to.</summary>
    /// <exception cref="RefusedException"><c>url-wrong</c>; <c>url-open</c> for one without TLS.</exception>
    public Uri Read(string? text, string field)
    {
        if (!Uri.TryCreate(text?.Trim(), UriKind.Absolute, out var address) || address.Scheme is not ("http" or "https"))
            throw new RefusedException("url-wrong", $"“{text}” is no address of the web.", "Write it like https://records.school.example/api.", field);
        if (address.UserInfo.Length > 0) throw new RefusedException("url-wrong", "The address has a name or a password in it.", "Write it without; the client id and its secret have fields of their own.", field);
        if (address.Scheme != "https" && !InsideToo)
            throw new RefusedException("url-open", $"“{address.AbsoluteUri}” is reached without TLS: the secret and every name would be readable on the way.", "Use its https address. Where the records stand in the school's own network, the operator can set SPRING_LOFT_INSIDE.", field);
        return address;
    }
}
