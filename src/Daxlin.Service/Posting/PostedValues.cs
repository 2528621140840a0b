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

/// <param name="Page">From 1; 0 for a value that stands on no page.</param>
internal readonly record struct PostedValue(string Value, int Page);

internal sealed record PostedRow(string Block, int Number, Dictionary<string, PostedValue> Cells, PostedList[] Under)
{
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
