using SpringLoft.Server.Api;

namespace SpringLoft.Server.Tests.Api;

public sealed class OneAtATimeTests
{
    [Fact]
    public async Task Who_comes_while_others_wait_stands_behind_them()
    {
        var turns = new OneAtATime();
        var first = await turns.Turn("a", default);
        var second = turns.Turn("a", default);
        second.IsCompleted.ShouldBeFalse();
        first.Dispose();
        var held = await second;

        var third = turns.Turn("a", default);
        third.IsCompleted.ShouldBeFalse("the second has the turn");
        held.Dispose();
        (await third).Dispose();
    }

    [Fact]
    public async Task Who_gives_up_keeps_nobody_waiting()
    {
        var turns = new OneAtATime();
        var first = await turns.Turn("a", default);
        using var stop = new CancellationTokenSource();
        var second = turns.Turn("a", stop.Token);
        await stop.CancelAsync();
        await Should.ThrowAsync<OperationCanceledException>(second);
        var third = turns.Turn("a", default);
        third.IsCompleted.ShouldBeFalse();
        first.Dispose();
        (await third).Dispose();
    }

    [Fact]
    public async Task Other_names_do_not_wait()
    {
        var turns = new OneAtATime();
        using var a = await turns.Turn("a", default);
        using var b = await turns.Turn("b", default);
    }
}
