using System.Text;
using System.Xml;
using Daxlin.Core.Electronic;

namespace Daxlin.Reading.Containers;

/// <summary>Tells what a file is.</summary>
public static class FileKinds
{
    /// <summary>So many bytes at its beginning are looked at.</summary>
    public const int Head = 4096;

    /// <summary>A PDF may have other bytes before it begins (ISO 32000-2, annex I).</summary>
    private const int LongestBeforePdf = 1024;

    private static readonly string[] HeaderLines = ["from:", "received:", "return-path:", "mime-version:", "date:", "subject:", "message-id:", "to:", "delivered-to:", "dkim-signature:"];

    /// <param name="beginning">Its first bytes, <see cref="Head"/> at most.</param>
    public static FileKind Of(string name, ReadOnlySpan<byte> beginning)
    {
        if (beginning.IsEmpty)
            return FileKind.Empty;
        if (beginning[..Math.Min(beginning.Length, LongestBeforePdf + 5)].IndexOf("%PDF-"u8) >= 0)
            return FileKind.Pdf;
        if (beginning.StartsWith("PK\u0003\u0004"u8) || beginning.StartsWith("PK\u0005\u0006"u8))
            return beginning.IndexOf("[Content_Types].xml"u8) >= 0 || beginning.IndexOf("mimetypeapplication/vnd.oasis"u8) >= 0 ? FileKind.Office : FileKind.Archive;
        if (IsPicture(beginning))
            return FileKind.Picture;
        if (beginning.StartsWith((ReadOnlySpan<byte>)[0xD0, 0xCF, 0x11, 0xE0]))
            return FileKind.Office;
        if (ElectronicInvoiceReader.LooksLikeXml(beginning))
            return FirstElement(beginning) is "Invoice" or "CreditNote" or "CrossIndustryInvoice" ? FileKind.ElectronicInvoice : FileKind.Xml;
        return name.EndsWith(".eml", StringComparison.OrdinalIgnoreCase) || BeginsAsMessage(beginning) ? FileKind.Message : FileKind.Unknown;
    }

    /// <summary>As part of a sentence: a picture.</summary>
    public static string Says(FileKind kind) => kind switch
    {
        FileKind.Empty => "an empty file",
        FileKind.Pdf => "a PDF",
        FileKind.ElectronicInvoice => "an electronic invoice",
        FileKind.Xml => "XML that is no invoice",
        FileKind.Archive => "an archive",
        FileKind.Message => "a message",
        FileKind.Picture => "a picture",
        FileKind.Office => "a text or a spreadsheet of an office program",
        _ => "a file of another kind",
    };

    private static bool IsPicture(ReadOnlySpan<byte> bytes) =>
        bytes.StartsWith((ReadOnlySpan<byte>)[0x89, 0x50, 0x4E, 0x47]) || bytes.StartsWith((ReadOnlySpan<byte>)[0xFF, 0xD8, 0xFF]) || bytes.StartsWith("GIF8"u8) || bytes.StartsWith("II*\0"u8)
        || bytes.StartsWith("MM\0*"u8) || bytes.StartsWith("BM"u8) && bytes.Length > 6 && bytes[6] == 0 || bytes.StartsWith("RIFF"u8) && bytes.Length > 12 && bytes[8..].StartsWith("WEBP"u8);

    private static string FirstElement(ReadOnlySpan<byte> beginning)
    {
        try
        {
            using var reader = XmlReader.Create(new MemoryStream(beginning.ToArray()), new XmlReaderSettings { DtdProcessing = DtdProcessing.Prohibit, XmlResolver = null });
            while (reader.Read())
            {
                if (reader.NodeType == XmlNodeType.Element)
                    return reader.LocalName;
            }
        }
        catch (XmlException)
        {
            // Nobody's invoice begins so.
        }
        return "";
    }

    /// <summary>Says that the first line is a header's (RFC 5322, 2.2), and that one of those that messages have is among them.</summary>
    private static bool BeginsAsMessage(ReadOnlySpan<byte> beginning)
    {
        var lines = Encoding.Latin1.GetString(beginning).Split('\n');
        var first = lines[0].Split(':')[0];
        return lines[0].Contains(':', StringComparison.Ordinal) && first.Length > 1 && first.All(c => char.IsAsciiLetterOrDigit(c) || c == '-')
            && lines.Take(40).Count(line => Array.Exists(HeaderLines, header => line.StartsWith(header, StringComparison.OrdinalIgnoreCase))) >= 2;
    }
}
