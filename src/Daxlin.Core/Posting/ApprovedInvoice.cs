using System.Collections.Immutable;

namespace Daxlin.Core.Posting;

/// <summary>An approved invoice as it is posted.</summary>
/// <param name="Id">The invoice's number in Daxlin.</param>
/// <param name="File">The name of the file it came in.</param>
/// <param name="Sha256">Of that file's bytes.</param>
/// <param name="Fields">Header values by name, in their settled form.</param>
/// <param name="Taxes">The amounts of the tax summary.</param>
/// <param name="Lines">Item rows: the block's name, the page the row begins on, cells by column.</param>
public sealed record ApprovedInvoice(
    int Id,
    string Vendor,
    bool IsCreditNote,
    string Currency,
    string File,
    string Sha256,
    ImmutableDictionary<string, string> Fields,
    ImmutableArray<decimal> Taxes,
    ImmutableArray<ApprovedLine> Lines);
