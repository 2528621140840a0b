using Daxlin.Core;
using Daxlin.Core.Capture;
using Daxlin.Core.Pages;
using Daxlin.Core.Recognition;
using Daxlin.Core.Templates;
using Daxlin.Core.Templates.Json;
using Daxlin.Testing;

namespace Daxlin.Reading.Tests;

/// <summary>Nothing printed vanishes: between the first and the last row of a block each letter is in a cell, carried, or left out and said to be.</summary>
public class WordAccountTests
{
    [Theory]
    [MemberData(nameof(Families.Folders), MemberType = typeof(Families))]
    public void The_letters_of_the_cells_and_of_the_account_are_the_letters_of_the_page(string family)
    {
        TemplateSet templates = [.. Directory.GetFiles(family, "*.template.json").Select(file => TemplateReader.Read(File.ReadAllText(file)))];
        var weighed = 0;
        foreach (var file in Directory.GetFiles(family, "*.pdf").Order(StringComparer.Ordinal))
        {
            var pages = PdfReader.Read(File.ReadAllBytes(file));
            foreach (var taken in InvoicePath.Take(pages, templates, new DocumentFacts(Path.GetFileName(file), "", null)).Where(taken => taken.Checked is not null))
            {
                foreach (var block in taken.Found.Template!.Blocks.Where(block => block.HoldsItems && block.Where.IsEverywhere && block.Row is not (IsMatch or IsFields)))
                {
                    var (printed, accounted) = (Printed(taken.Checked!.Captured, block, taken.Found.Pages), Accounted(taken.Checked.Captured, block));
                    Assert.True(printed == accounted, $"{Path.GetFileName(file)}, {block.Name}:\n{Differences(printed, accounted)}");
                    weighed += printed.Length;
                }
            }
        }
        Assert.True(weighed > 200, $"only {weighed} letters were weighed");
    }

    /// <summary>The letters and figures on the lines between the first and the last place of the block on each page, sorted.</summary>
    private static string Printed(CapturedInvoice invoice, BlockRule block, IEnumerable<Page> pages)
    {
        var rows = invoice.Lines.Where(line => line.Block == block.Name).ToList();
        var placed = rows.SelectMany(row => row.Cells.Where(cell => StandsInRow(block, cell.Name))).SelectMany(cell => cell.Trace.Places)
            .Concat(invoice.LeftOut.Where(line => line.Block == block.Name).Select(line => line.Place)).ToList();
        // Of lines that are carried or belong to a list under a row the template may take a part; figures of a row may stand beside.
        var apart = rows.SelectMany(row => row.Cells.Where(cell => block.Carry.Any(rule => rule.Column == cell.Name)).Concat(row.Under.SelectMany(list => list.Rows).SelectMany(one => one.Cells)))
            .SelectMany(cell => cell.Trace.Places).ToList();
        return Sorted(pages.SelectMany(page =>
        {
            var here = placed.Where(place => place.Page == page.Number).Select(place => place.Box).ToList();
            return here.Count == 0 ? [] : page.Lines
                .Where(line => line.Box.CenterY > here.Min(box => box.Top) && line.Box.CenterY < here.Max(box => box.Bottom))
                .SelectMany(line => WithoutApart(line, here, [.. apart.Where(place => place.Page == page.Number).Select(place => place.Box)]))
                .SelectMany(word => word.Text);
        }));
    }

    private static IEnumerable<Word> WithoutApart(TextLine line, List<Box> rows, List<Box> apart)
    {
        var own = apart.Where(box => line.Box.SharedHeight(box) > 0.6 * box.Height).ToList();
        if (own.Count == 0)
            return line.Words;
        var isShared = rows.Exists(box => line.Box.SharedHeight(box) > 0.6 * Math.Min(box.Height, line.Box.Height) && line.Box.SharedWidth(box) > 0);
        return isShared ? line.Cells.Where(cell => !own.Exists(box => cell.Box.SharedWidth(box) > 0)).SelectMany(cell => cell.Words.ToArray()) : [];
    }

    private static string Accounted(CapturedInvoice invoice, BlockRule block) => Sorted(
        invoice.Lines.Where(line => line.Block == block.Name)
            .SelectMany(row => row.Cells.Where(cell => IsPlaced(block, cell.Name)).Select(cell => cell.Trace.Raw).Concat(row.PassedOver.Select(passed => passed.Value)))
            .Concat(invoice.LeftOut.Where(line => line.Block == block.Name).Select(line => line.Text))
            .SelectMany(text => text));

    private static bool StandsInRow(BlockRule block, string name) => block.Columns.Any(column => column.Name == name && column.Source is not LookedUp);

    private static bool IsPlaced(BlockRule block, string name) => block.Columns.Any(column => column.Name == name && column.IsPlaced);

    private static string Sorted(IEnumerable<char> letters) => string.Concat(letters.Where(char.IsLetterOrDigit).Order());

    private static string Differences(string printed, string accounted) => string.Join(", ", printed.Concat(accounted).Distinct()
        .Select(letter => (letter, Printed: printed.Count(one => one == letter), Accounted: accounted.Count(one => one == letter)))
        .Where(entry => entry.Printed != entry.Accounted)
        .Select(entry => $"“{entry.letter}” is printed {entry.Printed} times and accounted for {entry.Accounted} times"));
}
