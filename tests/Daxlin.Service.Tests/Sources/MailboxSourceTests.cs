using System.Text.Json.Nodes;
using Daxlin.Service.Tests.Receivers;
using Daxlin.Testing;
using MimeKit;

namespace Daxlin.Service.Tests.Sources;

/// <summary>Messages in a mailbox of a real server are taken once each, and the wrong ones left out for the right reason.</summary>
public class MailboxSourceTests
{
    internal static async Task Save(ServiceUnderTest service, int port, JsonObject? also = null, JsonArray? rules = null, JsonObject? totals = null)
    {
        Assert.Equal(204, (int)(await service.Http.PutAsync("secrets/post", new StringContent(MailServer.Password, System.Text.Encoding.UTF8, "text/plain"))).StatusCode);
        var mailbox = also ?? [];
        (mailbox["host"], mailbox["port"], mailbox["encryption"], mailbox["user"], mailbox["password"]) = ("127.0.0.1", port, "none", MailServer.User, "post");
        if (rules is not null)
            mailbox["rules"] = rules;
        var source = new JsonObject { ["name"] = "post", ["batch"] = "Post", ["mailbox"] = mailbox };
        if (totals is not null)
            source["totals"] = totals;
        var (status, said) = await service.Post("sources", source);
        Assert.True(status == 201, said.ToJsonString());
    }

    internal static async Task<JsonNode> Look(ServiceUnderTest service)
    {
        for (var patience = System.Diagnostics.Stopwatch.StartNew(); ;)
        {
            var (status, said) = await service.Post("sources/post/look", new JsonObject());
            Assert.True(status == 200 && (bool)said["isReached"]!, said.ToJsonString());
            if ((int)said["waiting"]! == 0)
                return said;
            Assert.True(patience.Elapsed < TimeSpan.FromMinutes(1), said.ToJsonString());
        }
    }

    private static async Task<List<JsonNode>> Items(ServiceUnderTest service) => [.. (await service.All("sources/post/items")).OrderBy(item => (int)item["id"]!)];

    private static byte[] Invoice(int number) => TinyPdf.OnePage($"BT /F1 10 Tf 50 700 Td (Invoice {number}) Tj ET");

