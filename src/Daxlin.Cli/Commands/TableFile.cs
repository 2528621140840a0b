using System.CommandLine;
using System.Text.Json.Nodes;

namespace Daxlin.Cli.Commands;

/// <summary>A table of the service as a file for a spreadsheet: the file's name says in which form.</summary>
internal static class TableFile
{
    public static Option<string> Out { get; } = new("--out") { Description = "The file to write: .csv, .tsv or .xlsx.", HelpName = "FILE", Required = true };

    /// <param name="what">What the table holds, as a sentence begins.</param>
    public static async Task<int> Write(string path, string what, string file, CommandContext context, CancellationToken cancel)
    {
        var form = Path.GetExtension(file).ToLowerInvariant() switch { ".tsv" => "tsv", ".xlsx" => "xlsx", _ => "csv" };
        var bytes = await context.Service.Download($"{path}{(path.Contains('?', StringComparison.Ordinal) ? '&' : '?')}as={form}", cancel);
        await File.WriteAllBytesAsync(file, bytes, cancel);
        context.Print(new JsonObject { ["file"] = file }, () => Terminal.Line($"{what} written to {file}"));
        return ExitCodes.Done;
    }
}
