using System.Globalization;
using System.Text;
using System.Text.Encodings.Web;
using System.Text.Json;
using Daxlin.Core.Posting.Expressions;
using Daxlin.Core.Posting.Layouts;

namespace Daxlin.Service.Posting.Files;

/// <summary>Writes an object for each invoice: the values of its own table, and a list for each other one.</summary>
/// <remarks>Where no table has the invoices' own records, the objects hold lists only. Figures are JSON numbers, digit by digit as they are.</remarks>
internal sealed class JsonFileWriter : LayoutWriter
{
    private static readonly JsonWriterOptions Form = new() { Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping };

    private readonly IReadOnlyCollection<LayoutTable> tables;
    private readonly bool isByLine;
    private Utf8JsonWriter json;

    public JsonFileWriter(FileRule file, IReadOnlyCollection<LayoutTable> tables)
    {
        this.tables = tables;
        isByLine = file.Format == FileFormat.Ndjson;
        json = new Utf8JsonWriter(Bytes, Form);
        if (!isByLine)
            json.WriteStartArray();
    }

    public override string MediaType => isByLine ? "application/x-ndjson" : "application/json";

    public override Encoding Encoding => Encoding.UTF8;

    public override void Add(LaidOutInvoice invoice, IEnumerable<LaidOutRecord> records)
    {
        var own = records.ToList();
        json.WriteStartObject();
        foreach (var table in tables.OrderBy(table => table.Records != LayoutRecords.Invoices))
        {
            var some = own.Where(record => record.Table == table).ToList();
            if (table.Records == LayoutRecords.Invoices)
            {
                some.ForEach(Write);
                continue;
            }
            json.WriteStartArray(table.Name);
            foreach (var record in some)
            {
                json.WriteStartObject();
                Write(record);
                json.WriteEndObject();
            }
            json.WriteEndArray();
        }
        json.WriteEndObject();
        Records += own.Count;
        if (!isByLine)
            return;
        json.Dispose();
        Bytes.WriteByte((byte)'\n');
        json = new Utf8JsonWriter(Bytes, Form);
    }

    private void Write(LaidOutRecord record)
    {
        for (var at = 0; at < record.Values.Length; at++)
        {
            var column = record.Table.Columns[at];
            switch (record.Values[at])
            {
                case null:
                    json.WriteNull(column.Heading);
                    break;
                case decimal number when column.Decimals is { } digits:
                    json.WritePropertyName(column.Heading);
                    json.WriteRawValue(number.ToString("F" + digits.ToString(CultureInfo.InvariantCulture), CultureInfo.InvariantCulture));
                    break;
                case decimal number:
                    json.WriteNumber(column.Heading, number);
                    break;
                case bool isSo:
                    json.WriteBoolean(column.Heading, isSo);
                    break;
                case var other:
                    json.WriteString(column.Heading, ExpressionTypes.Settled(other));
                    break;
            }
        }
    }

    public override byte[] End(IReadOnlyCollection<ProvedSum> sums)
    {
        if (!isByLine)
            json.WriteEndArray();
        json.Dispose();
        return Bytes.ToArray();
    }

    public override void Dispose()
    {
        json.Dispose();
        base.Dispose();
    }
}
