using System.Text.Json.Nodes;
using Daxlin.Testing;

namespace Daxlin.Service.Tests;

/// <summary>An invoice's whole way through the service: taken in, captured, checked, approved, posted once.</summary>
public class InvoicePathTests
{
    [Fact]
    public async Task A_batch_goes_from_files_to_one_posting_run_and_nothing_is_posted_twice()
    {
        await using var service = await ServiceUnderTest.Start();
        await service.SaveTemplates(Repository.Samples);
        var batch = await service.OpenBatch("November");
        var taken = await service.Upload(batch, Repository.SampleInvoices("skerrow-sail-loft"));
        Assert.All(taken, file => Assert.Equal("taken", (string?)file!["outcome"]));
        var again = await service.Upload(batch, Repository.SampleInvoices("skerrow-sail-loft"));
        Assert.All(again, file => Assert.Equal("already-here", (string?)file!["outcome"]));
        var done = await service.UntilDone(batch);
        Assert.Equal((6, 5, 1), ((int)done["documents"]!, (int)done["invoices"]!["clear"]!, (int)done["invoices"]!["held"]!));

        var held = (await service.Invoices(batch)).Single(invoice => (string?)invoice["state"] == "held");
        Assert.Equal(
            "Tax at 23 % of 16,274.99 EUR comes to 3,743.25 EUR; the invoice states 3,743.85 EUR (0.60 EUR more).",
            (string?)held["firstFinding"]);
        var (refused, problem) = await service.Decide(held["id"], "approval");
        Assert.Equal((409, "findings-open"), (refused, (string?)problem["code"]));

        foreach (var invoice in (await service.Invoices(batch)).Where(invoice => (string?)invoice["state"] == "clear"))
            Assert.Equal(200, (await service.Decide(invoice["id"], "approval")).Status);
        // Two runs at once: one takes all, the other finds nothing.
        var runs = await Task.WhenAll(
            service.Post("posting-runs", new JsonObject { ["batch"] = batch }), service.PostAll());
        Assert.Equal([201, 409], runs.Select(run => run.Status).Order());
        Assert.Equal("nothing-to-post", (string?)runs.Single(run => run.Status == 409).Body["code"]);
        var first = runs.Single(run => run.Status == 201).Body;
        Assert.Equal((1, 5, 116), ((int)first["number"]!, (int)first["invoices"]!, (int)first["rows"]!));

        var (approved, detail) = await service.Decide(held["id"], "approval", new JsonObject { ["despite"] = "Agreed with the loft on the telephone" });
        Assert.Equal(200, approved);
        Assert.Equal("held", (string?)detail["decisions"]![0]!["before"]);
        var (_, second) = await service.PostAll();
        Assert.Equal((2, 1), ((int)second["number"]!, (int)second["invoices"]!));
        Assert.Equal("24855.13", (string?)second["sums"]!["EUR"]);
    }

    [Fact]
    public async Task Every_value_says_where_it_came_from_and_the_words_of_the_page_agree()
    {
        await using var service = await ServiceUnderTest.Start();
        await service.SaveTemplates(Repository.Samples);
        var batch = await service.OpenBatch("November");
        await service.Upload(batch, Repository.SampleInvoices("port-ellery-galley").Take(1));
        await service.UntilDone(batch);
        var summary = Assert.Single(await service.Invoices(batch));
        var invoice = await service.Get($"invoices/{summary["id"]}");
        Assert.Equal("clear", (string?)invoice["state"]);
        Assert.Equal("port-ellery-standard", (string?)invoice["template"]);

        var total = invoice["fields"]!["total"]!;
        Assert.Equal(("790.66", "£790.66"), ((string?)total["value"], (string?)total["raw"]));
        var pages = await service.Get($"documents/{invoice["document"]!["sha256"]}/pages");
        var words = pages[(int)total["page"]! - 1]!["words"]!.AsArray();
        var inside = words.Where(word => (double)word!["box"]!["left"]! >= (double)total["box"]!["left"]! - 0.1
            && (double)word["box"]!["right"]! <= (double)total["box"]!["right"]! + 0.1
            && (double)word["box"]!["top"]! >= (double)total["box"]!["top"]! - 0.1
            && (double)word["box"]!["bottom"]! <= (double)total["box"]!["bottom"]! + 0.1);
        Assert.Equal("£790.66", string.Join(' ', inside.Select(word => (string?)word!["text"])));

        Assert.All(invoice["lines"]!.AsArray(), line => Assert.All(
            line!["cells"]!.AsObject(), cell => Assert.True((int)cell.Value!["page"]! == 1 && cell.Value["box"] is not null)));
        Assert.All(invoice["ties"]!.AsArray(), tie => Assert.True((bool)tie!["holds"]!));
        Assert.Contains("subtotal + freight + tax = total", invoice["ties"]!.AsArray().Select(tie => (string?)tie!["equation"]));
        var bytes = await service.Http.GetByteArrayAsync(new Uri($"documents/{invoice["document"]!["sha256"]}", UriKind.Relative));
        Assert.Equal(File.ReadAllBytes(Path.Combine(Repository.Samples, "port-ellery-galley", "port-ellery-galley-01.pdf")), bytes);
    }

