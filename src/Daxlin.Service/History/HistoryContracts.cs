namespace Daxlin.Service.History;

/// <summary>An entry of the history.</summary>
/// <param name="Id">Its place among all entries, rising.</param>
/// <param name="Stream">Of what it tells: <c>invoice/12</c>, <c>vendor/3</c>, <c>template/brinewood-standard</c>.</param>
/// <param name="Number">Its place in its stream, from 1.</param>
/// <param name="By">Who did it; Daxlin for what the service does by itself.</param>
/// <param name="Act">A stable word: captured, corrected, approved.</param>
/// <param name="What">The same in words.</param>
/// <param name="Letter">What the vendor was told; empty where nothing was.</param>
/// <param name="Content">The SHA-256 of what it came to; empty for none.</param>
/// <param name="Hash">By which it hangs on the entry before it in its stream.</param>
public sealed record HistoryEntryRecord(
    int Id, string Stream, int Number, DateTime At, string By, string Act, string What, string Before, string After, string Reason, string Letter, string Content, string Hash);

/// <summary>What came of going through the history.</summary>
/// <param name="Entries">How many entries hold.</param>
/// <param name="Seals">How many of them are seals.</param>
/// <param name="Approved">How many approved invoices were compared with what was approved.</param>
/// <param name="NewestSeal">Note it down: a history that ends in another seal later has lost its end.</param>
/// <param name="Stream">Where the first broken link is; empty if all hold.</param>
/// <param name="Entry">The entry that shows it; 0 for none.</param>
/// <param name="Sentence">What is wrong; empty if nothing is.</param>
public sealed record HistoryVerified(bool IsWhole, int Entries, int Seals, int Approved, string NewestSeal, string Stream, int Entry, string Sentence);
