namespace Daxlin.Core.Posting.Layouts;

/// <summary>Why a layout cannot write an invoice.</summary>
/// <param name="Table">Empty if it is of no table.</param>
/// <param name="Column">Empty if it is of no column.</param>
/// <param name="Invoice">The invoice's number in Daxlin.</param>
public sealed record LayoutFault(int Invoice, string Table, string Column, string Message)
{
    public override string ToString() =>
        $"Invoice {Invoice}" + (Table.Length == 0 ? "" : $", table “{Table}”") + (Column.Length == 0 ? "" : $", column “{Column}”") + $": {Message}";
}
