using System.Collections.Immutable;
using System.Text.Json;
using System.Text.Json.Nodes;

namespace Daxlin.Accuracy;

/// <summary>A family's <c>truth.json</c>: what its invoices really say.</summary>
/// <param name="Invoices">One object an invoice, in the form that tests/corpus/README.md describes.</param>
/// <param name="NotPrinted">Names of values that do not stand on the page: <c>lines.quantity</c>.</param>
public sealed record TruthFile(ImmutableArray<TruthInvoice> Invoices, ImmutableHashSet<string> NotPrinted)
{
    public static TruthFile Load(string path)
    {
        var root = JsonNode.Parse(File.ReadAllText(path))!.AsObject();
        var notPrinted = (root["notPrinted"]?.AsArray() ?? []).Select(node => node!.GetValue<string>()).ToImmutableHashSet();
        var invoices = root["invoices"]!.AsArray().Select(node => TruthInvoice.Of(node!.AsObject(), isOneOfSeveral: false));
        var several = (root["multi"]?["invoices"]?.AsArray() ?? []).Select(node => TruthInvoice.Of(node!.AsObject(), isOneOfSeveral: true));
        return new TruthFile([.. invoices, .. several], notPrinted);
    }
}

/// <summary>One invoice of a truth file.</summary>
/// <param name="IsOneOfSeveral">Says that its file holds other invoices too.</param>
/// <param name="IsConsistent">Says that its amounts add up as printed.</param>
/// <param name="Values">Its values by name: <c>total</c>, <c>lines[1].amount</c>, <c>taxes[1].rate</c>; null where it has none.</param>
public sealed record TruthInvoice(
    string File, int FirstPage, bool IsOneOfSeveral, bool IsConsistent, int Lines, ImmutableSortedDictionary<string, string?> Values)
{
    private static readonly string[] Header =
    [
        "invoiceNumber", "invoiceDate", "dueDate", "purchaseOrder", "vendorName", "vendorTaxId", "iban", "currency",
        "subtotal", "discount", "freight", "total",
    ];

    /// <summary>Says which table a line stands in; it is no value of the line.</summary>
    private const string Table = "table";

    public static TruthInvoice Of(JsonObject node, bool isOneOfSeveral)
    {
        var values = ImmutableSortedDictionary.CreateBuilder<string, string?>(StringComparer.Ordinal);
        foreach (var name in Header)
            values[name] = Text(node[name]);
        values["tax"] = Text(node["taxTotal"]);
        values["isCreditNote"] = Text(node["isCreditNote"]);
        var taxes = node["taxes"]?.AsArray() ?? [];
        for (var row = 0; row < taxes.Count; row++)
        {
            foreach (var name in new[] { "rate", "base", "amount" })
                values[$"taxes[{row + 1}].{name}"] = Text(taxes[row]![name]);
        }
        var lines = node["lines"]!.AsArray();
        for (var row = 0; row < lines.Count; row++)
        {
            foreach (var (name, value) in lines[row]!.AsObject().Where(cell => cell.Key != Table))
                values[$"lines[{row + 1}].{name}"] = Text(value);
        }
        return new TruthInvoice(
            Text(node["file"])!, node["firstPage"]?.GetValue<int>() ?? 1, isOneOfSeveral,
            Text(node["arithmetic"]) == "consistent", lines.Count, values.ToImmutable());
    }

    private static string? Text(JsonNode? node) => node?.GetValueKind() switch
    {
        null or JsonValueKind.Null => null,
        JsonValueKind.String => node.GetValue<string>(),
        _ => node.ToJsonString(),
    };
}
