using System.Collections.Concurrent;
using System.Runtime.CompilerServices;
using System.Threading.Channels;
using Daxlin.Service.Nodes;

namespace Daxlin.Service.Work;

/// <summary>Tells who is listening that some long work has moved on, whichever of the services that share the database it is done by.</summary>
public abstract class ProgressEvents
{
    private readonly ConcurrentDictionary<Guid, (int Of, Channel<int> Channel)> listeners = [];
    private readonly NodeMessages messages;
    private readonly string topic;

    /// <param name="topic">What moves on: <c>batch</c>.</param>
    protected ProgressEvents(NodeMessages messages, string topic)
    {
        (this.messages, this.topic) = (messages, topic);
        messages.Listen(topic, MovedHere);
    }

    /// <param name="work">Its number.</param>
    public void Moved(int work)
    {
        MovedHere(work);
        messages.Tell(topic, work);
    }

    private void MovedHere(int work)
    {
        foreach (var (of, channel) in listeners.Values)
        {
            if (of == work)
                channel.Writer.TryWrite(work);
        }
    }

    /// <summary>Yields once at once, then each time the work moves; moves that come while nobody takes one become one.</summary>
    public async IAsyncEnumerable<int> Listen(int work, [EnumeratorCancellation] CancellationToken cancel)
    {
        var channel = Channel.CreateBounded<int>(new BoundedChannelOptions(1) { FullMode = BoundedChannelFullMode.DropWrite });
        var key = Guid.NewGuid();
        listeners[key] = (work, channel);
        try
        {
            channel.Writer.TryWrite(work);
            await foreach (var moved in channel.Reader.ReadAllAsync(cancel))
                yield return moved;
        }
        finally
        {
            listeners.TryRemove(key, out _);
        }
    }
}
