namespace Daxlin.Core.Posting.Coding;

/// <summary>One entry of an invoice's journal (double-entry bookkeeping: what is owed and what it was for, each once).</summary>
/// <param name="Amount">A debit above 0, a credit below.</param>
/// <param name="Text">What it is of: the line's description, "Tax at 20 %", the vendor.</param>
/// <param name="Of">The line or the invoice that it is of, with its codes.</param>
public sealed record JournalEntry(decimal Amount, string Text, PostingRecord Of);
