using System.Text.Json;

namespace Daxlin.Service.Posting;

/// <summary>Of a stored <see cref="Invoices.InvoiceRecord"/> what is posted: its values. Traces, ties and findings are passed over unread.</summary>
internal sealed record PostedValues
{
    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web);

    /// <summary>Nothing was captured of an invoice that was set aside unplaced, and so nothing stands in its record.</summary>
    public Dictionary<string, PostedValue> Fields { get; init; } = [];

    public PostedRow[] Lines { get; init; } = [];

    public PostedRow[] Taxes { get; init; } = [];

    public PostedCoding[] Coding { get; init; } = [];

    /// <param name="record">As UTF-8.</param>
    public static PostedValues Of(ReadOnlySpan<byte> record) => JsonSerializer.Deserialize<PostedValues>(record, Json)!;
}

/// <remarks>Set property by property: through constructors a long record takes twice as long to read, and a run has millions of values.</remarks>
internal sealed record PostedValue
{
    public string Value { get; init; } = "";

    /// <summary>From 1; 0 for a value that stands on no page.</summary>
    public int Page { get; init; }
}

internal sealed record PostedRow
{
    public string Block { get; init; } = "";

    public int Number { get; init; }

    public Dictionary<string, PostedValue> Cells { get; init; } = [];

    public PostedList[] Under { get; init; } = [];

    /// <summary>The value of a column, empty if the row has none.</summary>
    public string this[string column] => Cells.TryGetValue(column, out var cell) ? cell.Value : "";

    /// <summary>The page on which the row begins; 0 if it stands on none.</summary>
    public int FirstPage
    {
        get
        {
            var first = 0;
            foreach (var cell in Cells.Values)
            {
                if (cell.Page > 0 && (first == 0 || cell.Page < first))
                    first = cell.Page;
            }
            return first;
        }
    }
}

internal sealed record PostedList(string Name, string Flat, Dictionary<string, PostedValue>[] Rows);

internal sealed record PostedCoding(int Line, PostedPart[] Parts);

internal sealed record PostedPart(string Amount, string Part, Dictionary<string, PostedCode> Codes);

internal readonly record struct PostedCode(string Value, string From);
