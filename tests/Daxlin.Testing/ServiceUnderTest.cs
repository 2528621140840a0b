using System.Collections.Concurrent;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;

namespace Daxlin.Testing;

/// <summary>A service with a data folder of its own, on a loopback port of its own.</summary>
public sealed class ServiceUnderTest : IAsyncDisposable
{
    private readonly ServiceRun run;

    private ServiceUnderTest(ServiceRun run, string data)
    {
        (this.run, Data) = (run, data);
        Http = new HttpClient { BaseAddress = new Uri(Address + "/api/v1/"), Timeout = ServiceRun.Patience };
    }

    public string Address => run.Address;
    public string Data { get; }
    public HttpClient Http { get; }

    /// <param name="data">The folder of an earlier service, or null for a new one.</param>
    /// <param name="samples">The folder of made-up invoices that it may offer, or null for none.</param>
    /// <param name="port">0 for any that is free.</param>
    /// <param name="signsIn">Says that people have to sign in; else everyone may do everything, as at one desk.</param>
    /// <param name="apart">Says that it is a process of its own, which can be killed and measured.</param>
    /// <param name="isOwnStore">Says that it stores where its arguments say, or in its folder, whatever tests are told to store in.</param>
    /// <param name="core">The only processor that it may use, of one apart; null for all.</param>
    /// <param name="arguments">What else it is told.</param>
    public static async Task<ServiceUnderTest> Start(string? data = null, string? samples = null, int port = 0, bool signsIn = false, bool apart = false, bool isOwnStore = false, int? core = null, params string[] arguments)
    {
        data ??= Directory.CreateTempSubdirectory("daxlin-test-").FullName;
        string[] all = ["--data", data, "--port", port.ToString(System.Globalization.CultureInfo.InvariantCulture), .. samples is null ? Array.Empty<string>() : ["--samples", samples], .. signsIn ? Array.Empty<string>() : ["--without-sign-in"], .. isOwnStore || arguments.Contains("--store") ? [] : await StoreUnderTest.Arguments(data), .. arguments];
        return new ServiceUnderTest(apart ? await ServiceProcess.Start(all, core) : await ServiceWithin.Start(all), data);
    }

    /// <summary>The next one-time link that the service tells, without what stands before its “#”.</summary>
    public Task<string> PrintedLink() => run.PrintedLink();

    private ServiceProcess Process => run as ServiceProcess ?? throw new InvalidOperationException("Only a service in a process of its own can be killed and measured; start it apart.");

    /// <summary>Folders of services that did some work, by its name.</summary>
    private static readonly ConcurrentDictionary<string, Lazy<Task<string>>> Worked = new(StringComparer.Ordinal);

    /// <summary>
    /// A service that some work was done with already: once, for all tests that begin with it. Each goes on in a folder of its own, as if
    /// the service had been stopped and started in between.
    /// </summary>
    /// <param name="work">Its name; what has the same name is done once.</param>
    public static async Task<ServiceUnderTest> StartAfter(string work, Func<ServiceUnderTest, Task> doWork, bool apart = false)
    {
        var (worked, data) = (await Worked.GetOrAdd(work, _ => new(() => FolderAfter(doWork))).Value, Directory.CreateTempSubdirectory("daxlin-test-").FullName);
        foreach (var folder in Directory.GetDirectories(worked, "*", SearchOption.AllDirectories))
            Directory.CreateDirectory(Path.Combine(data, Path.GetRelativePath(worked, folder)));
        foreach (var file in Directory.GetFiles(worked, "*", SearchOption.AllDirectories))
            File.Copy(file, Path.Combine(data, Path.GetRelativePath(worked, file)));
        await StoreUnderTest.Copy(worked, data);
        return await Start(data, apart: apart);
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

    /// <inheritdoc cref="ServiceProcess.StatusOfReaders"/>
    public IEnumerable<Dictionary<string, string>> StatusOfReaders => Process.StatusOfReaders;

    /// <summary>The batch that was opened first.</summary>
    public async Task<int> FirstBatch() => (int)(await Get("batches"))!.AsArray().Min(batch => (int)batch!["id"]!);

    /// <inheritdoc cref="ServiceProcess.KillWhileStarting"/>
    public static Task KillWhileStarting(string data, string? file) => ServiceProcess.KillWhileStarting(data, file);

    /// <inheritdoc cref="ServiceProcess.RunToEnd"/>
    public static Task<(int ExitCode, string Said, string Complained)> RunToEnd(params string[] arguments) => ServiceProcess.RunToEnd(arguments);

    /// <inheritdoc cref="ServiceProcess.Refused"/>
    public static Task<(int ExitCode, string Said)> Refused(params string[] arguments) => ServiceProcess.Refused(arguments);

    /// <inheritdoc cref="ServiceRun.Terminate"/>
    public Task<int> Terminate() => run.Terminate();

    /// <inheritdoc cref="ServiceProcess.Kill"/>
    public Task Kill() => Process.Kill();

    /// <inheritdoc cref="ServiceProcess.HighestMemory"/>
    public int HighestMemory => Process.HighestMemory;

    /// <inheritdoc cref="ServiceProcess.HighestMemoryOfReaders"/>
    public IEnumerable<int> HighestMemoryOfReaders => Process.HighestMemoryOfReaders;

    /// <inheritdoc cref="ServiceProcess.ProcessorTime"/>
    public TimeSpan ProcessorTime => Process.ProcessorTime;

    /// <inheritdoc cref="ServiceProcess.ProcessorTimeOfReaders"/>
    public TimeSpan ProcessorTimeOfReaders => Process.ProcessorTimeOfReaders;

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
        while (await reader.ReadLineAsync().WaitAsync(ServiceRun.Patience) is { } line)
        {
            if (line.StartsWith("data: ", StringComparison.Ordinal))
                last = JsonNode.Parse(line[6..]);
        }
        return last ?? throw new InvalidOperationException("The batch had no events.");
    }

    /// <summary>Until it says that it is well.</summary>
    public async Task UntilWell()
    {
        for (var patience = System.Diagnostics.Stopwatch.StartNew(); ;)
        {
            using var answer = await Http.GetAsync(new Uri("/health", UriKind.Relative));
            if (answer.IsSuccessStatusCode)
                return;
            if (patience.Elapsed > ServiceRun.Patience)
                throw new InvalidOperationException(await answer.Content.ReadAsStringAsync());
            await Task.Yield();
        }
    }

    public Task<List<JsonNode>> Invoices(int batch) => All($"batches/{batch}/invoices");

    public async ValueTask DisposeAsync()
    {
        Http.Dispose();
        await run.DisposeAsync();
        if (Directory.Exists(Data))
            Directory.Delete(Data, recursive: true);
    }
}
