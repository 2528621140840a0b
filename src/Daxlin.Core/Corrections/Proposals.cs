using System.Collections.Immutable;
using System.Globalization;
using Daxlin.Core.Capture;
using Daxlin.Core.Checks;
using Daxlin.Core.Readings;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Corrections;

/// <summary>Looks for the smallest change that makes an invoice add up again.</summary>
/// <remarks>
/// A value in a tie that does not hold is given what the tie wants of it, and all ties are weighed anew: a total of 1,240.50 whose parts come to 1,204.50 is proposed to be 1,204.50, "two figures swapped". A value that is
/// missing is worked out in the same way; a row whose amount is just what is too much may be none. Where many values would do
/// and nothing else speaks for one of them, none is proposed: that sums come out is no proof of which figure is wrong.
/// </remarks>
public sealed class Proposals
{
    /// <summary>So many rows are weighed in all, which keeps an invoice of 100 rows below 50 ms.</summary>
    private const int MostRowsWeighed = 30_000;

    /// <summary>More changes than this, for which nothing speaks but the sum, tell nothing.</summary>
    private const int MostWithoutEvidence = 3;

    private readonly CorrectedInvoice corrected;
    private readonly CapturedInvoice invoice;
    private readonly List<Tie> failing;
    private readonly HashSet<string> holding;
    private readonly NumbersOnPages printed;
    private readonly Dictionary<(string Of, string? Value), Proposal> found = [];
    private readonly Dictionary<CapturedLine, (int Ties, ImmutableArray<Tie> Failing)> ofLines = new(ReferenceEqualityComparer.Instance);
    private readonly SumsOfRows sums;

    /// <summary>The values by their names, since an invoice may have thousands and each is asked for.</summary>
    private readonly Dictionary<string, CapturedValue> values;
    private int budget;

    private Proposals(CorrectedInvoice corrected, IEnumerable<PrintedLine> pages)
    {
        (this.corrected, invoice) = (corrected, corrected.Checked.Captured);
        failing = [.. corrected.Checked.Ties.Where(tie => !tie.Holds)];
        holding = [.. corrected.Checked.Ties.Where(tie => tie.Holds).SelectMany(tie => tie.Members)];
        printed = new NumbersOnPages(pages, invoice.Template.Reads,
            // What a person typed over a printed value says nothing of what is printed there.
            [.. invoice.Values.Where(one => !corrected.Entered.ContainsKey(one.Name)).SelectMany(one => one.Value.Trace.Places)]);
        sums = new SumsOfRows(corrected.Captured);
        values = invoice.Values.GroupBy(one => one.Name).ToDictionary(group => group.Key, group => group.First().Value);
        budget = MostRowsWeighed / (invoice.Lines.Length + 10);
    }

    /// <param name="pages">The lines of the invoice's pages; none if they are not at hand, then nothing is said of where a value stands.</param>
    /// <returns>The likeliest first; empty if nothing is wrong or no single change mends it.</returns>
    public static ImmutableArray<Proposal> Of(CorrectedInvoice corrected, IEnumerable<PrintedLine> pages) => new Proposals(corrected, pages).Find();

    private ImmutableArray<Proposal> Find()
    {
        foreach (var (name, kind) in Missing().ToList())
            TryMissing(name, kind);
        TryRates();
        // What stands in a tie that holds would mostly break it, unless it is off by no more than is rounded:
        // a tax of 224,521.81 that is one of 224,521.80 follows its rate either way, since each row's tax may be rounded.
        foreach (var isHeld in new[] { false, true })
        {
            var isSettled = isHeld && found.Values.Any(one => one.SettlesAll);
            foreach (var tie in failing.Where(tie => !isSettled || Math.Abs(tie.Difference) <= MostRounded))
            {
                foreach (var name in tie.Members.Where(name => holding.Contains(name) == isHeld))
                    TryMember(name, tie);
                if (isHeld)
                    continue;
                TryRows(tie);
                TryLeftOut(tie);
            }
        }
        var best = found.Values.Where(one => one.SettlesAll || !found.Values.Any(other => other.SettlesAll && other.HasEvidence)).ToList();
        var evident = best.FindAll(one => one.HasEvidence);
        var bare = best.FindAll(one => !one.HasEvidence);
        return [.. evident.Concat(bare.Count <= MostWithoutEvidence ? bare : [])
            .OrderByDescending(one => one.SettlesAll).ThenByDescending(one => one.Place is not null).ThenByDescending(one => one.Slip.Length > 0).ThenBy(one => one.Of, StringComparer.Ordinal)
            .Concat(OtherReadings().Where(reading => !best.Exists(one => one.Of == reading.Of && one.Value == reading.Value)))];
    }

