using Daxlin.Core.History;
using Daxlin.Service.History;
using Daxlin.Service.Sources;
using Daxlin.Service.Templates;
using Daxlin.Service.Vendors;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.Storage;

/// <summary>Takes over at a start what earlier releases kept in another form.</summary>
internal static class EarlierReleases
{
    /// <remarks>The turn to write is held by who asks.</remarks>
    public static async Task TakeOver(DaxlinDb db, DateTime now)
    {
        await TemplateVersions.FillCurrencies(db);
        // No release that kept decisions so knew a database server.
        if (db.Database.IsSqlite())
            await TakeDecisions(db);
        foreach (var file in await db.PostedFiles.Where(row => row.Sha256 == "").ToListAsync())
            file.Sha256 = HistoryChain.ContentOf(file.Content);
        // What items of sources are known by was kept as it is, before it was hashed.
        foreach (var item in await db.SourceItems.Where(row => EF.Functions.Like(row.Key, "%\n%")).ToListAsync())
            (item.Key, item.Stamp) = (ComingItem.KeyOf(item.Key), item.Stamp.Length > 0 ? ComingItem.KeyOf(item.Name, item.Stamp) : "");
        await VendorRegister.FillIn(db, now);
        await db.SaveChangesAsync();
    }

    /// <summary>Decisions had a table of their own before there was a history.</summary>
    private static async Task TakeDecisions(DaxlinDb db)
    {
        if (!(await db.Database.SqlQueryRaw<string>("SELECT name AS Value FROM sqlite_master WHERE type = 'table' AND name = 'Decisions'").ToListAsync()).Contains("Decisions"))
            return;
        var decisions = await db.Database.SqlQueryRaw<EarlierDecision>("SELECT \"InvoiceId\", \"At\", \"By\", \"What\", \"Before\", \"After\", \"Reason\", \"Letter\" FROM \"Decisions\" ORDER BY \"Id\"").ToListAsync();
        var approved = await db.Invoices.Where(row => row.State == InvoiceState.Approved || row.State == InvoiceState.Posted).ToListAsync();
        foreach (var invoice in approved)
            invoice.ApprovedSha256 = HistoryChain.ContentOf(invoice.Record);
        var contents = approved.ToDictionary(invoice => invoice.Id, invoice => invoice.ApprovedSha256);
        await HistoryLog.Record(db, decisions.ConvertAll(one => one.ToDeed(contents)), default);
        await db.SaveChangesAsync();
        await db.Database.ExecuteSqlRawAsync("DROP TABLE \"Decisions\"");
    }

    private sealed record EarlierDecision(int InvoiceId, DateTime At, string By, string What, string Before, string After, string Reason, string Letter)
    {
        public Deed ToDeed(Dictionary<int, string> approved)
        {
            var act = Act;
            return new Deed(HistoryStreams.Invoice(InvoiceId), DateTime.SpecifyKind(At, DateTimeKind.Utc), By, act, What)
            {
                Before = Before,
                After = After,
                Reason = Reason,
                Letter = Letter,
                Content = act is HistoryActs.Approved or HistoryActs.Posted ? approved.GetValueOrDefault(InvoiceId, "") : "",
            };
        }

        private string Act => What switch
        {
            "approved" => HistoryActs.Approved,
            "set aside" => HistoryActs.SetAside,
            "returned to the vendor" => HistoryActs.Returned,
            "took back" => HistoryActs.HandedOver,
            _ when What.StartsWith("handed over", StringComparison.Ordinal) => HistoryActs.HandedOver,
            _ when What.StartsWith("posted", StringComparison.Ordinal) => HistoryActs.Posted,
            _ => HistoryActs.Corrected,
        };
    }
}
