using System.Collections.Immutable;
using Daxlin.Service.Invoices;

namespace Daxlin.Service.Captures;

/// <summary>A document that another program sent, and what was captured of it.</summary>
/// <param name="Id">Under which it is asked for again.</param>
/// <param name="State"><c>waiting</c>, <c>done</c> or <c>unreadable</c>.</param>
/// <param name="ReasonCode">Why it is unreadable: a stable word; empty if it is not.</param>
/// <param name="Reason">The same as a sentence.</param>
/// <param name="Notices">Who is told that it is captured.</param>
/// <param name="Invoices">All that it holds, in the order of their pages; none while it waits.</param>
public sealed record CaptureAnswer(
    int Id, string File, string Sha256, int BatchId, string Batch, string State, string ReasonCode, string Reason, ImmutableArray<CaptureNoticeRecord> Notices, ImmutableArray<InvoiceDetail> Invoices);

/// <param name="State"><c>waiting</c>, <c>sent</c> or <c>given-up</c>.</param>
/// <param name="Says">What the receiver said, or what stood in the way; empty before it was tried.</param>
public sealed record CaptureNoticeRecord(string Receiver, string State, string Says);

/// <summary>Where a document is fetched from.</summary>
/// <param name="Link">By https, at one of the hosts that whoever runs the service has named.</param>
public sealed record LinkToCapture(string? Link = null);
