using System.Collections.Immutable;
using Daxlin.Core.Capture;
using Daxlin.Core.Pages;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Testing.Mutations;

/// <summary>Changes one thing on an invoice's pages, as a printer or a reader would get it wrong.</summary>
public sealed class Mutator
{
    private readonly FamilyInvoice invoice;
    private readonly Random random;

    private Mutator(FamilyInvoice invoice, Random random) => (this.invoice, this.random) = (invoice, random);

    private CapturedInvoice Captured => invoice.Checked.Captured;

    /// <param name="random">Chooses the value and the change; the same choices make the same pages.</param>
    /// <returns>The changed pages, or null where the invoice has nothing to change in this way.</returns>
    public static ImmutableArray<Page>? Of(FamilyInvoice invoice, Mutation mutation, Random random) => new Mutator(invoice, random).Make(mutation);

    private ImmutableArray<Page>? Make(Mutation mutation) => mutation switch
    {
        Mutation.RowLost => RowLost(),
        Mutation.RowTwice => RowTwice(),
        Mutation.Columns => Columns(),
        Mutation.TaxRate => InOne(value => value.Value.Name is TradeNames.TaxRate or TradeNames.Rate, AnotherFigure),
        Mutation.Tax => InOne(value => value.Name == TradeNames.Tax || value.Name.StartsWith("taxes[", StringComparison.Ordinal) && value.Value.Name == TradeNames.Amount, AnotherFigure),
        Mutation.Total => InOne(value => value.Name == TradeNames.Total, AnotherFigure),
        Mutation.Discount => InOne(value => value.Value.Name.StartsWith("discount", StringComparison.Ordinal), AnotherFigure),
        Mutation.Iban => InOne(value => value.Value.Kind == ValueKind.Iban, AnotherFigure),
        Mutation.InvoiceNumber => InOne(value => value.Name == TradeNames.InvoiceNumber, AnotherFigure),
        Mutation.Date => InOne(value => value.Name is TradeNames.InvoiceDate or TradeNames.DueDate, AnotherFigure),
        Mutation.CurrencyMark => InOne(value => value.Value.Kind == ValueKind.Money, AnotherMark),
        Mutation.Figure => InOne(IsNumber, AnotherFigure),
        Mutation.Swapped => InOne(IsNumber, SwappedFigures),
        Mutation.Sign => InOne(IsNumber, text => text.StartsWith('-') ? text[1..] : char.IsAsciiDigit(text[0]) ? "-" + text : null),
        Mutation.DecimalMark => InOne(IsNumber, WithoutMark),
        Mutation.FigureLost => InOne(IsNumber, text => FigureIn(text) is { } at && text.Length > 1 ? text.Remove(at, 1) : null),
        Mutation.FigureTwice => InOne(IsNumber, text => FigureIn(text) is { } at ? text.Insert(at, text[at].ToString()) : null),
        _ => InOne(IsNumber, LetterForFigure),
    };

    private static bool IsNumber((string Name, CapturedValue Value) one) => one.Value.Number is not null;

    /// <summary>Changes the one word of one of the values that are asked for.</summary>
    private ImmutableArray<Page>? InOne(Func<(string Name, CapturedValue Value), bool> isWanted, Func<string, string?> change)
    {
        var values = Captured.Values.Where(isWanted).Where(one => one.Value.Trace.Places.Length == 1).ToList();
        return values.Count == 0 ? null : Retyped(values[random.Next(values.Count)].Value, change);
    }

    private ImmutableArray<Page>? Retyped(CapturedValue value, Func<string, string?> change)
    {
        var place = value.Trace.Places[0];
        var words = WordsAt(place).Where(word => word.Text.Any(char.IsAsciiDigit)).ToList();
        if (words.Count == 0 || (words.Count > 1 && value.Number is not null))
            return null;
        var word = words[random.Next(words.Count)];
        return change(word.Text) is { Length: > 0 } text && text != word.Text ? With(place.Page, one => one == word ? Typed(word, text) : one) : null;
    }

    private IEnumerable<Word> WordsAt(PlaceOnPage place)
    {
        var page = PageOf(place.Page);
        return page.Words.Where(word => word.Turn == Turn.Upright && place.Box.HoldsCenterOf(page.AsSeen(word.Box)));
    }

    private Page PageOf(int number) => invoice.Pages.Single(page => page.Number == number);

    private ImmutableArray<Page> With(int number, Func<Word, Word> change) => With(number, words => words.Select(change));

    private ImmutableArray<Page> With(int number, Func<IEnumerable<Word>, IEnumerable<Word>> change) => [.. invoice.Pages.Select(page => page.Number != number ? page
        : new Page(page.Number, page.Width, page.Height, [.. change(page.Words)], page.Strokes) { Drawn = page.Drawn })];

    /// <summary>Another text in a word's place, its characters set evenly.</summary>
    private static Word Typed(Word word, string text) => word with
    {
        Text = text,
        Stops = Enumerable.Range(1, text.Length).Select(at => word.Box.Left + ((word.Box.Right - word.Box.Left) * at / text.Length)).ToArray(),
    };

    private int? FigureIn(string text)
    {
        var at = Enumerable.Range(0, text.Length).Where(index => char.IsAsciiDigit(text[index])).ToList();
        return at.Count == 0 ? null : at[random.Next(at.Count)];
    }

