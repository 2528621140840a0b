using System.Data.Common;
using Microsoft.EntityFrameworkCore.Diagnostics;
using Npgsql;

namespace Daxlin.Service.Storage;

/// <summary>A server that was away has ended every connection. The first that finds its own dead throws all of them away, so that not each has to be found by somebody's request.</summary>
internal sealed class LostConnections : DbCommandInterceptor
{
    public static LostConnections Instance { get; } = new();

    public override Task CommandFailedAsync(DbCommand command, CommandErrorEventData eventData, CancellationToken cancellationToken = default)
    {
        if (StorageFaults.Of(eventData.Exception) is { Code: StorageFaults.Away })
            NpgsqlConnection.ClearAllPools();
        return Task.CompletedTask;
    }
}
