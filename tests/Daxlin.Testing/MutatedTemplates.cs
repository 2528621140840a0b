using System.Text.Json;
using System.Text.Json.Nodes;

namespace Daxlin.Testing;

/// <summary>Template documents with anything wrong in them, by a seed: what a slip of the hand, another program or a hostile colleague may send.</summary>
public static class MutatedTemplates
{
    private static readonly JsonDocumentOptions Lenient = new() { AllowTrailingCommas = true, CommentHandling = JsonCommentHandling.Skip };
    private static readonly JsonSerializerOptions Plain = new() { WriteIndented = true };

    /// <summary>Values that stand where others are meant.</summary>
    private static readonly string[] Strange =
    [
        "null", "true", "-1", "0", "1e308", "99999999999999999999", "0.1", "\"\"", "\" \"", "\"(\"", "\"(?<amount>.*)*$\"", "\"[\\\\d.]{1,100000}\"", "\"\\\\p{Nope}\"", "\"(?<a>x)(?<a>y)\"", "\"\\u0000\"",
        "\"\\uE000\"", "\"first\"", "\"last\"", "\"EUR\"", "\"always\"", "\"amount\"", "[]", "[[]]", "[null]", "{}", "{\"\":\"\"}", "{\"beside\":\"Total\"}", "{\"matching\":\"(\\\\d+)+$\"}", "[0, -5, 1e9]", "\"a + (b * c\"",
        "{\"filled\":\"amount\"}", "\"description\"",
    ];

    /// <summary>Those that are changed, unchanged.</summary>
    public static IReadOnlyList<string> Whole { get; } =
        [.. new[] { Repository.Samples, Repository.Corpus, Repository.Families }.SelectMany(folder => Directory.GetFiles(folder, "*.template.json", SearchOption.AllDirectories)).Order(StringComparer.Ordinal).Select(File.ReadAllText)];

    /// <summary>One of them with some changes: of its values and keys, or of its letters.</summary>
    public static string Make(int seed)
    {
        var chance = new Random(seed);
        var document = Whole[chance.Next(Whole.Count)];
        if (chance.Next(4) == 0)
            return WithOtherLetters(document, chance);
        var root = JsonNode.Parse(document, documentOptions: Lenient)!;
        var other = JsonNode.Parse(Whole[chance.Next(Whole.Count)], documentOptions: Lenient)!;
        for (var change = chance.Next(1, 4); change > 0; change--)
        {
            if (chance.Next(3) == 0)
                Change(root, chance);
            else
                TakeOver(root, other, chance);
        }
        // Half a letter: what is written here as one that nobody uses, since no writer would write it.
        return root.ToJsonString(Plain).Replace("\\uE000", "\\uD800", StringComparison.Ordinal);
    }

    /// <summary>Puts what another template says under the same key in the place of what this one says: well formed, and likely not fitting.</summary>
    private static void TakeOver(JsonNode root, JsonNode other, Random chance)
    {
        var holders = Holders(root).OfType<JsonObject>().Where(one => one.Count > 0).ToList();
        var holder = holders[chance.Next(holders.Count)];
        var (key, _) = holder.ElementAt(chance.Next(holder.Count));
        var others = Holders(other).OfType<JsonObject>().Where(one => one.ContainsKey(key)).ToList();
        if (others.Count > 0)
            holder[key] = others[chance.Next(others.Count)][key]?.DeepClone();
    }

    private static void Change(JsonNode root, Random chance)
    {
        var holders = Holders(root).ToList();
        var holder = holders[chance.Next(holders.Count)];
        if (holder is JsonObject { Count: > 0 } keys)
        {
            var (key, value) = keys.ElementAt(chance.Next(keys.Count));
            var other = holders[chance.Next(holders.Count)];
            switch (chance.Next(5))
            {
                case 0:
                    keys.Remove(key);
                    break;
                case 1:
                    keys.Remove(key);
                    keys[key + "s"] = value;
                    break;
                case 2:
                    keys[key] = other.DeepClone();
                    break;
                case 3 when other is JsonObject { Count: > 0 } others:
                    var (otherKey, otherValue) = others.ElementAt(chance.Next(others.Count));
                    keys[otherKey] = otherValue?.DeepClone();
                    break;
                default:
                    keys[key] = Any(chance);
                    break;
            }
        }
        else if (holder is JsonArray values)
        {
            values.Insert(chance.Next(values.Count + 1), Any(chance));
        }
    }

    private static JsonNode? Any(Random chance) => JsonNode.Parse(Strange[chance.Next(Strange.Length)]);

    private static string WithOtherLetters(string document, Random chance)
    {
        var letters = document.ToList();
        for (var change = chance.Next(1, 9); change > 0; change--)
        {
            var at = chance.Next(letters.Count);
            var length = Math.Min(chance.Next(1, 20), letters.Count - at);
            switch (chance.Next(4))
            {
                case 0:
                    letters[at] = "{}[]\":,\\0-.\u0000\uD800é "[chance.Next(15)];
                    break;
                case 1:
                    letters.RemoveRange(at, length);
                    break;
                case 2:
                    letters.InsertRange(at, letters.GetRange(at, length));
                    break;
                default:
                    letters.InsertRange(at, new string('[', chance.Next(1, 200)));
                    break;
            }
            if (letters.Count == 0)
                break;
        }
        return new string([.. letters]);
    }

    private static IEnumerable<JsonNode> Holders(JsonNode node) => node switch
    {
        JsonObject keys => keys.Select(key => key.Value).OfType<JsonNode>().SelectMany(Holders).Prepend(node),
        JsonArray values => values.OfType<JsonNode>().SelectMany(Holders).Prepend(node),
        _ => [],
    };
}