    [Fact]
    public async Task An_invoice_that_comes_a_second_time_is_held_and_names_the_first()
    {
        await using var service = await ServiceUnderTest.Start();
        await service.SaveTemplates(Repository.Samples);
        var (first, second) = (await service.OpenBatch("First"), await service.OpenBatch("Second"));
        await service.Upload(first, Repository.SampleInvoices("port-ellery-galley").Take(1));
        await service.UntilDone(first);
        await service.Upload(second, Repository.SampleInvoices("port-ellery-galley").Take(1));
        await service.UntilDone(second);
        var again = Assert.Single(await service.Invoices(second));
        Assert.Equal("held", (string?)again["state"]);
        Assert.Equal(
            "This is the same file as port-ellery-galley-01.pdf, invoice 1 in the batch “First” (clear).",
            (string?)again["firstFinding"]);
    }

    [Fact]
    public async Task First_come_is_first_whatever_is_captured_again_and_a_copy_set_aside_holds_nothing()
    {
        await using var service = await ServiceUnderTest.Start();
        await service.SaveTemplates(Repository.Samples);
        var (first, second) = (await service.OpenBatch("First"), await service.OpenBatch("Second"));
        await service.Upload(first, Repository.SampleInvoices("port-ellery-galley").Take(1));
        await service.UntilDone(first);
        await service.Upload(second, Repository.SampleInvoices("port-ellery-galley").Take(1));
        await service.UntilDone(second);
        foreach (var batch in new[] { first, second, first })
        {
            await service.Post($"batches/{batch}/recapture", new JsonObject());
            await service.UntilDone(batch);
            Assert.Equal("clear, held", await States());
        }

        var (status, refused) = await service.Decide(2, "set-aside", new JsonObject { ["reason"] = "no" });
        Assert.Equal((422, "reason-missing"), (status, (string?)refused["code"]));
        // The original is taken back: its copy is the first now, and nothing holds it.
        await service.Decide(1, "set-aside", new JsonObject { ["reason"] = "The vendor takes it back." });
        Assert.Equal("returned, clear", await States());
        var aside = await service.Get("invoices/1");
        Assert.Equal("set aside: The vendor takes it back.", $"{aside["decisions"]![0]!["what"]}: {aside["decisions"]![0]!["reason"]}");
        (status, refused) = await service.Decide(1, "set-aside", new JsonObject { ["reason"] = "Once more." });
        Assert.Equal((409, "already-decided"), (status, (string?)refused["code"]));

        async Task<string> States() =>
            $"{Assert.Single(await service.Invoices(first))["state"]}, {Assert.Single(await service.Invoices(second))["state"]}";
    }

    [Fact]
    public async Task Invoices_are_numbered_in_the_order_of_their_files_and_keep_account_of_what_no_sum_checks()
    {
        await using var service = await ServiceUnderTest.Start();
        await service.SaveTemplates(Path.Combine(Repository.Corpus, "fuel-jspdf"));
        var batch = await service.OpenBatch("November");
        var files = Directory.GetFiles(Path.Combine(Repository.Corpus, "fuel-jspdf"), "*.pdf").Order(StringComparer.Ordinal).ToList();
        await service.Upload(batch, files.Select(file => (Path.GetFileName(file), File.ReadAllBytes(file))));
        await service.UntilDone(batch);
        var invoices = (await service.Invoices(batch)).OrderBy(one => (int)one["id"]!).ToList();
        Assert.Equal(files.Select(Path.GetFileName), invoices.Select(one => (string?)one["file"]));
        var invoice = await service.Get($"invoices/{invoices[0]["id"]}");
        var unproved = invoice["unproved"]!.AsArray().Select(name => (string?)name).ToList();
        Assert.Contains("lines[1].deliveryPoints[1].quantity", unproved);
        Assert.DoesNotContain("lines[1].quantity", unproved);
    }