    /// <summary>What a picture was read as otherwise: whoever looks at the print takes one of the readings.</summary>
    private IEnumerable<Proposal> OtherReadings() =>
        from finding in corrected.Checked.Findings
        where !finding.Readings.IsEmpty && finding.About is [_]
        let name = finding.About[0]
        let value = invoice.Named(name)
        where value is not null
        from reading in finding.Readings
        select new Proposal(
            name, reading, value.Value, "", value.Trace.Places is [var place, ..] ? place : null, SettlesAll: false,
            $"{ValueNames.SpokenFirst(name)}: {ReadingDoubt.Shown(value.Kind, reading, invoice.Template.Reads.Currency)} instead of {ReadingDoubt.Shown(value, invoice.Template.Reads.Currency)}, as the other reading of the print has it.")
        { IsReading = true };

    /// <summary>What rounding can come to: a minor unit for each row.</summary>
    private decimal MostRounded => invoice.Template.Reads.Currency.MinorUnit * Math.Max(1, invoice.Lines.Length);

    /// <summary>Figures that should be there and are not.</summary>
    private IEnumerable<(string Name, ValueKind Kind)> Missing()
    {
        var template = invoice.Template;
        foreach (var finding in corrected.Checked.Findings.Where(finding => finding.Code is "value-missing" or "value-unreadable"))
        {
            if (finding.About is not [var name])
                continue;
            if (ValueNames.Parse(name) is not (var list, var number, { } column))
                continue;
            var kind = list is null ? KindsOfValues.OfField(template, column) : KindsOfValues.OfColumn(template, invoice.Row(list, number)?.Block ?? "", column);
            if (kind.IsFigure() && invoice.Named(name) is null)
                yield return (name, kind);
        }
    }

    /// <summary>A missing value is put in as 1, and what the ties then want of it is tried as for a value that is wrong.</summary>
    private void TryMissing(string name, ValueKind kind)
    {
        var put = new CapturedValue(ColumnOf(name), kind, "1", 1, NoTrace);
        var ties = InvoiceChecks.Check(invoice.With(name, put)).Ties.Where(tie => !tie.Holds && tie.Members.Contains(name));
        foreach (var candidate in ties.SelectMany(tie => WantedOf(tie, 1)).Append(1))
        {
            foreach (var digits in new[] { 0, invoice.Template.Reads.Currency.MinorDigits })
                TryValue(name, kind, null, Rounded(candidate, kind, digits));
        }
    }

    /// <summary>What a tie may want a value to be that is one of its terms, or one of its factors.</summary>
    private static IEnumerable<decimal> WantedOf(Tie tie, decimal was)
    {
        yield return was + tie.Difference;
        yield return was - tie.Difference;
        // A term of a sum is off by what the sum is off; only a factor is off by a part of it.
        if (!tie.HasFactors || tie.Left == 0 || tie.Right == 0)
            yield break;
        yield return was * tie.Right / tie.Left;
        yield return was * tie.Left / tie.Right;
        if (tie is LineMultipliesOut { DiscountPercents: [_] } line && line.Quantity * line.UnitPrice is not 0 and var gross)
            yield return 100 * (1 - line.Amount * line.PriceBasis / gross);
    }

    private void TryMember(string name, Tie tie)
    {
        if (budget <= 0 || (values.GetValueOrDefault(name) ?? invoice.Named(name)) is not { Number: { } was } value)
            return;
        foreach (var candidate in WantedOf(tie, was).Distinct())
        {
            foreach (var digits in new[] { was.Scale, invoice.Template.Reads.Currency.MinorDigits, 0 }.Distinct())
                TryValue(name, value.Kind, value, Rounded(candidate, value.Kind, digits));
        }
    }

