using System.Diagnostics;
using System.Globalization;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json.Nodes;
using Daxlin.Testing;
using Microsoft.Data.Sqlite;
using Microsoft.VisualBasic.FileIO;

namespace Daxlin.Service.Tests;

/// <summary>Posting runs by layouts, as a ledger and its auditor see them.</summary>
public class PostingTests
{
    /// <summary>A service with approved invoices of made-up vendors, the first three of each: one of them is long, and two currencies are among them.</summary>
    private static async Task<(ServiceUnderTest Service, int Batch)> Approved(params string[] vendors)
    {
        var folders = vendors.Length > 0 ? vendors : ["port-ellery-galley", "skerrow-sail-loft", "halvard-marine-diesel"];
        var service = await ServiceUnderTest.StartAfter($"three approved of {string.Join(' ', folders)}", async service =>
        {
            await service.SaveTemplates(Repository.Samples);
            var batch = await service.OpenBatch("November");
            await service.Upload(batch, folders.SelectMany(vendor => new[] { "01", "02", "03" }.Select(number => Path.Combine(Repository.Samples, vendor, $"{vendor}-{number}.pdf")))
                .Order(StringComparer.Ordinal).Select(file => (Path.GetFileName(file), File.ReadAllBytes(file))));
            await service.UntilDone(batch);
            foreach (var invoice in (await service.Invoices(batch)).Where(one => (string?)one["state"] == "clear"))
                await service.Decide(invoice["id"], "approval");
        });
        return (service, await service.FirstBatch());
    }

    /// <summary>Written with the marks ' for ".</summary>
    private static Task<(int Status, JsonNode Body)> SaveLayout(ServiceUnderTest service, string json, params (string Name, string Value)[] headers) =>
        SaveDocument(service, json.Replace('\'', '"'), headers);

    private static async Task<(int Status, JsonNode Body)> SaveDocument(ServiceUnderTest service, string json, params (string Name, string Value)[] headers)
    {
        using var request = new HttpRequestMessage(HttpMethod.Post, "posting-layouts") { Content = new StringContent(json, Encoding.UTF8, "application/json") };
        foreach (var (name, value) in headers)
            request.Headers.Add(name, value);
        using var answer = await service.Http.SendAsync(request);
        return ((int)answer.StatusCode, JsonNode.Parse(await answer.Content.ReadAsStringAsync())!);
    }

    private static string Workbook(string name, string file) => $$"""
        { 'name': '{{name}}', 'tables': [
          { 'name': 'Headers', 'records': 'invoices', 'columns': [
            { 'heading': 'Kind', 'value': 'kind', 'width': 12 }, { 'heading': 'Number', 'value': 'invoiceNumber', 'width': 20 }, { 'heading': 'Date', 'value': 'invoiceDate', 'width': 10 },
            { 'heading': 'Total', 'value': 'total', 'decimals': 2, 'width': 14, 'proves': 'total' }, { 'heading': 'Currency', 'value': 'currency', 'width': 3 }] } ], 'file': {{file}} }
        """;

    private static async Task<JsonNode> Post(ServiceUnderTest service, string layout)
    {
        var (status, run) = await service.Post("posting-runs", new JsonObject { ["allBatches"] = true, ["layout"] = layout });
        Assert.True(status == 201, run.ToJsonString());
        return run;
    }

    private static Task<(int Status, JsonNode Body)> Withdraw(ServiceUnderTest service, JsonNode? run, JsonObject body) => service.Post($"posting-runs/{run}/withdrawal", body);

    /// <summary>What the records of a file come to by currency, read by a reader that did not write it.</summary>
    private static SortedDictionary<string, decimal> SumsOf(string format, byte[] content)
    {
        var sums = new SortedDictionary<string, decimal>(StringComparer.Ordinal);
        void Add(string currency, decimal total) => sums[currency] = sums.GetValueOrDefault(currency) + total;
        switch (format)
        {
            case "json":
                foreach (var one in JsonNode.Parse(content)!.AsArray())
                    Add((string)one!["Currency"]!, one["Total"]!.GetValue<decimal>());
                return sums;
            case "ndjson":
                foreach (var one in Encoding.UTF8.GetString(content).Split('\n', StringSplitOptions.RemoveEmptyEntries).Select(line => JsonNode.Parse(line)!))
                    Add((string)one["Currency"]!, one["Total"]!.GetValue<decimal>());
                return sums;
        }
        var encoding = format == "csv" ? CodePagesEncodingProvider.Instance.GetEncoding(1252)! : Encoding.UTF8;
        using var parser = new TextFieldParser(new MemoryStream(format == "xlsx" ? Spreadsheet(content, "Headers") : content), encoding);
        if (format == "fixed-width")
        {
            parser.TextFieldType = FieldType.FixedWidth;
            parser.SetFieldWidths(12, 20, 10, 14, 3);
        }
        else
        {
            parser.SetDelimiters(format == "csv" ? ";" : format == "xlsx" ? "," : "\t");
        }
        Assert.Equal(["Kind", "Number", "Date", "Total", "Cur"], parser.ReadFields()!.Select(heading => heading == "Currency" ? "Cur" : heading));
        while (parser.ReadFields() is { } cells)
            Add(cells[4], decimal.Parse(format == "csv" ? cells[3].Replace(',', '.') : cells[3], NumberStyles.Number, CultureInfo.InvariantCulture));
        return sums;
    }

