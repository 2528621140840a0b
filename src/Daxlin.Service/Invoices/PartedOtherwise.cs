using System.Globalization;
using Daxlin.Core.Checks;
using Daxlin.Service.Storage;

namespace Daxlin.Service.Invoices;

/// <summary>An invoice on which a person has worked, whose first page begins no invoice any more since its document was captured anew.</summary>
/// <remarks>
/// It keeps what was said of it, and can be neither corrected nor approved: its pages belong to another invoice now, and would be
/// posted twice. It is set aside, or is whole again when the document is parted as before.
/// </remarks>
internal static class PartedOtherwise
{
    public const string Code = "parted-otherwise";

    /// <param name="others">The invoices that its pages belong to now, in their order.</param>
    public static void Hold(Invoice row, IEnumerable<Invoice> others)
    {
        var now = string.Join(" and ", others.Select(other => $"invoice {Text(other.Id)}"));
        var pages = row.FirstPage == row.LastPage ? $"Page {Text(row.FirstPage)} of its file belongs" : $"Pages {Text(row.FirstPage)} to {Text(row.LastPage)} of its file belong";
        var finding = new FindingRecord(
            Code, "hold",
            $"{pages} to {(now.Length > 0 ? now : "no invoice")} since the file was captured anew. What was said of this one is kept here: take it over there, and set this one aside.",
            [], InvoiceRecords.FromFile)
        {
            Passing = InvoiceRecords.Word(Passing.Never),
        };
        var record = InvoiceRecords.FromJson(row.Record);
        record = record with { Findings = [finding, .. record.Findings.Where(one => one.Code != Code)] };
        row.Record = InvoiceRecords.ToJson(record);
        (row.State, row.Findings, row.FirstFinding, row.HeldBy) = InvoiceRecords.HeldBy(record);
    }

    public static bool IsSo(Invoice row) => row.HeldBy.Split(',').Contains(Code);

    private static string Text(int number) => number.ToString(CultureInfo.InvariantCulture);
}
