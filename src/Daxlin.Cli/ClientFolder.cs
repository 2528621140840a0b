namespace Daxlin.Cli;

/// <summary>The folder of what the client remembers for its user.</summary>
internal static class ClientFolder
{
    public static string Path { get; } = Environment.GetEnvironmentVariable("DAXLIN_STATE") is { Length: > 0 } state ? state
        : System.IO.Path.Combine(Environment.GetFolderPath(Environment.SpecialFolder.LocalApplicationData), "daxlin-client");
}
