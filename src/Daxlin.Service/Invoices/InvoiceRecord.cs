using System.Collections.Immutable;

namespace Daxlin.Service.Invoices;

/// <summary>All that was captured from an invoice and checked, in the interface's form. Amounts and dates are strings.</summary>
/// <param name="Kind"><c>invoice</c> or <c>creditNote</c>.</param>
/// <param name="Fields">Header values by name.</param>
/// <param name="Lines">Item rows in printed order.</param>
/// <param name="Taxes">Rows of the tax summary.</param>
/// <param name="Others">Rows of lists of their own, which no sum counts; each names its block.</param>
/// <param name="Findings">What a person must look at.</param>
/// <param name="Ties">The equations that were weighed.</param>
/// <param name="Tied">Names of the amounts that stand in an equation that holds: <c>total</c>, <c>lines[3].amount</c>.</param>
/// <param name="Unproved">Names of the captured numbers that stand in no equation: not checked by any sum.</param>
/// <param name="LeftOut">Printed lines inside the blocks that are no rows, and why.</param>
public sealed record InvoiceRecord(
    string Kind,
    ImmutableSortedDictionary<string, ValueRecord> Fields,
    ImmutableArray<LineRecord> Lines,
    ImmutableArray<LineRecord> Taxes,
    ImmutableArray<LineRecord> Others,
    ImmutableArray<FindingRecord> Findings,
    ImmutableArray<TieRecord> Ties,
    ImmutableArray<string> Tied,
    ImmutableArray<string> Unproved,
    ImmutableArray<LeftOutRecord> LeftOut)
{
    /// <summary>Sums of rows that are printed between the rows.</summary>
    public ImmutableArray<SumRecord> Sums { get; init; } = [];

    /// <summary>How far its numbers are proved.</summary>
    public ProofRecord Proof { get; init; } = new(0, 0, "");

    /// <summary>Names of header values that were found in a later of their whereabouts only, and stand in no equation that holds.</summary>
    public ImmutableArray<string> Unsure { get; init; } = [];

    /// <summary>Values that a person entered, by name.</summary>
    public ImmutableSortedDictionary<string, EnteredRecord> Entered { get; init; } = ImmutableSortedDictionary<string, EnteredRecord>.Empty;

    /// <summary>Captured rows that a person said are none.</summary>
    public ImmutableArray<StruckRecord> Struck { get; init; } = [];

    /// <summary>Findings that a person let pass.</summary>
    public ImmutableArray<AcceptedRecord> Accepted { get; init; } = [];

    /// <summary>What persons said of its lines' codes.</summary>
    public ImmutableArray<CodedByHandRecord> CodedByHand { get; init; } = [];

    /// <summary>The codes of its lines; empty where nothing codes them.</summary>
    public ImmutableArray<CodedLineRecord> Coding { get; init; } = [];

    /// <summary>The electronic invoices that the document carries.</summary>
    public ImmutableArray<ElectronicRecord> Electronic { get; init; } = [];

    public static InvoiceRecord Empty { get; } =
        new("invoice", ImmutableSortedDictionary<string, ValueRecord>.Empty, [], [], [], [], [], [], [], []);
}

/// <summary>How far an invoice's numbers are proved.</summary>
/// <param name="Numbers">How many were captured.</param>
/// <param name="Tied">How many of them stand in a sum that holds.</param>
/// <param name="Says">The same in a sentence, with the names of those that no sum checks; empty if an earlier release stored it.</param>
public sealed record ProofRecord(int Numbers, int Tied, string Says);

/// <summary>A captured value with its trace.</summary>
/// <param name="Raw">The text before tidying.</param>
/// <param name="Type">What kind of value it is: text, number, money, date …</param>
/// <param name="Page">The page it stands on, from 1; 0 for a constant of the template.</param>
/// <param name="Box">Where it stands, in points from the top left; null for a constant.</param>
/// <param name="Whereabouts">What found it.</param>
/// <param name="Confidence">From 0 to 1.</param>
/// <param name="Tidied">What each tidy step made of the text, in order.</param>
/// <param name="Also">Further places, where it goes on over a page break.</param>
public sealed record ValueRecord(
    string Value, string Raw, string Type, int Page, BoxRecord? Box, string Whereabouts, double Confidence,
    ImmutableArray<TidiedRecord> Tidied, ImmutableArray<PlaceRecord> Also);

/// <param name="Step">The step's name.</param>
/// <param name="Text">The text after it.</param>
public sealed record TidiedRecord(string Step, string Text);

/// <summary>A rectangle in PDF points, origin at the top left of the page as a person sees it.</summary>
public sealed record BoxRecord(double Left, double Top, double Right, double Bottom);

