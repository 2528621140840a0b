using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Json.Nodes;

namespace Daxlin.Core.Templates.Json;

/// <summary>Compares two template documents key by key.</summary>
/// <remarks>How they are set out does not count. Blocks are told by their names, so that one moved up or down is no change of all.</remarks>
public static class TemplateComparison
{
    private static readonly JsonSerializerOptions Readable = new() { Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping };

    /// <param name="before">A document that was saved, so it is well formed.</param>
    public static IReadOnlyList<TemplateDifference> Of(string before, string after)
    {
        var differences = new List<TemplateDifference>();
        Compare("", JsonNode.Parse(before), JsonNode.Parse(after), differences);
        return differences;
    }

    private static void Compare(string place, JsonNode? before, JsonNode? after, List<TemplateDifference> into)
    {
        if (JsonNode.DeepEquals(before, after))
            return;
        if ((before as JsonObject ?? Named(before), after as JsonObject ?? Named(after)) is not ({ } one, { } other))
        {
            into.Add(new TemplateDifference(place, Text(before), Text(after)));
            return;
        }
        foreach (var key in one.Select(pair => pair.Key).Union(other.Select(pair => pair.Key)))
            Compare(place.Length == 0 ? key : $"{place}.{key}", one[key], other[key], into);
    }

    /// <summary>A list of blocks by their names; null for other lists.</summary>
    private static JsonObject? Named(JsonNode? node)
    {
        if (node is not JsonArray { Count: > 0 } list)
            return null;
        var named = new JsonObject();
        foreach (var entry in list)
        {
            if ((entry as JsonObject)?["name"] is not JsonValue name || name.GetValueKind() != JsonValueKind.String || !named.TryAdd((string)name!, entry.DeepClone()))
                return null;
        }
        return named;
    }

    private static string Text(JsonNode? node) => node?.ToJsonString(Readable) ?? "";
}
