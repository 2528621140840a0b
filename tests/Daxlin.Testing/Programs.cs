using System.Diagnostics;
using System.Net;
using System.Net.Sockets;

namespace Daxlin.Testing;

/// <summary>Programs of the machine that tests start.</summary>
public static class Programs
{
    public static int FreePort()
    {
        using var free = new TcpListener(IPAddress.Loopback, 0);
        free.Start();
        return ((IPEndPoint)free.LocalEndpoint).Port;
    }

    /// <summary>Runs a program to its end.</summary>
    /// <returns>What it printed.</returns>
    public static async Task<string> Run(string program, params string[] arguments)
    {
        using var process = Process.Start(new ProcessStartInfo(program, arguments) { RedirectStandardOutput = true, RedirectStandardError = true })!;
        var (output, error) = (process.StandardOutput.ReadToEndAsync(), process.StandardError.ReadToEndAsync());
        await process.WaitForExitAsync();
        return process.ExitCode == 0 ? await output : throw new InvalidOperationException($"{program} failed: {await error}{await output}");
    }

    /// <summary>Waits until a server listens.</summary>
    public static async Task UntilListening(int port)
    {
        for (var patience = Stopwatch.StartNew(); ;)
        {
            try
            {
                using var client = new TcpClient();
                await client.ConnectAsync(IPAddress.Loopback, port);
                return;
            }
            catch (SocketException) when (patience.Elapsed < TimeSpan.FromSeconds(60))
            {
                await Task.Yield();
            }
        }
    }
}
