using System.IO.Compression;
using Daxlin.Core.Sources;
using Daxlin.Reading.Containers;
using Daxlin.Testing;
using MimeKit;

namespace Daxlin.Reading.Tests;

/// <summary>What is taken out of archives and messages, and that none of them, however it is built, takes more than its share.</summary>
public sealed class ContainerTests : IDisposable
{
    private static readonly byte[] Invoice = TinyPdf.OnePage("BT /F1 10 Tf 50 700 Td (Invoice) Tj ET");

    private readonly string scratch = Directory.CreateTempSubdirectory("daxlin-unpack-").FullName;

    public void Dispose() => Directory.Delete(scratch, recursive: true);

    private string[] Unpack(string name, byte[] bytes, UnpackingLimits? limits = null, SourceTotals? totals = null)
    {
        var (path, into) = (Path.Combine(scratch, Guid.NewGuid().ToString("N")), Directory.CreateDirectory(Path.Combine(scratch, Guid.NewGuid().ToString("N"))).FullName);
        File.WriteAllBytes(path, bytes);
        var found = Unpacker.Unpack(name, path, into, limits, totals);
        // What is told to be taken is there, and nothing beside it.
        Assert.Equal(found.Where(one => one.LeftOut.Length == 0).Select(one => one.File).Order(StringComparer.Ordinal), Directory.GetFiles(into).Order(StringComparer.Ordinal));
        Assert.All(found, one => Assert.True(one.LeftOut.Length == 0 || one.LeftOut.EndsWith('.'), one.LeftOut));
        return [.. found.Select(one => $"{(one.Within.Length == 0 ? "" : one.Within + "/")}{one.Name}{(one.LeftOut.Length > 0 ? $": {one.LeftOut}" : one.IsCover ? ", a cover sheet" : "")}")];
    }

    private static byte[] Zip(params IEnumerable<(string Name, byte[] Bytes)> files)
    {
        using var stream = new MemoryStream();
        using (var archive = new ZipArchive(stream, ZipArchiveMode.Create, leaveOpen: true))
        {
            foreach (var (name, bytes) in files)
            {
                using var entry = archive.CreateEntry(name).Open();
                entry.Write(bytes);
            }
        }
        return stream.ToArray();
    }

    private static byte[] Letter(params IEnumerable<MimeEntity> parts)
    {
        var body = new Multipart("mixed") { new TextPart("plain") { Text = "Our invoice." } };
        foreach (var part in parts)
            body.Add(part);
        using var stream = new MemoryStream();
        new MimeMessage([new MailboxAddress("Vendor", "vendor@port-ellery.example")], [new MailboxAddress("Us", "invoices@kestrel-sound.example")], "Invoice", body).WriteTo(stream);
        return stream.ToArray();
    }

    private static MimePart Part(string name, byte[] bytes) => new("application", "octet-stream") { Content = new MimeContent(new MemoryStream(bytes)), FileName = name, ContentTransferEncoding = ContentEncoding.Base64 };

    [Fact]
    public void A_cover_sheet_is_taken_out_where_it_is_wanted_by_its_name_and_unless_it_is_something_else()
    {
        var (totals, sheet) = (new SourceTotals(["cover*"], null), "currency,sum\nEUR,1.00\n"u8.ToArray());
        (string, byte[])[] files = [("cover.csv", sheet), ("cover.pdf", Invoice), ("list.csv", sheet), ("cover large.csv", new byte[SourceTotals.LongestCover + 1])];
        Assert.Equal(
            ["a.zip/cover.csv, a cover sheet", "a.zip/cover.pdf", "a.zip/list.csv: It is a file of another kind, and no invoice that can be read.", "a.zip/cover large.csv: It is larger than 256 KB, and no cover sheet."],
            Unpack("a.zip", Zip(files), totals: totals));
        Assert.Equal("a.zip/cover.csv: It is a file of another kind, and no invoice that can be read.", Unpack("a.zip", Zip(files))[0]);
        Assert.Equal(["Cover.csv, a cover sheet"], Unpack("Cover.csv", sheet, totals: totals));
    }

