using System.Collections.Immutable;
using Daxlin.Core.Posting.Expressions;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Posting.Layouts;

/// <summary>The names that expressions of each kind of record can speak of.</summary>
public static class LayoutNames
{
    public const string Run = "run";
    public const string PostedOn = "postedOn";
    /// <summary>Yes in the run that takes back what an earlier one posted.</summary>
    public const string Reversal = "reversal";
    public const string LineCount = "lineCount";
    public const string Batch = "batch";
    public const string ApprovedBy = "approvedBy";
    public const string ApprovedOn = "approvedOn";
    public const string TakenInOn = "takenInOn";
    public const string VendorAccount = "vendorAccount";
    public const string VendorTaxCode = "vendorTaxCode";

    private static readonly ImmutableDictionary<string, ExpressionType> OfInvoices = TradeNames.Fields.ToImmutableDictionary(name => name, ExpressionTypes.Of)
        .AddRange(Typed(
            ExpressionType.Text, PostingColumns.Kind, PostingColumns.Vendor, PostingColumns.File, PostingColumns.Document, Batch, ApprovedBy, VendorAccount, VendorTaxCode))
        .AddRange(Typed(ExpressionType.Number, PostingColumns.InvoiceId, LineCount, Run))
        .AddRange(Typed(ExpressionType.Date, PostedOn, ApprovedOn, TakenInOn))
        .Add(Reversal, ExpressionType.YesNo);

    private static readonly ImmutableDictionary<string, ExpressionType> OfLines = OfInvoices
        .SetItems(TradeNames.Columns.Select(name => KeyValuePair.Create(name, ExpressionTypes.Of(name))))
        .AddRange(Typed(ExpressionType.Number, PostingColumns.Line, PostingColumns.Page))
        .Add(PostingColumns.Block, ExpressionType.Text);

    private static readonly ImmutableDictionary<string, ExpressionType> OfTaxes = OfInvoices
        .SetItems(TradeNames.TaxColumns.Select(name => KeyValuePair.Create(name, ExpressionTypes.Of(name))));

    public static ImmutableDictionary<string, ExpressionType> Of(LayoutRecords records) => records switch
    {
        LayoutRecords.Lines => OfLines,
        LayoutRecords.Taxes => OfTaxes,
        _ => OfInvoices,
    };

    private static IEnumerable<KeyValuePair<string, ExpressionType>> Typed(ExpressionType type, params IEnumerable<string> names) =>
        names.Select(name => KeyValuePair.Create(name, type));
}
