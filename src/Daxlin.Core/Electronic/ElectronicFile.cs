namespace Daxlin.Core.Electronic;

/// <summary>An electronic invoice that a document carries.</summary>
/// <param name="Name">The file's name within the document.</param>
/// <param name="Invoice">What it states; null if it cannot be read.</param>
/// <param name="Fault">Why it cannot be read, as a sentence; empty if it can.</param>
public sealed record ElectronicFile(string Name, ElectronicInvoice? Invoice, string Fault);