    /// <summary>Rates of lines where what is taxed does not come out: a line of another rate stands in no tie of the right one.</summary>
    private void TryRates()
    {
        if (!failing.Exists(tie => tie is LinesFollowBase or TaxFollowsRate or TaxFollowsLines or TaxFollowsBase))
            return;
        var rates = invoice.Lines.Select(line => line.NumberIn(TradeNames.TaxRate)).Concat(invoice.Taxes.Select(row => row.NumberIn(TradeNames.Rate))).OfType<decimal>().ToHashSet();
        foreach (var line in invoice.Lines)
        {
            if (budget <= 0)
                return;
            if (line.Find(TradeNames.TaxRate) is not { Number: not null } value)
                continue;
            foreach (var rate in rates)
                TryValue(ValueNames.Of(BlockRule.Lines, line.Number, TradeNames.TaxRate), value.Kind, value, rate);
        }
    }

    private decimal Rounded(decimal number, ValueKind kind, int digits) =>
        Math.Round(number, Math.Min(kind == ValueKind.Money ? invoice.Template.Reads.Currency.MinorDigits : 6, digits), MidpointRounding.AwayFromZero);

    private void TryValue(string name, ValueKind kind, CapturedValue? was, decimal candidate)
    {
        if (candidate == was?.Number || found.ContainsKey((name, Text(candidate))) || Spend() is false)
            return;
        var value = new CapturedValue(ColumnOf(name), kind, Text(candidate), candidate, was?.Trace ?? NoTrace);
        if (Weigh(invoice.With(name, value)) is not { } settlesAll)
            return;
        var slip = was?.Number is { } before ? Slip.Between(before, candidate) : "";
        var place = printed.Find(candidate, RowOf(name) is { } row ? RowAddress.Of("", row).Anchor : null);
        var currency = invoice.Template.Reads.Currency;
        string Show(decimal number) => kind is ValueKind.Money or ValueKind.Price ? currency.Show(number) : Text(number);
        found[(name, Text(candidate))] = new Proposal(
            name, Text(candidate), was?.Value ?? "", slip, place, settlesAll,
            $"{ValueNames.SpokenFirst(name)}: {Show(candidate)}{(was?.Number is { } old ? " instead of " + Show(old) : "")}"
            + (slip.Length > 0 ? $" ({slip})" : "")
            + (place is { } at ? $", as printed on page {Text(at.Page)}" : ", which is printed nowhere else")
            + (settlesAll ? "; then every sum comes out." : "; then more comes out than now."));
    }

    /// <summary>Rows whose amount is just what is too much.</summary>
    private void TryRows(Tie tie)
    {
        if (tie is not (LinesAddUp or TotalAddsUp or RowsAboveAddUp) || invoice.Lines.Length < 2)
            return;
        foreach (var line in invoice.Lines.Where(line => line.NumberIn(TradeNames.Amount) == -tie.Difference && tie.Difference != 0))
        {
            var name = ValueNames.Row(BlockRule.Lines, line.Number);
            if (found.ContainsKey((name, null)) || Spend() is false
                || Weigh(invoice with { Lines = invoice.Lines.Remove(line) }) is not { } settlesAll)
                continue;
            var twin = invoice.Lines.FirstOrDefault(other => other != line && IsTwin(other, line));
            found[(name, null)] = new Proposal(
                name, null, string.Join(' ', line.Cells.Select(cell => cell.Value)), twin is null ? "" : $"row {Text(twin.Number)} taken twice", null, settlesAll,
                $"Row {Text(line.Number)} is no row of its own: its {invoice.Template.Reads.Currency.Show(line.NumberIn(TradeNames.Amount)!.Value)} are just what is too much"
                + (twin is null ? "" : $", and row {Text(twin.Number)} says the same") + (settlesAll ? "; then every sum comes out." : "; then more comes out than now."));
        }
    }

