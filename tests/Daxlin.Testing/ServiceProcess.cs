using System.Diagnostics;
using System.Globalization;

namespace Daxlin.Testing;

/// <summary>A service as its users start it: a process of its own, which can be killed and measured.</summary>
internal sealed class ServiceProcess : ServiceRun
{
    private readonly Process process;

    private ServiceProcess(Process process, string address) => (this.process, Address) = (process, address);

    /// <param name="core">The only processor that it and its reading processes may use; null for all.</param>
    public static async Task<ServiceProcess> Start(string[] arguments, int? core = null)
    {
        var start = StartInfo([.. arguments, "--ends-with-input"]);
        if (core is { } only)
        {
            start.FileName = "taskset";
            string[] pinned = ["-c", only.ToString(CultureInfo.InvariantCulture), "dotnet", .. start.ArgumentList];
            start.ArgumentList.Clear();
            foreach (var argument in pinned)
                start.ArgumentList.Add(argument);
        }
        var process = Process.Start(start)!;
        var line = await process.StandardOutput.ReadLineAsync().WaitAsync(Patience)
            ?? throw new InvalidOperationException($"The service did not start: {await process.StandardError.ReadToEndAsync()}");
        return new ServiceProcess(process, line.Split(' ').First(word => word.StartsWith("http", StringComparison.Ordinal)));
    }

    public override string Address { get; }

    public override async Task<string> PrintedLink()
    {
        while (await process.StandardOutput.ReadLineAsync().WaitAsync(Patience) is { } line)
        {
            if (line.Contains("/welcome#", StringComparison.Ordinal))
                return line[(line.IndexOf('#', StringComparison.Ordinal) + 1)..].Trim();
        }
        throw new InvalidOperationException("The service printed no link.");
    }

    /// <summary>Starts a service and kills it once a file stands in its folder, or at once for none.</summary>
    public static async Task KillWhileStarting(string data, string? file)
    {
        using var process = Process.Start(StartInfo("--data", data, "--port", "0", "--ends-with-input"))!;
        while (file is not null && !process.HasExited && Directory.GetFiles(data, file, SearchOption.AllDirectories).Length == 0)
            await Task.Yield();
        process.Kill(entireProcessTree: true);
        await process.WaitForExitAsync();
    }

    /// <summary>Runs the service with arguments that it should refuse.</summary>
    public static async Task<(int ExitCode, string Said)> Refused(params string[] arguments)
    {
        using var process = Process.Start(StartInfo(arguments))!;
        process.StandardInput.Close();
        var said = await process.StandardError.ReadToEndAsync().WaitAsync(Patience);
        await process.WaitForExitAsync();
        return (process.ExitCode, said);
    }

    /// <summary>Runs the service's program on something that comes to an end.</summary>
    public static async Task<(int ExitCode, string Said, string Complained)> RunToEnd(params string[] arguments)
    {
        using var process = Process.Start(StartInfo(arguments))!;
        process.StandardInput.Close();
        var (said, complained) = (process.StandardOutput.ReadToEndAsync(), process.StandardError.ReadToEndAsync());
        await process.WaitForExitAsync().WaitAsync(Patience);
        return (process.ExitCode, await said, (await complained).Trim());
    }

    public override async Task<int> Terminate()
    {
        using var kill = Process.Start("kill", ["-TERM", $"{process.Id}"]);
        await process.WaitForExitAsync().WaitAsync(Patience);
        return process.ExitCode;
    }

    /// <summary>Ends the process as a power cut would.</summary>
    public async Task Kill()
    {
        process.Kill(entireProcessTree: true);
        await process.WaitForExitAsync();
    }

    /// <summary>The most memory that the service itself took so far, in MB.</summary>
    public int HighestMemory => HighestMemoryOf(process.Id);

    /// <summary>What the kernel says of its reading processes: the lines of <c>/proc/…/status</c> of each, by their names.</summary>
    public IEnumerable<Dictionary<string, string>> StatusOfReaders => Readers.Select(id => File.ReadLines($"/proc/{id}/status").ToDictionary(line => line[..line.IndexOf(':', StringComparison.Ordinal)], line => line[(line.IndexOf(':', StringComparison.Ordinal) + 1)..].Trim()));

    /// <summary>The same for each of its reading processes that live.</summary>
    public IEnumerable<int> HighestMemoryOfReaders => Readers.Select(HighestMemoryOf);

    /// <summary>The processor time that the service itself took so far.</summary>
    public TimeSpan ProcessorTime => ProcessorTimeOf(process.Id);

    /// <summary>The same for all its reading processes that live.</summary>
    public TimeSpan ProcessorTimeOfReaders => Readers.Aggregate(TimeSpan.Zero, (sum, id) => sum + ProcessorTimeOf(id));

    private IEnumerable<int> Readers => Directory.GetDirectories($"/proc/{process.Id}/task")
        .SelectMany(thread => File.ReadAllText(Path.Combine(thread, "children")).Split(' ', StringSplitOptions.RemoveEmptyEntries))
        .Select(id => int.Parse(id, CultureInfo.InvariantCulture));

    private static TimeSpan ProcessorTimeOf(int id)
    {
        using var process = Process.GetProcessById(id);
        return process.TotalProcessorTime;
    }

    /// <summary>VmHWM, proc(5).</summary>
    private static int HighestMemoryOf(int process) => int.Parse(File.ReadLines($"/proc/{process}/status").First(line => line.StartsWith("VmHWM:", StringComparison.Ordinal))
        .Split(' ', StringSplitOptions.RemoveEmptyEntries)[^2], CultureInfo.InvariantCulture) / 1024;

    private static ProcessStartInfo StartInfo(params string[] arguments)
    {
        var start = new ProcessStartInfo("dotnet")
        {
            RedirectStandardInput = true,
            RedirectStandardOutput = true,
            RedirectStandardError = true,
        };
        start.ArgumentList.Add(Repository.Service);
        foreach (var argument in arguments)
            start.ArgumentList.Add(argument);
        return start;
    }

    public override async ValueTask DisposeAsync()
    {
        if (!process.HasExited)
        {
            process.StandardInput.Close();
            await process.WaitForExitAsync().WaitAsync(Patience);
        }
        process.Dispose();
    }
}
