using System.Collections.Concurrent;
using System.Runtime.CompilerServices;
using System.Threading.Channels;

namespace Daxlin.Service.Work;

/// <summary>Tells who is listening that a batch has moved on.</summary>
public sealed class BatchEvents
{
    private readonly ConcurrentDictionary<Guid, (int Batch, Channel<int> Channel)> listeners = [];

    public void Moved(int batch)
    {
        foreach (var (of, channel) in listeners.Values)
        {
            if (of == batch)
                channel.Writer.TryWrite(batch);
        }
    }

    /// <summary>Yields once at once, then each time the batch moves; moves that come while nobody takes one become one.</summary>
    public async IAsyncEnumerable<int> Listen(int batch, [EnumeratorCancellation] CancellationToken cancel)
    {
        var channel = Channel.CreateBounded<int>(new BoundedChannelOptions(1) { FullMode = BoundedChannelFullMode.DropWrite });
        var key = Guid.NewGuid();
        listeners[key] = (batch, channel);
        try
        {
            channel.Writer.TryWrite(batch);
            await foreach (var moved in channel.Reader.ReadAllAsync(cancel))
                yield return moved;
        }
        finally
        {
            listeners.TryRemove(key, out _);
        }
    }
}
