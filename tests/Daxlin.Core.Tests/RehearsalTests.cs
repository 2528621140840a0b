using System.Collections.Immutable;
using CsCheck;
using Daxlin.Core.Rehearsal;

namespace Daxlin.Core.Tests;

/// <summary>What a rehearsal says of an invoice: nothing that changes is passed over, and nothing is told that does not.</summary>
public class RehearsalTests
{
    private static readonly string[] Texts = ["rope", "shackle", "12.50 EUR", "3", "pc", "grey paint"];

    private static readonly Gen<string> Text = Gen.Int[0, Texts.Length - 1].Select(text => Texts[text]);

    private static readonly Gen<RehearsedRow> Row = Gen.Select(Text, Text, Gen.Int[1, 9999], (text, unit, amount) =>
        new RehearsedRow("lines", 0, Cells(("description", text), ("unit", unit), ("amount", $"{amount}.00 EUR"))));

    private static readonly Gen<RehearsedInvoice> Invoice = Gen.Select(
        Row.Array[0, 12], Row.Array[0, 3], Gen.Int[1, 999], Gen.Int[1, 3].Select(state => (RehearsedState)state),
        (lines, taxes, total, state) => new RehearsedInvoice(
            state, Cells(("total", $"{total}.00 EUR"), ("invoiceNumber", $"R{total}")),
            [.. Numbered(lines), .. Numbered(taxes).Select(row => row with { List = "taxes" })]));

    private static ImmutableSortedDictionary<string, string> Cells(params (string Name, string Value)[] cells) =>
        cells.ToImmutableSortedDictionary(cell => cell.Name, cell => cell.Value, StringComparer.Ordinal);

    private static IEnumerable<RehearsedRow> Numbered(IEnumerable<RehearsedRow> rows) => rows.Select((row, index) => row with { Number = index + 1 });

    private static RehearsedInvoice WithLines(RehearsedInvoice invoice, IEnumerable<RehearsedRow> lines) =>
        invoice with { Rows = [.. Numbered(lines), .. invoice.Rows.Where(row => row.List != "lines")] };

    private static ImmutableArray<RehearsedRow> LinesOf(RehearsedInvoice invoice) => [.. invoice.Rows.Where(row => row.List == "lines")];

    [Fact]
    public void An_invoice_that_comes_out_as_it_was_is_the_same() => Invoice.Sample(invoice =>
    {
        var result = RehearsalResult.Of(invoice, invoice with { State = invoice.State == RehearsedState.Decided ? RehearsedState.Clear : invoice.State });
        Assert.Empty(result.Changes);
        Assert.Equal(Verdict.Same, result.Verdict);
    });

    [Fact]
    public void Changes_alone_make_the_new_capture_of_the_old_one() => Gen.Select(Invoice, Invoice).Sample((before, after) =>
    {
        var changes = RehearsalResult.Of(before, after).Changes;
        Assert.Equal(Values(after), Applied(Values(before), changes));
        Assert.All(changes, change => Assert.NotEqual(change.Before, change.After));
    });

    /// <summary>A bag of all that was captured, without the numbers of rows, which move.</summary>
    private static ImmutableSortedDictionary<string, int> Values(RehearsedInvoice invoice) => Counted(
        invoice.Fields.Select(field => $"{field.Key}={field.Value}").Concat(invoice.Rows.SelectMany(row => row.Cells.Select(cell => $"{row.List}.{cell.Key}={cell.Value}"))));

    private static ImmutableSortedDictionary<string, int> Counted(IEnumerable<string> texts) =>
        texts.CountBy(text => text).Where(pair => pair.Value != 0).ToImmutableSortedDictionary(StringComparer.Ordinal);

    private static ImmutableSortedDictionary<string, int> Applied(ImmutableSortedDictionary<string, int> values, ImmutableArray<ValueChange> changes)
    {
        var counts = values.ToDictionary();
        foreach (var change in changes)
        {
            var name = System.Text.RegularExpressions.Regex.Replace(change.Name, @"\[\d+\]", "");
            Count(name, change.Before, -1);
            Count(name, change.After, 1);
        }
        return counts.Where(pair => pair.Value != 0).ToImmutableSortedDictionary(StringComparer.Ordinal);

        // A whole row stands in one change, its cells in the order of their names.
        void Count(string name, string text, int by)
        {
            var names = name.Contains('.', StringComparison.Ordinal) || name is "total" or "invoiceNumber" ? [name] : new[] { $"{name}.amount", $"{name}.description", $"{name}.unit" };
            foreach (var (key, value) in text.Length == 0 ? [] : names.Zip(names.Length == 1 ? [text] : text.Split(" · ")))
                counts[$"{key}={value}"] = counts.GetValueOrDefault($"{key}={value}") + by;
        }
    }

