using System.Collections.Immutable;

namespace Daxlin.Service.Rehearsals;

/// <summary>A template draft to rehearse. Nothing is changed by it.</summary>
/// <param name="Template">The document as text, so that faults are named by their lines.</param>
/// <param name="Batch">The batch whose invoices are taken; left out, those of all batches.</param>
public sealed record DraftToRehearse(string? Template, int? Batch);

/// <summary>How far a rehearsal is, and what it has found.</summary>
/// <param name="Template">The template's name.</param>
/// <param name="BaseVersion">The newest version when it began, which the invoices are compared with; 0 for a new template.</param>
/// <param name="State">running, done, stopped or failed.</param>
/// <param name="Failure">Why it failed, as a sentence; else empty.</param>
/// <param name="Documents">How many documents it goes over.</param>
/// <param name="Done">How many of them are done.</param>
/// <param name="Unreadable">How many of them could not be read.</param>
public sealed record RehearsalSummary(
    int Id, string Template, int BaseVersion, int? Batch, DateTime At, string By, string State, string Failure, int Documents, int Done, int Unreadable,
    RecognitionCounts Recognition, RehearsalCounts Invoices);

/// <summary>Which invoices a draft recognises: all of its own, it should be, and none of other templates.</summary>
/// <param name="Own">How many invoices were gone over that its earlier versions captured.</param>
/// <param name="OwnRecognised">How many of them it recognises.</param>
/// <param name="Others">How many invoices were gone over that other templates captured: the newest of each.</param>
/// <param name="OthersRecognised">How many of them it would claim, alone or beside their own.</param>
public sealed record RecognitionCounts(int Own, int OwnRecognised, int Others, int OthersRecognised);

/// <summary>Invoices by what would become of them, the gravest first.</summary>
/// <param name="DecidedChanges">Approved or posted, with values that come out otherwise.</param>
/// <param name="ClearChanges">Clear, with values that come out otherwise.</param>
/// <param name="Lost">Captured before, recognised no more or by another template.</param>
/// <param name="Worse">The same values, but held.</param>
/// <param name="HeldChanges">Held, with other values, and still held.</param>
/// <param name="Better">Captured where it was unplaced, or clear where it was held.</param>
/// <param name="Same">As before.</param>
public sealed record RehearsalCounts(int DecidedChanges, int ClearChanges, int Lost, int Worse, int HeldChanges, int Better, int Same);

/// <summary>An invoice that would come out otherwise.</summary>
/// <param name="Verdict">decidedChanges, clearChanges, lost, worse, heldChanges or better.</param>
/// <param name="Before">Its state now.</param>
/// <param name="After">unplaced, held or clear.</param>
/// <param name="FirstFinding">What would hold it first; empty if nothing.</param>
/// <param name="Changes">Value by value.</param>
public sealed record RehearsedInvoiceRecord(
    int Invoice, string File, int Batch, string Vendor, string InvoiceNumber, string Currency, string Verdict, string Before, string After, string FirstFinding,
    ImmutableArray<ValueChangeRecord> Changes);

/// <param name="Name">As findings name it: <c>total</c>, <c>lines[3].amount</c>; a whole row is <c>lines[3]</c>.</param>
/// <param name="Column">The same without the numbers of rows: changes of one column are one to a person.</param>
/// <param name="Before">Empty where it was not there.</param>
/// <param name="After">Empty where it is there no more.</param>
public sealed record ValueChangeRecord(string Name, string Column, string Before, string After);
