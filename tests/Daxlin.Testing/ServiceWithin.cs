using Daxlin.Service;
using Daxlin.Service.Storage;
using Daxlin.Service.Work;
using Microsoft.Data.Sqlite;

namespace Daxlin.Testing;

/// <summary>A service within the process of the tests: another of the same program is started in a tenth of the time that a new process takes.</summary>
/// <remarks>It listens on a port of its own and has a data folder of its own; the process is shared, and those that read documents.</remarks>
internal sealed class ServiceWithin : ServiceRun
{
    private static readonly ReaderPool Readers = new(Repository.Service);

    private readonly RunningService service;
    private readonly string data;
    private bool hasEnded;

    private ServiceWithin(RunningService service, string data) => (this.service, this.data, Address) = (service, data, service.Address);

    public static async Task<ServiceWithin> Start(string[] arguments)
    {
        var settings = ServiceSettings.Parse(arguments);
        return new ServiceWithin(await RunningService.Start(settings, Readers), settings.Data);
    }

    public override string Address { get; }

    public override Task<string> PrintedLink() => service.FirstLink is { } link
        ? Task.FromResult(link[(link.IndexOf('#', StringComparison.Ordinal) + 1)..]) : throw new InvalidOperationException("The service told no link.");

    public override async Task<int> Terminate()
    {
        if (hasEnded)
            return 0;
        hasEnded = true;
        service.Stop();
        await service.UntilEnded().WaitAsync(Patience);
        await service.DisposeAsync();
        // The folder may be copied or deleted now: no connection to its database is kept.
        using var kept = new SqliteConnection($"Data Source={new DataFolder(data).Database}");
        SqliteConnection.ClearPool(kept);
        return 0;
    }

    public override async ValueTask DisposeAsync() => await Terminate();
}
