using System.Threading.Channels;

namespace Daxlin.Service.Work;

/// <summary>
/// Which documents wait for their capture. Only a way to wake the workers: what waits is in the database, so nothing is
/// lost with this queue.
/// </summary>
public sealed class CaptureQueue
{
    private readonly Channel<int> intakes = Channel.CreateUnbounded<int>();

    public void Add(int intake) => intakes.Writer.TryWrite(intake);

    public IAsyncEnumerable<int> All(CancellationToken cancel) => intakes.Reader.ReadAllAsync(cancel);
}
