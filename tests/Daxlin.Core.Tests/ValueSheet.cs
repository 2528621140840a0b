using System.Collections.Immutable;
using System.Globalization;
using Daxlin.Core.Capture;
using Daxlin.Core.Electronic;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;
using Daxlin.Testing;

namespace Daxlin.Core.Tests;

/// <summary>The values of an invoice in one line of a test, as its pages or an electronic invoice state them.</summary>
/// <example><c>subtotal=100.00 total=120.00; row quantity=2 unitPrice=50.00 amount=100.00; tax rate=20 amount=20.00</c></example>
internal static class ValueSheet
{
    private static readonly string[] Settled = ["invoiceNumber=MU-1", "invoiceDate=2026-03-14"];

    /// <summary>As captured; number and date are there unless the sheet says others, or <c>invoiceNumber=</c> that there is none.</summary>
    public static CapturedInvoice Captured(string sheet, bool isCreditNote = false, Template? template = null)
    {
        CapturedValue Value((string Name, ValueKind Kind, string Text, decimal? Number) one) => new(one.Name, one.Kind, one.Text, one.Number, new Trace([], "made up", one.Text, 1));
        CapturedLine Line(string block, string part, int at) => new(block, at + 1, [.. ValuesOf(part).Select(Value)]);
        return new CapturedInvoice(
            template ?? MadeUpInvoice.Template, isCreditNote, [.. HeaderOf(sheet).Select(Value)], [.. PartsOf(sheet, "row").Select((part, at) => Line("goods", part, at))],
            [.. PartsOf(sheet, "tax").Select((part, at) => Line("taxes", part, at))], [], [], [], []);
    }

    /// <summary>As stated by an electronic invoice.</summary>
    public static ElectronicInvoice Stated(string sheet, bool isCreditNote = false)
    {
        StatedRow Row(string part) => new([.. ValuesOf(part).Select(one => new StatedValue(one.Name, one.Kind, one.Text, one.Number, "", -1))]);
        return new ElectronicInvoice(
            ElectronicSyntax.Ubl, isCreditNote, [.. HeaderOf(sheet).Select(one => new StatedValue(one.Name, one.Kind, one.Text, one.Number, "", -1))],
            [.. PartsOf(sheet, "row").Select(Row)], [.. PartsOf(sheet, "tax").Select(Row)], []);
    }

    /// <summary>The blocks of a file in Sheets, parted by empty lines; lines that begin with <c>#</c> are remarks.</summary>
    public static IEnumerable<string> BlocksOf(string file) => File.ReadAllText(Path.Combine(Repository.Root, "tests", "Daxlin.Core.Tests", "Sheets", file))
        .Split("\n\n").Select(block => string.Join('\n', block.Split('\n').Where(line => line.Length > 0 && !line.StartsWith('#')))).Where(block => block.Length > 0);

    private static IEnumerable<string> PartsOf(string sheet, string word) => sheet.Split(';', StringSplitOptions.TrimEntries).Where(part => part.StartsWith(word + " ", StringComparison.Ordinal)).Select(part => part[(word.Length + 1)..]);

    private static IEnumerable<(string Name, ValueKind Kind, string Text, decimal? Number)> HeaderOf(string sheet)
    {
        var head = sheet.Split(';')[0];
        return ValuesOf(string.Join(' ', Settled.Where(one => !head.Contains(one[..(one.IndexOf('=', StringComparison.Ordinal) + 1)], StringComparison.Ordinal)).Append(head)));
    }

    /// <summary>A blank within a value is written as <c>_</c>.</summary>
    private static IEnumerable<(string Name, ValueKind Kind, string Text, decimal? Number)> ValuesOf(string part)
    {
        foreach (var pair in part.Split(' ', StringSplitOptions.RemoveEmptyEntries).Select(pair => pair.Split('=')).Where(pair => pair[1].Length > 0))
        {
            var kind = pair[0] is "deposit" or "balance" or "fee" or "surcharge" or "taxedSum" ? ValueKind.Money
                : pair[0] is "weight" or "gross" or "pallets" or "weightOfAll" ? ValueKind.Number : TradeNames.KindOf(pair[0]);
            yield return (pair[0], kind, pair[1].Replace('_', ' '), kind.IsFigure() ? decimal.Parse(pair[1], CultureInfo.InvariantCulture) : null);
        }
    }
}