    [Fact]
    public async Task Each_message_is_taken_once_by_the_first_rule_that_fits_and_put_away()
    {
        await using var server = await MailServer.Start();
        await using var service = await ServiceUnderTest.Start();
        var twice = Letters.With("Sent twice", Letters.File("twice.pdf", Invoice(3)));
        var sameId = Letters.With("An id used again", Letters.File("other.pdf", Invoice(4)));
        sameId.MessageId = twice.MessageId!;
        var secret = Letters.With("For somebody else's key");
        secret.Body = new MimeKit.Cryptography.MultipartEncrypted { new MimePart("application", "pgp-encrypted"), new MimePart("application", "octet-stream") { Content = new MimeContent(new MemoryStream([1, 2, 3])) } };
        await server.Put(
            Letters.With("Galley, November", Letters.File("invoice.pdf", Invoice(1)), Letters.Logo()),
            Letters.From("offers@newsletter.example", "Offers", Letters.File("offer.pdf", Invoice(2))),
            twice, twice, sameId, secret,
            Letters.With("Wrong kinds", Letters.File("sheet.pdf", "PK\u0003\u0004[Content_Types].xml"u8.ToArray()), Letters.File("program.pdf", "MZ"u8.ToArray())),
            Letters.With("Forwarded", Letters.Forwarded(Letters.With("The first", Letters.File("inner.pdf", Invoice(5))))),
            Letters.With("A question"),
            Letters.With("Zwölf Rechnungen – Größe", Letters.File("Rechnung für Fähre.pdf", Invoice(6))));
        await Save(service, server.Port, new JsonObject { ["done"] = "Taken in", ["setAside"] = "Set aside" }, [
            new JsonObject { ["from"] = "*@newsletter.example", ["take"] = false },
            new JsonObject { ["subject"] = "galley", ["hasAttachment"] = true, ["batch"] = "Galley" }]);
        await Look(service);

        var items = await Items(service);
        Assert.Equal(
            [
                "Galley, November 1 1 Galley", "Sent twice 1 0 Post", "An id used again 1 0 Post", "For somebody else's key 0 1 ", "Wrong kinds 0 2 ", "Forwarded 1 0 Post", "A question 0 1 ",
                "Zwölf Rechnungen – Größe 1 0 Post",
            ],
            items.Select(item => $"{item["name"]} {item["documents"]} {item["leftOut"]} {item["batch"]}"));
        Assert.Equal("The first/inner.pdf", (string?)items[5]["parts"]![0]!["name"]);
        Assert.Equal("Rechnung für Fähre.pdf", (string?)items[7]["parts"]![0]!["name"]);
        Assert.All(items, item => Assert.Equal("billing@port-ellery.example", (string?)item["from"]));
        Assert.Equal(
            ["It is encrypted for somebody; ask the sender for one that is not.", "It is a text or a spreadsheet of an office program, and no invoice that can be read.", "It is a file of another kind, and no invoice that can be read.", "Nothing is attached to it."],
            new[] { items[3], items[4], items[6] }.SelectMany(item => item["parts"]!.AsArray().Select(part => (string?)part!["reason"])));
        Assert.Equal(["Offers None"], await server.In("INBOX"));
        Assert.Equal(["Galley, November", "Sent twice", "Sent twice", "An id used again", "Forwarded", "Zwölf Rechnungen – Größe"], (await server.In("Taken in")).Select(one => one.Replace(" None", "", StringComparison.Ordinal)));
        Assert.Equal(3, (await server.In("Set aside")).Count);
        // The message is kept byte for byte, with what was not taken.
        var kept = await MimeMessage.LoadAsync(await service.Http.GetStreamAsync($"sources/post/items/{items[0]["id"]}/original"));
        Assert.Equal(("Galley, November", 2), (kept.Subject, kept.BodyParts.Count(part => part is MimePart { FileName: not null })));

        // What comes while nobody asks is told by the server, and taken at once.
        var last = Letters.With("Later", Letters.File("later.pdf", Invoice(7)));
        await server.Put(last);
        for (var patience = System.Diagnostics.Stopwatch.StartNew(); (await Items(service)).Count < items.Count + 1;)
            Assert.True(patience.Elapsed < TimeSpan.FromSeconds(40), "What came was not taken by itself.");
        Assert.Equal("Later", (string?)(await Items(service))[^1]["name"]);
    }

    [Fact]
    public async Task A_mailbox_that_cannot_be_reached_says_why_and_goes_on_when_it_can()
    {
        await using var server = await MailServer.Start();
        await using var service = await ServiceUnderTest.Start();
        await Save(service, server.Port);
        await service.Http.PutAsync("secrets/post", new StringContent("puffin"));
        var (_, refused) = await service.Post("sources/post/look", new JsonObject());
        Assert.Equal($"127.0.0.1 refuses {MailServer.User}: the name or the password is not what it wants.", (string?)refused["says"]);
        Assert.Equal("trouble", (string?)(await service.Get("sources/post"))["state"]);
        await service.Http.DeleteAsync("secrets/post");
        var (_, missing) = await service.Post("sources/post/look", new JsonObject());
        Assert.StartsWith("The secret “post” is not kept here yet", (string?)missing["says"], StringComparison.Ordinal);
        Assert.Equal("post", (string?)(await service.Get("sources/post"))["secretsMissing"]![0]);
        await service.Http.PutAsync("secrets/post", new StringContent(MailServer.Password));
        // A person has read it already: it is taken all the same, and marked.
        await server.Put(Letters.With("Read before", Letters.File("read.pdf", Invoice(1))), Letters.With("Nothing in it"));
        await Look(service);
        Assert.Equal(["Read before Seen", "Nothing in it Flagged"], await server.In("INBOX"));
        Assert.Equal("watched", (string?)(await service.Get("sources/post"))["state"]);
        Assert.Equal(0, (int)(await Look(service))["taken"]!);
    }

