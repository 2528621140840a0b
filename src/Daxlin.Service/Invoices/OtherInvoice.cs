using System.Globalization;
using Daxlin.Core.Checks;
using Daxlin.Service.Storage;

namespace Daxlin.Service.Invoices;

/// <summary>What of an invoice counts against another: little, since a vendor may have sent thousands over one amount.</summary>
internal sealed record OtherInvoice(int Id, int IntakeId, int FirstPage, InvoiceState State, int BatchId, string Number, string Date, string FileName, string Sha256)
{
    public static IQueryable<OtherInvoice> Of(IQueryable<Invoice> rows) => rows
        .Select(row => new OtherInvoice(row.Id, row.IntakeId, row.FirstPage, row.State, row.BatchId, row.InvoiceNumber, row.InvoiceDate, row.Intake.FileName, row.Intake.Sha256));

    /// <summary>Says that it was decided on, or taken in before an invoice.</summary>
    public bool ComesBefore(Invoice row) => State is InvoiceState.Approved or InvoiceState.Posted || IntakeId < row.IntakeId || (IntakeId == row.IntakeId && FirstPage < row.FirstPage);

    /// <summary>Says that one of its vendor, currency and total may be the same.</summary>
    public bool IsLike(string number, string date) => LikeBefore.AreAlike(number, DayOf(date), Number, DayOf(Date));

    private static DateOnly? DayOf(string date) => DateOnly.TryParseExact(date, "yyyy-MM-dd", CultureInfo.InvariantCulture, DateTimeStyles.None, out var day) ? day : null;
}
