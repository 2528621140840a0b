using System.Globalization;
using System.Text.Json.Nodes;

namespace Daxlin.Cli;

/// <summary>Values of the interface's JSON as a person reads them.</summary>
internal static class Shown
{
    public static string Text(JsonNode? node) => node is null ? "" : node.GetValueKind() == System.Text.Json.JsonValueKind.String
        ? Harmless(node.GetValue<string>())
        : node.ToJsonString();

    /// <summary>A text as it may be printed: control characters, which a terminal would obey, become "▯".</summary>
    /// <remarks>A vendor's "\u001b[2J" in a description would clear the screen, and a bidirectional mark turn figures around.</remarks>
    public static string Harmless(string text) => text.Any(IsObeyed) ? string.Concat(text.Select(c => IsObeyed(c) ? '▯' : c)) : text;

    private static bool IsObeyed(char c) => (char.IsControl(c) && c is not '\n') || char.GetUnicodeCategory(c) is UnicodeCategory.Format;

    public static int Number(JsonNode? node) => node?.GetValue<int>() ?? 0;

    /// <summary>"1204.50" and "EUR" as 1,204.50 EUR; an amount never stands without its currency.</summary>
    public static string Amount(string amount, string currency) => amount.Length == 0 ? "" : $"{Grouped(amount)} {currency}".TrimEnd();

    public static string Grouped(string amount) =>
        decimal.TryParse(amount, NumberStyles.AllowLeadingSign | NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var number)
            ? number.ToString("N" + number.Scale, CultureInfo.InvariantCulture)
            : amount;

    /// <summary>A state is a word with a small sign.</summary>
    public static string State(string state) => state switch
    {
        "held" => "▲ held",
        "unplaced" => "? unplaced",
        "clear" => "○ clear",
        "approved" => "● approved",
        "posted" => "■ posted",
        "returned" => "× returned",
        _ => state,
    };

    /// <summary>A field's name as it is read aloud: invoiceNumber is "invoice number".</summary>
    public static string Spoken(string name) => name switch
    {
        "iban" => "IBAN",
        "vendorTaxId" => "vendor tax ID",
        _ => string.Concat(name.Select(c => char.IsUpper(c) ? " " + char.ToLowerInvariant(c) : c.ToString())),
    };

    /// <summary>The pages of an invoice where its file holds others too: "pages 2–3 of 4"; else empty.</summary>
    public static string Pages(JsonNode? first, JsonNode? last, JsonNode? of)
    {
        var (from, to, all) = (Number(first), Number(last), Number(of));
        return to - from + 1 >= all ? "" : from == to ? $"page {from} of {all}" : $"pages {from}–{to} of {all}";
    }

    /// <summary>Numbers as a person lists them: "1–4, 6".</summary>
    public static string Ranges(IEnumerable<int> numbers)
    {
        var ranges = new List<(int From, int To)>();
        foreach (var number in numbers.Distinct().Order())
        {
            if (ranges.Count > 0 && ranges[^1].To + 1 == number)
                ranges[^1] = (ranges[^1].From, number);
            else
                ranges.Add((number, number));
        }
        return string.Join(", ", ranges.Select(range => range.From == range.To ? $"{range.From}" : $"{range.From}–{range.To}"));
    }

    public static string Cut(string text, int length) => text.Length <= length ? text : text[..(length - 1)] + "…";

    /// <summary>Words of a list: "see, work, post".</summary>
    public static string Listed(JsonNode? node) => string.Join(", ", node!.AsArray().Select(Text));

    /// <summary>The day of a time.</summary>
    public static string Day(JsonNode? node) => Text(node).Split('T')[0];

    public static string Time(JsonNode? node) =>
        DateTime.TryParse(Text(node), CultureInfo.InvariantCulture, DateTimeStyles.AdjustToUniversal, out var time)
            ? time.ToString("yyyy-MM-dd HH:mm", CultureInfo.InvariantCulture) + " UTC"
            : "";
}
