using System.Collections.Immutable;
using Daxlin.Core.Posting;
using Daxlin.Core.Posting.Layouts;
using Daxlin.Service.Posting.Files;

namespace Daxlin.Service.Posting;

/// <summary>What was written for some invoices.</summary>
/// <param name="Files">Empty if something cannot be written.</param>
/// <param name="Posted">The invoices that were written, with the hash of their values.</param>
/// <param name="Left">How many invoices the layout does not take.</param>
/// <param name="Faults">Why something cannot be written, the first hundred.</param>
/// <param name="Undated">Invoices that are dated in a closed period, for which no posting date is said.</param>
/// <param name="Altered">Invoices of which the values are not those that were approved.</param>
internal sealed record PostingWork(
    ImmutableArray<WrittenFile> Files, ImmutableArray<PostedContent> Posted, int Left, ControlTotals Totals, ImmutableArray<ProvedSum> Sums, ImmutableArray<LayoutFault> Faults,
    ImmutableArray<UndatedInvoice> Undated, ImmutableArray<int> Altered);

/// <summary>An invoice that cannot be posted on its own date.</summary>
internal sealed record UndatedInvoice(int Invoice, string Number, DateOnly? Date);

/// <summary>One invoice of a run.</summary>
internal sealed record PostedContent(int Invoice, string Sha256, ApprovedOrigin Origin);
