using System.Net.ServerSentEvents;
using System.Runtime.CompilerServices;
using Daxlin.Service.Work;

namespace Daxlin.Service.Web;

/// <summary>How far some long work is, as server-sent events: <c>progress</c> each time it moves, <c>done</c> at the end.</summary>
internal static class ProgressStream
{
    /// <summary>Progress shows no oftener than this; a person sees no more.</summary>
    private static readonly TimeSpan BetweenEvents = TimeSpan.FromMilliseconds(100);

    /// <param name="work">The work's number.</param>
    /// <param name="find">How far it is; null if it is gone.</param>
    public static async IAsyncEnumerable<SseItem<T>> Of<T>(
        int work, ProgressEvents events, Func<CancellationToken, Task<T?>> find, Func<T, bool> isDone, TimeProvider clock, IHostApplicationLifetime lifetime,
        [EnumeratorCancellation] CancellationToken cancel)
        where T : class
    {
        // A service that stops does not wait for who listens.
        using var either = CancellationTokenSource.CreateLinkedTokenSource(lifetime.ApplicationStopping, cancel);
        await foreach (var _ in events.Listen(work, either.Token))
        {
            if (await find(cancel) is not { } state)
                yield break;
            yield return new SseItem<T>(state, isDone(state) ? "done" : "progress");
            if (isDone(state))
                yield break;
            await Task.Delay(BetweenEvents, clock, either.Token);
        }
    }
}
