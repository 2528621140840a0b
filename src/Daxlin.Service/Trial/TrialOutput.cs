using System.Text.Encodings.Web;
using System.Text.Json;

namespace Daxlin.Service.Trial;

/// <summary>Writes what a trial came to as the interface would: JSON in UTF-8 on the standard output.</summary>
internal static class TrialOutput
{
    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web) { Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping };

    /// <summary>Finds out how a type is written, which takes as long as to capture an invoice.</summary>
    public static void Prepare<T>() => JsonSerializer.SerializeToUtf8Bytes<T?>(default, Json);

    public static void Write<T>(T result)
    {
        using var output = Console.OpenStandardOutput();
        JsonSerializer.Serialize(output, result, Json);
    }
}
