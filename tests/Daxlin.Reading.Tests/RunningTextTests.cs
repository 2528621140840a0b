using System.Collections.Immutable;
using Daxlin.Core;
using Daxlin.Core.Capture;
using Daxlin.Core.Pages;
using Daxlin.Core.Values;
using Daxlin.Testing;

namespace Daxlin.Reading.Tests;

/// <summary>
/// A text that runs on with mere blanks into the next column of text is one text: the invoice is held, or the record has all
/// of it in one cell. No sum would miss the words that went to the neighbour.
/// </summary>
public class RunningTextTests
{
    /// <summary>So many rows of each invoice have their text changed, spread over all of them.</summary>
    private const int MostRows = 6;

    /// <summary>Words that stand where they stood are no text that runs on, in points.</summary>
    private const double Moved = 4;

    [Fact]
    public void Text_that_runs_on_into_the_next_column_is_held_or_stays_whole()
    {
        var (drawnNear, runOver) = (0, 0);
        var wrong = new List<string>();
        foreach (var invoice in FamilyInvoices.Folders.SelectMany(FamilyInvoices.Clear))
        {
            var lines = invoice.Checked.Captured.Lines;
            foreach (var line in lines.Where((_, index) => index % Math.Max(1, lines.Length / MostRows) == 0))
            {
                foreach (var (left, right) in Neighbours(invoice, line))
                {
                    // The right text follows the left one; and the left one goes on to where the right one would stand.
                    if (Near(left, right) is { } near && FaultOf(invoice, line, left, right, near) is var nearFault)
                    {
                        drawnNear++;
                        if (nearFault is not null)
                            wrong.Add($"{invoice.Name}, line {line.Number}: {nearFault}");
                    }
                    if (FaultOf(invoice, line, left, right, Long(left, right)) is var fault)
                    {
                        runOver++;
                        if (fault is not null)
                            wrong.Add($"{invoice.Name}, line {line.Number}: {fault}");
                    }
                }
            }
        }
        Assert.True(wrong.Count == 0, $"{wrong.Count} of {drawnNear} and {runOver}:\n{string.Join('\n', wrong.Take(40))}");
        Assert.True(drawnNear > 100 && runOver > 100, $"only {drawnNear} and {runOver} texts were tried");
    }

    /// <summary>What is wrong with a clear record that has the text in two cells; null if all is well.</summary>
    /// <param name="text">The words that stand in the place of both.</param>
    private static string? FaultOf(FamilyInvoice invoice, CapturedLine line, Text left, Text right, ImmutableArray<Word> text)
    {
        var page = invoice.Pages.Single(page => page.Number == left.Page);
        var changed = new Page(
            page.Number, page.Width, page.Height, [.. page.Words.Where(word => !left.Words.Contains(word) && !right.Words.Contains(word)), .. text], page.Strokes);
        var taken = InvoicePath.Take([.. invoice.Pages.Select(one => one == page ? changed : one)], invoice.Templates, DocumentFacts.Unknown);
        if (taken is not [{ Checked: { IsClear: true } result }])
            return null;
        var row = result.Captured.Lines.FirstOrDefault(other => other.Number == line.Number);
        var printed = TextLine.TextOf(text.AsSpan());
        return row is not null && row.Cells.Any(cell => cell.Trace.Raw.Contains(printed, StringComparison.Ordinal)) ? null
            : $"“{printed}” is clear as {string.Join(" | ", row?.Cells.Select(cell => $"{cell.Name} “{cell.Trace.Raw}”") ?? [])}";
    }

    /// <summary>The words of both with a blank between; null where the right text hardly moves.</summary>
    private static ImmutableArray<Word>? Near(Text left, Text right)
    {
        var start = left.Words[^1].Box.Right + Blank(left);
        var by = right.Words[0].Box.Left - start;
        return by < Moved ? null : [.. left.Words, .. right.Words.Select(word => MovedWord.At(word, word.Box.Left - by, left.Words[^1].Baseline))];
    }

    /// <summary>The left words again and again until they reach the middle of the right ones.</summary>
    private static ImmutableArray<Word> Long(Text left, Text right)
    {
        var words = left.Words.ToBuilder();
        for (var next = 0; words[^1].Box.Right < (right.Words[0].Box.Left + right.Words[^1].Box.Right) / 2; next++)
            words.Add(MovedWord.At(left.Words[next % left.Words.Length], words[^1].Box.Right + Blank(left), left.Words[0].Baseline));
        return words.ToImmutable();
    }

    private static double Blank(Text text) => 0.28 * text.Words[0].Size;

    /// <summary>Cells of text that stand side by side on one line of a page, no ruling and nothing else between them.</summary>
    private static IEnumerable<(Text Left, Text Right)> Neighbours(FamilyInvoice invoice, CapturedLine line)
    {
        var placed = invoice.Checked.Captured.Template.Blocks.First(block => block.Name == line.Block).Columns
            .Where(column => column is { IsPlaced: true, Kind: ValueKind.Text }).Select(column => column.Name).ToHashSet();
        var texts = line.Cells.Where(cell => placed.Contains(cell.Name) && cell.Trace.Places.Length == 1)
            .Select(cell => TextOf(invoice, cell)).OfType<Text>().OrderBy(text => text.Words[0].Box.Left).ToList();
        foreach (var (left, right) in texts.Zip(texts.Skip(1)))
        {
            var page = invoice.Pages.Single(page => page.Number == left.Page);
            var (from, to) = (left.Words[^1].Box, right.Words[0].Box);
            if (left.Page == right.Page && Math.Abs(left.Words[^1].Baseline - right.Words[0].Baseline) < 0.5 && from.Right < to.Left
                && !page.Words.Any(word => word.Box.CenterX > from.Right && word.Box.CenterX < to.Left && word.Box.SharedHeight(from) > 1)
                && !page.Strokes.Any(stroke => stroke.IsUpright && stroke.Box.CenterX > from.Left && stroke.Box.CenterX < to.Right && stroke.Box.SharedHeight(from) > 0))
                yield return (left, right);
        }
    }

    private static Text? TextOf(FamilyInvoice invoice, CapturedValue cell)
    {
        var page = invoice.Pages.Single(page => page.Number == cell.Trace.Places[0].Page);
        if (page.Drawn != Drawn.Upright)
            return null;
        ImmutableArray<Word> words = [.. page.Words.Where(word => word.Turn == Turn.Upright && cell.Trace.Places[0].Box.HoldsCenterOf(word.Box)).OrderBy(word => word.Box.Left)];
        // Text over several lines has one place as well; only what stands on one line can run on.
        return words.IsEmpty || words.Any(word => Math.Abs(word.Baseline - words[0].Baseline) > 0.5) ? null : new(page.Number, words);
    }

    private sealed record Text(int Page, ImmutableArray<Word> Words);
}