    /// <summary>A sheet as CSV, by a spreadsheet program.</summary>
    private static byte[] Spreadsheet(byte[] content, string sheet)
    {
        var folder = Directory.CreateTempSubdirectory("daxlin-sheet-").FullName;
        File.WriteAllBytes(Path.Combine(folder, "book.xlsx"), content);
        using var convert = Process.Start(new ProcessStartInfo("ssconvert", ["-S", Path.Combine(folder, "book.xlsx"), Path.Combine(folder, "%s.csv")]) { RedirectStandardError = true })!;
        var said = convert.StandardError.ReadToEnd();
        convert.WaitForExit();
        Assert.True(convert.ExitCode == 0 && !said.Contains("CRITICAL", StringComparison.Ordinal), said);
        var csv = File.ReadAllBytes(Path.Combine(folder, sheet + ".csv"));
        Directory.Delete(folder, recursive: true);
        return csv;
    }

    private static SortedDictionary<string, decimal> SumsOf(JsonNode run) =>
        new(run["sums"]!.AsObject().ToDictionary(sum => sum.Key, sum => decimal.Parse((string)sum.Value!, CultureInfo.InvariantCulture)), StringComparer.Ordinal);

    [Fact]
    public async Task Each_form_comes_to_the_control_totals_for_another_reader_and_what_takes_it_back_to_their_opposite()
    {
        var (service, _) = await Approved();
        await using var _1 = service;
        foreach (var (format, file) in new[]
        {
            ("csv", "{ 'delimiter': ';', 'decimal': ',', 'dates': 'DD.MM.YYYY', 'encoding': 'windows-1252', 'quotes': 'all' }"), ("tsv", "{ 'delimiter': 'tab' }"),
            ("fixed-width", "{ 'format': 'fixed-width', 'headings': true, 'lineEnds': 'lf' }"), ("xlsx", "{ 'format': 'xlsx' }"), ("json", "{ 'format': 'json' }"), ("ndjson", "{ 'format': 'ndjson' }"),
        })
        {
            var (status, saved) = await SaveLayout(service, Workbook($"book-{format}", file));
            Assert.True(status == 201, saved.ToJsonString());
            var run = await Post(service, $"book-{format}");
            var written = SumsOf(format, await service.Http.GetByteArrayAsync(new Uri($"posting-runs/{run["number"]}/file", UriKind.Relative)));
            Assert.Equal(SumsOf(run), written);
            Assert.True(written.Count == 2 && written.Values.All(sum => sum > 1000), format);

            var (_, back) = await Withdraw(service, run["number"], new JsonObject { ["reason"] = "Tried with another form" });
            Assert.Equal((int)run["number"]!, (int)back["reverses"]!);
            var opposite = SumsOf(format, await service.Http.GetByteArrayAsync(new Uri($"posting-runs/{back["number"]}/file", UriKind.Relative)));
            Assert.Equal(written.Select(sum => (sum.Key, -sum.Value)), opposite.Select(sum => (sum.Key, sum.Value)));
        }
        // Numbered without gaps, and told whole.
        Assert.Equal(Enumerable.Range(1, 12).Reverse(), (await service.All("posting-runs")).Select(run => (int)run["number"]!));
        Assert.True((bool)(await service.Get("history/verify"))["isWhole"]!);
    }

