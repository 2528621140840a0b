using System.CommandLine;
using System.Text.Json.Nodes;

namespace Daxlin.Cli.Commands;

/// <summary>Shows Daxlin on the made-up invoices of a made-up ferry company.</summary>
internal static class DemoCommand
{
    private const string BatchName = "Kestrel Sound Ferries, November";

    public static Command Make()
    {
        var once = new Option<bool>("--once") { Description = "Run the whole example, print it, and end." };
        var demo = new Command("demo", "Start a service with the demo's invoices taken in.") { once, ServeCommand.Port, ServeCommand.Data };
        demo.SetAction(async (parsed, cancel) =>
        {
            var scratch = parsed.GetValue(ServeCommand.Data) is null ? Directory.CreateTempSubdirectory("daxlin-demo-").FullName : null;
            try
            {
                return await Run(
                    parsed.GetValue(once), parsed.GetValue(ServeCommand.Port), parsed.GetValue(ServeCommand.Data) ?? Path.Combine(scratch!, "data"), scratch, cancel);
            }
            catch (RefusedException refused)
            {
                await Console.Error.WriteLineAsync(refused.Message);
                return refused.ExitCode;
            }
            catch (OperationCanceledException)
            {
                return ExitCodes.Done;
            }
            finally
            {
                // The example that runs once leaves its posting file to look at; a demo that was stopped leaves nothing.
                if (scratch is not null)
                    Directory.Delete(parsed.GetValue(once) ? Path.Combine(scratch, "data") : scratch, recursive: true);
            }
        });
        return demo;
    }

    private static async Task<int> Run(bool once, int? port, string data, string? scratch, CancellationToken cancel)
    {
        var samples = Environment.GetEnvironmentVariable("DAXLIN_SAMPLES") is { Length: > 0 } folder
            ? folder
            : throw new RefusedException("Start this through ./daxlin, which knows where the samples are.");
        using var service = ServiceProcess.Start(["--data", data, "--port", $"{port ?? (once ? 0 : 7380)}", "--without-sign-in"]);
        var line = await service.ReadLine(cancel) ?? throw new RefusedException("The service did not start; its reason stands above.");
        var address = line.Split(' ').First(word => word.StartsWith("http", StringComparison.Ordinal));
        var parsed = new RootCommand { CommandContext.Json, CommandContext.Server, CommandContext.Person }.Parse(["--server", address]);
        using var context = new CommandContext(parsed);

        var templates = Directory.GetFiles(samples, "*.template.json", SearchOption.AllDirectories).Order(StringComparer.Ordinal).ToList();
        foreach (var template in templates)
            await context.Service.PostText("templates", await File.ReadAllTextAsync(template, cancel), cancel);
        Terminal.Line($"{templates.Count} templates saved.");
        // The folders beside the vendors' own are for other pages of the docs.
        await BatchCommands.Add(BatchName, [.. templates.Select(file => Path.GetDirectoryName(file)!).Distinct()], wait: true, context, cancel);
        if (!once)
        {
            if (scratch is not null)
                await Watch(Path.Combine(scratch, "ferry-office"), Path.Combine(samples, "arriving"), context, cancel);
            Terminal.Line();
            Terminal.Line($"Daxlin is at {address} until you press Ctrl+C. Its data is in {data}.");
            Terminal.Line("The demo signs everyone in by itself, with all rights; only this machine reaches it. “./daxlin serve” asks for names and passwords.");
            return await service.Ended(cancel);
        }

        var batch = (await context.Service.Get("batches", cancel))[0]!;
        var invoices = await context.Service.GetAll($"batches/{Shown.Text(batch["id"])}/invoices", cancel);
        var clear = invoices.Where(invoice => Shown.Text(invoice!["state"]) == "clear").ToList();
        foreach (var invoice in clear)
            await context.Service.Decide($"invoices/{Shown.Text(invoice!["id"])}/approval", new JsonObject(), Shown.Number(invoice["revision"]), cancel);
        Terminal.Line();
        Terminal.Line($"{clear.Count} clear invoices approved.");
        return await PostingCommands.Run(
            Shown.Number(batch["id"]), Path.Combine(scratch ?? data, "posting-run-1.csv"), context, cancel);
    }

    /// <summary>A folder that is looked at, with some that have just come: a message, an archive, and what is no invoice.</summary>
    private static async Task Watch(string folder, string arriving, CommandContext context, CancellationToken cancel)
    {
        Directory.CreateDirectory(folder);
        foreach (var file in Directory.GetFiles(arriving))
            File.Copy(file, Path.Combine(folder, Path.GetFileName(file)));
        await context.Service.PostText("sources", new JsonObject
        {
            ["name"] = "ferry-office",
            ["batch"] = "Ferry office {day}",
            ["totals"] = new JsonObject { ["cover"] = new JsonArray("cover*.csv") },
            ["folder"] = new JsonObject { ["path"] = folder, ["subfolders"] = true, ["settleSeconds"] = 2 },
        }.ToJsonString(new System.Text.Json.JsonSerializerOptions { WriteIndented = true }), cancel);
        Terminal.Line($"What is put into {folder} is taken in by itself; the page Sources shows what came.");
    }
}
