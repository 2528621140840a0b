using System.Collections.Immutable;
using System.Text.RegularExpressions;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Drafting;

/// <summary>What each column of a table is: by its arithmetic first, then by its heading and its values.</summary>
/// <remarks>
/// The columns a, b, c for which a × b = c on row after row are quantity, unit price and amount, whatever they are called;
/// with d, a × b less d % = c. Which of a and b is the price is told by headings, units and decimals.
/// </remarks>
internal static partial class ColumnNaming
{
    /// <summary>Names that the arithmetic gives, then those that headings and forms give.</summary>
    private static readonly ImmutableArray<string> ByForm =
    [
        TradeNames.TaxRate, TradeNames.DiscountPercent, TradeNames.PriceBasis, TradeNames.Description, TradeNames.ItemCode, TradeNames.Unit, "position",
        TradeNames.UnitPrice, TradeNames.Quantity, TradeNames.Amount,
    ];

    /// <returns>A name for each heading, null for those that nothing is known of; and on how many rows the arithmetic holds.</returns>
    public static (ImmutableArray<string?> Names, int Proved, int Rows) Of(ImmutableArray<Heading> headings, ImmutableArray<ProbedRow> rows, Habits reads)
    {
        var figures = headings.Select((_, column) => rows.Select(row => Figures.Read(row.Texts[column], reads)).ToImmutableArray()).ToImmutableArray();
        var names = new string?[headings.Length];
        var equation = EquationOf(headings, rows, figures, reads);
        if (equation is { } found)
        {
            // "60 set" under “Unit”, beside an empty column headed “Qty”: the figures only stand closer to the other heading.
            var quantity = Enumerable.Range(0, headings.Length).FirstOrDefault(
                column => headings[found.Quantity].Meanings.RankAs(TradeNames.Quantity) is null && headings[column].Meanings.RankAs(TradeNames.Quantity) is not null
                    && column != found.Price && column != found.Amount && rows.All(row => row.Texts[column].Length == 0), found.Quantity);
            (names[quantity], names[found.Price], names[found.Amount]) = (TradeNames.Quantity, TradeNames.UnitPrice, TradeNames.Amount);
            if (found.Discount >= 0)
                names[found.Discount] = TradeNames.DiscountPercent;
            if (found.Basis >= 0)
                names[found.Basis] = TradeNames.PriceBasis;
        }
        // The plainest captions first, so that "Item" becomes what "Description" and "Code" leave over.
        var claims =
            from column in Enumerable.Range(0, headings.Length)
            from name in ByForm
            let rank = headings[column].Meanings.RankAs(name)
            where rank is not null && CanBe(name, rows.Select(row => row.Texts[column]).Where(text => text.Length > 0).ToList(), reads)
            orderby rank, ByForm.IndexOf(name)
            select (column, name);
        foreach (var (column, name) in claims)
        {
            if (names[column] is null && !names.Contains(name))
                names[column] = name;
        }
        // Figures that stand far off their headings are found once the columns have types.
        foreach (var name in new[] { TradeNames.Quantity, TradeNames.UnitPrice, TradeNames.TaxRate })
        {
            var column = Enumerable.Range(0, headings.Length).FirstOrDefault(index => names[index] is null && headings[index].Meanings.RankAs(name) is not null, -1);
            if (column >= 0 && !names.Contains(name))
                names[column] = name;
        }
        // Text that nothing else claims and that is the longest is the description.
        if (!names.Contains(TradeNames.Description))
        {
            var longest = Enumerable.Range(0, headings.Length).Where(column => names[column] is null or TradeNames.ItemCode)
                .Select(column => (column, Words: rows.Select(row => row.Texts[column].Split(' ').Length).DefaultIfEmpty(0).Average()))
                .OrderByDescending(one => one.Words).FirstOrDefault((column: -1, Words: 0));
            if (longest.column >= 0 && longest.Words >= 2 && CanBe(TradeNames.Description, [.. rows.Select(row => row.Texts[longest.column])], reads))
                names[longest.column] = TradeNames.Description;
        }
        return ([.. names], equation?.Holds ?? 0, rows.Length);
    }

    private readonly record struct Equation(int Quantity, int Price, int Amount, int Discount, int Basis, int Holds, double Score);

