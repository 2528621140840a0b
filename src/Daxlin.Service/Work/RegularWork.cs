namespace Daxlin.Service.Work;

/// <summary>Work in the background that looks again and again whether something is to be done.</summary>
/// <remarks>What fails in one look is logged and looked at in the next; what waits when the service stops is there after its next start.</remarks>
/// <param name="between">From one look to the next.</param>
internal abstract class RegularWork(TimeSpan between, TimeProvider clock, ILogger log) : BackgroundService
{
    protected TimeProvider Clock { get; } = clock;

    /// <summary>Looks, and does what is due.</summary>
    protected abstract Task Do(CancellationToken cancel);

    protected sealed override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        using var timer = new PeriodicTimer(between, Clock);
        try
        {
            do
            {
                try
                {
                    await Do(stoppingToken);
                }
                catch (Exception error) when (!stoppingToken.IsCancellationRequested)
                {
                    log.LogWarning(error, "{Work} was not done; it is tried again", GetType().Name);
                }
            }
            while (await timer.WaitForNextTickAsync(stoppingToken));
        }
        catch (OperationCanceledException)
        {
            // The service stops.
        }
    }
}
