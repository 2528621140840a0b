using System.Collections.Immutable;
using Daxlin.Core.Capture;

namespace Daxlin.Core.Corrections;

/// <summary>What stands on one invoice after persons had their say, as far as it may be the template's fault.</summary>
/// <param name="Invoice">Its number.</param>
/// <param name="Values">All its values, and those that a person took away.</param>
/// <param name="Struck">Rows that are none: the block, and where the first value of each is printed.</param>
/// <param name="PassedAmounts">Names of amounts that no sum holds and a person let pass.</param>
public sealed record SaidOfInvoice(
    int Invoice, ImmutableArray<SaidValue> Values, ImmutableArray<(string Block, PlaceOnPage Place)> Struck, ImmutableArray<string> PassedAmounts)
{
    /// <summary>
    /// Values that the template captured otherwise than they are, or not at all. Those of a row of which nothing was captured are
    /// none: a person made it.
    /// </summary>
    public IEnumerable<SaidValue> Mended
    {
        get
        {
            var made = Values.Where(value => RowOf(value.Name).Length > 0).GroupBy(value => RowOf(value.Name))
                .Where(row => row.All(value => value.Captured.Length == 0)).Select(row => row.Key).ToHashSet();
            return Values.Where(value => value.Value.Length > 0 && value.Value != value.Captured && !made.Contains(RowOf(value.Name)));
        }
    }

    private static string RowOf(string name) => ValueNames.Parse(name) is ({ } list, var row, _) ? ValueNames.Row(list, row) : "";
}

/// <param name="Name"><c>total</c> or <c>lines[3].amount</c>.</param>
/// <param name="Value">In its settled form; empty if a person said that there is none.</param>
/// <param name="Captured">What was captured; empty for nothing.</param>
/// <param name="Place">Where it was pointed at; null if it was not.</param>
public sealed record SaidValue(string Name, string Value, string Captured, PlaceOnPage? Place);
