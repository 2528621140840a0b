using Daxlin.Service.Nodes;

namespace Daxlin.Service.Work;

/// <summary>Wakes a worker that waits for something to do, here and in the services that share the database. Calls that come while it works become one.</summary>
/// <remarks>It wakes from time to time by itself, too: whoever would have called may have died.</remarks>
internal sealed class WakeCall : IDisposable
{
    private static readonly TimeSpan LongestSleep = TimeSpan.FromMinutes(1);

    private readonly NodeMessages messages;
    private readonly string topic;

    // Once at the start: what a kill left is to be done.
    private readonly SemaphoreSlim woken = new(1, 1);

    /// <param name="topic">Who is woken: <c>deliveries</c>.</param>
    public WakeCall(NodeMessages messages, string topic)
    {
        (this.messages, this.topic) = (messages, topic);
        messages.Listen(topic, _ => WakeHere());
    }

    public void Wake()
    {
        WakeHere();
        messages.Tell(topic, 0);
    }

    private void WakeHere()
    {
        try
        {
            woken.Release();
        }
        catch (Exception error) when (error is SemaphoreFullException or ObjectDisposedException)
        {
            // It is awake, or will be; or it sleeps for good.
        }
    }

    public Task Wait(CancellationToken cancel) => woken.WaitAsync(LongestSleep, cancel);

    public void Dispose() => woken.Dispose();
}
