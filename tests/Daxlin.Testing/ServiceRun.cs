namespace Daxlin.Testing;

/// <summary>A service at work, wherever it runs.</summary>
internal abstract class ServiceRun : IAsyncDisposable
{
    /// <summary>How long anything of a service may take.</summary>
    public static readonly TimeSpan Patience = TimeSpan.FromSeconds(180);

    public abstract string Address { get; }

    /// <summary>The one-time link that it told, without what stands before its “#”.</summary>
    public abstract Task<string> PrintedLink();

    /// <summary>Asks it to stop, as a system that shuts down does.</summary>
    /// <returns>Its exit code.</returns>
    public abstract Task<int> Terminate();

    public abstract ValueTask DisposeAsync();
}
