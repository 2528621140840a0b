using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Electronic;

/// <summary>What stands in the place of a template for an invoice that came as an electronic one: its elements say what they are.</summary>
public static class ElectronicTemplate
{
    /// <summary>No template can be called so: its name has no blanks.</summary>
    public const string Name = "electronic invoice";

    private static readonly BlockRule Items = Block(BlockRule.Lines, TradeNames.Columns, TradeNames.Amount);
    private static readonly BlockRule Taxes = Block(BlockRule.Taxes, TradeNames.TaxColumns, TradeNames.Amount);

    /// <param name="vendor">As the invoice names it.</param>
    /// <param name="currency">The code as it is stated; one that ISO 4217 does not know is a finding of the capture.</param>
    public static Template Of(string vendor, string currency) => new(
        Name, vendor, new Habits(Currency.Find(currency) ?? new Currency(currency.Length > 0 ? currency : "XXX", 2), DateOrder.YearFirst, '.', ""), new RecognitionRule([], [], [], []), PageRule.Usual,
        [.. TradeNames.Fields.Select(name => new FieldRule(name, TradeNames.KindOf(name), [], null, [], TradeNames.IsRequiredField(name), false))],
        [Items, Taxes],
        new CheckRule(Rounding.HalfUp, 0, 0, 0));

    private static BlockRule Block(string list, IEnumerable<string> columns, string begins) => new(
        list, list, null, [], new BlockPlace(PageRange.All, 0, double.PositiveInfinity, []),
        [.. columns.Select(name => new ColumnRule(name, TradeNames.KindOf(name), new BetweenNeighbours(), null, Fold.None, [], false, false, false, true, false, true))],
        new BeginsFilled(begins, null), null, [], [], [], list == BlockRule.Lines);
}
