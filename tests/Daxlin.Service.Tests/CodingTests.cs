using System.Globalization;
using System.Text;
using System.Text.Json.Nodes;
using Daxlin.Testing;

namespace Daxlin.Service.Tests;

/// <summary>Codes by rules and by hand, as a clerk and a ledger see them.</summary>
public class CodingTests
{
    private const string Vendor = "port-ellery-galley";

    private static async Task<(ServiceUnderTest Service, int Batch)> Captured(params string[] numbers)
    {
        var service = await ServiceUnderTest.StartAfter($"{Vendor} {string.Join(' ', numbers)}", async service =>
        {
            await service.SaveTemplates(Path.Combine(Repository.Samples, Vendor));
            await Take(service, await service.OpenBatch("November"), numbers);
        });
        return (service, await service.FirstBatch());
    }

    private static async Task Take(ServiceUnderTest service, int batch, params string[] numbers)
    {
        await service.Upload(batch, numbers.Select(number => ($"{Vendor}-{number}.pdf", File.ReadAllBytes(Path.Combine(Repository.Samples, Vendor, $"{Vendor}-{number}.pdf")))));
        await service.UntilDone(batch);
    }

    private static async Task<(int Status, JsonNode Body)> Send(ServiceUnderTest service, string path, string json, params (string Name, string Value)[] headers)
    {
        using var request = new HttpRequestMessage(HttpMethod.Post, path) { Content = new StringContent(json.Contains('"', StringComparison.Ordinal) ? json : json.Replace('\'', '"'), Encoding.UTF8, "application/json") };
        foreach (var (name, value) in headers)
            request.Headers.Add(name, value);
        using var answer = await service.Http.SendAsync(request);
        return ((int)answer.StatusCode, JsonNode.Parse(await answer.Content.ReadAsStringAsync())!);
    }

    /// <summary>Saves rules and waits until no open invoice is coded by others any more.</summary>
    private static async Task Save(ServiceUnderTest service, string rules)
    {
        var (status, saved) = await Send(service, "coding-rules", rules);
        Assert.True(status is 200 or 201, saved.ToJsonString());
        await UntilCoded(service);
    }

    private static async Task UntilCoded(ServiceUnderTest service)
    {
        using var reader = new StreamReader(await service.Http.GetStreamAsync(new Uri("coding-rules/events", UriKind.Relative)));
        var last = await reader.ReadToEndAsync().WaitAsync(TimeSpan.FromMinutes(1));
        Assert.Contains("\"waiting\":0", last, StringComparison.Ordinal);
    }

    private static Task<(int Status, JsonNode Body)> Code(ServiceUnderTest service, JsonNode invoice, JsonObject body)
    {
        body["act"] = "code";
        return service.Decide(invoice["id"], "corrections", body);
    }

    private static string[] Codes(JsonNode invoice, string name) =>
        [.. invoice["coding"]!.AsArray().SelectMany(line => line!["parts"]!.AsArray().Select(part => (string?)part!["codes"]![name]?["value"] ?? ""))];

    private static async Task<JsonNode> First(ServiceUnderTest service, int batch) => await service.Get($"invoices/{(await service.Invoices(batch))[0]["id"]}");

