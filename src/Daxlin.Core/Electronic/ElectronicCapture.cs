using System.Collections.Immutable;
using Daxlin.Core.Capture;
using Daxlin.Core.Checks;
using Daxlin.Core.Templates;
using Daxlin.Core.Values;

namespace Daxlin.Core.Electronic;

/// <summary>Takes an invoice from a document that is an electronic one. Its values are checked like any other's.</summary>
public static class ElectronicCapture
{
    public static CapturedInvoice Capture(ElectronicSheet sheet)
    {
        var invoice = sheet.Invoice;
        var stated = invoice.TextOf(TradeNames.Currency);
        var template = ElectronicTemplate.Of(invoice.TextOf(TradeNames.VendorName), stated);
        return new CapturedInvoice(
            template, invoice.IsCreditNote,
            ValuesOf(invoice.Fields.Where(value => value.Name != ElectronicInvoice.TaxedSum && !SaysNothing(value)), sheet, template),
            [.. invoice.Lines.Select((row, index) => RowOf(BlockRule.Lines, index + 1, row, sheet, template))],
            [.. invoice.Taxes.Select((row, index) => RowOf(BlockRule.Taxes, index + 1, row, sheet, template))],
            [], [], [],
            [.. Doubts(invoice, stated)]);
    }

    private static IEnumerable<Finding> Doubts(ElectronicInvoice invoice, string stated)
    {
        if (Currency.Find(stated) is null)
        {
            yield return Finding.Hold(
                "currency-differs", stated.Length == 0 ? "The electronic invoice states no currency." : $"The electronic invoice states its amounts in {stated}, which is no currency of ISO 4217.", TradeNames.Currency);
        }
        if (invoice.TextOf(TradeNames.VendorName).Length == 0)
            yield return Finding.Hold("value-missing", "The electronic invoice does not name its vendor.", TradeNames.VendorName);
    }

    /// <summary>A discount, a charge or a payment of nothing is none: producers state them though there are none.</summary>
    private static bool SaysNothing(StatedValue value) =>
        value is { Number: 0, Name: TradeNames.Discount or TradeNames.Freight or TradeNames.AlreadyPaid };

    private static CapturedLine RowOf(string list, int number, StatedRow row, ElectronicSheet sheet, Template template) =>
        new(list, number, ValuesOf(row.Values, sheet, template));

    /// <summary>The first value of each name: accounts and gross prices beyond that are on the sheet.</summary>
    private static ImmutableArray<CapturedValue> ValuesOf(IEnumerable<StatedValue> values, ElectronicSheet sheet, Template template) =>
        [.. values.DistinctBy(value => value.Name).Select(value => new CapturedValue(
            value.Name, value.Kind,
            value is { Kind: ValueKind.Money, Number: { } amount } ? template.Reads.Currency.Settled(amount) : value.Value, value.Number,
            new Trace(sheet.PlacesOf(value), value.Path.Length > 0 ? value.Path : "worked out of its parts", value.Value, 1)))];
}
