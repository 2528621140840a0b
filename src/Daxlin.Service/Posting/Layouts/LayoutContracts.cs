using System.Collections.Immutable;
using System.Text.Json;
using Daxlin.Core.Posting.Layouts;
using Daxlin.Service.NamedDocuments;

namespace Daxlin.Service.Posting.Layouts;

/// <param name="Format"><c>csv</c>, <c>fixed-width</c>, <c>xlsx</c>, <c>json</c>, <c>ndjson</c> or <c>ubl</c>; empty for a document that cannot be read any more.</param>
/// <param name="Runs">How many runs were made by it, whichever version.</param>
public sealed record LayoutSummary(string Name, int Version, DateTime SavedAt, string SavedBy, string Note, bool IsRetired, string Format, int Runs);

/// <param name="Newest">The newest version's number, which acts are bound to.</param>
/// <param name="Text">The document as it was saved.</param>
public sealed record LayoutDetail(string Name, int Version, int Newest, DateTime SavedAt, string SavedBy, string Note, bool IsRetired, string Text);

/// <param name="Runs">How many runs were made by this version.</param>
public sealed record LayoutVersionRecord(int Version, DateTime SavedAt, string SavedBy, string Note, bool IsRetired, int Runs);

/// <summary>What the columns of some records can speak of.</summary>
/// <param name="Records"><c>invoices</c>, <c>lines</c>, <c>taxes</c> or <c>journal</c>.</param>
public sealed record OfferedNames(string Records, ImmutableArray<OfferedName> Names)
{
    internal static OfferedNames Of(LayoutRecords records) => new(
        records.Word(),
        [.. LayoutNames.Of(records).OrderBy(name => name.Key, StringComparer.OrdinalIgnoreCase).Select(name => new OfferedName(name.Key, JsonNamingPolicy.CamelCase.ConvertName(name.Value.ToString())))]);
}

/// <param name="Type"><c>number</c>, <c>text</c>, <c>date</c> or <c>yesNo</c>.</param>
public sealed record OfferedName(string Name, string Type);

/// <summary>What can be said of files of a format.</summary>
/// <param name="Format">As in the layout's <c>format</c>.</param>
/// <param name="Keys">The keys of <c>file</c> that leave a choice.</param>
/// <param name="BeginsWithHeadings">Its files begin with the columns' headings unless the layout says otherwise.</param>
public sealed record OfferedFormat(string Format, ImmutableArray<string> Keys, bool BeginsWithHeadings)
{
    internal static OfferedFormat Of(FileFormat format) => new(format.Word(), [.. FileKeys.Of(format)], FileKeys.BeginsWithHeadings(format));
}

/// <summary>A layout to be tried; nothing is stored.</summary>
/// <param name="Document">The layout's document, as text.</param>
/// <param name="Invoices">On these invoices; left out for those approved or posted last, or captured last where none is.</param>
public sealed record LayoutToTry(string? Document = null, ImmutableArray<int>? Invoices = null);

/// <summary>What a layout makes of some invoices.</summary>
/// <param name="Name">Empty if the document has faults.</param>
/// <param name="DocumentFaults">What is wrong with the document; then it is tried on nothing.</param>
/// <param name="Invoices">On which invoices it was tried.</param>
/// <param name="Faults">What cannot be written, or comes to something other than the invoices do.</param>
public sealed record TriedLayout(
    string Name, ImmutableArray<DocumentFaultRecord> DocumentFaults, ImmutableArray<TriedInvoice> Invoices, ImmutableArray<TriedTable> Tables, ImmutableArray<RehearsedFile> Files,
    ImmutableArray<ProvedSumRecord> Proved, ImmutableArray<string> Faults);

/// <param name="IsTaken">Whether a run by the layout would take it.</param>
public sealed record TriedInvoice(int Id, string Vendor, string InvoiceNumber, bool IsTaken);

/// <param name="Rows">Each record's cells as text, the first hundred.</param>
/// <param name="Records">How many there are in all.</param>
public sealed record TriedTable(string Name, string Records, ImmutableArray<TriedColumn> Columns, ImmutableArray<ImmutableArray<string>> Rows, int Count);

/// <param name="Type"><c>number</c>, <c>text</c>, <c>date</c> or <c>yesNo</c>.</param>
/// <param name="Proves"><c>total</c>, <c>lines</c>, <c>tax</c> or <c>journal</c>; empty for nothing.</param>
public sealed record TriedColumn(string Heading, string Type, string Proves);
