using System.Globalization;
using System.Text.Json.Nodes;
using Daxlin.Testing;

namespace Daxlin.Service.Tests;

/// <summary>Four eyes, second approvers, many at once, and approvals that are taken back.</summary>
public class ApprovalTests
{
    /// <summary>A service with a batch of clear invoices, an administrator who approves, and another approver and a clerk.</summary>
    private static async Task<(ServiceUnderTest Service, SignedIn Ada, SignedIn Cato, SignedIn Berta, int Batch)> Department()
    {
        var (before, batch) = await ServiceUnderTest.StartWith("port-ellery-galley");
        await before.Terminate();
        var (service, ada) = await SignedIn.First(before.Data);
        return (service, ada, await ada.Add(service, "Cato Fenn", "approver"), await ada.Add(service, "Berta Quill", "clerk"), batch);
    }

    private static async Task Say(SignedIn administrator, JsonObject rules)
    {
        var now = await administrator.Get("approval-rules");
        Assert.Equal(200, (await administrator.Send(HttpMethod.Put, "approval-rules", rules, (int)now["revision"]!)).Status);
    }

    private static async Task<JsonNode> Clear(SignedIn asked, int batch, int at) =>
        (await asked.Get($"batches/{batch}/invoices")).AsArray().Where(one => (string?)one!["state"] == "clear").OrderBy(one => (int)one!["id"]!).ElementAt(at)!;

    private static async Task<(int Status, JsonNode Body)> Decide(SignedIn who, JsonNode invoice, string act, JsonObject? body = null) =>
        await who.Send(HttpMethod.Post, $"invoices/{invoice["id"]}/{act}", body ?? [], (int)(await who.Get($"invoices/{invoice["id"]}"))["revision"]!);

    [Fact]
    public async Task Who_corrected_an_invoice_does_not_approve_it_where_four_eyes_are_asked_for()
    {
        var (service, ada, cato, berta, batch) = await Department();
        await using var _ = service;
        using SignedIn one = ada, two = cato, three = berta;
        Assert.Equal(403, (await cato.Send(HttpMethod.Put, "approval-rules", new JsonObject { ["keepsCorrectors"] = true }, 0)).Status);
        await Say(ada, new JsonObject { ["keepsCorrectors"] = true });
        var invoice = await Clear(ada, batch, 0);
        var shown = await cato.Get($"invoices/{invoice["id"]}");
        var number = (string)shown["fields"]!["invoiceNumber"]!["value"]!;
        var (corrected, body) = await Decide(cato, invoice, "corrections", new JsonObject { ["act"] = "enter", ["of"] = "invoiceNumber", ["text"] = number + "-A" });
        Assert.True(corrected == 200, body.ToJsonString());
        var (status, problem) = await Decide(cato, invoice, "approval");
        Assert.Equal((409, "four-eyes"), (status, (string?)problem["code"]));
        Assert.Equal($"Invoice {invoice["id"]} was corrected by Cato Fenn, who therefore does not approve it as well. Those who can: Ada Wrenfield.", (string?)problem["detail"]);
        Assert.Equal(403, (await Decide(berta, invoice, "approval")).Status);
        Assert.Equal("approved", (string?)(await Decide(ada, invoice, "approval")).Body["state"]);
        // One that Cato had no hand in is his to approve.
        Assert.Equal("approved", (string?)(await Decide(cato, await Clear(ada, batch, 0), "approval")).Body["state"]);
    }

