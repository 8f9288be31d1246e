namespace SpringLoft.Server.Api;

/// <summary>
/// Where the operator has said under which address the school reaches Spring Loft, it answers under no other: a request that
/// names another host was sent by somebody's trick. The machine itself may always ask, for the sake of watching programs.
/// </summary>
internal sealed class Hosts(RequestDelegate next, Uri? address)
{
    private static readonly string[] OfTheMachine = ["localhost", "127.0.0.1", "[::1]"];

    public Task InvokeAsync(HttpContext context)
    {
        var host = context.Request.Host.Host;
        if (address is null || string.Equals(host, address.IdnHost, StringComparison.OrdinalIgnoreCase) || OfTheMachine.Contains(host, StringComparer.OrdinalIgnoreCase)) return next(context);
        return Problems.Write(context, 421, new("host-wrong", "Spring Loft is not reached under this address.", $"Use {address.GetLeftPart(UriPartial.Authority)}."));
    }
}
