using System.Collections.Immutable;
using System.Text;
using System.Text.Json;

namespace Daxlin.Core.Json;

/// <summary>Reads JSON into <see cref="JsonPlace"/>s; keys given twice are a fault.</summary>
internal ref struct JsonPlaceReader
{
    private readonly ReadOnlySpan<byte> bytes;
    private Utf8JsonReader reader;
    private int lineAt;
    private int line;

    private JsonPlaceReader(ReadOnlySpan<byte> bytes)
    {
        this.bytes = bytes;
        reader = new Utf8JsonReader(bytes, new JsonReaderOptions { MaxDepth = 16 });
        line = 1;
    }

    /// <exception cref="JsonFaultException">The text is no JSON, or has a key twice.</exception>
    public static JsonPlace Read(string json)
    {
        var places = new JsonPlaceReader(Encoding.UTF8.GetBytes(json));
        try
        {
            places.reader.Read();
            var document = places.ReadValue("");
            places.reader.Read();
            return document;
        }
        catch (JsonException error)
        {
            var at = (int)(error.LineNumber ?? 0) + 1;
            throw new JsonFaultException([new JsonFault("the document", at, "This is not JSON from here on: a comma, a quote or a bracket is missing or one too many.")]);
        }
    }

    /// <remarks>A surrogate without its other half, as in "\ud800", is no letter and could not be stored.</remarks>
    private readonly string Text(int at)
    {
        try
        {
            return reader.GetString()!;
        }
        catch (InvalidOperationException)
        {
            throw new JsonFaultException([new JsonFault("the document", at, "An escaped letter in this text is only half of one: \\ud800 to \\udfff come in pairs.")]);
        }
    }

    private JsonPlace ReadValue(string path)
    {
        var at = CurrentLine();
        switch (reader.TokenType)
        {
            case JsonTokenType.StartObject:
                var members = ImmutableArray.CreateBuilder<KeyValuePair<string, JsonPlace>>();
                while (reader.Read() && reader.TokenType == JsonTokenType.PropertyName)
                {
                    var key = Text(CurrentLine());
                    var memberPath = path.Length == 0 ? key : $"{path}.{key}";
                    if (members.Any(member => member.Key == key))
                        throw new JsonFaultException([new JsonFault(memberPath, CurrentLine(), $"The key “{key}” stands here twice.")]);
                    reader.Read();
                    members.Add(new(key, ReadValue(memberPath)));
                }
                return new JsonPlace(path, at, JsonTokenType.StartObject, "", members.DrainToImmutable(), []);
            case JsonTokenType.StartArray:
                var items = ImmutableArray.CreateBuilder<JsonPlace>();
                while (reader.Read() && reader.TokenType != JsonTokenType.EndArray)
                    items.Add(ReadValue($"{path}[{items.Count}]"));
                return new JsonPlace(path, at, JsonTokenType.StartArray, "", [], items.DrainToImmutable());
            case JsonTokenType.String:
                return new JsonPlace(path, at, JsonTokenType.String, Text(at), [], []);
            default:
                return new JsonPlace(path, at, reader.TokenType, Encoding.UTF8.GetString(reader.ValueSpan), [], []);
        }
    }

    private int CurrentLine()
    {
        var start = (int)reader.TokenStartIndex;
        line += bytes[lineAt..start].Count((byte)'\n');
        lineAt = start;
        return line;
    }
}
