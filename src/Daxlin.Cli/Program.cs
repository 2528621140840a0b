using System.CommandLine;
using Daxlin.Cli;
using Daxlin.Cli.Commands;

var root = new RootCommand("Daxlin captures vendor invoices, recalculates them, and posts what adds up.");
root.Options.Add(CommandContext.Json);
root.Options.Add(CommandContext.Server);
root.Subcommands.Add(DemoCommand.Make());
root.Subcommands.Add(ServeCommand.Make());
root.Subcommands.Add(CheckCommand.Make());
root.Subcommands.Add(TemplateCommands.Make());
root.Subcommands.Add(DocumentCommands.Make());
root.Subcommands.Add(BatchCommands.Make());
root.Subcommands.Add(InvoiceCommands.Make());
root.Subcommands.Add(PostingCommands.Make());
Console.OutputEncoding = System.Text.Encoding.UTF8;
var parsed = root.Parse(args);
var exit = await parsed.InvokeAsync(new InvocationConfiguration { ProcessTerminationTimeout = TimeSpan.FromSeconds(5) });
return parsed.Errors.Count > 0 ? ExitCodes.WrongUsage : exit;
