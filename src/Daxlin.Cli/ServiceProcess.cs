using System.Diagnostics;

namespace Daxlin.Cli;

/// <summary>A service started by a command. It ends with the command, however that ends.</summary>
internal sealed class ServiceProcess : IDisposable
{
    private readonly Process process;

    private ServiceProcess(Process process) => this.process = process;

    public static ServiceProcess Start(IEnumerable<string> arguments)
    {
        var start = StartInfo(arguments);
        if (Environment.GetEnvironmentVariable("DAXLIN_CONSOLE") is { Length: > 0 } console)
        {
            start.ArgumentList.Add("--console");
            start.ArgumentList.Add(console);
        }
        if (Environment.GetEnvironmentVariable("DAXLIN_SAMPLES") is { Length: > 0 } samples)
        {
            start.ArgumentList.Add("--samples");
            start.ArgumentList.Add(samples);
        }
        // The service stops when its input ends, and its input ends with this process.
        start.ArgumentList.Add("--ends-with-input");
        return new ServiceProcess(Process.Start(start)!);
    }

    /// <summary>How the service's program is started, with its input and output in this program's hands.</summary>
    /// <exception cref="RefusedException">The launcher did not say where the service is.</exception>
    public static ProcessStartInfo StartInfo(IEnumerable<string> arguments)
    {
        if (Environment.GetEnvironmentVariable("DAXLIN_SERVICE") is not { Length: > 0 } service)
            throw new RefusedException("Start this through ./daxlin, which knows where the service is.");
        return new ProcessStartInfo("dotnet", [service, .. arguments]) { RedirectStandardInput = true, RedirectStandardOutput = true };
    }

    public ValueTask<string?> ReadLine(CancellationToken cancel) => process.StandardOutput.ReadLineAsync(cancel);

    public async Task<int> Ended(CancellationToken cancel)
    {
        await process.WaitForExitAsync(cancel);
        return process.ExitCode;
    }

    public void Dispose()
    {
        process.StandardInput.Close();
        if (!process.WaitForExit(TimeSpan.FromSeconds(15)))
            process.Kill(entireProcessTree: true);
        process.Dispose();
    }
}
