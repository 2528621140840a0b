using System.Collections.Immutable;
using System.Globalization;
using System.Text.Json;
using Daxlin.Core.Posting;
using Daxlin.Core.Posting.Coding;
using Daxlin.Core.Templates;

namespace Daxlin.Service.Posting;

/// <summary>
/// Reads of stored <see cref="Invoices.InvoiceRecord"/>s what is posted: their values. Traces, ties and findings, most of a record, are passed
/// over, and nothing is made of them.
/// </summary>
/// <remarks>
/// A run has millions of values under a few dozen names, so that each name is made once. Not for several threads at once.
/// Token by token, since a run takes half as long again where records are made of the serializer's objects (bench/posting).
/// </remarks>
internal sealed class ApprovedRecordReader
{
    private const int LongestKnownName = 64;

    /// <summary>How many values the last row had: the next mostly has as many.</summary>
    private int usualCount;

    private readonly HashSet<string> names = new(StringComparer.Ordinal);

    /// <summary>An invoice as its record says, its lines under the numbers that they have there.</summary>
    /// <param name="file">The name of the file it came in, and the SHA-256 of its bytes.</param>
    /// <param name="record">As UTF-8. Nothing was captured of an invoice that was set aside unplaced, and so nothing stands in its record.</param>
    public ApprovedInvoice Read(int id, string vendor, bool isCreditNote, string currency, (string Name, string Sha256) file, ReadOnlySpan<byte> record)
    {
        var reader = new Utf8JsonReader(record);
        reader.Read();
        Dictionary<string, string> fields = [];
        ImmutableArray<ApprovedLine> lines = [];
        ImmutableArray<ApprovedTax> taxes = [];
        ImmutableArray<CodedLine> coding = [];
        while (NextProperty(ref reader))
        {
            if (IsValue(ref reader, "fields"u8))
                fields = Values(ref reader, out _);
            else if (IsValue(ref reader, "lines"u8))
                lines = List(ref reader, Line);
            else if (IsValue(ref reader, "taxes"u8))
                taxes = [.. List(ref reader, Line).Where(row => row.Cells.ContainsKey(TradeNames.Amount)).Select(TaxOf)];
            else if (IsValue(ref reader, "coding"u8))
                coding = List(ref reader, Coded);
            else
                reader.Skip();
        }
        return new ApprovedInvoice(id, vendor, isCreditNote, currency, file.Name, file.Sha256, fields, taxes, lines) { Coding = coding };
    }

    private static ApprovedTax TaxOf(ApprovedLine row) => new(
        row.Cells.GetValueOrDefault(TradeNames.Rate, ""), row.Cells.GetValueOrDefault(TradeNames.Base, ""), AmountOf(row.Cells[TradeNames.Amount]));

    private ApprovedLine Line(ref Utf8JsonReader reader)
    {
        var (block, number, page) = ("", 0, 0);
        Dictionary<string, string> cells = [];
        ImmutableArray<ApprovedList> under = [];
        while (NextProperty(ref reader))
        {
            if (IsValue(ref reader, "block"u8))
                block = Name(ref reader);
            else if (IsValue(ref reader, "number"u8))
                number = reader.GetInt32();
            else if (IsValue(ref reader, "cells"u8))
                cells = Values(ref reader, out page);
            else if (IsValue(ref reader, "under"u8))
                under = List(ref reader, Under);
            else
                reader.Skip();
        }
        return new ApprovedLine(block, number, page, cells, under);
    }

    private ApprovedList Under(ref Utf8JsonReader reader)
    {
        var (name, flat) = ("", default(FlatForm));
        ImmutableArray<ImmutableSortedDictionary<string, string>> rows = [];
        while (NextProperty(ref reader))
        {
            if (IsValue(ref reader, "name"u8))
                name = Name(ref reader);
            else if (IsValue(ref reader, "flat"u8))
                flat = Enum.Parse<FlatForm>(reader.GetString()!, ignoreCase: true);
            else if (IsValue(ref reader, "rows"u8))
                rows = List(ref reader, (ref Utf8JsonReader row) => Values(ref row, out _).ToImmutableSortedDictionary());
            else
                reader.Skip();
        }
        return new ApprovedList(name, flat, rows);
    }