    [Fact]
    public async Task A_file_with_several_invoices_is_taken_apart_and_what_is_decided_stays()
    {
        await using var service = await ServiceUnderTest.Start();
        await service.SaveTemplates(Path.Combine(Repository.Corpus, "minasoko-reportlab"));
        var batch = await service.OpenBatch("November");
        await service.Upload(batch, [("multi.pdf", File.ReadAllBytes(Path.Combine(Repository.Corpus, "minasoko-reportlab", "multi.pdf")))]);
        await service.UntilDone(batch);
        var invoices = await service.Invoices(batch);
        Assert.Equal(
            ["M2611-052 on 1 to 1 of 4, clear", "M2634-694 on 2 to 3 of 4, clear", "M2695-657 on 4 to 4 of 4, clear"],
            invoices.Select(one => $"{one["invoiceNumber"]} on {one["firstPage"]} to {one["lastPage"]} of {one["filePages"]}, {one["state"]}"));

        await service.Decide(invoices[1]["id"], "approval");
        await service.Post($"batches/{batch}/recapture", new JsonObject());
        await service.UntilDone(batch);
        var again = await service.Invoices(batch);
        Assert.Equal(invoices.Select(one => (int)one["id"]!).Order(), again.Select(one => (int)one["id"]!).Order());
        Assert.Equal("approved", (string?)again.Single(one => (int)one["id"]! == (int)invoices[1]["id"]!)["state"]);
        var second = await service.Get($"invoices/{invoices[1]["id"]}");
        Assert.All(second["lines"]!.AsArray(), line => Assert.InRange((int)line!["cells"]!["amount"]!["page"]!, 2, 3));
    }

    [Fact]
    public async Task What_no_template_knows_is_unplaced_and_captured_once_a_template_is_saved()
    {
        await using var service = await ServiceUnderTest.Start();
        var batch = await service.OpenBatch("November");
        await service.Upload(batch, Repository.SampleInvoices("brinewood-chandlery").Take(2));
        Assert.Equal(2, (int)(await service.UntilDone(batch))["invoices"]!["unplaced"]!);
        var id = (int)(await service.Invoices(batch))[0]["id"]!;
        Assert.Equal("unplaced", (string?)(await service.Decide(id, "approval", new JsonObject { ["despite"] = "because" })).Body["code"]);

        await service.SaveTemplates(Repository.Samples);
        await service.Post($"batches/{batch}/recapture", new JsonObject());
        Assert.Equal(2, (int)(await service.UntilDone(batch))["invoices"]!["clear"]!);
        Assert.Equal(2, (await service.Invoices(batch)).Count);
    }

    [Fact]
    public async Task A_kill_in_mid_batch_loses_nothing_and_doubles_nothing()
    {
        var files = new[] { "brinewood-chandlery", "halvard-marine-diesel", "port-ellery-galley", "skerrow-sail-loft" }.SelectMany(Repository.SampleInvoices).ToList();
        var service = await ServiceUnderTest.Start(apart: true);
        await service.SaveTemplates(Repository.Samples);
        var batch = await service.OpenBatch("November");
        await service.Upload(batch, files);
        await service.Kill();
        // Killed again as soon as it has begun, then left alone.
        service = await ServiceUnderTest.Start(service.Data, apart: true);
        await service.Kill();
        service = await ServiceUnderTest.Start(service.Data, apart: true);
        await using (service)
        {
            var done = await service.UntilDone(batch);
            Assert.Equal((24, 0), ((int)done["documents"]!, (int)done["unreadable"]!));
            Assert.Equal((20, 4), ((int)done["invoices"]!["clear"]!, (int)done["invoices"]!["held"]!));
            var invoices = await service.Invoices(batch);
            Assert.Equal(files.Select(file => file.Item1).Order(), invoices.Select(invoice => (string)invoice["file"]!).Order());
        }
    }
}
