using System.Globalization;
using Daxlin.Core.Templates;

namespace Daxlin.Service.Storage;

/// <summary>An invoice found in a document.</summary>
public sealed class Invoice : IRevised
{
    public int Id { get; set; }
    public int BatchId { get; set; }
    public int IntakeId { get; set; }
    public Intake Intake { get; set; } = null!;

    /// <summary>Its pages in the document, from 1; several invoices of one document have pages of their own.</summary>
    public int FirstPage { get; set; } = 1;
    public int LastPage { get; set; } = 1;
    public InvoiceState State { get; set; }
    public string Template { get; set; } = "";
    public int TemplateVersion { get; set; }
    public string Vendor { get; set; } = "";

    /// <summary>The vendor whose invoices an unplaced one looks like, or whose name stands out on it; empty if none does, and for others.</summary>
    public string LooksLike { get; set; } = "";

    /// <summary>What it looks like, as the bytes of <see cref="Core.Recognition.InvoiceLooks"/>; empty if it was captured by an earlier release.</summary>
    public byte[] Looks { get; set; } = [];

    public string InvoiceNumber { get; set; } = "";
    public string InvoiceDate { get; set; } = "";
    public string Currency { get; set; } = "";
    public string Total { get; set; } = "";

    /// <summary>When it is due, as yyyy-MM-dd; <see cref="NeverDue"/> if that is unknown, so that it comes last by date.</summary>
    public string DueDate { get; set; } = NeverDue;

    public const string NeverDue = "9999-12-31";

    /// <summary>The total in ten-thousandths of its currency's unit, to sort by and to add up; 0 if unknown.</summary>
    public long TotalSize { get; set; }

    private const decimal SizeOfUnit = 10_000m;

    /// <summary>The amount of a size, in its currency's unit.</summary>
    public static decimal AmountOf(long size) => size / SizeOfUnit;

    /// <summary>Who it was handed to; empty for nobody.</summary>
    public string HandedTo { get; set; } = "";

    /// <summary>Vendor and number without their punctuation, to see an invoice that comes twice; empty if unknown.</summary>
    public string SeenKey { get; set; } = "";

    /// <summary>Vendor, currency and total, to see one that comes again under another number; empty if unknown.</summary>
    public string LikeKey { get; set; } = "";

    /// <summary>The vendor's record; null for an unplaced invoice.</summary>
    public int? VendorId { get; set; }

    /// <summary>The account that is to be paid to, without blanks; empty if none was captured.</summary>
    public string Iban { get; set; } = "";

    /// <summary>What other invoices and the vendor's record can speak against, as JSON; empty for an unplaced invoice, or one of an earlier release.</summary>
    public string Stated { get; set; } = "";

    /// <summary>The ways of rounding under which its taxes hold.</summary>
    public TaxRoundings TaxRounding { get; set; } = TaxRoundings.Any;

    public bool IsCreditNote { get; set; }
    public int Lines { get; set; }

    /// <summary>How many findings hold it, and the first of them.</summary>
    public int Findings { get; set; }
    public string FirstFinding { get; set; } = "";

    /// <summary>The codes of what holds it, each once, parted by commas.</summary>
    public string HeldBy { get; set; } = "";

    /// <summary>How many numbers were captured, and how many of them stand in sums that hold.</summary>
    public int Numbers { get; set; }
    public int NumbersTied { get; set; }

    /// <summary>Says that a person corrected it, let something pass, or approved it although it was held.</summary>
    public bool IsTouched { get; set; }

    /// <summary>All that was captured and checked, as JSON.</summary>
    public string Record { get; set; } = "{}";

    /// <summary>The SHA-256 of the record that a person approved; empty until then. Posting takes exactly that.</summary>
    public string ApprovedSha256 { get; set; } = "";

    /// <summary>Who approved it first, where a second has to; empty if nobody did, or if none has to.</summary>
    public string FirstApprovedBy { get; set; } = "";

    /// <summary>For whom that person stood in; empty if for nobody.</summary>
    public string FirstApprovedFor { get; set; } = "";

    /// <summary>The SHA-256 of the record that was approved first: it counts as long as that is the invoice's.</summary>
    public string FirstApprovedSha256 { get; set; } = "";

    /// <summary>How it was captured, as JSON, for the signs of a changed layout; empty for what was not captured, or by an earlier release.</summary>
    public string Traits { get; set; } = "";

    /// <summary>By which rules, lists and layouts its lines were coded last; see <see cref="Posting.Coding.CodingFacts"/>.</summary>
    public string CodedBy { get; set; } = "";

    public required DateTime CapturedAt { get; set; }

    /// <summary>
    /// Counts its changes from 1. A decision is bound to the revision that was shown; a capture that comes out the same is
    /// no change.
    /// </summary>
    public int Revision { get; set; } = 1;

    /// <summary>Keeps what lists are sorted by in the form that a database sorts.</summary>
    /// <param name="dueDate">Empty if unknown.</param>
    public void SortBy(string dueDate)
    {
        DueDate = dueDate.Length == 0 ? NeverDue : dueDate;
        TotalSize = decimal.TryParse(Total, NumberStyles.AllowLeadingSign | NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var total)
            && Math.Abs(total) < long.MaxValue / SizeOfUnit ? (long)(total * SizeOfUnit) : 0;
    }
}
