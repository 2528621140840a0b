using System.Collections.Immutable;
using System.Globalization;
using Daxlin.Core.Capture;
using Daxlin.Core.Checks;
using Daxlin.Core.Posting.Expressions;
using Daxlin.Core.Posting.Layouts;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Posting.Coding;

/// <summary>Lines without a code that the ledger needs, by the coding rules or by a layout that would write nothing in its place.</summary>
/// <example>Rows 2, 3 and 7 (68.02 EUR) have no account: the layout “ledger-lines” writes it as “Account”. Code them here, or by a rule.</example>
public static class Uncoded
{
    public const string Code = "uncoded";

    /// <summary>Rows named in a sentence; more are counted.</summary>
    private const int MostNamed = 8;

    /// <param name="invoice">With its coding.</param>
    /// <param name="layouts">Those in use.</param>
    public static IEnumerable<Finding> Of(ApprovedInvoice invoice, CodingRules rules, IEnumerable<PostingLayout> layouts, TranslationLists lists)
    {
        var wanting = layouts.Select(layout => (Layout: layout, Columns: ColumnsOf(layout).ToList())).Where(one => one.Columns.Count > 0 && Takes(one.Layout, invoice, lists)).ToList();
        foreach (var name in CodeNames.All)
        {
            var missing = invoice.Coding.Where(line => line.Parts.Any(part => part[name].Length == 0)).Select(line => line.Line).ToList();
            if (missing.Count == 0)
                continue;
            if (rules.Needs.Contains(name))
                yield return FindingOf(invoice, name, missing, "the coding rules say that every line needs one");
            else if (wanting.Select(one => Wanted(one.Layout, one.Columns)).FirstOrDefault(finding => finding is not null) is { } finding)
                yield return finding;

            Finding? Wanted(PostingLayout layout, List<LayoutColumn> columns) => columns.Where(column => column.Value.Names.Contains(name))
                .Select(column => (column.Heading, Empty: missing.Intersect(EmptyOf(column, invoice, lists)).ToList()))
                .Where(column => column.Empty.Count > 0)
                .Select(column => FindingOf(invoice, name, column.Empty, $"the layout “{layout.Name}” writes it as “{column.Heading}”"))
                .FirstOrDefault();
        }
    }

    private static IEnumerable<LayoutColumn> ColumnsOf(PostingLayout layout) => layout.Tables
        .Where(table => table.Records is LayoutRecords.Lines or LayoutRecords.Journal)
        .SelectMany(table => table.Columns).Where(column => column.Value.Names.Intersect(CodeNames.All).Any());

    /// <summary>A condition on what is not known before approval leaves it open; the run itself asks again.</summary>
    private static bool Takes(PostingLayout layout, ApprovedInvoice invoice, TranslationLists lists) =>
        layout.Invoices is null || Worked(layout.Invoices, PostingColumns.HeaderOf(invoice), lists) is true;

    /// <summary>The lines of which a column writes nothing; one that may be empty says so by <c>otherwise ''</c>.</summary>
    private static IEnumerable<int> EmptyOf(LayoutColumn column, ApprovedInvoice invoice, TranslationLists lists) => PostingColumns.RowsOf(invoice)
        .Where(row => Worked(column.Value, row, lists) is null)
        .Select(row => row[PostingColumns.Line] is { Length: > 0 } line ? int.Parse(line, CultureInfo.InvariantCulture) : 0).Distinct();

    private static object? Worked(Expression expression, PostingRecord record, TranslationLists lists)
    {
        try
        {
            return expression.Of(ExpressionScope.Of(record, lists));
        }
        catch (EvaluationException)
        {
            return null;
        }
    }

    private static Finding FindingOf(ApprovedInvoice invoice, string name, List<int> lines, string why)
    {
        var amount = invoice.Coding.Where(line => lines.Contains(line.Line)).SelectMany(line => line.Parts).Sum(part => part.Amount);
        var shown = Currency.Find(invoice.Currency)?.Show(amount) ?? ExpressionTypes.Settled(amount);
        var numbers = lines.Select(line => line.ToString(CultureInfo.InvariantCulture)).ToList();
        var which = lines is [0] ? "The invoice has no rows, and as a whole"
            : numbers.Count == 1 ? $"Row {numbers[0]}"
            : numbers.Count <= MostNamed ? $"Rows {string.Join(", ", numbers[..^1])} and {numbers[^1]}"
            : $"Rows {string.Join(", ", numbers[..MostNamed])} and {numbers.Count - MostNamed} more";
        return Finding.Hold(
            Code, $"{which} ({shown}) {(numbers.Count == 1 ? "has" : "have")} no {TradeNames.Spoken(name)}: {why}. Code {(numbers.Count == 1 ? "it" : "them")} here, or by a rule.",
            [.. lines.Where(line => line > 0).Select(line => ValueNames.Of(BlockRule.Lines, line, name))]);
    }
}