    [Fact]
    public async Task Each_invoice_is_an_electronic_invoice_that_is_taken_in_again_as_the_one_it_was_and_what_the_standard_lacks_is_told()
    {
        var (service, _) = await Approved();
        await using var _1 = service;
        var document = (await File.ReadAllTextAsync(Path.Combine(Repository.Root, "docs", "POSTING.md"))).Split("```json")[2].Split("```")[0];
        var (unsaved, faulty) = await SaveDocument(service, document);
        Assert.Equal((422, "tables[0].columns[9].value", "tables[1].columns[3].value"), (unsaved, (string?)faulty["faults"]![0]!["place"], (string?)faulty["faults"]![1]!["place"]));
        foreach (var (list, words) in new[] { ("countries", "Skerrow Sail Loft,IE"), ("units", "kg,KGM\nhr,HUR\nL,LTR") })
        {
            using var csv = new StringContent("word,meaning\n" + words, Encoding.UTF8, "text/csv");
            using var answer = await service.Http.PutAsync(new Uri($"translation-lists/{list}/file", UriKind.Relative), csv);
            Assert.True(answer.IsSuccessStatusCode);
        }
        Assert.Equal(201, (await SaveDocument(service, document)).Status);
        // The vendor's number for VAT is no choice of the layout's.
        Assert.Equal(201, (await SaveDocument(service, document.Replace("\"electronic\"", "\"nameless\"", StringComparison.Ordinal).Replace("\"vendorTaxId\"", "\"''\"", StringComparison.Ordinal))).Status);
        var (status, refused) = await service.Post("posting-runs", new JsonObject { ["allBatches"] = true, ["layout"] = "nameless" });
        Assert.Equal(409, status);
        Assert.Contains("The seller has no number for VAT (BR-CO-26, BR-S-02).", refused.ToJsonString(), StringComparison.Ordinal);

        var run = await Post(service, "electronic");
        var again = await service.OpenBatch("Taken in again");
        async Task<List<string>> FilesOf(JsonNode? number) => [.. (await service.Get($"posting-runs/{number}/manifest"))["files"]!.AsArray().Select(file => (string)file!["name"]!)];
        var files = await FilesOf(run["number"]);
        Assert.Equal((int)run["invoices"]!, files.Count);
        foreach (var name in files)
            await service.Upload(again, (name, await service.Http.GetByteArrayAsync(new Uri($"posting-runs/{run["number"]}/files/{name}", UriKind.Relative))));
        await service.UntilDone(again);
        var taken = new SortedDictionary<string, decimal>(StringComparer.Ordinal);
        foreach (var one in await service.Invoices(again))
        {
            var invoice = await service.Get($"invoices/{one["id"]}");
            // Nothing is wrong with it but that it was here before.
            Assert.All(invoice["findings"]!.AsArray().Where(finding => (string?)finding!["severity"] == "hold"), finding => Assert.Contains((string?)finding!["code"], new[] { "seen-before", "like-before" }));
            var (currency, sign) = ((string)one["currency"]!, (string?)one["kind"] == "credit note" ? -1 : 1);
            taken[currency] = taken.GetValueOrDefault(currency) + sign * Math.Abs(decimal.Parse((string)one["total"]!, CultureInfo.InvariantCulture));
        }
        Assert.Equal(SumsOf(run), taken);
        // The history says what a run came to as a person reads it.
        Assert.Matches(@"^[\d,]+\.\d\d EUR and [\d,]+\.\d\d GBP$", (string?)(await service.Get($"history?run={run["number"]}"))[0]!["after"]);

        var (_, back) = await Withdraw(service, run["number"], new JsonObject { ["reason"] = "Sent to the wrong ledger" });
        var first = await service.Http.GetStringAsync(new Uri($"posting-runs/{back["number"]}/files/{(await FilesOf(back["number"]))[0]}", UriKind.Relative));
        Assert.Matches("^<\\?xml version=\"1.0\" encoding=\"utf-8\"\\?>\\s*<CreditNote ", first);
    }

