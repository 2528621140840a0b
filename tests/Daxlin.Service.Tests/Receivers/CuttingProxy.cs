using System.Net;
using System.Net.Sockets;

namespace Daxlin.Service.Tests.Receivers;

/// <summary>Stands in the line to a receiver and cuts it at a moment that a test says: when so many pieces have gone through, either way.</summary>
internal sealed class CuttingProxy : IAsyncDisposable
{
    private readonly TcpListener listener = new(IPAddress.Loopback, 0);
    private readonly int target;
    private readonly CancellationTokenSource end = new();
    private int left = int.MaxValue;
    private Func<Task>? meanwhile;

    public CuttingProxy(int target)
    {
        this.target = target;
        listener.Start();
        _ = Listen();
    }

    public int Port => ((IPEndPoint)listener.LocalEndpoint).Port;

    public bool HasCut { get; private set; }

    /// <param name="piece">The piece, from 1, that does not go through any more; all do if this is left out.</param>
    /// <param name="act">What is done at that moment.</param>
    public void CutAt(int piece = int.MaxValue, Func<Task>? act = null) => (left, HasCut, meanwhile) = (piece, false, act);

    private async Task Listen()
    {
        try
        {
            while (true)
                _ = Connect(await listener.AcceptTcpClientAsync(end.Token));
        }
        catch (OperationCanceledException)
        {
            // The test is over.
        }
    }

    private async Task Connect(TcpClient from)
    {
        using var _ = from;
        using var to = new TcpClient();
        try
        {
            await to.ConnectAsync(IPAddress.Loopback, target);
            await Task.WhenAny(Pass(from.GetStream(), to.GetStream()), Pass(to.GetStream(), from.GetStream()));
        }
        catch (Exception error) when (error is IOException or SocketException)
        {
            // One end has gone; the other is let go, too.
        }
    }

    private async Task Pass(NetworkStream from, NetworkStream to)
    {
        var buffer = new byte[64 * 1024];
        while (await from.ReadAsync(buffer, end.Token) is > 0 and var count)
        {
            if (Interlocked.Decrement(ref left) <= 0)
            {
                HasCut = true;
                if (Interlocked.Exchange(ref meanwhile, null) is { } act)
                    await act();
                return;
            }
            await to.WriteAsync(buffer.AsMemory(0, count), end.Token);
        }
    }

    public async ValueTask DisposeAsync()
    {
        await end.CancelAsync();
        listener.Dispose();
        end.Dispose();
    }
}
