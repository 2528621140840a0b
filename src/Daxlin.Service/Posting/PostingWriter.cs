using System.Collections.Immutable;
using Daxlin.Core.Posting;
using Daxlin.Core.Posting.Layouts;
using Daxlin.Core.Templates;
using Daxlin.Service.Posting.Files;
using Daxlin.Service.Storage;

namespace Daxlin.Service.Posting;

/// <summary>Writes the files of a posting run, and proves on the way that no amount is lost or doubled. Stores nothing.</summary>
internal static class PostingWriter
{
    private const int MostFaults = 100;

    /// <param name="ids">The invoices, in the order in which they are posted.</param>
    /// <param name="see">Is shown each invoice as the layout makes it; never called for a file of every value.</param>
    public static async Task<PostingWork> Write(PostingPlan plan, IReadOnlyList<int> ids, DaxlinDb db, CancellationToken cancel, Action<LaidOutInvoice>? see = null)
    {
        var posted = ImmutableArray.CreateBuilder<PostedContent>(ids.Count);
        var altered = ImmutableArray.CreateBuilder<int>();
        var faults = ImmutableArray.CreateBuilder<LayoutFault>();
        var undated = ImmutableArray.CreateBuilder<UndatedInvoice>();
        var left = 0;
        var totals = new ControlTotalsSoFar(plan.Run.IsReversal);
        var proof = plan.Layout is null ? null : new LayoutProof(plan.Layout);
        using var files = plan.Layout is null ? null : new LayoutFiles(plan.Layout, plan.Run);
        using var every = plan.Layout is null ? new EveryValueFile(await ColumnsOf(plan, ids, db, cancel)) : null;
        await foreach (var (approved, content, isAsApproved) in ApprovedInvoices.Read(db, ids, plan.Origins, cancel))
        {
            if (plan.MustBeApproved && !isAsApproved)
            {
                altered.Add(approved.Id);
                continue;
            }
            var dated = approved.PostedBy(plan.Run.Dates);
            var invoice = dated ?? approved;
            if (plan.Layout is null && dated is null)
            {
                undated.Add(Undated(approved));
                continue;
            }
            if (plan.Layout is null)
            {
                every!.Add(PostingColumns.RowsOf(invoice, plan.Run.IsReversal));
            }
            else
            {
                var laidOut = LaidOut.Of(plan.Layout, invoice, plan.Lists.Lists, plan.Run, plan.Journal);
                see?.Invoke(laidOut);
                if (!laidOut.IsTaken)
                {
                    left++;
                    continue;
                }
                if (dated is null)
                {
                    undated.Add(Undated(approved));
                    continue;
                }
                if (faults.Count < MostFaults)
                    faults.AddRange(Add(laidOut, proof!, files!));
            }
            posted.Add(new PostedContent(invoice.Id, content, invoice.Origin));
            totals.Add(invoice);
        }
        var sums = proof?.Sums ?? [];
        var written = faults.Count > 0 || altered.Count > 0 || undated.Count > 0 ? [] : every is not null ? [every.End(plan.Run.Number)] : files!.End(sums);
        return new PostingWork(
            [.. written], posted.ToImmutable(), left, totals.Totals with { Rows = written.Sum(file => file.Records) }, sums, [.. faults.Take(MostFaults)], undated.ToImmutable(), altered.ToImmutable());
    }

    private static UndatedInvoice Undated(ApprovedInvoice invoice) => new(invoice.Id, invoice.Fields.GetValueOrDefault(TradeNames.InvoiceNumber, ""), invoice.PostingDate);

    private static ImmutableArray<LayoutFault> Add(LaidOutInvoice laidOut, LayoutProof proof, LayoutFiles files)
    {
        if (!laidOut.Faults.IsEmpty)
            return laidOut.Faults;
        var unlike = proof.Add(laidOut);
        if (!unlike.IsEmpty)
            return unlike;
        try
        {
            files.Add(laidOut);
            return [];
        }
        catch (UnwritableException error)
        {
            return [new LayoutFault(laidOut.Invoice.Id, error.Table, error.Column, error.Message)];
        }
    }

    /// <summary>All columns must be known before the first row is written.</summary>
    private static async Task<ImmutableArray<string>> ColumnsOf(PostingPlan plan, IReadOnlyList<int> ids, DaxlinDb db, CancellationToken cancel)
    {
        var columns = new PostingColumnsSoFar();
        await foreach (var (invoice, _, _) in ApprovedInvoices.Read(db, ids, plan.Origins, cancel))
            columns.Add(invoice.PostedBy(plan.Run.Dates) ?? invoice);
        return columns.Columns;
    }
}