    [Fact]
    public async Task A_spreadsheet_has_numbers_dates_and_text_that_nobody_runs()
    {
        var (service, _) = await Approved("skerrow-sail-loft");
        await using var _1 = service;
        await SaveLayout(service, """
            { 'name': 'typed', 'tables': [{ 'records': 'lines', 'columns': [{ 'heading': 'Text', 'value': '\"=1+1 \" & itemCode' }, { 'heading': 'On', 'value': 'invoiceDate' },
              { 'heading': 'Amount', 'value': 'amount', 'proves': 'lines' }, { 'heading': 'Is net', 'value': 'amount > 0' }, { 'heading': 'Gap', 'value': 'freight otherwise 0 - freight otherwise 0' }] }],
              'file': { 'format': 'xlsx' } }
            """);
        var run = await Post(service, "typed");
        var content = await service.Http.GetByteArrayAsync(new Uri($"posting-runs/{run["number"]}/file", UriKind.Relative));
        var rows = Encoding.UTF8.GetString(Spreadsheet(content, "lines")).Split('\n', StringSplitOptions.RemoveEmptyEntries);
        Assert.Equal((int)run["rows"]! + 1, rows.Length);
        Assert.Matches(@"^""?=1\+1 SK/[^,]+,2026/\d\d/\d\d,-?\d+\.?\d*,TRUE,0", rows[1]);
        Assert.Contains("lines,Amount,invoices,EUR,", Encoding.UTF8.GetString(Spreadsheet(content, "Control totals")), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_layout_that_loses_amounts_is_refused_in_figures_and_uses_no_number_up()
    {
        var (service, batch) = await Approved("port-ellery-galley");
        await using var _1 = service;
        await SaveLayout(service, "{ 'name': 'lossy', 'tables': [{ 'records': 'lines', 'where': 'line > 1', 'columns': [{ 'heading': 'Net', 'value': 'amount', 'proves': 'lines' }] }] }");
        var which = new JsonObject { ["batch"] = batch, ["layout"] = "lossy" };
        var (status, rehearsed) = await service.Post("posting-runs/rehearsal", which.DeepClone());
        Assert.Equal(200, status);
        var fault = (string)rehearsed["faults"]![0]!;
        Assert.Matches(@"^Invoice \d+, table “lines”, column “Net”: It comes to [\d,.]+ GBP; the invoices have lines of [\d,.]+ GBP \([\d,.]+ GBP too little\)\.$", fault);
        var (refusedAs, problem) = await service.Post("posting-runs", which.DeepClone());
        Assert.Equal((409, "layout-unfit"), (refusedAs, (string?)problem["code"]));
        Assert.Contains(fault, (string?)problem["detail"], StringComparison.Ordinal);
        Assert.EndsWith("Nothing was posted.", (string?)problem["detail"], StringComparison.Ordinal);

        // What cannot be written at all: a letter that the encoding lacks.
        await SaveLayout(service, "{ 'name': 'plain', 'tables': [{ 'records': 'lines', 'columns': [{ 'heading': 'Net', 'value': 'amount', 'proves': 'lines' }, { 'heading': 'Text', 'value': '\\\"€ \\\" & description' }] }], 'file': { 'encoding': 'us-ascii' } }");
        (_, problem) = await service.Post("posting-runs", new JsonObject { ["batch"] = batch, ["layout"] = "plain" });
        Assert.Contains("“€” in “€ ", (string?)problem["detail"], StringComparison.Ordinal);
        Assert.Contains("has no place in us-ascii; utf-8 has all letters.", (string?)problem["detail"], StringComparison.Ordinal);

        // A condition that cannot be told of an invoice is a fault of the layout, and no invoice left out in silence.
        await SaveLayout(service, "{ 'name': 'unclear', 'invoices': 'total / (lineCount - lineCount) > 1', 'tables': [{ 'records': 'lines', 'columns': [{ 'heading': 'Net', 'value': 'amount', 'proves': 'lines' }] }] }");
        (refusedAs, problem) = await service.Post("posting-runs", new JsonObject { ["batch"] = batch, ["layout"] = "unclear" });
        Assert.Equal((409, "layout-unfit"), (refusedAs, (string?)problem["code"]));
        Assert.Contains("What is asked by “invoices” cannot be told. It divides by 0.", (string?)problem["detail"], StringComparison.Ordinal);

        Assert.Equal("not-there", (string?)(await service.Post("posting-runs", new JsonObject { ["batch"] = batch, ["layout"] = "none" })).Body["code"]);
        Assert.Equal(1, (int)(await service.PostAll()).Body["number"]!);
    }

    [Fact]
    public async Task A_layout_takes_what_it_asks_for_into_a_file_each_and_leaves_the_rest_approved()
    {
        var (service, batch) = await Approved("port-ellery-galley", "skerrow-sail-loft");
        await using var _1 = service;
        await SaveLayout(service, """
            { 'name': 'euro', 'invoices': 'currency = \"EUR\"', 'tables': [{ 'records': 'lines', 'columns': [{ 'heading': 'Net', 'value': 'amount', 'proves': 'lines' }] }],
              'file': { 'per': 'invoice', 'name': '{vendor}-{number}-{invoice}', 'ending': 'txt' } }
            """);
        var invoices = await service.Invoices(batch);
        var euro = invoices.Where(one => (string?)one["currency"] == "EUR" && (string?)one["state"] == "approved").ToList();
        var rehearsed = (await service.Post("posting-runs/rehearsal", new JsonObject { ["batch"] = batch, ["layout"] = "euro" })).Body;
        Assert.Equal(invoices.Count(one => (string?)one["state"] == "approved") - euro.Count, (int)rehearsed["left"]!);
        var run = await Post(service, "euro");
        var manifest = await service.Get($"posting-runs/{run["number"]}/manifest");
        Assert.Equal(
            euro.Select(one => $"Skerrow-Sail-Loft-{((string)one["invoiceNumber"]!).Replace('/', '-')}-{one["id"]}.txt"), manifest["files"]!.AsArray().Select(file => (string?)file!["name"]));
        Assert.All(manifest["files"]!.AsArray(), file => Assert.Equal(64, ((string)file!["sha256"]!).Length));
        Assert.All(manifest["invoices"]!.AsArray(), invoice => Assert.Equal((64, true), (((string)invoice!["contentSha256"]!).Length, invoice["approvedAt"] is not null)));
        Assert.All(await service.Invoices(batch), one => Assert.Equal(
            (string?)one["currency"] == "EUR", (string?)one["state"] == "posted" || (string?)one["state"] is "held" && (string?)one["currency"] == "EUR"));
        // Nothing is left that the layout takes.
        var (_, problem) = await service.Post("posting-runs", new JsonObject { ["allBatches"] = true, ["layout"] = "euro" });
        Assert.StartsWith("There is nothing to post by this layout: it takes none of the", (string?)problem["detail"], StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_run_is_taken_back_once_as_a_whole_or_in_parts_and_its_invoices_are_posted_again_or_corrected()
    {
        var (service, batch) = await Approved("port-ellery-galley");
        await using var _1 = service;
        var run = (await service.PostAll()).Body;
        var posted = (await service.Invoices(batch)).Where(one => (string?)one["state"] == "posted").Select(one => (int)one["id"]!).ToList();
        foreach (var (body, status, code) in new (JsonObject, int, string)[]
        {
            (new() { ["reason"] = "." }, 422, "reason-missing"), ([], 422, "reason-missing"), (new() { ["reason"] = "Wrong period", ["invoices"] = new JsonArray(9999) }, 409, "not-in-run"),
            (new() { ["reason"] = "Wrong period", ["invoices"] = new JsonArray() }, 409, "nothing-to-withdraw"), (new() { ["because"] = "Wrong period" }, 400, "json-faulty"),
        })
        {
            var (answered, problem) = await Withdraw(service, run["number"], body);
            Assert.Equal((status, code), (answered, (string?)problem["code"]));
        }
        Assert.Equal("not-there", (string?)(await Withdraw(service, 77, new JsonObject { ["reason"] = "Wrong period" })).Body["code"]);

        // One of them is opened to be corrected. The same request sent again takes nothing back twice.
        var backs = new List<string>();
        foreach (var _2 in new int[2])
        {
            using var request = new HttpRequestMessage(HttpMethod.Post, $"posting-runs/{run["number"]}/withdrawal")
            {
                Content = JsonContent.Create(new JsonObject { ["reason"] = "A wrong figure", ["invoices"] = new JsonArray(posted[0]), ["open"] = true }),
            };
            request.Headers.Add("Idempotency-Key", "back-1");
            using var answer = await service.Http.SendAsync(request);
            var back = JsonNode.Parse(await answer.Content.ReadAsStringAsync())!;
            backs.Add($"{(int)answer.StatusCode} {back["number"]} {back["invoices"]} {back["reverses"]}");
        }
        Assert.Equal(["201 2 1 1", "201 2 1 1"], backs);
        Assert.Equal("clear", (string?)(await service.Get($"invoices/{posted[0]}"))["state"]);
        Assert.Null((await service.Get($"invoices/{posted[0]}"))["postingRun"]);
        var csv = await service.Http.GetStringAsync(new Uri("posting-runs/2/file", UriKind.Relative));
        Assert.Contains(",-", csv, StringComparison.Ordinal);

        // The rest stays approved, and is posted again beside what was opened.
        Assert.Equal(posted.Count - 1, (int)(await Withdraw(service, run["number"], new JsonObject { ["reason"] = "The rest of it, too" })).Body["invoices"]!);
        Assert.Equal("nothing-to-withdraw", (string?)(await Withdraw(service, run["number"], new JsonObject { ["reason"] = "Once more" })).Body["code"]);
        Assert.Equal("is-reversal", (string?)(await Withdraw(service, 3, new JsonObject { ["reason"] = "Once more" })).Body["code"]);
        Assert.Equal(200, (await service.Decide(posted[0], "approval")).Status);
        var again = (await service.PostAll()).Body;
        Assert.Equal((4, posted.Count), ((int)again["number"]!, (int)again["invoices"]!));
        Assert.Equal(SumsOf(run), SumsOf(again));
        Assert.Equal(posted.Count, (int)(await service.Get("posting-runs/1"))["withdrawn"]!);
        var history = await service.Get($"history?invoice={posted[0]}");
        Assert.Equal(["posted", "approved", "withdrawn", "posted", "approved"], history.AsArray().Select(one => (string?)one!["act"]).Where(act => act is not ("captured" or "takenIn")));
        Assert.True((bool)(await service.Get("history/verify"))["isWhole"]!);
    }

    [Fact]
    public async Task A_layout_is_a_version_each_time_it_changes_and_a_run_is_taken_back_by_the_one_that_wrote_it()
    {
        var (service, _) = await Approved("port-ellery-galley");
        await using var _1 = service;
        var (status, problem) = await SaveLayout(service, "{ 'name': 'net', 'tables': [{ 'records': 'lines', 'columns': ['amuont'] }] }");
        Assert.Equal((422, "layout-faulty"), (status, (string?)problem["code"]));
        Assert.Contains("“amount” is meant, perhaps", (string?)problem["faults"]![0]!["message"], StringComparison.Ordinal);

        var document = Workbook("net", "{ 'format': 'csv' }");
        Assert.Equal(201, (await SaveLayout(service, document)).Status);
        Assert.False((bool)(await SaveLayout(service, document)).Body["isNew"]!);
        await Post(service, "net");
        Assert.Equal(412, (await SaveLayout(service, document, ("If-None-Match", "*"))).Status);
        Assert.Equal(2, (int)(await SaveLayout(service, Workbook("net", "{ 'format': 'csv', 'headings': false }"), ("If-Match", "\"1\""))).Body["version"]!);
        Assert.Equal(412, (await SaveLayout(service, document, ("If-Match", "\"1\""))).Status);
        await Withdraw(service, 1, new JsonObject { ["reason"] = "To be seen again" });
        Assert.StartsWith("Kind,Number", await service.Http.GetStringAsync(new Uri("posting-runs/2/file", UriKind.Relative)), StringComparison.Ordinal);
        Assert.Equal((2, "csv", 2), ((int)(await service.Get("posting-layouts"))[0]!["version"]!, (string?)(await service.Get("posting-layouts"))[0]!["format"], (int)(await service.Get("posting-layouts"))[0]!["runs"]!));
        Assert.Equal([2, 1], (await service.Get("posting-layouts/net/versions")).AsArray().Select(one => (int)one!["version"]!));
        Assert.Contains("\"csv\" }", (string?)(await service.Get("posting-layouts/net?version=1"))["text"], StringComparison.Ordinal);

        using var retire = new HttpRequestMessage(HttpMethod.Post, "posting-layouts/net/retirement") { Content = JsonContent.Create(new JsonObject { ["note"] = "Another ledger" }) };
        retire.Headers.Add("If-Match", "\"2\"");
        Assert.True((await service.Http.SendAsync(retire)).IsSuccessStatusCode);
        Assert.Equal("layout-retired", (string?)(await service.Post("posting-runs", new JsonObject { ["allBatches"] = true, ["layout"] = "net" })).Body["code"]);
    }

    [Fact]
    public async Task A_layout_is_tried_on_invoices_without_leaving_a_track()
    {
        var (service, batch) = await Approved("port-ellery-galley");
        await using var _1 = service;
        var before = (await service.Get("history?limit=1")).ToJsonString();
        var id = (int)(await service.Invoices(batch))[0]["id"]!;
        var tried = (await service.Post("posting-layouts/trial", new JsonObject { ["document"] = Workbook("net", "{ 'decimal': ',', 'delimiter': ';' }").Replace('\'', '"'), ["invoices"] = new JsonArray(id) })).Body;
        Assert.Equal(("net", 0, 1), ((string?)tried["name"], tried["documentFaults"]!.AsArray().Count, tried["invoices"]!.AsArray().Count));
        Assert.Equal(["text", "text", "date", "number", "text"], tried["tables"]![0]!["columns"]!.AsArray().Select(column => (string?)column!["type"]));
        Assert.Matches(@"^\d+,\d\d$", (string?)tried["tables"]![0]!["rows"]![0]![3]);
        Assert.StartsWith("Kind;Number;Date;Total;Currency\r\n", (string?)tried["files"]![0]!["begins"], StringComparison.Ordinal);
        var proved = tried["proved"]![0]!;
        Assert.Equal(((string?)proved["controlTotal"], true), ((string?)proved["written"], (bool)proved["holds"]!));
        Assert.Matches(@"^“Total” of Headers: It comes to [\d,.]+ GBP; the invoices come to [\d,.]+ GBP\.$", (string?)proved["says"]);

        // The same rows as a spreadsheet takes them.
        var rows = await service.Http.GetStringAsync(new Uri($"invoices/{id}/rows?as=tsv", UriKind.Relative));
        Assert.Equal((await service.Get($"invoices/{id}"))["lines"]!.AsArray().Count, rows.Split('\n').Length - 1);
        using var unknown = await service.Http.GetAsync(new Uri($"invoices/{id}/rows?as=xls", UriKind.Relative));
        Assert.Contains("“xls” is none of them", await unknown.Content.ReadAsStringAsync(), StringComparison.Ordinal);
        // A spreadsheet program reads figures as figures and days as days; text stays text.
        var book = Encoding.UTF8.GetString(Spreadsheet(await service.Http.GetByteArrayAsync(new Uri("review/table?state=approved&as=xlsx", UriKind.Relative)), "invoices")).Split('\n');
        var invoices = await service.All("review?state=approved");
        Assert.Equal(invoices.Count, book.Length - 2);
        Assert.Contains($",{(string?)invoices[0]["total"]},GBP,", book[1], StringComparison.Ordinal);
        Assert.Contains($",{(string?)invoices[0]["invoiceDate"]},", book[1].Replace('/', '-'), StringComparison.Ordinal);
        Assert.Equal("run,made on,by,layout,version,takes back,invoices,records,sum,currency,because", (await service.Http.GetStringAsync("posting-runs/table")).Split("\r\n")[0]);
        // Vendors, templates and the history, each as its page shows it.
        Assert.Equal(
            (await service.All("vendors?search=galley")).Select(one => $"{one["name"]},{one["terms"]},{one["currency"]},{one["ledgerAccount"]},{one["accounts"]},{one["accountsWaiting"]},{one["invoices"]},{one["held"]}"),
            (await service.Http.GetStringAsync("vendors/table?search=galley")).Split("\r\n", StringSplitOptions.RemoveEmptyEntries)[1..]);
        var templates = (await service.Http.GetStringAsync("template-table?as=tsv")).Split('\n');
        Assert.Equal((await service.All("templates")).Select(one => $"{one["name"]}|{one["version"]}|no|{one["invoices"]}|{one["untouched"]}|{one["held"]}"), templates[1..].Select(line => line.Split('\t')).Select(cells => $"{cells[0]}|{cells[3]}|{cells[7]}|{cells[8]}|{cells[9]}|{cells[10]}"));
        var history = (await service.Http.GetStringAsync("history/table?act=approved&as=tsv")).Split('\n');
        Assert.Equal((await service.All("history?act=approved")).Select(one => $"{one["stream"]}|{one["what"]}|{one["by"]}"), history[1..].Select(line => line.Split('\t')).Select(cells => $"{cells[1]}|{cells[2]}|{cells[5]}"));
        Assert.Equal("no.,state,vendor,", (await service.Http.GetStringAsync(new Uri($"batches/{batch}/table?open=true", UriKind.Relative)))[..17]);

        // Every name that is offered may be a column, of the kind that is said.
        foreach (var offered in (await service.Get("layout-names")).AsArray().Where(offered => (string?)offered!["records"] != "journal"))
        {
            var columns = string.Join(", ", offered!["names"]!.AsArray().Select(name => $"\"{name!["name"]}\""));
            var named = (await service.Post("posting-layouts/trial", new JsonObject
            {
                ["document"] = $$"""{ "name": "all", "tables": [{ "records": "{{offered["records"]}}", "columns": [{ "heading": "1", "value": "total", "proves": "total" }, {{columns}}] }] }""",
                ["invoices"] = new JsonArray(id),
            })).Body;
            Assert.Empty(named["documentFaults"]!.AsArray());
            Assert.Equal(offered["names"]!.AsArray().Select(name => (string?)name!["type"]), named["tables"]![0]!["columns"]!.AsArray().Skip(1).Select(column => (string?)column!["type"]));
        }

        // What is offered for files of a format may be said of them, and nothing else of CSV.
        var formats = (await service.Get("layout-formats")).AsArray();
        var sayings = new Dictionary<string, string>
        {
            ["format"] = "",
            ["delimiter"] = ";",
            ["decimal"] = ",",
            ["dates"] = "DD.MM.YYYY",
            ["encoding"] = "utf-16",
            ["lineEnds"] = "lf",
            ["headings"] = "true",
            ["quotes"] = "all",
            ["per"] = "vendor",
            ["name"] = "{run}-{vendor}",
            ["ending"] = "dat",
        };
        foreach (var format in formats.Where(format => (string?)format!["format"] != "ubl"))
        {
            var keys = format!["keys"]!.AsArray().Select(key => (string)key!).ToList();
            foreach (var (key, value) in sayings.Where(one => one.Key != "format"))
            {
                var said = key == "headings" ? value : $"\"{value}\"";
                var more = key is "name" ? ", \"per\": \"vendor\"" : key is "decimal" && keys.Contains("delimiter") ? ", \"delimiter\": \";\"" : "";
                var document = $$"""{ "name": "all", "tables": [{ "records": "invoices", "columns": [{ "heading": "1", "value": "total", "width": 12, "proves": "total" }] }], "file": { "format": "{{format["format"]}}", "{{key}}": {{said}}{{more}} } }""";
                var isTaken = (await service.Post("posting-layouts/trial", new JsonObject { ["document"] = document, ["invoices"] = new JsonArray(id) })).Body["documentFaults"]!.AsArray().Count == 0;
                Assert.Equal((format.ToJsonString(), key, keys.Contains(key)), (format.ToJsonString(), key, isTaken));
            }
        }

        var faulty = (await service.Post("posting-layouts/trial", new JsonObject { ["document"] = "{ \"name\": \"net\"" })).Body;
        Assert.Contains("This is not JSON", (string?)faulty["documentFaults"]![0]!["message"], StringComparison.Ordinal);
        Assert.Equal("document-missing", (string?)(await service.Post("posting-layouts/trial", new JsonObject())).Body["code"]);
        Assert.Equal(before, (await service.Get("history?limit=1")).ToJsonString());
        Assert.Empty((await service.Get("posting-runs")).AsArray());
    }

    [Fact]
    public async Task A_list_is_taken_from_a_file_and_back_and_layouts_look_words_up_in_it()
    {
        var (service, _) = await Approved("port-ellery-galley");
        await using var _1 = service;
        async Task<(int Status, JsonNode Body)> Import(string csv)
        {
            using var answer = await service.Http.PutAsync(new Uri("translation-lists/accounts/file", UriKind.Relative), new StringContent(csv, Encoding.UTF8, "text/csv"));
            return ((int)answer.StatusCode, JsonNode.Parse(await answer.Content.ReadAsStringAsync())!);
        }
        foreach (var (csv, code, says) in new[]
        {
            ("word,account\r\na,b\r\n", "column-unknown", "A list has no column “account”; it has word, meaning, from."), ("word\r\na\r\n", "column-missing", "word, meaning, and from"),
            ("word,meaning\r\n,b\r\n", "entry-faulty", "Entry 1: a word has 1 to 500 letters."), ("word,meaning,from\r\na,b,1.2.2026\r\n", "entry-faulty", "“1.2.2026” is no day"),
            ("word,meaning\r\na b,b\r\nA  B,c\r\n", "entry-faulty", "Entry 2: “A  B” stands in the list twice."), ("word,meaning,from\r\na,b,2026-01-01\r\na,c,2026-01-01\r\n", "entry-faulty", "twice from 2026-01-01."),
        })
        {
            var (status, problem) = await Import(csv);
            Assert.Equal((422, code), (status, (string?)problem["code"]));
            Assert.Contains(says, (string?)problem["detail"], StringComparison.Ordinal);
        }
        const string File = "word,meaning,from\r\nPort Ellery Galley Supplies,4100,\r\n\"port ellery  galley supplies\",4150,2999-01-01\r\n'=x,'=y,\r\n";
        Assert.Equal(3, (int)(await Import(File)).Body["entries"]!);
        Assert.Equal(File.Replace("\"", "", StringComparison.Ordinal), await service.Http.GetStringAsync(new Uri("translation-lists/accounts/file", UriKind.Relative)));
        Assert.Equal("=x", (string?)(await service.Get("translation-lists/accounts"))["entries"]![2]!["word"]);
        await SaveLayout(service, "{ 'name': 'coded', 'tables': [{ 'records': 'invoices', 'columns': [{ 'heading': 'Total', 'value': 'total', 'proves': 'total' }, { 'heading': 'Account', 'value': 'list \\\"accounts\\\" at vendor' }] }] }");
        var run = await Post(service, "coded");
        var lines = (await service.Http.GetStringAsync(new Uri($"posting-runs/{run["number"]}/file", UriKind.Relative))).Split("\r\n", StringSplitOptions.RemoveEmptyEntries);
        Assert.All(lines[1..], line => Assert.EndsWith(",4100", line, StringComparison.Ordinal));
        Assert.Equal(1, (int)(await service.Get($"posting-runs/{run["number"]}/manifest"))["lists"]!["accounts"]!);

        // What was written to an account is taken from that account, whatever the list says now.
        Assert.Equal(2, (int)(await Import("word,meaning\r\nPort Ellery Galley Supplies,4999\r\n")).Body["version"]!);
        Assert.Equal(2, (int)(await Import("word,meaning\r\nPort Ellery Galley Supplies,4999\r\n")).Body["version"]!);
        var back = (await Withdraw(service, run["number"], new JsonObject { ["reason"] = "Wrong period" })).Body;
        lines = (await service.Http.GetStringAsync(new Uri($"posting-runs/{back["number"]}/file", UriKind.Relative))).Split("\r\n", StringSplitOptions.RemoveEmptyEntries);
        Assert.All(lines[1..], line => Assert.Matches(@"^-[\d.]+,4100$", line));
        var again = await Post(service, "coded");
        Assert.Contains(",4999\r\n", await service.Http.GetStringAsync(new Uri($"posting-runs/{again["number"]}/file", UriKind.Relative)), StringComparison.Ordinal);
    }

    [Fact]
    public async Task Runs_of_an_earlier_release_keep_their_files_and_are_taken_back_like_others()
    {
        Assert.SkipWhen(StoreUnderTest.IsServer, "No such release knew a database server.");
        var (service, batch) = await Approved("port-ellery-galley");
        var run = (await service.PostAll()).Body;
        var csv = await service.Http.GetStringAsync(new Uri("posting-runs/1/file", UriKind.Relative));
        await service.Terminate();
        // As the release before kept it.
        await using (var connection = new SqliteConnection($"Data Source={Path.Combine(service.Data, "daxlin.db")};Pooling=False"))
        {
            await connection.OpenAsync();
            await using var command = connection.CreateCommand();
            command.CommandText = """
                ALTER TABLE "PostingRuns" ADD COLUMN "File" TEXT NOT NULL DEFAULT '';
                UPDATE "PostingRuns" SET "File" = (SELECT CAST("Content" AS TEXT) FROM "PostedFiles" WHERE "RunNumber" = "Number");
                DROP INDEX "IX_PostingRuns_Reverses";
                ALTER TABLE "PostingRuns" DROP COLUMN "Layout"; ALTER TABLE "PostingRuns" DROP COLUMN "LayoutVersion";
                ALTER TABLE "PostingRuns" DROP COLUMN "Reverses"; ALTER TABLE "PostingRuns" DROP COLUMN "Reason"; ALTER TABLE "PostingRuns" DROP COLUMN "Lists";
                DROP INDEX "IX_PostedInvoices_RunNumber"; DROP INDEX "IX_PostedInvoices_InvoiceId"; ALTER TABLE "PostedInvoices" RENAME TO "Newer";
                CREATE TABLE "PostedInvoices" ("InvoiceId" INTEGER NOT NULL CONSTRAINT "PK_PostedInvoices" PRIMARY KEY, "RunNumber" INTEGER NOT NULL);
                INSERT INTO "PostedInvoices" SELECT "InvoiceId", "RunNumber" FROM "Newer"; CREATE INDEX "IX_PostedInvoices_RunNumber" ON "PostedInvoices" ("RunNumber");
                DROP TABLE "Newer"; DROP TABLE "PostedFiles"; DROP TABLE "Layouts"; DROP TABLE "Lists";
                ALTER TABLE "Invoices" ADD COLUMN "Record" TEXT NOT NULL DEFAULT '';
                UPDATE "Invoices" SET "Record" = (SELECT "Record" FROM "InvoiceRecords" WHERE "InvoiceRecords"."Id" = "Invoices"."Id"); DROP TABLE "InvoiceRecords";
                DROP TABLE "Codings"; DROP TABLE "CodedCases"; DROP INDEX "IX_Invoices_State_CodedBy"; ALTER TABLE "Invoices" DROP COLUMN "CodedBy"; ALTER TABLE "PostingRuns" DROP COLUMN "CodingVersion";
                DELETE FROM "__EFMigrationsHistory" WHERE "MigrationId" LIKE '%PostingLayouts' OR "MigrationId" LIKE '%CodingAndRecords';
                """;
            await command.ExecuteNonQueryAsync();
        }
        await using var now = await ServiceUnderTest.Start(service.Data);
        Assert.Equal(csv, await now.Http.GetStringAsync(new Uri("posting-runs/1/file", UriKind.Relative)));
        var manifest = await now.Get("posting-runs/1/manifest");
        Assert.Equal(((int)run["invoices"]!, 64), (manifest["invoices"]!.AsArray().Count, ((string)manifest["files"]![0]!["sha256"]!).Length));
        Assert.Equal("nothing-to-post", (string?)(await now.PostAll()).Body["code"]);
        Assert.Equal((int)run["invoices"]!, (int)(await Withdraw(now, 1, new JsonObject { ["reason"] = "Posted to the wrong ledger" })).Body["invoices"]!);
        Assert.All((await now.Invoices(batch)).Where(one => (string?)one["state"] != "held"), one => Assert.Equal("approved", (string?)one["state"]));
        Assert.True((bool)(await now.Get("history/verify"))["isWhole"]!);
    }
}