    private CodedLine Coded(ref Utf8JsonReader reader)
    {
        var line = 0;
        ImmutableArray<CodedPart> parts = [];
        while (NextProperty(ref reader))
        {
            if (IsValue(ref reader, "line"u8))
                line = reader.GetInt32();
            else if (IsValue(ref reader, "parts"u8))
                parts = List(ref reader, Part);
            else
                reader.Skip();
        }
        return new CodedLine(line, parts);
    }

    private CodedPart Part(ref Utf8JsonReader reader)
    {
        var (amount, part) = (0m, 0m);
        var codes = ImmutableSortedDictionary.CreateBuilder<string, Code>(StringComparer.Ordinal);
        while (NextProperty(ref reader))
        {
            if (IsValue(ref reader, "amount"u8))
                amount = AmountOf(reader.GetString()!);
            else if (IsValue(ref reader, "part"u8))
                part = AmountOf(reader.GetString()!);
            else if (IsValue(ref reader, "codes"u8))
            {
                while (NextProperty(ref reader))
                {
                    var name = Name(ref reader);
                    reader.Read();
                    codes[name] = CodeOf(ref reader);
                }
            }
            else
                reader.Skip();
        }
        return new CodedPart(amount, part, codes.ToImmutable());
    }

    private Code CodeOf(ref Utf8JsonReader reader)
    {
        var (value, from) = ("", "");
        while (NextProperty(ref reader))
        {
            if (IsValue(ref reader, "value"u8))
                value = Name(ref reader);
            else if (IsValue(ref reader, "from"u8))
                from = Name(ref reader);
            else
                reader.Skip();
        }
        return new Code(value, from);
    }

    /// <summary>Values by name, each an object with more beside it.</summary>
    /// <param name="page">The first page on which one of them stands; 0 if none stands on any.</param>
    private Dictionary<string, string> Values(ref Utf8JsonReader reader, out int page)
    {
        page = 0;
        var values = new Dictionary<string, string>(usualCount);
        while (NextProperty(ref reader))
        {
            var (name, value) = (Name(ref reader), "");
            reader.Read();
            while (NextProperty(ref reader))
            {
                if (IsValue(ref reader, "value"u8))
                    value = reader.GetString()!;
                else if (IsValue(ref reader, "page"u8))
                    page = reader.GetInt32() is var own and > 0 && (page == 0 || own < page) ? own : page;
                else
                    reader.Skip();
            }
            values[name] = value;
        }
        usualCount = values.Count;
        return values;
    }

    private delegate T ReadOne<T>(ref Utf8JsonReader reader);

    private static ImmutableArray<T> List<T>(ref Utf8JsonReader reader, ReadOne<T> read)
    {
        var list = ImmutableArray.CreateBuilder<T>();
        while (reader.Read() && reader.TokenType != JsonTokenType.EndArray)
            list.Add(read(ref reader));
        return list.DrainToImmutable();
    }

    /// <summary>Goes on to the next name within an object; false at its end.</summary>
    private static bool NextProperty(ref Utf8JsonReader reader) => reader.Read() && reader.TokenType == JsonTokenType.PropertyName;

    /// <summary>Says that the reader stands at a name, and goes on to its value if so.</summary>
    private static bool IsValue(ref Utf8JsonReader reader, ReadOnlySpan<byte> name) => reader.ValueTextEquals(name) && reader.Read();

    /// <summary>The text that the reader stands at, the same one for each that reads the same.</summary>
    private string Name(ref Utf8JsonReader reader)
    {
        if (reader.HasValueSequence || reader.ValueSpan.Length > LongestKnownName)
            return reader.GetString()!;
        Span<char> text = stackalloc char[LongestKnownName];
        var known = names.GetAlternateLookup<ReadOnlySpan<char>>();
        ReadOnlySpan<char> name = text[..reader.CopyString(text)];
        if (known.TryGetValue(name, out var before))
            return before;
        var made = name.ToString();
        names.Add(made);
        return made;
    }

    private static decimal AmountOf(string value) =>
        decimal.Parse(value, NumberStyles.AllowLeadingSign | NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture);
}