    [Fact]
    public async Task Open_invoices_are_coded_by_the_rules_and_held_where_a_code_is_missing_until_a_person_codes_them()
    {
        var (service, batch) = await Captured("01");
        await using var running = service;
        Assert.Equal("clear", (string?)(await First(service, batch))["state"]);
        await Save(service, "{ 'needs': ['account'], 'rules': [{ 'of': 'the first rows', 'when': 'line < 3', 'account': '6400' }, { 'costCentre': '410' }] }");
        var invoice = await First(service, batch);
        var lines = invoice["lines"]!.AsArray().Count;
        Assert.Equal(4, lines);
        Assert.Equal("held", (string?)invoice["state"]);
        Assert.Equal(["6400", "6400", .. Enumerable.Repeat("", lines - 2)], Codes(invoice, "account"));
        Assert.Equal("rule 1, the first rows", (string?)invoice["coding"]![0]!["parts"]![0]!["codes"]!["account"]!["from"]);
        var finding = invoice["findings"]!.AsArray().Single(one => (string?)one!["code"] == "uncoded")!;
        Assert.Matches(@"^Rows 3 and 4 \([\d,.]+ GBP\) have no account: the coding rules say that every line needs one\. Code them here, or by a rule\.$", (string?)finding["message"]);
        Assert.Equal("findings-open", (string?)(await service.Decide(invoice["id"], "approval")).Body["code"]);

        // By hand, row by row; the last row is parted.
        for (var row = 3; row < lines; row++)
            Assert.Equal(200, (await Code(service, invoice, new JsonObject { ["of"] = $"lines[{row}]", ["cells"] = new JsonObject { ["account"] = "6500" } })).Status);
        var shares = new JsonArray(
            new JsonObject { ["part"] = "2", ["codes"] = new JsonObject { ["account"] = "6501" } }, new JsonObject { ["part"] = "1", ["codes"] = new JsonObject { ["account"] = "6502", ["costCentre"] = "420" } });
        var (status, coded) = await Code(service, invoice, new JsonObject { ["of"] = $"lines[{lines}]", ["shares"] = shares });
        Assert.True(status == 200, coded.ToJsonString());
        Assert.Equal("clear", (string?)coded["state"]);
        Assert.Equal(["6501", "6502"], Codes(coded, "account")[^2..]);
        Assert.Equal(["410", "420"], Codes(coded, "costCentre")[^2..]);
        var parts = coded["coding"]!.AsArray()[^1]!["parts"]!.AsArray().Sum(part => decimal.Parse((string)part!["amount"]!, CultureInfo.InvariantCulture));
        Assert.Equal(decimal.Parse((string)invoice["lines"]![lines - 1]!["cells"]!["amount"]!["value"]!, CultureInfo.InvariantCulture), parts);
        // Codes are nothing that was mended, and they are undone like a correction.
        Assert.Equal("held", (string?)(await service.Decide(invoice["id"], "corrections", new JsonObject { ["act"] = "undo" })).Body["state"]);
        Assert.Equal("clear", (string?)(await service.Decide(invoice["id"], "corrections", new JsonObject { ["act"] = "redo" })).Body["state"]);
        Assert.Contains("account 6501", string.Join('\n', (await service.All($"history?invoice={invoice["id"]}")).Select(entry => entry.ToJsonString())), StringComparison.Ordinal);

        // Captured anew, and under changed rules, what a person said stays.
        await Save(service, "{ 'needs': ['account'], 'rules': [{ 'account': '6400' }] }");
        coded = await First(service, batch);
        Assert.Equal(["6400", "6400", .. Enumerable.Repeat("6500", lines - 3), "6501", "6502"], Codes(coded, "account"));
        await service.Post($"batches/{batch}/recapture", new JsonObject());
        await service.UntilDone(batch);
        Assert.Equal(Codes(coded, "account"), Codes(await First(service, batch), "account"));
        // Nothing of a line said: the rules again.
        var back = (await Code(service, invoice, new JsonObject { ["of"] = $"lines[{lines}]", ["shares"] = new JsonArray() })).Body;
        Assert.Equal("6400", Codes(back, "account")[^1]);
    }

    [Fact]
    public async Task A_flag_holds_an_invoice_or_is_told_only_and_goes_with_its_reason()
    {
        var (service, batch) = await Captured("01");
        await using var running = service;
        await Save(service, "{ 'rules': [], 'flags': [{ 'says': 'a large row', 'when': 'amount > 0 and line = 2', 'holds': true }, { 'says': 'for the master', 'of': 'invoice', 'when': 'total > 1' }] }");
        var invoice = await First(service, batch);
        Assert.Equal("held", (string?)invoice["state"]);
        var (hold, note) = (invoice["findings"]![0]!, invoice["findings"]![1]!);
        Assert.Equal(("flagged", "hold", "flagged", "note"), ((string?)hold["code"], (string?)hold["severity"], (string?)note["code"], (string?)note["severity"]));
        string Shown(JsonNode? money) => decimal.Parse((string)money!["value"]!, CultureInfo.InvariantCulture).ToString("N2", CultureInfo.InvariantCulture);
        Assert.Equal($"A large row: row 2 (amount {Shown(invoice["lines"]![1]!["cells"]!["amount"])} GBP, line 2).", (string?)hold["message"]);
        Assert.Equal($"For the master: total {Shown(invoice["fields"]!["total"])} GBP.", (string?)note["message"]);

        var (status, passed) = await service.Decide(invoice["id"], "corrections", new JsonObject { ["act"] = "accept", ["code"] = "flagged", ["message"] = (string?)hold["message"], ["reason"] = "ordered by telephone" });
        Assert.True(status == 200, passed.ToJsonString());
        Assert.Equal("clear", (string?)passed["state"]);
        Assert.Equal("ordered by telephone", (string?)passed["accepted"]![0]!["reason"]);
        // Another limit, another sentence: it is to be seen anew.
        await Save(service, "{ 'rules': [], 'flags': [{ 'says': 'a row too large', 'when': 'amount > 0 and line = 2', 'holds': true }] }");
        Assert.Equal("held", (string?)(await First(service, batch))["state"]);
        await Save(service, "{ 'rules': [], 'flags': [] }");
        Assert.Equal("clear", (string?)(await First(service, batch))["state"]);
    }