    [Fact]
    public void One_row_lost_is_one_change_wherever_it_stood() => Gen.Select(Invoice, Gen.Int[0, 11]).Where((invoice, at) => at < LinesOf(invoice).Length).Sample((invoice, at) =>
    {
        var lines = LinesOf(invoice);
        var change = Assert.Single(RehearsalResult.Of(invoice, WithLines(invoice, lines.RemoveAt(at))).Changes);
        Assert.Equal(lines[at].Text, change.Before);
        Assert.Empty(change.After);
    });

    [Fact]
    public void One_cell_that_changes_is_one_change_with_its_row() => Gen.Select(Invoice, Gen.Int[0, 11]).Where((invoice, at) => at < LinesOf(invoice).Length).Sample((invoice, at) =>
    {
        var lines = LinesOf(invoice);
        var next = lines.SetItem(at, lines[at] with { Cells = lines[at].Cells.SetItem("amount", "0.01 EUR") });
        Assert.Equal([new ValueChange($"lines[{at + 1}].amount", lines[at].Cells["amount"], "0.01 EUR")], RehearsalResult.Of(invoice, WithLines(invoice, next)).Changes);
    });

    [Theory]
    [InlineData(RehearsedState.Decided, RehearsedState.Clear, true, Verdict.DecidedChanges)]
    [InlineData(RehearsedState.Decided, RehearsedState.Held, true, Verdict.DecidedChanges)]
    [InlineData(RehearsedState.Decided, RehearsedState.Held, false, Verdict.Worse)]
    [InlineData(RehearsedState.Decided, RehearsedState.Unplaced, false, Verdict.Lost)]
    [InlineData(RehearsedState.Clear, RehearsedState.Clear, true, Verdict.ClearChanges)]
    [InlineData(RehearsedState.Clear, RehearsedState.Held, true, Verdict.ClearChanges)]
    [InlineData(RehearsedState.Clear, RehearsedState.Held, false, Verdict.Worse)]
    [InlineData(RehearsedState.Held, RehearsedState.Unplaced, false, Verdict.Lost)]
    [InlineData(RehearsedState.Held, RehearsedState.Held, true, Verdict.HeldChanges)]
    [InlineData(RehearsedState.Held, RehearsedState.Clear, true, Verdict.Better)]
    [InlineData(RehearsedState.Held, RehearsedState.Clear, false, Verdict.Better)]
    [InlineData(RehearsedState.Unplaced, RehearsedState.Held, true, Verdict.Better)]
    [InlineData(RehearsedState.Unplaced, RehearsedState.Unplaced, false, Verdict.Same)]
    public void The_gravest_thing_is_the_verdict(RehearsedState before, RehearsedState after, bool changes, Verdict expected)
    {
        var invoice = new RehearsedInvoice(before, Cells(("total", "1.00 EUR")), []);
        var next = changes ? Cells(("total", "2.00 EUR")) : invoice.Fields;
        Assert.Equal(expected, RehearsalResult.Of(invoice, new RehearsedInvoice(after, next, [])).Verdict);
    }

    [Fact]
    public void Another_templates_capture_is_a_loss_even_where_the_values_are_the_same()
    {
        var invoice = new RehearsedInvoice(RehearsedState.Clear, Cells(("total", "1.00 EUR")), []) { Template = "brinewood" };
        Assert.Equal(Verdict.Lost, RehearsalResult.Of(invoice, invoice with { Template = "skerrow" }).Verdict);
        Assert.Equal(Verdict.Same, RehearsalResult.Of(invoice, invoice).Verdict);
    }

    [Fact]
    public void Verdicts_are_sorted_by_their_gravity() => Assert.Equal(
        [Verdict.DecidedChanges, Verdict.ClearChanges, Verdict.Lost, Verdict.Worse, Verdict.HeldChanges, Verdict.Better, Verdict.Same],
        Enum.GetValues<Verdict>().Order());

    [Fact]
    public void Thousands_of_rows_are_compared_too()
    {
        var rows = Numbered(Enumerable.Range(0, 5000).Select(row => new RehearsedRow("lines", 0, Cells(("amount", $"{row}.00 EUR"))))).ToImmutableArray();
        var invoice = new RehearsedInvoice(RehearsedState.Clear, Cells(), rows);
        var result = RehearsalResult.Of(invoice, WithLines(invoice, rows.Select(row => row with { Cells = Cells(("amount", "1.00 USD")) })));
        Assert.Equal(5000, result.Changes.Length);
        Assert.Single(RehearsalResult.Of(invoice, WithLines(invoice, rows.RemoveAt(2500))).Changes);
    }
}
