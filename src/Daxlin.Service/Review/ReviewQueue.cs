using Daxlin.Service.Storage;
using Daxlin.Service.Web;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Review;

/// <summary>Which invoices of all batches are looked at, and in which order.</summary>
/// <param name="State">held if left out; unplaced, clear, approved, posted or returned; or approved-first for what one person approved and a second has to.</param>
/// <param name="Order">due if left out, earliest first; amount, largest first; vendor; or age, oldest first.</param>
/// <param name="Vendor">Only this vendor's.</param>
/// <param name="HandedTo">Only what was handed to this person.</param>
/// <param name="Search">Only those with these letters in number, vendor, total, file or first finding, whatever their case.</param>
/// <param name="MatchCase">Says that capitals count in the search.</param>
/// <param name="WholeWords">Says that the letters must stand there as words of their own: "12" is none of "BC-129".</param>
internal readonly record struct ReviewQueue(
    [FromQuery(Name = "state")] string? State, [FromQuery(Name = "order")] string? Order, [FromQuery(Name = "vendor")] string? Vendor,
    [FromQuery(Name = "handedTo")] string? HandedTo, [FromQuery(Name = "search")] string? Search,
    [FromQuery(Name = "matchCase")] bool MatchCase = false, [FromQuery(Name = "wholeWords")] bool WholeWords = false)
{
    /// <summary>What was approved first is held or clear still; it is looked for like a state of its own.</summary>
    private const string ApprovedFirst = "approved-first";

    private static readonly string[] Orders = ["due", "amount", "vendor", "age"];

    /// <summary>Why there is no such queue; null if there is.</summary>
    public Refused? Refusal() =>
        State is { } wanted && wanted != ApprovedFirst && !Enum.GetNames<InvoiceState>().Contains(wanted, StringComparer.OrdinalIgnoreCase)
            ? Refused.Faulty("state-unknown", $"“{State}” is no state of an invoice; there are unplaced, held, clear, approved, posted and returned, and approved-first for what a second approver has to look at.")
        : Order is not null && !Orders.Contains(Order)
            ? Refused.Faulty("order-unknown", $"“{Order}” is no order; there are due, amount, vendor and age.")
        : null;

    /// <summary>The invoices behind one, or from the first.</summary>
    /// <param name="last">The invoice that the part before ended with; null for the first part.</param>
    public IQueryable<Invoice> Of(DaxlinDb db, Invoice? last)
    {
        var rows = State == ApprovedFirst ? db.Invoices.Where(row => row.FirstApprovedBy != "" && (row.State == InvoiceState.Held || row.State == InvoiceState.Clear)) : InState(db);
        if (Vendor is { Length: > 0 } vendor)
            rows = rows.Where(row => row.Vendor == vendor);
        if (HandedTo is { Length: > 0 } person)
            rows = rows.Where(row => row.HandedTo == person);
        if (Search?.Trim() is { Length: > 0 } sought)
            rows = Found(rows, sought);
        return Ordered(rows, last);
    }

    private IQueryable<Invoice> InState(DaxlinDb db)
    {
        var state = State is null ? InvoiceState.Held : Enum.Parse<InvoiceState>(State, ignoreCase: true);
        return db.Invoices.Where(row => row.State == state);
    }

#pragma warning disable CA1304, CA1311 // The database makes letters small, and knows no cultures.
    private IQueryable<Invoice> Found(IQueryable<Invoice> rows, string sought)
    {
        if (WholeWords)
        {
            // Marks between words count as blanks, so that a word is what stands between two of them.
            var words = rows.Select(row => new
            {
                Row = row,
                Text = (" " + row.InvoiceNumber + " " + row.Vendor + " " + row.Total + " " + row.LooksLike + " " + row.FirstFinding + " " + row.Intake.FileName + " ")
                    .Replace(".", " ").Replace(",", " ").Replace("-", " ").Replace("/", " ").Replace(":", " ").Replace("(", " ").Replace(")", " ").Replace("_", " "),
            });
            var word = " " + string.Concat(sought.Select(c => ".,-/:()_".Contains(c, StringComparison.Ordinal) ? ' ' : c)) + " ";
            return (MatchCase ? words.Where(one => one.Text.Contains(word)) : words.Where(one => EF.Functions.Like(one.Text.ToLower(), Pattern(word), "\\"))).Select(one => one.Row);
        }
        if (MatchCase)
        {
            return rows.Where(row => row.InvoiceNumber.Contains(sought) || row.Vendor.Contains(sought) || row.Total.Contains(sought)
                || row.LooksLike.Contains(sought) || row.FirstFinding.Contains(sought) || row.Intake.FileName.Contains(sought));
        }
        var pattern = Pattern(sought);
        return rows.Where(row => EF.Functions.Like(row.InvoiceNumber.ToLower(), pattern, "\\") || EF.Functions.Like(row.Vendor.ToLower(), pattern, "\\") || EF.Functions.Like(row.Total.ToLower(), pattern, "\\")
            || EF.Functions.Like(row.LooksLike.ToLower(), pattern, "\\") || EF.Functions.Like(row.FirstFinding.ToLower(), pattern, "\\") || EF.Functions.Like(row.Intake.FileName.ToLower(), pattern, "\\"));
    }
#pragma warning restore CA1304, CA1311

    /// <remarks>Databases differ in which letters of <c>LIKE</c> are alike; all make A to Z small, and no other letter where texts are compared by their bytes.</remarks>
    private static string Pattern(string sought) =>
        "%" + string.Concat(sought.Select(c => char.IsAsciiLetterUpper(c) ? char.ToLowerInvariant(c) : c)).Replace("\\", "\\\\", StringComparison.Ordinal).Replace("%", "\\%", StringComparison.Ordinal).Replace("_", "\\_", StringComparison.Ordinal) + "%";

    private IQueryable<Invoice> Ordered(IQueryable<Invoice> rows, Invoice? last) =>
        Order switch
        {
            "amount" => (last is null ? rows : rows.Where(row => row.TotalSize < last.TotalSize || (row.TotalSize == last.TotalSize && row.Id > last.Id)))
                .OrderByDescending(row => row.TotalSize).ThenBy(row => row.Id),
            "vendor" => (last is null ? rows : rows.Where(row => string.Compare(row.Vendor, last.Vendor) > 0 || (row.Vendor == last.Vendor && row.Id > last.Id)))
                .OrderBy(row => row.Vendor).ThenBy(row => row.Id),
            "age" => (last is null ? rows : rows.Where(row => row.Id > last.Id)).OrderBy(row => row.Id),
            _ => (last is null ? rows : rows.Where(row => string.Compare(row.DueDate, last.DueDate) > 0 || (row.DueDate == last.DueDate && row.Id > last.Id)))
                .OrderBy(row => row.DueDate).ThenBy(row => row.Id),
        };
}