    [Fact]
    public async Task What_was_shown_is_approved_with_its_codes_or_refused_and_posted_so_as_a_journal_that_balances()
    {
        var (service, batch) = await Captured("01", "02", "03");
        await using var running = service;
        await Save(service, "{ 'rules': [{ 'account': '6400', 'shares': [{ 'part': 60, 'costCentre': '410' }, { 'part': 40, 'costCentre': '420' }] }], 'journal': { 'payable': '1600', 'tax': '1576', 'freight': '6740', 'discount': '3730', 'rounding': '6969' } }");
        var journal = File.ReadAllText(Path.Combine(Repository.Root, "docs", "CODING.md")).Split("```json")[2].Split("```")[0];
        Assert.Equal(201, (await Send(service, "posting-layouts", journal)).Status);
        await UntilCoded(service);
        var seen = (await service.Invoices(batch)).First(one => (string?)one["state"] == "clear");
        // The rules change between what the clerk saw and the approval: whichever comes first, other codes are not approved unseen.
        await Send(service, "coding-rules", "{ 'rules': [{ 'account': '6401', 'shares': [{ 'part': 60, 'costCentre': '410' }, { 'part': 40, 'costCentre': '420' }] }], 'journal': { 'payable': '1600', 'tax': '1576', 'freight': '6740', 'discount': '3730', 'rounding': '6969' } }");
        var (status, refused) = await service.Decide(seen["id"], "approval", (int)seen["revision"]!);
        Assert.True(status is 409 or 412 && (string?)refused["code"] is "coded-anew" or "changed-since", refused.ToJsonString());
        await UntilCoded(service);
        foreach (var invoice in (await service.Invoices(batch)).Where(one => (string?)one["state"] == "clear"))
            Assert.Equal(200, (await service.Decide(invoice["id"], "approval")).Status);
        var (made, run) = await service.Post("posting-runs", new JsonObject { ["allBatches"] = true, ["layout"] = "journal" });
        Assert.True(made == 201, run.ToJsonString());
        var entries = await Entries(service, 1);
        Assert.Equal((int)run["invoices"]!, entries.Count(entry => entry.Account == "1600"));
        Assert.Equal(entries.Sum(entry => entry.Debit), entries.Sum(entry => entry.Credit));
        Assert.Equal(["1576", "1600", "6401", "6740"], entries.Select(entry => entry.Account).Distinct().Order());
        Assert.Equal(["410", "420"], entries.Where(entry => entry.Account == "6401").Select(entry => entry.CostCentre).Distinct().Order());
        Assert.Equal(2, (int)(await service.Get("posting-runs/1/manifest"))["codingVersion"]!);
        // Taken back after the rules have changed: from the accounts that it was posted to.
        await Save(service, "{ 'rules': [{ 'account': '9999' }], 'journal': { 'payable': '9998', 'tax': '9997' } }");
        Assert.Equal(201, (await service.Post("posting-runs/1/withdrawal", new JsonObject { ["reason"] = "Posted to the wrong month", ["open"] = true })).Status);
        Assert.Equal(entries.Select(entry => (entry.Account, entry.CostCentre, entry.Credit, entry.Debit)), (await Entries(service, 2)).Select(entry => (entry.Account, entry.CostCentre, entry.Debit, entry.Credit)));
        // Open again, they are coded by the rules of now.
        await UntilCoded(service);
        var again = (await service.Invoices(batch)).First(one => (string?)one["state"] == "clear");
        Assert.Equal("9999", Codes(await service.Get($"invoices/{again["id"]}"), "account")[0]);
    }

