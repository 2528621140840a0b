using System.Collections.Concurrent;
using System.Diagnostics;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;

namespace Daxlin.Testing;

/// <summary>A service of its own process and data folder, on a loopback port of its own.</summary>
public sealed class ServiceUnderTest : IAsyncDisposable
{
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(60);
    private readonly Process process;

    private ServiceUnderTest(Process process, string address, string data)
    {
        (this.process, Address, Data) = (process, address, data);
        Http = new HttpClient { BaseAddress = new Uri(address + "/api/v1/"), Timeout = Patience };
    }

    public string Address { get; }
    public string Data { get; }
    public HttpClient Http { get; }

    /// <param name="data">The folder of an earlier service, or null for a new one.</param>
    /// <param name="samples">The folder of made-up invoices that it may offer, or null for none.</param>
    /// <param name="port">0 for any that is free.</param>
    /// <param name="signsIn">Says that people have to sign in; else everyone may do everything, as at one desk.</param>
    /// <param name="arguments">What else it is told.</param>
    public static async Task<ServiceUnderTest> Start(string? data = null, string? samples = null, int port = 0, bool signsIn = false, params string[] arguments)
    {
        data ??= Directory.CreateTempSubdirectory("daxlin-test-").FullName;
        string[] more = [.. samples is null ? Array.Empty<string>() : ["--samples", samples], .. signsIn ? Array.Empty<string>() : ["--without-sign-in"], .. arguments];
        var process = Process.Start(StartInfo(["--data", data, "--port", port.ToString(System.Globalization.CultureInfo.InvariantCulture), "--ends-with-input", .. more]))!;
        var line = await process.StandardOutput.ReadLineAsync().WaitAsync(Patience)
            ?? throw new InvalidOperationException($"The service did not start: {await process.StandardError.ReadToEndAsync()}");
        return new ServiceUnderTest(process, line.Split(' ').First(word => word.StartsWith("http", StringComparison.Ordinal)), data);
    }

    /// <summary>The next one-time link that the service prints, without what stands before its “#”.</summary>
    public async Task<string> PrintedLink()
    {
        while (await process.StandardOutput.ReadLineAsync().WaitAsync(Patience) is { } line)
        {
            if (line.Contains("/welcome#", StringComparison.Ordinal))
                return line[(line.IndexOf('#', StringComparison.Ordinal) + 1)..].Trim();
        }
        throw new InvalidOperationException("The service printed no link.");
    }

    /// <summary>Folders of services that did some work, by its name.</summary>
    private static readonly ConcurrentDictionary<string, Lazy<Task<string>>> Worked = new(StringComparer.Ordinal);

    /// <summary>
    /// A service that some work was done with already: once, for all tests that begin with it. Each goes on in a folder of its own, as if
    /// the service had been stopped and started in between.
    /// </summary>
    /// <param name="work">Its name; what has the same name is done once.</param>
    public static async Task<ServiceUnderTest> StartAfter(string work, Func<ServiceUnderTest, Task> doWork)
    {
        var (worked, data) = (await Worked.GetOrAdd(work, _ => new(() => FolderAfter(doWork))).Value, Directory.CreateTempSubdirectory("daxlin-test-").FullName);
        foreach (var folder in Directory.GetDirectories(worked, "*", SearchOption.AllDirectories))
            Directory.CreateDirectory(Path.Combine(data, Path.GetRelativePath(worked, folder)));
        foreach (var file in Directory.GetFiles(worked, "*", SearchOption.AllDirectories))
            File.Copy(file, Path.Combine(data, Path.GetRelativePath(worked, file)));
        return await Start(data);
    }

    /// <summary>A service with the demo's templates, and one batch of all invoices of some of its vendors, captured.</summary>
    public static async Task<(ServiceUnderTest Service, int Batch)> StartWith(params string[] vendors)
    {
        var service = await StartAfter($"all of {string.Join(' ', vendors)}", async service =>
        {
            await service.SaveTemplates(Repository.Samples);
            var batch = await service.OpenBatch("November");
            foreach (var vendor in vendors)
                await service.Upload(batch, Repository.SampleInvoices(vendor));
            await service.UntilDone(batch);
        });
        return (service, await service.FirstBatch());
    }

