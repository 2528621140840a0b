using System.Text;
using System.Xml;
using Daxlin.Core.Posting.Layouts;
using Daxlin.Core.Posting.Ubl;

namespace Daxlin.Service.Posting.Files;

/// <summary>Writes one invoice as an electronic invoice.</summary>
internal sealed class UblFileWriter : LayoutWriter
{
    private static readonly XmlWriterSettings Form = new() { Encoding = new UTF8Encoding(encoderShouldEmitUTF8Identifier: false), Indent = true };

    public override string MediaType => "application/xml";

    public override Encoding Encoding => Encoding.UTF8;

    public override void Add(LaidOutInvoice invoice, IEnumerable<LaidOutRecord> records)
    {
        using var xml = XmlWriter.Create(Bytes, Form);
        UblDocument.Of(invoice.Ubl!).Save(xml);
        Records += records.Count();
    }

    public override byte[] End(IReadOnlyCollection<ProvedSum> sums) => Bytes.ToArray();
}