    [Fact]
    public async Task Whoever_sent_a_message_is_told_once_what_became_of_it_and_no_program_is()
    {
        await using var server = await MailServer.Start();
        await using var post = new MailReceiver();
        await using var service = await ServiceUnderTest.Start();
        await service.SaveTemplates(Repository.Samples);
        var invoices = Repository.SampleInvoices("port-ellery-galley").ToList();
        await Save(service, server.Port, new JsonObject
        {
            ["answer"] = new JsonObject
            {
                ["host"] = "127.0.0.1",
                ["port"] = post.Port,
                ["encryption"] = "none",
                ["from"] = "invoices@kestrel-sound.example",
                ["subject"] = "Your “{subject}”",
                ["attach"] = "csv",
            },
        }, [new JsonObject { ["from"] = "*@quiet.example", ["answer"] = false }]);
        var mixed = Letters.With("Two invoices", Letters.File("first.pdf", invoices[0].Bytes), Letters.File("wrong.pdf", invoices[4].Bytes), Letters.File("list.pdf", "MZ"u8.ToArray()));
        mixed.ReplyTo.Add(MailboxAddress.Parse("clerk@port-ellery.example"));
        var automatic = Letters.With("Out of office");
        automatic.Headers.Add("Auto-Submitted", "auto-replied");
        var list = Letters.With("Weekly offers", Letters.File("offers.pdf", Invoice(1)));
        list.Headers.Add("List-Id", "<offers.port-ellery.example>");
        await server.Put(mixed, automatic, list, Letters.From("a@quiet.example", "Quiet", Letters.File("quiet.pdf", Invoice(2))), Letters.From("invoices@kestrel-sound.example", "A loop", Letters.File("loop.pdf", Invoice(3))), Letters.With("A question"));
        await Look(service);
        for (var patience = System.Diagnostics.Stopwatch.StartNew(); (await Items(service)).Count(item => (string?)item["answer"] == "sent") < 2;)
            Assert.True(patience.Elapsed < TimeSpan.FromMinutes(1), new JsonArray([.. (await Items(service)).Select(item => item.DeepClone())]).ToJsonString());
        Assert.Equal(
            ["Two invoices sent clerk@port-ellery.example", "Out of office none ", "Weekly offers none ", "Quiet none ", "A loop none ", "A question sent billing@port-ellery.example"],
            (await Items(service)).Select(item => $"{item["name"]} {item["answer"]} {item["answerTo"]}"));
        Assert.Equal(["Nobody is answered: a program sent it by itself (Auto-Submitted).", "Nobody is answered: a program sent it by itself (List-Id).", "", "Nobody is answered: the message comes from the address that answers."],
            (await Items(service)).Skip(1).Take(4).Select(item => (string?)item["answerSays"]));
        var sent = post.Messages.Single(message => message.To.Mailboxes.Single().Address == "clerk@port-ellery.example");
        Assert.Equal(("Your “Two invoices”", mixed.MessageId, "auto-replied"), (sent.Subject, sent.InReplyTo, sent.Headers["Auto-Submitted"]));
        Assert.Equal(
            """
            Thank you for “Two invoices”.

            - PE71010 (first.pdf), 790.66 GBP: taken in.
            - PE71038 (wrong.pdf), 5,291.85 GBP: taken in, to be looked at. The 9 lines add up to 5,104.18 GBP; the invoice states 5,114.18 GBP (10.00 GBP more).
            - list.pdf: not taken. It is a file of another kind, and no invoice that can be read.

            1 taken in, 1 to be looked at, 1 not taken.
            """.ReplaceLineEndings("\n"), sent.TextBody!.ReplaceLineEndings("\n").TrimEnd());
        Assert.Equal(["first.csv", "wrong.csv"], sent.Attachments.Select(one => ((MimePart)one).FileName));
        Assert.Contains("the message: not taken. Nothing is attached to it.", post.Messages.Single(message => message != sent).TextBody, StringComparison.Ordinal);
        // Looked at as often as one likes, each was told once.
        await Look(service);
        await service.Terminate();
        await using var again = await ServiceUnderTest.Start(service.Data);
        await Look(again);
        Assert.Equal(2, post.Messages.Count);
    }

