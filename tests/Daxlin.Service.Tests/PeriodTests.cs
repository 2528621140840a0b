using System.Net.Http.Json;
using System.Text.Json.Nodes;
using Daxlin.Testing;

namespace Daxlin.Service.Tests;

/// <summary>Closed periods: nothing is posted on their days, and what is posted on another says on which, also when it is taken back.</summary>
public class PeriodTests
{
    private const string Layout = """
        { "name": "dated", "tables": [{ "records": "invoices", "columns": ["invoiceNumber", "invoiceDate", "postingDate", { "value": "total", "heading": "total", "proves": "total" }] }], "file": { "format": "csv" } }
        """;

    private static async Task<(int Status, JsonNode Body)> Close(ServiceUnderTest service, int? seen, string? through, string? reason = null)
    {
        using var request = new HttpRequestMessage(HttpMethod.Put, "closed-periods") { Content = JsonContent.Create(new JsonObject { ["through"] = through, ["reason"] = reason }) };
        if (seen is not null)
            request.Headers.Add("If-Match", $"\"{seen}\"");
        using var answer = await service.Http.SendAsync(request);
        return ((int)answer.StatusCode, JsonNode.Parse(await answer.Content.ReadAsStringAsync())!);
    }

    private static JsonObject All(string? postingDate, string? layout = "dated") => new() { ["allBatches"] = true, ["layout"] = layout, ["postingDate"] = postingDate };

    /// <summary>What a run's file says of each invoice: number, own date, posting date.</summary>
    private static async Task<List<string[]>> Written(ServiceUnderTest service, JsonNode run) =>
        [.. (await service.Http.GetStringAsync($"posting-runs/{run["number"]}/file")).Split("\r\n", StringSplitOptions.RemoveEmptyEntries).Skip(1).Select(line => line.Split(',')[..3])];

    [Fact]
    public async Task What_is_dated_in_a_closed_period_is_posted_on_the_day_that_is_said_and_taken_back_on_an_open_one()
    {
        await using var service = await ServiceUnderTest.Start();
        await service.SaveTemplates(Repository.Samples);
        using var sent = await service.Http.PostAsync(new Uri("posting-layouts", UriKind.Relative), new StringContent(Layout));
        Assert.Equal(201, (int)sent.StatusCode);
        var batch = await service.OpenBatch("November");
        await service.Upload(batch, new[] { 1, 2, 3, 4 }.Select(at => $"port-ellery-galley-{at:00}.pdf").Select(file => (file, File.ReadAllBytes(Path.Combine(Repository.Samples, "port-ellery-galley", file)))));
        await service.UntilDone(batch);
        foreach (var one in await service.Invoices(batch))
            await service.Decide(one["id"], "approval");
        var dates = (await service.Invoices(batch)).Select(one => (string)one["invoiceDate"]!).Order(StringComparer.Ordinal).ToList();
        Assert.Equal(4, dates.Distinct().Count());
        var (closed, later) = (dates[1], DateOnly.ParseExact(dates[1], "yyyy-MM-dd").AddDays(1).ToString("yyyy-MM-dd"));

        Assert.Equal(("", 0), ((string?)(await service.Post("posting-runs/rehearsal", All(null))).Body["periodClosed"], (int)(await service.Get("closed-periods"))["revision"]!));
        Assert.Equal(428, (await Close(service, null, closed)).Status);
        Assert.Equal((412, "changed-since"), await Code(Close(service, 7, closed)));
        Assert.Equal((422, "period-to-come"), await Code(Close(service, 0, "2999-12-31")));
        Assert.Equal(200, (await Close(service, 0, closed)).Status);
        var (status, told) = await Close(service, 0, dates[3]);
        Assert.Equal(412, status);
        Assert.Contains($"that all up to {closed} is closed. Look at them again.", (string)told["detail"]!, StringComparison.Ordinal);

        // Nothing is posted until a day is said, and one that is closed itself is none.
        (status, told) = await service.Post("posting-runs", All(null));
        Assert.Equal((409, "period-closed"), (status, (string?)told["code"]));
        Assert.Matches($@"^All up to {closed} is closed, and 2 invoices are dated in that time: \S+ of {dates[0]}, \S+ of {dates[1]}\. Nothing was posted\. Say a posting date", Sorted((string)told["detail"]!, dates));
        Assert.Equal((422, "posting-date-closed"), await Code(service.Post("posting-runs", All(closed))));
        Assert.StartsWith("All up to", (string)(await service.Post("posting-runs/rehearsal", All(null))).Body["periodClosed"]!, StringComparison.Ordinal);
        Assert.Empty((await service.Get("posting-runs")).AsArray());
        var (_, run) = await service.Post("posting-runs", All(later));
        Assert.Equal((1, later), ((int)run["number"]!, (string?)run["postingDate"]));
        Assert.Equal([later, later, dates[2], dates[3]], (await Written(service, run)).OrderBy(row => row[1], StringComparer.Ordinal).Select(row => row[2]));
        var manifest = await service.Get("posting-runs/1/manifest");
        Assert.All(manifest["invoices"]!.AsArray(), one => Assert.Equal(string.CompareOrdinal((string?)one!["invoiceDate"], closed) <= 0 ? later : (string?)one["invoiceDate"], (string?)one["postingDate"]));

        // What takes it back is posted on the same days, but for those that were closed meanwhile.
        Assert.Equal(200, (await Close(service, 1, dates[2])).Status);
        var back = new JsonObject { ["reason"] = "Wrong ledger account" };
        Assert.Equal((409, "period-closed"), await Code(service.Post("posting-runs/1/withdrawal", back.DeepClone())));
        back["postingDate"] = dates[3];
        var (_, reversal) = await service.Post("posting-runs/1/withdrawal", back.DeepClone());
        Assert.Equal([dates[3], dates[3], dates[3], dates[3]], (await Written(service, reversal)).Select(row => row[2]));
        Assert.All((await service.Get("posting-runs/2/manifest"))["invoices"]!.AsArray(), one => Assert.Equal(dates[3], (string?)one!["postingDate"]));

        // Opening again wants a reason; then all is posted on its own day, and a file of every value needs no column for it.
        Assert.Equal((422, "reason-missing"), await Code(Close(service, 2, null)));
        Assert.Equal(200, (await Close(service, 2, null, "The auditor asked for a correction of spring")).Status);
        var (_, again) = await service.Post("posting-runs", All(null, null));
        Assert.DoesNotContain("postingDate", await service.Http.GetStringAsync($"posting-runs/{again["number"]}/file"), StringComparison.Ordinal);
        var periods = await service.Get("closed-periods");
        Assert.Equal([null, dates[2], closed], periods["changes"]!.AsArray().Select(one => (string?)one!["through"]));
        Assert.Contains(await service.All("history"), entry => (string?)entry["reason"] == "The auditor asked for a correction of spring" && (string?)entry["before"] == dates[2]);
    }

    private static async Task<(int Status, string? Code)> Code(Task<(int Status, JsonNode Body)> answer) => ((await answer).Status, (string?)(await answer).Body["code"]);

    /// <summary>The sentence with its two invoices in the order of their dates: the run's order is that of the files.</summary>
    private static string Sorted(string sentence, List<string> dates)
    {
        var parts = System.Text.RegularExpressions.Regex.Match(sentence, @": (\S+ of \S+), (\S+ of \S+)\. Nothing");
        return parts.Groups[1].Value.EndsWith(dates[0], StringComparison.Ordinal) ? sentence : sentence.Replace(parts.Value, $": {parts.Groups[2].Value}, {parts.Groups[1].Value}. Nothing", StringComparison.Ordinal);
    }
}
