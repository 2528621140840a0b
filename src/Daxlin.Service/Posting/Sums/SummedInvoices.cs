using System.Collections.Immutable;
using System.Globalization;
using System.Text.Json;
using Daxlin.Core.Posting;
using Daxlin.Core.Posting.Expressions;
using Daxlin.Core.Posting.Sums;
using Daxlin.Service.Storage;
using Daxlin.Service.Web;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Posting.Sums;

/// <summary>Which invoices are added up, and by what.</summary>
/// <param name="By">account if left out; vendor, month, costCentre, project or taxCode.</param>
/// <param name="State">approved or posted; both if left out.</param>
/// <param name="From">Dated on this day or later.</param>
/// <param name="To">Dated on this day or earlier.</param>
/// <param name="Batch">Only those of this batch.</param>
internal readonly record struct SummedInvoices(
    [FromQuery(Name = "by")] string? By, [FromQuery(Name = "state")] string? State, [FromQuery(Name = "from")] DateOnly? From, [FromQuery(Name = "to")] DateOnly? To,
    [FromQuery(Name = "batch")] int? Batch)
{
    /// <summary>So many are added up in one answer; each record is read.</summary>
    private const int Most = 20_000;

    private static readonly ImmutableArray<string> Words = [.. Enum.GetValues<SumBy>().Select(by => JsonNamingPolicy.CamelCase.ConvertName(by.ToString()))];

    /// <summary>As the interface names it.</summary>
    public string Word => By ?? "account";

    public SumBy What => Enum.Parse<SumBy>(Word, ignoreCase: true);

    /// <summary>Why nothing is added up; null if something is.</summary>
    public async Task<Refused?> Refusal(DaxlinDb db, CancellationToken cancel)
    {
        if (!Words.Contains(Word))
            return Refused.Faulty("sum-unknown", $"Sums are by {string.Join(", ", Words)}; “{By}” is none of them.");
        if (State is not (null or "approved" or "posted"))
            return Refused.Faulty("state-unknown", $"Sums are of what is approved or posted; “{State}” is neither.");
        if (Batch is { } batch && !await db.Batches.AnyAsync(one => one.Id == batch, cancel))
            return Refused.NotThere($"batch {batch}");
        var count = await Of(db).CountAsync(cancel);
        return count <= Most ? null : Refused.Conflict("too-many", string.Create(CultureInfo.InvariantCulture, $"{count:N0} invoices would be added up; at most {Most:N0} are. Say a shorter time, or a batch."));
    }

    private IQueryable<Invoice> Of(DaxlinDb db)
    {
        var (state, batch) = (State, Batch);
        var rows = db.Invoices.AsNoTracking().Where(row => (batch == null || row.BatchId == batch)
            && ((state != "posted" && row.State == InvoiceState.Approved) || (state != "approved" && row.State == InvoiceState.Posted)));
        // Dates are kept in their settled form, which sorts as they do.
        if (From is { } from && ExpressionTypes.Settled(from) is var first)
            rows = rows.Where(row => string.Compare(row.InvoiceDate, first) >= 0);
        if (To is { } to && ExpressionTypes.Settled(to) is var last)
            rows = rows.Where(row => string.Compare(row.InvoiceDate, last) <= 0);
        return rows;
    }

    /// <summary>Each invoice with its codes, in the order of their numbers.</summary>
    public async IAsyncEnumerable<ApprovedInvoice> Read(DaxlinDb db, [System.Runtime.CompilerServices.EnumeratorCancellation] CancellationToken cancel)
    {
        var ids = await Of(db).OrderBy(row => row.Id).Select(row => row.Id).ToListAsync(cancel);
        await foreach (var (invoice, _, _) in ApprovedInvoices.Read(db, ids, ImmutableDictionary<int, ApprovedOrigin>.Empty, cancel))
            yield return invoice;
    }
}
