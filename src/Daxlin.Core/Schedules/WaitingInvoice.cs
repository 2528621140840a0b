namespace Daxlin.Core.Schedules;

/// <summary>An invoice that a person has to look at.</summary>
/// <param name="Name">Its vendor and number, or the file's name where those are not known.</param>
/// <param name="Total">With its currency; empty where none was captured.</param>
/// <param name="Why">The first finding, with its figures.</param>
public sealed record WaitingInvoice(string Name, string Total, string Batch, string Why);
