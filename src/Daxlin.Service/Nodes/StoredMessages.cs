using System.Globalization;
using System.Threading.Channels;
using Daxlin.Service.Storage;
using Npgsql;

namespace Daxlin.Service.Nodes;

/// <summary>Messages by LISTEN and NOTIFY of PostgreSQL.</summary>
internal sealed class StoredMessages(ServiceSettings settings, TimeProvider clock, ILogger<StoredMessages> log) : NodeMessages, IHostedService, IDisposable
{
    private const string Channel = "daxlin";

    /// <summary>While the server is away no more than these are kept; who listens looks by itself from time to time.</summary>
    private const int MostWaiting = 1_000;

    private static readonly TimeSpan BetweenTries = TimeSpan.FromSeconds(1);

    private readonly Channel<(string Topic, int Of)> outgoing = System.Threading.Channels.Channel.CreateBounded<(string, int)>(new BoundedChannelOptions(MostWaiting) { FullMode = BoundedChannelFullMode.DropOldest });
    private readonly CancellationTokenSource ends = new();
    private Task working = Task.CompletedTask;

    public override void Tell(string topic, int of) => outgoing.Writer.TryWrite((topic, of));

    public Task StartAsync(CancellationToken cancellationToken)
    {
        working = Task.WhenAll(Again(ListenToOthers), Again(TellOthers));
        return Task.CompletedTask;
    }

    public async Task StopAsync(CancellationToken cancellationToken)
    {
        await ends.CancelAsync();
        await working;
    }

    private async Task Again(Func<CancellationToken, Task> work)
    {
        while (!ends.IsCancellationRequested)
        {
            try
            {
                await work(ends.Token);
            }
            catch (OperationCanceledException) when (ends.IsCancellationRequested)
            {
                return;
            }
            catch (Exception error)
            {
                log.LogWarning("No messages between services: {Reason}", error.Message);
                await Task.Delay(BetweenTries, clock, ends.Token).ContinueWith(_ => { }, TaskScheduler.Default);
            }
        }
    }

    private async Task ListenToOthers(CancellationToken cancel)
    {
        await using var connection = new NpgsqlConnection(new NpgsqlConnectionStringBuilder(settings.Store) { KeepAlive = 20, Pooling = false }.ToString());
        await connection.OpenAsync(cancel);
        connection.Notification += (_, told) =>
        {
            // NODE TOPIC NUMBER
            if (told.Payload.Split(' ') is [var node, var topic, var number] && node != settings.Node && int.TryParse(number, NumberStyles.AllowLeadingSign, CultureInfo.InvariantCulture, out var of))
                Hear(topic, of);
        };
        await using (var listen = new NpgsqlCommand($"LISTEN {Channel}", connection))
            await listen.ExecuteNonQueryAsync(cancel);
        while (true)
            await connection.WaitAsync(cancel);
    }

    private async Task TellOthers(CancellationToken cancel)
    {
        await using var source = NpgsqlDataSource.Create(new NpgsqlConnectionStringBuilder(settings.Store) { MaxPoolSize = 1 }.ToString());
        while (await outgoing.Reader.WaitToReadAsync(cancel))
        {
            var waiting = new HashSet<(string, int)>();
            while (outgoing.Reader.TryRead(out var one))
                waiting.Add(one);
            foreach (var (topic, of) in waiting)
            {
                await using var tell = source.CreateCommand("SELECT pg_notify($1, $2)");
                tell.Parameters.AddWithValue(Channel);
                tell.Parameters.AddWithValue(string.Create(CultureInfo.InvariantCulture, $"{settings.Node} {topic} {of}"));
                await tell.ExecuteNonQueryAsync(cancel);
            }
        }
    }

    public void Dispose() => ends.Dispose();
}