    private string? AnotherFigure(string text) =>
        FigureIn(text) is { } at ? text[..at] + (char)('0' + ((text[at] - '0' + 1 + random.Next(9)) % 10)) + text[(at + 1)..] : null;

    private string? SwappedFigures(string text)
    {
        var pairs = Enumerable.Range(0, text.Length - 1).Where(at => char.IsAsciiDigit(text[at]) && char.IsAsciiDigit(text[at + 1]) && text[at] != text[at + 1]).ToList();
        return pairs.Count == 0 ? null : pairs[random.Next(pairs.Count)] is var at ? text[..at] + text[at + 1] + text[at] + text[(at + 2)..] : null;
    }

    private string? WithoutMark(string text) =>
        text.LastIndexOf(Captured.Template.Reads.DecimalMark) is > 0 and var at && at + 1 < text.Length && char.IsAsciiDigit(text[at + 1]) ? text.Remove(at, 1) : null;

    private string? LetterForFigure(string text)
    {
        var at = Enumerable.Range(0, text.Length).Where(index => text[index] is '0' or '1' or '5' or '8').ToList();
        if (at.Count == 0)
            return null;
        var one = at[random.Next(at.Count)];
        return text[..one] + text[one] switch { '0' => 'O', '1' => 'l', '5' => 'S', _ => 'B' } + text[(one + 1)..];
    }

    private string? AnotherMark(string text)
    {
        var currency = Captured.Template.Reads.Currency;
        foreach (var (mark, other) in new[] { ("€", "£"), ("£", "€"), ("US$", "€"), ("$", "€"), ("EUR", "USD"), ("GBP", "EUR"), ("USD", "EUR"), ("CHF", "EUR"), ("SEK", "NOK"), ("DKK", "EUR"), ("kr", "€") })
        {
            if (text.Contains(mark, StringComparison.Ordinal) && !currency.CanBePrintedAs(other))
                return text.Replace(mark, other, StringComparison.Ordinal);
        }
        return null;
    }

    private CapturedLine? Row()
    {
        var rows = Captured.Lines.Where(line => line.Cells.Any(cell => !cell.Trace.Places.IsEmpty)).ToList();
        return rows.Count < 2 ? null : rows[random.Next(rows.Count)];
    }

    private ImmutableArray<Page>? RowLost()
    {
        if (Row() is not { } row)
            return null;
        var places = row.Cells.SelectMany(cell => cell.Trace.Places).Concat(row.Under.SelectMany(list => list.Rows).SelectMany(line => line.Cells).SelectMany(cell => cell.Trace.Places)).ToList();
        // What stands above several rows, a section's name, is not the row's own.
        var shared = Captured.Lines.Where(line => line != row).SelectMany(line => line.Cells).SelectMany(cell => cell.Trace.Places).ToHashSet();
        var gone = places.Where(place => !shared.Contains(place)).SelectMany(WordsAt).ToHashSet();
        return [.. invoice.Pages.Select(page => new Page(page.Number, page.Width, page.Height, [.. page.Words.Where(word => !gone.Contains(word))], page.Strokes) { Drawn = page.Drawn })];
    }

    private ImmutableArray<Page>? RowTwice()
    {
        if (Row() is not { } row || row.Cells.SelectMany(cell => cell.Trace.Places).Select(place => place.Page).Distinct().ToList() is not [var number] || PageOf(number) is not { Drawn: default(Drawn) } page)
            return null;
        var words = row.Cells.SelectMany(cell => cell.Trace.Places).SelectMany(WordsAt).Distinct().ToList();
        if (words.Count == 0)
            return null;
        // Only a row that stands alone in its band of the page can be set again below itself.
        var (top, bottom) = (words.Min(word => word.Box.Top), words.Max(word => word.Box.Bottom));
        if (page.Words.Any(word => !words.Contains(word) && word.Box.Bottom > top && word.Box.Top < bottom))
            return null;
        var next = page.Words.Where(word => word.Box.Top >= bottom).Select(word => word.Box.Top).DefaultIfEmpty(bottom).Min();
        var down = Math.Max(next - top, bottom - top + 1);
        return With(number, all => all.Select(word => word.Box.Top >= bottom ? Moved(word, down) : word).Concat(words.Select(word => Moved(word, down))));
    }

    private static Word Moved(Word word, double down) => word with { Box = word.Box with { Top = word.Box.Top + down, Bottom = word.Box.Bottom + down }, Baseline = word.Baseline + down };

    private ImmutableArray<Page>? Columns()
    {
        if (Row() is not { } row)
            return null;
        var words = row.Cells.Where(cell => cell is { Number: not null, Trace.Places.Length: 1 }).Select(cell => (cell.Trace.Places[0].Page, Words: WordsAt(cell.Trace.Places[0]).ToList()))
            .Where(one => one.Words.Count == 1).ToList();
        if (words.Count < 2)
            return null;
        var first = random.Next(words.Count - 1);
        var (one, other) = (words[first].Words[0], words[first + 1].Words[0]);
        return words[first].Page != words[first + 1].Page || one.Text == other.Text ? null
            : With(words[first].Page, word => word == one ? Typed(one, other.Text) : word == other ? Typed(other, one.Text) : word);
    }
}
