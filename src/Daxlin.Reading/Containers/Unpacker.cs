using System.Collections.Immutable;
using System.Globalization;
using System.IO.Compression;
using Daxlin.Core.Capture;
using Daxlin.Core.Sources;
using MimeKit;
using MimeKit.Cryptography;
using MimeKit.Tnef;

namespace Daxlin.Reading.Containers;

/// <summary>Takes what can be an invoice out of archives (PKWARE's APPNOTE) and messages (RFC 5322, RFC 2045), and says of the rest why not.</summary>
/// <remarks>
/// Files are judged by their bytes: a PDF that is called <c>invoice.dat</c> is one, and a program that is called <c>invoice.pdf</c> is none. What a message says
/// itself, its text in any form, is no file and is told of nowhere.
/// </remarks>
public sealed class Unpacker
{
    private readonly string folder;
    private readonly SourceTotals totals;
    private readonly UnpackingLimits limits;
    private readonly ImmutableArray<FoundFile>.Builder found = ImmutableArray.CreateBuilder<FoundFile>();
    private int taken;
    private long bytes;

    private Unpacker(string folder, SourceTotals totals, UnpackingLimits limits) => (this.folder, this.totals, this.limits) = (folder, totals, limits);

    /// <param name="name">Of the file, as it came.</param>
    /// <param name="path">Where its bytes are.</param>
    /// <param name="folder">An empty one, for what is taken out.</param>
    /// <param name="totals">Says what cover sheets are called, which are taken out, too.</param>
    /// <returns>All that stood in it, in its order; the file itself if it is no container.</returns>
    public static ImmutableArray<FoundFile> Unpack(string name, string path, string folder, UnpackingLimits? limits = null, SourceTotals? totals = null)
    {
        var unpacker = new Unpacker(folder, totals ?? SourceTotals.None, limits ?? UnpackingLimits.Usual);
        using (var file = File.OpenRead(path))
            unpacker.Look(FileName.Of(name), "", file, 0);
        return unpacker.found.ToImmutable();
    }

    private void Look(string name, string within, Stream content, int depth)
    {
        var head = new byte[FileKinds.Head];
        var kind = FileKinds.Of(name, head.AsSpan(0, content.ReadAtLeast(head, head.Length, throwOnEndOfStream: false)));
        content.Position = 0;
        switch (kind)
        {
            case FileKind.Pdf or FileKind.ElectronicInvoice:
                Take(name, within, content, isCover: false);
                break;
            case FileKind.Unknown when totals.IsCover(name):
                if (content.Length > SourceTotals.LongestCover)
                    LeaveOut(name, within, $"It is larger than {SourceTotals.LongestCover >> 10} KB, and no cover sheet.");
                else
                    Take(name, within, content, isCover: true);
                break;
            case FileKind.Archive or FileKind.Message when depth >= limits.Deep:
                LeaveOut(name, within, $"It stands {depth + 1} containers deep; {limits.Deep} are opened at most.");
                break;
            case FileKind.Archive:
                LookInto(name, within, () => LookIntoArchive(name, within, content, depth));
                break;
            case FileKind.Message:
                LookInto(name, within, () => LookIntoMessage(MimeMessage.Load(content), Inside(within, name), depth));
                break;
            case FileKind.Picture:
                LeaveOut(name, within, "It is a picture; pictures are not read yet.");
                break;
            default:
                LeaveOut(name, within, $"It is {FileKinds.Says(kind)}, and no invoice that can be read.");
                break;
        }
    }

    private void LookInto(string name, string within, Action look)
    {
        try
        {
            look();
        }
        catch (Exception error) when (error is InvalidDataException or FormatException or EndOfStreamException or NotSupportedException or ArgumentException)
        {
            LeaveOut(name, within, "It is damaged, and cannot be opened to its end.");
        }
    }

    private void LookIntoArchive(string name, string within, Stream content, int depth)
    {
        using var archive = new ZipArchive(content, ZipArchiveMode.Read, leaveOpen: true);
        foreach (var entry in archive.Entries)
        {
            if (entry.FullName.EndsWith('/') || entry.FullName.StartsWith("__MACOSX/", StringComparison.Ordinal))
                continue;
            var place = Inside(within, name);
            var folders = entry.FullName.Replace('\\', '/').Split('/', StringSplitOptions.RemoveEmptyEntries)[..^1].Where(part => part is not (".." or "."));
            place = folders.Aggregate(place, (outer, part) => Inside(outer, FileName.Of(part)));
            if (entry.IsEncrypted)
                LeaveOut(FileName.Of(entry.FullName), place, "It is encrypted within the archive.");
            else
                LookInto(FileName.Of(entry.FullName), place, () => Part(FileName.Of(entry.FullName), place, entry.Open, depth));
            if (IsFull)
                return;
        }
    }

