using System.Text.Json.Nodes;
using Daxlin.Service.Tests.Receivers;
using Daxlin.Testing;

namespace Daxlin.Service.Tests.Sources;

/// <summary>What a vendor is told of a returned invoice goes to whoever sent it, once, by the mailbox that answers.</summary>
public class LetterTests
{
    private static async Task<JsonNode> Until(ServiceUnderTest service, JsonNode? id, string state)
    {
        for (var patience = System.Diagnostics.Stopwatch.StartNew(); ;)
        {
            var letter = (await service.Get($"invoices/{id}"))["letters"]![0]!;
            if ((string?)letter["state"] == state && ((string)letter["says"]!).Length > 0)
                return letter;
            Assert.True(patience.Elapsed < TimeSpan.FromMinutes(1), letter.ToJsonString());
        }
    }

    private static async Task<(int Status, JsonNode Body)> Return(ServiceUnderTest service, JsonNode? id, string? sendTo, string letter = "It does not add up.") => await service.Decide(
        id, "return", new JsonObject { ["reason"] = "The lines do not add up", ["letter"] = letter, ["sendTo"] = sendTo });

    [Fact]
    public async Task A_letter_goes_to_whoever_sent_the_invoice_once_and_says_how_it_stands()
    {
        await using var server = await MailServer.Start();
        await using var post = new MailReceiver();
        await using var service = await ServiceUnderTest.Start();
        await service.SaveTemplates(Repository.Samples);
        var invoices = Repository.SampleInvoices("port-ellery-galley").ToList();
        var byHand = await service.OpenBatch("By hand");
        await service.Upload(byHand, invoices.Take(1));
        await service.UntilDone(byHand);
        var own = (await service.Invoices(byHand)).Single()["id"];
        Assert.Equal(("", ""), await service.Get($"invoices/{own}/letter?reason=wrong") is var none ? ((string?)none["sentBy"], (string?)none["to"]) : default);
        Assert.Equal((409, "no-mail-line"), await Return(service, own, "billing@port-ellery.example") is var (early, said) ? (early, (string?)said["code"]) : default);

        var message = Letters.With("November", Letters.File("wrong.pdf", invoices[4].Bytes), Letters.File("another.pdf", invoices[2].Bytes), Letters.File("third.pdf", invoices[3].Bytes));
        await server.Put(message);
        await MailboxSourceTests.Save(service, server.Port, new JsonObject { ["answer"] = new JsonObject { ["host"] = "127.0.0.1", ["port"] = post.Port, ["encryption"] = "none", ["from"] = "invoices@kestrel-sound.example" } });
        await MailboxSourceTests.Look(service);
        var batch = (int)(await service.Get("batches")).AsArray().Single(one => (string?)one!["name"] == "Post")!["id"]!;
        await service.UntilDone(batch);
        for (var patience = System.Diagnostics.Stopwatch.StartNew(); post.Messages.IsEmpty;)
            Assert.True(patience.Elapsed < TimeSpan.FromMinutes(1));
        var held = (await service.Invoices(batch)).ToDictionary(invoice => (string)invoice["file"]!, invoice => invoice["id"]);
        var draft = await service.Get($"invoices/{held["wrong.pdf"]}/letter?reason=The+lines+do+not+add+up");
        Assert.Equal(("post", "billing@port-ellery.example"), ((string?)draft["sentBy"], (string?)draft["to"]));
        Assert.Equal((422, "address-faulty"), await Return(service, held["wrong.pdf"], "no address") is var (faulty, wrong) ? (faulty, (string?)wrong["code"]) : default);
        Assert.Equal((422, "letter-missing"), await Return(service, held["wrong.pdf"], "billing@port-ellery.example", " ") is var (empty, missing) ? (empty, (string?)missing["code"]) : default);
        Assert.Equal("held", (string?)(await service.Get($"invoices/{held["wrong.pdf"]}"))["state"]);
        Assert.Equal(200, (await Return(service, held["wrong.pdf"], (string?)draft["to"], (string)draft["text"]!)).Status);
        await Until(service, held["wrong.pdf"], "sent");
        var sent = post.Messages.Single(one => one.Subject == "Your invoice PE71038 goes back to you");
        Assert.Equal(("billing@port-ellery.example", message.MessageId), (sent.To.Mailboxes.Single().Address, sent.InReplyTo));
        Assert.Contains("5,104.18 GBP", sent.TextBody, StringComparison.Ordinal);
        Assert.Contains((await service.Get($"invoices/{held["wrong.pdf"]}"))["decisions"]!.AsArray(), one => (string?)one!["what"] == "returned to the vendor, with a letter to billing@port-ellery.example");

        // Returned without an address, nothing goes; what a death leaves in the middle may have arrived, and is not sent again.
        Assert.Equal(200, (await Return(service, held["third.pdf"], null)).Status);
        Assert.Empty((await service.Get($"invoices/{held["third.pdf"]}"))["letters"]!.AsArray());
        var port = post.Port;
        await MailboxSourceTests.Save(service, server.Port, new JsonObject { ["answer"] = new JsonObject { ["host"] = "127.0.0.1", ["port"] = Programs.FreePort(), ["encryption"] = "none", ["from"] = "invoices@kestrel-sound.example" } });
        Assert.Equal(200, (await Return(service, held["another.pdf"], "office@port-ellery.example")).Status);
        Assert.Contains("could not be reached", (string?)(await Until(service, held["another.pdf"], "waiting"))["says"], StringComparison.Ordinal);
        Assert.True(await StoreUnderTest.Change(service.Data, """UPDATE "LettersToVendors" SET "State" = 'Sending' WHERE "To" = 'office@port-ellery.example'""") > 0);
        await MailboxSourceTests.Save(service, server.Port, new JsonObject { ["answer"] = new JsonObject { ["host"] = "127.0.0.1", ["port"] = port, ["encryption"] = "none", ["from"] = "invoices@kestrel-sound.example" } });
        Assert.Contains("Its Message-ID is letter-", (string?)(await Until(service, held["another.pdf"], "given-up"))["says"], StringComparison.Ordinal);
        // What did not come by mail goes by the same mailbox, to an address that a person knows.
        Assert.Equal(("post", ""), await service.Get($"invoices/{own}/letter?reason=wrong") is var known ? ((string?)known["sentBy"], (string?)known["to"]) : default);
        Assert.Equal(200, (await Return(service, own, "sales@port-ellery.example")).Status);
        await Until(service, own, "sent");
        Assert.Null(post.Messages.Single(one => one.To.Mailboxes.Single().Address == "sales@port-ellery.example").InReplyTo);
        Assert.DoesNotContain(post.Messages, one => one.To.Mailboxes.Single().Address == "office@port-ellery.example");
    }
}