    [Fact]
    public async Task A_large_sum_takes_two_approvers_of_what_it_is_now()
    {
        var (service, ada, cato, berta, batch) = await Department();
        await using var _ = service;
        using SignedIn one = ada, two = cato, three = berta;
        var invoice = await Clear(ada, batch, 0);
        var currency = (string)invoice["currency"]!;
        await Say(ada, new JsonObject { ["twoAbove"] = new JsonObject { [currency] = "1.00" } });
        var (status, first) = await Decide(cato, invoice, "approval");
        Assert.Equal((200, "clear", "Cato Fenn"), (status, (string?)first["state"], (string?)first["firstApprovedBy"]));
        Assert.Matches($@"^approved first; a second approver is needed, since [\d,.]+ {currency} is more than 1\.00 {currency}$", (string?)first["decisions"]!.AsArray()[^1]!["what"]);
        var (again, problem) = await Decide(cato, invoice, "approval");
        Assert.Equal((409, "four-eyes"), (again, (string?)problem["code"]));
        Assert.EndsWith("Those who can: Ada Wrenfield.", (string?)problem["detail"], StringComparison.Ordinal);
        Assert.Equal(409, (await berta.Send(HttpMethod.Post, "posting-runs", new JsonObject { ["batch"] = batch })).Status);

        async Task<string> Listed() => (string)(await ada.Get($"batches/{batch}/invoices")).AsArray().Single(one => (int)one!["id"]! == (int)invoice["id"]!)!["firstApprovedBy"]!;
        Assert.Equal("Cato Fenn", await Listed());
        // Over all batches, a second approver finds what waits.
        async Task<int[]> Waiting() => [.. (await ada.Get("review?state=approved-first")).AsArray().Select(one => (int)one!["id"]!)];
        Assert.Equal([(int)invoice["id"]!], await Waiting());
        // What changes after the first approval was approved by nobody.
        await Decide(berta, invoice, "corrections", new JsonObject { ["act"] = "enter", ["of"] = "invoiceNumber", ["text"] = "ELL-1" });
        Assert.Equal("", (string?)(await ada.Get($"invoices/{invoice["id"]}"))["firstApprovedBy"]);
        Assert.Equal("", await Listed());
        Assert.Empty(await Waiting());
        Assert.Equal("Ada Wrenfield", (string?)(await Decide(ada, invoice, "approval")).Body["firstApprovedBy"]);
        var (done, approved) = await Decide(cato, invoice, "approval");
        Assert.Equal((200, "approved", ""), (done, (string?)approved["state"], (string?)approved["firstApprovedBy"]));
        Assert.Equal("approved, as the second after Ada Wrenfield", (string?)approved["decisions"]!.AsArray()[^1]!["what"]);
        Assert.Empty(await Waiting());

        // Taken back before it was posted, it is open again, and needs both once more.
        Assert.Equal((422, "reason-missing"), await Decide(cato, invoice, "approval/withdrawal", new JsonObject { ["reason"] = "..." }) is var (faulty, said) ? (faulty, (string?)said["code"]) : default);
        var (taken, open) = await Decide(cato, invoice, "approval/withdrawal", new JsonObject { ["reason"] = "The vendor called." });
        Assert.Equal((200, "clear", ""), (taken, (string?)open["state"], (string?)open["firstApprovedBy"]));
        Assert.Equal("Cato Fenn", (string?)(await Decide(cato, invoice, "approval")).Body["firstApprovedBy"]);
        Assert.Equal("approved", (string?)(await Decide(ada, invoice, "approval")).Body["state"]);
        // Posted and taken back to be corrected, it needs both once more, too.
        var (posted, run) = await berta.Send(HttpMethod.Post, "posting-runs", new JsonObject { ["batch"] = batch });
        Assert.True(posted == 201, run.ToJsonString());
        var (withdrawn, back) = await berta.Send(HttpMethod.Post, $"posting-runs/{run["number"]}/withdrawal", new JsonObject { ["reason"] = "The vendor called.", ["open"] = true });
        Assert.True(withdrawn == 201, back.ToJsonString());
        Assert.Equal(("clear", ""), await ada.Get($"invoices/{invoice["id"]}") is var again1 ? ((string?)again1["state"], (string?)again1["firstApprovedBy"]) : default);
        Assert.Equal("Ada Wrenfield", (string?)(await Decide(ada, invoice, "approval")).Body["firstApprovedBy"]);
        Assert.Equal(409, (await Decide(cato, await Clear(ada, batch, 1), "approval/withdrawal", new JsonObject { ["reason"] = "The vendor called." })).Status);
    }

