using System.Collections.Immutable;
using Daxlin.Core.Capture;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Checks;

/// <summary>Captured numbers that stand in no equation, so that nothing says whether they are right.</summary>
internal static class Unproved
{
    /// <summary>All of them by name, in the order of the invoice.</summary>
    public static IEnumerable<(string Name, CapturedValue Value, bool MayPass)> Of(CapturedInvoice invoice, ImmutableArray<Tie> ties)
    {
        var inTies = ties.SelectMany(tie => tie.Members).ToHashSet();
        foreach (var field in invoice.Fields)
        {
            if (IsNumber(field) && !inTies.Contains(field.Name))
                yield return (field.Name, field, invoice.Template.Fields.Any(rule => rule.Name == field.Name && rule.MayBeUntied));
        }
        var allowed = invoice.Template.Blocks.Where(block => block.Columns.Any(column => column.MayBeUntied)).ToList();
        foreach (var (list, rows) in new[] { (BlockRule.Lines, invoice.Lines), (BlockRule.Taxes, invoice.Taxes) })
        {
            foreach (var row in rows)
            {
                foreach (var cell in row.Cells)
                {
                    if (!IsNumber(cell))
                        continue;
                    var name = ValueNames.Of(list, row.Number, cell.Name);
                    if (!inTies.Contains(name))
                        yield return (name, cell, allowed.Exists(block => block.Name == row.Block && block.Columns.Any(rule => rule.Name == cell.Name && rule.MayBeUntied)));
                }
                foreach (var under in row.Under)
                {
                    foreach (var (name, cell) in under.Rows.SelectMany(of => of.Cells.Where(IsNumber).Select(cell => (ValueNames.Under(list, row.Number, under.Name, of.Number, cell.Name), cell))))
                    {
                        if (!inTies.Contains(name))
                            yield return (name, cell, true);
                    }
                }
            }
        }
    }

    private static bool IsNumber(CapturedValue value) =>
        value.Number is not null && value.Kind.IsFigure();

    /// <summary>Says that an invoice is held for such a number: money always is, unless the template lets it pass.</summary>
    public static bool Holds(CapturedValue value, bool mayPass) =>
        !mayPass && (value.Kind == ValueKind.Money || TradeNames.StatedAmounts.Contains(value.Name));
}
