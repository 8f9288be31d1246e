using System.Net.Http;

namespace SpringLoft.Formats.OneRoster;

/// <summary>Why another program was not reached, in our own words: what others say of themselves, and what our system says of them, is not shown.</summary>
public static class WhyUnreachable
{
    /// <summary>The reason, to stand after a colon.</summary>
    public static string Of(HttpRequestException e) => e.InnerException is InsideAddressException ? "its address leads into this school's own network"
        : e.HttpRequestError switch
        {
            HttpRequestError.NameResolutionError => "there is no host of that name",
            HttpRequestError.SecureConnectionError => "its certificate is not trusted, has run out, or is for another name",
            HttpRequestError.ConnectionError => "nothing answers there",
            HttpRequestError.ResponseEnded or HttpRequestError.InvalidResponse => "it broke off its answer",
            _ => "it does not answer as it should",
        };
}

/// <summary>An address that was not asked, because it leads inside.</summary>
public sealed class InsideAddressException() : IOException("The address leads into the network that this program stands in.");
