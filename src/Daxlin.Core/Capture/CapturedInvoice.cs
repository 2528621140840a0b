using System.Collections.Immutable;
using Daxlin.Core.Checks;
using Daxlin.Core.Electronic;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Capture;

/// <summary>Everything that a template took from an invoice's pages.</summary>
/// <param name="IsCreditNote">Says that the vendor owes the amounts to the buyer.</param>
/// <param name="Lines">Item rows in printed order.</param>
/// <param name="Taxes">Rows of the tax summary.</param>
/// <param name="Others">Rows of lists of their own, which no sum counts: a legend, a list of deliveries at the end.</param>
/// <param name="LeftOut">What stands inside the blocks and is no row, so that nothing is lost unseen.</param>
/// <param name="Sums">Sums of the rows above that are printed between the rows.</param>
/// <param name="Findings">What was in doubt while capturing.</param>
public sealed record CapturedInvoice(
    Template Template,
    bool IsCreditNote,
    ImmutableArray<CapturedValue> Fields,
    ImmutableArray<CapturedLine> Lines,
    ImmutableArray<CapturedLine> Taxes,
    ImmutableArray<CapturedLine> Others,
    ImmutableArray<LeftOutLine> LeftOut,
    ImmutableArray<CapturedSum> Sums,
    ImmutableArray<Finding> Findings)
{
    /// <summary>The numbers of the document's pages that it was captured from: without covers and annexes.</summary>
    public ImmutableArray<int> Pages { get; init; } = [];

    /// <summary>The electronic invoices that the document carries, as far as they are for this invoice.</summary>
    public ImmutableArray<ElectronicFile> Electronic { get; init; } = [];

    public CapturedValue? Find(string field)
    {
        foreach (var value in Fields)
        {
            if (value.Name == field)
                return value;
        }
        return null;
    }

    public decimal? Amount(string field) => Find(field)?.Number;

    /// <summary>The rows of a list: <c>lines</c>, <c>taxes</c>, or the name of a block that no sum counts.</summary>
    public IEnumerable<CapturedLine> RowsOf(string list) => list switch
    {
        BlockRule.Lines => Lines,
        BlockRule.Taxes => Taxes,
        _ => Others.Where(line => line.Block == list),
    };

    /// <summary>The row of a list and number; null if there is none.</summary>
    public CapturedLine? Row(string list, int number) => RowsOf(list).FirstOrDefault(line => line.Number == number);

    /// <summary>The value that a name says, <c>total</c> or <c>lines[3].amount</c>; null if there is none.</summary>
    public CapturedValue? Named(string name) => ValueNames.Parse(name) switch
    {
        (null, _, { } field) => Find(field),
        ({ } list, var row, { } column) => Row(list, row)?.Find(column),
        _ => null,
    };

    /// <summary>The invoice with another value in the place of its own, or behind the others of its header or row.</summary>
    /// <param name="name">As for <see cref="Named"/>; the row must be there.</param>
    public CapturedInvoice With(string name, CapturedValue value) => ValueNames.Parse(name) switch
    {
        (BlockRule.Lines, var row, { } column) => this with { Lines = With(Lines, line => line.Number == row, column, value) },
        (BlockRule.Taxes, var row, { } column) => this with { Taxes = With(Taxes, line => line.Number == row, column, value) },
        ({ } list, var row, { } column) => this with { Others = With(Others, line => line.Block == list && line.Number == row, column, value) },
        _ => this with { Fields = Fields.With(name, value) },
    };

    private static ImmutableArray<CapturedLine> With(ImmutableArray<CapturedLine> lines, Predicate<CapturedLine> isRow, string column, CapturedValue value) =>
        lines.FirstOrDefault(line => isRow(line)) is { } line ? lines.Replace(line, line.With(column, value)) : lines;

    /// <summary>Every value at all: those of <see cref="Values"/>, of lists under rows, and of lists of their own.</summary>
    public IEnumerable<(string Name, CapturedValue Value)> AllValues => Values
        .Concat(Lines.SelectMany(line => ValuesUnder(BlockRule.Lines, line)))
        .Concat(Taxes.SelectMany(line => ValuesUnder(BlockRule.Taxes, line)))
        .Concat(Others.SelectMany(line => line.Cells.Select(cell => (ValueNames.Of(line.Block, line.Number, cell.Name), cell)).Concat(ValuesUnder(line.Block, line))));

    private static IEnumerable<(string Name, CapturedValue Value)> ValuesUnder(string list, CapturedLine line) =>
        from under in line.Under from row in under.Rows from cell in row.Cells select (ValueNames.Under(list, line.Number, under.Name, row.Number, cell.Name), cell);

    /// <summary>Every value of the header, of the item rows and of the tax summary, with the name that ties call it by.</summary>
    public IEnumerable<(string Name, CapturedValue Value)> Values => Fields.Select(value => (value.Name, value))
        .Concat(Lines.SelectMany(line => line.Cells.Select(cell => (ValueNames.Of(BlockRule.Lines, line.Number, cell.Name), cell))))
        .Concat(Taxes.SelectMany(line => line.Cells.Select(cell => (ValueNames.Of(BlockRule.Taxes, line.Number, cell.Name), cell))));
}
