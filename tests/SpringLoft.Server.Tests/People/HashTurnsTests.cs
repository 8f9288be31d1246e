using SpringLoft.Server.People;

namespace SpringLoft.Server.Tests.People;

public class HashTurnsTests
{
    [Fact]
    public async Task Turns_come_in_the_order_of_asking_and_who_gave_up_has_none()
    {
        using var turns = new HashTurns(atOnce: 1);
        var first = await turns.Take(CancellationToken.None);
        using var gaveUp = new CancellationTokenSource();
        var second = turns.Take(gaveUp.Token);
        var (third, fourth) = (turns.Take(CancellationToken.None), turns.Take(CancellationToken.None));
        second.IsCompleted.ShouldBeFalse();

        await gaveUp.CancelAsync();
        await Should.ThrowAsync<OperationCanceledException>(() => second);
        first.Dispose();
        var held = await third;

        fourth.IsCompleted.ShouldBeFalse();
        held.Dispose();
        (await fourth).Dispose();
    }

    [Fact]
    public async Task Where_too_many_wait_one_is_told_so_at_once()
    {
        using var turns = new HashTurns(atOnce: 1, waiting: 1);
        using var first = await turns.Take(CancellationToken.None);
        var second = turns.Take(CancellationToken.None);

        (await Should.ThrowAsync<RefusedException>(() => turns.Take(CancellationToken.None))).Refusal.Code.ShouldBe("sign-in-busy");
        first.Dispose();
        (await second).Dispose();
    }
}
