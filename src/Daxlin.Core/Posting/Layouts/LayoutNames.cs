using System.Collections.Immutable;
using Daxlin.Core.Posting.Coding;
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
    /// <summary>The invoice's own date, or the one that is said for what is dated in a closed period.</summary>
    public const string PostingDate = "postingDate";
    public const string LineCount = "lineCount";
    public const string Batch = "batch";
    public const string ApprovedBy = "approvedBy";
    public const string ApprovedOn = "approvedOn";
    public const string TakenInOn = "takenInOn";
    public const string VendorAccount = "vendorAccount";
    public const string VendorTaxCode = "vendorTaxCode";
    public const string Entry = "entry";
    public const string Debit = "debit";
    public const string Credit = "credit";
    public const string EntryText = "entryText";

    private static readonly ImmutableDictionary<string, ExpressionType> OfInvoices = TradeNames.Fields.ToImmutableDictionary(name => name, ExpressionTypes.Of)
        .AddRange(Typed(
            ExpressionType.Text, PostingColumns.Kind, PostingColumns.Vendor, PostingColumns.File, PostingColumns.Document, Batch, ApprovedBy, VendorAccount, VendorTaxCode))
        .AddRange(Typed(ExpressionType.Number, PostingColumns.InvoiceId, LineCount, Run))
        .AddRange(Typed(ExpressionType.Date, PostedOn, PostingDate, ApprovedOn, TakenInOn))
        .Add(Reversal, ExpressionType.YesNo);

    private static readonly ImmutableDictionary<string, ExpressionType> OfLines = OfInvoices
        .SetItems(TradeNames.Columns.Select(name => KeyValuePair.Create(name, ExpressionTypes.Of(name))))
        .AddRange(Typed(ExpressionType.Number, PostingColumns.Line, PostingColumns.Page))
        .AddRange(Typed(ExpressionType.Text, CodeNames.All))
        .Add(PostingColumns.Block, ExpressionType.Text);

    /// <summary>What a line is coded by: what is known of it before it is approved.</summary>
    public static readonly ImmutableDictionary<string, ExpressionType> OfCoding =
        OfLines.RemoveRange([Run, PostedOn, PostingDate, Reversal, ApprovedBy, ApprovedOn, .. CodeNames.All]);

    /// <summary>What an invoice as a whole is flagged by.</summary>
    public static readonly ImmutableDictionary<string, ExpressionType> OfInvoiceCoding = OfInvoices.RemoveRange([Run, PostedOn, PostingDate, Reversal, ApprovedBy, ApprovedOn]);

    private static readonly ImmutableDictionary<string, ExpressionType> OfJournal = OfLines
        .AddRange(Typed(ExpressionType.Number, Entry, Debit, Credit))
        .Add(EntryText, ExpressionType.Text);

    private static readonly ImmutableDictionary<string, ExpressionType> OfTaxes = OfInvoices
        .SetItems(TradeNames.TaxColumns.Select(name => KeyValuePair.Create(name, ExpressionTypes.Of(name))));

    public static ImmutableDictionary<string, ExpressionType> Of(LayoutRecords records) => records switch
    {
        LayoutRecords.Lines => OfLines,
        LayoutRecords.Taxes => OfTaxes,
        LayoutRecords.Journal => OfJournal,
        _ => OfInvoices,
    };

    private static IEnumerable<KeyValuePair<string, ExpressionType>> Typed(ExpressionType type, params IEnumerable<string> names) =>
        names.Select(name => KeyValuePair.Create(name, type));
}
