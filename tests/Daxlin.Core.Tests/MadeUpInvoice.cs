using System.Collections.Immutable;
using System.Globalization;
using CsCheck;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates;
using Daxlin.Core.Templates.Json;

namespace Daxlin.Core.Tests;

/// <summary>An invoice made up for a property: its rows, and the printed amounts that a test may falsify.</summary>
internal sealed record MadeUpInvoice(ImmutableArray<MadeUpRow> Rows, decimal Freight, int RowsPerPage)
{
    public static Template Template { get; } = TemplateReader.Read("""
        {
          "name": "made-up", "vendor": "Made Up Goods",
          "reads": { "currency": "EUR", "dates": "day-first", "decimal": ",", "grouping": "." },
          "recognise": { "must": ["Made Up Goods"] },
          "fields": {
            "invoiceNumber": { "where": [{ "beside": "Invoice no" }], "shape": "MU-\\d+" },
            "invoiceDate": { "where": [{ "beside": "Date" }] },
            "currency": { "where": [{ "always": "EUR" }] },
            "subtotal": { "where": [{ "beside": "Subtotal" }] },
            "freight": { "where": [{ "beside": "Freight" }] },
            "total": { "where": [{ "beside": "Total due" }] }
          },
          "blocks": [
            {
              "name": "goods", "closes": ["Subtotal"],
              "columns": {
                "itemCode": { "heading": "Item" },
                "description": { "heading": "Description", "fold": "down" },
                "quantity": { "heading": "Qty" },
                "unit": { "heading": "Unit" },
                "unitPrice": { "heading": "Price" },
                "amount": { "heading": "Amount" }
              },
              "row": { "begins": { "filled": "amount" } },
              "leaveOut": ["^(Carried|Brought) forward"]
            },
            {
              "name": "taxes",
              "columns": { "rate": {}, "base": {}, "amount": {} },
              "row": { "matching": "^VAT (?<rate>\\d+ %) on (?<base>[\\d.,]+) (?<amount>[\\d.,]+)$" }
            }
          ]
        }
        """);

    public static Gen<MadeUpInvoice> Gen { get; } = Gens();

    public decimal Subtotal => Rows.Sum(row => row.Amount);
    public decimal TaxBase => Subtotal + Freight;
    public decimal Tax => Math.Round(TaxBase * 0.19m, 2, MidpointRounding.AwayFromZero);
    public decimal Total => TaxBase + Tax;

    /// <summary>The amounts as they are printed, in order: the rows', subtotal, freight if any, base, tax, total.</summary>
    public ImmutableArray<string> PrintedAmounts =>
        [.. Rows.Select(row => Print(row.Amount)), Print(Subtotal), .. Freight > 0 ? [Print(Freight)] : Array.Empty<string>(), Print(TaxBase), Print(Tax), Print(Total)];

    /// <summary>The template, with the fold that figures in this place want.</summary>
    public static Template TemplateFor(FiguresAt figures) => Folding[figures];

    private static readonly ImmutableDictionary<FiguresAt, Template> Folding = Enum.GetValues<FiguresAt>().ToImmutableDictionary(
        figures => figures,
        figures => Template with
        {
            Blocks = [.. Template.Blocks.Select(block => block with
            {
                Columns = [.. block.Columns.Select(column => column.Fold == Fold.None ? column : column with
                {
                    Fold = figures switch { FiguresAt.FirstLine => Fold.Down, FiguresAt.LastLine => Fold.Up, _ => Fold.Around },
                })],
            })],
        });

    /// <param name="printed">The amounts to print instead of the right ones.</param>
    /// <param name="quirks">How the vendor's printer sets the page.</param>
    public Typesetter Set(ImmutableArray<string>? printed = null, Quirks? quirks = null)
    {
        quirks ??= Quirks.None;
        var amounts = new Queue<string>(printed ?? PrintedAmounts);
        var sheet = new Typesetter(quirks.LetterWidth, quirks.Blank);
        sheet.Left("Made Up Goods", 50, 60);
        sheet.Left("Invoice no: MU-4711", 350, 90);
        sheet.Left("Date: 14.03.2026", 350, 103);
        var y = Headings(sheet, 140, quirks);
        var (onPage, sum) = (0, 0m);
        foreach (var row in Rows)
        {
            if (onPage++ == RowsPerPage)
            {
                var carried = quirks.CarriesSums ? ("Übertrag", Print(sum)) : ("Carried forward", "9.999,99");
                Carry(sheet, carried, y);
                sheet.NewPage();
                sheet.Left("Made Up Goods", 50, 60);
                y = Headings(sheet, 90, quirks);
                if (quirks.CarriesSums)
                    Carry(sheet, carried, (y += 18) - 18);
                onPage = 1;
            }
            y = SetRow(sheet, row, amounts.Dequeue(), y, quirks) + quirks.RowGap;
            sum += row.Amount;
            if (quirks.Remark is { } remark && row == Rows[0])
            {
                sheet.Left(remark, 110, y + 4);
                y += quirks.RowGap + 8;
            }
        }
        y += 14;
        Sum(sheet, "Subtotal", amounts.Dequeue(), y);
        if (Freight > 0)
            Sum(sheet, "Freight", amounts.Dequeue(), y += 13);
        Sum(sheet, $"VAT 19 % on {amounts.Dequeue()}", amounts.Dequeue(), y += 13);
        Sum(sheet, quirks.TotalCaption, amounts.Dequeue(), y + 13);
        return sheet;
    }