    [Fact]
    public async Task An_answer_that_may_have_arrived_is_not_sent_again_and_one_that_cannot_have_is()
    {
        await using var server = await MailServer.Start();
        await using var post = new MailReceiver();
        await using var service = await ServiceUnderTest.Start();
        var nowhere = Programs.FreePort();
        JsonObject Answer(int port) => new() { ["answer"] = new JsonObject { ["host"] = "127.0.0.1", ["port"] = port, ["encryption"] = "none", ["from"] = "invoices@kestrel-sound.example" } };
        await Save(service, server.Port, Answer(nowhere));
        await server.Put(Letters.With("First"));
        await Look(service);
        async Task<JsonNode> Until(Func<JsonNode, bool> isSo)
        {
            for (var patience = System.Diagnostics.Stopwatch.StartNew(); ;)
            {
                var item = (await Items(service))[^1];
                if (isSo(item))
                    return item;
                Assert.True(patience.Elapsed < TimeSpan.FromMinutes(1), item.ToJsonString());
            }
        }
        // Nobody listens there: it waits, and says why.
        var waits = await Until(item => ((string)item["answerSays"]!).Length > 0);
        Assert.Equal(("waiting", true), ((string?)waits["answer"], ((string)waits["answerSays"]!).Contains("could not be reached", StringComparison.Ordinal)));
        // As a death in the middle leaves it.
        Assert.True(await StoreUnderTest.Change(service.Data, """UPDATE "SourceItems" SET "AnswerState" = 'Sending'""") > 0);
        await Save(service, server.Port, Answer(post.Port));
        var given = await Until(item => (string?)item["answer"] == "given-up");
        Assert.Contains("nobody here can tell whether it arrived. Its Message-ID is answer-", (string?)given["answerSays"], StringComparison.Ordinal);
        await server.Put(Letters.With("Second"));
        await Look(service);
        await Until(item => (string?)item["name"] == "Second" && (string?)item["answer"] == "sent");
        Assert.Equal("Re: Second", Assert.Single(post.Messages).Subject);

        // What waits in a backup is not sent by what is restored from it: the service it was made of sends it.
        await Save(service, server.Port, Answer(nowhere));
        await server.Put(Letters.With("Third"));
        await Look(service);
        await Until(item => (string?)item["name"] == "Third" && ((string)item["answerSays"]!).Length > 0);
        var (backup, restored) = (Path.Combine(service.Data, "backup"), Directory.CreateTempSubdirectory("daxlin-restored-").FullName);
        Assert.Equal(0, (await ServiceUnderTest.RunToEnd(["backup", backup, "--data", service.Data, .. await StoreUnderTest.Arguments(service.Data)])).ExitCode);
        var said = await ServiceUnderTest.RunToEnd("restore", backup, "--data", restored);
        Assert.Contains("answers-waited", said.Said, StringComparison.Ordinal);
        await using var now = await ServiceUnderTest.Start(restored, isOwnStore: true);
        var third = (await Items(now))[^1];
        Assert.Equal(("Third", "given-up"), ((string?)third["name"], (string?)third["answer"]));
        Assert.StartsWith("It waited when the backup was made", (string?)third["answerSays"], StringComparison.Ordinal);
        Assert.Equal("paused", (string?)(await now.Get("sources"))[0]!["state"]);
    }