    private static async Task<string> FolderAfter(Func<ServiceUnderTest, Task> doWork)
    {
        var service = await Start();
        AppDomain.CurrentDomain.ProcessExit += (_, _) => Directory.Delete(service.Data, recursive: true);
        await doWork(service);
        await service.Terminate();
        return service.Data;
    }

    /// <summary>The batch that was opened first.</summary>
    public async Task<int> FirstBatch() => (int)(await Get("batches"))!.AsArray().Min(batch => (int)batch!["id"]!);

    /// <summary>Starts a service and kills it once a file stands in its folder, or at once for none.</summary>
    public static async Task KillWhileStarting(string data, string? file)
    {
        using var process = Process.Start(StartInfo("--data", data, "--port", "0", "--ends-with-input"))!;
        while (file is not null && !process.HasExited && Directory.GetFiles(data, file, SearchOption.AllDirectories).Length == 0)
            await Task.Yield();
        process.Kill(entireProcessTree: true);
        await process.WaitForExitAsync();
    }

    /// <summary>Asks the service to stop, as a system that shuts down does.</summary>
    /// <returns>Its exit code.</returns>
    public async Task<int> Terminate()
    {
        using var kill = Process.Start("kill", ["-TERM", $"{process.Id}"]);
        using var patience = new CancellationTokenSource(Patience);
        await process.WaitForExitAsync(patience.Token);
        return process.ExitCode;
    }

    /// <summary>The most memory that the service itself took so far, in MB.</summary>
    public int HighestMemory => HighestMemoryOf(process.Id);

    /// <summary>The same for each of its reading processes that live.</summary>
    public IEnumerable<int> HighestMemoryOfReaders => Readers.Select(HighestMemoryOf);

    /// <summary>The processor time that the service itself took so far.</summary>
    public TimeSpan ProcessorTime => ProcessorTimeOf(process.Id);

    /// <summary>The same for all its reading processes that live.</summary>
    public TimeSpan ProcessorTimeOfReaders => Readers.Aggregate(TimeSpan.Zero, (sum, id) => sum + ProcessorTimeOf(id));

    private IEnumerable<int> Readers => Directory.GetDirectories($"/proc/{process.Id}/task")
        .SelectMany(thread => File.ReadAllText(Path.Combine(thread, "children")).Split(' ', StringSplitOptions.RemoveEmptyEntries))
        .Select(id => int.Parse(id, System.Globalization.CultureInfo.InvariantCulture));

    private static TimeSpan ProcessorTimeOf(int id)
    {
        using var process = Process.GetProcessById(id);
        return process.TotalProcessorTime;
    }

    /// <summary>VmHWM, proc(5).</summary>
    private static int HighestMemoryOf(int process) => int.Parse(File.ReadLines($"/proc/{process}/status").First(line => line.StartsWith("VmHWM:", StringComparison.Ordinal))
        .Split(' ', StringSplitOptions.RemoveEmptyEntries)[^2], System.Globalization.CultureInfo.InvariantCulture) / 1024;

    /// <summary>Runs the service with arguments that it should refuse.</summary>
    public static async Task<(int ExitCode, string Said)> Refused(params string[] arguments)
    {
        using var process = Process.Start(StartInfo(arguments))!;
        process.StandardInput.Close();
        var said = await process.StandardError.ReadToEndAsync().WaitAsync(Patience);
        await process.WaitForExitAsync();
        return (process.ExitCode, said);
    }

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

    /// <summary>Ends the process as a power cut would.</summary>
    public async Task Kill()
    {
        process.Kill(entireProcessTree: true);
        await process.WaitForExitAsync();
    }

    public async Task<JsonNode> Get(string path) => JsonNode.Parse(await Http.GetStringAsync(path))!;

