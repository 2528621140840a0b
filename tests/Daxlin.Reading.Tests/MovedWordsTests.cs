using System.Collections.Immutable;
using Daxlin.Core;
using Daxlin.Core.Capture;
using Daxlin.Core.Pages;
using Daxlin.Testing;

namespace Daxlin.Reading.Tests;

/// <summary>
/// Any word of a row printed in the neighbouring row or column instead: the invoice is held, or the record says exactly what
/// the page now says. A figure that moved is never clear unless no sum checks it and the record says so.
/// </summary>
public class MovedWordsTests
{
    /// <summary>So many words of each invoice are moved, spread over all its rows.</summary>
    private const int MostWords = 8;

    [Theory]
    [MemberData(nameof(Families.Folders), MemberType = typeof(Families))]
    public void No_word_in_the_neighbouring_row_or_column_is_clear_unless_the_record_says_it_is_there(string family)
    {
        var (moves, invoices) = (0, 0);
        foreach (var invoice in FamilyInvoices.Clear(family))
        {
            var words = Words(invoice).ToList();
            var step = Math.Max(1, words.Count / MostWords);
            // Other words in each invoice, so that all columns have their turn.
            for (var index = ++invoices % step; index < words.Count; index += step)
            {
                foreach (var move in Moves(invoice, words[index]))
                {
                    moves++;
                    var fault = FaultOf(invoice, words[index], move);
                    Assert.True(fault is null, $"{invoice.Name}: “{words[index].Word.Text}” of line {words[index].Line.Number}, {words[index].Cell.Name}, moved to {move.Text}: {fault}");
                }
            }
        }
        Assert.True(moves > 50, $"only {moves} words were moved");
    }

    /// <summary>What is wrong with a record that is clear although a word stands elsewhere; null if all is well.</summary>
    private static string? FaultOf(FamilyInvoice invoice, RowWord from, Move move)
    {
        var page = invoice.Pages.Single(page => page.Number == from.Page);
        var moved = new Page(page.Number, page.Width, page.Height, [.. page.Words.Select(word => word == from.Word ? move.Word : word)], page.Strokes);
        var taken = InvoicePath.Take([.. invoice.Pages.Select(one => one == page ? moved : one)], invoice.Templates, DocumentFacts.Unknown);
        if (taken is not [{ Checked: { IsClear: true } result }])
            return null;
        var name = ValueNames.Of("lines", from.Line.Number, from.Cell.Name);
        var isAsBefore = Numbers(result.Captured).SequenceEqual(Numbers(invoice.Checked.Captured));
        // Between two columns, a figure may still be told to be its own column's.
        if (from.Cell.Number is not null && from.Word.Text.Any(char.IsAsciiDigit))
        {
            return IsIdle(from.Cell) || isAsBefore && move.Line == from.Line || result.Unproved.Contains(name) || invoice.Checked.Unproved.Contains(name)
                ? null : "the figure moved and the invoice is clear";
        }
        // Between two columns it may be either's; what counts is that the record shows it in the row that it stands in.
        var row = result.Captured.Lines.FirstOrDefault(line => line.Number == move.Line.Number);
        if (row is null || !row.Cells.Select(cell => cell.Trace.Raw).Concat(row.PassedOver.Select(passed => passed.Value)).Any(text => text.Contains(from.Word.Text, StringComparison.Ordinal)))
            return "it is not in the record and the invoice is clear";
        return isAsBefore ? null : "figures changed and the invoice is clear";
    }

    private static IEnumerable<(string, decimal)> Numbers(CapturedInvoice invoice) => invoice.Fields.Concat(invoice.Lines.SelectMany(line => line.Cells))
        .Where(value => value.Number is not null && !IsIdle(value)).Select(value => (value.Name, value.Number!.Value));

    /// <summary>A figure that says what is so without it: a rate of 0 %, a price for 1.</summary>
    private static bool IsIdle(CapturedValue value) => value.Number == 0 || value is { Name: "priceBasis", Number: 1 };

    private static IEnumerable<RowWord> Words(FamilyInvoice invoice)
    {
        foreach (var line in invoice.Checked.Captured.Lines)
        {
            foreach (var cell in line.Cells.Where(cell => cell.Trace.Places.Length == 1 && StandsInRow(invoice, line, cell)))
            {
                var page = invoice.Pages.Single(page => page.Number == cell.Trace.Places[0].Page);
                if (page.Drawn != Drawn.Upright)
                    continue;
                foreach (var word in page.Words.Where(word => word.Turn == Turn.Upright && cell.Trace.Places[0].Box.HoldsCenterOf(word.Box)))
                    yield return new(line, cell, page.Number, word);
            }
        }
    }

    private static bool StandsInRow(FamilyInvoice invoice, CapturedLine line, CapturedValue cell) => invoice.Checked.Captured.Template.Blocks
        .First(block => block.Name == line.Block).Columns.Any(column => column.Name == cell.Name && column.IsPlaced);

    /// <summary>Where else the word could stand: beside the same column's cell one row up and down, beside the cells on its left and right.</summary>
    private static IEnumerable<Move> Moves(FamilyInvoice invoice, RowWord from)
    {
        var others = invoice.Pages.Single(page => page.Number == from.Page).Words.Where(word => word != from.Word).ToList();
        var inRow = from.Line.Cells.Where(cell => cell.Trace.Places is [{ } place] && place.Page == from.Page).OrderBy(cell => cell.Trace.Places[0].Box.Left).ToList();
        var at = inRow.FindIndex(cell => cell.Name == from.Cell.Name);
        var rows = invoice.Checked.Captured.Lines.Where(line => line.Block == from.Line.Block && Math.Abs(line.Number - from.Line.Number) == 1);
        var targets = rows.Select(row => (Line: row, Cell: row.Find(from.Cell.Name)))
            .Append((from.Line, inRow.ElementAtOrDefault(at - 1))).Append((from.Line, inRow.ElementAtOrDefault(at + 1)));
        foreach (var (line, cell) in targets)
        {
            if (cell?.Trace.Places is not [{ } place] || place.Page != from.Page)
                continue;
            var baseline = others.Where(word => place.Box.HoldsCenterOf(word.Box)).Select(word => (double?)word.Baseline).FirstOrDefault();
            var blank = 0.3 * from.Word.Size;
            foreach (var left in new[] { place.Box.Left - blank - from.Word.Box.Width, place.Box.Right + blank })
            {
                if (baseline is not { } height || left < 0)
                    continue;
                var word = MovedWord.At(from.Word, left, height);
                // Over other letters nobody could read it.
                if (!others.Exists(other => other.Box.SharedWidth(word.Box) > 0 && other.Box.SharedHeight(word.Box) > 1))
                    yield return new(line, cell, word, $"{(left < place.Box.Left ? "the left" : "the right")} of line {line.Number}, {cell.Name}");
            }
        }
    }

    private sealed record RowWord(CapturedLine Line, CapturedValue Cell, int Page, Word Word);

    private sealed record Move(CapturedLine Line, CapturedValue Cell, Word Word, string Text);
}
