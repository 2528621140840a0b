using System.Collections.Immutable;
using System.Text.Json;

namespace Daxlin.Core.Json;

/// <summary>A value of a JSON document that knows its key's path and its line.</summary>
/// <param name="Path">As <c>blocks[0].name</c>; empty for the document itself.</param>
/// <param name="Line">From 1.</param>
/// <param name="Kind">What kind of JSON value it is.</param>
/// <param name="Text">The text of a string or number, else empty.</param>
/// <param name="Members">The members of an object, in the document's order.</param>
/// <param name="Items">The items of an array.</param>
internal sealed record JsonPlace(
    string Path,
    int Line,
    JsonTokenType Kind,
    string Text,
    ImmutableArray<KeyValuePair<string, JsonPlace>> Members,
    ImmutableArray<JsonPlace> Items)
{
    public bool IsObject => Kind == JsonTokenType.StartObject;
    public bool IsArray => Kind == JsonTokenType.StartArray;
    public bool IsString => Kind == JsonTokenType.String;

    public JsonPlace? Find(string key)
    {
        foreach (var (name, value) in Members)
        {
            if (name == key)
                return value;
        }
        return null;
    }
}