    /// <summary>A whole list, part after part.</summary>
    public async Task<List<JsonNode>> All(string path)
    {
        var all = new List<JsonNode>();
        for (var next = path; next is not null;)
        {
            using var answer = await Http.GetAsync(next);
            all.AddRange(JsonNode.Parse(await answer.EnsureSuccessStatusCode().Content.ReadAsStringAsync())!.AsArray().Select(node => node!));
            next = answer.Headers.TryGetValues("Link", out var links) && links.FirstOrDefault(link => link.Contains("rel=\"next\"", StringComparison.Ordinal)) is { } link
                ? link[(link.IndexOf('<', StringComparison.Ordinal) + 1)..link.IndexOf('>', StringComparison.Ordinal)] : null;
        }
        return all;
    }

    public async Task<(int Status, JsonNode Body)> Post(string path, JsonNode body)
    {
        using var answer = await Http.PostAsJsonAsync(path, body);
        return ((int)answer.StatusCode, JsonNode.Parse(await answer.Content.ReadAsStringAsync())!);
    }

    /// <summary>Decides on an invoice as it is at the moment: approval or set-aside.</summary>
    public async Task<(int Status, JsonNode Body)> Decide(JsonNode? invoice, string act, JsonObject? body = null) =>
        await Decide(invoice, act, (int)(await Get($"invoices/{invoice}"))["revision"]!, body);

    /// <param name="revision">The revision that was shown.</param>
    public async Task<(int Status, JsonNode Body)> Decide(JsonNode? invoice, string act, int revision, JsonObject? body = null)
    {
        using var request = new HttpRequestMessage(HttpMethod.Post, $"invoices/{invoice}/{act}") { Content = JsonContent.Create(body ?? []) };
        request.Headers.Add("If-Match", $"\"{revision}\"");
        using var answer = await Http.SendAsync(request);
        return ((int)answer.StatusCode, JsonNode.Parse(await answer.Content.ReadAsStringAsync())!);
    }

    public Task<(int Status, JsonNode Body)> PostAll() => Post("posting-runs", new JsonObject { ["allBatches"] = true });

    public async Task<(int Status, JsonNode Body)> SaveTemplate(string document)
    {
        using var answer = await Http.PostAsync("templates", new StringContent(document, Encoding.UTF8, "application/json"));
        return ((int)answer.StatusCode, JsonNode.Parse(await answer.Content.ReadAsStringAsync())!);
    }

    /// <summary>Saves all templates below a folder.</summary>
    public async Task SaveTemplates(string folder)
    {
        foreach (var file in Directory.GetFiles(folder, "*.template.json", SearchOption.AllDirectories))
        {
            var (status, body) = await SaveTemplate(await File.ReadAllTextAsync(file));
            if (status is not (200 or 201))
                throw new InvalidOperationException($"{file}: {body.ToJsonString()}");
        }
    }

    public async Task<int> OpenBatch(string name) => (await Post("batches", new JsonObject { ["name"] = name })).Body["id"]!.GetValue<int>();

    public async Task<JsonArray> Upload(int batch, params IEnumerable<(string Name, byte[] Bytes)> files)
    {
        using var form = new MultipartFormDataContent();
        foreach (var (name, bytes) in files)
            form.Add(new ByteArrayContent(bytes), "files", name);
        using var answer = await Http.PostAsync($"batches/{batch}/documents", form);
        return JsonNode.Parse(await answer.Content.ReadAsStringAsync())!.AsArray();
    }

    /// <summary>Follows the batch's events until nothing of it waits.</summary>
    public async Task<JsonNode> UntilDone(int batch)
    {
        using var reader = new StreamReader(await Http.GetStreamAsync($"batches/{batch}/events"));
        JsonNode? last = null;
        while (await reader.ReadLineAsync().WaitAsync(Patience) is { } line)
        {
            if (line.StartsWith("data: ", StringComparison.Ordinal))
                last = JsonNode.Parse(line[6..]);
        }
        return last ?? throw new InvalidOperationException("The batch had no events.");
    }

    public Task<List<JsonNode>> Invoices(int batch) => All($"batches/{batch}/invoices");

    public async ValueTask DisposeAsync()
    {
        Http.Dispose();
        if (!process.HasExited)
        {
            process.StandardInput.Close();
            using var patience = new CancellationTokenSource(Patience);
            await process.WaitForExitAsync(patience.Token);
        }
        process.Dispose();
        if (Directory.Exists(Data))
            Directory.Delete(Data, recursive: true);
    }
}