    [Fact]
    public async Task Every_clear_invoice_of_all_families_is_a_journal_that_balances_whatever_its_currency_and_way_of_taxes()
    {
        await using var service = await ServiceUnderTest.Start();
        var batch = await service.OpenBatch("Families");
        foreach (var folder in Repository.FamiliesOf(Repository.Corpus).Concat(Repository.FamiliesOf(Repository.Families)))
        {
            await service.SaveTemplates(folder);
            await service.Upload(batch, new[] { "inv-1.pdf", "inv-4.pdf" }.Select(file => Path.Combine(folder, file)).Where(File.Exists).Select(file => ($"{Path.GetFileName(folder)} {Path.GetFileName(file)}", File.ReadAllBytes(file))));
        }
        await service.UntilDone(batch);
        await Save(service, "{ 'rules': [{ 'when': 'line < 3', 'account': '6400', 'shares': [{ 'part': 2, 'costCentre': '410' }, { 'part': 1, 'costCentre': '420' }] }, { 'account': '6999' }], 'journal': { 'payable': '1600', 'tax': '1576', 'freight': '6740', 'discount': '3730', 'rounding': '6969' } }");
        var clear = (await service.Invoices(batch)).Where(one => (string?)one["state"] == "clear").Select(one => (int)one["id"]!).ToList();
        Assert.True(clear.Count >= 40, $"only {clear.Count} are clear");
        var journal = File.ReadAllText(Path.Combine(Repository.Root, "docs", "CODING.md")).Split("```json")[2].Split("```")[0];
        var tried = (await service.Post("posting-layouts/trial", new JsonObject { ["document"] = journal, ["invoices"] = new JsonArray([.. clear.Select(id => JsonValue.Create(id))]) })).Body;
        Assert.Empty(tried["faults"]!.AsArray());
        Assert.Equal(clear.Count, tried["invoices"]!.AsArray().Count);
        var sides = tried["proved"]!.AsArray().GroupBy(side => (string)side!["currency"]! + side["of"]).ToList();
        Assert.True(sides.Count >= 8);
        Assert.All(sides, both => Assert.Single(both.Select(side => (string)side!["written"]!).Distinct()));
    }

    private static async Task<List<(string Account, string CostCentre, decimal Debit, decimal Credit)>> Entries(ServiceUnderTest service, int run)
    {
        static decimal Amount(string text) => text.Length == 0 ? 0 : decimal.Parse(text, CultureInfo.InvariantCulture);
        var csv = await service.Http.GetStringAsync(new Uri($"posting-runs/{run}/file", UriKind.Relative));
        using var reader = new Microsoft.VisualBasic.FileIO.TextFieldParser(new StringReader(csv)) { Delimiters = [","], HasFieldsEnclosedInQuotes = true };
        reader.ReadFields();
        var entries = new List<(string, string, decimal, decimal)>();
        while (reader.ReadFields() is { } cells)
            entries.Add((cells[1], cells[2], Amount(cells[4]), Amount(cells[5])));
        return entries;
    }

    [Fact]
    public async Task What_was_approved_is_proposed_for_the_vendors_next_invoice_with_how_many_agree()
    {
        var (service, batch) = await Captured("01");
        await using var running = service;
        var invoice = await First(service, batch);
        Assert.Empty((await service.Get($"invoices/{invoice["id"]}/coding-proposals")).AsArray());
        Assert.Equal(200, (await Code(service, invoice, new JsonObject { ["of"] = "lines[1]", ["cells"] = new JsonObject { ["account"] = " 6210 ", ["project"] = "REFIT" } })).Status);
        // Coded by hand alone, without any rules; an empty code takes it back.
        Assert.Equal("", Codes((await Code(service, invoice, new JsonObject { ["of"] = "lines[1]", ["cells"] = new JsonObject { ["project"] = "" } })).Body, "project")[0]);
        Assert.Equal(200, (await service.Decide(invoice["id"], "approval")).Status);
        var other = await service.OpenBatch("December");
        await service.Upload(other, ("again.pdf", [.. File.ReadAllBytes(Path.Combine(Repository.Samples, Vendor, $"{Vendor}-01.pdf")), .. "\n%again\n"u8]));
        await service.UntilDone(other);
        var next = await First(service, other);
        var proposal = Assert.Single((await service.Get($"invoices/{next["id"]}/coding-proposals")).AsArray())!;
        Assert.Equal((1, 1, 1, "account 6210 on 1 of 1 line like it"), ((int)proposal["line"]!, (int)proposal["agree"]!, (int)proposal["of"]!, (string?)proposal["says"]));
        // Taken over, it is proposed no more.
        var (status, coded) = await Code(service, next, new JsonObject { ["of"] = "lines[1]", ["shares"] = proposal["shares"]!.DeepClone() });
        Assert.True(status == 200, coded.ToJsonString());
        Assert.Equal("6210", Codes(coded, "account")[0]);
        Assert.Empty((await service.Get($"invoices/{next["id"]}/coding-proposals")).AsArray());
    }

