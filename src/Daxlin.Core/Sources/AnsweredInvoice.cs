namespace Daxlin.Core.Sources;

/// <summary>What an answer says of an invoice, of a document that cannot be read, or of what was left out.</summary>
/// <param name="Name">An invoice's number, or the name of what it stood in.</param>
/// <param name="Total">With its currency; empty where there is none.</param>
/// <param name="State"><c>clear</c>, <c>held</c>, <c>unplaced</c>, <c>unreadable</c> or <c>left-out</c>; what was decided on already is <c>clear</c>.</param>
/// <param name="Why">Why it is not clear, as a sentence.</param>
public sealed record AnsweredInvoice(string Name, string Total, string State, string Why);