    private static double SetRow(Typesetter sheet, MadeUpRow row, string amount, double y, Quirks quirks)
    {
        var last = y + quirks.LineGap * (row.Words.Length - 1);
        var figures = quirks.Figures switch { FiguresAt.FirstLine => y, FiguresAt.LastLine => last, _ => (y + last) / 2 };
        foreach (var (line, at) in row.Words.Select((line, index) => (line, y + quirks.LineGap * index)))
            sheet.Left(line, 110, at);
        sheet.Left(row.Code, 50, figures);
        sheet.Right(Print(row.Quantity), quirks.QuantityAt, figures);
        sheet.Left("pc", 358, figures);
        sheet.Right(Print(row.Price), quirks.PriceAt, figures);
        sheet.Right(amount, 540, figures);
        if (quirks.HasNoise)
            sheet.Right("7", 575, figures);
        return last;
    }

    private static void Carry(Typesetter sheet, (string Words, string Amount) sum, double y)
    {
        sheet.Left(sum.Words, 110, y);
        sheet.Right(sum.Amount, 540, y);
    }

    private static double Headings(Typesetter sheet, double y, Quirks quirks)
    {
        sheet.Left("Item", 50, y);
        sheet.Left(quirks.DescriptionHeading, 110, y);
        sheet.Right("Qty", quirks.QuantityAt, y);
        sheet.Left("Unit", 358, y);
        sheet.Right("Price", quirks.PriceAt, y);
        sheet.Right("Amount", 540, y);
        if (quirks.HasNoise)
            sheet.Right("Bin", 575, y);
        return y + 18;
    }

    private static void Sum(Typesetter sheet, string caption, string amount, double y)
    {
        sheet.Left(caption, 340, y);
        sheet.Right(amount, 540, y);
    }

    private static string Print(decimal amount) => amount.ToString("N2", CultureInfo.InvariantCulture)
        .Replace(",", "_", StringComparison.Ordinal).Replace(".", ",", StringComparison.Ordinal).Replace("_", ".", StringComparison.Ordinal);

    private static Gen<MadeUpInvoice> Gens()
    {
        var word = CsCheck.Gen.OneOf("Rope", "tarred", "for", "berth 4", "- as agreed", "spliced", "B5", "12 mm", "low-lying");
        // Text is wrapped where the next word does not fit, at one width throughout the invoice.
        var row = CsCheck.Gen.Select(
            CsCheck.Gen.Int[1, 999], word.List[1, 10], CsCheck.Gen.Int[1, 99_999], CsCheck.Gen.Int[1, 999_999],
            (code, words, quantity, price) => (Code: $"A-{code}", Words: words, Quantity: quantity / 100m, Price: price / 100m));
        return CsCheck.Gen.Select(
            row.List[1, 30], CsCheck.Gen.OneOf(CsCheck.Gen.Const(0), CsCheck.Gen.Int[100, 9999]), CsCheck.Gen.Int[3, 12], CsCheck.Gen.Int[18, 34],
            (rows, freight, perPage, width) => new MadeUpInvoice(
                [.. rows.Select(row => new MadeUpRow(row.Code, Wrapped(row.Words, width), row.Quantity, row.Price))], freight / 100m, perPage));
    }

    private static ImmutableArray<string> Wrapped(IEnumerable<string> words, int width)
    {
        var lines = new List<string>();
        foreach (var word in words.SelectMany(word => word.Split(' ')))
        {
            if (lines.Count > 0 && lines[^1].Length + 1 + word.Length <= width)
                lines[^1] += " " + word;
            else
                lines.Add(word);
        }
        return [.. lines];
    }
}

/// <param name="Words">The description, line by line.</param>
internal sealed record MadeUpRow(string Code, ImmutableArray<string> Words, decimal Quantity, decimal Price)
{
    public decimal Amount => Math.Round(Quantity * Price, 2, MidpointRounding.AwayFromZero);

    /// <summary>The description as it should be captured: a word wrapped after its own hyphen is kept whole.</summary>
    public string Description => string.Join(' ', Words);
}
