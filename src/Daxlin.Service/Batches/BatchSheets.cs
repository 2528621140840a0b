using System.Collections.Immutable;
using System.Globalization;
using System.Text.Json;
using Daxlin.Core.Checks;
using Daxlin.Core.History;
using Daxlin.Core.Values;
using Daxlin.Service.History;
using Daxlin.Service.Invoices;
using Daxlin.Service.Storage;
using Daxlin.Service.Web;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Batches;

/// <summary>Works out what a batch comes to, and keeps what a clerk says it should.</summary>
internal static class BatchSheets
{
    private const int MostHeld = 500;
    private const int MostTotals = 50;

    /// <returns>Null if there is no such batch.</returns>
    public static async Task<BatchSheet?> Of(int id, DaxlinDb db, CancellationToken cancel)
    {
        if (await db.Batches.AsNoTracking().SingleOrDefaultAsync(row => row.Id == id, cancel) is not { } batch)
            return null;
        var rows = db.Invoices.AsNoTracking().Where(row => row.BatchId == id);
        var groups = await rows.GroupBy(row => new { row.State, row.Vendor, row.Currency, row.IsTouched })
            .Select(group => new Group(
                group.Key.State, group.Key.Vendor, group.Key.Currency, group.Key.IsTouched, group.Count(),
                group.Sum(row => row.IsCreditNote ? -Math.Abs(row.TotalSize) : row.TotalSize)))
            .ToListAsync(cancel);
        var open = rows.Where(row => row.State == InvoiceState.Held || row.State == InvoiceState.Unplaced);
        var reasons = await open.GroupBy(row => row.HeldBy).Select(group => new { Codes = group.Key, Count = group.Count() }).ToListAsync(cancel);
        var held = await open.OrderBy(row => row.Intake.FileName).ThenBy(row => row.FirstPage).Take(MostHeld)
            .Select(row => new { row.Id, row.Intake.FileName, row.Vendor, row.LooksLike, row.InvoiceNumber, row.State, row.FirstFinding, row.Findings }).ToListAsync(cancel);
        var intakes = db.Intakes.AsNoTracking().Where(row => row.BatchId == id);
        var aside = await intakes.Where(row => row.State == IntakeState.Unreadable).OrderBy(row => row.FileName).Take(MostHeld).Select(row => new SetAsideFile(row.FileName, row.Reason)).ToListAsync(cancel);
        return new BatchSheet(
            batch.Id, batch.Name, batch.CreatedAt, batch.Revision, await intakes.CountAsync(cancel), await intakes.CountAsync(row => row.State == IntakeState.Waiting, cancel),
            [
                .. groups.GroupBy(group => (group.State, group.Currency)).OrderBy(all => all.Key.State).ThenBy(all => all.Key.Currency, StringComparer.Ordinal)
                    .Select(all => new StateTotal(InvoiceDetails.Word(all.Key.State), all.Key.Currency, all.Sum(one => one.Count), Amount(all.Sum(one => one.Size), all.Key.Currency))),
            ],
            [
                .. groups.Where(group => group.Vendor.Length > 0 && group.State != InvoiceState.Returned).GroupBy(group => (group.Vendor, group.Currency))
                    .OrderBy(all => all.Key.Vendor, StringComparer.Ordinal).ThenBy(all => all.Key.Currency, StringComparer.Ordinal)
                    .Select(all => new VendorTotal(
                        all.Key.Vendor, all.Key.Currency, all.Sum(one => one.Count), all.Where(one => one.WentUntouched).Sum(one => one.Count),
                        all.Where(one => one.State == InvoiceState.Held).Sum(one => one.Count), Amount(all.Sum(one => one.Size), all.Key.Currency))),
            ],
            Reasons(reasons.Select(one => (one.Codes, one.Count))),
            [.. held.Select(row => new HeldInvoice(row.Id, row.FileName, row.Vendor.Length > 0 ? row.Vendor : row.LooksLike, row.InvoiceNumber, InvoiceDetails.Word(row.State), row.FirstFinding, row.Findings))],
            Compared(Stated(batch), groups.FindAll(group => group.State != InvoiceState.Returned)), [.. aside]);
    }

    /// <summary>How many invoices each kind of finding holds, the most frequent first.</summary>
    /// <param name="held">Codes of invoices, parted by commas, and how many have the same.</param>
    public static ImmutableArray<ReasonCount> Reasons(IEnumerable<(string Codes, int Count)> held) =>
    [
        .. held.SelectMany(one => one.Codes.Split(',', StringSplitOptions.RemoveEmptyEntries).Select(code => (code, one.Count))).GroupBy(one => one.code)
            .Select(group => new ReasonCount(group.Key, FindingWords.Of(group.Key), group.Sum(one => one.Count)))
            .OrderByDescending(reason => reason.Invoices).ThenBy(reason => reason.Code, StringComparer.Ordinal),
    ];