    /// <summary>Printed lines that are no row, and hold just what the rows lack.</summary>
    private void TryLeftOut(Tie tie)
    {
        if (tie is not (LinesAddUp or TotalAddsUp))
            return;
        foreach (var line in invoice.LeftOut.Where(line => invoice.Template.Blocks.Any(block => block.Name == line.Block && block.HoldsItems)))
        {
            var words = line.Text.Split(' ', StringSplitOptions.RemoveEmptyEntries);
            var at = Array.FindLastIndex(words, word => NumberReader.Read(word, invoice.Template.Reads).Number == tie.Difference);
            if (at < 0)
                continue;
            var cells = ImmutableSortedDictionary<string, string>.Empty.Add(TradeNames.Amount, Text(tie.Difference));
            if (string.Join(' ', words.Where((_, index) => index != at)) is { Length: > 0 } rest)
                cells = cells.Add(TradeNames.Description, rest);
            var above = invoice.Lines.LastOrDefault(row => RowAddress.Of(BlockRule.Lines, row).Anchor is { } place && (place.Page < line.Place.Page || (place.Page == line.Place.Page && place.Box.Top < line.Place.Box.Top)));
            var of = above is null ? "" : ValueNames.Row(BlockRule.Lines, above.Number);
            var row = new CapturedLine(
                line.Block, invoice.Lines.Select(one => one.Number).DefaultIfEmpty(0).Max() + 1,
                [.. cells.Select(cell => KindsOfValues.ValueOf(cell.Key, KindsOfValues.OfColumn(invoice.Template, line.Block, cell.Key), cell.Value, NoTrace))]);
            if (found.ContainsKey((of, line.Text)) || Spend() is false || Weigh(invoice with { Lines = invoice.Lines.Add(row) }) is not { } settlesAll)
                continue;
            found[(of, line.Text)] = new Proposal(
                of, null, "", "a row missed", line.Place, settlesAll,
                $"“{line.Text}” on page {Text(line.Place.Page)} is a row: its {invoice.Template.Reads.Currency.Show(tie.Difference)} are just what the rows lack"
                + (settlesAll ? "; then every sum comes out." : "; then more comes out than now."))
            {
                Cells = cells,
            };
        }
    }

    private static bool IsTwin(CapturedLine one, CapturedLine other) =>
        one.Cells.Length == other.Cells.Length && one.Cells.All(cell => other.Find(cell.Name)?.Value == cell.Value);

    private bool Spend() => budget-- > 0;

    /// <summary>Null if a change breaks a tie, or mends none; else whether all hold after it.</summary>
    private bool? Weigh(CapturedInvoice changed)
    {
        // Printed sums of rows count what was captured; they are weighed by their own difference.
        var (count, left) = (0, new List<Tie>());
        foreach (var line in changed.Lines)
        {
            var (ties, off) = TiesOfLine(line);
            count += ties;
            left.AddRange(off);
        }
        foreach (var tie in InvoiceChecks.TiesOf(changed with { Sums = sums.Anew(changed) }, _ => []))
        {
            count++;
            if (!tie.Holds)
                left.Add(tie);
        }
        var missing = corrected.Checked.Findings.Count(finding => finding.Code is "value-missing" or "value-unreadable");
        var isNew = left.Exists(tie => !failing.Exists(old => old.GetType() == tie.GetType() && old.Code == tie.Code && old.Equation == tie.Equation));
        // A missing value that comes out is a gain even where its lack made no tie fail.
        var gains = left.Count < failing.Count || (failing.Count == 0 && missing > 0 && count > corrected.Checked.Ties.Length);
        return isNew || !gains ? null : left.Count == 0;
    }

    /// <summary>A change leaves all rows but one as they are, so their ties are weighed once.</summary>
    private (int Ties, ImmutableArray<Tie> Failing) TiesOfLine(CapturedLine line)
    {
        if (!ofLines.TryGetValue(line, out var known))
        {
            var ties = InvoiceChecks.OfLine(line, invoice);
            ofLines[line] = known = (ties.Length, [.. ties.Where(tie => !tie.Holds)]);
        }
        return known;
    }

    private static Trace NoTrace { get; } = new([], "proposed", "", 1);

    private static string ColumnOf(string name) => ValueNames.Parse(name)?.Column ?? name;

    private CapturedLine? RowOf(string name) => ValueNames.Parse(name) is ({ } list, var number, _) ? invoice.Row(list, number) : null;

    private static string Text(decimal number) => number.ToString(CultureInfo.InvariantCulture);
}
