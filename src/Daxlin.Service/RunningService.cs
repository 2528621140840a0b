using Daxlin.Service.Storage;
using Daxlin.Service.Work;

namespace Daxlin.Service;

/// <summary>A service at work: it alone holds its data folder, or its part of one, its storage has the newest form, and it listens.</summary>
public sealed class RunningService : IAsyncDisposable
{
    private readonly FileStream folder;
    private readonly WebApplication app;

    private RunningService(FileStream folder, WebApplication app, string? firstLink) => (this.folder, this.app, FirstLink) = (folder, app, firstLink);

    /// <summary>Where it listens, with the port that it was given if it wanted any.</summary>
    public string Address => app.Urls.First();

    /// <summary>The page by which the first administrator begins; null if there are people already, or none are needed.</summary>
    public string? FirstLink { get; }

    /// <param name="readers">Reading processes that it shares with other services of this process; null for its own.</param>
    /// <exception cref="SettingsException">Another service has the folder, or a setting cannot be met.</exception>
    /// <exception cref="StorageException">The folder or the database in it cannot be used.</exception>
    /// <exception cref="IOException">The port is taken.</exception>
    public static async Task<RunningService> Start(ServiceSettings settings, ReaderPool? readers = null)
    {
        var folder = FolderLock.Take(settings.Data, settings.Node);
        WebApplication? app = null;
        try
        {
            app = ServiceHost.Build(settings, readers);
            await ServiceHost.PrepareStorage(app);
            await app.StartAsync();
            return new RunningService(folder, app, await ServiceHost.FirstLink(app));
        }
        catch
        {
            if (app is not null)
                await app.DisposeAsync();
            await folder.DisposeAsync();
            throw;
        }
    }

    /// <summary>Asks it to end; what it works on comes to its end or is left for the next start.</summary>
    public void Stop() => app.Lifetime.StopApplication();

    /// <summary>Until it was asked to end, by <see cref="Stop"/> or by a signal to the process, and has ended.</summary>
    public Task UntilEnded() => app.WaitForShutdownAsync();

    public async ValueTask DisposeAsync()
    {
        await app.DisposeAsync();
        await folder.DisposeAsync();
    }
}