    [Fact]
    public void A_file_that_is_no_container_is_itself_or_left_out()
    {
        Assert.Equal(["a.pdf"], Unpack("a.pdf", Invoice));
        Assert.Equal(["a.pdf: It is a file of another kind, and no invoice that can be read."], Unpack("a.pdf", "MZ"u8.ToArray()));
        Assert.Equal(["a.pdf: It is an empty file, and no invoice that can be read."], Unpack("a.pdf", []));
        Assert.Equal(["a.xml"], Unpack("a.xml", """<?xml version="1.0"?><i:Invoice xmlns:i="urn:oasis:names:specification:ubl:schema:xsd:Invoice-2"/>"""u8.ToArray()));
        Assert.Equal(["a.xml: It is XML that is no invoice, and no invoice that can be read."], Unpack("a.xml", "<?xml version=\"1.0\"?><list/>"u8.ToArray()));
    }

    [Fact]
    public void Containers_in_containers_are_opened_with_their_way_told_and_no_deeper_than_the_limit()
    {
        Assert.Equal(
            ["post.zip/week/letter.eml/inner.zip/a.pdf", "post.zip/b.pdf"],
            Unpack("post.zip", Zip(("week/letter.eml", Letter(Part("inner.zip", Zip(("a.pdf", Invoice))))), ("../../b.pdf", Invoice), ("folder/", []))));
        var deep = Zip(("a.pdf", Invoice));
        for (var depth = 0; depth < 6; depth++)
            deep = Zip(($"{depth}.zip", deep));
        Assert.EndsWith("containers deep; 4 are opened at most.", Assert.Single(Unpack("deep.zip", deep)), StringComparison.Ordinal);
    }

    [Fact]
    public void What_unpacks_to_more_than_it_may_is_left_out_and_stops_there()
    {
        var limits = new UnpackingLimits(Deep: 4, Files: 20, FileBytes: 1 << 20, Bytes: 3 << 20);
        var huge = new byte[2 << 20];
        Assert.Equal(["bomb.zip/huge.pdf: It is larger than 1 MB.", "bomb.zip/a.pdf"], Unpack("bomb.zip", Zip(("huge.pdf", huge), ("a.pdf", Invoice)), limits));
        var several = Unpack("bomb.zip", Zip(Enumerable.Range(0, 9).Select(number => ($"{number}.pdf", new byte[(1 << 20) - 1])).Append(("a.pdf", Invoice))), limits);
        Assert.Contains(several, one => one.EndsWith("it and what follows it was not unpacked.", StringComparison.Ordinal));
        Assert.True(several.Length < 9, string.Join('\n', several));
        var many = Unpack("many.zip", Zip(Enumerable.Range(0, 500).Select(number => ($"{number}.pdf", Invoice))), limits);
        Assert.InRange(many.Length, 20, 22);
    }

    /// <summary>Whatever is wrong with one, it is opened as far as it goes or said to be damaged; nothing else comes of it.</summary>
    [Fact]
    public void Whatever_is_changed_in_an_archive_or_a_message_is_opened_or_left_out_with_a_sentence()
    {
        byte[][] whole = [Zip(("a.pdf", Invoice), ("week/b.eml", Letter(Part("c.pdf", Invoice)))), Letter(Part("a.pdf", Invoice), new MessagePart { Message = MimeMessage.Load(new MemoryStream(Letter(Part("b.zip", Zip(("c.pdf", Invoice)))))) })];
        var limits = new UnpackingLimits(Deep: 4, Files: 50, FileBytes: 1 << 20, Bytes: 4 << 20);
        for (var seed = 0; seed < Effort.Times(600); seed++)
        {
            var chance = new Random(seed);
            var bytes = whole[seed % whole.Length].ToList();
            for (var change = chance.Next(1, 6); change > 0; change--)
            {
                var at = chance.Next(bytes.Count);
                if (chance.Next(3) == 0)
                    bytes.RemoveRange(at, Math.Min(chance.Next(1, 40), bytes.Count - at));
                else
                    bytes[at] = (byte)chance.Next(256);
            }
            Assert.InRange(Unpack(seed % 2 == 0 ? "a.zip" : "a.eml", [.. bytes], limits).Length, 0, 60);
        }
    }
}