    private static Equation? EquationOf(
        ImmutableArray<Heading> headings, ImmutableArray<ProbedRow> rows, ImmutableArray<ImmutableArray<(decimal Number, string Unit)?>> figures, Habits reads)
    {
        var numeric = Enumerable.Range(0, headings.Length).Where(column => figures[column].Count(figure => figure is not null) * 2 >= rows.Length && rows.Length > 0).ToList();
        Equation? best = null;
        foreach (var amount in numeric)
        {
            foreach (var quantity in numeric.Where(column => column != amount))
            {
                foreach (var price in numeric.Where(column => column != amount && column != quantity))
                {
                    foreach (var other in Enumerable.Range(-1, headings.Length + 1).Where(column => column != amount && column != quantity && column != price))
                    {
                        foreach (var isBasis in other < 0 ? (bool[])[false] : [false, true])
                        {
                            var holds = Enumerable.Range(0, rows.Length).Count(row => Holds(row, quantity, price, amount, other, isBasis));
                            if (holds == 0)
                                continue;
                            var score = holds
                                + Speaks(amount, TradeNames.Amount) + Speaks(quantity, TradeNames.Quantity) + Speaks(price, TradeNames.UnitPrice)
                                + (other < 0 ? 0.05 : Speaks(other, isBasis ? TradeNames.PriceBasis : TradeNames.DiscountPercent))
                                + (figures[quantity].Any(figure => figure?.Unit.Length > 0) ? 0.3 : 0) - (figures[price].Any(figure => figure?.Unit.Length > 0) ? 0.3 : 0)
                                + (headings[quantity].Box.Left < headings[price].Box.Left ? 0.05 : 0)
                                - (headings[quantity].Meanings.RankAs("position") is not null && headings[quantity].Meanings.RankAs(TradeNames.Quantity) is null ? 0.4 : 0);
                            if (best is null || score > best.Value.Score)
                                best = new Equation(quantity, price, amount, isBasis ? -1 : other, isBasis ? other : -1, holds, score);
                        }
                    }
                }
            }
        }
        return best;

        double Speaks(int column, string name) => headings[column].Meanings.RankAs(name) is { } rank ? 0.4 - (0.01 * rank) : headings[column].Meanings.IsEmpty ? 0 : -0.2;

        bool Holds(int row, int quantity, int price, int amount, int other, bool isBasis)
        {
            if (figures[quantity][row] is not { } q || figures[price][row] is not { } p || figures[amount][row] is not { } a || a.Number == 0)
                return false;
            var product = q.Number * p.Number;
            if (other >= 0)
            {
                var by = figures[other][row]?.Number;
                if (by is null && rows[row].Texts[other].Any(char.IsAsciiDigit))
                    return false;
                if (isBasis ? by is null or <= 0 : by is < 0 or >= 100)
                    return false;
                product = isBasis ? product / by!.Value : product * (1 - ((by ?? 0) / 100));
            }
            return Math.Abs(Math.Abs(product) - Math.Abs(a.Number)) <= reads.Currency.MinorUnit * 0.5m && Math.Sign(product) == Math.Sign(a.Number);
        }
    }

    /// <summary>Says that texts under a heading can be values of a name.</summary>
    private static bool CanBe(string name, List<string> texts, Habits reads)
    {
        if (texts.Count == 0)
            return name is not ("position" or TradeNames.UnitPrice or TradeNames.Quantity or TradeNames.Amount);
        var most = (texts.Count + 1) / 2;
        return name switch
        {
            "position" => texts.Count(text => Position().IsMatch(text)) >= most,
            TradeNames.ItemCode => texts.Count(text => text.Any(char.IsAsciiDigit) || !text.Contains(' ', StringComparison.Ordinal)) >= most && texts.Count(text => Position().IsMatch(text)) < texts.Count + (texts.Count > 1 ? 0 : 1),
            TradeNames.Description => texts.Count(text => text.Any(char.IsLetter) && !DateReader.Read(text, reads.Dates).IsGood) >= most,
            TradeNames.Unit => texts.Count(text => !text.Any(char.IsAsciiDigit) || UnitWithFigure().IsMatch(text)) >= most && texts.All(text => text.Length <= 12),
            TradeNames.TaxRate => texts.Count(text => text.Length <= 2 && text.All(char.IsLetter)) >= most
                || texts.Count(text => Figures.Read(text, reads) is { Number: >= 0 and < 60 }) >= most,
            TradeNames.DiscountPercent => texts.Where(text => text.Any(char.IsAsciiDigit)).All(text => ItemsDraft.Discounts().IsMatch(text) || Figures.Read(text, reads) is { Number: >= 0 and <= 100 }),
            TradeNames.PriceBasis => texts.All(text => Figures.Read(text, reads) is { Number: 1 or 10 or 100 or 1000 }),
            _ => texts.Count(text => Figures.Read(text, reads) is not null) >= most,
        };
    }

    [GeneratedRegex(@"^\d{1,3}\.?$")]
    private static partial Regex Position();

    [GeneratedRegex(@"^\p{L}{1,4}[23²³]$")]
    private static partial Regex UnitWithFigure();
}