    [Fact]
    public async Task Who_is_away_gives_the_right_to_another_for_a_time_and_both_names_are_told()
    {
        var (service, ada, cato, berta, batch) = await Department();
        await using var _ = service;
        using SignedIn one = ada, two = cato, three = berta;
        var (first, second) = (await Clear(ada, batch, 0), await Clear(ada, batch, 1));
        var today = DateOnly.FromDateTime(DateTime.UtcNow);
        JsonObject Wanted(string standIn, int days, string? absent = null) => new() { ["standIn"] = standIn, ["until"] = today.AddDays(days).ToString("yyyy-MM-dd", CultureInfo.InvariantCulture), ["absent"] = absent };
        Assert.Equal(403, (await Decide(berta, first, "approval")).Status);
        foreach (var (who, wanted, status, code) in new[]
        {
            (berta, Wanted("Ada Wrenfield", 3, "Cato Fenn"), 403, "right-missing"), (berta, Wanted("Cato Fenn", 3), 409, "no-approver"), (cato, Wanted("Ada Wrenfield", 3), 409, "approver-already"),
            (cato, Wanted("Nobody Known", 3), 422, "person-unknown"), (cato, Wanted("Berta Quill", -1), 422, "until-faulty"), (cato, Wanted("Berta Quill", 400), 422, "until-faulty"),
        })
        {
            var (refused, problem) = await who.Send(HttpMethod.Post, "stand-ins", wanted);
            Assert.Equal((status, code), (refused, (string?)problem["code"]));
        }
        var (made, standIn) = await cato.Send(HttpMethod.Post, "stand-ins", Wanted("berta quill", 3));
        Assert.Equal((201, true), (made, (bool)standIn["holds"]!));
        Assert.Equal(409, (await ada.Send(HttpMethod.Post, "stand-ins", Wanted("Berta Quill", 3))).Status);
        Assert.Equal("Cato Fenn", (string?)(await berta.Get("session"))["standsInFor"]);
        var (approved, invoice) = await Decide(berta, first, "approval");
        Assert.Equal((200, "approved", "Berta Quill for Cato Fenn"), (approved, (string?)invoice["state"], (string?)invoice["decisions"]!.AsArray()[^1]!["by"]));

        // What Cato corrected, Berta does not approve for him; nor is she his second, or confirms accounts.
        await Say(ada, new JsonObject { ["keepsCorrectors"] = true, ["twoAbove"] = new JsonObject { [(string)second["currency"]!] = "0.00" } });
        await Decide(cato, second, "corrections", new JsonObject { ["act"] = "enter", ["of"] = "invoiceNumber", ["text"] = "ELL-2" });
        Assert.StartsWith($"Invoice {second["id"]} was corrected by Cato Fenn", (string?)(await Decide(berta, second, "approval")).Body["detail"], StringComparison.Ordinal);
        var third = await Clear(ada, batch, 1);
        Assert.Equal("Cato Fenn", (string?)(await Decide(cato, third, "approval")).Body["firstApprovedBy"]);
        Assert.Equal("four-eyes", (string?)(await Decide(berta, third, "approval")).Body["code"]);
        Assert.Equal("approved", (string?)(await Decide(ada, third, "approval")).Body["state"]);
        var vendor = (await ada.Get("vendors")).AsArray()[0]!;
        Assert.Equal(403, (await berta.Send(HttpMethod.Post, $"vendors/{vendor["id"]}/accounts/confirmation", new JsonObject(), (int)vendor["revision"]!)).Status);
        // A key that Berta makes has her own rights alone.
        Assert.Equal("see work post", string.Join(' ', (await berta.Send(HttpMethod.Post, "access-keys", new JsonObject { ["name"] = "nightly" })).Body["record"]!["rights"]!.AsArray().Select(right => (string)right!)));

        Assert.Equal(200, (await berta.Send(HttpMethod.Post, $"stand-ins/{standIn["id"]}/end", new JsonObject(), 1)).Status);
        Assert.Equal(403, (await Decide(berta, await Clear(ada, batch, 0), "approval")).Status);
        Assert.Contains("standInNamed standInEnded", string.Join(' ', (await ada.Get("history?person=2")).AsArray().Reverse().Select(entry => (string)entry!["act"]!)), StringComparison.Ordinal);
    }

