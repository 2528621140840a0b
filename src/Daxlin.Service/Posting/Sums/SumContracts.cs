using System.Collections.Immutable;

namespace Daxlin.Service.Posting.Sums;

/// <summary>What approved and posted invoices come to.</summary>
/// <param name="By">As asked for: vendor, month, account, costCentre, project or taxCode.</param>
/// <param name="Groups">By currency; months in their order, anything else the largest first.</param>
/// <param name="Totals">What all of it comes to, by currency.</param>
public sealed record SumsRecord(string By, ImmutableArray<SumRow> Groups, ImmutableArray<SumRow> Totals);

/// <param name="Key">The vendor, the month as 2026-05, or the code; empty where there is none, and for the sum of all.</param>
/// <param name="Invoices">How many invoices have a part in it.</param>
/// <param name="Amount">Totals for vendors and months, amounts of lines for codes; credit notes are taken off.</param>
public sealed record SumRow(string Key, string Currency, int Invoices, string Amount);

/// <summary>One row behind a sum.</summary>
/// <param name="Line">The line's number; 0 for the invoice as a whole.</param>
public sealed record SumPart(int Invoice, string Vendor, string InvoiceNumber, string InvoiceDate, int Line, string Text, string Amount, string Currency);
