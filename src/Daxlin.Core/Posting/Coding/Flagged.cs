using System.Collections.Immutable;
using System.Globalization;
using Daxlin.Core.Capture;
using Daxlin.Core.Checks;
using Daxlin.Core.Posting.Expressions;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Posting.Coding;

/// <summary>What the flags of the coding rules say of an invoice, with the values that they looked at.</summary>
/// <example>More than was ordered: row 2 (quantity 12, ordered quantity 10); row 5 (quantity 4, ordered quantity 3).</example>
public static class Flagged
{
    public const string Code = "flagged";

    /// <summary>Rows told with their values; more are counted.</summary>
    private const int MostTold = 5;

    /// <param name="invoice">As rules look at it.</param>
    /// <param name="faults">What cannot be worked out for the invoice.</param>
    public static ImmutableArray<Finding> Of(ApprovedInvoice invoice, CodingRules rules, TranslationLists lists, out ImmutableArray<string> faults)
    {
        var (findings, failed) = (ImmutableArray.CreateBuilder<Finding>(), new List<string>());
        foreach (var flag in rules.Flags)
        {
            var rows = (flag.OfInvoice ? [(0, PostingColumns.HeaderOf(invoice))] : InvoiceCoding.RecordsOf(invoice))
                .Where(row => InvoiceCoding.Worked(flag.When, ExpressionScope.Of(row.Item2, lists), $"the flag “{flag.Says}”", row.Item1, failed) is true).ToList();
            if (rows.Count > 0)
                findings.Add(FindingOf(flag, rows, invoice.Currency));
        }
        faults = [.. failed.Distinct()];
        return findings.DrainToImmutable();
    }

    private static Finding FindingOf(CodingFlag flag, List<(int Line, PostingRecord Record)> rows, string currency)
    {
        var names = flag.When.Names.Distinct().ToList();
        var told = rows.Take(MostTold).Select(row => Told(row.Line, string.Join(", ", names.Where(name => row.Record[name].Length > 0).Select(name => Shown(name, row.Record[name], currency)))));
        var more = rows.Count > MostTold ? string.Create(CultureInfo.InvariantCulture, $"; and {rows.Count - MostTold} more rows") : "";
        return new Finding(
            Code, flag.Holds ? Severity.Hold : Severity.Note, $"{char.ToUpperInvariant(flag.Says[0])}{flag.Says[1..].TrimEnd('.')}: {string.Join("; ", told)}{more}.",
            [.. from row in rows from name in names where row.Record[name].Length > 0 select row.Line > 0 && !TradeNames.Fields.Contains(name) ? ValueNames.Of(BlockRule.Lines, row.Line, name) : name]);
    }

    private static string Told(int line, string values) => line == 0 ? values
        : string.Create(CultureInfo.InvariantCulture, $"row {line}") + (values.Length == 0 ? "" : $" ({values})");

    /// <summary>Money never without its currency.</summary>
    private static string Shown(string name, string value, string currency) => $"{TradeNames.Spoken(name)} " + TradeNames.KindOf(name) switch
    {
        ValueKind.Money when ExpressionType.Number.Read(value) is decimal amount && Currency.Find(currency) is { } known => known.Show(amount),
        ValueKind.Money or ValueKind.Price => $"{value} {currency}",
        _ => value,
    };
}