    [Fact]
    public async Task Many_are_approved_at_once_each_as_it_was_seen_with_their_sum_typed_where_it_is_large()
    {
        var (service, ada, cato, berta, batch) = await Department();
        await using var _ = service;
        using SignedIn one = ada, two = cato, three = berta;
        var clear = (await ada.Get($"batches/{batch}/invoices")).AsArray().Where(one => (string?)one!["state"] == "clear").Select(one => one!).ToList();
        var held = (await ada.Get($"batches/{batch}/invoices")).AsArray().FirstOrDefault(one => (string?)one!["state"] == "held");
        var currency = (string)clear[0]["currency"]!;
        var sum = clear.Sum(one => decimal.Parse((string)one["total"]!, CultureInfo.InvariantCulture) * ((string?)one["kind"] == "creditNote" ? -1 : 1));
        await Say(ada, new JsonObject { ["typedAbove"] = new JsonObject { [currency] = "10.00" } });
        JsonObject Wanted(string? typed, params IEnumerable<JsonNode> invoices)
        {
            var wanted = new JsonObject { ["invoices"] = new JsonArray([.. invoices.Select(invoice => new JsonObject { ["id"] = (int)invoice["id"]!, ["revision"] = (int)invoice["revision"]! })]) };
            if (typed is not null)
                wanted["sums"] = new JsonObject { [currency] = typed };
            return wanted;
        }

        var path = $"batches/{batch}/approval";
        Assert.Equal(403, (await berta.Send(HttpMethod.Post, path, Wanted(null, clear))).Status);
        var (status, problem) = await cato.Send(HttpMethod.Post, path, Wanted(null, clear));
        Assert.Equal((409, "sum-needed"), (status, (string?)problem["code"]));
        var told = sum.ToString("N2", CultureInfo.InvariantCulture);
        Assert.Equal($"These come to {told} {currency}, which is more than 10.00 {currency}: type the sum to approve them.", (string?)problem["detail"]);
        (status, problem) = await cato.Send(HttpMethod.Post, path, Wanted("1.00", clear));
        Assert.Equal((409, $"These come to {told} {currency}, not to 1.00 {currency}. Nothing was approved."), (status, (string?)problem["detail"]));
        Assert.DoesNotContain((await ada.Get($"batches/{batch}/invoices")).AsArray(), one => (string?)one!["state"] == "approved");

        // One that changed since it was seen, and one that is held, keep none of the others back.
        await Decide(berta, clear[0], "hand-over", new JsonObject { ["to"] = "Cato Fenn", ["note"] = "Look at it." });
        List<JsonNode> wanted = held is null ? clear : [.. clear, held];
        var typed = wanted.Sum(one => decimal.Parse((string)one["total"]!, CultureInfo.InvariantCulture) * ((string?)one["kind"] == "creditNote" ? -1 : 1)).ToString(CultureInfo.InvariantCulture);
        (status, var done) = await cato.Send(HttpMethod.Post, path, Wanted(typed, wanted));
        Assert.True(status == 200, done.ToJsonString());
        Assert.Equal(clear.Skip(1).Select(one => (int)one["id"]!).Order(), done["approved"]!.AsArray().Select(id => (int)id!).Order());
        Assert.Equal(held is null ? "changed-since" : "changed-since findings-open", string.Join(' ', done["refused"]!.AsArray().Select(one => (string)one!["code"]!).Order()));
        Assert.Equal(clear.Count - 1, (await ada.Get($"batches/{batch}/invoices")).AsArray().Count(one => (string?)one!["state"] == "approved"));
        Assert.Equal(clear.Count - 1, (await ada.Get("history?act=approved&by=Cato Fenn")).AsArray().Count);
        foreach (var nothing in new[] { "{}", """{"invoices":[]}""", """{"invoices":[null]}""" })
            Assert.Equal(422, (await cato.Send(HttpMethod.Post, path, JsonNode.Parse(nothing))).Status);
    }
}