public sealed record PlaceRecord(int Page, BoxRecord Box);

/// <summary>A row of a line block.</summary>
/// <param name="Number">From 1.</param>
/// <param name="Under">Lists that stand under the row.</param>
public sealed record LineRecord(
    string Block, int Number, ImmutableSortedDictionary<string, ValueRecord> Cells, ImmutableArray<UnderRecord> Under);

/// <summary>A list under a row: delivery points, serial numbers.</summary>
/// <param name="Name">The list's name.</param>
/// <param name="Flat">What becomes of it where a file has one row a line: <c>joined</c> or <c>repeated</c>.</param>
/// <param name="Rows">Its rows, each with its cells by column.</param>
public sealed record UnderRecord(
    string Name, string Flat, ImmutableArray<ImmutableSortedDictionary<string, ValueRecord>> Rows);

/// <param name="Code">A stable word.</param>
/// <param name="Severity"><c>hold</c> or <c>note</c>.</param>
/// <param name="Message">A sentence with the figures in it.</param>
/// <param name="About">The values concerned.</param>
/// <param name="Origin">
/// What found it: <c>capture</c>, <c>check</c>, <c>tie</c> for figures that do not add up, <c>file</c> for the way in which a file was parted, <c>store</c> for what other
/// invoices say; empty if an earlier release stored it.
/// </param>
/// <param name="Passing">Whether a person may let it pass: <c>freely</c>, <c>forReason</c>, or <c>never</c>.</param>
/// <param name="Readings">What the value may be as well, where a picture was read in several ways; null elsewhere.</param>
public sealed record FindingRecord(string Code, string Severity, string Message, ImmutableArray<string> About, string Origin, string Passing = "never", IReadOnlyList<string>? Readings = null);

/// <summary>A sum of the rows above it that is printed between the rows.</summary>
/// <param name="Stated">As printed.</param>
/// <param name="Counted">What the rows come to.</param>
public sealed record SumRecord(string Block, string Text, int Page, BoxRecord Box, string Stated, string Counted);

/// <summary>A value that a person entered.</summary>
/// <param name="Value">Empty if the person said that there is none.</param>
/// <param name="Captured">What the newest capture says; empty for nothing.</param>
/// <param name="Raw">The text that was captured before tidying; empty for nothing.</param>
/// <param name="Place">Where what was captured is printed; null if it is not.</param>
public sealed record EnteredRecord(string Value, string Captured, string Raw, PlaceRecord? Place, string By, DateTime At);

/// <param name="List">The list that the row was captured in.</param>
public sealed record StruckRecord(string List, LineRecord Row, string By, DateTime At);

/// <param name="Reason">May be empty, but never for figures that do not add up.</param>
/// <param name="Origin">As in <see cref="FindingRecord"/>; empty unless it is what other invoices say.</param>
public sealed record AcceptedRecord(string Code, string Message, ImmutableArray<string> About, string Reason, string By, DateTime At, string Origin = "");

/// <param name="Left">What the captured amounts come to.</param>
/// <param name="Right">What the invoice states.</param>
/// <param name="Difference">Right less left.</param>
public sealed record TieRecord(
    string Equation, string Left, string Right, string Difference, bool Holds, ImmutableArray<string> About);

/// <param name="Why">page furniture, left out by the template, or not accounted for.</param>
public sealed record LeftOutRecord(string Block, int Page, BoxRecord Box, string Text, string Why);

/// <summary>What a person said of a line's codes, in the place of what rules say.</summary>
/// <param name="Line">Its number; 0 is the invoice as a whole, where it has no lines.</param>
public sealed record CodedByHandRecord(int Line, ImmutableArray<SaidShareRecord> Shares, string By, DateTime At);

/// <param name="Part">So many of all parts of the line.</param>
/// <param name="Codes">By name: account, costCentre, project, taxCode. What is absent is left to the rules.</param>
public sealed record SaidShareRecord(string Part, ImmutableSortedDictionary<string, string> Codes);

/// <summary>A line with its codes.</summary>
/// <param name="Line">Its number; 0 is the invoice as a whole, where it has no lines.</param>
/// <param name="Parts">One, or several that come to the line's amount.</param>
public sealed record CodedLineRecord(int Line, ImmutableArray<CodedPartRecord> Parts);

/// <param name="Amount">The line's amount, or this share of it.</param>
/// <param name="Part">So many of all parts of the line.</param>
/// <param name="Codes">By name: account, costCentre, project, taxCode; one that nothing says is absent.</param>
public sealed record CodedPartRecord(string Amount, string Part, ImmutableSortedDictionary<string, CodeRecord> Codes);

/// <param name="From">Who says it: "by hand", "as printed", or which rule.</param>
public sealed record CodeRecord(string Value, string From);
