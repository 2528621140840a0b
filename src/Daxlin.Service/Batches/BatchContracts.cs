namespace Daxlin.Service.Batches;

/// <param name="Name">A clerk's own words, 1 to 100 characters; adding to a batch that exists is no fault.</param>
/// <param name="Group">Whose a new batch is; left out for nobody's in particular, or for the first group of one who is held to some.</param>
public sealed record BatchToOpen(string Name, string? Group = null);

/// <param name="Group">Whose it is from now on; empty for nobody's in particular.</param>
public sealed record GroupToGive(string? Group);

/// <summary>A batch with its counts.</summary>
/// <param name="Documents">How many documents it holds.</param>
/// <param name="Waiting">How many of them are not yet read.</param>
/// <param name="Unreadable">How many of them are set aside.</param>
/// <param name="Invoices">How many invoices in each state.</param>
/// <param name="Revision">Counts changes of its group and of what it is to come to; giving it to a group says by If-Match which one was seen.</param>
/// <param name="Group">Whose it is; empty if it is nobody's in particular.</param>
/// <param name="Recognising">How far the pages of its scans are that this service is at; null if it is at none.</param>
/// <param name="UnplacedVendors">Of how many vendors the unplaced ones look to be: so many templates would place them.</param>
public sealed record BatchSummary(
    int Id, string Name, DateTime CreatedAt, int Documents, int Waiting, int Unreadable, InvoiceCounts Invoices, int UnplacedVendors, string Group, int Revision, PagesUnderWay? Recognising);

/// <summary>Pages of scans that are being recognised at the moment.</summary>
/// <param name="Done">How many of them are.</param>
public sealed record PagesUnderWay(int Done, int Of);

/// <summary>How many invoices there are in each state.</summary>
public sealed record InvoiceCounts(int Unplaced, int Held, int Clear, int Approved, int Posted, int Returned)
{
    public int Total => Unplaced + Held + Clear + Approved + Posted + Returned;
}

/// <summary>What became of one file of an upload.</summary>
/// <param name="Outcome"><c>taken</c>, <c>already-here</c> (the batch holds the same bytes) or <c>refused</c>.</param>
/// <param name="Reason">A sentence if it was refused.</param>
/// <param name="Sha256">Empty if it was refused.</param>
public sealed record FileTaken(string File, string Outcome, string Reason, string Sha256);

/// <summary>A document of a batch.</summary>
/// <param name="State"><c>waiting</c>, <c>done</c> or <c>unreadable</c>.</param>
/// <param name="Reason">Why it is unreadable.</param>
public sealed record BatchDocument(
    int Id, string File, string Sha256, long Size, DateTime ReceivedAt, string State, int Pages, string ReasonCode, string Reason);