    private void LookIntoMessage(MimeMessage message, string place, int depth)
    {
        var number = 0;
        foreach (var entity in Parts(message.Body))
        {
            number++;
            if (IsFull)
                return;
            switch (entity)
            {
                case var secret when IsSecret(secret):
                    LeaveOut("the message", place, "It is encrypted for somebody; ask the sender for one that is not.");
                    break;
                case MessagePart { Message: { } inner }:
                    if (depth + 1 >= limits.Deep)
                        LeaveOut(NameOf(inner), place, $"It stands {depth + 2} containers deep; {limits.Deep} are opened at most.");
                    else
                        LookIntoMessage(inner, Inside(place, NameOf(inner)), depth + 1);
                    break;
                case TnefPart bundle:
                    LookInto(NameOf(bundle, number), place, () => LookIntoMessage(bundle.ConvertToMessage(), Inside(place, NameOf(bundle, number)), depth + 1));
                    break;
                case TextPart text when !text.IsAttachment && text.FileName is null && !text.ContentType.IsMimeType("text", "calendar"):
                    // What the message says itself.
                    break;
                case MimePart { Content: { } content } part:
                    LookIntoPart(part, content, NameOf(part, number), place, depth);
                    break;
                case MimePart empty:
                    LeaveOut(NameOf(empty, number), place, "It is empty.");
                    break;
            }
        }
    }

    private void LookIntoPart(MimePart part, IMimeContent content, string name, string place, int depth)
    {
        if (part is ApplicationPkcs7Signature or ApplicationPgpSignature)
            LeaveOut(name, place, "It is the message's signature.");
        else if (part.ContentType.IsMimeType("text", "calendar"))
            LeaveOut(name, place, "It is an appointment.");
        else if (part.ContentType.IsMimeType("image", "*") && part.ContentDisposition?.IsAttachment != true && part.ContentId is not null)
            LeaveOut(name, place, "It is a picture within the message's text.");
        else
            LookInto(name, place, () => Part(name, place, content.Open, depth));
    }

    /// <summary>Unpacks a file, for as long as it stays within the limits, and looks what it is.</summary>
    private void Part(string name, string within, Func<Stream> open, int depth)
    {
        var unpacked = Path.Combine(folder, Guid.NewGuid().ToString("N"));
        try
        {
            using var file = new FileStream(unpacked, FileMode.CreateNew, FileAccess.ReadWrite);
            using (var packed = open())
            {
                var buffer = new byte[1 << 16];
                for (int read; (read = packed.Read(buffer)) > 0;)
                {
                    bytes += read;
                    if (file.Length + read > limits.FileBytes)
                    {
                        LeaveOut(name, within, $"It is larger than {limits.FileBytes >> 20} MB.");
                        return;
                    }
                    if (IsFull)
                    {
                        LeaveOut(name, within, $"All that is packed with it is larger than {limits.Bytes >> 20} MB; it and what follows it was not unpacked.");
                        return;
                    }
                    file.Write(buffer, 0, read);
                }
            }
            file.Position = 0;
            Look(name, within, file, depth + 1);
        }
        finally
        {
            File.Delete(unpacked);
        }
    }

    private bool IsFull => bytes > limits.Bytes || found.Count > limits.Files;

    private void Take(string name, string within, Stream content, bool isCover)
    {
        if (taken >= limits.Files)
        {
            LeaveOut(name, within, string.Create(CultureInfo.InvariantCulture, $"{limits.Files:#,0} files are taken out at most."));
            return;
        }
        taken++;
        var own = Path.Combine(folder, taken.ToString("D4", CultureInfo.InvariantCulture));
        using (var file = new FileStream(own, FileMode.CreateNew, FileAccess.Write))
            content.CopyTo(file);
        found.Add(new FoundFile(name, within, own, "") { IsCover = isCover });
    }

    private void LeaveOut(string name, string within, string why) => found.Add(new FoundFile(name, within, "", why));

    /// <summary>The leaves of a message; a message in it, and what is encrypted, as a whole.</summary>
    private static IEnumerable<MimeEntity> Parts(MimeEntity? entity) =>
        entity is Multipart and not MultipartEncrypted ? ((Multipart)entity).SelectMany(Parts) : entity is null ? [] : [entity];

    private static bool IsSecret(MimeEntity entity) => entity is MultipartEncrypted or ApplicationPkcs7Mime { SecureMimeType: SecureMimeType.EnvelopedData or SecureMimeType.AuthEnvelopedData };

    private static string NameOf(MimePart part, int number) => part.FileName is { Length: > 0 } name ? FileName.Of(name) : $"part {number} ({part.ContentType.MimeType})";

    private static string NameOf(MimeMessage message) => message.Subject is { Length: > 0 } subject ? FileName.Of(subject) : "a message without a subject";

    private static string Inside(string within, string name) => within.Length == 0 ? name : $"{within}/{name}";
}
