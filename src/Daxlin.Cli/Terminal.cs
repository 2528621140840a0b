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

    /// <summary>Gives one column of a full table what the others leave over, so that it wraps and they do not.</summary>
    public static void LetWrap(Table table, int column, IEnumerable<IReadOnlyList<string>> rows)
    {
        var taken = 0;
        for (var other = 0; other < table.Columns.Count; other++)
        {
            // Beside its text a column takes its padding and the blanks between columns.
            if (other != column)
                taken += rows.Max(row => row[other].Length) + 2;
        }
        var widest = rows.Max(row => row[column].Length);
        table.Columns[column].NoWrap = false;
        table.Columns[column].Width = Math.Clamp(Out.Profile.Width - taken - 4, 12, Math.Max(12, widest));
        foreach (var row in rows.Skip(1))
            table.AddRow(row.Select(cell => new Text(cell)));
    }

    /// <summary>A text set in from the left, with all of its lines where it wraps.</summary>
    public static void Indented(int by, string text) => Out.Write(new Padder(new Text(text), new Padding(by, 0, 0, 0)));

    public static void Line(string text = "") => Out.WriteLine(text);
}