    [Fact]
    public async Task A_layout_in_use_that_would_write_no_code_holds_the_invoice_and_a_retired_one_does_not()
    {
        var (service, batch) = await Captured("01");
        await using var running = service;
        await Send(service, "posting-layouts", """
            { "name": "lines", "tables": [{ "records": "lines", "columns": ["description", { "heading": "Konto", "value": "account" }, { "heading": "KSt", "value": "costCentre otherwise ''" }, { "heading": "Amount", "value": "amount", "proves": "lines" }] }] }
            """);
        await UntilCoded(service);
        var invoice = await First(service, batch);
        Assert.Equal("held", (string?)invoice["state"]);
        Assert.Contains("the layout “lines” writes it as “Konto”", (string?)Assert.Single(invoice["findings"]!.AsArray())!["message"], StringComparison.Ordinal);
        using (var request = new HttpRequestMessage(HttpMethod.Post, "posting-layouts/lines/retirement") { Content = new StringContent("{}", Encoding.UTF8, "application/json") })
        {
            request.Headers.Add("If-Match", "\"1\"");
            Assert.True((await service.Http.SendAsync(request)).IsSuccessStatusCode);
        }
        await UntilCoded(service);
        Assert.Equal("clear", (string?)(await First(service, batch))["state"]);
    }

    [Fact]
    public async Task Rules_are_tried_kept_by_version_and_refused_with_their_faults()
    {
        var (service, batch) = await Captured("01");
        await using var running = service;
        var id = (int)(await service.Invoices(batch))[0]["id"]!;
        var tried = (await service.Post("coding-rules/trial", new JsonObject { ["document"] = """{ "needs": ["project"], "rules": [{ "of": "all", "account": "1" }, { "of": "none", "when": "amount < 0", "account": "2" }] }""" })).Body;
        var lines = (int)tried["lines"]!;
        Assert.Equal((lines, 0), ((int)tried["rules"]![0]!["lines"]!, (int)tried["rules"]![1]!["lines"]!));
        Assert.Contains("no project", (string?)tried["invoices"]![0]!["findings"]![0]!["message"], StringComparison.Ordinal);
        Assert.Equal("rules[0].account", (string?)(await service.Post("coding-rules/trial", new JsonObject { ["document"] = """{ "rules": [{ "account": 1 }] }""" })).Body["documentFaults"]![0]!["place"]);
        Assert.Equal(0, (int)(await service.Get("coding-rules"))["version"]!);
        Assert.Empty((await service.Get($"invoices/{id}"))["coding"]!.AsArray());

        var (status, refused) = await Send(service, "coding-rules", "{ 'rules': [{ 'acount': '1' }] }");
        Assert.Equal((422, "coding-faulty", "The coding rules have 2 faults."), (status, (string?)refused["code"], (string?)refused["detail"]));
        Assert.Contains("“account” is meant, perhaps", (string?)refused["faults"]![0]!["message"], StringComparison.Ordinal);
        await Save(service, "{ 'rules': [{ 'account': '1' }] }");
        Assert.Equal(412, (await Send(service, "coding-rules", "{ 'rules': [] }", ("If-Match", "\"7\""))).Status);
        await Save(service, "{ 'rules': [{ 'account': '2' }] }");
        Assert.Equal(["2", "1"], (await service.All("coding-rules/versions")).Select(one => one["version"]!.ToJsonString()));
        Assert.Contains("'1'".Replace('\'', '"'), (string?)(await service.Get("coding-rules?version=1"))["text"], StringComparison.Ordinal);
        // What cannot be: a code that is none, a row that is none, shares without parts.
        var invoice = await service.Get($"invoices/{id}");
        foreach (var (of, body) in new[]
        {
            ("lines[1]", """{ "cells": { "acount": "1" } }"""), ("lines[99]", """{ "cells": { "account": "1" } }"""), ("total", """{ "cells": { "account": "1" } }"""), ("invoice", """{ "cells": { "account": "1" } }"""),
            ("lines[1]", """{ "shares": [{ "part": "0", "codes": { "account": "1" } }] }"""), ("lines[1]", """{ "shares": [null] }"""), ("lines[1]", """{ "shares": [{ "part": "1", "codes": { "account": "" } }] }"""), ("lines[1]", "{}"),
        })
        {
            var wanted = JsonNode.Parse(body)!.AsObject();
            wanted["of"] = of;
            var (code, answer) = await Code(service, invoice, wanted);
            Assert.True(code == 422 && ((string?)answer["detail"])!.EndsWith('.'), $"{of} {body}: {code} {answer.ToJsonString()}");
        }
    }
}