    public static Refused? FaultOf(TotalsToState wanted)
    {
        if (wanted.Totals.IsDefault || wanted.Totals.Length > MostTotals)
            return Refused.Faulty("totals-faulty", $"Say in “totals” what the batch is to come to, in {MostTotals} currencies at most.");
        foreach (var total in wanted.Totals)
        {
            if (Currency.Find(total.Currency ?? "") is null)
                return Refused.Faulty("totals-faulty", $"“{total.Currency}” is no currency of ISO 4217; one is EUR.");
            if (total.Invoices is < 0 || (total.Sum is { } sum && Number(sum) is null))
                return Refused.Faulty("totals-faulty", $"“{total.Sum}” is no sum, or {total.Invoices} no count; a sum is written as 1204.50.");
        }
        return wanted.Totals.DistinctBy(total => total.Currency.ToUpperInvariant()).Count() == wanted.Totals.Length ? null
            : Refused.Faulty("totals-faulty", "Each currency has one control total.");
    }

    /// <summary>Keeps control totals that have no fault.</summary>
    public static async Task State(Batch batch, TotalsToState wanted, string who, DaxlinDb db, DateTime now, CancellationToken cancel)
    {
        ImmutableArray<StatedTotal> totals = [.. wanted.Totals.Select(total => total with { Currency = total.Currency.ToUpperInvariant(), Sum = total.Sum is null ? null : Number(total.Sum)!.Value.ToString(CultureInfo.InvariantCulture) })];
        var (before, after) = (Told(Stated(batch)), Told(totals));
        if (before == after)
            return;
        batch.ControlTotals = JsonSerializer.Serialize(totals);
        batch.Revision++;
        await HistoryLog.Record(db, new Deed(HistoryStreams.Batch(batch.Id), now, who, HistoryActs.TotalsStated, "stated control totals") { Before = before, After = after }, cancel);
        await db.SaveChangesAsync(cancel);
    }

    private static ImmutableArray<StatedTotal> Stated(Batch batch) => JsonSerializer.Deserialize<ImmutableArray<StatedTotal>>(batch.ControlTotals);

    private static string Told(ImmutableArray<StatedTotal> totals) => string.Join("; ", totals.Select(total =>
        (total.Invoices is { } count ? Counted(count) : "any number of invoices") + (total.Sum is { } sum ? $" over {Currency.Find(total.Currency)!.Show(Number(sum)!.Value)}" : $" in {total.Currency}")));

    private static ImmutableArray<ControlTotal> Compared(ImmutableArray<StatedTotal> stated, List<Group> groups)
    {
        var compared = ImmutableArray.CreateBuilder<ControlTotal>();
        foreach (var currency in stated.Select(total => total.Currency).Union(groups.Select(group => group.Currency).Where(code => code.Length > 0)).Order(StringComparer.Ordinal))
        {
            var total = stated.FirstOrDefault(one => one.Currency == currency);
            var own = groups.Where(group => group.Currency == currency).ToList();
            var (count, sum) = (own.Sum(group => group.Count), own.Sum(group => group.Size) / SizeOfUnit);
            var says = new List<string>();
            if (total?.Invoices is { } wanted && wanted != count)
                says.Add($"{Counted(wanted)} in {currency} {(wanted == 1 ? "was" : "were")} stated, {count.ToString(CultureInfo.InvariantCulture)} captured ({Apart(count - wanted)})");
            if (total?.Sum is { } text && Number(text)!.Value is var amount && amount != sum)
            {
                var of = Currency.Find(currency)!;
                says.Add($"{of.Show(amount)} were stated, the invoices come to {of.Show(sum)} ({of.Show(Math.Abs(sum - amount))} {(sum > amount ? "more" : "less")})");
            }
            compared.Add(new ControlTotal(currency, total?.Invoices, total?.Sum, count, Amount(own.Sum(group => group.Size), currency), says.Count == 0 ? "" : string.Join("; ", says) + "."));
        }
        return compared.ToImmutable();
    }

    private static string Counted(int count) => $"{count.ToString(CultureInfo.InvariantCulture)} {(count == 1 ? "invoice" : "invoices")}";

    private static string Apart(int more) => $"{Math.Abs(more).ToString(CultureInfo.InvariantCulture)} {(more > 0 ? "more" : "less")}";

    /// <summary>Totals are stored in ten-thousandths, to be added up by the database.</summary>
    private const decimal SizeOfUnit = 10_000m;

    public static string Amount(long size, string currency)
    {
        var digits = Currency.Find(currency)?.MinorDigits ?? 0;
        return (size / SizeOfUnit).ToString("F" + digits.ToString(CultureInfo.InvariantCulture), CultureInfo.InvariantCulture);
    }

    private static decimal? Number(string text) =>
        decimal.TryParse(text, NumberStyles.AllowLeadingSign | NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var number) ? number : null;

    /// <param name="Size">The sum of the totals in ten-thousandths, credit notes taken off.</param>
    private sealed record Group(InvoiceState State, string Vendor, string Currency, bool IsTouched, int Count, long Size)
    {
        public bool WentUntouched => !IsTouched && State is InvoiceState.Clear or InvoiceState.Approved or InvoiceState.Posted;
    }
}
