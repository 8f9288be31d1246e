namespace SpringLoft.Server.Api;

/// <summary>Lets those who ask under one name through one after another; what nobody asks for any more is forgotten.</summary>
public sealed class OneAtATime
{
    private readonly Dictionary<string, Queue> queues = [];

    /// <summary>Waits until nobody before has the turn under this name.</summary>
    /// <returns>Gives the turn to the next when it is disposed of.</returns>
    public async Task<IDisposable> Turn(string name, CancellationToken stop)
    {
        Queue queue;
        lock (queues)
        {
            if (!queues.TryGetValue(name, out queue!)) queues[name] = queue = new();
            queue.Asking++;
        }
        try { await queue.Door.WaitAsync(stop); }
        catch
        {
            Leave(name, queue);
            throw;
        }
        return new Held(this, name, queue);
    }

    private void Leave(string name, Queue queue)
    {
        // The queue stays while anybody stands in it: whoever comes meanwhile must stand behind them, not begin one of their own.
        lock (queues)
            if (--queue.Asking == 0) queues.Remove(name);
    }

    private sealed class Queue
    {
        internal SemaphoreSlim Door { get; } = new(1);

        internal int Asking { get; set; }
    }

    private sealed class Held(OneAtATime all, string name, Queue queue) : IDisposable
    {
        public void Dispose()
        {
            queue.Door.Release();
            all.Leave(name, queue);
        }
    }
}
