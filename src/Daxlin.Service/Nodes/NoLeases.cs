namespace Daxlin.Service.Nodes;

/// <summary>Of a service that has its database for itself: nobody else does its work.</summary>
internal sealed class NoLeases : Leases
{
    public override Task<bool> Take(string work, int of, CancellationToken cancel) => Task.FromResult(true);

    public override Task End(string work, int of, CancellationToken cancel) => Task.CompletedTask;
}
