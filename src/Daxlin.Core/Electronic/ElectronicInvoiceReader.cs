using System.Collections.Immutable;
using System.Globalization;
using System.Xml;
using System.Xml.Linq;

namespace Daxlin.Core.Electronic;

/// <summary>Reads electronic invoices in the syntaxes of EN 16931.</summary>
/// <remarks>Nothing outside the bytes is read: a document type, and so any entity of its own, is refused.</remarks>
public static class ElectronicInvoiceReader
{
    private const int MostCharacters = 32 << 20;
    private const int MostElements = 200_000;
    private const int Deepest = 64;

    private const string UblInvoice = "urn:oasis:names:specification:ubl:schema:xsd:Invoice-2";
    private const string UblCreditNote = "urn:oasis:names:specification:ubl:schema:xsd:CreditNote-2";
    private const string CiiInvoice = "urn:un:unece:uncefact:data:standard:CrossIndustryInvoice:100";

    /// <summary>Says that bytes begin as XML does, whatever they hold.</summary>
    public static bool LooksLikeXml(ReadOnlySpan<byte> bytes)
    {
        if (bytes.StartsWith("\uFEFF"u8))
            bytes = bytes[3..];
        // UTF-16 of either order begins with its mark.
        if (bytes.StartsWith((ReadOnlySpan<byte>)[0xFE, 0xFF, 0, (byte)'<']) || bytes.StartsWith((ReadOnlySpan<byte>)[0xFF, 0xFE, (byte)'<', 0]))
            return true;
        return bytes.TrimStart(" \t\r\n"u8).StartsWith("<"u8);
    }

    /// <summary>Reads a file that may be an electronic invoice.</summary>
    /// <param name="name">Its name; one that ends in .xml and is none is told.</param>
    /// <returns>Null if it is something else: a picture, an order, a list of prices.</returns>
    public static ElectronicFile? Read(string name, ReadOnlyMemory<byte> bytes)
    {
        var isNamedSo = name.EndsWith(".xml", StringComparison.OrdinalIgnoreCase);
        if (!LooksLikeXml(bytes.Span))
            return isNamedSo ? new ElectronicFile(name, null, "It does not begin as XML.") : null;
        try
        {
            return ReadInvoice(bytes) is { } invoice ? new ElectronicFile(name, invoice, "") : null;
        }
        catch (ElectronicFaultException error) when (error.InnerException is not XmlException || isNamedSo)
        {
            return new ElectronicFile(name, null, error.Message);
        }
        catch (ElectronicFaultException)
        {
            return null;
        }
    }

    /// <returns>Null if it is XML of another kind.</returns>
    /// <exception cref="ElectronicFaultException">It is damaged, or says a value that is none.</exception>
    public static ElectronicInvoice? ReadInvoice(ReadOnlyMemory<byte> bytes)
    {
        XElement root;
        try
        {
            Measure(bytes);
            using var reader = ReaderOf(bytes);
            root = XDocument.Load(reader).Root!;
        }
        catch (XmlException error)
        {
            var line = error.LineNumber > 0 ? $" (line {error.LineNumber.ToString(CultureInfo.InvariantCulture)})" : "";
            throw new ElectronicFaultException($"It is not well-formed XML, names entities of its own, or is more than an invoice may be{line}.", error);
        }
        return root.Name.NamespaceName switch
        {
            UblInvoice or UblCreditNote => UblForm.Read(new ElectronicElements(root)),
            CiiInvoice => CiiForm.Read(new ElectronicElements(root)),
            _ => null,
        };
    }

    /// <summary>Goes through the file once before it is taken into memory.</summary>
    private static void Measure(ReadOnlyMemory<byte> bytes)
    {
        using var reader = ReaderOf(bytes);
        var elements = 0;
        while (reader.Read())
        {
            if (reader.Depth > Deepest)
                throw new ElectronicFaultException($"Its elements stand more than {Deepest} deep, which no invoice needs.");
            if (reader.NodeType == XmlNodeType.Element && ++elements > MostElements)
                throw new ElectronicFaultException(FormattableString.Invariant($"It has more than {MostElements:N0} elements, which no invoice needs."));
        }
    }

    private static XmlReader ReaderOf(ReadOnlyMemory<byte> bytes) => XmlReader.Create(new MemoryStream(bytes.ToArray()), new XmlReaderSettings
    {
        DtdProcessing = DtdProcessing.Prohibit,
        XmlResolver = null,
        MaxCharactersInDocument = MostCharacters,
        IgnoreComments = true,
        IgnoreProcessingInstructions = true,
        IgnoreWhitespace = true,
    });
}