    /// <summary>Messages of many shapes, each with how many documents it brings and how many parts of it are left out.</summary>
    private static IEnumerable<(MimeMessage Message, int Documents, int LeftOut)> Shapes(int round)
    {
        byte[] Own(int number) => Invoice(round * 100 + number);
        string Named(string shape) => $"{shape} {round}";
        yield return (Letters.With(Named("Plain"), Letters.File("plain.pdf", Own(1))), 1, 0);
        yield return (Letters.With(Named("Forwarded twice"), Letters.Forwarded(Letters.With("Fwd", Letters.Forwarded(Letters.With("The first", Letters.File("inner.pdf", Own(2))))))), 1, 0);
        yield return (Letters.With(Named("Archive"), Letters.File("all.zip", Zip(("a.pdf", Own(3)), ("b/c.pdf", Own(4)), ("note.txt", "A note."u8.ToArray())), "application/zip")), 2, 1);
        yield return (Letters.With(Named("Nothing in it")), 0, 1);
        yield return (Letters.With(Named("Wrong kinds"), Letters.File("program.pdf", "MZ"u8.ToArray()), Letters.File("sheet.pdf", "PK\u0003\u0004[Content_Types].xml"u8.ToArray())), 0, 2);
        yield return (Letters.With(Named("Picture and data"), Letters.Logo(), Letters.File("invoice.dat", Own(5), "application/octet-stream")), 1, 1);
        yield return (Letters.With(Named("Bomb"), Letters.File("bomb.zip", Zip(("huge.pdf", new byte[60 << 20])), "application/zip"), Letters.File("beside.pdf", Own(6))), 1, 1);
        var encoded = Letters.With(Named("Größe – 大きさ"), Letters.File("Rechnung № 7 für Fähre.pdf", Own(7)));
        encoded.Headers.Add("X-Odd", "=?iso-8859-1?Q?broken");
        yield return (encoded, 1, 0);
        yield return (Letters.With(Named("Two in one"), Letters.File("two.pdf", TinyPdf.OnePage($"BT /F1 10 Tf 50 700 Td (Invoice {round}.8) Tj 0 -300 Td (Invoice {round}.9) Tj ET"))), 1, 0);
        yield return (Letters.With(Named("The same again"), Letters.File("plain, again.pdf", Own(1))), 0, 0);
        var signed = Letters.With(Named("Signed"));
        signed.Body = new Multipart("signed") { new Multipart("mixed") { new TextPart("plain") { Text = "Signed." }, Letters.File("signed.pdf", Own(10)) }, new MimePart("application", "pkcs7-signature") { Content = new MimeContent(new MemoryStream([1, 2])), FileName = "smime.p7s" } };
        yield return (signed, 1, 1);
        // Once is enough of the largest.
        yield return (Letters.With(Named("Large"), Letters.File("large.pdf", [.. Own(11), .. new byte[round == 0 ? 20 << 20 : 1 << 10]])), 1, 0);
    }

    private static byte[] Zip(params IEnumerable<(string Name, byte[] Bytes)> files)
    {
        using var stream = new MemoryStream();
        using (var archive = new System.IO.Compression.ZipArchive(stream, System.IO.Compression.ZipArchiveMode.Create, leaveOpen: true))
        {
            foreach (var (name, bytes) in files)
            {
                using var entry = archive.CreateEntry(name).Open();
                entry.Write(bytes);
            }
        }
        return stream.ToArray();
    }

    /// <summary>The service dies again and again while messages come; DAXLIN_FAULT_ROUNDS says how often, 2 in each run of the tests. 42 rounds are 504 messages.</summary>
    [Fact]
    public async Task A_kill_at_any_moment_takes_no_message_twice_loses_none_and_leaves_the_wrong_ones_out()
    {
        var (rounds, chance) = (int.TryParse(Environment.GetEnvironmentVariable("DAXLIN_FAULT_ROUNDS"), out var said) ? said : 2, new Random(20261201));
        await using var server = await MailServer.Start();
        var data = Directory.CreateTempSubdirectory("daxlin-test-").FullName;
        var service = await ServiceUnderTest.Start(data, apart: true);
        await Save(service, server.Port, new JsonObject { ["done"] = "Taken in", ["setAside"] = "Set aside" });
        var expected = new List<(string Subject, int Documents, int LeftOut)>();
        for (var round = 0; round < rounds; round++)
        {
            var (first, shapes) = (expected.Count, Shapes(round).ToList());
            expected.AddRange(shapes.Select(shape => (shape.Message.Subject!, shape.Documents, shape.LeftOut)));
            await server.Put(shapes.Select(shape => shape.Message));
            for (var wanted = first + chance.Next(1, shapes.Count); (await Items(service)).Count < wanted;)
                await service.Post("sources/post/look", new JsonObject());
            await service.Kill();
            service = await ServiceUnderTest.Start(data, apart: true);
        }
        await Look(service);
        Assert.Equal(expected.Select(one => $"{one.Subject} {one.Documents} {one.LeftOut}"), (await Items(service)).Select(item => $"{item["name"]} {item["documents"]} {item["leftOut"]}"));
        Assert.Equal(expected.Sum(one => one.Documents), (await service.All($"batches/{await service.FirstBatch()}/documents")).Count);
        Assert.Empty(await server.In("INBOX"));
        var withNone = expected.Count(one => one is { Documents: 0, LeftOut: > 0 });
        Assert.Equal((expected.Count - withNone, withNone), ((await server.In("Taken in")).Count, (await server.In("Set aside")).Count));
        await service.DisposeAsync();
    }
}
