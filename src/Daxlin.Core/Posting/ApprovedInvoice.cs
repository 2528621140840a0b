using System.Collections.Immutable;
using System.Globalization;
using Daxlin.Core.Posting.Coding;
using Daxlin.Core.Posting.Expressions;
using Daxlin.Core.Templates;

namespace Daxlin.Core.Posting;

/// <summary>An approved invoice as it is posted.</summary>
/// <param name="Id">The invoice's number in Daxlin.</param>
/// <param name="File">The name of the file it came in.</param>
/// <param name="Sha256">Of that file's bytes.</param>
/// <param name="Fields">Header values by name, in their settled form.</param>
/// <param name="Taxes">Rows of the tax summary.</param>
/// <param name="Lines">Item rows: the block's name, the page the row begins on, cells by column.</param>
public sealed record ApprovedInvoice(
    int Id,
    string Vendor,
    bool IsCreditNote,
    string Currency,
    string File,
    string Sha256,
    IReadOnlyDictionary<string, string> Fields,
    ImmutableArray<ApprovedTax> Taxes,
    ImmutableArray<ApprovedLine> Lines)
{
    public ApprovedOrigin Origin { get; init; } = ApprovedOrigin.Unknown;

    /// <summary>The codes of its lines; empty if it was not coded.</summary>
    public ImmutableArray<CodedLine> Coding { get; init; } = [];

    /// <summary>As printed; 0 if none is.</summary>
    public decimal Total => AmountOf(TradeNames.Total) ?? 0;

    /// <summary>The stated tax, or what its rows come to where no sum of them is stated.</summary>
    public decimal Tax => AmountOf(TradeNames.Tax) ?? Taxes.Sum(row => row.Amount);

    /// <summary>The invoice's own date; null if it has none.</summary>
    public DateOnly? InvoiceDate => ExpressionType.Date.Read(Fields.GetValueOrDefault(TradeNames.InvoiceDate, "")) as DateOnly?;

    /// <summary>The day that it is posted on, or was.</summary>
    public DateOnly? PostingDate => Origin.PostingDate ?? InvoiceDate;

    /// <summary>The invoice with the day that a run posts it on.</summary>
    /// <returns>Null where its day lies in a closed period and the run says no other.</returns>
    public ApprovedInvoice? PostedBy(PostingDates dates) => dates.IsClosed(PostingDate) && dates.Otherwise is null ? null
        : this with { Origin = Origin with { PostingDate = dates.Of(PostingDate) } };

    private decimal? AmountOf(string name) =>
        Fields.TryGetValue(name, out var settled)
            ? decimal.Parse(settled, NumberStyles.AllowLeadingSign | NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture)
            : null;
}
