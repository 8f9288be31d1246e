using System.Security.Claims;
using Microsoft.AspNetCore.SignalR;
using SpringLoft.App;
using SpringLoft.App.People;
using SpringLoft.App.Workspaces;
using SpringLoft.Core;
using SpringLoft.Server.Api;

namespace SpringLoft.Server.Workspaces;

/// <summary>What came of something that was asked of the hub: an answer, or why there is none.</summary>
internal sealed record HubAnswer<T>(T? Answer, Refusal? Refusal);

/// <summary>A page as a browser opens it. Bytes are base64.</summary>
/// <param name="Most">Most characters that it may have.</param>
internal sealed record PageOpened(string Title, byte[] Update, byte[] Vector, bool MayWrite, int Most);

/// <summary>Somebody who is there.</summary>
public sealed record PageHere(long Id, string Name, bool Writes);

/// <summary>What browsers are told.</summary>
public interface ITogether
{
    /// <summary>Somebody wrote this.</summary>
    Task Wrote(long itemId, byte[] update);

    /// <summary>This browser may not read the page any more; opened anew, it is told why.</summary>
    Task Shut(long itemId);

    /// <summary>Who has the page open now.</summary>
    Task Here(long itemId, IReadOnlyList<PageHere> people);
}

/// <summary>
/// Passes on between browsers what people write into one page at once. Whoever connects is known by the gate; each call asks
/// anew whether their sign-in goes on, and the use case whether they may.
/// </summary>
internal sealed class TogetherHub(WritingTogether together, Sessions sessions) : Hub<ITogether>
{
    internal const string Path = "/api/together";

    /// <summary>Opens a page, or takes it up again after having been cut off.</summary>
    /// <param name="vector">Up to what the browser knows of each writer.</param>
    public async Task<HubAnswer<PageOpened>> Open(long classId, long itemId, byte[]? vector) => await Answered<PageOpened>(async who =>
    {
        var opened = together.Open(who, new(classId), new(itemId), Context.ConnectionId, vector);
        await Groups.AddToGroupAsync(Context.ConnectionId, Name(itemId));
        await Tell(itemId);
        return new(opened.Title, opened.Update, opened.Vector, opened.MayWrite, Items.MostText);
    });

    /// <summary>Takes in what somebody wrote; answers once it is kept.</summary>
    public async Task<HubAnswer<bool>> Write(long classId, long itemId, byte[]? update) => await Answered(async who =>
    {
        Task passed = Task.CompletedTask;
        await together.Write(who, new(classId), new(itemId), update ?? [], () => passed = Clients.OthersInGroup(Name(itemId)).Wrote(itemId, update ?? []));
        await passed;
        return true;
    });

    public override async Task OnDisconnectedAsync(Exception? exception)
    {
        foreach (var item in together.Leave(Context.ConnectionId)) await Tell(item.Value);
        await base.OnDisconnectedAsync(exception);
    }

    internal static string Name(long itemId) => $"page:{itemId}";

    private Task Tell(long itemId) => Clients.Group(Name(itemId)).Here(itemId, [.. together.Here(new(itemId)).Select(p => new PageHere(p.Id.Value, p.Name, p.Writes))]);

    private async Task<HubAnswer<T>> Answered<T>(Func<Caller, Task<T>> act)
    {
        try
        {
            var context = Context.GetHttpContext()!;
            if (context.User.FindFirstValue(Gate.TokenClaim) is not { } token || sessions.Who(token) is not { } present)
                return new(default, new("signed-out", "You are not signed in, or your sign-in has ended.", "Sign in."));
            return new(await act(Gate.CallerOf(context) with { Role = present.Me.Role }), null);
        }
        catch (RefusedException e) { return new(default, e.Refusal); }
    }
}

/// <summary>Keeps what is written together, five times a second, and writes it into the pages' texts.</summary>
internal sealed class TogetherWorker(WritingTogether together, IHubContext<TogetherHub, ITogether> hub, ILogger<TogetherWorker> log) : BackgroundService
{
    private static readonly TimeSpan Often = TimeSpan.FromMilliseconds(200);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        await Task.Yield();
        together.Met += (item, update) => _ = hub.Clients.Group(TogetherHub.Name(item.Value)).Wrote(item.Value, update);
        together.Dropped += (item, connection) => _ = Drop(item, connection);
        using var timer = new PeriodicTimer(Often);
        try
        {
            while (await timer.WaitForNextTickAsync(stoppingToken))
            {
                try { together.Go(); }
                catch (Exception e) when (e is not OperationCanceledException) { log.LogError(e, "What was written together could not be kept"); }
            }
        }
        catch (OperationCanceledException) { /* the program ends */ }
        // Nothing that was typed waits for the next start.
        try { together.Settle(); }
        catch (Exception e) when (e is System.Data.Common.DbException or IOException) { log.LogError(e, "What was written together is kept, and will be in the pages' texts after the next start"); }
    }

    private async Task Drop(ItemId item, string connection)
    {
        try
        {
            await hub.Groups.RemoveFromGroupAsync(connection, TogetherHub.Name(item.Value));
            await hub.Clients.Client(connection).Shut(item.Value);
        }
        catch (Exception e) when (e is not OperationCanceledException) { log.LogWarning(e, "A browser that is gone was not told"); }
    }
}
