using Spectre.Console;

namespace Daxlin.Cli;

/// <summary>Where commands print: tables of at most 100 columns, plain text when piped.</summary>
internal static class Terminal
{
    private const int Widest = 100;

    public static IAnsiConsole Out { get; } = Make(Console.Out, Console.IsOutputRedirected);
    public static IAnsiConsole Error { get; } = Make(Console.Error, Console.IsErrorRedirected);

    /// <summary>Says that a person is watching, so that progress is worth showing.</summary>
    public static bool IsWatched => !Console.IsErrorRedirected && !Console.IsOutputRedirected;

    private static IAnsiConsole Make(TextWriter writer, bool piped)
    {
        var console = AnsiConsole.Create(new AnsiConsoleSettings
        {
            Out = new AnsiConsoleOutput(writer),
            Ansi = piped ? AnsiSupport.No : AnsiSupport.Detect,
            Interactive = piped ? InteractionSupport.No : InteractionSupport.Detect,
        });
        console.Profile.Width = piped ? Widest : Math.Min(Widest, Math.Max(60, console.Profile.Width));
        console.Profile.Capabilities.Unicode = true;
        return console;
    }

    /// <summary>A table with no lines but one under its headings.</summary>
    public static Table NewTable(params ReadOnlySpan<(string Heading, bool IsFigure)> columns)
    {
        var table = new Table { Border = TableBorder.Simple, ShowRowSeparators = false };
        foreach (var (heading, isFigure) in columns)
        {
            var column = new TableColumn(new Text(heading)) { Padding = new Padding(0, 0, 1, 0), NoWrap = true };
            table.AddColumn(isFigure ? column.RightAligned() : column);
        }
        return table;
    }

    public static void Line(string text = "") => Out.WriteLine(text);
}
